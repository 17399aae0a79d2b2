#include "gaze/attacking.hpp"

#include <fmt/format.h>

#include <cmath>

#include "combat/cooldown.hpp"
#include "combat/pulls.hpp"
#include "explain/explaining.hpp"
#include "geometry/signed_turn.hpp"
#include "mind/deciding.hpp"
#include "travel/travelling.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;
using State = Explaining;

AttackAnswer no(std::string reason, double off = 0.0) {
  return {{}, false, off, std::move(reason)};
}

// What keeps it from attacking that one at all; empty if nothing does.
std::string held_by(const State& state, Index who, Index other) {
  if (!state.lives.alive[who]) return "it is defeated";
  if (!state.lives.alive[other]) return fmt::format("{} is defeated", state.agent(other).id);
  if (!state.minds.awake[who]) return "it is asleep";
  if (!may_harm(state, who, other))
    return fmt::format("it is not hostile to {}", state.agent(other).id);
  return {};
}

// Those who decide for themselves attack whom they act on.
std::string not_its_target(const State& state, Index who, Index other) {
  if (state.fixed.driver[who] != Driver::mind)
    return "it is driven, and attacks only as its driver says";
  if (state.minds.mode[who] == Mode::return_ || state.minds.mode[who] == Mode::flee) {
    return fmt::format("it does not attack in the mode {}", name_of(state.minds.mode[who]));
  }
  const auto target = state.target_agent(who);
  if (!target) return "it has noticed nobody";
  if (*target != other) return fmt::format("it acts on {}", state.agent(*target).id);
  return {};
}

double degrees_off(Plane plane, const Fighter& fighter, const Fighter& target) {
  const Vector2d way = plan_part(plane, target.middle() - fighter.middle());
  return std::abs(signed_turn(fighter.facing, way));
}

std::optional<AttackAnswer> out_of_reach(double distance, double range) {
  if (distance <= range) return std::nullopt;
  return no(fmt::format("out of reach by {:.2f} m ({:.2f} m away, at most {:.2f})",
                        distance - range, distance, range),
            distance - range);
}

std::optional<AttackAnswer> too_near(double distance, double least) {
  if (distance >= least) return std::nullopt;
  return no(fmt::format("too near by {:.2f} m ({:.2f} m away, at least {:.2f})", least - distance,
                        distance, least),
            least - distance);
}

// What is fixed may not be able to turn so far.
std::optional<AttackAnswer> beyond_limits(const State& state, Index who, Index target,
                                          double most) {
  const auto [low, high] = state.kind(who).move.turn_limits;
  if (low <= -180.0 && high >= 180.0) return std::nullopt;
  const Vector2d way = plan_part(state.plane(), state.middle(target) - state.middle(who));
  const double wanted = signed_turn(state.bodies.placed_facing[who], way);
  const double beyond = std::max(low - wanted, wanted - high) - most;
  if (beyond <= 0.0) return std::nullopt;
  return no(fmt::format("cannot turn so far by {:.1f} degrees ({:.1f} from its placed facing; "
                        "{:.1f} to {:.1f}, and {:.1f} off are allowed)",
                        beyond, wanted, low, high, most),
            beyond);
}

// Nor to tilt so far.
std::optional<AttackAnswer> tilted(const State& state, const Fighter& fighter,
                                   const Vector3d& way) {
  if (can_tilt(state.plane(), fighter, way)) return std::nullopt;
  const double level = level_length(way);
  const double rise = signed_degrees(angle_of({level, way.z()}).degrees());
  const auto [low, high] = fighter.tilt_limits;
  const double off = std::max(low - rise, rise - high);
  return no(
      fmt::format("cannot tilt so far by {:.1f} degrees ({:.1f}; {:.1f} to {:.1f} is allowed)", off,
                  rise, low, high),
      off);
}

std::optional<AttackAnswer> turned_away(double off, double most) {
  if (off <= most) return std::nullopt;
  return no(fmt::format("turned away by {:.1f} degrees ({:.1f} off, at most {:.1f})", off - most,
                        off, most),
            off - most);
}

std::string in_the_way(const State& state, const std::optional<Touch>& touch) {
  return touch ? state.level().solids[touch->solid.index].id + " is in the way"
               : "its arc is not free";
}

std::optional<AttackAnswer> friend_stops(const State& state, Index who, const Attack& attack,
                                         const Launch& launch) {
  const auto other = friend_in_the_way(state, who, attack, launch);
  if (!other) return std::nullopt;
  return no(fmt::format("{}, a friend, is in the way", state.agent(*other).id));
}

