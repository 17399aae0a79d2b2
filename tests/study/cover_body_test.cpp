// Cover agrees with `can_see`, by which agents see in play, on the middle of every spot.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <filesystem>
#include <optional>
#include <string>

#include "gaze/tools/cover.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;

// A lens that looks over a hall of 10 m by 8 m with something in it, and the body of a moth.
std::string hall(const std::string& in_it, const std::string& moth, const std::string& sight,
                 const std::string& at, const std::string& plane = "ground") {
  return "plane = \"" + plane + "\"\nground_height = 0.0\n" + in_it +
         testing::wall("rim", "[[0, 0], [10, 0], [10, 8], [0, 8], [0, 0]]", "height = 4.0") +
         "[kind.lens]\nteam = \"caretakers\"\nheight = 1.8\nsight = { " + sight +
         " }\n[kind.moth]\nteam = \"visitors\"\n" + moth + placed("lens", "lens", at) +
         placed("moth", "moth", plane == "space" ? "[9, 7, 0]" : "[9, 7]", "driver = \"host\"");
}

Cover cover_of(const Simulation& game, double spot) {
  const Kind& moth = game.level().kinds[1];
  FloorOptions options;
  options.radius = moth.radius;
  options.height = moth.height;
  options.body_points = moth.body_points;
  options.spot_size = spot;
  Cover cover(free_floor(game.level(), game.world(), options));
  cover.add(game, moth.team);
  return cover;
}

bool sees(const Simulation& game, const Vector2d& at) {
  const Kind& moth = game.level().kinds[1];
  LookedAt body;
  body.feet = game.level().plane == Plane::upright ? Vector3d{at.x(), 0.0, at.y()}
                                                   : Vector3d{at.x(), at.y(), 0.0};
  body.height = moth.height;
  body.body_points = moth.body_points;
  body.radius = moth.radius;
  return can_see(game.world(), game.looker({0}), body);
}

class CoverOfMesh : public testing::InTemporaryFolder {};

// A beam from 1.3 m to 2.3 m up, before eyes 1.6 m up: whoever is 0.9 m high is seen below it
// everywhere. A sill 1.3 m high hides who is 0.5 m high from x = 5 to the end of its shadow: the
// top is seen again where the line from the eye over the sill at (4 m off, 1.3 m up) comes down to
// 0.5 m: 4 * (1.6 - 0.5) / (1.6 - 1.3) = 14.67 m off, beyond the hall.
TEST(CoverBody, BelowABeamAndBehindASill) {
  const std::string eye = "range = 30, field_of_view = 360, eye_height = 1.6";
  const Simulation beam(
      garden(hall(testing::wall("beam", "[[5, 1], [5, 7]]", "base = 1.3\nheight = 1.0"),
                  "height = 0.9\n", eye, "[1, 4]")));
  EXPECT_NEAR(cover_of(beam, 0.25).seen_share(), 1.0, 1e-6);
  const Simulation sill(garden(hall(testing::wall("sill", "[[5, 1], [5, 7]]", "height = 1.3"),
                                    "height = 0.5\n", eye, "[1, 4]")));
  const Cover cover = cover_of(sill, 0.25);
  EXPECT_FALSE(sees(sill, {7.0, 4.0}));
  // Walls are 0.1 m thick. The shadow lies between the lines from (1, 4) over the near corners of
  // the sill, (4.95, 1) and (4.95, 7): 6 (x - 1) / 3.95 m wide, and in the hall at most 7.2 m, as
  // the middle of a body of 0.35 m stays 0.4 m off the rim. That is reached at x = 5.74. It begins
  // 0.4 m behind the sill and ends 0.4 m before the rim.
  const double widens = 6.0 / 3.95 * ((4.74 * 4.74 - 4.4 * 4.4) / 2.0);
  EXPECT_NEAR(cover.never_seen_share() * cover.floor().area, widens + (9.6 - 5.74) * 7.2, 0.1);
}

struct Tally {
  std::uint64_t compared = 0;
  std::uint64_t seen = 0;
};

// Arcs are chords up to 1 mm inside. Within 2 mm of a boundary either answer is right.
bool is_at_boundary(const Simulation& game, const Vector2d& at, bool answer) {
  constexpr double kNear = 2e-3;
  for (const Vector2d& off :
       {Vector2d{kNear, 0}, Vector2d{-kNear, 0}, Vector2d{0, kNear}, Vector2d{0, -kNear}}) {
    if (sees(game, at + off) != answer) return true;
  }
  return false;
}

