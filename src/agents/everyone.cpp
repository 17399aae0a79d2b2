#include "agents/everyone.hpp"

#include <algorithm>

namespace gaze {

Event& Teller::tell(Event::What what, std::uint32_t who) const {
  Event& event = events.all.emplace_back();
  event.what = what;
  event.tick = clock.tick;
  event.agent = id_of(who);
  event.place = bodies.position[who];
  return event;
}

void Teller::make_noise(const Vector3d& place, double reach, const NoiseName& name,
                        std::optional<std::uint32_t> maker) const {
  if (!(reach > 0.0)) return;
  told.noises.push_back({{place, reach}, name, maker, clock.tick});
  if (maker) told.last_noise.set(*maker, told.noises.back());
}

void Teller::fire(std::uint32_t who, Cause cause, std::uint32_t about) const {
  const std::vector<Rule>& rules = kind(who).when.rules;
  const std::vector<RuleLinks>& own = links(who).rules;
  std::size_t best = rules.size();
  for (std::size_t i = 0; i < rules.size(); ++i) {
    if (rules[i].cause != cause) continue;
    if (own[i].about == about && about != kAnything) {
      best = i;
      break;
    }
    if (own[i].about == kAnything && best == rules.size()) best = i;
  }
  if (best < rules.size()) told.news[who].fired |= std::uint64_t{1} << best;
}

void Teller::fire_by_kind(std::uint32_t who, Cause cause, std::uint32_t other) const {
  const std::vector<Rule>& rules = kind(who).when.rules;
  const std::vector<RuleLinks>& own = links(who).rules;
  for (std::uint32_t at = fixed.kind_index[other]; at != kNoBase; at = fixed.bases[at]) {
    const std::uint32_t named = fixed.links.kinds[at].named;
    for (std::size_t i = 0; i < rules.size(); ++i) {
      if (rules[i].cause == cause && own[i].about == named) return fire(who, cause, named);
    }
  }
  fire(who, cause);
}

void Teller::tell_of(std::uint32_t who, std::uint32_t other) const {
  if (!looks_for(who, other)) return;
  const auto& tell = kind(who).tell;
  const Duration remember = tell ? tell->remember : Tell{}.remember;
  told.sudden.push_back(
      {who, other, Sense::told, moments(remember), bodies.position[other], std::nullopt});
}

std::optional<Focus> focus_of(const Everyone& all, std::uint32_t who) {
  const Clue* clue = all.knowledge.clue[who];
  if (!all.minds.has_target[who] && !clue) return std::nullopt;
  const auto& contact = all.minds.target[who];
  const bool is_noticed = contact && contact->state == Contact::State::noticed;
  if (contact && (is_noticed || !clue || contact->since >= clue->since)) {
    const std::uint32_t other = contact->other;
    Focus focus{std::nullopt, contact->last_place, contact->last_motion, all.kind(other).height};
    if (is_noticed) {
      focus.agent = other;
      focus.place = all.bodies.seen_position[other];
    }
    return focus;
  }
  if (!clue) return std::nullopt;
  return Focus{std::nullopt, clue->place, {0.0, 0.0, 0.0}, 0.0};
}

Vector3d hand_of(const Everyone& all, std::uint32_t who, const Vector3d& feet) {
  constexpr double kHandHeight = 0.8;  // of the height
  return feet + Vector3d{0.0, 0.0, kHandHeight * all.kind(who).height};
}

double gap_between(const Everyone& all, std::uint32_t who, const Vector3d& feet,
                   std::uint32_t other) {
  const Vector3d& its = all.bodies.position[other];
  const double across =
      level_distance(all.plane(), feet, its) - all.kind(who).radius - all.kind(other).radius;
  const double above = its.z() - feet.z() - all.kind(who).height;
  const double below = feet.z() - its.z() - all.kind(other).height;
  return std::max({0.0, across, above, below});
}

}  // namespace gaze
