// Who can never reach whom, and where the gap is.

#include <fmt/format.h>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// A chaser and a player driven by the host, with these walls.
std::string two_of(double radius, double height, const std::string& chaser_at,
                   const std::string& player_at, const std::string& walls) {
  return walls + fmt::format(R"(
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.sight]
range = 20.0
field_of_view = 360
[kind.pruner.move]
speed = 2.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
radius = {}
height = {}
[kind.collector.move]
speed = 2.0
[[agent]]
id = "pruner"
kind = "pruner"
at = {}
[[agent]]
id = "collector"
kind = "collector"
at = {}
driver = "host"
)",
                             radius, height, chaser_at, player_at);
}

std::string wall(const std::string& id, const std::string& path) {
  return fmt::format("[[wall]]\nid = \"{}\"\nmaterial = \"brick\"\npath = {}\n", id, path);
}

/// The first message of that sort.
std::optional<std::string> message_of(const std::string& level, const std::string& code) {
  const auto messages = testing::findings_of(level, code);
  return messages.empty() ? std::nullopt : std::optional(messages[0]);
}

const char* const kClosed = "[[0,0],[10,0],[10,10],[0,10],[0,0]]";

TEST(TargetCutOff, IsToldWhateverTheSizesOfBoth) {
  for (const double radius : {0.2, 0.3, 0.4}) {
    for (const double height : {1.5, 1.7, 1.9}) {
      const auto message = message_of(
          two_of(radius, height, "[5, 5]", "[15, 5]", wall("room", kClosed)), "target-cut-off");
      ASSERT_TRUE(message) << radius << " " << height;
      EXPECT_NE(message->find("can never reach collector"), std::string::npos);
    }
  }
}

// The way out hugs the wall for metres after it; the gap is where it lies.
TEST(TargetCutOff, NamesTheGapWhereItIs) {
  const std::string path = "[[0,4.2],[0,0],[10,0],[10,10],[0,10],[0,4.8],[0,4.4]]";
  const auto message =
      message_of(two_of(0.3, 1.7, "[5, 5]", "[15, 5]", wall("room", path)), "target-cut-off");
  ASSERT_TRUE(message);
  EXPECT_NE(message->find("the gap at room at [0.00, 4.30] is 0.20 m wide, this body needs 0.60 m"),
            std::string::npos)
      << *message;
}

// Rooms with one gap in one of their sides: width and place as they were drawn.
TEST(TargetCutOff, NamesGapsOfAnyWidthInAnySide) {
  scenes::Random random(5);
  for (int i = 0; i < 24; ++i) {
    const double side = random.between(6.0, 12.0);
    const double width = random.between(0.05, 0.5);
    const double from = random.between(1.0, side - 1.5);
    const Vector2d ends[] = {{from, 0}, {side, 0}, {side, side}, {0, side}, {0, 0}, {from + 0, 0}};
    // Round from one side of the gap to the other, turned by quarters about the middle.
    const int quarters = i % 4;
    const auto turned = [&](Vector2d p) {
      for (int k = 0; k < quarters; ++k) p = {side - p.y(), p.x()};
      return p;
    };
    std::string path = "[";
    for (int k = 0; k < 6; ++k) {
      Vector2d p = ends[k];
      if (k == 0) p.x() += width;
      p = turned(p);
      path += fmt::format("{}[{}, {}]", k == 0 ? "" : ", ", p.x(), p.y());
    }
    path += "]";
    const Vector2d middle = turned({from + width / 2.0, 0.0});
    const std::string inside = fmt::format("[{}, {}]", side / 2.0, side / 2.0);
    const auto message =
        message_of(two_of(0.3, 1.7, inside, "[25, 31]", wall("room", path)), "target-cut-off");
    ASSERT_TRUE(message);
    double x = 0.0;
    double y = 0.0;
    double wide = 0.0;
    const std::size_t at = message->find("the gap at room at [");
    ASSERT_NE(at, std::string::npos) << *message;
    ASSERT_EQ(
        std::sscanf(message->c_str() + at, "the gap at room at [%lf, %lf] is %lf m", &x, &y, &wide),
        3)
        << *message;
    // Walls are 0.2 m thick and their ends flat: the gap is as long as that.
    EXPECT_NEAR(x, middle.x(), 0.12) << *message;
    EXPECT_NEAR(y, middle.y(), 0.12) << *message;
    EXPECT_NEAR(wide, width, 0.0101) << *message;
  }
}

// A gap of 0.5 m lets a player of 0.4 m through, and not its chaser of 0.6 m.
TEST(SafeFromChaser, IsToldWithTheGap) {
  const std::string path = "[[0,4.2],[0,0],[10,0],[10,10],[0,10],[0,4.7]]";
  const auto inside =
      message_of(two_of(0.2, 1.7, "[15, 5]", "[15, 8]", wall("room", path)), "safe-from-chaser");
  ASSERT_TRUE(inside);
  EXPECT_NE(inside->find("collector is safe from pruner on"), std::string::npos) << *inside;
  EXPECT_NE(inside->find("the gap at room at [0.00, 4.45] is 0.50 m wide, this body needs 0.60 m"),
            std::string::npos)
      << *inside;
  EXPECT_FALSE(
      message_of(two_of(0.3, 1.7, "[15, 5]", "[15, 8]", wall("room", path)), "safe-from-chaser"));
}

}  // namespace
}  // namespace gaze