std::optional<AttackAnswer> shot_fails(const State& state, Index who, const Attack& attack,
                                       Index target) {
  const Fighter fighter = fighter_of(state, who);
  const Fighter other = fighter_of(state, target);
  const Vector3d motion = state.motion_of(target);
  const double gravity = state.level().gravity;
  if (attack.aim == Attack::Aim::mirror) return no("made only as a friend fires");
  const auto launch = launch_at(state.plane(), attack, fighter, other, motion, gravity);
  const Vector3d muzzle = muzzle_of(state.plane(), attack, fighter);
  if (!launch) {
    if (!is_lobbed(attack)) return no("it gets away faster than the shot flies");
    const Vector3d way = other.middle() - muzzle;
    const double reach = lob_reach(attack.speed, gravity * attack.gravity_share, way.z());
    const double level = level_length(way);
    return no(
        fmt::format("out of reach by {:.2f} m (its arcs end {:.2f} m away)", level - reach, reach),
        level - reach);
  }
  if (auto tilt = tilted(state, fighter, launch->velocity)) return tilt;
  if (auto stopped = friend_stops(state, who, attack, *launch)) return stopped;
  if (attack.aim == Attack::Aim::ahead) return std::nullopt;
  if (is_flight_clear(state.world, attack, muzzle, *launch, gravity)) return std::nullopt;
  const bool is_straight = !is_lobbed(attack);
  const auto touch =
      is_straight
          ? state.world.first_touch(BallPath{{muzzle, launch->meets}, attack.radius}, Stops::shots)
          : std::nullopt;
  return no(in_the_way(state, touch));
}

std::optional<AttackAnswer> not_chosen(const State& state, Index who, const Attack& attack) {
  if (is_fit(state, who, attack)) return std::nullopt;
  const double health = state.lives.health[who] / state.kind(who).health;
  return no(fmt::format("made only with {:.0f} to {:.0f} % of its health; it has {:.0f} %",
                        100.0 * attack.health_low, 100.0 * attack.health_high, 100.0 * health));
}

std::optional<AttackAnswer> no_touch(const State& state, Index who, const Attack& attack,
                                     Index target) {
  const auto side = state.fights.touches.side(state, who, target);
  if (!side) return no("it does not touch it");
  if (attack.how == Attack::How::catch_ || attack.sides.test(static_cast<std::size_t>(*side))) {
    return std::nullopt;
  }
  return no(fmt::format("touched on its {}, where this does not hurt",
                        kSideNames[static_cast<std::size_t>(*side)]));
}

// What lies between a blow or beam and its target.
std::optional<AttackAnswer> stopped(const State& state, Index who, const Attack& attack,
                                    Index target) {
  const bool is_beam = attack.how == Attack::How::beam;
  const Fighter fighter = fighter_of(state, who);
  const Vector3d middle = state.middle(target);
  const Vector3d from = is_beam ? muzzle_of(state.plane(), attack, fighter) : fighter.middle();
  if (is_beam) {
    if (auto tilt = tilted(state, fighter, middle - from)) return tilt;
    if (auto friends = friend_stops(state, who, attack, {middle - from, 1.0, middle}))
      return friends;
  }
  const auto touch =
      state.world.first_touch(BallPath{{from, middle}, is_beam ? attack.radius : 0.0},
                              is_beam ? Stops::shots : Stops::bodies);
  return touch ? std::optional(no(in_the_way(state, touch))) : std::nullopt;
}

std::optional<AttackAnswer> fails(const State& state, Index who, const Attack& attack,
                                  Index target) {
  const Fighter fighter = fighter_of(state, who);
  const Fighter other = fighter_of(state, target);
  const bool touches = attack.how == Attack::How::touch ||
                       (attack.how == Attack::How::catch_ && attack.range == 0.0);
  if (auto healthy = not_chosen(state, who, attack)) return healthy;
  if (touches) {
    if (auto apart = no_touch(state, who, attack, target)) return apart;
    return attack.how == Attack::How::touch ? std::nullopt : stopped(state, who, attack, target);
  }
  const double distance = plane_distance(state.plane(), fighter.feet, other.feet);
  if (auto far = out_of_reach(distance, attack.range)) return far;
  if (auto near = too_near(distance, attack.min_range)) return near;
  if (attack.how == Attack::How::burst) return std::nullopt;
  if (attack.how == Attack::How::catch_) return stopped(state, who, attack, target);
  const bool is_strike = attack.how == Attack::How::strike;
  const double most = is_strike ? attack.arc.degrees() / 2.0 : aim_limit(attack, fighter).degrees();
  if (auto limits = beyond_limits(state, who, target, most)) return limits;
  if (auto away = turned_away(degrees_off(state.plane(), fighter, other), most)) return away;
  if (attack.how == Attack::How::shot) return shot_fails(state, who, attack, target);
  return stopped(state, who, attack, target);
}

