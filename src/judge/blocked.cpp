#include <fmt/format.h>

#include <algorithm>

#include "combat/stance.hpp"
#include "gaze/navigation.hpp"
#include "geometry/plan.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "world/touching.hpp"

/// Attacks of what stands fixed that can hit nobody, wherever somebody stands.
namespace gaze {
namespace {

constexpr std::size_t kMostAgents = 200;

bool is_asked(const Attack& attack) {
  const bool needs_a_way = attack.how == Attack::How::shot || attack.how == Attack::How::beam ||
                           attack.how == Attack::How::strike;
  return needs_a_way && attack.aim != Attack::Aim::mirror;
}

/// Places all round within range, at the height of its feet, and where there are floors above each
/// other also higher and lower.
template <typename Use>
bool any_place(Plane plane, const Vector3d& feet, double range, Use&& use) {
  constexpr int kDirections = 72;
  constexpr int kDistances = 16;
  for (int i = 0; i < kDirections * kDistances; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(i % kDirections * 360.0 / kDirections));
    const int ring = i / kDirections;
    const double away = range * (ring + 0.99) / kDistances;
    const Vector2d offset{away * way.cosine, away * way.sine};
    if (plane == Plane::upright) {
      if (use(Vector3d(feet + Vector3d{offset.x(), 0.0, offset.y()}))) return true;
      continue;
    }
    for (const double rise : {0.0, -0.5, 0.5}) {
      if (rise != 0.0 && plane != Plane::space) continue;
      if (use(Vector3d(feet + Vector3d{offset.x(), offset.y(), rise * away}))) return true;
    }
  }
  return false;
}

// True if somebody can stand beside the attacker there, in no solid.
bool can_stand(const Bench& bench, const Fighter& fighter, const Fighter& there) {
  const double apart = plane_distance(bench.level().plane, fighter.feet, there.feet);
  if (apart < fighter.radius + there.radius) return false;
  return !bench.world().overlaps(core_of({there.feet, there.radius, there.height}), Stops::bodies);
}

bool hits_anybody(const Bench& bench, const Agent& agent, const Attack& attack, const Kind& foe) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  Vector3d feet = agent.position;
  feet.z() = altitude_of(bench.level(), kind, agent.position);
  const SineCosine facing = sine_cosine(agent.facing);
  const Stance stance = stance_of(level.plane, kind, feet, {facing.cosine, facing.sine});
  const Vector3d ground{feet.x(), feet.y(), agent.position.z()};
  return any_place(level.plane, ground, attack.range, [&](const Vector3d& place) {
    const Fighter there = fighter_of(level.plane, foe, place, {1.0, 0.0});
    return can_stand(bench, stance.fighter, there) &&
           can_hit(bench.world(), attack, stance, there, level.gravity);
  });
}

// Says what stands before the muzzle, as the agent was placed.
std::string ahead_of_it(const Bench& bench, const Agent& agent, const Attack& attack) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  const SineCosine facing = sine_cosine(agent.facing);
  const Fighter fighter =
      fighter_of(level.plane, kind, agent.position, {facing.cosine, facing.sine});
  const bool is_strike = attack.how == Attack::How::strike;
  const Vector3d from = is_strike ? fighter.middle() : muzzle_of(level.plane, attack, fighter);
  const Vector3d to = from + ahead_of(level.plane, attack, fighter) * attack.range;
  const auto touch = bench.world().first_touch(BallPath{{from, to}, *attack.radius},
                                               is_strike ? Stops::bodies : Stops::shots);
  if (!touch) return "";
  return worded("; ahead of it stands {}, {} m away", level.solids[touch->solid.index].id,
                touch->share * attack.range);
}

void judge_agent(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  for (const Attack& attack : kind.attacks) {
    if (!is_asked(attack)) continue;
    bool any_foe = false;
    bool hits = false;
    for (const std::uint32_t other : bench.kinds_in_play()) {
      if (hits || !is_hostile(level, kind.team, level.kinds[other].team)) continue;
      any_foe = true;
      hits = hits_anybody(bench, agent, attack, level.kinds[other]);
    }
    if (hits || !any_foe) continue;
    bench.say(Finding::Severity::warning, "attack-blocked", agent.place,
              worded("{} hits nobody with '{}' from where it stands, wherever they stand "
                     "within {} m and however it turns{}",
                     agent.id, attack.name, attack.range, ahead_of_it(bench, agent, attack)));
  }
}

}  // namespace

void judge_blocked(Bench& bench) {
  std::size_t asked = 0;
  for (const Agent& agent : bench.level().agents) {
    if (travels(bench.level().kind_of(agent).move->gait) || agent.driver != Driver::mind) continue;
    if (++asked <= kMostAgents) judge_agent(bench, agent);
  }
  const std::size_t judged = std::min(asked, kMostAgents);
  bench.say_left_out("whether attacks are blocked was tried for", judged, "who stay at their posts",
                     asked - judged);
}

}  // namespace gaze
