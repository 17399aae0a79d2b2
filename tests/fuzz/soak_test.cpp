// A mixed level played for long: 300 agents that patrol, wander, chase, flee, follow, hop, hover,
// shoot, throw and are defeated and come back, among walls, stairs and doors. Nobody gets into a
// solid or out of the level, numbers stay numbers, and neither memory nor the time of a step grows.
//
// `scripts/soak STEPS` plays it for longer.

#include <fmt/format.h>
#include <gtest/gtest.h>
#include <malloc.h>

#include <cstdlib>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::wall;
constexpr double kSide = 60.0;      // metres
constexpr double kHairline = 1e-3;  // metres: so deep in a solid counts as in it

std::string solids_of_soak() {
  std::string text = R"(
plane = "space"
[material.glass]
stops = ["bodies", "shots"]
[bounds]
outline = [[-1, -1], [61, -1], [61, 61], [-1, 61]]
low = -5
high = 40
leaving = "back"
)" + wall("round", "[[0, 0], [60, 0], [60, 60], [0, 60], [0, 0]]") +
                     R"(
[[floor]]
id = "deck"
material = "brick"
outline = [[24, 24], [36, 24], [36, 36], [24, 36]]
top = 2.4
[[stairs]]
id = "stairs"
material = "brick"
from = [24, 30, 2.4]
to = [18, 30, 0]
width = 2
steps = 12
[[ramp]]
id = "ramp"
material = "brick"
from = [36, 30, 2.4]
to = [44, 30, 0]
width = 2
[[door]]
id = "gate"
material = "brick"
path = [[14, 12], [16, 12]]
[[zone]]
id = "bed"
outline = [[2, 40], [20, 40], [20, 58], [2, 58]]
cost = 3
dimness = 0.5
)";
  int number = 0;
  for (double x = 6.0; x < kSide - 4.0; x += 8.0) {
    for (double y = 6.0; y < kSide - 4.0; y += 8.0) {
      if (x > 14.0 && x < 46.0 && y > 20.0 && y < 38.0) continue;
      const double width = 0.5 + number % 4 * 0.6;
      text += fmt::format(
          "[[block]]\nid = \"b{}\"\nmaterial = \"{}\"\nheight = {}\noutline = [[{}, {}], [{}, {}], "
          "[{}, {}]]\n",
          number, number % 3 == 0 ? "glass" : "brick", 0.6 + number % 3, x, y, x + width, y + 0.3,
          x + 0.4, y + 1.2);
      ++number;
    }
  }
  return text;
}

const char* const kKindsOfSoak = R"(
[kind.grower]
[kind.grower.thing]
speed = 9
[kind.pruner]
team = "caretakers"
health = 40
grace = 0.2
[kind.pruner.sight]
range = 15
field_of_view = 150
notice_time = 0.2
remember = 2
[kind.pruner.hearing]
range = 12
[kind.pruner.touch]
[kind.pruner.move]
gait = "walk"
speed = 2.5
step_reach = 3
acceleration = 6
[kind.pruner.attack.shears]
how = "strike"
range = 1.2
damage = 7
cooldown = 0.8
push = 3
[kind.pruner.when]
sees = "chase"
loses = "search"
hears = "investigate"
hurt = { mode = "flee", noise = "cry", reach = 8 }
forgets = "return"
[kind.pruner.defeat]
respawn = 3
[kind.lamp]
team = "caretakers"
radius = 0.4
health = 60
heals = 1
[kind.lamp.sight]
range = 18
field_of_view = 90
[kind.lamp.scan]
style = "sweep"
rate = 60
arc = 160
[kind.lamp.attack.drops]
how = "shot"
range = 16
speed = 14
damage = 4
cooldown = 0.9
aim = "lead"
spread = 4
bounces = 2
blast_radius = 1.2
friends = "hurt"
[kind.lamp.defeat]
respawn = 5
[kind.moth]
team = "caretakers"
radius = 0.2
height = 0.4
[kind.moth.sight]
range = 10
field_of_view = 360
[kind.moth.move]
gait = "hover"
hover_height = 1.2
speed = 3
[kind.moth.wander]
style = "free"
[kind.moth.when]
idle = "wander"
sees = "chase"
[kind.toad]
team = "caretakers"
radius = 0.25
height = 0.5
[kind.toad.move]
gait = "hop"
[kind.toad.wander]
style = "to and fro"
[kind.toad.when]
idle = "wander"
[kind.collector]
team = "visitors"
health = 50
carries = { grower = 50 }
[kind.collector.sight]
range = 12
field_of_view = 200
[kind.collector.move]
gait = "walk"
speed = 2.8
step_reach = 4
[kind.collector.attack.sling]
how = "shot"
range = 10
speed = 12
damage = 3
cooldown = 0.7
aim = "lob"
[kind.collector.when]
sees = "flee"
[kind.collector.defeat]
respawn = 2
[kind.guest]
like = "collector"
[kind.guest.move]
follows = ["collector"]
[kind.guest.when]
idle = "follow"
)";

