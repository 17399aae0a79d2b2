// A level that is moved, turned, mirrored, doubled or written in another order plays alike. What is
// drawn by chance, has a hand of its own or is fixed in metres is left out by the rules below, and
// so are less than 20 steps a second, at which crowds turn on what is rounded. Of a hundred levels
// one may differ: where two come to the same to the last bit, a sum that is rounded elsewhere
// decides otherwise.

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <gtest/gtest.h>

#include <functional>

#include "fuzz/level_writer.hpp"
#include "fuzz/motions.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Motion;
using LevelTest = std::function<bool(const Level&)>;
using Change = std::function<Level(const Level&)>;

/// What an event is, whatever its numbers are; solids by name.
std::string what_of(const Simulation& simulation, const Event& event) {
  std::string text =
      fmt::format("{} {} {} {}", event.tick, name_of(event.what), event.agent.index, event.attack);
  if (event.other) text += fmt::format(" {}", event.other->index);
  if (event.solid) text += " " + simulation.level().solids[event.solid->index].id;
  return text;
}

std::vector<std::string> events_of(const Level& level, int steps = 120) {
  Simulation simulation(level);
  std::vector<std::string> events;
  for (int i = 0; i < steps; ++i) {
    simulation.step();
    for (const Event& event : simulation.events()) events.push_back(what_of(simulation, event));
  }
  return events;
}

void expect_alike(std::uint64_t first_seed, const LevelTest& is_left_out, const Change& change,
                  std::size_t one_in = 100) {
  std::vector<std::string> others;
  std::size_t all = 0;
  std::size_t events = 0;
  for (std::uint64_t seed = first_seed; all < testing::rounds(testing::is_sanitized() ? 90 : 200);
       ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level || level->ticks_per_second < 20 || is_left_out(*level)) continue;
    const Level changed = change(*level);
    if (!validate(changed).empty()) continue;  // it has grown out of what is allowed
    ++all;
    const auto one = events_of(*level);
    events += one.size();
    if (one != events_of(changed)) others.push_back(std::to_string(seed));
  }
  EXPECT_LE(others.size(), all / one_in + 1) << fmt::format("{}", fmt::join(others, ", "));
  EXPECT_GT(events, all);  // something happens in them
}

bool any_kind(const Level& level, const std::function<bool(const Kind&)>& test) {
  return std::any_of(level.kinds.begin(), level.kinds.end(), test);
}

bool leads_to(const Kind& kind, Mode mode) {
  return std::any_of(kind.when.rules.begin(), kind.when.rules.end(),
                     [&](const Rule& rule) { return rule.reaction.mode == mode; });
}

bool nothing(const Level&) {
  return false;
}

// Who wanders draws places of the plan.
bool draws_places(const Level& level) {
  return any_kind(level, [](const Kind& kind) { return kind.wander.has_value(); });
}

// The places at which hops and drops begin lie a metre apart along a rim, from its first end on.
bool hops_or_drops(const Level& level) {
  return any_kind(level, [](const Kind& kind) {
    return kind.move->gait == Gait::hop || *kind.move->hop_height > 0.0 ||
           *kind.move->drop_height > 0.0;
  });
}

// Scans begin to the left, and so does who looks round; what is drawn is not mirrored.
bool has_a_hand(const Level& level) {
  return draws_places(level) || hops_or_drops(level) || any_kind(level, [](const Kind& kind) {
           const bool spreads =
               std::any_of(kind.attacks.begin(), kind.attacks.end(),
                           [](const Attack& attack) { return attack.spread.degrees() > 0.0; });
           return spreads || kind.scan || leads_to(kind, Mode::search) ||
                  leads_to(kind, Mode::investigate);
         });
}

bool is_somebody_blocked(const Level& level) {
  const std::vector<std::string> events = events_of(level);
  return std::any_of(events.begin(), events.end(), [](const std::string& event) {
    return event.find("blocked") != std::string::npos;
  });
}

// Where hops and drops begin, how far who has no area wanders, and how little nearer is blocked.
bool has_metres(const Level& level) {
  return draws_places(level) || hops_or_drops(level) || is_somebody_blocked(level);
}

TEST(Metamorphic, MovedByARoundDistance) {
  expect_alike(50'000, nothing, [](const Level& level) {
    const double aside = level.plane == Plane::upright ? 0.0 : -128.0;
    return fuzz::moved(level, {false, 0, {64.0, aside, 0.0}});
  });
}

/// The tick of an event, and the rest of its text.
std::pair<int, std::string> parted(const std::string& event) {
  const std::size_t space = event.find(' ');
  return {std::stoi(event.substr(0, space)), event.substr(space)};
}

// Moves levels by a power of two. Coordinates such as 9.4 are rounded differently there, so that an
// event at the boundary of two ticks may come a tick earlier or later. In the terraces, rounding
// decides after 23 s on which side a follower passes.
TEST(Metamorphic, DemoLevelsMovedByAKilometre) {
  for (const std::string name :
       {"propagation_house", "proving_ground", "root_cellar", "sense_rooms", "terraces"}) {
    const Level level = read_level(std::string(GAZE_SOURCE) + "/demo/" + name + ".toml");
    const double aside = level.plane == Plane::upright ? 0.0 : -1024.0;
    const double seconds = name == "terraces" ? 22.0 : level.seconds;
    const int steps = static_cast<int>(seconds * level.ticks_per_second);
    const auto one = events_of(level, steps);
    const auto other = events_of(fuzz::moved(level, {false, 0, {1024.0, aside, 0.0}}), steps);
    EXPECT_GT(one.size(), 50U) << name;
    ASSERT_EQ(one.size(), other.size()) << name;
    for (std::size_t i = 0; i < one.size(); ++i) {
      EXPECT_EQ(parted(one[i]).second, parted(other[i]).second) << name;
      EXPECT_LE(std::abs(parted(one[i]).first - parted(other[i]).first), 1) << name << one[i];
    }
  }
}

TEST(Metamorphic, TurnedByQuarters) {
  for (const int quarters : {1, 2}) {
    expect_alike(51'000, draws_places, [&](const Level& level) {
      return fuzz::moved(level,
                         {false, level.plane == Plane::upright ? 0 : quarters, Vector3d::Zero()});
    });
  }
}

TEST(Metamorphic, Mirrored) {
  expect_alike(52'000, has_a_hand, [](const Level& level) {
    return fuzz::moved(level, {true, 0, Vector3d::Zero()});
  });
}

TEST(Metamorphic, DoubledInAllLengthsAndSpeeds) {
  expect_alike(53'000, has_metres, fuzz::doubled);
}

TEST(Metamorphic, InAnotherOrder) {
  expect_alike(54'000, nothing, fuzz::in_another_order);
}

}  // namespace
}  // namespace gaze
