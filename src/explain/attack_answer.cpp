#include "gaze/attack_answer.hpp"
#include "level/solid_name.hpp"

#include <fmt/format.h>

#include <cmath>

#include "combat/cooldown.hpp"
#include "combat/pulls.hpp"
#include "explain/explaining.hpp"
#include "geometry/signed_turn.hpp"
#include "level/numbers.hpp"
#include "mind/deciding.hpp"
#include "travel/travelling.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;
using State = Explaining;

AttackAnswer no(std::string reason, double off = 0.0) {
  return {{}, false, off, std::move(reason)};
}

// What keeps an agent from attacking another at all; empty if nothing does.
std::string held_by(const State& state, Index who, Index other) {
  if (!state.lives.alive[who]) return "it is defeated";
  if (!state.lives.alive[other]) return fmt::format("{} is defeated", state.agent(other).id);
  if (!state.minds.awake[who]) return "it is asleep";
  if (!may_harm(state, who, other))
    return fmt::format("it is not hostile to {}", state.agent(other).id);
  return {};
}

// Agents that decide for themselves attack only whom they act on.
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

AttackAnswer out_of_reach(double distance, double range) {
  const auto [away, most] = distinct_texts(distance, range, 2);
  return no(fmt::format("out of reach by {} m ({} m away, at most {})",
                        excess_text(distance - range, 2), away, most),
            distance - range);
}

AttackAnswer too_near(double distance, double least) {
  const auto [needed, away] = distinct_texts(least, distance, 2);
  return no(fmt::format("too near by {} m ({} m away, at least {})",
                        excess_text(least - distance, 2), away, needed),
            least - distance);
}

AttackAnswer arc_too_short(double distance, double reach) {
  return no(
      fmt::format("out of reach by {:.2f} m (its arcs end {:.2f} m away)", distance - reach, reach),
      distance - reach);
}

