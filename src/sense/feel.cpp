#include <algorithm>

#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

// The bodies whose middle is so near that a sense could reach them, in the order of the file.
void find_candidates(Sensing& state, Index who, double reach) {
  state.senses.candidates.clear();
  state.senses.crowd.near(state.bodies.position[who], reach, [&](Index other, double) {
    if (other != who) state.senses.candidates.push_back(other);
  });
  std::sort(state.senses.candidates.begin(), state.senses.candidates.end());
}

bool answer(const Sensing& state, Index who, const Feeler& feeler, const Felt& felt) {
  switch (feeler.finds) {
    case Feeler::Finds::hostile:
      return felt.body && state.looks_for(who, state.senses.candidates[*felt.body]);
    case Feeler::Finds::anything:
      return felt.distance.has_value();
    default:
      return !felt.distance.has_value();
  }
}

void use_feelers(Sensing& state, Index who) {
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
    const auto number = static_cast<Index>(i);
    if (says_yes && !said_yes) state.fire(who, Cause::feels, number);
    if (!says_yes && (said_yes || is_first)) state.fire(who, Cause::misses, number);
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

// Notes that a nearness sense with `once` perceives the target. Returns whether that is the first
// time.
bool note_met(Sensing& state, Index who, Index other) {
  std::vector<MetOnce>& met = state.senses.met_once.get(who);
  const auto place = std::lower_bound(met.begin(), met.end(), other,
                                      [](const MetOnce& one, Index id) { return one.other < id; });
  if (place != met.end() && place->other == other) return false;
  met.insert(place, {other});
  return true;
}

// A target at exactly `range` is perceived.
void use_nearness(Sensing& state, Index who, const Nearness& nearness) {
  const std::uint32_t team = state.kind(who).team;
  if (team == kNoTeam) return;
  for (const Index other : state.fixed.foes_of[team]) {
    if (other == who || !state.lives.alive[other] || !state.looks_for(who, other)) continue;
    const double distance =
        distance_along(*nearness.axes, state.bodies.position[who], state.bodies.position[other]);
    if (distance > nearness.range) continue;
    if (nearness.once && !note_met(state, who, other)) continue;
    state.senses.perceived.push_back({who, other, Sense::nearness, state.moments(nearness.remember),
                                      state.bodies.position[other], std::nullopt});
  }
}

void use_touch(Sensing& state, Index who, const TouchSense& touch) {
  state.senses.touches.forget_gone(state, who);
  for (const Index other : state.senses.candidates) {
    const auto side = state.senses.touches.note(state, who, other);
    if (!side || !touch.sides.test(static_cast<std::size_t>(*side))) continue;
    if (!state.looks_for(who, other)) continue;
    const auto& contacts = state.knowledge.contacts[who];
    const bool is_new = std::none_of(contacts.begin(), contacts.end(), [&](const Contact& contact) {
      return contact.other == other && contact.is_touched;
    });
    if (is_new) state.fire(who, Cause::touches, static_cast<Index>(*side));
    state.senses.perceived.push_back({who, other, Sense::touch, state.moments(touch.remember),
                                      state.bodies.position[other], std::nullopt});
  }
}

}  // namespace

void perceive_bodies(Sensing& state, std::uint32_t who) {
  const Kind& kind = state.kind(who);
  if (!kind.feelers.empty() || kind.touch) {
    find_candidates(state, who, state.limit(who).farthest);
  }
  if (!kind.feelers.empty()) use_feelers(state, who);
  if (kind.nearness) use_nearness(state, who, *kind.nearness);
  if (kind.touch) use_touch(state, who, *kind.touch);
}

}  // namespace gaze
