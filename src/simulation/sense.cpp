#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

std::vector<Contact>::iterator find_contact(std::vector<Contact>& contacts, Index other) {
  return std::lower_bound(contacts.begin(), contacts.end(), other,
                          [](const Contact& contact, Index id) { return contact.other < id; });
}

void tell_noticed(Simulation::State& state, const Looker& looker, Index who, Index other) {
  const Sighting sighting = measure(state.world, looker, state.looked(other));
  Event& event = state.tell(Event::What::noticed, who);
  event.other = AgentId{other};
  event.distance = sighting.distance;
  event.angle_deg = sighting.angle_deg;
}

void tell_end(Simulation::State& state, Event::What what, Index who, const Contact& contact) {
  Event& event = state.tell(what, who);
  event.other = AgentId{contact.other};
  event.place = contact.last_place;
}

// When within the last step evidence began, taking both agents to have moved and turned evenly: so
// that `notice_time` counts from where it truly began and not from the tick that found it.
Moment evidence_start(const Simulation::State& state, const Looker& looker, Index who,
                      Index other) {
  if (state.tick == 0 || state.limit(who).notice.notice_time == 0) return state.now();
  const auto at = [](const auto& before, const auto& after, double share) {
    return (before + (after - before) * share).eval();
  };
  const Looked body = state.looked(other);
  double without = 0.0;
  double with = 1.0;
  for (int halving = 0; halving < 20; ++halving) {  // to a millionth of a step
    const double share = (without + with) / 2.0;
    Looker then = looker;
    then.feet = at(state.previous[who], state.position[who], share);
    then.facing = at(state.previous_facing[who], state.facing[who], share);
    const Vector3d feet = at(state.previous[other], state.position[other], share);
    (can_see(state.world, then, {feet, body.height, body.body_points}) ? with : without) = share;
  }
  return state.step_start() + static_cast<Moment>(std::ceil(with * kMomentsPerTick));
}

void look_at(Simulation::State& state, Index who, Looker& looker, Index other) {
  std::vector<Contact>& contacts = state.contacts[who];
  auto contact = find_contact(contacts, other);
  const bool is_known = contact != contacts.end() && contact->other == other;
  looker.has_noticed = is_known && contact->state == Contact::State::noticed;
  const bool evidence = state.alive[other] && can_see(state.world, looker, state.looked(other));
  if (!is_known && !evidence) return;
  if (!is_known) {
    const Moment since = evidence_start(state, looker, who, other);
    contact = contacts.insert(
        contact, Contact{other, Contact::State::gathering, since, state.position[other]});
  }
  if (evidence) contact->last_place = state.position[other];
  const NoticeChange change =
      update_contact(*contact, evidence, state.now(), state.limit(who).notice);
  if (change.noticed) tell_noticed(state, looker, who, other);
  if (change.lost) tell_end(state, Event::What::lost, who, *contact);
  if (change.forgot) tell_end(state, Event::What::forgot, who, *contact);
  News& news = state.news[who];
  news.noticed |= change.noticed;
  news.lost |= change.lost;
  news.forgot |= change.forgot;
  if (change.is_over) contacts.erase(contact);
}

}  // namespace

void sense(Simulation::State& state) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    state.news[who] = {};
    const Kind& kind = state.kind(who);
    if (!state.alive[who] || !kind.sight || kind.team == kNoTeam) continue;
    Looker looker{state.position[who], state.facing[who], *kind.sight, false};
    for (const Index other : state.foes_of[kind.team]) {
      if (other != who) look_at(state, who, looker, other);
    }
  }
}

}  // namespace gaze
