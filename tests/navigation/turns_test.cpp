// The graph of turns equals its own reverse: where one corner sees another, that one sees it when
// both are passed the other way. Ways there and back are then equally long.

#include <algorithm>
#include <cmath>
#include <set>

#include "navigation/corner_fan.hpp"
#include "support/halls.hpp"

namespace gaze {
namespace {

using testing::Sort;

struct Sights {
  std::size_t all = 0;
  std::size_t without_reverse = 0;
};

// Two that see each other past a third one, which touches the line between them to a micrometre,
// may do so in one direction alone: then the way by the third is as long.
bool is_touched_between(const TurnGraph& graph, std::uint32_t from, std::uint32_t to) {
  constexpr double kTouch = 1e-6;
  const MeshPoint& a = graph.places[from / 2];
  const MeshPoint& b = graph.places[to / 2];
  for (std::uint32_t corner = 0; 2 * corner < graph.turn_count(); ++corner) {
    if (corner == from / 2 || corner == to / 2) continue;
    if (distance_to_segment(a, b, graph.places[corner]) <= kTouch) return true;
  }
  return false;
}

Sights sights_of(const Level& level, double radius) {
  BodySize body;
  body.radius = radius;
  const NavigationMesh mesh(level, World(level), body);
  const TurnGraph& graph = data_of(mesh).turns;
  std::set<std::pair<std::uint32_t, std::uint32_t>> seen;
  for (std::uint32_t turn = 0; turn < graph.turn_count(); ++turn) {
    for (const std::uint32_t other : graph.seen_from(turn)) seen.insert({turn, other});
  }
  Sights sights;
  for (const auto& [from, to] : seen) {
    if (to >= graph.turn_count()) continue;
    ++sights.all;
    if (seen.count({to ^ 1U, from ^ 1U}) == 0 && !is_touched_between(graph, from, to)) {
      ++sights.without_reverse;
    }
  }
  return sights;
}

class Turns : public ::testing::TestWithParam<Sort> {};

TEST_P(Turns, AreSeenThereAndBack) {
  std::size_t all = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    for (const double radius : {0.2, 0.3, 0.45}) {
      const Sights sights = sights_of(testing::hall_of(GetParam(), seed), radius);
      EXPECT_EQ(sights.without_reverse, 0U) << seed << ", radius " << radius;
      all += sights.all;
    }
  }
  EXPECT_GT(all, testing::enough(5'000U));
}

// The plain method goes from face to face, and works out where a view ends on an edge.
TEST_P(Turns, AreWhatIsSeenFromFaceToFace) {
  std::size_t all = 0;
  CornerFan fan;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    Level level = testing::hall_of(GetParam(), seed);
    if (seed % 2 == 0) {
      Zone dear;
      dear.id = "dear";
      dear.outline = {{2.0, 2.0}, {8.0, 3.0}, {7.0, 9.0}, {3.0, 8.0}};
      dear.cost = 2.0;
      level.zones.push_back(dear);
      complete(level);
    }
    const NavigationMesh mesh(level, World(level), BodySize{});
    const TurnGraph& graph = data_of(mesh).turns;
    for (std::uint32_t turn = 0; turn < graph.turn_count(); ++turn) {
      const auto seen = graph.seen_from(turn);
      const auto& plainly = fan.look(data_of(mesh), turn / 2, Hand{turn % 2});
      EXPECT_TRUE(std::equal(seen.begin(), seen.end(), plainly.begin(), plainly.end()))
          << seed << ", turn " << turn;
      all += seen.size();
    }
  }
  EXPECT_GT(all, testing::enough(3'000U));
}

INSTANTIATE_TEST_SUITE_P(Sorts, Turns,
                         ::testing::Values(Sort::anyhow, Sort::in_steps, Sort::touching,
                                           Sort::slabs, Sort::thin));

TEST(TurnGraph, OfTheHallAndTheCampusEqualsItsReverse) {
  EXPECT_EQ(sights_of(scenes::hall(), 0.3).without_reverse, 0U);
  if (testing::is_sanitized()) return;
  const Sights campus = sights_of(scenes::campus(), 0.2);
  EXPECT_EQ(campus.without_reverse, 0U);
  EXPECT_GT(campus.all, 100'000U);
}

}  // namespace
}  // namespace gaze
