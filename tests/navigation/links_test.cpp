// Hops, drops and links that a designer made, as parts of ways.

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/visibility.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;
using testing::to_step;

Solid block(const std::string& id, const Vector2d& low, const Vector2d& high, double base,
            double top) {
  Solid solid = box(low, high, top - base);
  solid.id = id;
  solid.base = base;
  return solid;
}

BodySize hopper(double height, double length) {
  BodySize body;
  body.radius = 0.3;
  body.height = 0.6;
  body.hop_height = height;
  body.hop_length = length;
  body.drop_height = height;
  return body;
}

/// One big block to hop onto from a bare floor, 4 m on a side.
Path onto_block(double top, const BodySize& body) {
  const Level level = level_of({block("crate", {4.0, -2.0}, {8.0, 2.0}, 0.0, top)});
  const NavigationMesh mesh(level, World(level), body);
  return find_path(mesh, {0.0, 0.0, 0.0}, {6.0, 0.0, top});
}

TEST(Hops, LeadUpAsFarAsTheBodyHops) {
  const Path path = onto_block(0.8, hopper(1.0, 2.0));
  ASSERT_EQ(path.outcome, Path::Outcome::whole);
  ASSERT_EQ(path.links.size(), 1U);
  // It is up there before its front is: with z = v t - g t^2 / 2 the share of the flight after
  // which it is 0.82 m up is (1 - sqrt(1 - 0.82)) / (1 + sqrt(1 - 0.8)), and by then the front, at
  // 0.3 m before the middle, may not have come to the block.
  const double share = (1.0 - std::sqrt(0.18)) / (1.0 + std::sqrt(0.2));
  const std::uint32_t end = path.links[0].to_point;
  const double from = path.points[end - 1].x();
  const double to = path.points[end].x();
  EXPECT_GE(to, 4.0);
  EXPECT_LE(from + (to - from) * share + 0.3, 4.0 + 1e-9);
  EXPECT_LE(to - from, 2.0);
  EXPECT_EQ(onto_block(1.01, hopper(1.0, 2.0)).outcome, Path::Outcome::bad_goal);
  EXPECT_NE(onto_block(0.8, hopper(0.7, 2.0)).outcome, Path::Outcome::whole);
  // Too short to be over the block by the time it comes down.
  EXPECT_NE(onto_block(0.8, hopper(1.0, 0.5)).outcome, Path::Outcome::whole);
}

TEST(Hops, NeedRoomAlongTheArc) {
  // A beam 1.8 m above the floor in front of the block: the head, 0.6 m above the feet, comes to
  // 1.6 m by a hop of 1 m, and to 2.1 m by one of 1.5 m.
  Level level = level_of({block("crate", {4.0, -2.0}, {8.0, 2.0}, 0.0, 0.8),
                          block("beam", {-2.0, -3.0}, {4.5, 3.0}, 1.8, 2.0)});
  const World world(level);
  const auto outcome = [&](double height) {
    const NavigationMesh mesh(level, world, hopper(height, 2.0));
    return find_path(mesh, {0.0, 0.0, 0.0}, {6.0, 0.0, 0.8}).outcome;
  };
  EXPECT_EQ(outcome(1.0), Path::Outcome::whole);
  // From the other three sides there is no beam: shut them off.
  level.solids.push_back(block("north", {3.9, 2.0}, {8.5, 2.5}, 0.0, 4.0));
  level.solids.push_back(block("south", {3.9, -2.5}, {8.5, -2.0}, 0.0, 4.0));
  level.solids.push_back(block("east", {8.0, -2.5}, {8.5, 2.5}, 0.0, 4.0));
  const World closed(level);
  const auto shut = [&](double height) {
    const NavigationMesh mesh(level, closed, hopper(height, 2.0));
    return find_path(mesh, {0.0, 0.0, 0.0}, {6.0, 0.0, 0.8}).outcome;
  };
  EXPECT_EQ(shut(1.0), Path::Outcome::whole);
  EXPECT_NE(shut(1.5), Path::Outcome::whole);
}

TEST(Hops, LeadOverGapsNoWiderThanTheirLength) {
  const auto across = [](double gap, double drop) {
    Level level = level_of({block("here", {0.0, 0.0}, {4.0, 4.0}, 0.0, 3.0),
                            block("there", {4.0 + gap, 0.0}, {8.0, 4.0}, 0.0, 3.0 - drop)},
                           Plane::space);
    Agent stands;
    stands.position = {1.0, 2.0, 3.0};
    level.kinds.emplace_back();
    level.agents.push_back(stands);
    const NavigationMesh mesh(level, World(level), hopper(0.5, 1.5));
    return find_path(mesh, {1.0, 2.0, 3.0}, {7.0, 2.0, 3.0 - drop});
  };
  EXPECT_EQ(across(1.3, 0.0).outcome, Path::Outcome::whole);
  // Hops begin 1 m apart along the rim: half a metre aside at most, on both sides of the gap.
  EXPECT_LE(across(1.3, 0.0).length, 2.0 * std::hypot(2.35, 0.5) + 1.3 + 0.1);
  EXPECT_NE(across(1.6, 0.0).outcome, Path::Outcome::whole);
  EXPECT_EQ(across(1.3, 0.4).outcome, Path::Outcome::whole);  // down it drops as far as it hops
  EXPECT_NE(across(1.3, 0.6).outcome, Path::Outcome::whole);
}

