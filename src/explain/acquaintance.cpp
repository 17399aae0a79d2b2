#include "gaze/acquaintance.hpp"
#include "level/solid_name.hpp"

#include <fmt/format.h>

#include "explain/explaining.hpp"
#include "level/numbers.hpp"
#include "sense/sensing.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

FeelerAnswer ask_feeler(const Explaining& state, const Feeler& feeler, Index who, Index other) {
  std::vector<Cylinder> bodies;
  std::vector<Index> agents;
  for (Index i = 0; i < state.agent_count(); ++i) {
    if (i == who || !state.lives.alive[i]) continue;
    bodies.push_back(state.body(i));
    agents.push_back(i);
  }
  FeelerAnswer answer;
  answer.name = feeler.name;
  answer.finds = feeler.finds;
  answer.length = feeler.length;
  answer.felt = feel(state.world, state.level().ground_height, feeler, state.bodies.position[who],
                     feeler_facing(state, who, feeler), bodies);
  if (answer.felt.body) answer.felt.body = agents[*answer.felt.body];
  answer.is_other = answer.felt.body == other;
  switch (feeler.finds) {
    case Feeler::Finds::hostile:
      answer.is_yes = answer.felt.body && state.looks_for(who, *answer.felt.body);
      break;
    case Feeler::Finds::anything:
      answer.is_yes = answer.felt.distance.has_value();
      break;
    default:
      answer.is_yes = !answer.felt.distance.has_value();
  }
  return answer;
}

void add_contact(const Explaining& state, const Contact& contact, Acquaintance& result) {
  result.last_place = contact.last_place;
  result.last_motion = contact.last_motion * state.level().ticks_per_second;
  result.awareness = contact.state == Contact::State::gathering ? Awareness::gathering
                     : contact.state == Contact::State::noticed ? Awareness::noticed
                                                                : Awareness::remembers;
  if (contact.state != Contact::State::gathering) result.by = contact.by;
  if (contact.state == Contact::State::noticed && contact.held_for > 0) {
    const double second = static_cast<double>(state.moments({1'000'000'000}));
    result.held = HeldContact{static_cast<double>(state.now() - contact.perceived_at) / second,
                              static_cast<double>(contact.held_for) / second};
  }
}

void add_bodily(const Explaining& state, Index who, Index other, Acquaintance& result) {
  const Kind& kind = state.kind(who);
  for (const Feeler& feeler : kind.feelers) {
    result.feelers.push_back(ask_feeler(state, feeler, who, other));
  }
  if (kind.nearness) {
    NearnessAnswer answer;
    answer.value = distance_along(*kind.nearness->axes, state.bodies.position[who],
                                  state.bodies.position[other]);
    answer.limit = kind.nearness->range;
    answer.pass = answer.value <= answer.limit;
    result.nearness = answer;
  }
  result.has_touch = kind.touch.has_value();
  if (!kind.touch) return;
  const auto side = state.senses.touches.side(state, who, other);
  if (side && kind.touch->sides.test(static_cast<std::size_t>(*side))) result.touched = side;
}

void add_noise(const Explaining& state, Index who, Index other, Acquaintance& result) {
  const Kind& kind = state.kind(who);
  const auto& made = state.told.last_noise[other];
  if (!kind.hearing || !made) return;
  const Listener listener{state.bodies.position[who], eye_height(kind), *kind.hearing};
  result.noise = NoiseAnswer{std::string(made->name.text), made->noise.reach,
                             listen(state.world, state.level(), listener, made->noise)};
}

}  // namespace

std::vector<FeelerAnswer> feelers(const Simulation& simulation, AgentId agent) {
  const Simulation::State& all = state_of(simulation);
  const Explaining state(all);
  const Index who = all.index_of(agent);
  std::vector<FeelerAnswer> answers;
  for (const Feeler& feeler : state.kind(who).feelers) {
    answers.push_back(ask_feeler(state, feeler, who, kNobody));
  }
  return answers;
}

Acquaintance acquaintance(const Simulation& simulation, AgentId agent, AgentId other) {
  const Simulation::State& all = state_of(simulation);
  const Explaining state(all);
  const Index who = all.index_of(agent);
  const Index whom = all.index_of(other);
  Acquaintance result;
  for (const Contact& contact : state.knowledge.contacts[who]) {
    if (contact.other == whom) add_contact(state, contact, result);
  }
  add_bodily(state, who, whom, result);
  add_noise(state, who, whom, result);
  return result;
}

std::string explain(const FeelerAnswer& answer, const Simulation& simulation) {
  std::string what = worded("nothing within {} m", answer.length);
  if (answer.felt.distance) {
    const Level& level = simulation.level();
    const std::string& name = answer.felt.body    ? level.agents[*answer.felt.body].id
                              : answer.felt.solid ? solid_name(level, answer.felt.solid->index)
                                                  : "the ground";
    what = fmt::format("{} after {:.2f} of {} m", name, *answer.felt.distance,
                       number_text(answer.length));
  }
  const char* wanted = answer.finds == Feeler::Finds::hostile    ? "somebody it looks for"
                       : answer.finds == Feeler::Finds::anything ? "anything"
                                                                 : "nothing";
  return fmt::format("{} (finds {})", what, wanted);
}

std::optional<Remedy> remedy(const Simulation& simulation, AgentId agent, AgentId other) {
  const Verdict verdict = simulation.look(agent, other);
  if (!verdict.has_sight || !verdict.hindrance.empty()) return std::nullopt;
  Looker eyes = simulation.looker(agent);
  eyes.has_noticed = simulation.awareness(agent, other) == Awareness::noticed;
  return remedy(simulation.world(), simulation.level(), eyes, simulation.looked(other));
}

}  // namespace gaze
