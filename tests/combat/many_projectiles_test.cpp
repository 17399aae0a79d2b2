// The number of projectiles in flight is limited.

#include <gtest/gtest.h>

#include <algorithm>

#include "support/levels.hpp"

namespace gaze {
namespace {

// Fires a thousand drops per millisecond, which stay in the air permanently.
const std::string kFountain =
    "[kind.fountain]\nteam = \"caretakers\"\nradius = 0.3\n"
    "[kind.fountain.sight]\nrange = 50\nfield_of_view = 360\n"
    "[kind.fountain.move]\ngait = \"fixed\"\n"
    "[kind.fountain.attack.drop]\nhow = \"shot\"\nrange = 50\ndamage = 1\ncooldown = 0.001\n"
    "burst = 1000\nburst_interval = 0\nspeed = 0.01\nlifetime = 1000\nspread = 360\n"
    "friends = \"pass\"\n[kind.fountain.when]\nsees = \"chase\"\n"
    "[kind.guest]\nteam = \"visitors\"\nradius = 0.3\n" +
    testing::placed("fountain", "fountain", "[0, 0]") +
    testing::placed("guest", "guest", "[10, 0]");

TEST(ManyProjectiles, AreNotFiredBeyondTheLimit) {
  Simulation simulation(testing::garden(kFountain));
  std::size_t fired = 0;
  std::size_t pulls = 0;
  while (simulation.seconds() < 0.25) {
    simulation.step();
    for (const Event& event : simulation.events()) {
      fired += event.what == Event::What::fired ? 1 : 0;
      pulls += event.what == Event::What::attacked ? 1 : 0;
    }
  }
  EXPECT_EQ(fired, LevelLimits::projectiles);
  EXPECT_EQ(simulation.projectiles().size(), LevelLimits::projectiles);
  EXPECT_GT(pulls, 200U);
  EXPECT_EQ(simulation.projectiles_not_fired(), pulls * 1000 - fired);
}

TEST(ManyProjectiles, AreWarnedOf) {
  const auto warnings = [](const char* lifetime) {
    return testing::findings_of(kFountain, "too-many-projectiles",
                                {{"kind.fountain.attack.drop.lifetime", lifetime}})
        .size();
  };
  EXPECT_EQ(warnings("0.0985"), 0U);  // 99 triggers of 1,000
  EXPECT_EQ(warnings("0.1005"), 1U);  // 101
}

// A trigger fires 10 projectiles per second, up to 1,000. 50 triggers per second: at most 401 * 81
// in 8 s.
TEST(ManyProjectiles, AreWarnedOfWithinTheRunOnly) {
  const auto warnings = [](const char* seconds) {
    return testing::findings_of(kFountain, "too-many-projectiles",
                                {{"kind.fountain.attack.drop.cooldown", "0.02"},
                                 {"kind.fountain.attack.drop.burst_interval", "0.1"},
                                 {"seconds", seconds}})
        .size();
  };
  EXPECT_EQ(warnings("8"), 0U);
  EXPECT_EQ(warnings("60"), 1U);  // 3,001 * 601
}

}  // namespace
}  // namespace gaze
