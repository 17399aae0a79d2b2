// What a blow does to whom it falls on, whom it spares, and when it is not made at all.

#include <fmt/format.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

/// A sprinkler at the origin with one attack, and a collector so many metres east of it.
std::string firing_range(const std::string& attack, double metres = 6.0,
                         const std::string& more = "") {
  return R"(
[kind.sprinkler]
team = "caretakers"
radius = 0.3
height = 1.0
health = 100
[kind.sprinkler.sight]
range = 60.0
field_of_view = 360.0
[kind.sprinkler.move]
gait = "fixed"
turn_rate = 36000.0
[kind.sprinkler.attack.jet]
damage = 10
cooldown = 100.0
)" + attack +
         R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.0
health = 1000
)" + placed("sprinkler", "sprinkler", "[0.0, 0.0]") +
         fmt::format("[[agent]]\nid = \"collector\"\nkind = \"collector\"\nat = [{}, 0.0]\n",
                     metres) +
         more;
}

const char* const kQuickShot = "how = \"shot\"\nspeed = 600.0\nrange = 20.0\n";

double lost_health(const Simulation& simulation, const char* id) {
  const AgentId agent = simulation.agent(id);
  return simulation.level().kind_of(simulation.level().agents[agent.index]).health -
         simulation.state(agent).health;
}

double lost_of(const std::string& text, const std::vector<Setting>& settings = {},
               const char* who = "collector") {
  Simulation simulation(garden(text, settings));
  play(simulation, 30);
  return lost_health(simulation, who);
}

std::string friend_at(double x) {
  return fmt::format(
      "[kind.gnome]\nteam = \"caretakers\"\nradius = 0.3\nheight = 1.0\nhealth = 1000\n"
      "[[agent]]\nid = \"gnome\"\nkind = \"gnome\"\nat = [{}, 0.0]\n",
      x);
}

class FriendsInTheWay : public ::testing::TestWithParam<const char*> {};

// Passed, or waited for; behind the target they are in nobody's way.
TEST_P(FriendsInTheWay, ArePassedOrSpared) {
  const std::string attack = GetParam();
  EXPECT_EQ(lost_of(firing_range(attack, 6.0, friend_at(3.0))), 10.0);
  EXPECT_EQ(lost_of(firing_range(attack, 6.0, friend_at(3.0)), {}, "gnome"), 0.0);
  for (const char* friends : {"\"stop\"", "\"hurt\""}) {
    const std::vector<Setting> spares{{"kind.sprinkler.attack.jet.friends", friends}};
    EXPECT_EQ(lost_of(firing_range(attack, 6.0, friend_at(3.0)), spares), 0.0) << friends;
    EXPECT_EQ(lost_of(firing_range(attack, 6.0, friend_at(8.0)), spares), 10.0) << friends;
  }
}

INSTANTIATE_TEST_SUITE_P(
    Attacks, FriendsInTheWay,
    ::testing::Values(
        "how = \"shot\"\nspeed = 600.0\nrange = 20.0\n", "how = \"beam\"\nrange = 20.0\n",
        "how = \"shot\"\naim = \"lob\"\nspeed = 40.0\nrange = 20.0\nmuzzle = [0, 0, 0.5]\n"));

TEST(FriendsInTheWayOf, AreNamed) {
  Simulation simulation(
      garden(firing_range(std::string(kQuickShot) + "friends = \"stop\"\n", 6.0, friend_at(3.0))));
  play(simulation, 2);
  const auto answers =
      attacks_at(simulation, simulation.agent("sprinkler"), simulation.agent("collector"));
  EXPECT_EQ(answers[0].reason, "gnome, a friend, is in the way");
}

// Through the collector and on, to a friend behind it who is in nobody's way as it is fired.
TEST(FriendsInTheWayOf, WhatHasBeenFiredAreStruckIfTheyAreNotSpared) {
  const auto hurt = [&](const char* friends, const char* who) {
    return lost_of(
        firing_range(kQuickShot, 6.0, friend_at(8.0)),
        {{"kind.sprinkler.attack.jet.friends", friends}, {"kind.sprinkler.attack.jet.pierce", "1"}},
        who);
  };
  EXPECT_EQ(hurt("\"hurt\"", "gnome"), 10.0);
  EXPECT_EQ(hurt("\"stop\"", "gnome"), 0.0);
  EXPECT_EQ(hurt("\"pass\"", "gnome"), 0.0);
  EXPECT_EQ(hurt("\"hurt\"", "collector"), 10.0);
}

