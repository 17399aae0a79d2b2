#include <algorithm>

#include "mind/choose.hpp"
#include "mind/deciding.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

void take_target(Deciding& state, Index who) {
  if (state.knowledge.contacts[who].empty() && !state.minds.has_target[who]) return;
  const std::optional<Index> before = state.target_agent(who);
  state.minds.target[who] = choose_target(
      state.knowledge.contacts[who], state.kind(who).choose, state.target_agent(who),
      [&](Index other) {
        return Trait{
            plane_distance(state.plane(), state.bodies.position[who], state.bodies.position[other]),
            state.lives.health[other]};
      });
  const std::optional<Contact>& target = state.minds.target[who];
  if (before && target && *before != target->other) {
    state.tell(Event::What::target, who).other = state.id_of(target->other);
  }
  state.minds.has_target[who] = target.has_value();
}

Knowing knowing_of(const Deciding& state, Index who) {
  Knowing knowing;
  knowing.remembers_any = state.knowledge.clue[who] != nullptr;
  for (const Contact& contact : state.knowledge.contacts[who]) {
    knowing.notices_any |= contact.state == Contact::State::noticed;
    knowing.remembers_any |= contact.state == Contact::State::remembered;
  }
  return knowing;
}

// Follows the rules of the cause `lasts`: each once while the mode goes on.
void fire_lasting_modes(Deciding& state, Index who) {
  const std::vector<Rule>& rules = state.kind(who).when.rules;
  const std::vector<RuleLinks>& links = state.links(who).rules;
  for (std::size_t i = 0; i < rules.size(); ++i) {
    const std::uint64_t bit = std::uint64_t{1} << i;
    if (rules[i].cause != Cause::lasts || (state.minds.lasted[who] & bit) != 0) continue;
    if (links[i].about != static_cast<Index>(state.minds.mode[who])) continue;
    // Minds decide by the poses of the step before.
    if (state.step_start() - state.minds.mode_since[who] < links[i].after) continue;
    state.minds.lasted[who] |= bit;
    state.told.news[who].due |= bit;
  }
}

bool goes_on(const Everyone& state, Index who, const Rule& rule, Index about) {
  const std::vector<Contact>& contacts = state.knowledge.contacts[who];
  const auto any = [&](bool Contact::*what) {
    return std::any_of(contacts.begin(), contacts.end(),
                       [&](const Contact& contact) { return contact.*what; });
  };
  if (rule.cause == Cause::near) return any(&Contact::is_near);
  if (rule.cause == Cause::touches) return any(&Contact::is_touched);
  const std::vector<Feeler>& feelers = state.kind(who).feelers;
  for (std::size_t i = 0; i < feelers.size(); ++i) {
    if (about != kAnything && about != i) continue;
    const bool says_yes = (state.knowledge.feelers[who] >> i & 1U) != 0;
    if (says_yes == (rule.cause == Cause::feels)) return true;
  }
  return false;
}

bool asks_while_it_lasts(const Rule& rule) {
  return rule.cause == Cause::feels || rule.cause == Cause::misses || rule.cause == Cause::near ||
         rule.cause == Cause::touches;
}

// Rules about what is felt, missed, near or touching ask for their attack as long as that lasts.
// Other causes ask for it once.
void urge_attack(Deciding& state, Index who, std::size_t number, bool came_up) {
  const Rule& rule = state.kind(who).when.rules[number];
  const RuleLinks& links = state.links(who).rules[number];
  if (links.attack == kNothing) return;
  const std::uint64_t bit = std::uint64_t{1} << links.attack;
  if (asks_while_it_lasts(rule)) {
    state.minds.urged[who] &= ~bit;
    if (goes_on(state, who, rule, links.about)) state.minds.urged[who] |= bit;
  } else if (came_up) {
    state.minds.urged[who] |= bit;
  }
}

void tell_travel(const Deciding& state, Index who, CourseChange::What what, Angle turn = {}) {
  state.told.courses.push_back({who, what, turn, state.minds.mode[who]});
}

