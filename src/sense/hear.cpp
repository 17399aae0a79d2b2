#include <algorithm>

#include "sense/listen.hpp"
#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

bool is_ignored(const Sensing& state, Index who, const Hearing& hearing, const MadeNoise& made) {
  if (!made.maker) return false;
  if (*made.maker == who) return !hearing.own;
  const std::uint32_t team = state.kind(who).team;
  if (team != kNoTeam && team == state.kind(*made.maker).team && !hearing.friends) return true;
  // Seeing goes before hearing: the noise of somebody whom an agent perceives already is no news to
  // it.
  const std::vector<Contact>& contacts = state.knowledge.contacts[who];
  return std::any_of(contacts.begin(), contacts.end(), [&](const Contact& contact) {
    return contact.other == *made.maker && contact.state == Contact::State::noticed;
  });
}

// However many noises of one name there are in a step, they are heard as one: the nearest that is
// heard at all.
void find_heard(Sensing& state, Index who, const Hearing& hearing) {
  const Kind& kind = state.kind(who);
  const Listener listener{state.bodies.position[who], eye_height(kind), hearing};
  std::vector<Heard>& heard = state.senses.heard;
  heard.clear();
  for (std::size_t i = 0; i < state.told.noises.size(); ++i) {
    const MadeNoise& made = state.told.noises[i];
    const double x = made.noise.place.x() - state.bodies.position[who].x();
    if (std::abs(x) > hearing.range || is_ignored(state, who, hearing, made)) continue;
    listen_into(state.world, state.level(), listener, made.noise, state.senses.hearing);
    if (!state.senses.hearing.hears) continue;
    const auto same = std::find_if(heard.begin(), heard.end(), [&](const Heard& other) {
      return state.told.noises[other.noise].name.id == made.name.id;
    });
    if (same == heard.end()) {
      heard.push_back({i, state.senses.hearing.distance});
    } else if (state.senses.hearing.distance < same->distance) {
      *same = {i, state.senses.hearing.distance};
    }
  }
}

void tell_heard(Sensing& state, Index who, const Hearing& hearing, const Heard& heard) {
  const MadeNoise& made = state.told.noises[heard.noise];
  Event& event = state.tell(Event::What::heard, who);
  event.noise = made.name.text;
  event.distance = heard.distance;
  event.place = made.noise.place;
  if (made.maker) event.other = state.id_of(*made.maker);
  state.fire(who, Cause::hears, made.name.id);
  const Clue* clue = state.knowledge.clue[who];
  const bool is_nearer = clue && clue->since == state.now() && clue->distance <= heard.distance;
  if (is_nearer) return;
  const Moment remember = state.moments(hearing.remember);
  state.knowledge.clue.set(
      who, {made.noise.place, made.name.text, state.now(), state.now() + remember, heard.distance});
}

// An agent that has come to where it went to look remembers what it came for from then on.
void remember_from_now(Sensing& state, Index who) {
  Clue* clue = state.knowledge.clue[who];
  const auto& hearing = state.kind(who).hearing;
  if (!clue || !hearing) return;
  clue->forget_at = std::max(clue->forget_at, state.now() + state.moments(hearing->remember));
}

// An agent forgets a noise `remember` seconds after it heard it. An agent on the path to the noise
// keeps it until it arrives, unless `forgets_on_way` is set.
void forget(Sensing& state, Index who) {
  const Clue* clue = state.knowledge.clue[who];
  if (!clue || state.now() < clue->forget_at) return;
  const Mode mode = state.minds.mode[who];
  const auto& hearing = state.kind(who).hearing;
  const bool is_on_its_way =
      (mode == Mode::investigate || mode == Mode::search) && !state.bodies.has_come[who];
  if (is_on_its_way && !(hearing && hearing->forgets_on_way)) return;
  Event& event = state.tell(Event::What::forgot, who);
  event.noise = clue->noise;
  event.place = clue->place;
  state.told.news[who].forgot = true;
  state.fire(who, Cause::forgets);
  state.knowledge.clue.reset(who);
}

}  // namespace

void hear(Sensing& state) {
  for (const Index who : state.told.arrivals) remember_from_now(state, who);
  state.told.arrivals.clear();
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who)) continue;
    if (state.knowledge.clue[who]) forget(state, who);
    if (state.told.noises.empty()) continue;
    const auto& hearing = state.kind(who).hearing;
    if (!hearing) continue;
    find_heard(state, who, *hearing);
    for (const Heard& one : state.senses.heard) tell_heard(state, who, *hearing, one);
  }
  state.told.noises.clear();
}

}  // namespace gaze