// In its way from the start, it keeps even what is fired straight ahead from being fired.
TEST(FriendsInTheWayOf, WhatIsFiredAheadAreSparedToItsRange) {
  const std::string ahead = std::string(kQuickShot) + "aim = \"ahead\"\nfriends = \"hurt\"\n";
  EXPECT_EQ(lost_of(firing_range(ahead, 6.0, friend_at(20.2))), 0.0);
  EXPECT_EQ(lost_of(firing_range(ahead, 6.0, friend_at(20.4))), 10.0);
}

TEST(Bursts, HurtFriendsOnlyIfTheySpareNone) {
  const std::string burst = "how = \"burst\"\nrange = 9.0\nblast_fall_off = 0.0\n";
  EXPECT_EQ(lost_of(firing_range(burst, 6.0, friend_at(3.0)), {}, "gnome"), 0.0);
  const std::vector<Setting> all{{"kind.sprinkler.attack.jet.friends", "\"hurt\""}};
  EXPECT_EQ(lost_of(firing_range(burst, 6.0, friend_at(3.0)), all, "gnome"), 10.0);
  EXPECT_EQ(lost_of(firing_range(burst, 6.0, friend_at(3.0)), all, "sprinkler"), 0.0);
}

// Hit from the west: whoever faces west takes it from the front.
TEST(SideFactors, CountByTheSideThatIsHit) {
  for (const char* attack :
       {"how = \"strike\"\nrange = 20.0\n", kQuickShot, "how = \"beam\"\nrange = 20.0\n",
        "how = \"burst\"\nrange = 20.0\nblast_fall_off = 0.0\n"}) {
    const auto factor = [&](const char* facing) {
      return lost_of(firing_range(attack), {{"agent.collector.facing", facing},
                                            {"kind.collector.side_factors.front", "0.25"},
                                            {"kind.collector.side_factors.back", "3.0"},
                                            {"kind.collector.side_factors.left", "2.0"},
                                            {"kind.collector.side_factors.right", "0.5"}}) /
             10.0;
    };
    EXPECT_EQ(factor("180"), 0.25) << attack;
    EXPECT_EQ(factor("0"), 3.0) << attack;
    EXPECT_EQ(factor("90"), 2.0) << attack;  // facing north, the west is to its left
    EXPECT_EQ(factor("270"), 0.5) << attack;
  }
}

TEST(SideFactors, OfTheTopCountFromAbove) {
  const auto hurt = [](const char* at) {
    return lost_of(firing_range(kQuickShot), {{"plane", "\"space\""},
                                              {"agent.sprinkler.at", at},
                                              {"agent.collector.at", "[6.0, 0.0, 0.0]"},
                                              {"kind.sprinkler.attack.jet.muzzle", "[0, 0, 0]"},
                                              {"kind.collector.side_factors.top", "5.0"}});
  };
  EXPECT_EQ(hurt("[6.0, 0.0, 5.0]"), 50.0);
  EXPECT_EQ(hurt("[0.0, 0.0, 0.5]"), 10.0);
}

// From half of 20 m on down to a fifth at 20 m: 1 - 0.8 (d / 20 - 0.5) / 0.5.
TEST(FarDamage, FadesEvenlyFromAShareOfTheRange) {
  const std::string fades = "far_damage = 0.2\nfade_from = 0.5\n";
  const auto expected = [](double metres) {
    return 10.0 * (metres <= 10.0 ? 1.0 : 1.0 - 0.8 * (metres / 20.0 - 0.5) / 0.5);
  };
  for (const double metres : {4.0, 10.0, 13.0, 18.0, 20.0}) {
    EXPECT_NEAR(lost_of(firing_range("how = \"strike\"\nrange = 20.0\n" + fades, metres)),
                expected(metres), 1e-9);
    // Shots and beams from the muzzle, in the middle, to the near side of the body.
    for (const char* attack : {"how = \"shot\"\nspeed = 600\nradius = 0.0\nrange = 20.0\n",
                               "how = \"beam\"\nrange = 20.0\n"}) {
      EXPECT_NEAR(lost_of(firing_range(attack + fades, metres)), expected(metres - 0.3), 1e-6)
          << metres;
    }
  }
}

class Healing : public ::testing::TestWithParam<int> {};

