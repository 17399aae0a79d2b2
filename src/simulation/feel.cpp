#include <algorithm>

#include "simulation/stages.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

// Bodies whose middle lies so near that a sense could reach them, in file order.
void find_candidates(Simulation::State& state, Index who, double reach) {
  state.candidates.clear();
  state.crowd.near(state.position[who], reach, [&](Index other, double) {
    if (other != who) state.candidates.push_back(other);
  });
  std::sort(state.candidates.begin(), state.candidates.end());
}

bool answer(const Simulation::State& state, Index who, const Feeler& feeler, const Felt& felt) {
  switch (feeler.finds) {
    case Feeler::Finds::hostile:
      return felt.body && looks_for(state, who, state.candidates[*felt.body]);
    case Feeler::Finds::anything:
      return felt.distance.has_value();
    default:
      return !felt.distance.has_value();
  }
}

void use_feelers(Simulation::State& state, Index who) {
  const std::vector<Feeler>& feelers = state.kind(who).feelers;
  state.bodies.clear();
  for (const Index other : state.candidates) state.bodies.push_back(state.body(other));
  for (std::size_t i = 0; i < feelers.size(); ++i) {
    const Felt felt = feel(state.world, state.level->ground_height, feelers[i], state.position[who],
                           feeler_facing(state, who, feelers[i]), state.bodies);
    const bool says_yes = answer(state, who, feelers[i], felt);
    const std::uint32_t bit = 1U << i;
    const bool said_yes = (state.feelers[who] & bit) != 0;
    const bool is_first = state.tick == 0;
    if (says_yes && !said_yes) state.fire(who, Cause::feels, feelers[i].name);
    if (!says_yes && (said_yes || is_first)) state.fire(who, Cause::misses, feelers[i].name);
    state.feelers[who] = says_yes ? state.feelers[who] | bit : state.feelers[who] & ~bit;
    if (says_yes && feelers[i].finds == Feeler::Finds::hostile) {
      const Index other = state.candidates[*felt.body];
      state.perceived.push_back({who, other, Sense::feeler,
                                 moments_of(feelers[i].remember, state.level->ticks_per_second),
                                 state.position[other], std::nullopt});
    }
  }
}

// To the nearest of those it looks for; ties by file order.
void use_nearness(Simulation::State& state, Index who, const Nearness& nearness) {
  if (nearness.once && state.was_near[who]) return;
  double best = nearness.range;
  std::optional<Index> nearest;
  const std::uint32_t team = state.kind(who).team;
  if (team == kNoTeam) return;
  for (const Index other : state.foes_of[team]) {
    if (other == who || !state.alive[other] || !looks_for(state, who, other)) continue;
    const double distance =
        distance_along(nearness.axes, state.position[who], state.position[other]);
    if (distance < best || (distance == best && !nearest)) {
      best = distance;
      nearest = other;
    }
  }
  if (!nearest) return;
  state.was_near[who] = 1;
  state.perceived.push_back({who, *nearest, Sense::nearness,
                             moments_of(nearness.remember, state.level->ticks_per_second),
                             state.position[*nearest], std::nullopt});
}

void use_touch(Simulation::State& state, Index who, const TouchSense& touch) {
  forget_touches(state, who);
  for (const Index other : state.candidates) {
    const auto side = note_touch(state, who, other);
    if (!side || !touch.sides.test(static_cast<std::size_t>(*side))) continue;
    if (!looks_for(state, who, other)) continue;
    const auto& contacts = state.contacts[who];
    const bool is_new = std::none_of(contacts.begin(), contacts.end(), [&](const Contact& contact) {
      return contact.other == other && contact.is_touched;
    });
    if (is_new) state.fire(who, Cause::touches, kSideNames[static_cast<std::size_t>(*side)]);
    state.perceived.push_back({who, other, Sense::touch,
                               moments_of(touch.remember, state.level->ticks_per_second),
                               state.position[other], std::nullopt});
  }
}

}  // namespace

std::optional<Side> side_touched(const Simulation::State& state, std::uint32_t who,
                                 std::uint32_t other) {
  const auto side = touched_side(state.plane(), state.body(who), state.facing[who],
                                 state.body(other), state.previous[who], state.previous[other]);
  if (!side) return side;
  for (const Touching& one : state.touching[who]) {
    if (one.other == other) return one.side;
  }
  return side;
}

void forget_touches(Simulation::State& state, std::uint32_t who) {
  std::erase_if(state.touching[who], [&](const Touching& one) {
    return !state.alive[one.other] || !side_touched(state, who, one.other);
  });
}

std::optional<Side> note_touch(Simulation::State& state, std::uint32_t who, std::uint32_t other) {
  const auto side = side_touched(state, who, other);
  std::vector<Touching>& known = state.touching[who];
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
  if (!limits.wants_kind.empty() && !limits.wants_kind[state.kind_index[other]]) return false;
  return limits.wanted_tags == 0 || (limits.wanted_tags & state.tags[other]) != 0;
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
