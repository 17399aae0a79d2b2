// Agents that come into a running game, leave it, or become others.

#include <gtest/gtest.h>

#include <algorithm>

#include "fuzz/level_writer.hpp"
#include "scenes.hpp"
#include "simulation/guests.hpp"

namespace gaze {
namespace {

using testing::all_told;
using testing::house;
using testing::kKinds;

Level one_guest() {
  return house(testing::placed("guest", "guest", "[20, 0]", "driver = \"host\""));
}

std::vector<std::string> ids_of(const Simulation& game) {
  std::vector<std::string> ids;
  for (const AgentId agent : game.agents()) ids.push_back(game.id_of(agent));
  return ids;
}
void walk_in(Simulation& game, int steps, std::string& told) {
  const AgentId guest = game.agent("guest");
  for (int i = 0; i < steps; ++i) {
    const Vector3d place = game.state(guest).position;
    game.set_pose(guest, {std::max(0.5, place.x() - 0.1), 0.0, 0.0}, {});
    game.step();
    for (const Event& event : game.events()) {
      told += std::to_string(event.tick) + " " + game.describe(event) + "\n";
    }
  }
}

// Out of everybody's sight at first, so that the first look at tick 0 makes no difference.
TEST(Spawn, PlaysLikeOneThatHasBeenThereFromTheBeginning) {
  Simulation spawned(one_guest());
  const AgentId pruner = spawned.spawn("pruner", {0.0, 0.0, 0.0}, {}, "pruner-1");
  EXPECT_EQ(spawned.id_of(pruner), "pruner-1");
  Simulation placed(house(testing::placed("guest", "guest", "[20, 0]", "driver = \"host\"") +
                          testing::placed("pruner-1", "pruner", "[0, 0]")));
  std::string first;
  std::string second;
  walk_in(spawned, 300, first);
  walk_in(placed, 300, second);
  EXPECT_NE(first.find("pruner-1 noticed guest by sight"), std::string::npos);
  EXPECT_NE(first.find("lost 10 health to shears of pruner-1"), std::string::npos);
  EXPECT_EQ(first, second);
}

// The level of a game that has been changed begins as one that was written so.
TEST(Spawn, TheLevelHoldsWhoIsThere) {
  int tried = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(60); ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level || level->agents.size() < 2 || level->agents.size() > 60) continue;
    Level without = *level;
    const Agent last = without.agents.back();
    const bool is_named = std::any_of(level->zones.begin(), level->zones.end(), [](const Zone& z) {
      return !z.tells.empty() || !z.wakes.empty();
    });
    if (!last.script.empty() || is_named || last.kind >= level->named_kinds) continue;
    without.agents.pop_back();
    if (!validate(without).empty()) continue;
    Simulation game(without);
    try {
      static_cast<void>(game.spawn(last));
    } catch (const UsageError&) {
      continue;  // driven by a script that it does not have
    }
    ++tried;
    EXPECT_EQ(Simulation(game.level()).digest(), Simulation(*level).digest()) << seed;
    game.despawn(game.agent(last.id));
    EXPECT_EQ(Simulation(game.level()).digest(), Simulation(without).digest()) << seed;
  }
  EXPECT_GT(tried, testing::enough(5));
}

TEST(Spawn, WhatIsLeftBehindIsThereOnceItIs) {
  Simulation game(house(testing::placed("guest", "guest", "[20, 0]", "driver = \"host\"") +
                        testing::placed("pruner-1", "pruner", "[0, 0]")));
  EXPECT_EQ(ids_of(game), (std::vector<std::string>{"guest", "pruner-1"}));
  EXPECT_EQ(Simulation(game.level()).digest(), game.digest());
  game.hurt(game.agent("pruner-1"), 50.0);
  EXPECT_EQ(ids_of(game), (std::vector<std::string>{"guest", "pruner-1", "pruner-1-clippings"}));
  EXPECT_EQ(game.agent_count(), 3U);
  game.despawn(game.agent("pruner-1-clippings"));
  EXPECT_EQ(ids_of(game), (std::vector<std::string>{"guest", "pruner-1"}));
  game.revive(game.agent("pruner-1"));
  game.hurt(game.agent("pruner-1"), 50.0);  // there is another for it
  EXPECT_EQ(game.agent_count(), 3U);
}

