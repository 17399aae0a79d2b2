#include "geometry/fine_lattice.hpp"

#include <cmath>

namespace gaze {
namespace {

struct FineWay {
  double x;
  double y;
  double square() const { return x * x + y * y; }
};

FineWay way_from(const FinePoint& d, const FinePoint& p) {
  return {static_cast<double>(p.x - d.x), static_cast<double>(p.y - d.y)};
}

double fine_cross(const FineWay& a, const FineWay& b) {
  return a.x * b.y - a.y * b.x;
}

double size_of(const FineWay& a, const FineWay& b) {
  return std::abs(a.x * b.y) + std::abs(a.y * b.x);
}

}  // namespace

FinePoint to_fine(const Vector2d& p) {
  return {std::llround(p.x() * kFinePerMetre), std::llround(p.y() * kFinePerMetre)};
}

bool is_in_circle(const FinePoint& a, const FinePoint& b, const FinePoint& c, const FinePoint& d) {
  constexpr double kRounding = 1e-14;  // relative: some twenty operations
  const FineWay pa = way_from(d, a);
  const FineWay pb = way_from(d, b);
  const FineWay pc = way_from(d, c);
  const double inside = pa.square() * fine_cross(pb, pc) + pb.square() * fine_cross(pc, pa) +
                        pc.square() * fine_cross(pa, pb);
  const double size =
      pa.square() * size_of(pb, pc) + pb.square() * size_of(pc, pa) + pc.square() * size_of(pa, pb);
  return inside > kRounding * size;
}

FinePoint crossing(const FinePoint& a, const FinePoint& b, const FinePoint& c, const FinePoint& d) {
  const auto to_a = static_cast<double>(side_of(c, d, a));
  const auto to_b = static_cast<double>(side_of(c, d, b));
  const double share = to_a / (to_a - to_b);
  const auto at = [share](std::int64_t start, std::int64_t end) {
    return start + std::llround(static_cast<double>(end - start) * share);
  };
  return {at(a.x, b.x), at(a.y, b.y)};
}

}  // namespace gaze
