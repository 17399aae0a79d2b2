#include "sense/make_senses.hpp"

#include <algorithm>

namespace gaze {

Knowledge make_knowledge(const Fixed& fixed) {
  const std::size_t count = fixed.kind_index.size();
  Knowledge knowledge;
  knowledge.contacts.resize(count);
  knowledge.clue.resize(count);
  knowledge.feelers.resize(count);
  knowledge.is_still.assign(count, 1);
  knowledge.dimness.resize(count);
  for (const std::uint32_t kind : fixed.kind_index) {
    knowledge.tags.push_back(fixed.limits[kind].tags);
  }
  return knowledge;
}

Senses make_senses(const Fixed& fixed) {
  const std::size_t count = fixed.kind_index.size();
  Senses senses;
  senses.was_near.resize(count);
  senses.zones_of.resize(count);
  senses.zone_spent.resize(fixed.level->zones.size());
  senses.touches = Touches(count);
  return senses;
}

// Words of friends that were on their way to an agent are not told to it after it has come back.
void forget(Knowledge& knowledge, Senses& senses, std::uint32_t who) {
  knowledge.contacts[who].clear();
  knowledge.clue[who].reset();
  senses.touches.reset(who);
  std::erase_if(senses.alarms, [&](const Alarm& one) { return one.to == who; });
}

void reset(Knowledge& knowledge, Senses& senses, const Fixed& fixed, std::uint32_t who) {
  forget(knowledge, senses, who);
  knowledge.feelers[who] = 0;
  knowledge.tags[who] = fixed.limits[fixed.kind_index[who]].tags;
  senses.was_near[who] = 0;
  senses.zones_of[who].clear();
}

}  // namespace gaze
