#include "serve/frame.hpp"

#include <cmath>

#include "serve/frame_reader.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using serve::FrameOf;
using testing::FrameMark;

std::int64_t millimetres(double metres) {
  return std::llround(metres * 1000.0);
}

void expect_alike(const FrameMark& read, const Mark& drawn) {
  EXPECT_EQ(read.form, static_cast<unsigned>(drawn.form));
  EXPECT_EQ(read.layer, static_cast<unsigned>(drawn.layer));
  EXPECT_EQ(read.meaning, static_cast<unsigned>(drawn.meaning));
  EXPECT_EQ(read.number, drawn.number == kNoTeam ? 0U : drawn.number + 1U);
  EXPECT_EQ(read.who, drawn.who ? drawn.who->index + 1U : 0U);
  EXPECT_EQ(read.solid, drawn.solid ? drawn.solid->index + 1U : 0U);
  EXPECT_NEAR(read.share / 255.0, drawn.share, 0.5 / 255.0 + 1e-12);
  EXPECT_EQ(static_cast<std::int64_t>(read.radius), millimetres(drawn.radius));
  EXPECT_EQ(read.height, millimetres(drawn.height));
  ASSERT_EQ(read.points.size(), drawn.points.size());
  for (std::size_t i = 0; i < read.points.size(); ++i) {
    EXPECT_EQ(read.points[i].first, millimetres(drawn.points[i].x()));
    EXPECT_EQ(read.points[i].second, millimetres(drawn.points[i].y()));
  }
  EXPECT_EQ(read.text, drawn.text);
}

// Everything that the demo levels draw comes through, in each plane.
TEST(Frame, HoldsAllThatIsDrawn) {
  for (const char* name : {"propagation_house", "terraces", "sense_rooms", "root_cellar"}) {
    Simulation game(read_level(std::string(GAZE_SOURCE) + "/demo/" + name + ".toml"));
    for (int second = 0; second < 4; ++second) {
      for (int i = 0; i < game.level().ticks_per_second; ++i) game.step();
      const std::vector<Mark> marks = drawing(game);
      const auto frame =
          testing::read_frame(serve::frame_bytes(FrameOf::moment, game.tick(), marks));
      EXPECT_EQ(frame.of, 2U);
      EXPECT_EQ(frame.tick, static_cast<std::uint64_t>(game.tick()));
      ASSERT_EQ(frame.marks.size(), marks.size());
      for (std::size_t i = 0; i < marks.size(); ++i) expect_alike(frame.marks[i], marks[i]);
    }
  }
}

TEST(Frame, HoldsTheFarthestPlacesOfALevel) {
  Mark mark;
  mark.points = {{-20'000.0, 20'000.0}, {20'000.0, -20'000.0}, {0.0004, -0.0006}};
  mark.height = -20'000.0;
  mark.number = kNoTeam;
  const auto frame = testing::read_frame(serve::frame_bytes(FrameOf::ghost, 0, {&mark, 1}));
  ASSERT_EQ(frame.marks.size(), 1U);
  expect_alike(frame.marks[0], mark);
}

}  // namespace
}  // namespace gaze
