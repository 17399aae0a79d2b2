#include "serve/history.hpp"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "serve/json_text.hpp"

namespace gaze::serve {
namespace {

constexpr int kSeconds = 60;

double in_hundredths(double value) {
  return std::round(value * 100.0) / 100.0;
}

}  // namespace

void History::begin(const Run& run, std::string agent, std::string other) {
  *this = {};
  agent_ = std::move(agent);
  other_ = std::move(other);
  const Level& level = run.game().level();
  const std::int64_t every = trail_step(level);
  const std::int64_t first =
      std::max<std::int64_t>(0, run.end() - std::int64_t{kSeconds} * level.ticks_per_second);
  Simulation game = run.at(first / every * every);
  add(game);
  while (game.tick() + every <= run.end()) {
    for (std::int64_t i = 0; i < every; ++i) {
      run.inputs().apply(game);
      game.step();
    }
    add(game);
  }
}

void History::go_on(const Simulation& game) {
  if (!ticks_.empty() && game.tick() >= ticks_.back() + trail_step(game.level())) add(game);
}

bool History::has_missed(const Run& run) const {
  return !ticks_.empty() && run.end() > ticks_.back() + 2 * trail_step(run.game().level());
}

// Removes samples older than one minute.
void History::forget_old(std::int64_t now, int ticks_per_second) {
  const std::int64_t first = now - std::int64_t{kSeconds} * ticks_per_second;
  const auto old = std::lower_bound(ticks_.begin(), ticks_.end(), first) - ticks_.begin();
  ticks_.erase(ticks_.begin(), ticks_.begin() + old);
  for (std::vector<double>* values : {&distance_, &angle_, &visible_, &evidence_}) {
    values->erase(values->begin(), values->begin() + old);
  }
}

void History::add(const Simulation& game) {
  const auto agent = game.find_agent(agent_);
  const auto other = game.find_agent(other_);
  if (!agent || !other || agent == other) return;
  if (!game.is_there(*agent) || !game.is_there(*other)) return;
  const Verdict verdict = game.look(*agent, *other);
  if (!verdict.has_sight) return;
  ticks_.push_back(game.tick());
  distance_.push_back(in_hundredths(verdict.range.value));
  angle_.push_back(in_hundredths(verdict.field.value_deg));
  visible_.push_back(in_hundredths(verdict.line.visible * 100.0));
  evidence_.push_back(in_hundredths(verdict.gathered * 100.0));
  forget_old(game.tick(), game.level().ticks_per_second);
  range_ = in_hundredths(verdict.range.limit);
  half_field_ = in_hundredths(verdict.field.limit_deg);
}

std::string History::message() const {
  nlohmann::ordered_json json{{"tell", "history"},   {"agent", agent_},       {"other", other_},
                              {"ticks", ticks_},     {"distance", distance_}, {"angle", angle_},
                              {"visible", visible_}, {"evidence", evidence_}};
  json["limits"] = {{"distance", range_}, {"angle", half_field_}};
  return json_text(json);
}

}  // namespace gaze::serve
