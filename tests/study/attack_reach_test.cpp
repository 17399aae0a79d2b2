#include "gaze/tools/attack_reach.hpp"

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::placed;
constexpr double kPi = 3.14159265358979323846;

std::string lawn(const std::string& attack, const std::string& move = "",
                 const std::string& more = "") {
  return R"(
[kind.sprinkler]
team = "caretakers"
radius = 0.3
height = 1.0
[kind.sprinkler.move]
gait = "fixed"
)" + move +
         R"(
[kind.sprinkler.attack.jet]
cooldown = 1.0
)" + attack +
         R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.0
)" + block("post-1", "[[-9.0, -9.0], [-8.9, -9.0], [-8.9, -8.9]]") +
         block("post-2", "[[9.0, 9.0], [8.9, 9.0], [8.9, 8.9]]") +
         placed("sprinkler", "sprinkler", "[0.0, 0.0]") +
         placed("collector", "collector", "[6.0, 0.0]") + more;
}

double area_of(const std::string& text, const std::vector<Setting>& settings = {}) {
  const Simulation simulation(testing::garden(text, settings));
  FloorOptions options;
  options.radius = 0.0;
  options.spot_size = 0.05;
  const FreeFloor floor = free_floor(simulation.level(), simulation.world(), options);
  const Kind& victim = simulation.level().kinds[1];
  return attack_reach(simulation, simulation.agent("sprinkler"), victim, floor)[0].area;
}

// Discs, rings and sectors of the plan, by their formulas; spots of 5 cm tell them to a hundredth.
TEST(AttackReach, IsTheDiscWithinRange) {
  const std::string strike = "how = \"strike\"\ndamage = 1\nrange = 5.0\n";
  EXPECT_NEAR(area_of(lawn(strike)) / (kPi * 25.0), 1.0, 0.01);
  EXPECT_NEAR(area_of(lawn(strike + "min_range = 3.0\n")) / (kPi * 16.0), 1.0, 0.01);
  EXPECT_NEAR(area_of(lawn("how = \"beam\"\ndamage = 1\nrange = 5.0\n")) / (kPi * 25.0), 1.0, 0.01);
  EXPECT_NEAR(area_of(lawn("how = \"catch\"\n")) / (kPi * 0.36), 1.0, 0.05);
}

TEST(AttackReach, IsTheSectorThatItCanTurnTo) {
  const std::string strike = "how = \"strike\"\ndamage = 1\nrange = 5.0\narc = 20.0\n";
  const double sector = kPi * 25.0 / 360.0;
  EXPECT_NEAR(area_of(lawn(strike, "turn_limits = [-30.0, 45.0]\n")) / (95.0 * sector), 1.0, 0.01);
  EXPECT_NEAR(area_of(lawn(strike, "turn_rate = 0.0\n")) / (20.0 * sector), 1.0, 0.02);
}

// A lob of speed v comes down within R = v sqrt(v^2 + 2 g h) / g, h below its muzzle.
TEST(AttackReach, OfALobEndsWhereItsArcsEnd) {
  const std::string lob =
      "how = \"shot\"\ndamage = 1\naim = \"lob\"\nspeed = 6.0\nrange = 20.0\nradius = 0.0\n"
      "muzzle = [0.0, 0.0, 1.5]\n";
  const double reach = 6.0 * std::sqrt(36.0 + 2.0 * 9.81 * 1.0) / 9.81;
  EXPECT_NEAR(area_of(lawn(lob)) / (kPi * reach * reach), 1.0, 0.01);
}

// Half of the disc lies behind the wall; what flies over it reaches that too.
TEST(AttackReach, EndsAtWhatStandsInTheWay) {
  const std::string wall =
      "[[wall]]\nid = \"wall\"\nmaterial = \"brick\"\nthickness = 0.02\nheight = 0.9\n"
      "path = [[0.5, -9.0], [0.5, 9.0]]\n";
  const std::string shot = "how = \"shot\"\ndamage = 1\nspeed = 20.0\nrange = 5.0\nradius = 0.0\n";
  const double half = 0.5 * std::sqrt(25.0 - 0.25) + 25.0 * std::asin(0.1);
  EXPECT_NEAR(area_of(lawn(shot, "", wall)) / (kPi * 12.5 + half), 1.0, 0.01);
  EXPECT_NEAR(area_of(lawn(shot, "", wall), {{"wall.wall.height", "0.4"}}) / (kPi * 25.0), 1.0,
              0.01);
}

// What is fired ahead covers a strip as wide as both together, from the muzzle on.
TEST(AttackReach, OfWhatIsFiredAheadIsAStrip) {
  const std::string ahead =
      "how = \"shot\"\ndamage = 1\naim = \"ahead\"\naim_tolerance = 180\nspeed = 20.0\nrange = "
      "5.0\n"
      "radius = 0.1\n";
  const double area = area_of(lawn(ahead, "turn_rate = 0.0\n"));
  // To where the middle is 5 m away, 0.8 m wide, and half a disc about the muzzle behind it.
  EXPECT_NEAR(area / (5.0 * 0.8 + kPi * 0.16 / 2.0), 1.0, 0.03);
}

TEST(ClearArea, IsADiscLessItsShadow) {
  const Level level = testing::garden(
      "[[wall]]\nid = \"wall\"\nmaterial = \"glass\"\nthickness = 0.02\n"
      "path = [[1.01, -9.0], [1.01, 9.0]]\n[material.glass]\nstops = [\"bodies\", \"shots\"]\n");
  const World world(level);
  const SeenArea clear = clear_area(world, {0.0, 0.0, 0.5}, 2.0, Stops::shots);
  // The disc of 2 m less the part beyond x = 1: r^2 acos(1/2) - sqrt(3).
  EXPECT_NEAR(clear.area(), kPi * 4.0 - (4.0 * kPi / 3.0 - std::sqrt(3.0)), 1e-6);
  EXPECT_NEAR(clear_area(world, {0.0, 0.0, 0.5}, 2.0, Stops::sight).area(), kPi * 4.0, 1e-9);
}

}  // namespace
}  // namespace gaze
