#pragma once

#include <vector>

#include "gaze/navigation.hpp"

namespace gaze {

/// The part of a body that solids can stop: what is above its step height.
[[nodiscard]] Cylinder body_at(const BodySize& body, const Vector3d& feet, double radius);

/// All solids that overlap a body, in the order of the level.
[[nodiscard]] std::vector<SolidId> solids_at(const World& world, const Cylinder& body);

}  // namespace gaze