bool agree_on_all_spots(const Simulation& game, double spot, Tally& tally) {
  const Cover cover = cover_of(game, spot);
  if (cover.agents().empty()) return true;
  const SpotGrid& grid = cover.floor().grid;
  int wrong = 0;
  for (int row = 0; row < grid.rows; ++row) {
    for (int column = 0; column < grid.columns; ++column) {
      const Vector2d centre = grid.middle(column, row);
      const bool expected = sees(game, centre);
      if (is_at_boundary(game, centre, expected)) continue;
      ++tally.compared;
      tally.seen += expected ? 1 : 0;
      if (cover.has_seen(0, grid.index(column, row)) == expected) continue;
      EXPECT_LT(++wrong, 5) << centre.transpose() << " is seen: " << expected;
    }
  }
  return wrong == 0;
}

// Random halls with beams, sills, blocks and ramps, and any eye, view and body.
TEST(CoverBody, AgreesWithPlayOnEverySpot) {
  Tally tally;
  for (std::uint64_t round = 0; round < testing::rounds(120); ++round) {
    scenes::Random random(round * 17 + 3);
    std::string in_it;
    const auto things = 1 + random.next() % 4;
    for (std::uint64_t i = 0; i < things; ++i) {
      const double x = random.between(2.0, 8.0);
      const double y = random.between(1.0, 6.5);
      const std::string id = "thing-" + std::to_string(i);
      const std::string base =
          random.next() % 2 == 0 ? fmt::format("base = {}\n", random.between(0.0, 1.5)) : "";
      const std::string height = fmt::format("height = {}", random.between(0.2, 2.5));
      switch (random.next() % 3) {
        case 0:
          in_it += testing::wall(id,
                                 fmt::format("[[{}, {}], [{}, {}]]", x, y, random.between(1.0, 9.0),
                                             random.between(1.0, 7.0)),
                                 base + height);
          break;
        case 1:
          in_it += testing::block(
              id,
              fmt::format("[[{0}, {1}], [{2}, {1}], [{2}, {3}], [{0}, {3}]]", x, y,
                          x + random.between(0.1, 1.5), y + random.between(0.1, 1.3)),
              base + height);
          break;
        default:
          in_it += fmt::format(
              "[[ramp]]\nid = \"{}\"\nmaterial = \"brick\"\nfrom = [{}, {}, 0]\nto = [{}, {}, "
              "{}]\nwidth = {}\n",
              id, x, y, random.between(1.0, 9.0), random.between(1.0, 7.0),
              random.between(0.3, 1.5), random.between(0.3, 2.0));
      }
    }
    const std::string plane = random.next() % 2 == 0 ? "ground" : "space";
    std::string sight = fmt::format(
        "range = {}, field_of_view = {}, eye_height = {}, measure = \"{}\", near_ring = {}",
        random.between(3.0, 12.0), random.next() % 4 == 0 ? 360.0 : random.between(30.0, 220.0),
        random.between(0.3, 2.5), random.next() % 3 == 0 ? "surface" : "centre",
        random.next() % 3 == 0 ? random.between(0.3, 1.5) : 0.0);
    if (random.next() % 3 == 0)
      sight += fmt::format(", vertical_field_of_view = {}", random.between(20.0, 90.0));
    if (random.next() % 3 == 0) sight += fmt::format(", tilt = {}", random.between(-50.0, 30.0));
    if (random.next() % 3 == 0)
      sight += fmt::format(", visible_at_least = {}", random.between(0.2, 1.0));
    const std::string moth = fmt::format("height = {}\n", random.between(0.3, 2.2));
    const std::string at = plane == "space" ? "[1.2, 4.0, 0.0]" : "[1.2, 4.0]";
    const std::string text = hall(in_it, moth, sight, at, plane);
    std::optional<Level> level;
    try {
      level = garden(text, {{"agent.lens.facing", std::to_string(random.between(-60.0, 60.0))}});
    } catch (const LevelError& error) {
      ADD_FAILURE() << error.what() << "\n" << text;
      return;
    }
    const Simulation game(*level);
    if (!agree_on_all_spots(game, 0.2, tally)) {
      ADD_FAILURE() << "round " << round << "\n" << text;
      return;
    }
  }
  EXPECT_GT(tally.compared, testing::enough(std::uint64_t{100'000}));
  EXPECT_GT(tally.seen, testing::enough(std::uint64_t{20'000}));
}

// Random halls in side view. The feet may be anywhere in the air.
TEST(CoverBody, AgreesWithPlayFromTheSide) {
  scenes::Random random(23);
  Tally tally;
  for (std::uint64_t round = 0; round < testing::rounds(120); ++round) {
    std::string text = "plane = \"upright\"\n" +
                       testing::block("ground", "[[-1, -1], [11, -1], [11, 0], [-1, 0]]");
    const std::uint64_t count = random.next() % 4;
    for (std::uint64_t i = 0; i < count; ++i) {
      const double x = random.between(2.0, 8.0);
      const double z = random.between(0.0, 4.0);
      const double lean = random.between(-0.5, 0.5);
      text += testing::block("thing-" + std::to_string(i),
                             fmt::format("[[{}, {}], [{}, {}], [{}, {}], [{}, {}]]", x, z,
                                         x + random.between(0.6, 1.5), z, x + 0.6 + lean * 0.2,
                                         z + random.between(0.3, 1.5), x + lean * 0.2, z + 0.3));
    }
    std::string sight = fmt::format(
        "range = {}, field_of_view = {}, eye_height = {}, measure = \"{}\", near_ring = {}",
        random.between(3.0, 12.0), random.next() % 4 == 0 ? 360.0 : random.between(30.0, 220.0),
        random.between(0.3, 1.8), random.next() % 3 == 0 ? "surface" : "centre",
        random.next() % 3 == 0 ? random.between(0.3, 1.5) : 0.0);
    if (random.next() % 3 == 0) sight += fmt::format(", tilt = {}", random.between(-50.0, 50.0));
    if (random.next() % 3 == 0) {
      sight += fmt::format(", visible_at_least = {}", random.between(0.2, 1.0));
    }
    const std::string facing = random.next() % 2 == 0 ? "facing = 180" : "";
    text += "[kind.lens]\nteam = \"caretakers\"\nheight = 1.8\nsight = { " + sight +
            " }\n[kind.moth]\nteam = \"visitors\"\n" +
            fmt::format("height = {}\n", random.between(0.3, 2.2)) +
            placed("lens", "lens", facing.empty() ? "[1.2, 0.0]" : "[9.0, 0.0]", facing) +
            placed("moth", "moth", "[5, 6]", "driver = \"host\"");
    std::optional<Level> level;
    try {
      level = garden(text);
    } catch (const LevelError&) {
      continue;  // an outline that crosses itself
    }
    const Simulation game(*level);
    if (!agree_on_all_spots(game, 0.2, tally)) {
      ADD_FAILURE() << "round " << round << "\n" << text;
      return;
    }
  }
  EXPECT_GT(tally.compared, testing::enough(std::uint64_t{50'000}));
  EXPECT_GT(tally.seen, testing::enough(std::uint64_t{10'000}));
}

// Steep, upright and overhanging triangles.
TEST_F(CoverOfMesh, AgreesWithPlayOnEverySpot) {
  std::filesystem::copy_file(std::string(GAZE_SOURCE) + "/demo/rockery.obj",
                             folder / "rockery.obj");
  write("crate.obj",
        "v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 0 0 1\nv 1.4 0 1\nv 1.4 1 1\nv 0 1 1\n"
        "f 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\nf 5 6 7 8\nf 4 3 2 1\n");
  Tally tally;
  for (std::uint64_t round = 0; round < testing::rounds(40); ++round) {
    scenes::Random random(round + 1);
    std::string in_it;
    for (const char* file : {"rockery", "crate"}) {
      const double x = random.between(3.5, 7.0);
      const double y = random.between(1.5, 6.5);
      const double z = random.between(0.0, 0.8);
      const double turn = random.between(0.0, 360.0);
      in_it += fmt::format(
          "[[mesh]]\nid = \"{0}\"\nfile = \"{0}.obj\"\nmaterial = \"brick\"\nat = [{1}, {2}, "
          "{3}]\nturn = {4}\n",
          file, x, y, z, turn);
    }
    const double eye = random.between(0.4, 3.0);
    const double height = random.between(0.4, 2.0);
    const std::string text =
        hall(in_it, fmt::format("height = {}\n", height),
             fmt::format("range = 30, field_of_view = 360, eye_height = {}", eye), "[1.2, 4.0]");
    const std::string teams = testing::kTeams;
    const Simulation game(read_level(write("hall.toml", text + teams)));
    if (!agree_on_all_spots(game, 0.2, tally)) {
      ADD_FAILURE() << "round " << round << "\n" << text;
      return;
    }
  }
  EXPECT_GT(tally.compared, testing::enough(std::uint64_t{20'000}));
  EXPECT_LT(tally.seen, tally.compared);
}

}  // namespace
}  // namespace gaze