// A fixed body may not be able to turn so far at all.
std::optional<AttackAnswer> beyond_limits(const State& state, Index who, Index target,
                                          double most) {
  const auto [low, high] = state.kind(who).move->turn_limits;
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

AttackAnswer turned_away(const State& state, Index who, Index target, const Shortfall& turn) {
  if (auto limits = beyond_limits(state, who, target, turn.limit)) return *limits;
  const auto [off, most] = distinct_texts(turn.found, turn.limit, 1);
  return no(fmt::format("turned away by {} degrees ({} off, at most {})",
                        excess_text(turn.found - turn.limit, 1), off, most),
            turn.found - turn.limit);
}

AttackAnswer tilted_too_far(const State& state, Index who, const Shortfall& tilt) {
  const double off = std::abs(tilt.found - tilt.limit);
  const auto [low, high] = state.kind(who).move->tilt_limits;
  return no(
      fmt::format("cannot tilt so far by {:.1f} degrees ({:.1f}; {:.1f} to {:.1f} is allowed)", off,
                  tilt.found, low, high),
      off);
}

std::string in_the_way(const State& state, const std::optional<Touch>& touch) {
  return touch ? solid_name(state.level(), touch->solid.index) + " is in the way"
               : "its arc is not free";
}

std::string shielded(const State& state, const std::optional<Touch>& touch) {
  return touch ? solid_name(state.level(), touch->solid.index) + " shields it from the blast"
               : "something shields it from the blast";
}

// The target does not touch it, or touches it on a side that does not strike.
AttackAnswer not_touched(const State& state, Index who, const Attack& attack, Index target) {
  const auto side = state.fights.touches.side(state, who, target);
  if (!side) return no("it does not touch it");
  if (attack.sides.test(static_cast<std::size_t>(*side))) {
    return no("it lies on the ground: its bottom strikes only while it falls");
  }
  return no(fmt::format("touched on its {}, where this does not hurt",
                        kSideNames[static_cast<std::size_t>(*side)]));
}

AttackAnswer in_words(const State& state, Index who, const Attack& attack, Index target,
                      const Shortfall& shortfall) {
  using What = Shortfall::What;
  switch (shortfall.what) {
    case What::apart:
      return not_touched(state, who, attack, target);
    case What::far:
      return out_of_reach(shortfall.found, shortfall.limit);
    case What::near:
      return too_near(shortfall.found, shortfall.limit);
    case What::turn:
      return turned_away(state, who, target, shortfall);
    case What::ray:
      return no(fmt::format("its ray falls past it: it is {:.1f} degrees off", shortfall.found),
                shortfall.found);
    case What::mirror:
      return no("made only as a friend fires");
    case What::getaway:
      return no("it gets away faster than the shot flies");
    case What::arc:
      return arc_too_short(shortfall.found, shortfall.limit);
    case What::tilt:
      return tilted_too_far(state, who, shortfall);
    case What::blast:
      return no(
          fmt::format("out of reach of its blast by {:.2f} m ({:.2f} m away, its radius is {:.2f})",
                      shortfall.found - shortfall.limit, shortfall.found, shortfall.limit),
          shortfall.found - shortfall.limit);
    case What::shielded:
      return no(shielded(state, shortfall.touch));
    default:
      return no(in_the_way(state, shortfall.touch));
  }
}

std::optional<AttackAnswer> not_chosen(const State& state, Index who, const Attack& attack) {
  if (is_fit(state, who, attack)) return std::nullopt;
  const double health = state.lives.health[who] / state.kind(who).health;
  return no(fmt::format("made only with {:.0f} to {:.0f} % of its health; it has {:.0f} %",
                        100.0 * attack.health_low, 100.0 * attack.health_high, 100.0 * health));
}

// A touch stays on the side on which it began, however far a body has sunk in since.
bool is_touched(const State& state, Index who, const Attack& attack, Index target) {
  const auto side = state.fights.touches.side(state, who, target);
  return side && strikes_with(state, who, attack, *side);
}

std::optional<AttackAnswer> fails(const State& state, Index who, const Attack& attack,
                                  Index target) {
  if (auto healthy = not_chosen(state, who, attack)) return healthy;
  if (attack.how == Attack::How::touch) {
    if (is_touched(state, who, attack, target)) return std::nullopt;
    return not_touched(state, who, attack, target);
  }
  const Attempt attempt = attempt_of(state, who, attack, target);
  if (const auto kept = shortfall(attempt)) return in_words(state, who, attack, target, *kept);
  const auto other = friend_in_the_way(state, who, attempt);
  if (!other) return std::nullopt;
  return no(fmt::format("{}, a friend, is in the way", state.agent(*other).id));
}

std::optional<AttackAnswer> not_ready(const State& state, const Readiness& ready) {
  if (ready.at == kNeverReady) return no("its ammunition has gone");
  if (ready.at <= state.now()) return std::nullopt;
  const double seconds =
      static_cast<double>(ready.at - state.now()) / 1e9 / state.level().ticks_per_second;
  return no(fmt::format("ready in {:.2f} s", seconds), seconds);
}

// If there is nobody to act on, an attack that a reaction asks for goes along the facing.
AttackAnswer unaimed_answer(const State& state, Index who, Index number) {
  const Attack& attack = state.attack(who, number);
  const bool can_go_ahead = attack.how == Attack::How::shot || attack.how == Attack::How::beam ||
                            attack.how == Attack::How::burst;
  if (!can_go_ahead) return no("a reaction asks for it, but it has noticed nobody");
  if (auto healthy = not_chosen(state, who, attack)) return *healthy;
  if (auto waiting = not_ready(state, state.fights.ready[who][number])) return *waiting;
  return {{}, true, 0.0, "a reaction asks for it: it goes straight ahead"};
}

// An agent that mirrors does what a driven friend does. Whom it notices itself plays no part.
AttackAnswer mirrored_answer(const State& state, Index who, Index number) {
  const Attack& attack = state.attack(who, number);
  const auto leader = mirrored(state, who);
  if (!leader) {
    return no(fmt::format("it fires as a driven friend does, and none is within {:.2f} m",
                          *attack.mirror_radius));
  }
  const std::string& name = state.agent(*leader).id;
  const Trigger* trigger = state.bodies.trigger[*leader];
  if (trigger == nullptr || !trigger->fires) {
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
  if (attack.how != Attack::How::touch && !(attack.locks_on && !is_by_reaction)) {
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
