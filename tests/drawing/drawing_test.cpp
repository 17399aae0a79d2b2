#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::placed;
using testing::wall;

constexpr double kPi = 3.14159265358979323846;

// A lamp at the origin that looks along +x, and a collector somewhere.
std::string lamp_and_collector(const std::string& at, const std::string& more = "") {
  return R"(
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 6.0
field_of_view = 90.0
[kind.collector]
team = "visitors"
radius = 0.25
height = 1.5
)" + more +
         placed("lamp-1", "lamp", "[0.0, 0.0]") + placed("collector", "collector", at);
}

std::vector<Mark> drawing_of(const std::string& text, const std::vector<Setting>& settings = {}) {
  return drawing(Simulation(garden(text, settings)));
}

std::vector<Mark> all_of(const std::vector<Mark>& marks, Meaning meaning, bool is_text = false) {
  std::vector<Mark> found;
  for (const Mark& mark : marks) {
    if (mark.meaning == meaning && (mark.form == Mark::Form::text) == is_text) {
      found.push_back(mark);
    }
  }
  return found;
}

double area_of(const std::vector<Vector2d>& polygon) {
  double twice = 0.0;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vector2d& a = polygon[i];
    const Vector2d& b = polygon[(i + 1) % polygon.size()];
    twice += a.x() * b.y() - a.y() * b.x();
  }
  return std::abs(twice) / 2.0;
}

std::vector<std::string> texts_of(const std::vector<Mark>& marks, Meaning meaning) {
  std::vector<std::string> texts;
  for (const Mark& mark : all_of(marks, meaning, true)) texts.push_back(mark.text);
  return texts;
}

// A line for each pair in range, with its distance and its angle: 3-4-5, and 36.9 degrees.
TEST(Drawing, HasALineForEachPairInRange) {
  const auto marks = drawing_of(lamp_and_collector("[4.0, 3.0]"));
  const auto lines = all_of(marks, Meaning::sight_clear);
  ASSERT_EQ(lines.size(), 1U);
  EXPECT_EQ(lines[0].points, (std::vector<Vector2d>{{0.0, 0.0}, {4.0, 3.0}}));
  EXPECT_EQ(lines[0].who, AgentId{0});
  EXPECT_EQ(texts_of(marks, Meaning::sight_clear), std::vector<std::string>{"5.00 m, 36.9°"});
  EXPECT_EQ(all_of(drawing_of(lamp_and_collector("[3.0, 4.0]")), Meaning::sight_outside).size(),
            1U);
}

TEST(Drawing, SaysOfWhomItLooksForThatAllAreOutOfRange) {
  const auto marks = drawing_of(lamp_and_collector("[6.0, 8.0]"));
  EXPECT_TRUE(all_of(marks, Meaning::sight_clear).empty());
  EXPECT_EQ(texts_of(marks, Meaning::body),
            (std::vector<std::string>{"lamp-1\npost, 100 %\ncollector out of range, 10.00 m",
                                      "collector\npost, 100 %"}));
}

// A wall of 0.2 m along x = 2: the line ends at its near face, and what is beyond is told apart.
TEST(Drawing, EndsALineWhereSomethingStopsIt) {
  const std::string hedge = wall("hedge", "[[2.0, -1.0], [2.0, 1.0]]");
  const auto marks = drawing_of(lamp_and_collector("[4.0, 0.0]", hedge));
  const auto lines = all_of(marks, Meaning::sight_stopped);
  ASSERT_EQ(lines.size(), 1U);
  EXPECT_NEAR(lines[0].points[1].x(), 1.9, 1e-9);
  EXPECT_EQ(all_of(marks, Meaning::sight_beyond)[0].points[0], lines[0].points[1]);
  EXPECT_EQ(texts_of(marks, Meaning::sight_stopped)[0], "4.00 m, 0.0°, hedge");
}