void act(Deciding& state, Index who, std::size_t number) {
  const Reaction& reaction = state.kind(who).when.rules[number].reaction;
  const RuleLinks& links = state.links(who).rules[number];
  if (reaction.turn) {
    tell_travel(state, who, CourseChange::What::turns_round, *reaction.turn);
  }
  if (links.noise.id != kNothing) {
    state.make_noise(state.middle(who), reaction.reach, links.noise, who);
  }
  for (const Index other : links.wakes) wake(state, other);
}

void react(Deciding& state, Index who) {
  const std::vector<RuleLinks>& links = state.links(who).rules;
  News& news = state.told.news[who];
  for (std::size_t i = 0; i < links.size(); ++i) {
    const std::uint64_t bit = std::uint64_t{1} << i;
    bool is_now = (news.due & bit) != 0;
    if ((news.fired & bit) != 0) {
      if (const Moment after = links[i].after; after > 0) {
        state.minds.pending.push_back({who, static_cast<Index>(i), state.step_start() + after});
      } else {
        is_now = true;
      }
    }
    urge_attack(state, who, i, is_now);
    if (is_now) act(state, who, i);
  }
}

void decide_one(Deciding& state, Index who) {
  take_target(state, who);
  News& news = state.told.news[who];
  const bool has_news = state.limit(who).reacts || news.forgot;
  if (has_news && state.fixed.driver[who] == Driver::mind) {
    fire_lasting_modes(state, who);
    react(state, who);
    const Mode before = state.minds.mode[who];
    const Mode after = next_mode(before, state.fixed.idle[who], state.kind(who).when, news,
                                 knowing_of(state, who));
    if (before == state.fixed.idle[who] && after != before) {
      tell_travel(state, who, CourseChange::What::leaves);
    }
    const bool goes_anew = news.fired != 0 && (after == Mode::investigate || after == Mode::search);
    if (before != after || goes_anew) tell_travel(state, who, CourseChange::What::anew);
    if (before != after && after == state.fixed.idle[who]) {
      tell_travel(state, who, CourseChange::What::as_before);
    }
    change_mode(state, who, after);
  }
  news = {};
}

void take_pending(Deciding& state) {
  std::erase_if(state.minds.pending, [&](const Pending& pending) {
    if (pending.due > state.step_start()) return false;
    state.told.news[pending.who].due |= std::uint64_t{1} << pending.rule;
    return true;
  });
}

}  // namespace

bool is_asked_for(const Everyone& state, std::uint32_t who, std::uint32_t attack) {
  if ((state.minds.urged[who] >> attack & 1U) != 0) return true;
  const std::vector<Rule>& rules = state.kind(who).when.rules;
  const std::vector<RuleLinks>& links = state.links(who).rules;
  for (std::size_t i = 0; i < rules.size(); ++i) {
    const bool asks = links[i].attack == attack && asks_while_it_lasts(rules[i]) &&
                      goes_on(state, who, rules[i], links[i].about);
    if (asks) return true;
  }
  return false;
}

void wake(Deciding& state, std::uint32_t who) {
  if (state.minds.awake[who]) return;
  state.minds.awake[who] = 1;
  state.minds.mode_since[who] = state.now();
}

void wake_up(Deciding& state) {
  for (const Index who : state.told.wakes) wake(state, who);
  state.told.wakes.clear();
}

void change_mode(Deciding& state, Index who, Mode to) {
  const Mode from = state.minds.mode[who];
  if (from == to) return;
  Event& event = state.tell(Event::What::mode, who);
  event.from = from;
  event.to = to;
  state.minds.mode[who] = to;
  state.minds.mode_since[who] = state.now();
  state.minds.lasted[who] = 0;
}

void end_modes(Deciding& state) {
  for (const ModeChange& change : state.told.modes) change_mode(state, change.who, change.to);
  state.told.modes.clear();
}

void note_made(Deciding& state) {
  for (const Made& made : state.told.made) {
    state.minds.urged[made.who] &= ~(std::uint64_t{1} << made.attack);
  }
  state.told.made.clear();
}

void decide(Deciding& state) {
  take_pending(state);
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (state.is_up(who)) {
      decide_one(state, who);
    } else {
      state.told.news[who] = {};
    }
  }
}

}  // namespace gaze
