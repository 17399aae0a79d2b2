#include "combat/damage.hpp"
#include "combat/pulls.hpp"
#include "combat/shells.hpp"

/// What each blow or shot of an attack does once it is due.
namespace gaze {
namespace {

using Index = std::uint32_t;
using How = Attack::How;

void hit(Fighting& state, const Release& release, const Attack& attack) {
  const Index target = *release.at.agent;
  const AttackId id = state.attack_id(release.who, release.attack);
  Event& event = tell_attack(state, Event::What::hit, release.who, id);
  event.other = state.id_of(target);
  event.place = state.middle(target);
  const double distance = plane_distance(state.plane(), state.bodies.position[release.who],
                                         state.bodies.position[target]);
  const Vector3d from = fighter_of(state, release.who).middle();
  state.fights.blows.push_back(
      {release.who, target, id, damage_share(attack, distance), from, from, release.due});
}

void catch_it(Fighting& state, const Release& release) {
  const Index target = *release.at.agent;
  Event& event = tell_attack(state, Event::What::caught, release.who,
                             state.attack_id(release.who, release.attack));
  event.other = state.id_of(target);
  event.place = state.bodies.position[target];
  put_out(state, target);
  state.fights.somebody_caught = true;
}

// A direction within the angle of an attack, in the plane of the level; evenly distributed.
Vector3d spread_in_plane(Fighting& state, Index who, const Attack& attack,
                         const Vector3d& velocity) {
  const double turn = (state.chance.share(who) - 0.5) * attack.spread.degrees();
  const Vector2d way =
      turned(plan_part(state.plane(), velocity), sine_cosine(Angle::from_degrees(turn)));
  if (state.plane() == Plane::upright) return {way.x(), velocity.y(), way.y()};
  return {way.x(), way.y(), velocity.z()};
}

// A direction within the cone of an attack, evenly distributed over the cap that the cone cuts out
// of a sphere (by Archimedes that is evenly along its axis).
Vector3d spread_in_cone(Fighting& state, Index who, const Attack& attack,
                        const Vector3d& velocity) {
  const double along =
      1.0 - state.chance.share(who) * (1.0 - sine_cosine(attack.spread.half()).cosine);
  const double across = std::sqrt(std::max(0.0, 1.0 - along * along));
  const SineCosine round = sine_cosine(Angle::from_degrees(360.0 * state.chance.share(who)));
  const double level = level_length(velocity);
  const double speed = std::sqrt(level * level + velocity.z() * velocity.z());
  const Vector3d left = level > 0.0 ? Vector3d{-velocity.y() / level, velocity.x() / level, 0.0}
                                    : Vector3d{0.0, 1.0, 0.0};
  const Vector3d up{-velocity.z() * left.y() / speed, velocity.z() * left.x() / speed,
                    level / speed};
  return velocity * along + (left * round.cosine + up * round.sine) * (across * speed);
}

// The launch of a shot at the middle of its target, or at a place. Nothing if the shot cannot get
// there.
std::optional<Launch> launch_of(const Fighting& state, const Release& release,
                                const Attack& attack) {
  const Fighter shooter = fighter_of(state, release.who);
  if (release.at.agent && state.lives.alive[*release.at.agent]) {
    return launch_at(state.plane(), attack, shooter, fighter_of(state, *release.at.agent),
                     state.motion_of(*release.at.agent), state.level().gravity);
  }
  if (!release.at.place) return std::nullopt;
  Fighter there;
  there.feet = *release.at.place;
  if (release.at.is_plan && !is_lobbed(attack)) {
    there.feet.z() = muzzle_of(state.plane(), attack, shooter).z();
  }
  return launch_at(state.plane(), attack, shooter, there, {0.0, 0.0, 0.0}, state.level().gravity);
}

void shoot(Fighting& state, const Release& release, const Attack& attack) {
  const auto launch = launch_of(state, release, attack);
  const Vector3d ahead =
      ahead_of(state.plane(), attack, fighter_of(state, release.who)) * attack.speed;
  fire_shell(state, release.who, release.attack,
             spread(state, release.who, attack, launch ? launch->velocity : ahead), release.at);
}

// A target that has stepped back since the pull is not hit.
bool is_still_there(const Fighting& state, const Release& release, const Attack& attack) {
  if (!state.lives.alive[*release.at.agent]) return false;
  return !release.is_late || attack.how == How::touch ||
         gets_there(state, release.who, attempt_of(state, release.who, attack, *release.at.agent));
}

void let_go(Fighting& state, const Release& release) {
  const Attack& attack = state.attack(release.who, release.attack);
  switch (attack.how) {
    case How::shot:
      return shoot(state, release, attack);
    case How::beam:
      return light_beam(state, release);
    case How::burst:
      return blast(state, release.who, release.who, state.attack_id(release.who, release.attack),
                   fighter_of(state, release.who).middle(), attack.range, release.due);
    case How::catch_:
      if (is_still_there(state, release, attack)) catch_it(state, release);
      return;
    default:
      if (is_still_there(state, release, attack)) hit(state, release, attack);
  }
}

}  // namespace

Vector3d spread(Fighting& state, Index who, const Attack& attack, const Vector3d& velocity) {
  if (attack.spread.degrees() == 0.0) return velocity;
  const bool is_flat =
      state.plane() == Plane::upright || (state.plane() == Plane::ground && !attack.spread_rises);
  return is_flat ? spread_in_plane(state, who, attack, velocity)
                 : spread_in_cone(state, who, attack, velocity);
}

void let_go_of_what_is_due(Fighting& state) {
  for (const Release& release : state.fights.releases) {
    if (release.due <= state.now() && state.is_up(release.who)) let_go(state, release);
  }
  std::erase_if(state.fights.releases, [&](const Release& release) {
    return release.due <= state.now() || !state.is_up(release.who);
  });
}

}  // namespace gaze
