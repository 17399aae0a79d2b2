#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <optional>
#include <ostream>
#include <span>
#include <stdexcept>
#include <string>
#include <vector>

#include "gaze/tools/duel.hpp"
#include "gaze/tools/figures.hpp"
#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"
#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

std::string number(const std::optional<double>& value, int digits, const char* unit) {
  return value ? fmt::format("{:.{}f}{}", *value, digits, unit) : "-";
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
    text +=
        fmt::format("{:<{}}  {:<{}} {:>6} {:>5} {:>6} {:>7} {:>9} {:>9} {:>8} {:>9}\n",
                    simulation.id_of(duel.by), width, simulation.id_of(duel.victim), width,
                    share ? std::to_string(duel.blows) : "-", duel.hits,
                    share ? fmt::format("{:.0f} %", *share * 100.0) : "-", number_text(duel.dealt),
                    number(duel.damage_rate(), 2, ""), number(duel.first_hurt, 3, " s"),
                    number(duel.warning(), 2, " s"), number(duel.defeated, 3, " s"));
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
    text += fmt::format("{:<{}} {:>6} {:>7}  {}\n", simulation.id_of(place.victim), width,
                        place.blows, number_text(place.dealt),
                        place.zone ? zones[*place.zone].id : "outside of zones");
  }
  return text;
}

// Where anybody has scored.
std::string score_lines(const Simulation& simulation) {
  std::string text;
  for (const AgentId agent : simulation.agents()) {
    const double score = simulation.state(agent).score;
    if (score != 0.0)
      text += fmt::format("{} scored {}\n", simulation.id_of(agent), number_text(score));
  }
  return text.empty() ? text : "\n" + text;
}

// Those of the level; those that every player has are in the JSON.
std::string figures_text(const Level& level, std::span<const Figure> figures,
                         std::span<const FigureValue> values) {
  const std::size_t first = figures.size() - level.figures.size();
  if (level.figures.empty()) return "";
  return "\n" + figure_table(figures.subspan(first), values.subspan(first));
}

std::vector<std::string> event_names() {
  std::vector<std::string> names;
  for (auto what = Event::What::arrived; what <= Event::What::target;
       what = static_cast<Event::What>(static_cast<int>(what) + 1)) {
    names.emplace_back(name_of(what));
  }
  return names;
}

void check_only(const RunOptions& options) {
  const std::vector<std::string> names = event_names();
  for (const std::string& name : options.only) {
    if (std::find(names.begin(), names.end(), name) != names.end()) continue;
    throw std::invalid_argument(fmt::format("--only: there is no event '{}'{}; events are: {}",
                                            name, suggestion(name, names), fmt::join(names, ", ")));
  }
  if (options.json && !options.only.empty()) {
    throw std::invalid_argument("--only is for the timeline: --json has all events");
  }
}

void print_timeline(const Simulation& simulation, std::span<const Event> events,
                    const std::vector<std::string>& only, std::ostream& out) {
  if (only.empty()) {
    out << (events.empty() ? "nothing happened\n" : timeline(simulation, events));
    return;
  }
  std::size_t printed = 0;
  for (const Event& event : events) {
    if (std::find(only.begin(), only.end(), name_of(event.what)) == only.end()) continue;
    out << timeline_line(simulation, event);
    ++printed;
  }
  if (printed == 0) out << fmt::format("nothing of this happened: {}\n", fmt::join(only, ", "));
}

}  // namespace

int run(const RunOptions& options, const Streams& streams) {
  check_only(options);
  std::optional<TraceFormat> format;
  if (!options.trace.empty()) format = trace_format(options.trace);
  const Level level = read(options.level);
  Simulation simulation = prepared(level, streams);
  std::optional<OutputFile> trace;
  if (format) trace.emplace(options.trace).write(trace_head(*format));
  const std::vector<Figure> figures = all_figures(simulation.level());
  Figures measures(simulation, figures);
  const std::vector<Event> events = play(streams, simulation, run_length(level), [&] {
    measures.add(simulation);
    if (trace) trace->write(trace_lines(simulation, *format));
  });
  if (trace) trace->finish();
  if (options.json) {
    streams.out << run_json(simulation, events, figures, measures.values());
    return done;
  }
  streams.out << worded("{}: {} s at {} steps a second, seed {}\n\n", on_one_line(level.name),
                        level.seconds, level.ticks_per_second, level.seed);
  print_timeline(simulation, events, options.only, streams.out);
  streams.out << '\n'
              << summary(simulation, events) << harm_table(simulation, events)
              << place_table(simulation, events) << score_lines(simulation);
  streams.out << figures_text(simulation.level(), figures, measures.values());
  if (const std::uint64_t count = simulation.projectiles_not_fired(); count > 0) {
    streams.out << fmt::format(
        "{} projectiles were not fired, because {} were in flight: the most that a level may "
        "have\n",
        count, LevelLimits::projectiles);
  }
  return done;
}

}  // namespace gaze::cli
