#include <algorithm>

#include "sense/notice.hpp"
#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

std::vector<Contact>::iterator find_contact(std::vector<Contact>& contacts, Index other) {
  return std::lower_bound(contacts.begin(), contacts.end(), other,
                          [](const Contact& contact, Index id) { return contact.other < id; });
}

Looker looker_of(const Sensing& state, Index who) {
  return {state.bodies.position[who], state.bodies.head[who], *state.kind(who).sight, false};
}

void tell_noticed(Sensing& state, Index who, const Contact& contact, std::optional<Index> teller) {
  Looker looker{
      state.bodies.position[who], state.bodies.head[who], {}, false, state.kind(who).height};
  if (state.kind(who).sight) looker.sight = *state.kind(who).sight;
  const DistanceAndAngle sighting = measure(state.plane(), looker, looked(state, contact.other));
  Event& event = state.tell(Event::What::noticed, who);
  event.other = state.id_of(contact.other);
  event.by = contact.by;
  event.place = contact.last_place;
  event.distance = sighting.distance;
  event.angle_deg = sighting.angle_deg;
  if (contact.by == Sense::nearness) {
    event.distance = distance_along(*state.kind(who).nearness->axes, state.bodies.position[who],
                                    state.bodies.position[contact.other]);
  }
  if (teller && contact.by == Sense::told) event.teller = state.id_of(*teller);
}

void tell_end(Sensing& state, Event::What what, Index who, const Contact& contact) {
  Event& event = state.tell(what, who);
  event.other = state.id_of(contact.other);
  event.by = contact.by;
  event.place = contact.last_place;
}

// When within the last step evidence began, taking both agents to have moved and turned evenly: so
// that `notice_time` counts from where it truly began and not from the tick that found it.
Moment evidence_start(const Sensing& state, const Looker& looker, Index who, Index other) {
  if (state.clock.tick == 0 || state.limit(who).notice.notice_time == 0) return state.now();
  const auto at = [](const auto& before, const auto& after, double share) {
    return (before + (after - before) * share).eval();
  };
  LookedAt body = looked(state, other);
  double without = 0.0;
  double with = 1.0;
  for (int halving = 0; halving < 20; ++halving) {  // to a millionth of a step
    const double share = (without + with) / 2.0;
    Looker then = looker;
    then.feet = at(state.bodies.previous[who], state.bodies.position[who], share);
    then.facing = at(state.bodies.previous_head[who], state.bodies.head[who], share);
    body.feet = at(state.bodies.previous[other], state.bodies.position[other], share);
    (can_see(state.world, then, body) ? with : without) = share;
  }
  return state.step_start() + static_cast<Moment>(std::ceil(with * kMomentsPerTick));
}

/// What sight adds to the evidence of another agent in this step. The rate is the mean of those at
/// two looks. At the first look, evidence counts from the moment at which it began.
class Sighter {
 public:
  Sighter(const Sensing& state, Index who) : state_(state), who_(who) {
    if (state.kind(who).sight) looker_ = looker_of(state, who);
  }

  void look(Index other, Contact& contact, bool is_new, Evidence& evidence) {
    if (!looker_ || !state_.lives.alive[other]) return;
    looker_->has_noticed = contact.state == Contact::State::noticed;
    const LookedAt body = looked(state_, other);
    evidence.by_sight = can_see(state_.world, *looker_, body);
    const bool was_seen = !is_new && contact.rate >= 0.0;
    if (!evidence.by_sight) {
      contact.rate = -1.0;
      return;
    }
    const bool needs_rate =
        state_.kind(who_).choose.by == Choose::By::clearest ||
        (contact.state == Contact::State::gathering && looker_->sight.notice_time.nanoseconds > 0);
    const double rate = needs_rate ? evidence_rate(state_.world, *looker_, body) : 1.0;
    const Moment start =
        was_seen ? state_.step_start() : evidence_start(state_, *looker_, who_, other);
    const double mean = was_seen ? (contact.rate + rate) / 2.0 : rate;
    evidence.gained = std::llround(mean * static_cast<double>(state_.now() - start));
    contact.rate = rate;
  }

 private:
  const Sensing& state_;
  Index who_;
  std::optional<Looker> looker_;
};

void sort_by_target(Sensing& state) {
  auto& by_target = state.senses.by_target;
  by_target.clear();
  Index place = 0;
  for (const Perceived& one : state.senses.perceived) by_target.emplace_back(one.other, place++);
  std::sort(by_target.begin(), by_target.end());
}

