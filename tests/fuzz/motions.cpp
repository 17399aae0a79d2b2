#include "fuzz/motions.hpp"

#include <algorithm>

namespace gaze::fuzz {
namespace {

/// Does one thing to every place, direction and length of a level.
class Mover {
 public:
  Mover(Plane plane, const Motion& motion)
      : is_upright_(plane == Plane::upright), motion_(motion) {}

  void move(Vector3d& p) const {
    if (is_upright_) {
      if (motion_.is_mirrored) p.x() = -p.x();
    } else {
      const Vector2d turned = turn({p.x(), p.y()});
      p = {turned.x(), turned.y(), p.z()};
    }
    p += motion_.shift;
  }

  void move(Vector2d& p) const {
    if (is_upright_) {
      p = {(motion_.is_mirrored ? -p.x() : p.x()) + motion_.shift.x(), p.y() + motion_.shift.z()};
    } else {
      p = turn(p) + Vector2d{motion_.shift.x(), motion_.shift.y()};
    }
  }

  // Outlines may run either way round; those of what is mirrored run the other way.
  void move(std::vector<Vector2d>& points) const {
    for (Vector2d& p : points) move(p);
  }

  void move(Angle& facing) const {
    double degrees = facing.degrees();
    if (is_upright_) {
      facing = Angle::from_degrees(motion_.is_mirrored ? 180.0 - degrees : degrees);
      return;
    }
    if (motion_.is_mirrored) degrees = -degrees;
    degrees += 90.0 * motion_.quarters;
    if (degrees > 360.0) degrees -= 360.0;
    facing = Angle::from_degrees(degrees);
  }

  /// An angle from the facing.
  void mirror(Angle& angle) const {
    if (motion_.is_mirrored) angle = Angle::from_degrees(-angle.degrees());
  }
  void mirror(Vector3d& offset) const {
    if (motion_.is_mirrored && !is_upright_) offset.y() = -offset.y();
  }
  template <typename Values>
  void mirror_sides(Values& values) const {
    if (!motion_.is_mirrored || is_upright_) return;
    const auto left = static_cast<std::size_t>(Side::left);
    const auto right = static_cast<std::size_t>(Side::right);
    const auto kept = static_cast<std::remove_cvref_t<decltype(values[0])>>(values[left]);
    values[left] = values[right];
    values[right] = kept;
  }
  void mirror_sides(SideSet& sides) const {
    if (!motion_.is_mirrored || is_upright_) return;
    const bool left = sides[static_cast<std::size_t>(Side::left)];
    sides[static_cast<std::size_t>(Side::left)] = sides[static_cast<std::size_t>(Side::right)];
    sides[static_cast<std::size_t>(Side::right)] = left;
  }
  bool swaps_axes() const { return !is_upright_ && motion_.quarters % 2 != 0; }

 private:
  Vector2d turn(Vector2d p) const {
    if (motion_.is_mirrored) p.y() = -p.y();
    for (int i = 0; i < motion_.quarters; ++i) p = {-p.y(), p.x()};
    return p;
  }