TEST(Spawn, AnOldHandleIsToldFromANewOne) {
  Simulation game(one_guest());
  const AgentId first = game.spawn("pruner", {0.0, 0.0, 0.0}, {});
  const AgentId other = game.spawn("pruner", {5.0, 0.0, 0.0}, {});
  EXPECT_EQ(game.id_of(first), "pruner-1");
  EXPECT_EQ(game.id_of(other), "pruner-2");
  game.despawn(first);
  EXPECT_FALSE(game.is_there(first));
  EXPECT_THROW(static_cast<void>(game.state(first)), UsageError);
  EXPECT_EQ(game.find_agent("pruner-1"), std::nullopt);
  const AgentId second = game.spawn("pruner", {1.0, 0.0, 0.0}, {}, "pruner-1");
  EXPECT_EQ(second.index, first.index);  // numbers are used again
  EXPECT_EQ(second.generation, first.generation + 1);
  EXPECT_THROW(static_cast<void>(game.state(first)), UsageError);
  EXPECT_EQ(game.state(second).position.x(), 1.0);
  EXPECT_EQ(game.state(other).position.x(), 5.0);
  EXPECT_EQ(game.agent("pruner-1"), second);
  EXPECT_FALSE(game.is_there(AgentId{}));
  // A thousand more do not make the game larger.
  const std::size_t numbers = game.level().agents.size();
  AgentId last = second;
  for (int i = 0; i < 1000; ++i) {
    game.despawn(last);
    last = game.spawn("pruner", {1.0, 0.0, 0.0}, {});
  }
  EXPECT_EQ(game.level().agents.size(), numbers);
}

// A door that opens for the keeper opens for nobody who merely got the keeper's number.
TEST(Spawn, WhomTheLevelNamesGivesItsNumberToThatNameAlone) {
  Simulation game(house(testing::placed("guest", "guest", "[20, 0]", "driver = \"host\"") +
                        testing::placed("keeper", "pruner", "[0, 0]") +
                        "[[door]]\nid = \"gate\"\nmaterial = \"brick\"\n"
                        "path = [[4, -1], [4, 1]]\nopens_for = [\"keeper\"]\n"));
  const AgentId keeper = game.agent("keeper");
  game.despawn(keeper);
  const AgentId other = game.spawn("pruner", {3.5, 0.0, 0.0}, {}, "other");
  EXPECT_NE(other.index, keeper.index);
  game.step();
  EXPECT_FALSE(game.world().is_gone({0}));
  const AgentId again = game.spawn("pruner", {3.5, 0.5, 0.0}, {}, "keeper");
  EXPECT_EQ(again.index, keeper.index);
  game.step();
  EXPECT_TRUE(game.world().is_gone({0}));
}

TEST(Spawn, NobodyKnowsOfWhoHasGone) {
  Simulation game(one_guest());
  const AgentId guest = game.agent("guest");
  const AgentId reed = game.spawn("reed", {0.0, 0.0, 0.0}, {});
  game.set_pose(guest, {5.0, 0.0, 0.0}, {});
  std::string told;
  while (game.projectiles().empty() && game.seconds() < 5.0) game.step();
  ASSERT_EQ(game.awareness(reed, guest), Awareness::noticed);
  ASSERT_FALSE(game.projectiles().empty());
  game.despawn(reed);  // and its shot with it
  EXPECT_TRUE(game.projectiles().empty());
  game.despawn(guest);
  const AgentId next = game.spawn("guest", {9.0, 0.0, 0.0}, {});
  EXPECT_EQ(next.index, guest.index);
  const AgentId second = game.spawn("reed", {0.0, 0.0, 0.0}, {});
  for (const AgentId agent : game.agents()) {
    EXPECT_EQ(game.awareness(second, agent), Awareness::unaware);
  }
  EXPECT_EQ(all_told(game, 60), "");
}

