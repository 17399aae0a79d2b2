#include "travel/scan.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

/// One turn of a scan, in degrees. The head turns at a constant rate and pauses at the end.
struct Swing {
  double from = 0.0;
  double to = 0.0;
};

double swing_seconds(const Swing& swing, double rate, double pause) {
  return std::abs(swing.to - swing.from) / rate + pause;
}

double along(const Swing& swing, double rate, double seconds) {
  const double turned = std::min(rate * seconds, std::abs(swing.to - swing.from));
  return swing.to < swing.from ? swing.from - turned : swing.from + turned;
}

double sweep(const Scan& scan, double seconds) {
  const double half = scan.arc.degrees() / 2.0;
  const double rate = scan.rate.degrees();
  const double pause = scan.pause.seconds();
  // From straight ahead to the left end is half a swing; then right, then left, and so on.
  const Swing first{0.0, half};
  const double lead = swing_seconds(first, rate, pause);
  if (seconds < lead) return along(first, rate, seconds);
  const Swing right{half, -half};
  const double each = swing_seconds(right, rate, pause);
  const double rest = std::fmod(seconds - lead, 2.0 * each);
  if (rest < each) return along(right, rate, rest);
  return along({-half, half}, rate, rest - each);
}

double list(const Scan& scan, double seconds) {
  const double rate = scan.rate.degrees();
  const double pause = scan.pause.seconds();
  const std::size_t count = scan.headings.size();
  if (count == 0) return 0.0;
  const auto stretch = [&](std::size_t i) {
    return Swing{scan.headings[i].degrees(), scan.headings[(i + 1) % count].degrees()};
  };
  double period = 0.0;
  for (std::size_t i = 0; i < count; ++i) period += swing_seconds(stretch(i), rate, pause);
  if (!(period > 0.0)) return scan.headings[0].degrees();
  double rest = std::fmod(seconds, period);
  for (std::size_t i = 0; i < count; ++i) {  // it pauses at a heading, then turns to the next
    if (rest < pause) return stretch(i).from;
    const double length = swing_seconds(stretch(i), rate, pause);
    if (rest < length) return along(stretch(i), rate, rest - pause);
    rest -= length;
  }
  return scan.headings[0].degrees();
}

}  // namespace

double scan_degrees(const Scan& scan, double seconds) {
  switch (scan.style) {
    case Scan::Style::sweep:
      return sweep(scan, seconds);
    case Scan::Style::list:
      return list(scan, seconds);
    default: {
      const Swing round{0.0, 360.0};
      const double length = swing_seconds(round, scan.rate.degrees(), scan.pause.seconds());
      return along(round, scan.rate.degrees(), std::fmod(seconds, length));
    }
  }
}

}  // namespace gaze
