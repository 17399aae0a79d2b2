#include "navigation/obstacles.hpp"

#include <algorithm>

#include "world/index.hpp"

namespace gaze {

Cylinder body_at(const BodySize& body, const Vector3d& feet, double radius) {
  return {feet + Vector3d{0.0, 0.0, body.step_height}, radius, body.height - body.step_height};
}

std::vector<SolidId> solids_at(const World& world, const Cylinder& body) {
  std::vector<SolidId> solids;
  const World::Index& index = index_of(world);
  const PlanBody plan = to_plan(world.plane(), body);
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    if (!stops(world, piece, Stops::bodies)) continue;
    const PieceShape shape(index, piece);
    if (!overlaps(shape.prism(), plan)) continue;
    const SolidId solid{index.pieces[piece].solid};
    if (std::find(solids.begin(), solids.end(), solid) == solids.end()) solids.push_back(solid);
  }
  std::sort(solids.begin(), solids.end(),
            [](const SolidId& a, const SolidId& b) { return a.index < b.index; });
  return solids;
}

}  // namespace gaze
