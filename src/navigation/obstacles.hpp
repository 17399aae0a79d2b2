#pragma once

#include <vector>

#include "gaze/navigation.hpp"

namespace gaze {

/// What of a body solids can stop: from its step height upwards.
[[nodiscard]] Cylinder body_at(const BodySize& body, const Vector3d& feet, double radius);

/// All solids that a body overlaps, in the order of the level.
[[nodiscard]] std::vector<SolidId> solids_at(const World& world, const Cylinder& body);

}  // namespace gaze
