#include "gaze/tools/picture.hpp"

#include <gtest/gtest.h>

#include "support/levels.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::count_of;

std::string picture_of(const Simulation& simulation, PictureFormat format) {
  PictureOptions options;
  options.format = format;
  Trails trails(simulation);
  trails.add(simulation);
  return draw(simulation, trails, options);
}

std::string svg_of(const Simulation& simulation) {
  return picture_of(simulation, PictureFormat::svg);
}

std::string png_of(const Simulation& simulation) {
  return picture_of(simulation, PictureFormat::png);
}

// Each thing that is added to a level adds something to its picture, in every plane.
TEST(Draw, ShowsLevelsOfAllPlanesAndEvenNone) {
  const auto paths = [](const std::string& text) {
    return count_of(svg_of(Simulation(testing::garden(text))), "<path");
  };
  for (const std::string plane : {"ground", "upright", "space"}) {
    const std::string start =
        "plane = \"" + plane + "\"\n[kind.a.sight]\nrange = 5\nfield_of_view = 90\n";
    const std::string solid = testing::block("b", "[[2, 0], [3, 0], [3, 2]]");
    const std::string agent = testing::placed("x", "a", plane == "space" ? "[0, 0, 0]" : "[0, 0]");
    EXPECT_GT(paths(start), 0U) << plane;
    EXPECT_GT(paths(start + solid), paths(start)) << plane;
    EXPECT_GT(paths(start + solid + agent), paths(start + solid)) << plane;
  }
}

TEST(Draw, ChangesWithWhatIsSeenAndIsTheSameTwice) {
  const char* const text =
      "[kind.a]\nteam = \"caretakers\"\n[kind.a.sight]\nrange = 5\nfield_of_view = 90\n"
      "[kind.b]\nteam = \"visitors\"\n[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [0, 0]\n"
      "[[agent]]\nid = \"y\"\nkind = \"b\"\nat = [3, 0]\n";
  const std::string seen = png_of(Simulation(testing::garden(text)));
  EXPECT_EQ(seen, png_of(Simulation(testing::garden(text))));
  EXPECT_NE(seen, png_of(Simulation(testing::garden(text, {{"agent.x.facing", "180"}}))));
}

// The edge has a dash of its own: once round the level, and once in the legend.
TEST(Draw, ShowsTheEdgeOfALevel) {
  const auto edges = [](const std::string& bounds) {
    return count_of(svg_of(Simulation(testing::garden(bounds))), "stroke-dasharray:14,4,2,4,2,4");
  };
  EXPECT_EQ(edges(""), 0U);
  EXPECT_EQ(edges("[bounds]\noutline = [[0, 0], [4, 0], [4, 4]]\n"), 2U);
}

// Whoever goes round a wall has its way drawn as a line with a corner; whoever stands has none.
TEST(Draw, ShowsTheWayAheadOfWhoFollowsOne) {
  const auto svg = [](const std::string& sees) {
    Simulation simulation(
        testing::garden("[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.nearness]\nrange = 9\n"
                        "[kind.pruner.move]\nspeed = 1\n[kind.pruner.when]\nnear = \"" +
                        sees + "\"\n[kind.collector]\nteam = \"visitors\"\n" +
                        testing::placed("pruner", "pruner", "[0, 0]") +
                        testing::placed("collector", "collector", "[4, 0]", "driver = \"host\"") +
                        testing::wall("hedge", "[[2, -2], [2, 1]]")));
    testing::play(simulation, 10);
    return svg_of(simulation);
  };
  // The legend says what it is as well: two lines more of that width, and two rings.
  const std::string line = "stroke-width:1.2;";
  const std::string ring = "stroke-width:1.6;";
  EXPECT_EQ(count_of(svg("chase"), line), count_of(svg("post"), line) + 2);
  EXPECT_EQ(count_of(svg("chase"), ring), count_of(svg("post"), ring) + 2);
}

TEST(Draw, RefusesASheetThatCannotBeMade) {
  Simulation simulation(Level{});
  Trails trails(simulation);
  PictureOptions options;
  options.width = -5;
  EXPECT_THROW(static_cast<void>(draw(simulation, trails, options)), std::runtime_error);
}

}  // namespace
}  // namespace gaze