TEST(Spawn, ACopyIsASnapshotWhateverComesAndGoes) {
  Simulation game(one_guest());
  game.spawn("pruner", {0.0, 0.0, 0.0}, {});
  const Simulation before = game;
  const std::uint64_t digest = before.digest();
  const AgentId reed = game.spawn("reed", {1.0, 0.0, 0.0}, {});
  game.despawn(game.agent("guest"));
  game.set_value("kind.reed.sight.range", 9.0);
  EXPECT_EQ(before.digest(), digest);
  EXPECT_EQ(ids_of(before), (std::vector<std::string>{"guest", "pruner-1"}));
  EXPECT_FALSE(before.is_there(reed));
  game = before;  // and back
  EXPECT_EQ(game.digest(), digest);
  Simulation twin = before;
  EXPECT_EQ(all_told(game, 60), all_told(twin, 60));
  EXPECT_EQ(game.digest(), twin.digest());
}

TEST(Spawn, ASaveHoldsWhoHasComeAndGoneAndWhatWasSet) {
  Simulation game(one_guest());
  game.spawn("pruner", {0.0, 0.0, 0.0}, {}, "first");
  const AgentId gone = game.spawn("reed", {3.0, 0.0, 0.0}, {});
  game.set_value("kind.pruner.sight.range", 19.0);
  game.set_kind(game.agent("first"), "reed");
  for (int i = 0; i < 20; ++i) game.step();
  game.despawn(gone);
  Simulation other(one_guest());
  other.spawn("pruner", {7.0, 0.0, 0.0}, {});  // what it has had is gone
  other.restore(game.save());
  EXPECT_EQ(other.digest(), game.digest());
  EXPECT_EQ(other.save(), game.save());
  EXPECT_EQ(ids_of(other), ids_of(game));
  EXPECT_EQ(all_told(other, 60), all_told(game, 60));
  EXPECT_EQ(other.spawn("reed", {3.0, 0.0, 0.0}, {}), game.spawn("reed", {3.0, 0.0, 0.0}, {}));
  game.set_value("kind.pruner.sight.range", 25.0);
  other.set_value("kind.pruner.sight.range", 25.0);
  EXPECT_EQ(other.digest(), game.digest());
  EXPECT_EQ(other.value("kind.pruner.sight.keep_range"), 25.0);  // which had been left out
  other.restore(Simulation(one_guest()).save());
  EXPECT_EQ(other.digest(), Simulation(one_guest()).digest());
}

TEST(Spawn, WithAPatrolOrDrivenByTheHost) {
  Simulation game(one_guest());
  Agent guard;
  guard.kind = 0;
  guard.id = "guard";
  guard.patrol = {{0.0, 0.0, 0.0}, {4.0, 0.0, 0.0}};
  const AgentId id = game.spawn(guard);
  for (int i = 0; i < 60; ++i) game.step();
  EXPECT_NEAR(game.state(id).position.x(), 2.0, 0.05);
  EXPECT_EQ(game.state(id).mode, Mode::patrol);
  Agent driven;
  driven.kind = 0;
  driven.id = "driven";
  driven.driver = Driver::host;
  const AgentId host = game.spawn(driven);
  game.set_pose(host, {0.0, 9.0, 0.0}, {});
  EXPECT_EQ(game.state(host).position.y(), 9.0);
}