  bool is_upright_;
  const Motion& motion_;
};

void move(const Mover& mover, Solid& solid) {
  mover.move(solid.points);
  mover.move(solid.from);
  mover.move(solid.to);
  for (Triangle& triangle : solid.triangles) {
    for (Vector3d& corner : triangle) mover.move(corner);
  }
}

void move(const Mover& mover, Kind& kind) {
  if (kind.sight) mover.mirror(*kind.sight->eye);
  if (kind.scan) {
    for (Angle& heading : kind.scan->headings) mover.mirror(heading);
  }
  for (Feeler& feeler : kind.feelers) {
    mover.mirror(*feeler.from);
    mover.mirror(feeler.toward);
  }
  if (kind.nearness && mover.swaps_axes())
    std::swap((*kind.nearness->axes)[0], (*kind.nearness->axes)[1]);
  if (kind.touch) mover.mirror_sides(kind.touch->sides);
  mover.mirror_sides(kind.side_factors);
  for (Attack& attack : kind.attacks) {
    mover.mirror(*attack.muzzle);
    mover.mirror(attack.toward);
    mover.mirror_sides(attack.sides);
  }
  for (Rule& rule : kind.when.rules) {
    if (rule.reaction.turn) mover.mirror(*rule.reaction.turn);
  }
}

void move(const Mover& mover, Agent& agent) {
  mover.move(agent.position);
  mover.move(agent.facing);
  for (Vector3d& point : agent.patrol) mover.move(point);
  for (PatrolStop& stop : agent.stops) {
    if (stop.look) mover.move(*stop.look);
  }
  for (ScriptStep& step : agent.script) {
    mover.move(step.place);
    mover.move(step.facing);
  }
}

template <typename T>
void twice(T& value) {
  value *= 2.0;
}
template <typename T>
void twice(std::optional<T>& value) {
  if (value) *value *= 2.0;
}

void double_senses(Kind& kind) {
  if (kind.sight) {
    for (double* length : {&kind.sight->range, &*kind.sight->keep_range, &kind.sight->near_ring}) {
      twice(*length);
    }
    twice(*kind.sight->eye);
  }
  if (kind.hearing) twice(kind.hearing->range);
  for (Feeler& feeler : kind.feelers) {
    twice(*feeler.from);
    twice(feeler.length);
    twice(feeler.thickness);
  }
  if (kind.nearness) twice(kind.nearness->range);
  if (kind.tell) twice(kind.tell->range);
  twice(kind.choose.stick);
}

void double_move(Move& move) {
  for (double* length :
       {&move.speed, &*move.step_height, &move.step_reach, &move.quiet_reach, &move.stride,
        &move.search_radius, &move.repath_distance, &move.acceleration, &move.keep_away,
        &move.follow_distance, &*move.follow_start, &move.flee_distance, &*move.hop_height,
        &*move.hop_length, &*move.drop_height, &*move.hover_height}) {
    twice(*length);
  }
  twice(move.stop_distance);
  twice(move.idle_speed);
}

void double_attack(Attack& attack) {
  for (double* length :
       {&attack.range, &attack.min_range, &attack.push, &attack.speed, &*attack.radius,
        &attack.blast_radius, &attack.noise_reach, &attack.fire_reach, &*attack.mirror_radius}) {
    twice(*length);
  }
  twice(*attack.muzzle);
}

void double_kind(Kind& kind) {
  twice(kind.radius);
  twice(kind.height);
  double_senses(kind);
  double_move(*kind.move);
  for (Attack& attack : kind.attacks) double_attack(attack);
  if (kind.thing) {
    double_attack(kind.thing->flight);
    twice(kind.thing->take_reach);
  }
  for (Rule& rule : kind.when.rules) twice(rule.reaction.reach);
}

void double_agent(Agent& agent) {
  twice(agent.position);
  for (Vector3d& point : agent.patrol) twice(point);
  for (ScriptStep& step : agent.script) {
    twice(step.place);
    twice(step.speed);
    twice(step.reach);
  }
}

void double_solid(Solid& solid) {
  for (Vector2d& point : solid.points) twice(point);
  for (double* length : {&solid.thickness, &*solid.base, &solid.height, &solid.width}) {
    twice(*length);
  }
  twice(solid.from);
  twice(solid.to);
  twice(solid.door.opens_within);
  for (Triangle& triangle : solid.triangles) {
    for (Vector3d& corner : triangle) twice(corner);
  }
}

}  // namespace

Level moved(Level level, const Motion& motion) {
  const Mover mover(level.plane, motion);
  for (Solid& solid : level.solids) move(mover, solid);
  for (Zone& zone : level.zones) mover.move(zone.outline);
  for (Link& link : level.links) {
    mover.move(link.from);
    mover.move(link.to);
  }
  for (Start& start : level.starts) mover.move(start.outline);
  if (level.bounds) mover.move(level.bounds->outline);
  for (Kind& kind : level.kinds) move(mover, kind);
  for (Agent& agent : level.agents) move(mover, agent);
  return level;
}

Level doubled(Level level) {
  twice(level.gravity);
  twice(level.ground_height);
  for (Solid& solid : level.solids) double_solid(solid);
  for (Zone& zone : level.zones) {
    for (Vector2d& point : zone.outline) twice(point);
    twice(zone.base);
    twice(zone.height);
  }
  for (Link& link : level.links) {
    twice(link.from);
    twice(link.to);
  }
  for (Start& start : level.starts) {
    for (Vector2d& point : start.outline) twice(point);
    twice(start.distance);
  }
  if (level.bounds) {
    for (Vector2d& point : level.bounds->outline) twice(point);
    twice(level.bounds->low);
    twice(level.bounds->high);
  }
  for (Kind& kind : level.kinds) double_kind(kind);
  for (Agent& agent : level.agents) double_agent(agent);
  return level;
}

Level in_another_order(Level level) {
  std::reverse(level.solids.begin(), level.solids.end());
  std::reverse(level.zones.begin(), level.zones.end());
  std::reverse(level.links.begin(), level.links.end());
  std::reverse(level.materials.begin(), level.materials.end());
  const auto last_material = static_cast<std::uint32_t>(level.materials.size() - 1);
  for (Solid& solid : level.solids) solid.material = last_material - solid.material;
  std::reverse(level.teams.begin(), level.teams.end());
  const auto last_team = static_cast<std::uint32_t>(level.teams.size() - 1);
  for (Team& team : level.teams) {
    for (std::uint32_t& other : team.hostile) other = last_team - other;
  }
  for (std::uint32_t& team : level.round.ends_without) team = last_team - team;
  for (Kind& kind : level.kinds) {
    if (kind.team != kNoTeam) kind.team = last_team - kind.team;
  }
  return level;
}

}  // namespace gaze::fuzz
