#include <fmt/format.h>

#include <array>
#include <cmath>

#include "gaze/going.hpp"
#include "geometry/plan.hpp"

namespace gaze {

// The picture is found by products alone: it is the one whose direction has the greatest product
// with the facing.
int picture_facing(const Vector2d& facing, int pictures, std::optional<int> before) {
  if (pictures != 4 && pictures != 8) {
    throw UsageError(fmt::format("{} pictures; 4 or 8 are allowed", pictures));
  }
  const double half = std::sqrt(0.5);
  const std::array<Vector2d, 8> eight{Vector2d{1.0, 0.0},    {half, half}, {0.0, 1.0},
                                      Vector2d{-half, half}, {-1.0, 0.0},  {-half, -half},
                                      Vector2d{0.0, -1.0},   {half, -half}};
  const std::size_t stride = pictures == 4 ? 2 : 1;
  constexpr double kSame = 1e-9;  // share of the facing's length: rounding is no difference
  const double length = length_of(facing);
  int best = 0;
  double best_product = -2.0 * length;
  const auto offer = [&](int picture) {
    const double product = dot(facing, eight[static_cast<std::size_t>(picture) * stride]);
    if (product <= best_product + kSame * length) return;
    best = picture;
    best_product = product;
  };
  if (before && *before >= 0 && *before < pictures) offer(*before);
  // The directions in the order of their distance from +x.
  for (int i = 0; i <= pictures / 2; ++i) {
    offer(i);
    if (i > 0 && i < pictures / 2) offer(pictures - i);
  }
  return best;
}

}  // namespace gaze
