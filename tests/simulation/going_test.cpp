// Why an agent goes or stands, and which picture shows it.

#include "gaze/going.hpp"

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
using testing::play;
using testing::wall;

std::string reason_at(const std::string& text, std::int64_t ticks) {
  Simulation simulation(testing::garden(text));
  play(simulation, ticks);
  return going(simulation, {0}).reason;
}

const std::string kRoom =
    wall("room", "[[-3.0, -3.0], [3.0, -3.0], [3.0, 3.0], [-3.0, 3.0], [-3.0, -3.0]]") + R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 30.0
field_of_view = 360.0
[kind.pruner.move]
speed = 1.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0.0, 0.0]");

TEST(Going, SaysWhyAnAgentStands) {
  const std::string player = "[[agent]]\nid = \"player\"\nkind = \"collector\"\nat = ";
  EXPECT_EQ(reason_at(std::string(kRoom) + player + "[2.0, 0.0]\n", 300),
            "it is 0.60 m from player and stops 0.60 m before it");
  EXPECT_EQ(reason_at(std::string(kRoom) + player + "[2.0, 0.0]\n", 30),
            "1.50 m are left to [2.00, 0.00], straight");
  EXPECT_EQ(reason_at("[kind.pruner.move]\ngait = \"fixed\"\n[[agent]]\nid = \"a\"\nkind = "
                      "\"pruner\"\nat = [0.0, 0.0]\n",
                      1),
            "it is fixed");
  // A wall low enough to look over and too high to step over.
  const std::string low = std::string(kRoom) + player + "[5.0, 0.0]\n";
  Level level = testing::garden(low, {{"wall.room.height", "0.8"}});
  Simulation simulation(level);
  play(simulation, 600);
  const Going way = going(simulation, {0});
  EXPECT_EQ(way.reason, "no way leads to [5.00, 0.00] (none): it is as near as it gets");
  EXPECT_EQ(way.outcome, Path::Outcome::none);  // nowhere that it can be is nearer
  EXPECT_EQ(way.speed, 0.0);
  level.kinds[0].move->no_path = NoPath::wait;
  Simulation waiting(level);
  play(waiting, 60);
  EXPECT_EQ(going(waiting, {0}).reason,
            "no way leads to [5.00, 0.00] (partial), and it waits until there is one");
}

TEST(PictureFacing, IsTheNearestOfFourOrEight) {
  for (int degrees = 0; degrees < 360; ++degrees) {
    const double radians = degrees * std::acos(-1.0) / 180.0;
    const Vector2d facing{std::cos(radians), std::sin(radians)};
    for (const int pictures : {4, 8}) {
      const double share = degrees * pictures / 360.0;
      if (std::abs(share - std::floor(share) - 0.5) < 1e-6) continue;  // a tie
      EXPECT_EQ(picture_facing(facing, pictures), static_cast<int>(std::lround(share)) % pictures);
    }
  }
}

TEST(PictureFacing, KeepsWhatItShowsInATie) {
  const Vector2d up_right{1.0, 1.0};
  EXPECT_EQ(picture_facing(up_right, 4), 0);
  EXPECT_EQ(picture_facing(up_right, 4, 1), 1);
  EXPECT_EQ(picture_facing(up_right, 4, 2), 0);  // none of the two
  EXPECT_EQ(picture_facing({-1.0, 1.0}, 4), 1);
  EXPECT_EQ(picture_facing({-1.0, -1.0}, 4), 3);
  EXPECT_EQ(picture_facing({-1.0, -1.0}, 4, 2), 2);
  EXPECT_EQ(picture_facing({2.0, 2.0}, 8), 1);
  // Running to and fro over the border by rounding does not flicker.
  EXPECT_EQ(picture_facing({1.0, 1.0 + 1e-12}, 4, 0), 0);
  EXPECT_EQ(picture_facing({1.0, 1.0 - 1e-12}, 4, 1), 1);
}

}  // namespace
}  // namespace gaze