// In rows, free of blocks: these begin on multiples of 8 m after the first 6.
std::string agents_of_soak() {
  std::string text;
  int rows = 0;
  const auto row = [&](const char* kind, double x, double y, const std::string& more) {
    text +=
        testing::placed(fmt::format("{}s{}", kind, rows++), kind, fmt::format("[{}, {}, 0]", x, y),
                        more + "copies = 10\napart = [2, 0, 0]");
  };
  for (int i = 0; i < 6; ++i) {
    const double y = 3.0 + 8.0 * i;
    row("pruner", 3.0, y, "patrol = [[3, 3, 0], [57, 3, 0], [57, 57, 0], [3, 57, 0]]\n");
    row("collector", 33.0, y, "patrol = [[30, 30, 2.4], [5, 50, 0], [50, 5, 0]]\n");
    row("lamp", 3.5, y + 1.4, "");
    row("moth", 34.0, y + 1.4, "");
  }
  for (int i = 0; i < 3; ++i) {
    row("toad", 4.0, 51.0 + 2.0 * i, "");
    row("guest", 34.0, 51.0 + 2.0 * i, "");
  }
  return text;
}

std::int64_t steps_of_soak() {
  const char* set = std::getenv("GAZE_SOAK_STEPS");
  if (set != nullptr) return std::strtoll(set, nullptr, 10);
  return testing::is_sanitized() ? 300 : 3000;
}

class Soak {
 public:
  Soak() : simulation_(testing::garden(solids_of_soak() + kKindsOfSoak + agents_of_soak())) {}

  std::size_t agent_count() const { return simulation_.agent_count(); }

  void step() {
    simulation_.step();
    for (const Event& event : simulation_.events()) {
      ++count_[event.what];
      came_back_ += event.what == Event::What::mode && event.from == Mode::out ? 1 : 0;
    }
    if (simulation_.tick() % 20 == 0) look();
  }

  int count(Event::What what) const {
    const auto it = count_.find(what);
    return it == count_.end() ? 0 : it->second;
  }

  int came_back() const { return came_back_; }

  std::size_t saved_bytes() const { return simulation_.save().size(); }

 private:
  void look() {
    for (std::uint32_t i = 0; i < simulation_.agent_count(); ++i) {
      const AgentState state = simulation_.state({i});
      const std::string what =
          fmt::format("{} at tick {}, [{}, {}, {}]", simulation_.id_of({i}), simulation_.tick(),
                      state.position.x(), state.position.y(), state.position.z());
      ASSERT_TRUE(state.position.allFinite()) << what;
      ASSERT_TRUE(state.facing.allFinite() && state.head.allFinite()) << what;
      if (!state.is_alive) continue;
      ASSERT_TRUE(state.position.x() > 0.0 && state.position.x() < kSide) << what;
      ASSERT_TRUE(state.position.y() > 0.0 && state.position.y() < kSide) << what;
      ASSERT_TRUE(state.position.z() >= 0.0 && state.position.z() < 40.0) << what;
      look_at_body(i, state, what);
    }
  }

  // Above what it steps on: from its middle step upwards.
  void look_at_body(std::uint32_t i, const AgentState& state, const std::string& what) {
    const Kind& kind = simulation_.level().kind_of(simulation_.level().agents[i]);
    const double step = std::min(*kind.move->step_height, kind.height / 2.0) + kHairline;
    const Cylinder body{state.position + Vector3d{0.0, 0.0, step}, kind.radius - kHairline,
                        kind.height - step - kHairline};
    ASSERT_FALSE(simulation_.world().overlaps(body, Stops::bodies)) << what << " is in a solid";
  }

  Simulation simulation_;
  std::map<Event::What, int> count_;
  int came_back_ = 0;
};

TEST(Soak, NothingGrowsAndNobodyGetsLost) {
  Soak soak;
  ASSERT_EQ(soak.agent_count(), 300U);
  const std::int64_t steps = steps_of_soak();
  std::size_t memory_then = 0;
  std::size_t bytes_then = 0;
  for (std::int64_t i = 0; i < steps; ++i) {
    soak.step();
    if (::testing::Test::HasFatalFailure()) return;
    if (i != steps / 2) continue;
    memory_then = mallinfo2().uordblks;
    bytes_then = soak.saved_bytes();
  }
  // 1 MB for what is at its most by chance. A save holds all that a step goes through.
  EXPECT_LT(mallinfo2().uordblks, memory_then + 1'000'000);
  EXPECT_LT(soak.saved_bytes(), bytes_then + bytes_then / 2);
  if (steps < 3000) return;
  for (const Event::What what : {Event::What::noticed, Event::What::attacked, Event::What::hit,
                                 Event::What::hurt, Event::What::mode}) {
    EXPECT_GT(soak.count(what), 50) << name_of(what);
  }
  EXPECT_GT(soak.count(Event::What::defeated), 20);
  EXPECT_GT(soak.came_back(), 20);
}

}  // namespace
}  // namespace gaze
