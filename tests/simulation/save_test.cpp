#include <fmt/format.h>
#include <gtest/gtest.h>

#include <array>
#include <filesystem>

#include "fuzz/level_writer.hpp"
#include "scenes.hpp"
#include "support/allocations.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

const char* const kDemo[] = {"propagation_house", "sense_rooms", "terraces", "root_cellar",
                             "proving_ground"};

Level demo(const std::string& name) {
  return read_level(std::filesystem::path(GAZE_SOURCE) / "demo" / (name + ".toml"));
}

// What a host can tell of a game, number for number.
std::string all_that_shows(const Simulation& simulation) {
  std::string text;
  for (std::uint32_t who = 0; who < simulation.agent_count(); ++who) {
    const AgentState state = simulation.state({who});
    text += fmt::format("{} {:a} {:a} {:a} {:a} {} {};", who, state.position.x(),
                        state.position.y(), state.position.z(), state.health, name_of(state.mode),
                        state.target ? state.target->index : 0);
  }
  for (const Event& event : simulation.events()) text += simulation.describe(event) + "\n";
  for (const Projectile& shot : simulation.projectiles()) {
    text += fmt::format("{} {:a} {};", shot.number, shot.position.x(), shot.attack);
  }
  return text;
}

void go_on_alike(Simulation one, Simulation other, int steps) {
  for (int step = 0; step < steps; ++step) {
    one.step();
    other.step();
    ASSERT_EQ(all_that_shows(one), all_that_shows(other)) << one.tick();
  }
  ASSERT_EQ(one.digest(), other.digest());
}

// At any moment of the demo levels: a game that has just begun, or has gone elsewhere, goes on from
// a save as the saved one does.
TEST(Save, RestoredGoesOnAsTheGameThatWasSaved) {
  scenes::Random random(31);
  const std::uint64_t moments = testing::rounds(200);
  for (const char* name : kDemo) {
    Simulation played(demo(name));
    Simulation restored(demo(name));
    for (std::uint64_t i = 0; i < moments; ++i) {
      const auto steps = 1 + random.next() % 15;
      for (std::uint64_t step = 0; step < steps; ++step) played.step();
      const auto save = played.save();
      restored.restore(save);
      ASSERT_EQ(played.digest(), restored.digest()) << name << " at " << played.tick();
      ASSERT_EQ(save, restored.save()) << name << " at " << played.tick();
      ASSERT_EQ(all_that_shows(played), all_that_shows(restored));
      go_on_alike(played, restored, 6);
    }
    go_on_alike(played, restored, 300);
  }
}

TEST(Save, OfRandomLevelsGoesOnAlike) {
  int count = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(120); ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level || level->agents.size() > 100) continue;
    ++count;
    Simulation played(*level);
    for (int step = 0; step < 45; ++step) played.step();
    Simulation restored(*level);
    restored.restore(played.save());
    go_on_alike(played, restored, 45);
  }
  EXPECT_GE(count, testing::enough(80));
}

// What the host has done is saved as well: noises with names of its own, poses, time left over.
TEST(Save, HoldsWhatTheHostHasDone) {
  const Level level = read_level_text(
      std::string(testing::kTeams) +
          "[kind.pruner]\nteam = \"caretakers\"\nhearing = { range = 20 }\n"
          "when.hears = \"investigate\"\nmove.speed = 2\n[kind.guest]\nteam = \"visitors\"\n" +
          testing::placed("pruner-1", "pruner", "[0, 0]") +
          testing::placed("guest", "guest", "[8, 0]", "driver = \"host\""),
      "host.toml");
  Simulation played(level);
  played.make_noise({4.0, 3.0, 0.0}, 10.0, "whistle");
  played.set_pose(played.agent("guest"), {7.0, 1.0, 0.0}, Angle::from_degrees(90.0));
  played.advance(0.53);
  Simulation restored(level);
  restored.restore(played.save());
  EXPECT_EQ(restored.state({0}).goes_by->noise, "whistle");
  EXPECT_EQ(restored.advance(0.01).steps, played.advance(0.01).steps);
  go_on_alike(played, restored, 200);
}

std::string refusal(Simulation& simulation, const std::vector<std::byte>& save) {
  const std::uint64_t before = simulation.digest();
  try {
    simulation.restore(save);
  } catch (const SaveError& error) {
    EXPECT_EQ(simulation.digest(), before);
    return error.what();
  }
  return "";
}

