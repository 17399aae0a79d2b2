// What an account says of those who do not see: whom they notice, and what they fire at and why.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;
using testing::play;

bool says(const Simulation& simulation, const char* looker, const char* other, const char* what) {
  const std::string text = account(simulation, simulation.agent(looker), simulation.agent(other));
  return text.find(what) != std::string::npos;
}

const char* const kReed = R"(
[kind.reed]
team = "caretakers"
[kind.reed.feeler.ahead]
length = 5.0
finds = "{}"
[kind.reed.move]
gait = "fixed"
[kind.reed.attack.thorn]
how = "shot"
aim = "ahead"
range = 6.0
damage = 1
cooldown = 0.5
speed = 8.0
[kind.reed.when.feels]
ahead = {{ attack = "thorn" }}
[kind.collector]
team = "visitors"
[[agent]]
id = "reed"
kind = "reed"
at = [0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [3.0, 0.0]
driver = "host"
)";

TEST(Account, OfWhoFeelsSaysThatItNotices) {
  Simulation simulation(garden(fmt::format(fmt::runtime(kReed), "hostile")));
  play(simulation, 10);
  EXPECT_TRUE(says(simulation, "reed", "collector", "reed (mode post) notices collector."));
  EXPECT_TRUE(says(simulation, "reed", "collector", "it perceives it by feeler"));
  EXPECT_FALSE(says(simulation, "reed", "collector", "no sight"));
  simulation.set_pose(simulation.agent("collector"), {3.0, 9.0, 0.0}, {});
  play(simulation, 10);
  EXPECT_TRUE(says(simulation, "reed", "collector", "reed (mode post) does not notice collector."));
  EXPECT_TRUE(says(simulation, "reed", "collector", "made only when a reaction asks for it"));
}

// What a feeler fires needs nobody that it acts on.
TEST(Account, OfWhatAFeelerFiresSaysThatAReactionAsksForIt) {
  Simulation simulation(garden(fmt::format(fmt::runtime(kReed), "anything")));
  const auto events = play(simulation, 60);
  ASSERT_GE(testing::only(events, Event::What::fired).size(), 2U);
  EXPECT_FALSE(says(simulation, "reed", "collector", "it has noticed nobody"));
  const bool is_ready = says(simulation, "reed", "collector", "thorn: a reaction asks for it");
  EXPECT_TRUE(is_ready || says(simulation, "reed", "collector", "thorn: ready in"));
}

TEST(Account, OfAMirrorSaysWhomItFollows) {
  const std::string level = R"(
[kind.twin]
team = "visitors"
[kind.twin.move]
gait = "fixed"
[kind.twin.attack.jet]
how = "shot"
aim = "mirror"
range = 8.0
damage = 1
cooldown = 0.2
speed = 9.0
[kind.collector]
team = "visitors"
[kind.pruner]
team = "caretakers"
)" + placed("twin", "twin", "[0.0, 0.0]") +
                            placed("collector", "collector", "[2.0, 0.0]", R"(driver = "host")") +
                            placed("pruner", "pruner", "[6.0, 0.0]");
  Simulation simulation(garden(level));
  const AgentId collector = simulation.agent("collector");
  play(simulation, 5);
  EXPECT_TRUE(says(simulation, "twin", "pruner",
                   "no attack      jet: it fires as collector does, and that does not fire now"));
  simulation.set_aim(collector, Vector3d{6.0, 0.0, 0.0}, true);
  EXPECT_TRUE(
      says(simulation, "twin", "pruner", "attacks        jet: it fires as collector does\n"));
  play(simulation, 30);
  EXPECT_TRUE(says(simulation, "twin", "pruner",
                   "no attack      jet: it fires as collector does: ready in 0."));
  simulation.set_pose(collector, {40.0, 0.0, 0.0}, {});
  play(simulation, 5);
  EXPECT_TRUE(says(simulation, "twin", "pruner", "none is within 8.00 m"));
}

// A follower at its distance says so, and what cannot be taken or thrown is not "on the way".
TEST(Account, OfFollowersAndOfWhatCannotBeTaken) {
  const std::string level =
      R"(
[kind.lantern]
team = "visitors"
[kind.lantern.move]
speed = 3.0
follows = ["collector"]
follow_distance = 2.0
[kind.pebble]
[kind.pebble.thing]
speed = 9.0
take_reach = 0.5
[kind.collector]
team = "visitors"
radius = 0.3
[kind.collector.move]
speed = 2.0
)" + placed("lantern", "lantern", "[5.0, 0.0]") +
      placed("pebble-1", "pebble", "[0.0, 3.0]", "radius = 0.1") +
      placed(
          "collector", "collector", "[0.0, 0.0]",
          R"(script = [{ take = "pebble-1" }, { throw = "pebble", to = [5, 5] }, { wait = 9 }])");
  Simulation simulation(garden(level));
  std::vector<std::string> told;
  for (const Event& event : testing::only(play(simulation, 240), Event::What::blocked)) {
    told.push_back(simulation.describe(event));
  }
  // From body to body: 3 m less 0.3 and 0.1.
  EXPECT_EQ(told, (std::vector<std::string>{
                      "collector cannot take pebble-1: it is 2.60 m away, at most 0.50",
                      "collector has no pebble to throw"}));
  EXPECT_TRUE(says(simulation, "lantern", "collector",
                   "it is 2.00 m from collector and follows it at 2.00 m"));
}

}  // namespace
}  // namespace gaze
