#include "gaze/tools/duel.hpp"

#include <algorithm>
#include <map>
#include <utility>

#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Pairs = std::map<std::pair<AgentId, AgentId>, Duel>;

void set_first(std::optional<double>& time, double seconds) {
  if (!time) time = seconds;
}

const Attack* attack_of(const Kind& kind, std::string_view name) {
  const auto it = std::find_if(kind.attacks.begin(), kind.attacks.end(),
                               [&](const Attack& attack) { return attack.name == name; });
  return it == kind.attacks.end() ? nullptr : &*it;
}

// An attack of the agent by its name, or else that of a thing which it may have thrown or broken.
const Attack* attack_of(const Level& level, AgentId who, std::string_view name) {
  const Attack* own = attack_of(level.kind_of(level.agents[who.index]), name);
  for (const Kind& kind : level.kinds) {
    if (own == nullptr && kind.thing) own = attack_of(kind, name);
  }
  return own;
}

bool fires(const Attack* attack) {
  return attack != nullptr && attack->how == Attack::How::shot;
}

bool bursts(const Attack* attack) {
  return attack != nullptr && (attack->how == Attack::How::burst || attack->blast_radius > 0.0);
}

// In these events the agent is who was hurt, and the other is who did it.
void count_harm(Pairs& pairs, const Level& level, const Event& event, double seconds) {
  Duel& duel = pairs[{*event.other, event.agent}];
  if (event.what == Event::What::defeated) {
    set_first(duel.defeated, seconds);
    return;
  }
  if (bursts(attack_of(level, *event.other, event.attack))) ++duel.hits;
  duel.dealt += event.damage;
  duel.by_side[static_cast<std::size_t>(event.side)] += event.damage;
  set_first(duel.first_hurt, seconds);
  duel.last_hurt = seconds;
}

void count(Pairs& pairs, const Level& level, const Event& event, double seconds) {
  if (!event.other) return;
  switch (event.what) {
    case Event::What::hurt:
    case Event::What::defeated:
      return count_harm(pairs, level, event, seconds);
    case Event::What::noticed:
      return set_first(pairs[{event.agent, *event.other}].noticed, seconds);
    case Event::What::attacked: {
      Duel& duel = pairs[{event.agent, *event.other}];
      ++duel.pulls;
      if (!fires(attack_of(level, event.agent, event.attack))) ++duel.blows;
      return set_first(duel.first_attacked, seconds);
    }
    case Event::What::fired:
      ++pairs[{event.agent, *event.other}].blows;
      return;
    case Event::What::caught:
      ++pairs[{event.agent, *event.other}].hits;
      return;
    case Event::What::hit:
      if (bursts(attack_of(level, event.agent, event.attack))) return;
      ++pairs[{event.agent, *event.other}].hits;
      return;
    default:
      return;
  }
}

}  // namespace

std::optional<double> Duel::hit_share() const {
  if (blows == 0) return std::nullopt;
  return static_cast<double>(hits) / blows;
}

std::optional<double> Duel::damage_rate() const {
  if (!first_attacked || !last_hurt || !(*last_hurt > *first_attacked)) return std::nullopt;
  return dealt / (*last_hurt - *first_attacked);
}

std::optional<double> Duel::warning() const {
  if (!noticed || !first_hurt || *first_hurt < *noticed) return std::nullopt;
  return *first_hurt - *noticed;
}

std::optional<double> Duel::time_to_defeat() const {
  if (!noticed || !defeated || *defeated < *noticed) return std::nullopt;
  return *defeated - *noticed;
}

std::vector<HarmPlace> harm_places(const Simulation& simulation, std::span<const Event> events) {
  const Level& level = simulation.level();
  const auto outside = static_cast<std::uint32_t>(level.zones.size());
  std::map<std::pair<AgentId, std::uint32_t>, HarmPlace> places;
  for (const Event& event : events) {
    if (event.what != Event::What::hurt) continue;
    std::uint32_t zone = 0;
    while (zone < outside && !is_in(level.plane, level.zones[zone], event.place)) ++zone;
    HarmPlace& place = places[{event.agent, zone}];
    place.victim = event.agent;
    if (zone < outside) place.zone = zone;
    ++place.blows;
    place.dealt += event.damage;
  }
  std::vector<HarmPlace> result;
  result.reserve(places.size());
  for (const auto& [key, place] : places) result.push_back(place);
  return result;
}

std::vector<Duel> duels(const Simulation& simulation, std::span<const Event> events) {
  Pairs pairs;
  for (const Event& event : events) {
    count(pairs, simulation.level(), event,
          static_cast<double>(event.tick) / simulation.level().ticks_per_second);
  }
  std::vector<Duel> result;
  for (auto& [who, duel] : pairs) {
    if (duel.pulls == 0 && duel.dealt == 0.0) continue;
    duel.by = who.first;
    duel.victim = who.second;
    result.push_back(duel);
  }
  return result;
}

}  // namespace gaze
