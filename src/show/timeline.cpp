#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <map>
#include <optional>
#include <tuple>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"

/// The timeline of a run: a line for each event, but for blows that repeat those before.
namespace gaze {
namespace {

double seconds_of(const Simulation& simulation, const Event& event) {
  return static_cast<double>(event.tick) / simulation.level().ticks_per_second;
}

/// What makes blows alike: who deals them, with what, and to whom. A solid, the ground and nobody
/// count as nobody. Without an attack it is a landing.
struct Blows {
  AgentId by;
  std::optional<AgentId> whom;
  std::string_view attack;
  auto operator<=>(const Blows&) const = default;
};

std::optional<Blows> blows_of(const Event& event) {
  switch (event.what) {
    case Event::What::attacked:
    case Event::What::fired:
    case Event::What::hit:
    case Event::What::blast:
    case Event::What::spent:
      return Blows{event.agent, event.other, event.attack};
    case Event::What::landed:
      return Blows{event.agent, std::nullopt, ""};
    case Event::What::hurt:
      if (!event.other) return std::nullopt;  // a host hurt it
      return Blows{*event.other, event.agent, event.attack};
    default:
      return std::nullopt;
  }
}

// What changes between two agents: blows after it are no mere repetition of those before.
bool ends(const Event& event, const Blows& blows) {
  const auto is_one = [&](AgentId agent) { return agent == blows.by || agent == blows.whom; };
  switch (event.what) {
    case Event::What::defeated:
    case Event::What::caught:
    case Event::What::mode:
      return is_one(event.agent);
    case Event::What::noticed:
    case Event::What::lost:
      return is_one(event.agent) && event.other && is_one(*event.other);
    default:
      return false;
  }
}

/// Blows that repeat those before them, told by one line.
struct Repeated {
  Blows blows;
  std::size_t line = 0;  ///< Of the timeline, where the first of them came.
  std::vector<const Event*> events;

  std::size_t count(Event::What what) const {
    return static_cast<std::size_t>(std::count_if(
        events.begin(), events.end(), [=](const Event* event) { return event->what == what; }));
  }
};

std::string counted(std::size_t count, const char* one) {
  return fmt::format("{} {}{}", count, one, count == 1 ? "" : "s");
}

std::string health_text(const Repeated& repeated) {
  double lost = 0.0;
  double left = 0.0;
  for (const Event* event : repeated.events) {
    if (event->what != Event::What::hurt) continue;
    lost += event->damage;
    left = event->health;
  }
  return fmt::format("{} health lost, {} left", number_text(lost), number_text(left));
}

std::string repeated_line(const Simulation& simulation, const Repeated& repeated) {
  if (repeated.events.size() == 1) return timeline_line(simulation, *repeated.events[0]);
  const double from = seconds_of(simulation, *repeated.events.front());
  const double until = seconds_of(simulation, *repeated.events.back());
  const std::string span = until > from ? fmt::format(" until {:.3f} s", until) : "";
  const std::string& by = simulation.id_of(repeated.blows.by);
  if (repeated.blows.attack.empty()) {
    return fmt::format("{:8.3f} s  {:<9} {} landed {} more times{}\n", from, "again", by,
                       repeated.events.size(), span);
  }
  std::vector<std::string> parts;
  const auto add = [&](Event::What what, const char* one) {
    if (repeated.count(what) > 0) parts.push_back(counted(repeated.count(what), one));
  };
  const bool fires = repeated.count(Event::What::fired) > 0;
  fires ? add(Event::What::fired, "shot") : add(Event::What::attacked, "blow");
  add(Event::What::hit, "hit");
  add(Event::What::blast, "blast");
  if (repeated.count(Event::What::spent) > 0) {
    parts.push_back(fmt::format("{} spent", repeated.count(Event::What::spent)));
  }
  if (repeated.count(Event::What::hurt) > 0) parts.push_back(health_text(repeated));
  return fmt::format("{:8.3f} s  {:<9} {} went on with {}{}{}: {}\n", from, "again", by,
                     repeated.blows.attack,
                     repeated.blows.whom ? " at " + simulation.id_of(*repeated.blows.whom) : "",
                     span, fmt::join(parts, ", "));
}

/// Collects the lines of a timeline.
class Timeline {
 public:
  explicit Timeline(const Simulation& simulation) : simulation_(simulation) {}

  void add(const Event& event) {
    const auto blows = blows_of(event);
    if (!blows) {
      end_by(event);
      lines_.push_back(timeline_line(simulation_, event));
      return;
    }
    const auto [at, is_new] = open_.try_emplace(*blows);
    if (is_new) {
      of_agent_[blows->by].push_back(*blows);
      if (blows->whom) of_agent_[*blows->whom].push_back(*blows);
    }
    Open& open = at->second;
    const auto of_it = std::tuple{event.what, event.solid ? event.solid->index + 1 : 0};
    if (std::find(open.told.begin(), open.told.end(), of_it) == open.told.end()) {
      open.told.push_back(of_it);
      lines_.push_back(timeline_line(simulation_, event));
      return;
    }
    if (!open.repeated) {
      open.repeated = repeated_.size();
      repeated_.push_back({*blows, lines_.size(), {}});
      lines_.emplace_back();
    }
    repeated_[*open.repeated].events.push_back(&event);
  }

  std::string text() {
    for (const Repeated& one : repeated_) lines_[one.line] = repeated_line(simulation_, one);
    return fmt::format("{}", fmt::join(lines_, ""));
  }

 private:
  /// A row of blows that may still go on.
  struct Open {
    std::vector<std::tuple<Event::What, std::uint32_t>> told;  ///< With the solid that was hit.
    std::optional<std::size_t> repeated;
  };

  // All blows that an event ends have its agent on one side.
  void end_by(const Event& event) {
    if (event.what == Event::What::ended) {
      open_.clear();
      of_agent_.clear();
      return;
    }
    const auto its = of_agent_.find(event.agent);
    if (its == of_agent_.end()) return;
    std::erase_if(its->second, [&](const Blows& blows) {
      const bool has_ended = ends(event, blows);
      if (has_ended) open_.erase(blows);
      return has_ended;
    });
  }

  const Simulation& simulation_;
  std::map<Blows, Open> open_;
  std::map<AgentId, std::vector<Blows>> of_agent_;  ///< Open ones, and some that have ended.
  std::vector<Repeated> repeated_;
  std::vector<std::string> lines_;
};

}  // namespace

std::string timeline(const Simulation& simulation, std::span<const Event> events) {
  Timeline lines(simulation);
  for (const Event& event : events) lines.add(event);
  return lines.text();
}

}  // namespace gaze
