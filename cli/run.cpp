#include <fmt/format.h>

#include <optional>
#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {

int run(const RunOptions& options, const Streams& streams) {
  std::optional<TraceFormat> format;
  if (!options.trace.empty()) format = trace_format(options.trace);
  const Level level = read(options.level);
  Simulation simulation(level);
  std::optional<OutputFile> trace;
  if (format) trace.emplace(options.trace).write(trace_head(*format));
  const std::vector<Event> events = play(simulation, run_length(level), [&] {
    if (trace) trace->write(trace_lines(simulation, *format));
  });
  if (trace) trace->finish();
  if (options.json) {
    streams.out << run_json(simulation, events);
    return done;
  }
  streams.out << fmt::format("{}: {:g} s at {} steps a second, seed {}\n\n", level.name,
                             level.seconds, level.ticks_per_second, level.seed);
  for (const Event& event : events) streams.out << timeline_line(simulation, event);
  if (events.empty()) streams.out << "nothing happened\n";
  streams.out << '\n' << summary(simulation, events);
  return done;
}

}  // namespace gaze::cli
