#include <ostream>

#include "play.hpp"

namespace gaze::cli {

int why(const WhyOptions& options, const Streams& streams) {
  const Level level = read(options.level);
  const std::int64_t tick = tick_at(level, options.at);
  Simulation simulation(level);
  const AgentId looker = simulation.agent(options.agent);
  const AgentId other = simulation.agent(options.other);
  play(simulation, tick);
  streams.out << (options.json ? why_json(simulation, looker, other)
                               : account(simulation, looker, other));
  return done;
}

}  // namespace gaze::cli
