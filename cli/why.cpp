#include <fmt/format.h>

#include <ostream>

#include "output.hpp"
#include "play.hpp"
#include "stretch.hpp"

namespace gaze::cli {
namespace {

void check_options(const WhyOptions& options) {
  const bool is_stretch = options.from || options.to;
  if (is_stretch && options.at) {
    throw std::invalid_argument("--at and --from, --to do not go together");
  }
  if (is_stretch && (!options.from || !options.to)) {
    throw std::invalid_argument("--from and --to go together");
  }
  if (is_stretch && !(*options.from < *options.to)) {
    throw std::invalid_argument(
        fmt::format("--from {} must lie before --to {}", *options.from, *options.to));
  }
  if (!options.at && options.all) throw std::invalid_argument("--all goes with --at");
  if (!is_stretch && !options.plot.empty()) {
    throw std::invalid_argument("--plot goes with --from and --to");
  }
  if (options.all && options.json) throw std::invalid_argument("--all prints text, not JSON");
  if (!(options.every >= 0.001 && options.every <= 86'400.0)) {
    throw std::invalid_argument(
        fmt::format("--every {}; 0.001 to 86400 s is allowed", options.every));
  }
}

// The plot takes every tick, the table one row so often.
int why_over(const WhyOptions& options, const Level& level, const Streams& streams) {
  PictureOptions picture;
  if (!options.plot.empty()) picture.format = picture_format(options.plot, "--plot");
  const std::int64_t first = tick_at(level, *options.from, "--from");
  const std::int64_t last = tick_at(level, *options.to, "--to");
  const auto step = std::max<std::int64_t>(1, nearest_tick(options.every, level.ticks_per_second));
  Simulation simulation = prepared(level, streams);
  const AgentId agent = agent_called(simulation, options.agent, "--agent");
  const AgentId other = agent_called(simulation, options.other, "--other");
  Watch rows(agent, other);
  Watch ticks(agent, other);
  play(streams, simulation, last, [&] {
    if (simulation.tick() < first) return;
    ticks.add(simulation);
    if ((simulation.tick() - first) % step == 0) rows.add(simulation);
  });
  if (!options.plot.empty()) {
    const std::string title = fmt::format("What {} perceives of {}", options.agent, options.other);
    write_file(options.plot, gaze::draw(chart_of(ticks.rows(), title), picture));
    streams.err << fmt::format("{} drawn\n", options.plot);
  }
  streams.out << (options.json ? table_json(rows.rows()) : table(rows.rows()));
  return done;
}

// Without a moment: over the whole run.
int why_at_all(const WhyOptions& options, const Level& level, const Streams& streams) {
  Simulation simulation = prepared(level, streams);
  const AgentId agent = agent_called(simulation, options.agent, "--agent");
  const AgentId other = agent_called(simulation, options.other, "--other");
  Overlook over(agent, other);
  play(streams, simulation, run_length(level), [&] { over.add(simulation); });
  const Overview& all = over.so_far();
  const auto& sight = level.kind_of(level.agents[agent.index]).sight;
  streams.out << (options.json ? overview_json(all, options.agent, options.other)
                               : overview_text(all, options.agent, options.other,
                                               sight ? sight->notice_time.seconds() : 0.0));
  return done;
}

}  // namespace

int why(const WhyOptions& options, const Streams& streams) {
  check_options(options);
  const Level level = read(options.level);
  if (options.from) return why_over(options, level, streams);
  if (!options.at) return why_at_all(options, level, streams);
  const std::int64_t tick = tick_at(level, *options.at);
  Simulation simulation = prepared(level, streams);
  if (options.all) {
    play(streams, simulation, tick);
    streams.out << all_accounts(simulation);
    return done;
  }
  const AgentId looker = agent_called(simulation, options.agent, "--agent");
  const AgentId other = agent_called(simulation, options.other, "--other");
  play(streams, simulation, tick);
  streams.out << (options.json ? why_json(simulation, looker, other)
                               : account(simulation, looker, other));
  return done;
}

}  // namespace gaze::cli
