#include "sense/make_senses.hpp"

#include <algorithm>

namespace gaze {

void add_agents(Knowledge& knowledge, const Fixed& fixed) {
  const std::size_t count = fixed.kind_index.size();
  knowledge.contacts.resize(count);
  knowledge.clue.resize(count);
  knowledge.feelers.resize(count);
  knowledge.is_still.resize(count, 1);
  knowledge.dimness.resize(count);
  for (std::size_t who = knowledge.tags.size(); who < count; ++who) {
    knowledge.tags.push_back(fixed.limits[fixed.kind_index[who]].tags);
  }
}

void add_agents(Senses& senses, const Fixed& fixed) {
  const std::size_t count = fixed.kind_index.size();
  senses.met_once.resize(count);
  senses.lost.resize(count);
  senses.zones_of.resize(count);
  senses.touches.resize(count);
}

Knowledge make_knowledge(const Fixed& fixed) {
  Knowledge knowledge;
  add_agents(knowledge, fixed);
  return knowledge;
}

Senses make_senses(const Fixed& fixed) {
  Senses senses;
  add_agents(senses, fixed);
  senses.zone_spent.resize(fixed.level->zones.size());
  return senses;
}

// Words of friends that were on their way to an agent are not told to it after it has come back.
void forget(Knowledge& knowledge, Senses& senses, std::uint32_t who) {
  knowledge.contacts[who].clear();
  knowledge.clue.reset(who);
  senses.lost.reset(who);
  senses.touches.reset(who);
  std::erase_if(senses.alarms, [&](const Alarm& one) { return one.to == who; });
}

void reset(Knowledge& knowledge, Senses& senses, const Fixed& fixed, std::uint32_t who) {
  forget(knowledge, senses, who);
  knowledge.feelers[who] = 0;
  knowledge.tags[who] = fixed.limits[fixed.kind_index[who]].tags;
  if (std::vector<MetOnce>* met = senses.met_once[who]) met->clear();
  if (std::vector<std::uint32_t>* zones = senses.zones_of[who]) zones->clear();
}

}  // namespace gaze
