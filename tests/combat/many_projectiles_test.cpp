// Memory stays bounded whatever a level fires.

#include <gtest/gtest.h>

#include <algorithm>

#include "support/levels.hpp"

namespace gaze {
namespace {

// A thousand drops a millisecond, which stay in the air for good.
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
  const auto told = [](const char* lifetime) {
    return testing::findings_of(kFountain, "too-many-projectiles",
                                {{"kind.fountain.attack.drop.lifetime", lifetime}})
        .size();
  };
  EXPECT_EQ(told("0.0985"), 0U);  // 99 pulls of 1,000
  EXPECT_EQ(told("0.1005"), 1U);  // 101
}

}  // namespace
}  // namespace gaze