TEST(Drops, LeadDownAndNotUp) {
  Level level = level_of({block("shelf", {0.0, 0.0}, {4.0, 4.0}, 0.0, 1.5)}, Plane::space);
  Agent stands;
  stands.position = {1.0, 2.0, 1.5};
  level.kinds.emplace_back();
  level.agents.push_back(stands);
  BodySize body;
  body.drop_height = 2.0;
  const NavigationMesh mesh(level, World(level), body);
  const Path down = find_path(mesh, {2.0, 2.0, 1.5}, {8.0, 2.0, 0.0});
  ASSERT_EQ(down.outcome, Path::Outcome::whole);
  ASSERT_EQ(down.links.size(), 1U);
  const Vector3d landing = down.points[down.links[0].to_point];
  EXPECT_NEAR(landing.x(), 4.0 + body.radius + 0.05, 1e-3);
  EXPECT_EQ(landing.z(), 0.0);
  EXPECT_NE(find_path(mesh, {8.0, 2.0, 0.0}, {2.0, 2.0, 1.5}).outcome, Path::Outcome::whole);
  // Two islands, of which one leads to the other.
  const auto up = mesh.find({2.0, 2.0, 1.5});
  const auto ground = mesh.find({8.0, 2.0, 0.0});
  EXPECT_NE(mesh.island_of(*up), mesh.island_of(*ground));
  EXPECT_TRUE(mesh.is_reachable(mesh.island_of(*up), mesh.island_of(*ground)));
  EXPECT_FALSE(mesh.is_reachable(mesh.island_of(*ground), mesh.island_of(*up)));
  body.drop_height = 1.4;
  const NavigationMesh careful(level, World(level), body);
  EXPECT_NE(find_path(careful, {2.0, 2.0, 1.5}, {8.0, 2.0, 0.0}).outcome, Path::Outcome::whole);
}

// No link of many random levels touches a solid anywhere, at 200 places each.
TEST(Hops, NeverTouchASolid) {
  int hops = 0;
  int drops = 0;
  const std::uint64_t levels = testing::is_sanitized() ? 3 : 12;
  for (std::uint64_t seed = 1; seed <= levels; ++seed) {
    Level level = scenes::make_scene(40, 16.0, seed);
    scenes::Random random(50 + seed);
    for (Solid& solid : level.solids) solid.height = random.between(0.3, 1.6);
    const World world(level);
    const BodySize body = hopper(1.0, 2.0);
    const NavigationMesh mesh(level, world, body);
    for (const MeshLink& link : mesh.links()) {
      const double rise = link.to.z() - link.from.z();
      EXPECT_LE(rise, 1.0);
      EXPECT_GE(rise, -1.0);
      EXPECT_LE((link.to - link.from).head<2>().norm(), 2.0 + 1e-9);
      const bool is_hop = link.what == MeshLink::What::hop;
      (is_hop ? hops : drops) += 1;
      const double up = std::sqrt(2.0 * 9.81);
      const double seconds = (up + std::sqrt(2.0 * 9.81 * (1.0 - rise))) / 9.81;
      for (int i = 0; i <= 200; ++i) {
        Vector3d at = link.from + (link.to - link.from) * (i / 200.0);
        const double t = seconds * i / 200.0;
        if (is_hop) at.z() = link.from.z() + up * t - 9.81 * t * t / 2.0;
        if (!is_hop) {  // level first, straight down then
          at = i < 100 ? Vector3d(link.from + (link.to - link.from) * (i / 100.0)) : link.to;
          at.z() = i < 100 ? link.from.z() : link.from.z() + rise * (i - 100) / 100.0;
        }
        const Cylinder lifted{at + Vector3d{0.0, 0.0, 0.002}, body.radius, body.height - 0.002};
        ASSERT_FALSE(world.overlaps(lifted, Stops::bodies)) << seed << ", " << i;
      }
    }
  }
  EXPECT_GT(hops, static_cast<int>(25 * levels));
  EXPECT_GT(drops, static_cast<int>(25 * levels));
}

