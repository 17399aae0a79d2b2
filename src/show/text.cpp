#include <fmt/format.h>

#include <algorithm>

#include "gaze/report.hpp"

namespace gaze {
namespace {

struct Tally {
  int noticed = 0;
  int attacks = 0;
  int hits = 0;
  double dealt = 0.0;
  double suffered = 0.0;
};

std::vector<Tally> tally(const Simulation& simulation, std::span<const Event> events) {
  std::vector<Tally> tallies(simulation.agent_count());
  for (const Event& event : events) {
    Tally& own = tallies[event.agent.index];
    own.noticed += event.what == Event::What::noticed;
    own.attacks += event.what == Event::What::attacked;
    own.hits += event.what == Event::What::hit && event.other.has_value();
    if (event.what == Event::What::hurt) {
      own.suffered += event.damage;
      tallies[event.other->index].dealt += event.damage;
    }
  }
  return tallies;
}

std::string place_text(const Vector3d& p) {
  return fmt::format("{:.2f}, {:.2f}, {:.2f}", p.x() + 0.0, p.y() + 0.0, p.z() + 0.0);
}

std::string awareness_text(const Simulation& simulation, AgentId looker, AgentId other) {
  const auto last = simulation.last_place(looker, other);
  switch (simulation.awareness(looker, other)) {
    case Awareness::unaware:
      return "is unaware of it";
    case Awareness::gathering:
      return "has begun to see it and has not noticed it yet";
    case Awareness::noticed:
      return "has noticed it";
    default:
      return fmt::format("has lost it and remembers it at [{}]", place_text(*last));
  }
}

std::string test_line(const char* name, const std::string& numbers, bool pass) {
  return fmt::format("  {:<14} {:<46} {}\n", name, numbers, pass ? "pass" : "FAIL");
}

std::string line_numbers(const LineTest& line) {
  const std::string needed =
      line.limit > 0.0 ? fmt::format("{:.0f} % needed", line.limit * 100.0) : "more than 0 needed";
  return fmt::format("{:.0f} % of {} points visible, {}", line.visible * 100.0, line.points,
                     needed);
}

std::string tests(const Verdict& verdict) {
  std::string text;
  text += test_line(
      "range", fmt::format("{:.3f} m, at most {:.3f}", verdict.range.value, verdict.range.limit),
      verdict.range.pass);
  text += test_line("field of view",
                    fmt::format("{:.2f} degrees off, at most {:.2f}", verdict.field.value_deg,
                                verdict.field.limit_deg),
                    verdict.field.pass);
  text += test_line("line of sight", line_numbers(verdict.line), verdict.line.pass);
  if (!verdict.line.blocked_by.empty()) {
    text += fmt::format("  {:<14} a ray stops at {} at [{}]\n", "", verdict.line.blocked_by,
                        place_text(verdict.line.blocked_at));
  }
  return text;
}

}  // namespace

std::string timeline_line(const Simulation& simulation, const Event& event) {
  const double time = static_cast<double>(event.tick) / simulation.level().ticks_per_second;
  return fmt::format("{:8.3f} s  {:<9} {}\n", time, name_of(event.what),
                     simulation.describe(event));
}

std::string summary(const Simulation& simulation, std::span<const Event> events) {
  const std::vector<Tally> tallies = tally(simulation, events);
  std::size_t width = 5;
  for (const Agent& agent : simulation.level().agents) width = std::max(width, agent.id.size());
  std::string text =
      fmt::format("{:<{}}  {:<8} {:>9} {:>8} {:>8} {:>6} {:>7} {:>9}  {}\n", "agent", width, "mode",
                  "health", "noticed", "attacks", "hits", "dealt", "suffered", "position");
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    const AgentState state = simulation.state({i});
    const Tally& own = tallies[i];
    text +=
        fmt::format("{:<{}}  {:<8} {:>9.6g} {:>8} {:>8} {:>6} {:>7.6g} {:>9.6g}  {}\n",
                    simulation.id_of({i}), width, name_of(state.mode), state.health, own.noticed,
                    own.attacks, own.hits, own.dealt, own.suffered, place_text(state.position));
  }
  return text;
}

std::string account(const Simulation& simulation, AgentId looker, AgentId other) {
  const Verdict verdict = simulation.look(looker, other);
  std::string text = fmt::format("At {:.3f} s {} (mode {}) {} {}.\n", simulation.seconds(),
                                 verdict.looker, name_of(simulation.state(looker).mode),
                                 verdict.sees ? "sees" : "does not see", verdict.other);
  if (verdict.has_sight) text += tests(verdict);
  text += fmt::format("  {:<14} {}\n", "because", explain(verdict));
  if (verdict.hindrance.empty() && verdict.has_sight) {
    text += fmt::format("  {:<14} {} {}\n", "so far", verdict.looker,
                        awareness_text(simulation, looker, other));
  }
  return text;
}

std::string finding_line(const Finding& finding) {
  return fmt::format("{}:{}:{}: {}: {} [{}]\n", finding.place.file, finding.place.line,
                     finding.place.column, name_of(finding.severity), finding.message,
                     finding.code);
}

}  // namespace gaze
