#include "travel/game_mesh.hpp"

namespace gaze {

Level ground_of(const Fixed& fixed) {
  if (!fixed.begun) return *fixed.level;
  Level level = *fixed.begun;
  const std::vector<Solid>& solids = fixed.level->solids;
  const auto known = static_cast<std::ptrdiff_t>(level.solids.size());
  level.solids.insert(level.solids.end(), solids.begin() + known, solids.end());
  return level;
}

NavigationMesh game_mesh(const Fixed& fixed, const World& world, const BodySize& body) {
  const Level& begun = fixed.begun ? *fixed.begun : *fixed.level;
  const std::vector<Solid>& solids = fixed.level->solids;
  if (begun.solids.size() == solids.size()) return {begun, world, body};
  Level level = begun;
  World grown(level);
  NavigationMesh mesh(level, grown, body);
  for (std::size_t i = begun.solids.size(); i < solids.size(); ++i) {
    level.solids.push_back(solids[i]);
    grown = grown.with_solids(level);
    mesh = mesh.with_solids(level, grown);
  }
  return mesh;
}

}  // namespace gaze
