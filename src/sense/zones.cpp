#include <algorithm>

#include "geometry/polygon.hpp"
#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

bool is_triggered_by(const Sensing& state, Index zone, Index who) {
  const Whom& whom = state.fixed.triggers[zone].whom;
  return whom.is_empty() ? !state.kind(who).thing : whom.means(state.somebody(who));
}

void change_tags(Sensing& state, const ZoneTrigger& trigger, Index who) {
  const std::uint64_t before = state.knowledge.tags[who];
  state.knowledge.tags[who] |= trigger.grants;
  state.knowledge.tags[who] &= ~trigger.takes;
  if (state.knowledge.tags[who] != before) state.told.changed_tags.push_back(who);
}

void trigger(Sensing& state, Index zone_index, Index who) {
  const Zone& zone = state.level().zones[zone_index];
  if (zone.once && state.senses.zone_spent[zone_index]) return;
  if (!is_triggered_by(state, zone_index, who)) return;
  state.senses.zone_spent[zone_index] = 1;
  Event& event = state.tell(Event::What::triggered, who);
  event.zone = zone_index;
  event.place = state.bodies.position[who];
  change_tags(state, state.fixed.triggers[zone_index], who);
  for (const Index agent : zone.wakes) {
    state.told.wakes.push_back(agent);
    state.fire(agent, Cause::triggered);
  }
  for (const Index agent : zone.tells) {
    state.fire(agent, Cause::triggered);
    state.tell_of(agent, who);
  }
}

void find_zones(Sensing& state, Index who) {
  std::vector<Index>& before = state.senses.candidates;
  std::vector<Index>& own = state.senses.zones;
  before.clear();
  own.clear();
  if (const std::vector<Index>* known = state.senses.zones_of[who]) before = *known;
  state.knowledge.dimness[who] = 0.0;
  for (Index i = 0; i < state.level().zones.size(); ++i) {
    const Zone& zone = state.level().zones[i];
    if (!is_in(state.plane(), zone, state.bodies.position[who])) continue;
    own.push_back(i);
    state.knowledge.dimness[who] =
        std::max(state.knowledge.dimness[who], zone.dimness);  // the darkest counts
  }
  for (const Index zone : own) {
    const bool is_new = std::find(before.begin(), before.end(), zone) == before.end();
    if (is_new) trigger(state, zone, who);
  }
  if (!own.empty() || !before.empty()) state.senses.zones_of.get(who) = own;
}

}  // namespace

bool is_in(Plane plane, const Zone& zone, const Vector3d& feet) {
  const bool is_at_height = *zone.base <= feet.z() && feet.z() <= *zone.base + zone.height;
  if (plane != Plane::upright && !is_at_height) return false;
  return contains(zone.outline, plan_part(plane, feet));
}

// An agent that has not moved is in the same zones as before. One that is placed inside a zone
// steps into it at tick 0.
void enter_zones(Sensing& state) {
  if (state.level().zones.empty()) return;
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who] || (state.knowledge.is_still[who] && state.clock.tick > 0))
      continue;
    find_zones(state, who);
  }
}

}  // namespace gaze
