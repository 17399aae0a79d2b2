#pragma once

#include <cmath>
#include <optional>

namespace gaze {

/// How near a moving point is to a convex shape, and what it gains towards or away from that for
/// each share of its way.
struct Approach {
  double distance = 0.0;  ///< 0 inside.
  double slope = 0.0;     ///< Change of distance per share; 0 inside.
};

/// The least share in [0, 1) at which a point moving along a line is within `reach` of a convex
/// shape, or nothing. Distance to a convex set is a convex function of the share, so Newton's
/// method from the left only ever undershoots the root: it needs no bracket and no tolerance, and
/// ends when rounding leaves nothing to gain. (Grazes converge linearly; 100 rounds are enough for
/// every bit of them.)
template <typename NearnessAt>
std::optional<double> first_within(double reach, NearnessAt&& nearness_at) {
  double share = 0.0;
  for (int round = 0; round < 100; ++round) {
    const Approach near = nearness_at(share);
    if (near.distance <= reach) return share;
    if (!(near.slope < 0.0)) return std::nullopt;
    const double next = share - (near.distance - reach) / near.slope;
    if (!(next < 1.0)) return std::nullopt;
    if (!(next > share)) return share;
    share = next;
  }
  return share;
}

}  // namespace gaze
