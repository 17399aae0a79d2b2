#pragma once

#include <span>
#include <vector>

#include "navigation/surface.hpp"

namespace gaze {

/// Polygons of a host's own as something to stand on. Throws UsageError as the constructor of
/// `NavigationMesh` says.
[[nodiscard]] std::vector<Surface> surfaces_of(std::span<const std::vector<Vector3d>> polygons);

}  // namespace gaze