/// Adds what other senses perceive of an agent to the evidence of it. If several do, the first in
/// their order leads.
std::optional<Index> add_perceived(const Sensing& state, Index other, Contact& contact,
                                   Evidence& evidence) {
  std::optional<Index> teller;
  contact.is_near = contact.is_touched = false;
  const auto& by_target = state.senses.by_target;
  auto next = std::lower_bound(by_target.begin(), by_target.end(), std::pair{other, Index{0}});
  for (; next != by_target.end() && next->first == other; ++next) {
    const Perceived& one = state.senses.perceived[next->second];
    contact.last_place = one.place;
    contact.is_near |= one.sense == Sense::nearness;
    contact.is_touched |= one.sense == Sense::touch;
    if (one.sense == Sense::hurt) contact.hurt_at = state.now();
    const bool is_sudden = one.sense == Sense::hurt || one.sense == Sense::told;
    std::optional<Sense>& slot = is_sudden ? evidence.sudden : evidence.lasting;
    if (slot && *slot <= one.sense) continue;
    slot = one.sense;
    if (one.sense == Sense::told) teller = one.teller;
    if (!is_sudden || !evidence.lasting) evidence.remember = one.remember;
  }
  return teller;
}

void pass_on(Sensing& state, Index who, Index about) {
  const auto& tell = state.kind(who).tell;
  const std::uint32_t team = state.kind(who).team;
  if (!tell || team == kNoTeam) return;
  const std::array<bool, 3> axes{true, state.plane() != Plane::upright,
                                 state.plane() != Plane::ground};
  // Friends hear of it in the next step at the earliest, so that the order of agents does not
  // matter.
  const Moment delay = std::max(kMomentsPerTick, state.moments(tell->delay));
  const Moment remember = state.moments(tell->remember);
  const std::size_t before = state.senses.alarms.size();
  state.senses.crowd.near(state.bodies.position[who], tell->range, [&](Index other, double) {
    if (other == who || state.kind(other).team != team) return;
    if (distance_along(axes, state.bodies.position[who], state.bodies.position[other]) >
        tell->range)
      return;
    state.senses.alarms.push_back(
        {other, who, about, state.now() + delay, remember, state.bodies.position[about]});
  });
  std::sort(state.senses.alarms.begin() + static_cast<std::ptrdiff_t>(before),
            state.senses.alarms.end(), [](const Alarm& a, const Alarm& b) { return a.to < b.to; });
}

void tell_changes(Sensing& state, Index who, const Contact& contact, const NoticeChange& change,
                  std::optional<Index> teller) {
  if (change.noticed) {
    tell_noticed(state, who, contact, teller);
    if (contact.by != Sense::told) pass_on(state, who, contact.other);
  }
  if (change.saw) state.fire(who, Cause::sees);
  if (change.lost) {
    tell_end(state, Event::What::lost, who, contact);
    state.fire(who, Cause::loses);
  }
  if (change.forgot) {
    tell_end(state, Event::What::forgot, who, contact);
    state.told.news[who].forgot = true;
    state.fire(who, Cause::forgets);
  }
}

