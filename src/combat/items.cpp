#include <algorithm>
#include <limits>

#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/things.hpp"

/// Things that somebody picks up by coming near, and what they give.
namespace gaze {
namespace {

using Index = std::uint32_t;

// An attack that reloads becomes ready far later than after its cooldown.
bool is_empty(const Fighting& state, Index who, Index attack) {
  const Readiness& ready = state.fights.ready[who][attack];
  if (ready.at == kNeverReady) return true;
  return ready.at > state.now() + state.limit(who).cooldowns[attack];
}

bool is_refilled(const Fighting& state, Index who, Index attack, const Thing& thing) {
  const Attack& values = state.attack(who, attack);
  if (values.ammunition == 0) return false;
  const std::vector<std::string>& names = thing.refills;
  if (std::find(names.begin(), names.end(), values.name) == names.end()) return false;
  return state.fights.ready[who][attack].left < values.ammunition || is_empty(state, who, attack);
}

// Calls `each(number)` for each attack that a thing fills.
template <typename Each>
void for_refilled(const Fighting& state, Index who, const Thing& thing, Each&& each) {
  for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
    if (is_refilled(state, who, attack, thing)) each(attack);
  }
}

bool needs(const Fighting& state, Index who, const Thing& thing) {
  if (thing.heals > 0.0 && state.lives.health[who] < state.kind(who).health) return true;
  bool is_any = false;
  for_refilled(state, who, thing, [&](Index) { is_any = true; });
  return is_any;
}

// A reload ends at once. A cooldown goes on.
void refill(Fighting& state, Index who, Index attack) {
  Readiness& ready = state.fights.ready[who][attack];
  if (is_empty(state, who, attack)) ready.at = state.now();
  ready.left = state.attack(who, attack).ammunition;
}

// The nearest of those who may pick a thing up; of equally near ones the first in the file.
std::optional<Index> picker_of(const Fighting& state, Index thing) {
  std::optional<Index> best;
  double nearest = std::numeric_limits<double>::infinity();
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who) || !may_take(state, who, state.bodies.position[who], thing)) continue;
    const double gap = gap_between(state, who, state.bodies.position[who], thing);
    if (gap >= nearest) continue;
    best = who;
    nearest = gap;
  }
  return best;
}

}  // namespace

bool may_take(const Fighting& state, Index who, const Vector3d& feet, Index thing) {
  const auto& values = state.kind(thing).thing;
  const bool is_there = values && state.lives.presence[thing] == Presence::here &&
                        state.lives.alive[thing] && !state.kind(who).thing;
  if (!is_there || gap_between(state, who, feet, thing) > values->take_reach) return false;
  const Whom& pickers = state.fixed.pickers[state.fixed.kind_index[thing]];
  if (!pickers.is_empty() && !pickers.means(state.somebody(who))) return false;
  return !values->is_used_up() || needs(state, who, *values);
}

void use_up(Fighting& state, Index who, Index thing) {
  const Thing& values = *state.kind(thing).thing;
  double& health = state.lives.health[who];
  const double before = health;
  health = std::max(before, std::min(state.kind(who).health, before + values.heals));
  for_refilled(state, who, values, [&](Index attack) { refill(state, who, attack); });
  Event& event = state.tell(Event::What::took, who);
  event.other = state.id_of(thing);
  event.gained = health - before;
  event.health = health;
  put_out(state, thing);
  come_back_later(state, thing);
}

void pick_things_up(Fighting& state) {
  for (const Index thing : state.fixed.things) {
    if (state.fixed.pickers[state.fixed.kind_index[thing]].is_empty()) continue;
    const auto who = picker_of(state, thing);
    if (who) take(state, *who, state.bodies.position[*who], thing);
  }
}

}  // namespace gaze
