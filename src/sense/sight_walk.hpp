#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "sense/plan_regions.hpp"

namespace gaze {

/// A gap between two directions, less than half a turn, over which an eye looks into a triangle.
struct SightGap {
  std::uint32_t entry = 0;
  Vector2d right{0.0, 0.0};  ///< The direction, from the eye, of any length.
  Vector2d left{0.0, 0.0};
};

/// Where a gap ends that an eye has looked through.
struct SightEnd {
  SightGap gap;                             ///< What is left of it, at its last edge.
  const PlanRegions::Side* side = nullptr;  ///< What fills it; none: nothing within the range.
};

/// Looks on through gaps, from triangle to triangle, until each ends at a side or out of range: the
/// triangular expansion of Bungiu, Hemmer, Hershberger, Huang and Kroeller (2014).
class SightWalk {
 public:
  /// What is the same for all gaps of one eye.
  struct Eye {
    const World& world;
    Vector2d place{0.0, 0.0};
    double range2 = 0.0;  ///< Square metres.
  };

  /// Anticlockwise, as the gaps are. Valid until the next walk.
  std::span<const SightEnd> walk(const PlanRegions& regions, const Eye& eye,
                                 std::span<const SightGap> gaps);

 private:
  // The sign of y * a + x * b, for a place (x, y) from the eye, says for both ends at once on which
  // side of them the place lies.
  using Pair = double __attribute__((vector_size(16)));

  /// A gap on its way. Gaps that come of one are linked from right to left, so that it does not
  /// matter in which order they are followed.
  struct Part {
    Pair a;
    Pair b;
    std::uint32_t entry = 0;
    std::uint32_t next = kNone;
    const PlanRegions::Side* side = nullptr;
  };

  class Steps;

  std::vector<Part> parts_;
  std::vector<std::uint32_t> waiting_;
  std::vector<SightEnd> ends_;
};

}  // namespace gaze
