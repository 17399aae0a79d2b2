#include <gtest/gtest.h>

#include <array>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

Level house() {
  return read_level(GAZE_DEMO);
}

TEST(Prepared, GamesBegunFromItPlayAsOneOfTheLevel) {
  const Prepared prepared(house());
  Simulation one(prepared);
  Simulation other(house());
  EXPECT_EQ(one.digest(), other.digest());
  for (int step = 0; step < 600; ++step) {
    one.step();
    other.step();
  }
  EXPECT_EQ(one.digest(), other.digest());
  EXPECT_EQ(Simulation(prepared).tick(), 0);
}

// The mesh of a kind is that which its agents go by, with the same faces as one made by itself.
TEST(Prepared, HasTheMeshesOfAllWhoFindWays) {
  const Prepared prepared(house());
  const auto mesh = prepared.mesh("pruner");
  ASSERT_TRUE(mesh.has_value());
  const NavigationMesh own(prepared.level(), prepared.world(),
                           body_size(prepared.level(), prepared.level().kinds[0]));
  const Simulation simulation(prepared);
  const auto of_agent = simulation.mesh(simulation.agent("pruner-1"));
  ASSERT_TRUE(of_agent.has_value());
  EXPECT_EQ(of_agent->polygon_count(), mesh->polygon_count());
  EXPECT_EQ(prepared.mesh("sprinkler"), std::nullopt);  // it stands
  EXPECT_THROW(static_cast<void>(prepared.mesh("prunner")), UsageError);
}

TEST(Prepared, RefusesTheWorldOfAnotherLevel) {
  const auto level = std::make_shared<const Level>(house());
  EXPECT_THROW(Prepared(level, World(scenes::hall())), UsageError);
  EXPECT_NO_THROW(Prepared(level, World(*level)));
}

// Whoever is on a mesh from the first step on has it from the beginning: play makes none.
TEST(Prepared, PlayMakesNoMeshes) {
  for (const char* name : {"propagation_house", "terraces", "root_cellar", "sense_rooms"}) {
    const Prepared prepared(read_level(std::string(GAZE_SOURCE) + "/demo/" + name + ".toml"));
    Simulation simulation(prepared);
    std::vector<std::optional<std::size_t>> before;
    const auto faces = [&](std::uint32_t who) {
      const auto mesh = simulation.mesh({who});
      return mesh ? std::optional(mesh->polygon_count()) : std::nullopt;
    };
    for (std::uint32_t who = 0; who < simulation.level().agents.size(); ++who) {
      before.push_back(faces(who));
    }
    for (int step = 0; step < 1200; ++step) simulation.step();
    for (std::uint32_t who = 0; who < before.size(); ++who) {
      EXPECT_EQ(faces(who).has_value(), before[who].has_value())
          << name << " " << simulation.id_of({who});
    }
  }
}

TEST(Prepared, ALevelThatCannotBePlayedIsRefused) {
  Level level = house();
  level.kinds[0].radius = -1.0;
  EXPECT_THROW(Prepared{level}, LevelError);
}

// A key opens a door, so the mesh of who holds it is another one. Through the door it is 4 m + 4 m
// from room to room.
TEST(Prepared, AKeyInTheHandChangesTheMeshOfADrivenAgent) {
  Level level;
  level.teams = {{"heroes", {}, {}}};
  Kind hero;
  hero.name = "hero";
  hero.team = 0;
  hero.move.emplace();
  level.kinds = {hero};
  Solid door;
  door.form = Solid::Form::door;
  door.id = "door";
  door.points = {{5, 3}, {5, 5}};
  door.door.opens_for = {"red-key"};
  level.solids = {door};
  for (const auto& [from, to] : {std::pair(0.0, 3.0), std::pair(5.0, 8.0)}) {
    Solid wall;
    wall.form = Solid::Form::wall;
    wall.id = from == 0.0 ? "south" : "north";
    wall.points = {{5, from}, {5, to}};
    level.solids.push_back(wall);
  }
  level.bounds.emplace().outline = {{0, 0}, {10, 0}, {10, 8}, {0, 8}};
  Zone zone;
  zone.id = "key";
  zone.outline = {{1, 1}, {2, 1}, {2, 2}};
  zone.grants = {"red-key"};
  level.zones = {zone};

  const Prepared prepared(level, {"hero"});
  Simulation game(prepared);
  const AgentId driven = game.spawn("hero", {1, 4, 0}, {}, "h", Driver::host);
  game.step();
  ASSERT_TRUE(game.mesh(driven));
  EXPECT_NE(find_path(*game.mesh(driven), {1, 4, 0}, {9, 4, 0}).outcome, Path::Outcome::whole);
  game.give_tag(driven, "red-key");
  game.step();
  ASSERT_TRUE(game.mesh(driven));
  const Path path = find_path(*game.mesh(driven), {1, 4, 0}, {9, 4, 0});
  EXPECT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 8.0, 1e-9);
}

}  // namespace
}  // namespace gaze
