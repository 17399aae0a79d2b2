#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <ostream>
#include <span>
#include <string>
#include <vector>

#include "gaze/duel.hpp"
#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

std::string number(const std::optional<double>& value, const char* unit) {
  return value ? fmt::format("{:.3g}{}", *value, unit) : "-";
}

// Who did what to whom, a line for each pair.
std::string harm_table(const Simulation& simulation, std::span<const Event> events) {
  const std::vector<Duel> all = duels(simulation, events);
  if (all.empty()) return {};
  std::size_t width = 4;
  for (const Duel& duel : all) {
    width =
        std::max({width, simulation.id_of(duel.by).size(), simulation.id_of(duel.victim).size()});
  }
  std::string text = fmt::format(
      "\n{:<{}}  {:<{}} {:>6} {:>5} {:>6} {:>7} {:>9} {:>9} {:>8} {:>9}\n", "by", width, "whom",
      width, "blows", "hits", "share", "dealt", "points/s", "first hit", "warning", "defeat");
  bool fires_anywhere = false;  // at a place, straight ahead, or as somebody else does
  for (const Duel& duel : all) {
    const auto share = duel.hit_share();
    fires_anywhere |= !share;
    text += fmt::format("{:<{}}  {:<{}} {:>6} {:>5} {:>6} {:>7.6g} {:>9} {:>9} {:>8} {:>9}\n",
                        simulation.id_of(duel.by), width, simulation.id_of(duel.victim), width,
                        share ? std::to_string(duel.blows) : "-", duel.hits,
                        share ? fmt::format("{:.0f} %", *share * 100.0) : "-", duel.dealt,
                        number(duel.damage_rate(), ""), number(duel.first_hurt, " s"),
                        number(duel.warning(), " s"), number(duel.defeated, " s"));
  }
  text += "(warning: from being noticed to the first hit";
  if (fires_anywhere) text += "; no blows are counted of what is aimed at nobody";
  return text + ")\n";
}

// In which zones each was hurt, if there are zones at all.
std::string place_table(const Simulation& simulation, std::span<const Event> events) {
  const std::vector<HarmPlace> places = harm_places(simulation, events);
  const std::vector<Zone>& zones = simulation.level().zones;
  if (zones.empty() || places.empty()) return {};
  std::size_t width = 4;
  for (const HarmPlace& place : places) {
    width = std::max(width, simulation.id_of(place.victim).size());
  }
  std::string text =
      fmt::format("\n{:<{}} {:>6} {:>7}  {}\n", "whom", width, "blows", "lost", "where");
  for (const HarmPlace& place : places) {
    text += fmt::format("{:<{}} {:>6} {:>7.6g}  {}\n", simulation.id_of(place.victim), width,
                        place.blows, place.dealt,
                        place.zone ? zones[*place.zone].id : "outside of zones");
  }
  return text;
}

// Where anybody has scored.
std::string score_lines(const Simulation& simulation) {
  std::string text;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    const double score = simulation.state({i}).score;
    if (score != 0.0) text += fmt::format("{} scored {:g}\n", simulation.id_of({i}), score);
  }
  return text.empty() ? text : "\n" + text;
}

}  // namespace

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
  streams.out << '\n'
              << summary(simulation, events) << harm_table(simulation, events)
              << place_table(simulation, events) << score_lines(simulation);
  return done;
}

}  // namespace gaze::cli
