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

}  // namespace
}  // namespace gaze