// A quarter of a disc of 6 m, in whichever plane; its arc is cut to the tolerance, from inside.
TEST(Drawing, HasTheSeenAreaOfEachThatSees) {
  for (const char* plane : {"ground", "upright"}) {
    const Simulation simulation(
        garden(lamp_and_collector("[9.0, 9.0]"), {{"plane", plane}, {"ground_height", "false"}}));
    double before = 0.0;
    for (const double tolerance : {1.0, 0.1, 0.01, 0.001}) {
      const auto seen = all_of(drawing(simulation, Layer::senses, tolerance), Meaning::seen_calm);
      ASSERT_EQ(seen.size(), 1U) << plane;
      const double area = area_of(seen[0].points);
      EXPECT_GT(area, before);
      EXPECT_LT(area, kPi * 9.0);
      EXPECT_GT(area, kPi * 9.0 - tolerance * 3.0 * kPi) << plane;  // its length times that
      before = area;
      const Vector2d eye = seen[0].points[0];
      for (const Vector2d& p : seen[0].points) EXPECT_LE((p - eye).norm(), 6.0 + 1e-9);
    }
    EXPECT_THROW(drawing(simulation, Layer::senses, 0.0), UsageError);
  }
  EXPECT_EQ(all_of(drawing_of(lamp_and_collector("[4.0, 0.0]")), Meaning::seen_alert).size(), 1U);
}

// Seen from above a body is as wide as it is deep; from the side it is as high as it is.
TEST(Drawing, ShowsBodiesAsTheyLieInThePlane) {
  const auto above = all_of(drawing_of(lamp_and_collector("[4.0, 3.0]")), Meaning::body);
  ASSERT_EQ(above.size(), 2U);
  EXPECT_EQ(above[1].form, Mark::Form::circle);
  EXPECT_EQ(above[1].points[0], Vector2d(4.0, 3.0));
  EXPECT_EQ(above[1].radius, 0.25);
  const auto beside =
      all_of(drawing_of(lamp_and_collector("[4.0, 3.0]"), {{"plane", "upright"}}), Meaning::body);
  EXPECT_EQ(beside[1].form, Mark::Form::area);
  EXPECT_EQ(beside[1].points[0], Vector2d(3.75, 3.0));
  EXPECT_EQ(beside[1].points[2], Vector2d(4.25, 4.5));
}

// The pieces of a solid cover its outline: an L of 3 square metres, and a wall of 4 m by 0.2 m.
TEST(Drawing, CoversSolidsByPieces) {
  const std::string solids =
      block("corner", "[[0, 5], [2, 5], [2, 6], [1, 6], [1, 7], [0, 7]]", "height = 1.25") +
      wall("hedge", "[[-2.0, -5.0], [2.0, -5.0]]");
  double areas[2] = {0.0, 0.0};
  for (const Mark& piece :
       all_of(drawing_of(lamp_and_collector("[4.0, 0.0]", solids)), Meaning::solid)) {
    areas[piece.solid->index] += area_of(piece.points);
  }
  EXPECT_NEAR(areas[0], 0.8, 1e-9);  // walls stand before blocks in a level
  EXPECT_NEAR(areas[1], 3.0, 1e-9);
}

// The collector stands within reach of the door: after a step it is open.
TEST(Drawing, SaysWhichDoorsAreOpen) {
  const std::string door =
      "[[door]]\nid = \"gate\"\nmaterial = \"brick\"\npath = [[4.0, 1.0], [5.0, 1.0]]\n"
      "opens_for = [\"visitors\"]\n";
  Simulation simulation(garden(lamp_and_collector("[4.5, 0.3]", door)));
  EXPECT_TRUE(all_of(drawing(simulation), Meaning::solid_gone).empty());
  simulation.step();
  EXPECT_TRUE(all_of(drawing(simulation), Meaning::solid).empty());
  EXPECT_FALSE(all_of(drawing(simulation), Meaning::solid_gone).empty());
  EXPECT_EQ(texts_of(drawing(simulation), Meaning::solid)[0], "gate 2.5 m (open)");
}

TEST(Drawing, HasTheChosenLayersAloneInTheOrderOfTheirMeanings) {
  const Simulation simulation(
      garden(lamp_and_collector("[4.0, 3.0]", wall("w", "[[9, 0], [9, 9]]"))));
  const auto all = drawing(simulation);
  std::size_t count = 0;
  for (const Layer layer : {Layer::level, Layer::senses, Layer::ways, Layer::harm, Layer::agents}) {
    const auto marks = drawing(simulation, layer);
    for (const Mark& mark : marks) EXPECT_EQ(mark.layer, layer);
    count += marks.size();
  }
  EXPECT_EQ(count, all.size());
  bool is_text = false;
  for (std::size_t i = 1; i < all.size(); ++i) {
    is_text |= all[i].form == Mark::Form::text;
    EXPECT_EQ(all[i].form == Mark::Form::text, is_text);
    if (is_text) continue;
    EXPECT_LE(all[i - 1].meaning, all[i].meaning);
  }
  EXPECT_TRUE(drawing(Simulation(Level{})).empty());
}

}  // namespace
}  // namespace gaze
