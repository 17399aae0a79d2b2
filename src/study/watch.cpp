#include "gaze/tools/watch.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

void note(std::string& text, bool before, bool now, const std::string& name,
          const std::string& why = "") {
  if (before == now) return;
  if (!text.empty()) text += ", ";
  text += (now ? "+" : "-") + name;
  if (!now && !why.empty()) text += " (" + why + ")";
}

bool passes(const std::optional<FieldTest>& test) {
  return !test || test->pass;
}

// What passes now and did not is written with +, what fails with -.
std::string crossed(const WatchRow& before, const WatchRow& now) {
  std::string text;
  note(text, before.verdict.range.pass, now.verdict.range.pass, "range");
  note(text, before.verdict.field.pass, now.verdict.field.pass, "field of view");
  note(text, passes(before.verdict.vertical), passes(now.verdict.vertical), "up and down");
  note(text, before.verdict.line.pass, now.verdict.line.pass, "line of sight",
       now.verdict.line.blocked_by);
  note(text, before.verdict.hindrance.empty(), now.verdict.hindrance.empty(), "looks for it");
  return text;
}

void add_once(std::vector<std::string>& texts, const std::string& text) {
  if (text.empty() || std::find(texts.begin(), texts.end(), text) != texts.end()) return;
  texts.push_back(text);
}

WatchRow row_of(const Simulation& simulation, AgentId agent, AgentId other) {
  WatchRow row;
  row.seconds = simulation.seconds();
  row.mode = simulation.state(agent).mode;
  row.awareness = simulation.awareness(agent, other);
  row.by = simulation.noticed_by(agent, other);
  row.verdict = simulation.look(agent, other);
  const Vector3d way = simulation.state(other).position - simulation.state(agent).position;
  row.distance = length_of(way);
  return row;
}

}  // namespace

void Watch::add(const Simulation& simulation) {
  WatchRow row = row_of(simulation, agent_, other_);
  Acquaintance knows = acquaintance(simulation, agent_, other_);
  row.nearness = knows.nearness;
  row.noise = std::move(knows.noise);
  if (!rows_.empty()) row.broke = crossed(rows_.back(), row);
  rows_.push_back(std::move(row));
}

void Overlook::add(const Simulation& simulation) {
  const WatchRow row = row_of(simulation, agent_, other_);
  step_ = 1.0 / simulation.level().ticks_per_second;
  add_noticed(row);
  if (is_first_ || row.distance < all_.nearest) {
    all_.nearest = row.distance;
    all_.nearest_at = row.seconds;
  }
  add_once(all_.hindrances, row.verdict.hindrance);
  if (row.verdict.has_sight && row.verdict.hindrance.empty()) add_sight(row);
  if (!is_first_) all_.seconds += step_;
  is_first_ = false;
}

void Overlook::add_noticed(const WatchRow& row) {
  const bool is_noticed = row.awareness == Awareness::noticed;
  if (is_noticed && !was_noticed_) all_.noticed.push_back({row.seconds, row.seconds, row.by});
  if (is_noticed) all_.noticed.back().to = row.seconds;
  was_noticed_ = is_noticed;
}

void Overlook::add_sight(const WatchRow& row) {
  const Verdict& verdict = row.verdict;
  add_test("range", verdict.range.value, verdict.range.limit, verdict.range.pass, row);
  add_test("field of view", verdict.field.value_deg, verdict.field.limit_deg, verdict.field.pass,
           row);
  if (verdict.vertical) {
    add_test("up and down", verdict.vertical->value_deg, verdict.vertical->limit_deg,
             verdict.vertical->pass, row);
  }
  if (!verdict.line.pass) {
    all_.hidden += step_;
    add_once(all_.solids, verdict.line.blocked_by);
  }
  all_.evidence = std::max(all_.evidence, verdict.gathered);
  if (verdict.sees && !was_seen_) seen_from_ = row.seconds;
  was_seen_ = verdict.sees;
  const double seen = std::min(row.seconds - seen_from_ + step_, std::max(row.seconds, step_));
  if (!verdict.sees || seen <= all_.seen) return;
  all_.seen = seen;
  all_.seen_from = seen_from_;
}

void Overlook::add_test(const char* name, double value, double limit, bool pass,
                        const WatchRow& row) {
  auto test = std::find_if(all_.tests.begin(), all_.tests.end(),
                           [&](const Overview::Test& one) { return one.name == name; });
  if (test == all_.tests.end()) {
    test = all_.tests.insert(test, {name, 0.0, value, limit, row.seconds});
  }
  if (value - limit < test->best - test->limit) {
    *test = {name, test->failed, value, limit, row.seconds};
  }
  if (!pass) test->failed += step_;
}

}  // namespace gaze
