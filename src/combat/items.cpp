#include <algorithm>
#include <limits>

#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/things.hpp"

/// Things that agents pick up by coming near, and what they give.
namespace gaze {
namespace {

using Index = std::uint32_t;

// Returns whether an attack has run out of ammunition. Reloading takes longer than the cooldown.
bool is_empty(const Fighting& state, Index who, Index attack) {
  const Readiness& ready = state.fights.ready[who][attack];
  return ready.at == kNeverReady || ready.at > state.now() + state.limit(who).cooldowns[attack];
}

bool has_used_ammunition(const Fighting& state, Index who, Index attack) {
  const int full = state.attack(who, attack).ammunition;
  const bool is_endless = full == 0;
  return !is_endless &&
         (state.fights.ready[who][attack].left < full || is_empty(state, who, attack));
}

// Returns the attacks of an agent that a thing refills now.
std::vector<Index> refilled_by(const Fighting& state, Index who, Index thing) {
  std::vector<Index> refilled;
  const std::vector<std::uint64_t>& refills = state.links(thing).refills;
  if (refills.empty()) return refilled;
  const std::uint64_t bits = refills[state.fixed.kind_index[who]];
  for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
    const bool is_named = (bits >> attack & 1U) != 0;
    if (is_named && has_used_ammunition(state, who, attack)) refilled.push_back(attack);
  }
  return refilled;
}

bool needs(const Fighting& state, Index who, Index thing) {
  const bool is_hurt = state.lives.health[who] < state.kind(who).health;
  return (is_hurt && state.kind(thing).thing->heals > 0.0) ||
         !refilled_by(state, who, thing).empty();
}

// Ends a reload. A cooldown continues.
void refill(Fighting& state, Index who, Index attack) {
  Readiness& ready = state.fights.ready[who][attack];
  if (is_empty(state, who, attack)) ready.at = state.now();
  ready.left = state.attack(who, attack).ammunition;
}

bool lies_there(const Fighting& state, Index thing) {
  return state.lives.presence[thing] == Presence::here && state.lives.alive[thing];
}

// Returns the largest distance between the positions of a thing and of an agent that may reach it,
// along the axes of the crowd. In side view one of them is the height.
double farthest_picker(const Fighting& state, Index thing) {
  const Kind& kind = state.kind(thing);
  const double across = kind.thing->take_reach + kind.radius + state.fixed.widest;
  const double above = kind.thing->take_reach + kind.height + state.fixed.tallest;
  return state.plane() == Plane::upright ? std::max(across, above) : across;
}

// Returns the nearest agent that may pick a thing up. Ties go to the first in the file.
std::optional<Index> picker_of(const Fighting& state, Index thing) {
  std::optional<Index> best;
  double nearest = std::numeric_limits<double>::infinity();
  const double reach = farthest_picker(state, thing);
  state.fights.pickers.near(state.bodies.position[thing], reach, [&](Index who, double) {
    const Vector3d& feet = state.bodies.position[who];
    if (!state.is_up(who) || !may_take(state, who, feet, thing)) return;
    const double gap = gap_between(state, who, feet, thing);
    if (gap > nearest || (gap == nearest && best < who)) return;
    best = who;
    nearest = gap;
  });
  return best;
}

}  // namespace

bool may_take(const Fighting& state, Index who, const Vector3d& feet, Index thing) {
  const auto& values = state.kind(thing).thing;
  if (!values || !lies_there(state, thing) || state.kind(who).thing) return false;
  if (gap_between(state, who, feet, thing) > values->take_reach) return false;
  const Whom& pickers = state.fixed.pickers[state.fixed.kind_index[thing]];
  if (!pickers.is_empty() && !pickers.means(state.somebody(who))) return false;
  return !values->is_used_up() || needs(state, who, thing);
}

void use_up(Fighting& state, Index who, Index thing) {
  double& health = state.lives.health[who];
  const double before = health;
  const double healed = std::min(state.kind(who).health, before + state.kind(thing).thing->heals);
  health = std::max(before, healed);
  Event& event = state.tell(Event::What::took, who);
  event.other = state.id_of(thing);
  event.gained = health - before;
  event.health = health;
  for (const Index attack : refilled_by(state, who, thing)) {
    refill(state, who, attack);
    if (event.attack.empty()) event.attack = state.name_of(state.attack_id(who, attack));
  }
  put_out(state, thing);
  come_back_later(state, thing);
}

// Indexes the agents only if there is a thing to pick up.
void pick_things_up(Fighting& state) {
  bool is_indexed = false;
  for (const Index thing : state.fixed.things) {
    const Whom& pickers = state.fixed.pickers[state.fixed.kind_index[thing]];
    if (pickers.is_empty() || !lies_there(state, thing)) continue;
    if (!is_indexed) {
      state.fights.pickers.rebuild(state.plane(), state.bodies.position, state.lives.alive);
    }
    is_indexed = true;
    const auto who = picker_of(state, thing);
    if (who) take(state, *who, state.bodies.position[*who], thing);
  }
}

}  // namespace gaze
