#include <fmt/format.h>

#include <algorithm>

#include "gaze/acquaintance.hpp"
#include "gaze/attack_answer.hpp"
#include "gaze/change.hpp"
#include "gaze/going.hpp"
#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"

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
  std::vector<Tally> tallies(simulation.level().agents.size());
  for (const Event& event : events) {
    Tally& own = tallies[event.agent.index];
    own.noticed += event.what == Event::What::noticed;
    own.attacks += event.what == Event::What::attacked;
    own.hits += event.what == Event::What::hit && event.other.has_value();
    if (event.what == Event::What::hurt) {
      own.suffered += event.damage;
      if (event.other) tallies[event.other->index].dealt += event.damage;
    }
  }
  return tallies;
}

// How wide a column of ids is: as the longest id of those who are there, or as the heading.
std::size_t id_width(const Simulation& simulation) {
  std::size_t width = std::string_view("agent").size();
  for (const AgentId agent : simulation.agents()) {
    width = std::max(width, simulation.id_of(agent).size());
  }
  return width;
}

std::string position_text(const Vector3d& p) {
  return fmt::format("{:.2f}, {:.2f}, {:.2f}", p.x() + 0.0, p.y() + 0.0, p.z() + 0.0);
}

std::string held_text(const Acquaintance& knows) {
  if (!knows.held) return {};
  return fmt::format(
      "; at the limit of a sense, so it loses it {} s after the last perception ({:.2f} s ago)",
      number_text(knows.held->limit), knows.held->unperceived);
}