TEST(MadeLinks, LeadOneWayOrBothAndCountFromEndToEnd) {
  const char* const kText = R"(
plane = "space"
[kind.pruner.move]
step_height = 0.2
[[floor]]
id = "gallery"
material = "brick"
outline = [[0.0, 0.0], [6.0, 0.0], [6.0, 3.8], [0.0, 3.8]]
top = 3.0
[[link]]
id = "ladder-1"
from = [3.0, 4.5, 0.0]
to = [3.0, 3.6, 3.0]
both_ways = true
)";
  const Level level = testing::garden(kText);
  const World world(level);
  const NavigationMesh mesh(level, world, body_size(level, level.kinds[0]));
  const Path up = find_path(mesh, {3.0, 8.0, 0.0}, {3.0, 1.0, 3.0});
  ASSERT_EQ(up.outcome, Path::Outcome::whole);
  EXPECT_NEAR(up.length, 3.5 + std::hypot(0.9, 3.0) + 2.6, 1e-6);
  ASSERT_EQ(up.links.size(), 1U);
  EXPECT_EQ(name_of(level, mesh.links()[up.links[0].link]), "ladder-1");
  EXPECT_NEAR(find_path(mesh, {3.0, 1.0, 3.0}, {3.0, 8.0, 0.0}).length, up.length, 1e-9);
  const Level one_way = testing::garden(std::string(kText), {{"link.ladder-1.both_ways", "false"}});
  const NavigationMesh up_only(one_way, World(one_way), body_size(one_way, one_way.kinds[0]));
  EXPECT_EQ(find_path(up_only, {3.0, 8.0, 0.0}, {3.0, 1.0, 3.0}).outcome, Path::Outcome::whole);
  EXPECT_NE(find_path(up_only, {3.0, 1.0, 3.0}, {3.0, 8.0, 0.0}).outcome, Path::Outcome::whole);
}

/// The least way from the first place to the second, where `way` says what each place is from each
/// other, on foot or by a link (Floyd and Warshall).
double least_way(std::vector<std::vector<double>> way) {
  const std::size_t count = way.size();
  for (std::size_t k = 0; k < count; ++k) {
    for (std::size_t i = 0; i < count; ++i) {
      for (std::size_t j = 0; j < count; ++j) {
        way[i][j] = std::min(way[i][j], way[i][k] + way[k][j]);
      }
    }
  }
  return way[0][1];
}

// Links through walls: another method, over places and the visibility graph between them.
TEST(MadeLinks, AreTakenWhereThatIsShortest) {
  int whole = 0;
  int by_link = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(5); ++seed) {
    Level level = scenes::make_scene(12, 9.0, seed);
    BodySize body;
    body.radius = 0.25;
    const World world(level);
    const NavigationMesh plain(level, world, body);
    testing::VisibilityGraph graph(plain);
    if (graph.has_pinch()) continue;
    scenes::Random random(200 + seed);
    const auto somewhere = [&] {
      while (true) {
        const Vector3d p{std::floor(random.between(0.0, 9.0) * 4096.0) / 4096.0,
                         std::floor(random.between(0.0, 9.0) * 4096.0) / 4096.0, 0.0};
        const auto place = plain.find(p);
        if (place && place->place == p) return p;
      }
    };
    std::vector<Vector3d> places(2);
    for (int i = 0; i < 6; ++i) {
      Link link;
      link.from = somewhere();
      link.to = somewhere();
      link.both_ways = i % 2 == 0;
      places.push_back(link.from);
      places.push_back(link.to);
      level.links.push_back(link);
    }
    std::vector way(places.size(), std::vector<double>(places.size()));
    const auto walk_from = [&](std::size_t i) {
      for (std::size_t j = 0; j < places.size(); ++j) {
        way[i][j] = way[j][i] = graph.shortest(to_step(places[i]), to_step(places[j]));
      }
    };
    for (std::size_t i = 2; i < places.size(); ++i) walk_from(i);
    for (std::size_t i = 0; i < level.links.size(); ++i) {
      const Link& link = level.links[i];
      const std::size_t from = 2 + 2 * i;
      const double length = (link.to - link.from).norm();  // straight through what is in the way
      way[from][from + 1] = length;
      if (link.both_ways) way[from + 1][from] = length;
    }
    const NavigationMesh mesh(level, world, body);
    for (int i = 0; i < 10; ++i) {
      places[0] = somewhere();
      places[1] = somewhere();
      walk_from(0);
      walk_from(1);
      const double expected = least_way(way);
      const Path path = find_path(mesh, places[0], places[1]);
      if (!std::isfinite(expected)) {
        EXPECT_NE(path.outcome, Path::Outcome::whole);
        continue;
      }
      ASSERT_EQ(path.outcome, Path::Outcome::whole) << seed << ", " << i;
      EXPECT_NEAR(path.length, expected, expected * 1e-6) << seed << ", " << i;
      ++whole;
      by_link += path.links.empty() ? 0 : 1;
    }
  }
  EXPECT_GT(whole, testing::enough(30));
  EXPECT_GE(by_link, testing::enough(4));
}

}  // namespace
}  // namespace gaze
