#include <algorithm>

#include "simulation/stages.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

// Bodies whose middle lies so near that a sense could reach them, in file order.
void find_candidates(Simulation::State& state, Index who, double reach) {
  state.senses.candidates.clear();
  state.senses.crowd.near(state.bodies.position[who], reach, [&](Index other, double) {
    if (other != who) state.senses.candidates.push_back(other);
  });
  std::sort(state.senses.candidates.begin(), state.senses.candidates.end());
}

bool answer(const Simulation::State& state, Index who, const Feeler& feeler, const Felt& felt) {
  switch (feeler.finds) {
    case Feeler::Finds::hostile:
      return felt.body && looks_for(state, who, state.senses.candidates[*felt.body]);
    case Feeler::Finds::anything:
      return felt.distance.has_value();
    default:
      return !felt.distance.has_value();
  }
}

void use_feelers(Simulation::State& state, Index who) {
  const std::vector<Feeler>& feelers = state.kind(who).feelers;
  state.senses.bodies.clear();
  for (const Index other : state.senses.candidates)
    state.senses.bodies.push_back(state.body(other));
  for (std::size_t i = 0; i < feelers.size(); ++i) {
    const Felt felt =
        feel(state.world, state.level().ground_height, feelers[i], state.bodies.position[who],
             feeler_facing(state, who, feelers[i]), state.senses.bodies);
    const bool says_yes = answer(state, who, feelers[i], felt);
    const std::uint32_t bit = 1U << i;
    const bool said_yes = (state.knowledge.feelers[who] & bit) != 0;
    const bool is_first = state.clock.tick == 0;
    if (says_yes && !said_yes) state.fire(who, Cause::feels, feelers[i].name);
    if (!says_yes && (said_yes || is_first)) state.fire(who, Cause::misses, feelers[i].name);
    state.knowledge.feelers[who] =
        says_yes ? state.knowledge.feelers[who] | bit : state.knowledge.feelers[who] & ~bit;
    if (says_yes && feelers[i].finds == Feeler::Finds::hostile) {
      const Index other = state.senses.candidates[*felt.body];
      state.senses.perceived.push_back({who, other, Sense::feeler,
                                        state.moments(feelers[i].remember),
                                        state.bodies.position[other], std::nullopt});
    }
  }
}

// To the nearest of those it looks for; ties by file order.
void use_nearness(Simulation::State& state, Index who, const Nearness& nearness) {
  if (nearness.once && state.senses.was_near[who]) return;
  double best = nearness.range;
  std::optional<Index> nearest;
  const std::uint32_t team = state.kind(who).team;
  if (team == kNoTeam) return;
  for (const Index other : state.fixed.foes_of[team]) {
    if (other == who || !state.lives.alive[other] || !looks_for(state, who, other)) continue;
    const double distance =
        distance_along(nearness.axes, state.bodies.position[who], state.bodies.position[other]);
    if (distance < best || (distance == best && !nearest)) {
      best = distance;
      nearest = other;
    }
  }
  if (!nearest) return;
  state.senses.was_near[who] = 1;
  state.senses.perceived.push_back({who, *nearest, Sense::nearness,
                                    state.moments(nearness.remember),
                                    state.bodies.position[*nearest], std::nullopt});
}

void use_touch(Simulation::State& state, Index who, const TouchSense& touch) {
  forget_touches(state, who);
  for (const Index other : state.senses.candidates) {
    const auto side = note_touch(state, who, other);
    if (!side || !touch.sides.test(static_cast<std::size_t>(*side))) continue;
    if (!looks_for(state, who, other)) continue;
    const auto& contacts = state.knowledge.contacts[who];
    const bool is_new = std::none_of(contacts.begin(), contacts.end(), [&](const Contact& contact) {
      return contact.other == other && contact.is_touched;
    });
    if (is_new) state.fire(who, Cause::touches, kSideNames[static_cast<std::size_t>(*side)]);
    state.senses.perceived.push_back({who, other, Sense::touch, state.moments(touch.remember),
                                      state.bodies.position[other], std::nullopt});
  }
}

}  // namespace

std::optional<Side> side_touched(const Simulation::State& state, std::uint32_t who,
                                 std::uint32_t other) {
  const auto side =
      touched_side(state.plane(), state.body(who), state.bodies.facing[who], state.body(other),
                   state.bodies.previous[who], state.bodies.previous[other]);
  if (!side) return side;
  for (const Touching& one : state.senses.touching[who]) {
    if (one.other == other) return one.side;
  }
  return side;
}

void forget_touches(Simulation::State& state, std::uint32_t who) {
  std::erase_if(state.senses.touching[who], [&](const Touching& one) {
    return !state.lives.alive[one.other] || !side_touched(state, who, one.other);
  });
}

std::optional<Side> note_touch(Simulation::State& state, std::uint32_t who, std::uint32_t other) {
  const auto side = side_touched(state, who, other);
  std::vector<Touching>& known = state.senses.touching[who];
  const bool is_new = std::none_of(known.begin(), known.end(),
                                   [&](const Touching& one) { return one.other == other; });
  if (side && is_new) known.push_back({other, *side});
  return side;
}

bool looks_for(const Simulation::State& state, std::uint32_t who, std::uint32_t other) {
  if (who == other) return false;
  const KindLimits& limits = state.limit(who);
  const std::uint32_t team = state.kind(other).team;
  if (team == kNoTeam || limits.wants_team.empty() || !limits.wants_team[team]) return false;
  if (!limits.wants_kind.empty() && !limits.wants_kind[state.fixed.kind_index[other]]) return false;
  return limits.wanted_tags == 0 || (limits.wanted_tags & state.knowledge.tags[other]) != 0;
}

void perceive_bodies(Simulation::State& state, std::uint32_t who) {
  const Kind& kind = state.kind(who);
  if (!kind.feelers.empty() || kind.touch) {
    find_candidates(state, who, state.limit(who).farthest);
  }
  if (!kind.feelers.empty()) use_feelers(state, who);
  if (kind.nearness) use_nearness(state, who, *kind.nearness);
  if (kind.touch) use_touch(state, who, *kind.touch);
}

}  // namespace gaze
