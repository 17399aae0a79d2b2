// Whom a name means: an agent, a kind with all that are like it, a team, who holds a tag now.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
using testing::wall;
/// Goes 6 m east through a door at x = 3, for which these names may open it; a zone at x = 1 gives
/// a key.
std::string doorway(const std::string& names, bool has_key_zone = false) {
  const std::string zone = R"([[zone]]
id = "hook"
outline = [[0.8, -1], [1.2, -1], [1.2, 1], [0.8, 1]]
grants = ["key"]
)";
  return (has_key_zone ? zone : "") + fmt::format(R"([kind.visitor]
team = "visitors"
tags = ["guest"]
[kind.visitor.move]
speed = 2.0
[kind.gardener]
like = "visitor"
[kind.head_gardener]
like = "gardener"
[[door]]
id = "door"
material = "brick"
path = [[3.0, -1.0], [3.0, 1.0]]
opens_for = [{}]
[[wall]]
id = "left"
material = "brick"
path = [[3.0, 1.0], [3.0, 20.0]]
[[wall]]
id = "right"
material = "brick"
path = [[3.0, -1.0], [3.0, -20.0]]
[[agent]]
id = "ann"
kind = "head_gardener"
at = [0.0, 0.0]
script = [{{ go = [6.0, 0.0] }}]
)",
                                                  names);
}

bool passes(const std::string& names, bool has_key_zone = false) {
  Simulation simulation(testing::garden(doorway(names, has_key_zone)));
  testing::play(simulation, 300);
  return simulation.state(simulation.agent("ann")).position.x() > 5.9;
}

TEST(Whom, IsMeantByIdKindTeamAndTag) {
  EXPECT_TRUE(passes(""));
  for (const char* name : {"ann", "head_gardener", "gardener", "visitor", "visitors", "guest"}) {
    EXPECT_TRUE(passes(fmt::format("\"{}\"", name))) << name;
  }
  EXPECT_FALSE(passes("\"caretakers\""));
}

TEST(Whom, ATagThatAZoneGrantsOpensDoors) {
  EXPECT_TRUE(passes("\"key\"", true));
  // Nobody steps into the zone: it is beside the way.
  const std::string level = doorway("\"key\"", true);
  const Level beside = testing::garden(level, {{"zone.hook.outline", "[[0,5],[1,5],[1,6]]"}});
  Simulation simulation(beside);
  testing::play(simulation, 300);
  EXPECT_LT(simulation.state(simulation.agent("ann")).position.x(), 3.0);
}

// One who finds its own way learns of the key: its mesh leads through the door from then on.
TEST(Whom, WaysLeadThroughADoorOnceItsTagIsHeld) {
  const std::string patrol =
      R"([kind.visitor]
team = "visitors"
[kind.visitor.move]
speed = 2.0
[[zone]]
id = "hook"
outline = [[-0.5, 3], [0.5, 3], [0.5, 4], [-0.5, 4]]
grants = ["key"]
[[door]]
id = "door"
material = "brick"
path = [[3.0, -1.0], [3.0, 1.0]]
opens_for = ["key"]
)" + wall("left", "[[3.0, 1.0], [3.0, 20.0]]") +
      wall("right", "[[3.0, -1.0], [3.0, -20.0]]") +
      placed("ann", "visitor", "[0.0, 0.0]", "patrol = [[0.0, 3.5], [6.0, 3.5]]");
  Simulation simulation(testing::garden(patrol));
  double farthest = 0.0;
  for (int i = 0; i < 900; ++i) {
    simulation.step();
    farthest = std::max(farthest, simulation.state(simulation.agent("ann")).position.x());
  }
  EXPECT_GT(farthest, 5.9);
}

TEST(Whom, ZonesStartsAndFollowersMeanTheSame) {
  for (const char* name : {"ann", "gardener", "visitor", "visitors", "guest"}) {
    const std::string zone =
        fmt::format(
            "[[zone]]\nid = \"mat\"\noutline = [[1, -1], [2, -1], [2, 1], [1, 1]]\n"
            "triggered_by = [\"{}\"]\n",
            name) +
        "grants = [\"seen\"]\n";
    Simulation simulation(testing::garden(doorway("") + zone));
    EXPECT_EQ(testing::only(testing::play(simulation, 100), Event::What::triggered).size(), 1U)
        << name;
    const std::string lantern = fmt::format(R"([kind.lantern]
team = "visitors"
[kind.lantern.move]
speed = 3.0
follows = ["{}"]
follow_distance = 1.0
[[agent]]
id = "lantern"
kind = "lantern"
at = [0.0, 3.0]
)",
                                            name);
    Simulation following(testing::garden(doorway("") + lantern));
    testing::play(following, 400);
    const Vector3d way = following.state(following.agent("lantern")).position -
                         following.state(following.agent("ann")).position;
    EXPECT_LT(way.norm(), 1.3) << name;
  }
}

TEST(Whom, CausesByKindAreMetByKindsThatAreLikeIt) {
  const auto modes = [](const std::string& rules) {
    const std::string level = R"([kind.basket]
team = "caretakers"
[kind.basket.nearness]
range = 2.0
[kind.basket.move]
speed = 1.0
[kind.basket.when.near]
)" + rules + placed("basket", "basket", "[1.5, 1.0]");
    Simulation simulation(testing::garden(doorway("") + level));
    testing::play(simulation, 20);
    return simulation.state(simulation.agent("basket")).mode;
  };
  EXPECT_EQ(modes("visitor = \"chase\"\n"), Mode::chase);
  EXPECT_EQ(modes("gardener = \"flee\"\nvisitor = \"chase\"\n"), Mode::flee);  // the nearer kind
  EXPECT_EQ(modes("basket = \"chase\"\n"), Mode::post);
}

}  // namespace
}  // namespace gaze
