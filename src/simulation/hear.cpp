#include <algorithm>

#include "sense/listen.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

/// The clearest noise of one name that a hearer heard in this step.
struct Heard {
  const MadeNoise* made = nullptr;
  double distance = 0.0;
};

bool is_ignored(const Simulation::State& state, Index who, const Hearing& hearing,
                const MadeNoise& made) {
  if (!made.maker) return false;
  if (*made.maker == who) return !hearing.own;
  const std::uint32_t team = state.kind(who).team;
  if (team != kNoTeam && team == state.kind(*made.maker).team && !hearing.friends) return true;
  // Seeing beats hearing: what somebody does that it perceives is no news to it.
  const std::vector<Contact>& contacts = state.contacts[who];
  return std::any_of(contacts.begin(), contacts.end(), [&](const Contact& contact) {
    return contact.other == *made.maker && contact.state == Contact::State::noticed;
  });
}

// Ten thousand noises of one name in a step are heard as one, the nearest that is heard at all.
void find_heard(const Simulation::State& state, Index who, const Hearing& hearing,
                HearingVerdict& verdict, std::vector<Heard>& heard) {
  const Kind& kind = state.kind(who);
  const double ear = kind.sight ? kind.sight->eye.z() : 0.9 * kind.height;
  const Listener listener{state.position[who], ear, hearing};
  heard.clear();
  for (const MadeNoise& made : state.noises) {
    if (is_ignored(state, who, hearing, made)) continue;
    const double x = made.noise.place.x() - state.position[who].x();
    if (std::abs(x) > hearing.range) continue;
    const auto same = std::find_if(heard.begin(), heard.end(), [&](const Heard& other) {
      return other.made->name == made.name;
    });
    listen_into(state.world, *state.level, listener, made.noise, verdict);
    if (!verdict.hears) continue;
    if (same == heard.end()) {
      heard.push_back({&made, verdict.distance});
    } else if (verdict.distance < same->distance) {
      *same = {&made, verdict.distance};
    }
  }
}

void tell_heard(Simulation::State& state, Index who, const Hearing& hearing, const Heard& heard) {
  Event& event = state.tell(Event::What::heard, who);
  event.noise = heard.made->name;
  event.distance = heard.distance;
  event.place = heard.made->noise.place;
  if (heard.made->maker) event.other = AgentId{*heard.made->maker};
  state.fire(who, Cause::hears, heard.made->name);
  auto& clue = state.clue[who];
  const bool is_nearer = clue && clue->since == state.now() && clue->distance <= heard.distance;
  if (is_nearer) return;
  const Moment remember = moments_of(hearing.remember, state.level->ticks_per_second);
  clue = Clue{heard.made->noise.place, heard.made->name, state.now(), state.now() + remember,
              heard.distance};
}

// Who went to look forgets so long after it came there, others so long after they heard it.
void forget(Simulation::State& state, Index who) {
  auto& clue = state.clue[who];
  if (!clue || state.now() < clue->forget_at) return;
  const Mode mode = state.mode[who];
  const bool is_on_its_way =
      (mode == Mode::investigate || mode == Mode::search) && state.course[who].next == 0;
  if (is_on_its_way) return;
  Event& event = state.tell(Event::What::forgot, who);
  event.noise = clue->noise;
  event.place = clue->place;
  state.news[who].forgot = true;
  state.fire(who, Cause::forgets, "");
  clue.reset();
}

}  // namespace

void hear(Simulation::State& state) {
  HearingVerdict verdict;
  std::vector<Heard> heard;
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who)) continue;
    if (state.clue[who]) forget(state, who);
    const auto& hearing = state.kind(who).hearing;
    if (!hearing || state.noises.empty()) continue;
    find_heard(state, who, *hearing, verdict, heard);
    for (const Heard& one : heard) tell_heard(state, who, *hearing, one);
  }
  state.noises.clear();
}

}  // namespace gaze
