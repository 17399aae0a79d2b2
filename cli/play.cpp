#include "play.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <ostream>

#include "level/spelling.hpp"
#include "waiting.hpp"

namespace gaze::cli {
namespace {

/// How far a long run is, after two seconds and then after twice as long, up to a minute, each.
class Progress {
 public:
  explicit Progress(const Streams& streams) : streams_(streams) {}

  void tell(const Simulation& simulation, std::int64_t last_tick) {
    const auto now = Clock::now();
    if (now < next_) return;
    const double rate = simulation.level().ticks_per_second;
    streams_.err << fmt::format("played {:.1f} of {:.1f} s\n",
                                static_cast<double>(simulation.tick()) / rate,
                                static_cast<double>(last_tick) / rate)
                 << std::flush;
    next_ = now + std::min<Clock::duration>(now - start_, std::chrono::minutes(1));
  }

 private:
  using Clock = std::chrono::steady_clock;
  const Streams& streams_;
  Clock::time_point start_ = Clock::now();
  Clock::time_point next_ = start_ + std::chrono::seconds(2);
};

}  // namespace

std::vector<Setting> settings_of(const LevelOptions& options) {
  std::vector<Setting> settings;
  for (const std::string& set : options.sets) {
    const std::size_t equals = set.find('=');
    if (equals == std::string::npos || equals == 0) {
      throw std::invalid_argument(fmt::format("--set {} is not of the form PATH=VALUE", set));
    }
    settings.push_back({set.substr(0, equals), set.substr(equals + 1)});
  }
  const auto add = [&](const char* option, const char* key,
                       const std::optional<std::string>& value) {
    if (!value) return;
    if (value->empty()) throw std::invalid_argument(fmt::format("{} has no value", option));
    for (const Setting& setting : settings) {
      if (setting.path != key) continue;
      throw std::invalid_argument(
          fmt::format("{} and --set {} say the same thing; one of them "
                      "is allowed",
                      option, key));
    }
    settings.push_back({key, *value, option});
  };
  add("--seconds", "seconds", options.seconds);
  add("--seed", "seed", options.seed);
  add("--ticks-per-second", "ticks_per_second", options.ticks_per_second);
  return settings;
}

Level read(const LevelOptions& options) {
  return read_level(options.file, settings_of(options));
}

Simulation prepared(const Level& level, const Streams& streams) {
  const Waiting waiting(streams.err, "preparing the level");
  return Simulation(level);
}

NavigationMesh mesh_for(const Level& level, const World& world, const Kind& kind,
                        const Streams& streams) {
  const Waiting waiting(streams.err, "making the mesh");
  return NavigationMesh(level, world, body_of(level, kind));
}

std::vector<Event> play(const Streams& streams, Simulation& simulation, std::int64_t last_tick,
                        const std::function<void()>& each_tick) {
  std::vector<Event> events;
  Progress progress(streams);
  if (each_tick) each_tick();
  while (simulation.tick() < last_tick) {
    simulation.step();
    events.insert(events.end(), simulation.events().begin(), simulation.events().end());
    if (each_tick) each_tick();
    progress.tell(simulation, last_tick);
  }
  return events;
}

std::int64_t tick_at(const Level& level, double seconds, const char* option) {
  if (!(seconds >= 0.0 && seconds <= 86'400.0)) {
    throw std::invalid_argument(fmt::format("{} {} s; 0 to 86400 is allowed", option, seconds));
  }
  if (seconds > level.seconds) {
    throw std::invalid_argument(fmt::format(
        "{} {} s lies beyond the run of this level, which lasts {} s; --seconds {} makes it longer",
        option, seconds, level.seconds, seconds));
  }
  return nearest_tick(seconds, level.ticks_per_second);
}

std::int64_t run_length(const Level& level) {
  return nearest_tick(level.seconds, level.ticks_per_second);
}

const Kind& kind_called(const Level& level, const std::string& name) {
  std::vector<std::string> names;
  for (std::size_t i = 0; i < level.named_kinds; ++i) {
    if (level.kinds[i].name == name) return level.kinds[i];
    names.push_back(level.kinds[i].name);
  }
  throw std::invalid_argument(
      fmt::format("there is no kind '{}'{}", name, suggestion(name, names)));
}

AgentId agent_called(const Simulation& simulation, const std::string& id, const char* option) {
  std::vector<std::string> ids;
  for (const Agent& agent : simulation.level().agents) ids.push_back(agent.id);
  if (id.empty()) throw UsageError(fmt::format("{} is required", option));
  if (std::find(ids.begin(), ids.end(), id) == ids.end()) {
    throw UsageError(fmt::format("there is no agent '{}'{}", id, suggestion(id, ids)));
  }
  return simulation.agent(id);
}

Vector3d place_of(const Level& level, const std::string& text, const char* option) {
  std::vector<double> numbers;
  std::size_t start = 0;
  while (start <= text.size()) {
    const std::size_t comma = std::min(text.find(',', start), text.size());
    const std::string part = text.substr(start, comma - start);
    std::size_t used = 0;
    try {
      numbers.push_back(std::stod(part, &used));
    } catch (const std::exception&) {
      used = 0;
    }
    const bool is_number = used > 0 && used == part.size() && std::abs(numbers.back()) <= 20'000.0;
    if (!is_number) {
      throw std::invalid_argument(fmt::format(
          "{} {}: numbers with a comma between are needed, each within 20000 m", option, text));
    }
    start = comma + 1;
  }
  const bool has_height = numbers.size() == 3 && level.plane == Plane::space;
  if (numbers.size() != 2 && !has_height) {
    throw std::invalid_argument(fmt::format("{} {} has {} numbers; {} needed in this level", option,
                                            text, numbers.size(),
                                            level.plane == Plane::space ? "2 or 3 are" : "2 are"));
  }
  if (level.plane == Plane::upright) return {numbers[0], 0.0, numbers[1]};
  return {numbers[0], numbers[1], has_height ? numbers[2] : level.ground_height.value_or(0.0)};
}

BodySize body_of(const Level& level, const Kind& kind) {
  for (const Agent& agent : level.agents) {
    if (level.kind_of(agent).name == kind.name) return body_size(level, agent);
  }
  return body_size(level, kind);
}

PictureFormat picture_format(const std::string& file, const char* option) {
  if (file.ends_with(".png")) return PictureFormat::png;
  if (file.ends_with(".svg")) return PictureFormat::svg;
  throw std::invalid_argument(fmt::format("{} {} does not end in .png or .svg", option, file));
}

TraceFormat trace_format(const std::string& file) {
  if (file.ends_with(".csv")) return TraceFormat::csv;
  if (file.ends_with(".jsonl")) return TraceFormat::jsonl;
  throw std::invalid_argument(fmt::format("--trace {} does not end in .csv or .jsonl", file));
}

}  // namespace gaze::cli
