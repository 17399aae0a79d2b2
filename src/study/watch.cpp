#include "gaze/watch.hpp"

#include <cmath>

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

}  // namespace

void Watch::add(const Simulation& simulation) {
  WatchRow row;
  row.seconds = simulation.seconds();
  row.mode = simulation.state(agent_).mode;
  row.awareness = simulation.awareness(agent_, other_);
  row.by = simulation.noticed_by(agent_, other_);
  row.verdict = simulation.look(agent_, other_);
  const Vector3d way = simulation.state(other_).position - simulation.state(agent_).position;
  row.distance = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z());
  if (!rows_.empty()) row.broke = crossed(rows_.back(), row);
  rows_.push_back(std::move(row));
}

}  // namespace gaze