// Hurt once at the first step by 10; from 1.5 s later on 4 points a second, up to its health.
TEST_P(Healing, GoesOnFromItsWaitToFull) {
  const int rate = GetParam();
  Simulation simulation(garden(firing_range("how = \"strike\"\nrange = 20.0\n"),
                               {{"ticks_per_second", std::to_string(rate)},
                                {"kind.collector.heals", "4.0"},
                                {"kind.collector.heals_after", "1.5"}}));
  const auto events = play(simulation, rate);
  ASSERT_EQ(only(events, What::hurt).size(), 1U);
  const double hurt_at = testing::seconds_of(only(events, What::hurt)[0], simulation);
  for (int i = 0; i < 5 * rate; ++i) {
    simulation.step();
    const double healed = std::clamp(4.0 * (simulation.seconds() - hurt_at - 1.5), 0.0, 10.0);
    ASSERT_NEAR(lost_health(simulation, "collector"), 10.0 - healed, 1e-6) << simulation.seconds();
  }
  EXPECT_EQ(lost_health(simulation, "collector"), 0.0);
}

INSTANTIATE_TEST_SUITE_P(Rates, Healing, ::testing::Values(20, 60, 240));

TEST(Conditions, OfDistance) {
  const std::string far = "how = \"strike\"\nrange = 20.0\nmin_range = 6.0\n";
  EXPECT_EQ(lost_of(firing_range(far, 6.0)), 10.0);
  EXPECT_EQ(lost_of(firing_range(far, 5.99)), 0.0);
  Simulation simulation(garden(firing_range(far, 5.0)));
  play(simulation, 2);
  const auto answers =
      attacks_at(simulation, simulation.agent("sprinkler"), simulation.agent("collector"));
  EXPECT_DOUBLE_EQ(answers[0].off, 1.0);
  EXPECT_EQ(answers[0].reason, "too near by 1.00 m (5.00 m away, at least 6.00)");
}

// With half of its health or less it has another attack, which takes twice as much.
TEST(Conditions, OfItsOwnHealth) {
  const std::string attack =
      "how = \"strike\"\nrange = 20.0\nat_health = [0.5, 1.0]\n"
      "[kind.sprinkler.attack.flood]\nhow = \"strike\"\nrange = 20.0\ndamage = 20\n"
      "cooldown = 100\nat_health = [0.0, 0.5]\n";
  const std::string thorns =
      "[kind.collector.sight]\nrange = 30\nfield_of_view = 360\n"
      "[kind.collector.attack.thorn]\nhow = \"strike\"\nrange = 30\ndamage = 51\ncooldown = 100\n"
      "wind_up = 0.2\n";
  Simulation simulation(garden(firing_range(attack, 6.0, thorns)));
  play(simulation, 8);
  EXPECT_EQ(lost_health(simulation, "collector"), 10.0);
  play(simulation, 20);
  EXPECT_EQ(lost_health(simulation, "sprinkler"), 51.0);
  EXPECT_EQ(lost_health(simulation, "collector"), 30.0);
}

// A reed that looks east and shoots along its feeler, up and to the left: the shot starts in the
// feeler's own direction.
TEST(Ahead, IsAlongAFeelerIfTheAttackSaysSo) {
  for (const char* plane : {"ground", "upright", "space"}) {
    const bool is_space = std::string(plane) == "space";
    Simulation simulation(garden(
        R"(
[kind.reed]
team = "caretakers"
[kind.reed.feeler.aside]
from = [0.0, 0.0, 1.0]
toward = 40.0
tilt = 20.0
length = 9.0
[kind.reed.attack.thorn]
how = "shot"
aim = "ahead"
along = "aside"
speed = 10.0
range = 9.0
damage = 1
cooldown = 9.0
[[agent]]
id = "reed"
kind = "reed"
at = )" + std::string(is_space ? "[0.0, 0.0, 0.0]" : "[0.0, 0.0]") +
            "\nfacing = 0.0\ndriver = \"host\"\n",
        {{"plane", std::string("\"") + plane + "\""}}));
    simulation.set_aim(simulation.agent("reed"), std::nullopt, true);
    simulation.step();
    ASSERT_EQ(simulation.projectiles().size(), 1U);
    const double degree = 3.14159265358979323846 / 180.0;
    const Vector3d expected =
        std::string(plane) == "upright"
            ? Vector3d{std::cos(60.0 * degree), 0.0, std::sin(60.0 * degree)}
            : Vector3d{std::cos(20.0 * degree) * std::cos(40.0 * degree),
                       std::cos(20.0 * degree) * std::sin(40.0 * degree), std::sin(20.0 * degree)};
    EXPECT_LT((simulation.projectiles()[0].velocity / 10.0 - expected).norm(), 1e-12) << plane;
  }
}

}  // namespace
}  // namespace gaze
