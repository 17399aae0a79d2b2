#include "gaze/picture.hpp"

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

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

TEST(Draw, ShowsLevelsOfAllPlanesAndEvenNone) {
  for (const char* plane : {"ground", "upright", "space"}) {
    const bool space = std::string(plane) == "space";
    Simulation simulation(read_level_text(
        std::string("plane = \"") + plane + "\"\n[kind.a.sight]\nrange = 5\nfield_of_view = 90\n" +
            "[[block]]\nid = \"b\"\nmaterial = \"brick\"\noutline = [[2, 0], [3, 0], [3, 2]]\n" +
            "[[agent]]\nid = \"x\"\nkind = \"a\"\nat = " + (space ? "[0, 0, 0]" : "[0, 0]") + "\n",
        "t"));
    EXPECT_NE(svg_of(simulation).find("</svg>"), std::string::npos);
  }
  EXPECT_NE(svg_of(Simulation(Level{})).find("</svg>"), std::string::npos);
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

TEST(Draw, RefusesASheetThatCannotBeMade) {
  Simulation simulation(Level{});
  Trails trails(simulation);
  PictureOptions options;
  options.width = -5;
  EXPECT_THROW(static_cast<void>(draw(simulation, trails, options)), std::runtime_error);
}

}  // namespace
}  // namespace gaze
