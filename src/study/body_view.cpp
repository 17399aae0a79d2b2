#include "study/body_view.hpp"

#include <utility>
#include <vector>

#include "sense/look.hpp"
#include "study/sight_field.hpp"
#include "study/sight_shadows.hpp"

namespace gaze {
namespace {

// Returns the positions at which enough body points are in line of sight. `seen[k]` are those where
// at least k of the points so far are.
Outlines clear_of(const World& world, const Vector3d& eye, double reach, const FreeFloor& floor,
                  double share) {
  const SightShadows shadows(world, eye, reach);
  if (shadows.is_blind() || floor.body_points.empty()) return {};
  const std::size_t needed = points_needed(floor.body_points.size(), share);
  const Outlines whole = disc({eye.x(), eye.y()}, reach + kArcError);
  std::vector<Outlines> seen(needed + 1);
  seen[0] = whole;
  for (const double point : floor.body_points) {
    const Outlines clear = without(whole, shadows.at(floor.floor_height + point * floor.height));
    for (std::size_t k = needed; k > 0; --k) {
      seen[k] = united(seen[k], k == 1 ? clear : common(seen[k - 1], clear));
    }
  }
  return seen[needed];
}

std::vector<bool> gone_of(const Simulation& game) {
  std::vector<bool> gone;
  const std::vector<Solid>& solids = game.level().solids;
  for (std::uint32_t i = 0; i < solids.size(); ++i) {
    if (can_go_away(solids[i])) gone.push_back(game.world().is_gone({i}));
  }
  return gone;
}

}  // namespace

Outlines body_view(const Simulation& game, const Looker& looker, const FreeFloor& floor,
                   ClearView& known) {
  const Plane plane = game.level().plane;
  const SightField field(plane, looker, floor);
  const Vector3d eye = eye_of(plane, looker);
  std::vector<bool> gone = gone_of(game);
  const std::size_t solids = game.level().solids.size();
  const bool is_known = known.eye == eye && known.reach == field.reach() &&
                        known.solids == solids && known.gone == gone;
  if (!is_known) {
    known = {eye, field.reach(), solids, std::move(gone),
             clear_of(game.world(), eye, field.reach(), floor, looker.sight.visible_at_least)};
  }
  return common(field.outlines(), known.clear);
}

}  // namespace gaze
