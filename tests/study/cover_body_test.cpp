// Cover agrees with `can_see`, by which agents see in play, on the middle of every spot.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <string>

#include "gaze/tools/cover.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

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
  body.feet = {at.x(), at.y(), 0.0};
  body.height = moth.height;
  body.body_points = moth.body_points;
  body.radius = moth.radius;
  return can_see(game.world(), game.looker({0}), body);
}

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

// Everything that a hall may hold: beams, sills, blocks, ramps, pits of shade between them; any
// eye, view and body.
TEST(CoverBody, AgreesWithPlayOnEverySpot) {
  std::uint64_t compared = 0;
  std::uint64_t seen = 0;
  std::uint64_t wrong = 0;
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
    const Cover cover = cover_of(game, 0.2);
    if (cover.agents().empty()) continue;
    const SpotGrid& grid = cover.floor().grid;
    for (int row = 0; row < grid.rows; ++row) {
      for (int column = 0; column < grid.columns; ++column) {
        const Vector2d middle = grid.middle(column, row);
        const bool expected = sees(game, middle);
        // Arcs are chords up to 1 mm inside: within 2 mm of a rim either answer is right.
        constexpr double kRim = 2e-3;
        bool is_at_rim = false;
        for (const Vector2d& off :
             {Vector2d{kRim, 0}, Vector2d{-kRim, 0}, Vector2d{0, kRim}, Vector2d{0, -kRim}}) {
          is_at_rim |= sees(game, middle + off) != expected;
        }
        if (is_at_rim) continue;
        ++compared;
        seen += expected ? 1 : 0;
        if (cover.has_seen(0, grid.index(column, row)) != expected) {
          ++wrong;
          ADD_FAILURE() << "round " << round << " at " << middle.transpose() << ": " << expected
                        << "\n"
                        << text;
          if (wrong > 5) return;
        }
      }
    }
  }
  EXPECT_GT(compared, testing::enough(std::uint64_t{100'000}));
  EXPECT_GT(seen, testing::enough(std::uint64_t{20'000}));
}

}  // namespace
}  // namespace gaze