TEST(Spawn, RefusesWhatCannotBeAndChangesNothing) {
  Simulation game(one_guest());
  const std::uint64_t digest = game.digest();
  const Vector3d here{0.0, 0.0, 0.0};
  EXPECT_THROW(game.spawn("prunner", here, {}), UsageError);
  EXPECT_THROW(game.spawn("pruner", here, {}, "guest"), UsageError);
  EXPECT_THROW(game.spawn("pruner", here, {}, "two words"), UsageError);
  EXPECT_THROW(game.spawn("pruner", {1e9, 0.0, 0.0}, {}), UsageError);
  EXPECT_THROW(game.despawn(AgentId{}), UsageError);
  EXPECT_THROW(game.despawn({7}), UsageError);
  EXPECT_THROW(game.set_kind(game.agent("guest"), "prunner"), UsageError);
  Agent agent;
  agent.kind = 99;
  EXPECT_THROW(game.spawn(agent), UsageError);
  EXPECT_EQ(game.digest(), digest);
}

TEST(SetKind, ItIsArmedAsTheOtherAndGoesOn) {
  Simulation game(one_guest());
  const AgentId guest = game.agent("guest");
  const AgentId pruner = game.spawn("pruner", {0.0, 0.0, 0.0}, {});
  game.set_pose(guest, {5.0, 0.0, 0.0}, {});
  for (int i = 0; i < 20; ++i) game.step();
  ASSERT_EQ(game.awareness(pruner, guest), Awareness::noticed);
  game.set_kind(pruner, "reed");
  EXPECT_EQ(game.state(pruner).health, 30.0);
  EXPECT_EQ(game.awareness(pruner, guest), Awareness::noticed);
  while (game.projectiles().empty() && game.seconds() < 5.0) game.step();
  ASSERT_FALSE(game.projectiles().empty());
  EXPECT_EQ(game.projectiles()[0].attack, "thorn");
  game.set_kind(pruner, "pruner");
  game.hurt(pruner, 100.0);
  EXPECT_TRUE(game.find_agent("pruner-1-clippings"));
}

// What it leaves behind is that of the kind that it is of, however often that changes, and the game
// does not grow by it.
TEST(SetKind, LeavesBehindWhatItsKindDoes) {
  Simulation game(
      house("[kind.tub]\nlike = \"pruner\"\n[kind.tub.defeat]\nleaves = \"shard\"\n"
            "[kind.shard]\n" +
            testing::placed("guest", "guest", "[20, 0]", "driver = \"host\"") +
            testing::placed("other", "pruner", "[9, 9]")));
  const AgentId one = game.spawn("pruner", {0.0, 0.0, 0.0}, {}, "one");
  game.set_kind(one, "tub");
  const std::size_t numbers = game.level().agents.size();
  for (int i = 0; i < 20; ++i) {
    const bool is_tub = i % 2 == 0;
    game.set_kind(one, is_tub ? "tub" : "pruner");
    game.hurt(one, 1000.0);
    const AgentId left = game.agent(is_tub ? "one-shard" : "one-clippings");
    EXPECT_TRUE(game.is_there(left)) << i;
    EXPECT_EQ(game.agent_count(), 4U) << i;
    game.despawn(left);
    game.revive(one);
  }
  EXPECT_EQ(game.level().agents.size(), numbers);
  game.hurt(game.agent("other"), 1000.0);
  EXPECT_TRUE(game.is_there(game.agent("other-clippings")));
}

TEST(SetValue, IsAsIfItHadBeenWrittenSo) {
  const std::string agents = testing::placed("guest", "guest", "[20, 0]", "driver = \"host\"") +
                             testing::placed("pruner-1", "pruner", "[0, 0]");
  Simulation game(house(agents));
  game.set_value("kind.pruner.sight.range", 15.0);
  game.set_value("kind.pruner.attack.shears.damage", 3.5);
  game.set_value("kind.pruner.move.turn_rate", 90.0);
  game.set_value("kind.pruner.sight.remember", 1.25);
  const Level written =
      testing::garden(kKinds + agents, {{"kind.pruner.sight.range", "15"},
                                        {"kind.pruner.attack.shears.damage", "3.5"},
                                        {"kind.pruner.move.turn_rate", "90"},
                                        {"kind.pruner.sight.remember", "1.25"}});
  EXPECT_EQ(Simulation(game.level()).digest(), Simulation(written).digest());
  EXPECT_EQ(game.value("kind.pruner.sight.range"), 15.0);
  EXPECT_EQ(game.value("kind.pruner.move.turn_rate"), 90.0);
  std::string told;
  Simulation as_written(written);
  std::string first;
  std::string second;
  walk_in(game, 300, first);
  walk_in(as_written, 300, second);
  EXPECT_EQ(first, second);
  EXPECT_NE(first.find("noticed"), std::string::npos);
}

