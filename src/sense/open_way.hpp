#pragma once

#include <optional>

#include "gaze/world.hpp"
#include "geometry/plan.hpp"

namespace gaze {

/// How far from solids a way round their corners keeps, metres: solids are closed, so that a way
/// along one would count as blocked. It makes the way longer by at most a few of these.
constexpr double kCornerGap = 1e-6;

/// The length of the shortest way in the plan, at the height of `to`, that crosses no solid which
/// stops `what`; nothing if there is none of at most `most` metres. Shortest ways bend at convex
/// corners alone (Lee and Preparata, 1984): A* over these (Hart, Nilsson and Raphael, 1968), and
/// whether one is in sight of another is asked only for pairs that come up.
[[nodiscard]] std::optional<double> open_way(const World& world, const PlanPoint& from,
                                             const PlanPoint& to, Stops what, double most);

}  // namespace gaze