std::optional<AttackAnswer> not_ready(const State& state, const Readiness& ready) {
  if (ready.at == kNeverReady) return no("its ammunition has gone");
  if (ready.at <= state.now()) return std::nullopt;
  const double seconds =
      static_cast<double>(ready.at - state.now()) / 1e9 / state.level().ticks_per_second;
  return no(fmt::format("ready in {:.2f} s", seconds), seconds);
}

// With nobody to act on, what a reaction asks for goes along the facing.
AttackAnswer unaimed_answer(const State& state, Index who, Index number) {
  const Attack& attack = state.attack(who, number);
  const bool can_go_ahead = attack.how == Attack::How::shot || attack.how == Attack::How::beam ||
                            attack.how == Attack::How::burst;
  if (!can_go_ahead) return no("a reaction asks for it, but it has noticed nobody");
  if (auto healthy = not_chosen(state, who, attack)) return *healthy;
  if (auto waiting = not_ready(state, state.fights.ready[who][number])) return *waiting;
  return {{}, true, 0.0, "a reaction asks for it: it goes straight ahead"};
}

// What a driven friend does is what it does; whom it notices plays no part.
AttackAnswer mirrored_answer(const State& state, Index who, Index number) {
  const Attack& attack = state.attack(who, number);
  const auto leader = mirrored(state, who);
  if (!leader) {
    return no(fmt::format("it fires as a driven friend does, and none is within {:.2f} m",
                          attack.mirror_radius > 0.0 ? attack.mirror_radius : attack.range));
  }
  const std::string& name = state.agent(*leader).id;
  if (!state.bodies.trigger[*leader].fires) {
    return no(fmt::format("it fires as {} does, and that does not fire now", name));
  }
  if (auto healthy = not_chosen(state, who, attack)) return *healthy;
  const std::string fires = fmt::format("it fires as {} does", name);
  if (auto waiting = not_ready(state, state.fights.ready[who][number])) {
    return no(fmt::format("{}: {}", fires, waiting->reason), waiting->off);
  }
  return {{}, true, 0.0, fires};
}

AttackAnswer answer(const State& state, Index who, Index number, Index target) {
  const Attack& attack = state.attack(who, number);
  if (auto held = held_by(state, who, target); !held.empty()) return no(std::move(held));
  if (attack.aim == Attack::Aim::mirror) return mirrored_answer(state, who, number);
  const bool is_by_reaction = (state.limit(who).urged_only >> number & 1U) != 0;
  if (is_by_reaction && !is_asked_for(state, who, number)) {
    return no("made only when a reaction asks for it");
  }
  if (is_by_reaction && !state.target_agent(who) && attack.how != Attack::How::touch) {
    return unaimed_answer(state, who, number);
  }
  if (attack.how != Attack::How::touch) {
    if (auto not_it = not_its_target(state, who, target); !not_it.empty())
      return no(std::move(not_it));
  }
  const Readiness& ready = state.fights.ready[who][number];
  if (ready.at == kNeverReady) return *not_ready(state, ready);
  if (auto failure = fails(state, who, attack, target)) return *failure;
  if (auto waiting = not_ready(state, ready)) return *waiting;
  return {{}, true, 0.0, "can be made"};
}

}  // namespace

std::vector<AttackAnswer> attacks_at(const Simulation& simulation, AgentId by, AgentId other) {
  const Simulation::State& all = state_of(simulation);
  const Explaining state(all);
  const Index who = all.index_of(by);
  const Index whom = all.index_of(other);
  std::vector<AttackAnswer> answers;
  for (Index number = 0; number < state.kind(who).attacks.size(); ++number) {
    answers.push_back(answer(state, who, number, whom));
    answers.back().attack = state.attack(who, number).name;
  }
  return answers;
}

}  // namespace gaze
