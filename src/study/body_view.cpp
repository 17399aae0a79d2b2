#include "study/body_view.hpp"

#include <utility>
#include <vector>

#include "sense/look.hpp"
#include "study/sight_field.hpp"
#include "study/sight_shadows.hpp"

namespace gaze {
namespace {

// Returns the positions at which enough body points are in line of sight. `clear_for(point)`
// returns the positions at which one point is. `seen[k]` holds those at which at least k points
// are.
template <typename ClearFor>
Outlines where_enough(const FreeFloor& floor, double share, ClearFor&& clear_for) {
  if (floor.body_points.empty()) return {};
  const std::size_t needed = points_needed(floor.body_points.size(), share);
  std::vector<Outlines> seen(needed + 1);
  for (const double point : floor.body_points) {
    const Outlines clear = clear_for(point);
    for (std::size_t k = needed; k > 0; --k) {
      seen[k] = united(seen[k], k == 1 ? clear : common(seen[k - 1], clear));
    }
  }
  return seen[needed];
}

Outlines clear_from_above(const World& world, const Vector3d& eye, double reach,
                          const FreeFloor& floor, double share) {
  const SightShadows shadows(world, eye, reach);
  if (shadows.is_blind()) return {};
  const Outlines whole = disc({eye.x(), eye.y()}, reach + kArcError);
  return where_enough(floor, share, [&](double point) {
    return without(whole, shadows.at(floor.floor_height + point * floor.height));
  });
}

// In side view a body point lies above the feet in the plane itself. The positions of the feet at
// which it is seen are the seen area, moved down by the height of the point.
Outlines clear_from_side(const World& world, const Vector3d& eye, double reach,
                         const FreeFloor& floor, double share) {
  Looker all_round;
  all_round.feet = eye;
  all_round.sight.eye = Vector3d{0.0, 0.0, 0.0};
  all_round.sight.range = reach + 2.0 * floor.height;
  all_round.sight.field_of_view = Angle::from_degrees(360.0);
  const Outline visible = outline_of(seen_area(world, all_round));
  if (visible.size() < 3) return {};
  return where_enough(floor, share, [&](double point) {
    Outline moved = visible;
    for (Vector2d& corner : moved) corner.y() -= point * floor.height;
    return Outlines{std::move(moved)};
  });
}

Outlines clear_of(const World& world, const Vector3d& eye, double reach, const FreeFloor& floor,
                  double share) {
  return world.plane() == Plane::upright ? clear_from_side(world, eye, reach, floor, share)
                                         : clear_from_above(world, eye, reach, floor, share);
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