// Also where other values follow from it.
TEST(SetValue, ToWhatItIsChangesNothing) {
  int tried = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level || level->agents.size() > 60) continue;
    Simulation game(*level);
    const std::uint64_t digest = Simulation(game.level()).digest();
    for (std::size_t i = 0; i < level->named_kinds; ++i) {
      const std::string path = "kind." + level->kinds[i].name;
      game.set_value(path + ".radius", game.value(path + ".radius"));
      if (level->kinds[i].sight) {
        game.set_value(path + ".sight.range", game.value(path + ".sight.range"));
      }
      ++tried;
    }
    EXPECT_EQ(Simulation(game.level()).digest(), digest) << seed;
  }
  EXPECT_GT(tried, testing::enough(5));
}

TEST(SetValue, GoesToThoseThatAreLikeItAndHaveTheSameThere) {
  Simulation game(house(R"(
[kind.long_pruner]
like = "pruner"
health = 80
)" + testing::placed("pruner-1", "pruner", "[0, 0]", "sight = { range = 7 }") +
                        testing::placed("pruner-2", "long_pruner", "[0, 3]")));
  game.set_value("kind.pruner.sight.range", 4.0);
  game.set_value("kind.pruner.health", 40.0);
  EXPECT_EQ(game.value("agent.pruner-1.sight.range"), 7.0);  // its own
  EXPECT_EQ(game.value("agent.pruner-2.sight.range"), 4.0);
  EXPECT_EQ(game.value("agent.pruner-1.health"), 40.0);
  EXPECT_EQ(game.value("agent.pruner-2.health"), 80.0);
  EXPECT_EQ(game.state(game.agent("pruner-1")).health, 40.0);
  game.set_value("agent.pruner-2.sight.range", 9.0);
  EXPECT_EQ(game.value("kind.long_pruner.sight.range"), 4.0);
  EXPECT_EQ(game.value("agent.pruner-2.sight.range"), 9.0);
}

TEST(SetValue, RefusesWhatCannotBeAndChangesNothing) {
  Simulation game(one_guest());
  const std::uint64_t digest = game.digest();
  const auto reason = [&](std::string_view path, double value) -> std::string {
    try {
      game.set_value(path, value);
    } catch (const UsageError& error) {
      return error.what();
    }
    return "";
  };
  EXPECT_EQ(reason("kind.pruner.sight.rnage", 3.0),
            "kind.pruner has no number 'sight.rnage'; did you mean 'sight.range'?");
  EXPECT_EQ(reason("kind.prunr.sight.range", 3.0),
            "there is no kind 'prunr'; did you mean 'pruner'?");
  EXPECT_NE(reason("pruner.sight.range", 3.0).find("leads to no value"), std::string::npos);
  EXPECT_NE(reason("kind.pruner.sight.range", -3.0), "");
  EXPECT_NE(reason("kind.pruner.sight.range", 1e300), "");
  EXPECT_NE(reason("kind.pruner.sight.range", std::nan("")), "");
  EXPECT_NE(reason("kind.pruner.attack.shears.ammunition", 1.5), "");
  EXPECT_NE(reason("agent.nobody.health", 1.0), "");
  EXPECT_EQ(game.digest(), digest);
}

}  // namespace
}  // namespace gaze