TEST(Save, ThatIsDamagedOrForeignIsRefusedWithAReason) {
  Simulation house(demo("propagation_house"));
  for (int step = 0; step < 400; ++step) house.step();
  const auto save = house.save();
  Simulation cellar(demo("root_cellar"));
  EXPECT_EQ(refusal(cellar, save), "a save of another level than 'Root cellar'");
  EXPECT_EQ(refusal(house, {}), "0 bytes that are no save");
  auto short_one = save;
  short_one.pop_back();
  EXPECT_EQ(refusal(house, short_one), fmt::format("a damaged save: it has {} bytes of {}",
                                                   save.size() - 37, save.size() - 36));
  auto later = save;
  const int version = std::to_integer<int>(save[8]);
  later[8] = static_cast<std::byte>(version + 1);
  EXPECT_EQ(
      refusal(house, later),
      fmt::format("a save of version {}; this library reads version {}", version + 1, version));
  scenes::Random random(5);
  for (std::uint64_t i = 0; i < testing::rounds(2000); ++i) {
    auto damaged = save;
    damaged[random.next() % damaged.size()] ^= static_cast<std::byte>(1 + random.next() % 255);
    ASSERT_NE(refusal(house, damaged), "");
  }
  EXPECT_EQ(refusal(house, save), "");
}

// A save whose digest fits though its bytes were changed: FNV-1a of 64 bits over all after the
// head.
void sign(std::vector<std::byte>& save) {
  constexpr std::size_t kHead = 36;
  std::uint64_t digest = 0xCBF29CE484222325ULL;
  for (std::size_t i = kHead; i < save.size(); ++i) {
    digest = (digest ^ static_cast<std::uint64_t>(save[i])) * 0x100000001B3ULL;
  }
  for (std::size_t i = 0; i < 8; ++i) {
    save[kHead - 8 + i] = static_cast<std::byte>(digest >> (8 * i) & 0xFFU);
  }
}

// A crafted save is refused, or the game can be read, played and saved again.
TEST(Save, ThatIsCraftedIsRefusedOrPlayed) {
  scenes::Random random(17);
  std::uint64_t played = 0;
  std::uint64_t refused = 0;
  const std::array levels{"propagation_house", "proving_ground", "root_cellar", "terraces"};
  for (const char* name : levels) {
    Simulation game(demo(name));
    for (int step = 0; step < 500; ++step) game.step();
    const auto save = game.save();
    auto signed_anew = save;
    sign(signed_anew);
    ASSERT_EQ(signed_anew, save) << "the test reckons the digest as the library does";
    for (std::uint64_t i = 0; i < testing::rounds(800); ++i) {
      auto crafted = save;
      for (std::uint64_t changes = 1 + random.next() % 3; changes > 0; --changes) {
        std::byte& one = crafted[36 + random.next() % (crafted.size() - 36)];
        const std::byte odd[] = {std::byte{0}, std::byte{0xFF}, std::byte{0x7F}, std::byte{0x80}};
        one =
            random.next() % 2 == 0 ? odd[random.next() % 4] : static_cast<std::byte>(random.next());
      }
      sign(crafted);
      Simulation other(game);
      try {
        other.restore(crafted);
      } catch (const SaveError&) {
        ++refused;
        continue;
      }
      ++played;
      for (int step = 0; step < 20; ++step) {
        for (const Event& event : other.events()) static_cast<void>(other.describe(event));
        other.step();
      }
      static_cast<void>(other.save());
    }
  }
  EXPECT_GE(played, testing::enough(500U));
  EXPECT_GE(refused, testing::enough(100U));
}

TEST(Save, OfAThousandAgentsTakesLessThanAMegabyte) {
  Level level = scenes::make_scene(200, 60.0, 5);
  scenes::add_chasers(level, 1000, 6);
  Simulation simulation(level);
  for (int step = 0; step < 300; ++step) simulation.step();
  EXPECT_LT(simulation.save().size(), std::size_t{1} << 20U);
}

TEST(Save, OfCopiesAndTheirDigestsAreThoseOfTheGame) {
  Simulation simulation(demo("proving_ground"));
  for (int step = 0; step < 100; ++step) simulation.step();
  const Simulation copy = simulation;
  EXPECT_EQ(copy.digest(), simulation.digest());
  EXPECT_EQ(copy.save(), simulation.save());
  simulation.step();
  EXPECT_NE(copy.digest(), simulation.digest());
}

// Going back ten ticks each frame: the copies are written over and over.
TEST(Assignment, OverAnOldCopyAsksForNoMemory) {
  Level level = scenes::make_scene(100, 40.0, 5);
  scenes::add_chasers(level, 50, 6);
  Simulation simulation(level);
  std::vector<Simulation> ring(10, simulation);
  std::size_t tick = 0;
  for (; tick < 3000; ++tick) {
    simulation.step();
    ring[tick % 10] = simulation;
  }
  const std::size_t before = testing::allocations();
  for (; tick < 3200; ++tick) {
    simulation.step();
    ring[tick % 10] = simulation;
  }
  EXPECT_EQ(testing::allocations() - before, 0U);
  EXPECT_EQ(ring[(tick - 1) % 10].digest(), simulation.digest());
}

}  // namespace
}  // namespace gaze
