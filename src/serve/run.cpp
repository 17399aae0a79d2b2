#include "serve/run.hpp"

#include <algorithm>
#include <iterator>

#include "geometry/plan.hpp"

namespace gaze::serve {
namespace {

constexpr int kSamplesASecond = 10;

}  // namespace

std::int64_t trail_step(const Level& level) {
  return std::max(1, level.ticks_per_second / kSamplesASecond);
}

void TrailLog::add(const Simulation& game) {
  if (game.tick() % trail_step(game.level()) != 0) return;
  Sample& sample = samples_.emplace_back();
  sample.tick = game.tick();
  for (const AgentId agent : game.agents()) {
    const Vector2d place = plan_part(game.level().plane, game.state(agent).position);
    sample.places.emplace_back(agent, place.cast<float>());
  }
}

void TrailLog::cut(std::int64_t tick) {
  while (!samples_.empty() && samples_.back().tick > tick) samples_.pop_back();
}

std::vector<Vector2d> TrailLog::of(AgentId agent, std::int64_t from, std::int64_t to) const {
  std::vector<Vector2d> places;
  const auto first =
      std::lower_bound(samples_.begin(), samples_.end(), from,
                       [](const Sample& sample, std::int64_t tick) { return sample.tick < tick; });
  for (auto it = first; it != samples_.end() && it->tick <= to; ++it) {
    for (const auto& [who, place] : it->places) {
      if (who == agent) places.push_back(place.cast<double>());
    }
  }
  return places;
}

Run::Run(std::shared_ptr<const Prepared> prepared, Inputs inputs)
    : prepared_(std::move(prepared)),
      inputs_(std::move(inputs)),
      game_(*prepared_),
      figures_(all_figures(game_.level())) {
  snapshots_.emplace(0, std::make_shared<const Simulation>(game_));
  measures_.emplace(game_, figures_);
  measures_->add(game_);
  trails_.add(game_);
}

void Run::step() {
  try {
    inputs_.apply(game_);
    game_.step();
  } catch (...) {
    take_back_step();
    throw;
  }
  if (game_.tick() > end_) note();
}

// Replays the game up to the tick of a failed step, without the inputs of that tick. The failed
// step may have changed parts of the game.
void Run::take_back_step() {
  const std::int64_t tick = std::min(game_.tick(), end_);
  inputs_.cut(tick);
  game_ = at(tick);
}

void Run::note() {
  end_ = game_.tick();
  events_.insert(events_.end(), game_.events().begin(), game_.events().end());
  measures_->add(game_);
  trails_.add(game_);
  if (end_ % game_.level().ticks_per_second == 0) keep_snapshot();
}

// One a second of the last minute, and one in ten seconds of what came before.
void Run::keep_snapshot() {
  const std::int64_t second = game_.level().ticks_per_second;
  snapshots_.emplace(end_, std::make_shared<const Simulation>(game_));
  const std::int64_t old = end_ - 60 * second;
  if (old > 0 && old % (10 * second) != 0) snapshots_.erase(old);
}

void Run::go_to(std::int64_t tick) {
  tick = std::max<std::int64_t>(tick, 0);
  const auto after = snapshots_.upper_bound(tick);
  const auto& [kept, snapshot] = *std::prev(after);
  // Going on from where it is takes less than from a snapshot, if that is not between the two.
  if (tick < game_.tick() || kept > game_.tick()) game_ = *snapshot;
  while (game_.tick() < tick) step();
}

Simulation Run::at(std::int64_t tick) const {
  tick = std::clamp<std::int64_t>(tick, 0, end_);
  Simulation game = *std::prev(snapshots_.upper_bound(tick))->second;
  while (game.tick() < tick) {
    inputs_.apply(game);
    game.step();
  }
  return game;
}

void Run::change(Input input) {
  forget_later();
  input.tick = game_.tick();
  inputs_.add(input);
}

void Run::forget_later() {
  const std::int64_t now = game_.tick();
  inputs_.cut(now + 1);
  if (now == end_) return;
  end_ = now;
  snapshots_.erase(snapshots_.upper_bound(now), snapshots_.end());
  std::erase_if(events_, [&](const Event& event) { return event.tick > now; });
  cuts_.push_back(events_.size());
  trails_.cut(now);
  measure_anew();
}

// Figures cannot be turned back: they are shown the run again.
void Run::measure_anew() {
  Simulation game = *snapshots_.begin()->second;
  measures_.emplace(game, figures_);
  measures_->add(game);
  while (game.tick() < end_) {
    inputs_.apply(game);
    game.step();
    measures_->add(game);
  }
}

Past Run::past() const {
  return {
      std::make_shared<const Simulation>(game_), end_, events_, trails_, figures_, figure_values()};
}

}  // namespace gaze::serve
