#include "geometry/lattice.hpp"

namespace gaze {
namespace {

__extension__ using Wide = __int128;

struct FromD {
  std::int64_t x;
  std::int64_t y;
  std::int64_t square() const { return x * x + y * y; }
};

FromD from(const LatticePoint& d, const LatticePoint& p) {
  return {std::int64_t{p.x} - d.x, std::int64_t{p.y} - d.y};
}

std::int64_t cross_of(const FromD& a, const FromD& b) {
  return a.x * b.y - a.y * b.x;
}

}  // namespace

bool is_in_circle(const LatticePoint& a, const LatticePoint& b, const LatticePoint& c,
                  const LatticePoint& d) {
  const FromD pa = from(d, a);
  const FromD pb = from(d, b);
  const FromD pc = from(d, c);
  return Wide{pa.square()} * cross_of(pb, pc) + Wide{pb.square()} * cross_of(pc, pa) +
             Wide{pc.square()} * cross_of(pa, pb) >
         0;
}

LatticePoint crossing(const LatticePoint& a, const LatticePoint& b, const LatticePoint& c,
                      const LatticePoint& d) {
  const double to_a = static_cast<double>(side_of(c, d, a));
  const double to_b = static_cast<double>(side_of(c, d, b));
  const double share = to_a / (to_a - to_b);
  const auto at = [share](std::int32_t from, std::int32_t to) {
    const double way = static_cast<double>(to) - from;
    return static_cast<std::int32_t>(std::floor(from + way * share + 0.5));
  };
  return {at(a.x, b.x), at(a.y, b.y)};
}

}  // namespace gaze