std::string awareness_text(Plane plane, const Acquaintance& knows) {
  switch (knows.awareness) {
    case Awareness::unaware:
      return "is unaware of it";
    case Awareness::gathering:
      return "has begun to see it and has not noticed it yet";
    case Awareness::noticed:
      return fmt::format("has noticed it, now by {}{}", name_of(*knows.by), held_text(knows));
    default:
      return fmt::format("has lost it (noticed by {}) and remembers it at {}", name_of(*knows.by),
                         place_text(plane, *knows.last_place));
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

std::string angle_numbers(const FieldTest& field) {
  return beside_limit(field.value_deg, field.limit_deg, " degrees off", 1) +
         (field.is_near ? ", but in the near ring" : "");
}

std::string evidence_line(const Verdict& verdict, const Sight& sight) {
  const EvidenceRate& parts = verdict.evidence;
  std::string text = fmt::format("{:.0f} % of {} s", verdict.gathered * 100.0,
                                 number_text(sight.notice_time.seconds()));
  if (verdict.sees) {
    text += fmt::format(
        "; grows {:.2f} times as fast: visibility {} x visible {:.2f} x fade {:.2f} x light {}",
        parts.rate(), number_text(parts.visibility), parts.visible, parts.fade,
        number_text(parts.light));
  }
  return fmt::format("  {:<14} {}\n", "evidence", text);
}

std::string tests(const Verdict& verdict, const Sight& sight) {
  std::string text;
  text += test_line("range", beside_limit(verdict.range.value, verdict.range.limit, " m", 2),
                    verdict.range.pass);
  text += test_line("field of view", angle_numbers(verdict.field), verdict.field.pass);
  if (verdict.vertical) {
    text += test_line("up and down", angle_numbers(*verdict.vertical), verdict.vertical->pass);
  }
  text += test_line("line of sight", line_numbers(verdict.line), verdict.line.pass);
  if (!verdict.line.blocked_by.empty()) {
    text += fmt::format("  {:<14} a ray stops at {} at {}\n", "", verdict.line.blocked_by,
                        place_text(Plane::space, verdict.line.blocked_at));
  }
  if (sight.notice_time.nanoseconds > 0) text += evidence_line(verdict, sight);
  return text;
}

std::string other_senses(const Simulation& simulation, const Acquaintance& knows) {
  std::string text;
  for (const FeelerAnswer& feeler : knows.feelers) {
    text += test_line(fmt::format("feeler {}", feeler.name).c_str(), explain(feeler, simulation),
                      feeler.is_yes);
  }
  if (knows.nearness) {
    const NearnessAnswer& near = *knows.nearness;
    text += test_line("nearness", beside_limit(near.value, near.limit, " m", 2), near.pass);
  }
  if (knows.has_touch) {
    text += test_line(
        "touch",
        knows.touched
            ? fmt::format("on its {}", kSideNames[static_cast<std::size_t>(*knows.touched)])
            : "no",
        knows.touched.has_value());
  }
  if (knows.noise) {
    const std::string verdict = explain(knows.noise->verdict, simulation.level());
    text += fmt::format("  {:<14} its last noise '{}', from here: {}\n", "hearing",
                        knows.noise->name, verdict);
  }
  return text;
}

bool perceives(const Kind& kind) {
  return kind.sight || kind.hearing || kind.nearness || kind.touch || kind.hurt ||
         !kind.feelers.empty();
}

// Without sight, what its other senses say.
std::string why_line(const Simulation& simulation, const Verdict& verdict, AgentId agent,
                     AgentId other) {
  if (verdict.has_sight || !verdict.hindrance.empty()) return explain(verdict);
  const Acquaintance knows = acquaintance(simulation, agent, other);
  std::string text;
  const auto add = [&](const std::string& part) { text += text.empty() ? part : "; " + part; };
  for (const FeelerAnswer& feeler : knows.feelers) {
    add(fmt::format("feeler {}: {}", feeler.name, explain(feeler, simulation)));
  }
  if (knows.nearness) {
    add("nearness: " + beside_limit(knows.nearness->value, knows.nearness->limit, " m", 2));
  }
  if (knows.has_touch) add(knows.touched ? "touching" : "not touching");
  return text.empty() ? explain(verdict) : text;
}

// For an agent without eyes the text says whether it notices the other at all.
std::string_view verb_of(const Verdict& verdict, const Acquaintance& knows) {
  if (verdict.has_sight) return verdict.sees ? "sees" : "does not see";
  return knows.awareness == Awareness::noticed ? "notices" : "does not notice";
}

std::string because(const Simulation& simulation, const Verdict& verdict, const Acquaintance& knows,
                    AgentId looker) {
  const Level& level = simulation.level();
  if (verdict.has_sight || !verdict.hindrance.empty()) return explain(verdict);
  if (!perceives(level.kind_of(level.agents[looker.index]))) return "it has no senses";
  if (knows.awareness == Awareness::noticed && knows.by) {
    return fmt::format("it perceives it by {}", name_of(*knows.by));
  }
  return "none of its senses perceives it now";
}

std::string change_line(const Simulation& simulation, const Verdict& verdict, AgentId looker,
                        AgentId other) {
  const auto turns_it = remedy(simulation, looker, other);
  if (!turns_it) return {};
  return fmt::format("  {:<14} {}\n", verdict.sees ? "would end it" : "it would take",
                     describe(*turns_it, simulation.level().plane));
}

}  // namespace

std::string timeline_line(const Simulation& simulation, const Event& event) {
  const double time = static_cast<double>(event.tick) / simulation.level().ticks_per_second;
  return fmt::format("{:8.3f} s  {:<9} {}\n", time, name_of(event.what),
                     simulation.describe(event));
}

std::string summary(const Simulation& simulation, std::span<const Event> events) {
  const std::vector<Tally> tallies = tally(simulation, events);
  const std::size_t width = id_width(simulation);
  std::string text =
      fmt::format("{:<{}}  {:<8} {:>9} {:>8} {:>8} {:>6} {:>7} {:>9}  {}\n", "agent", width, "mode",
                  "health", "noticed", "attacks", "hits", "dealt", "suffered", "position");
  for (const AgentId agent : simulation.agents()) {
    const AgentState state = simulation.state(agent);
    const Tally& own = tallies[agent.index];
    text += fmt::format(
        "{:<{}}  {:<8} {:>9} {:>8} {:>8} {:>6} {:>7} {:>9}  {}\n", simulation.id_of(agent), width,
        name_of(state.mode), number_text(state.health), own.noticed, own.attacks, own.hits,
        number_text(own.dealt), number_text(own.suffered), position_text(state.position));
  }
  return text;
}

std::string account(const Simulation& simulation, AgentId looker, AgentId other) {
  const Verdict verdict = simulation.look(looker, other);
  const Acquaintance knows = acquaintance(simulation, looker, other);
  const Level& level = simulation.level();
  std::string text =
      fmt::format("At {:.3f} s {} (mode {}) {} {}.\n", simulation.seconds(), verdict.looker,
                  name_of(simulation.state(looker).mode), verb_of(verdict, knows), verdict.other);
  if (verdict.has_sight) {
    text += tests(verdict, *level.kind_of(level.agents[looker.index]).sight);
  }
  text += other_senses(simulation, knows);
  text += fmt::format("  {:<14} {}\n", "because", because(simulation, verdict, knows, looker));
  text += change_line(simulation, verdict, looker, other);
  if (verdict.hindrance.empty() && perceives(level.kind_of(level.agents[looker.index]))) {
    text += fmt::format("  {:<14} {} {}\n", "so far", verdict.looker,
                        awareness_text(simulation.level().plane, knows));
  }
  if (const auto target = simulation.state(looker).target) {
    text += fmt::format("  {:<14} {}\n", "acts on", simulation.id_of(*target));
  }
  if (level.kind_of(level.agents[looker.index]).move->gait != Gait::fixed) {
    const Going way = going(simulation, looker);
    text += fmt::format(
        "  {:<14} {}\n", way.is_moving ? "moves" : "stands still",
        way.is_moving ? fmt::format("{:.2f} m/s; {}", way.speed, way.reason) : way.reason);
  }
  for (const AttackAnswer& answer : attacks_at(simulation, looker, other)) {
    text += fmt::format("  {:<14} {}: {}\n", answer.can ? "attacks" : "no attack", answer.attack,
                        answer.reason);
  }
  if (const auto clue = simulation.state(looker).goes_by) {
    text += fmt::format("  {:<14} a {} that it heard at {}\n", "goes by", clue->noise,
                        place_text(simulation.level().plane, clue->place));
  }
  return text;
}

std::string all_accounts(const Simulation& simulation) {
  const Level& level = simulation.level();
  const std::size_t width = id_width(simulation);
  std::string text =
      fmt::format("At {:.3f} s\n{:<{}}  {:<{}}  {:<5} {:<10} {}\n", simulation.seconds(), "agent",
                  width, "other", width, "sees", "knows by", "because");
  const std::vector<AgentId> agents = simulation.agents();
  for (const AgentId looker : agents) {
    const Kind& kind = level.kind_of(level.agents[looker.index]);
    for (const AgentId other : agents) {
      const bool is_hostile_pair =
          is_hostile(level, kind.team, level.kind_of(level.agents[other.index]).team);
      if (looker == other || !is_hostile_pair || !perceives(kind)) continue;
      const Verdict verdict = simulation.look(looker, other);
      const auto by = simulation.noticed_by(looker, other);
      text += fmt::format("{:<{}}  {:<{}}  {:<5} {:<10} {}\n", verdict.looker, width, verdict.other,
                          width, verdict.sees ? "yes" : "no", by ? name_of(*by) : "-",
                          why_line(simulation, verdict, looker, other));
    }
  }
  return text;
}

std::string finding_line(const Finding& finding) {
  return on_one_line(fmt::format("{}: {}: {} [{}]", text_of(finding.place),
                                 name_of(finding.severity), finding.message, finding.code)) +
         "\n";
}

namespace {

// Links count from end to end, walks in the plan; what hovers seen from the side flies in x and z.
double leg_length(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to,
                  bool is_link) {
  const Vector3d way = to - from;
  const bool is_whole = is_link || mesh.body().altitude.has_value();
  return std::sqrt(is_whole ? way.squaredNorm() : way.head<2>().squaredNorm());
}

}  // namespace

std::string path_account(const Level& level, const NavigationMesh& mesh, const Path& path,
                         const std::string& kind, const std::string& reason) {
  std::string text =
      fmt::format("{} for {}: {:.2f} m; {}\n", name_of(path.outcome), kind, path.length, reason);
  double so_far = 0.0;
  std::string before;
  auto leg = path.links.begin();
  for (std::size_t i = 0; i < path.points.size(); ++i) {
    const Vector3d& p = path.points[i];
    const bool is_link = leg != path.links.end() && leg->to_point == i;
    if (i > 0) so_far += leg_length(mesh, path.points[i - 1], p, is_link);
    std::string row = fmt::format("  {:8.2f} m  {}", so_far, place_text(level.plane, p));
    if (is_link) row += fmt::format("  by {}", name_of(level, mesh.links()[(leg++)->link]));
    row += '\n';
    // Where edges meet, points of the way may lie nearer together than is told.
    if (row != before) text += row;
    before = std::move(row);
  }
  return text;
}

}  // namespace gaze
