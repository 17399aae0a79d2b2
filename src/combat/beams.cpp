#include <algorithm>
#include <cmath>

#include "combat/damage.hpp"
#include "combat/meeting.hpp"
#include "combat/shells.hpp"

/// Rays that stay on for a while.
namespace gaze {
namespace {

using Index = std::uint32_t;

// The direction of a beam: to its target while the fighter is turned to it, or to the place at
// which it is aimed.
std::optional<Vector3d> beam_way(const Fighting& state, const Beam& beam, const Attack& attack,
                                 const Fighter& fighter, const Vector3d& muzzle) {
  Fighter target;
  if (attack.aim == Attack::Aim::ahead) return std::nullopt;
  if (beam.at.agent && state.lives.alive[*beam.at.agent]) {
    target = fighter_of(state, *beam.at.agent);
    if (!is_aimed_at(state.plane(), attack, fighter, target)) return std::nullopt;
  } else if (beam.at.place) {
    target.feet = *beam.at.place;
    if (beam.at.is_plan) target.feet.z() = muzzle.z();
  } else {
    return std::nullopt;
  }
  const Vector3d to = target.middle() - muzzle;
  const double length = length_of(to);
  if (!(length > 0.0) || !can_tilt(state.plane(), fighter, to)) return std::nullopt;
  return Vector3d(to / length);
}

/// The ray of a beam: from the muzzle to the end of its range.
struct Ray {
  Shell shell;
  BallPath ball;
};

Ray ray_of(const Fighting& state, const Beam& beam) {
  const Attack& attack = state.attack(beam.who, beam.attack);
  const Fighter fighter = fighter_of(state, beam.who);
  Shell shell;
  shell.shooter = beam.who;
  shell.attack = state.attack_id(beam.who, beam.attack);
  shell.position = muzzle_of(state.plane(), attack, fighter);
  Vector3d way = ahead_of(state.plane(), attack, fighter);
  if (const auto to = beam_way(state, beam, attack, fighter, shell.position)) way = *to;
  const Segment line{shell.position, shell.position + way * attack.range};
  return {shell, {line, *attack.radius}};
}

/// Returns the first body or solid that a ray meets, with all bodies at the end of the tick.
Meeting beam_end(const Fighting& state, const Ray& ray) {
  return first_meeting(state, ray.shell, ray.ball, {1.0, 1.0}, false);
}

// Returns whether a beam with `locks_on` no longer meets its target.
bool has_lost(const Attack& attack, const Beam& beam, const Meeting& meeting) {
  return attack.locks_on && beam.at.agent && meeting.body != beam.at.agent;
}

// Deals what a beam has done so far to what it falls on: as much of its damage as of its time has
// passed.
void settle_beam(Fighting& state, Beam& beam, const Vector3d& from) {
  const Attack& attack = state.attack(beam.who, beam.attack);
  const bool is_moment = beam.from == beam.until;
  const double share =
      is_moment ? 1.0
                : static_cast<double>(beam.owed) / static_cast<double>(beam.until - beam.from);
  beam.owed = 0;
  if (!(share > 0.0)) return;
  const double left = share * damage_share(attack, beam.length);
  if (beam.solid) wear_down(state, *beam.solid, attack.damage * left, beam.who, beam.end);
  if (!beam.body || !can_hurt(state, beam.who, attack, *beam.body)) return;
  // Several beams of one step, from pulls that follow each other quickly, fall at moments of their
  // own.
  const Moment when = std::min(beam.until, state.now());
  state.fights.blows.push_back(
      {beam.who, *beam.body, state.attack_id(beam.who, beam.attack), left, from, from, when});
}

// A beam hurts in portions and not in every step. What it meets is told when that changes.
void shine(Fighting& state, Beam& beam) {
  constexpr double kPortion = 0.1;  // seconds
  const Ray whole = ray_of(state, beam);
  const Shell& ray = whole.shell;
  const Segment& line = whole.ball.path;
  const Meeting meeting = beam_end(state, whole);
  const Vector3d place = line.from + (line.to - line.from) * meeting.share;
  const Attack& attack = state.attack(beam.who, beam.attack);
  if (has_lost(attack, beam, meeting)) {
    if (beam.owed > 0) settle_beam(state, beam, ray.position);
    beam.until = state.step_start();
    return;
  }
  if (attack.locks_on && beam.at.agent) state.told.locked.push_back({beam.who, *beam.at.agent});
  state.fights.beam_rays.push_back(
      {state.id_of(beam.who), state.name_of(ray.attack), ray.position, place, *attack.radius});
  const std::optional<Index> solid =
      meeting.solid ? std::optional(meeting.solid->index) : std::nullopt;
  if (meeting.body != beam.body || solid != beam.solid) {
    if (beam.owed > 0) settle_beam(state, beam, ray.position);
    beam.body = meeting.body;
    beam.solid = solid;
    if (meeting.is_something()) tell_hit(state, ray, meeting, place);
  }
  beam.length = attack.range * meeting.share;
  beam.end = place;
  beam.owed += std::max(
      Moment{0}, std::min(beam.until, state.now()) - std::max(beam.from, state.step_start()));
  const Moment portion = state.moments(Duration::from_seconds(kPortion));
  if (beam.owed >= portion || beam.until <= state.now()) settle_beam(state, beam, ray.position);
}

}  // namespace

void light_beam(Fighting& state, const Release& release) {
  const Attack& attack = state.attack(release.who, release.attack);
  const Moment hold = state.moments(attack.hold);
  Beam& beam = state.fights.beams.emplace_back();
  beam.who = release.who;
  beam.attack = release.attack;
  beam.at = release.at;
  beam.from = release.due;
  beam.until = release.due + hold;
  const Vector3d muzzle = muzzle_of(state.plane(), attack, fighter_of(state, release.who));
  state.make_noise(muzzle, attack.fire_reach, state.fixed.links.shot, release.who);
}

std::optional<std::uint32_t> enemy_on_ray(const Fighting& state, std::uint32_t who,
                                          std::uint32_t attack) {
  Beam beam;
  beam.who = who;
  beam.attack = attack;
  const Meeting meeting = beam_end(state, ray_of(state, beam));
  if (!meeting.body || !may_harm(state, who, *meeting.body)) return std::nullopt;
  return meeting.body;
}

void shine_beams(Fighting& state) {
  state.fights.beam_rays.clear();
  state.told.locked.clear();
  for (Beam& beam : state.fights.beams) {
    if (state.is_up(beam.who)) shine(state, beam);
  }
  std::erase_if(state.fights.beams, [&](const Beam& beam) {
    return beam.until <= state.now() || !state.is_up(beam.who);
  });
}

}  // namespace gaze