void note_lost(Sensing& state, Index who, const Contact& contact) {
  std::vector<Lost>& lost = state.senses.lost.get(who);
  const Moment second = state.moments({1'000'000'000});
  std::erase_if(lost, [&](const Lost& one) {
    return one.other == contact.other ||
           hold_after(state.now() - one.at, one.held_for, second) == 0;
  });
  lost.push_back({contact.other, state.now(), contact.held_for});
}

Moment hold_of(const Sensing& state, Index who, Index other) {
  const std::vector<Lost>* lost = state.senses.lost[who];
  if (lost == nullptr) return 0;
  const auto found =
      std::find_if(lost->begin(), lost->end(), [&](const Lost& one) { return one.other == other; });
  if (found == lost->end()) return 0;
  return hold_after(state.now() - found->at, found->held_for, state.moments({1'000'000'000}));
}

// An agent that perceives how another leaves, or that has defeated it, does not look for it any
// longer.
void forget_who_is_gone(const Sensing& state, Index who, Contact& contact) {
  const bool knows =
      contact.state == Contact::State::noticed || state.lives.defeated_by[contact.other] == who;
  if (!knows) return;
  contact.remember = contact.held_for = 0;
  contact.forget_at = std::min(contact.forget_at, state.now());
}

void consider(Sensing& state, Index who, Sighter& sighter, Index other) {
  std::vector<Contact>& contacts = state.knowledge.contacts[who];
  auto known = find_contact(contacts, other);
  const bool is_new = known == contacts.end() || known->other != other;
  Contact fresh;
  fresh.other = other;
  Contact& contact = is_new ? fresh : *known;
  const bool was_near = contact.is_near;
  Evidence evidence;
  if (state.looks_for(who, other)) sighter.look(other, contact, is_new, evidence);
  const auto teller = add_perceived(state, other, contact, evidence);
  const bool perceives = evidence.by_sight || evidence.lasting;
  if (is_new && !perceives && !evidence.sudden) return;
  if (contact.is_near && !was_near) state.fire_by_kind(who, Cause::near, other);
  if (evidence.sudden == Sense::told && contact.state != Contact::State::noticed) {
    if (teller) {
      state.fire_by_kind(who, Cause::told, *teller);
    } else {
      state.fire(who, Cause::told);
    }
  }
  if (perceives) {
    contact.last_place = state.bodies.position[other];
    contact.last_motion = state.bodies.position[other] - state.bodies.previous[other];
  }
  const bool was_noticed = contact.state == Contact::State::noticed;
  if (!was_noticed && perceives) contact.held_for = hold_of(state, who, other);
  if (!state.lives.alive[other]) forget_who_is_gone(state, who, contact);
  const NoticeChange change =
      update_contact(contact, evidence, state.now(), state.limit(who).notice);
  if (change.lost) note_lost(state, who, contact);
  if (was_near && !perceives) contact.is_near = contact.state == Contact::State::noticed;
  if (is_new) known = contacts.insert(known, contact);
  tell_changes(state, who, *known, change, teller);
  if (change.is_over) contacts.erase(known);
}

// Looks at those who are nearer than the senses reach, along two axes. Those whom an agent knows of
// already are looked at wherever they are.
void find_to_look_at(Sensing& state, Index who) {
  const double reach = state.limit(who).farthest;
  const Vector3d& own = state.bodies.position[who];
  const int second = state.plane() == Plane::upright ? 2 : 1;
  const auto is_near = [&](Index other) {
    const double a = state.bodies.position[other].x() - own.x();
    const double b = state.bodies.position[other][second] - own[second];
    return a * a + b * b <= reach * reach;
  };
  state.senses.candidates.clear();
  const std::vector<Index>& foes = state.fixed.foes_of[state.kind(who).team];
  if (foes.size() <= kFewFoes) {
    for (const Index other : foes) {
      if (other != who && state.lives.alive[other] && is_near(other))
        state.senses.candidates.push_back(other);
    }
  } else {
    const std::vector<char>& wanted = state.limit(who).wants_team;
    state.senses.crowd.near(own, reach, [&](Index other, double) {
      const std::uint32_t team = state.kind(other).team;
      if (other == who || team == kNoTeam || !wanted[team]) return;
      if (is_near(other)) state.senses.candidates.push_back(other);
    });
  }
}

void sense_one(Sensing& state, Index who) {
  const Kind& kind = state.kind(who);
  const bool has_team = kind.team != kNoTeam;
  if (has_team && (!kind.feelers.empty() || kind.nearness || kind.touch)) {
    perceive_bodies(state, who);
  }
  state.senses.candidates.clear();
  if (kind.sight && has_team) find_to_look_at(state, who);
  if (state.senses.candidates.empty() && state.knowledge.contacts[who].empty() &&
      state.senses.perceived.empty())
    return;
  for (const Contact& contact : state.knowledge.contacts[who])
    state.senses.candidates.push_back(contact.other);
  for (const Perceived& one : state.senses.perceived) state.senses.candidates.push_back(one.other);
  std::sort(state.senses.candidates.begin(), state.senses.candidates.end());
  const auto end = std::unique(state.senses.candidates.begin(), state.senses.candidates.end());
  sort_by_target(state);
  Sighter sighter(state, who);
  for (auto it = state.senses.candidates.begin(); it != end; ++it)
    consider(state, who, sighter, *it);
}

void deliver_alarms(Sensing& state) {
  std::erase_if(state.senses.alarms, [&](const Alarm& alarm) {
    if (alarm.due > state.now()) return false;
    if (state.lives.alive[alarm.about] && state.looks_for(alarm.to, alarm.about)) {
      state.told.sudden.push_back(
          {alarm.to, alarm.about, Sense::told, alarm.remember, alarm.place, alarm.from});
    }
    return true;
  });
}

}  // namespace

LookedAt looked(const Everyone& all, Index who) {
  const Kind& own = all.kind(who);
  return {all.bodies.position[who],
          own.height,
          own.body_points,
          own.radius,
          all.knowledge.is_still[who] ? *own.still_visibility : own.visibility,
          all.knowledge.dimness[who]};
}

void look_who_is_where(Sensing& state) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    state.knowledge.is_still[who] = state.bodies.position[who] == state.bodies.previous[who];
  }
  if (!state.fixed.uses_crowd) return;
  state.senses.crowd.rebuild(state.plane(), state.bodies.position, state.lives.alive);
}

void look_out(Sensing& state) {
  deliver_alarms(state);
  std::vector<Perceived>& sudden = state.told.sudden;
  std::stable_sort(sudden.begin(), sudden.end(),
                   [](const Perceived& a, const Perceived& b) { return a.who < b.who; });
  auto next = sudden.begin();
  for (Index who = 0; who < state.agent_count(); ++who) {
    state.senses.perceived.clear();
    for (; next != sudden.end() && next->who == who; ++next) {
      state.senses.perceived.push_back(*next);
    }
    if (state.is_up(who)) sense_one(state, who);
  }
  sudden.clear();
}

}  // namespace gaze
