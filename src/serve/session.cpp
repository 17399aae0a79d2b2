#include "serve/session.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "gaze/level_file.hpp"
#include "level/numbers.hpp"

namespace gaze::serve {
namespace {

std::int64_t last_tick(const Level& level) {
  return nearest_tick(level.seconds, level.ticks_per_second);
}

}  // namespace

Session::Session(std::filesystem::path file, std::vector<Setting> given, Writer writer)
    : file_(std::move(file)), given_(std::move(given)), writer_(std::move(writer)) {
  begin({}, {}, 0, 0);
  files_.watch(file_, &game().level(), {});
}

std::vector<Setting> Session::settings(const std::vector<Setting>& tried) const {
  std::vector<Setting> settings = given_;
  settings.insert(settings.end(), tried.begin(), tried.end());
  if (!take_) return settings;
  const std::string of = "agent." + take_->agent + ".";
  const std::string said_as = "the take " + take_->name;
  settings.push_back(
      {of + "track", fmt::format("{{ file = \"{}.csv\", agent = \"{}\" }}", take_->name, take_->of),
       said_as});
  settings.push_back({of + "driver", "track", said_as});
  settings.push_back({of + "script", "[]", said_as});
  return settings;
}

void Session::begin(std::vector<Setting> tried, Inputs inputs, std::int64_t end, std::int64_t at) {
  const Level level = read_level(file_, settings(tried));
  const int before = run_ ? game().level().ticks_per_second : level.ticks_per_second;
  if (before != level.ticks_per_second) {  // times stay, ticks do not
    inputs = inputs.at_rate(before, level.ticks_per_second);
    end = end * level.ticks_per_second / before;
    at = at * level.ticks_per_second / before;
  }
  auto next = std::make_unique<Run>(std::make_shared<const Prepared>(level), std::move(inputs));
  next->go_to(end);
  next->go_to(at);
  run_ = std::move(next);
  tried_ = std::move(tried);
  left_over_ = 0.0;
  ++revisions_.level;
  checker_.check(level, source());
}

LevelSource Session::source() const {
  return [file = file_, settings = settings(tried_)](const std::vector<Setting>& more) {
    std::vector<Setting> all = settings;
    all.insert(all.end(), more.begin(), more.end());
    return read_level(file, all);
  };
}

void Session::play_through() {
  run_->go_to(last_tick(game().level()));
}

void Session::play() {
  is_playing_ = true;
}

void Session::set_pace(double pace) {
  if (!(pace >= 0.05 && pace <= 8.0)) {
    throw UsageError(fmt::format("a pace of {}; 0.05 to 8 is allowed", pace));
  }
  pace_ = pace;
}

void Session::advance(double seconds) {
  constexpr double kMost = 0.25;  // seconds: what takes longer than it lasts goes slower
  if (!is_playing_) return;
  const int rate = game().level().ticks_per_second;
  left_over_ += std::min(seconds, kMost) * pace_;
  const auto ticks = static_cast<std::int64_t>(left_over_ * rate);
  left_over_ -= static_cast<double>(ticks) / rate;
  const std::int64_t end = last_tick(game().level());
  for (std::int64_t i = 0; i < ticks && is_playing_; ++i) {
    run_->step();
    if (game().tick() == end || game().is_over()) is_playing_ = false;
  }
}

void Session::step(int ticks) {
  is_playing_ = false;
  run_->go_to(game().tick() + ticks);
}

void Session::go_to(std::int64_t tick) {
  run_->go_to(std::clamp<std::int64_t>(tick, 0, run_->end()));
  left_over_ = 0.0;
}

void Session::restart() {
  Past past = run_->past();
  begin(tried_, {}, 0, 0);
  ghost_ = std::move(past);
  ++revisions_.ghost;
}

void Session::choose_player(const std::string& agent) {
  Simulation(game()).steer(game().agent(agent), {});  // refuses whom nobody can take over
  player_ = agent;
}

void Session::change(Input input) {
  if (game().tick() < run_->end()) {
    ghost_ = run_->past();
    ++revisions_.ghost;
  }
  run_->change(std::move(input));
}

void Session::steer(const std::string& agent, const Steering& steering) {
  Simulation(game()).steer(game().agent(agent), steering);  // refuses what it would refuse later
  change({0, agent, steering, std::nullopt});
}

void Session::let_go(const std::string& agent) {
  static_cast<void>(game().agent(agent));
  change({0, agent, std::nullopt, std::nullopt});
}

void Session::by_hand(const std::string& agent, const HandDeed& deed) {
  const AgentId who = game().agent(agent);
  if (!meant(game(), who, deed)) {
    throw UsageError(deed.what == HandDeed::What::take
                         ? fmt::format("nothing lies about for {} to take", agent)
                         : fmt::format("{} has nothing to throw", agent));
  }
  // Tries the deed on a copy, so that an impossible deed is refused now and not in a later tick.
  Steering steering = run_->inputs().steering(agent, game().tick()).value_or(Steering{});
  steering.deeds.push_back(*meant(game(), who, deed));
  Simulation(game()).steer(who, steering);
  // What the hand does not steer yet is taken over, standing.
  if (!run_->inputs().steering(agent, game().tick())) steer(agent, {});
  change({0, agent, std::nullopt, deed});
}

void Session::read_anew(std::vector<Setting> tried) {
  // Of several values that are tried one after the other, the play before the first stays.
  const bool is_first = tried_.empty();
  Past past = run_->past();
  begin(std::move(tried), run_->inputs(), run_->end(), game().tick());
  if (!ghost_ || is_first) ghost_ = std::move(past);
  ++revisions_.ghost;
  ++revisions_.values;
}

void Session::try_value(const std::string& path, const std::string& value) {
  std::vector<Setting> tried = tried_;
  std::erase_if(tried, [&](const Setting& one) { return one.path == path; });
  tried.push_back({path, value, "the value of " + path});
  read_anew(std::move(tried));
}

void Session::drop_values() {
  if (tried_.empty()) return;
  begin({}, run_->inputs(), run_->end(), game().tick());
  ghost_.reset();
  ++revisions_.ghost;
  ++revisions_.values;
}

void Session::drop_ghost() {
  ghost_.reset();
  ++revisions_.ghost;
}

void Session::look_at_files() {
  if (!files_.have_changed()) return;
  try {
    read_anew(tried_);
    faults_.clear();
    files_.watch(file_, &game().level(), {});
  } catch (const LevelError& error) {
    faults_ = error.faults();
    files_.watch(file_, nullptr, faults_);
  }
  ++revisions_.faults;
}

}  // namespace gaze::serve
