#include <fmt/format.h>

#include <algorithm>
#include <ostream>

#include "file/names.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

AgentId agent_called(const Simulation& simulation, const std::string& id) {
  std::vector<std::string> ids;
  for (const Agent& agent : simulation.level().agents) ids.push_back(agent.id);
  if (std::find(ids.begin(), ids.end(), id) == ids.end()) {
    throw UsageError(fmt::format("there is no agent '{}'{}", id, suggestion(id, ids)));
  }
  return simulation.agent(id);
}

}  // namespace

int why(const WhyOptions& options, const Streams& streams) {
  const Level level = read(options.level);
  const std::int64_t tick = tick_at(level, options.at);
  Simulation simulation(level);
  const AgentId looker = agent_called(simulation, options.agent);
  const AgentId other = agent_called(simulation, options.other);
  play(simulation, tick);
  streams.out << (options.json ? why_json(simulation, looker, other)
                               : account(simulation, looker, other));
  return done;
}

}  // namespace gaze::cli
