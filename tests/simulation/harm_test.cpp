// Attacks as they are played: when they are made, what they hit and what that does.

#include <fmt/format.h>

#include <array>
#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

/// A lobber at the origin that sees all round, and a collector that stands 6 m east of it.
std::string range(const std::string& attack, const std::string& more = "",
                  const std::string& collector = "") {
  return R"(
[kind.lobber]
team = "caretakers"
radius = 0.3
height = 1.0
[kind.lobber.sight]
range = 60.0
field_of_view = 360.0
[kind.lobber.move]
gait = "fixed"
turn_rate = 36000.0
[kind.lobber.attack.pod]
range = 60.0
)" + attack +
         R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.0
health = 1000000
)" + collector +
         R"(
[kind.collector.move]
speed = 2.0
)" + placed("lobber", "lobber", "[0.0, 0.0]") +
         placed("collector", "collector", "[6.0, 0.0]") + more;
}

const std::string kShot = "how = \"shot\"\nspeed = 14.0\ndamage = 10\ncooldown = 100.0\n";

double lost(const Simulation& simulation, std::string_view id) {
  const AgentId agent = simulation.agent(id);
  return simulation.level().kind_of(simulation.level().agents[agent.index]).health -
         simulation.state(agent).health;
}

class AimedShots : public ::testing::TestWithParam<std::tuple<const char*, int>> {};

// It walks somewhere at an even speed; what is aimed at where it will be hits it within its radius.
TEST_P(AimedShots, HitWhoKeepsItsCourse) {
  const auto& [aim, rate] = GetParam();
  scenes::Random random(7);
  int hits = 0;
  for (int i = 0; i < 40; ++i) {
    const double x = random.between(3.0, 8.0);
    const double y = random.between(-6.0, 6.0);
    const std::string script =
        fmt::format("[{{ go = [{:.3f}, {:.3f}] }}]", x + random.between(-30.0, 30.0), y + 40.0);
    Simulation simulation(garden(range(kShot + "lifetime = 10.0\naim = \"" + aim + "\"\n"),
                                 {{"agent.collector.at", fmt::format("[{:.3f}, {:.3f}]", x, y)},
                                  {"agent.collector.script", script},
                                  {"ticks_per_second", std::to_string(rate)}}));
    const auto events = play(simulation, 4 * rate);
    ASSERT_EQ(only(events, What::fired).size(), 1U) << i;
    for (const Event& hit : only(events, What::hit)) hits += hit.other.has_value() ? 1 : 0;
  }
  EXPECT_EQ(hits, 40);
}

INSTANTIATE_TEST_SUITE_P(Aims, AimedShots,
                         ::testing::Combine(::testing::Values("lead", "lob", "high lob"),
                                            ::testing::Values(20, 60, 240)));

TEST(AimedShots, OverAWallOnlyInAnArc) {
  const std::string wall =
      "[[wall]]\nid = \"wall\"\nmaterial = \"brick\"\nheight = 1.5\n"
      "path = [[3.0, -5.0], [3.0, 5.0]]\n[material.glass]\nstops = [\"bodies\", \"shots\"]\n";
  const auto fired = [&](const std::string& aim) {
    Simulation simulation(garden(range(kShot + "lifetime = 10.0\naim = \"" + aim + "\"\n", wall),
                                 {{"wall.wall.material", "\"glass\""}}));
    return only(play(simulation, 200), What::fired).size();
  };
  EXPECT_EQ(fired("direct"), 0U);
  EXPECT_EQ(fired("lob"), 0U);  // the low arc is about as low as the wall
  EXPECT_EQ(fired("high lob"), 1U);
}

class Magazines : public ::testing::TestWithParam<int> {};

// Pulls every 2 s, three shots each from 0.4 s after it on, 0.1 s apart; after twelve 3 s to
// reload. By a list of times made without the simulation.
TEST_P(Magazines, FireAsOftenAsTheirNumbersSay) {
  const int rate = GetParam();
  Simulation simulation(garden(
      range("how = \"shot\"\nspeed = 14.0\ndamage = 1\ncooldown = 2.0\nwind_up = 0.4\nburst = 3\n"
            "burst_interval = 0.1\nammunition = 12\nreload = 3.0\n"),
      {{"ticks_per_second", std::to_string(rate)}}));
  std::vector<int> expected;  // milliseconds after the first pull
  for (int pull = 0, left = 12; pull < 60'000;) {
    for (int shot = 0; shot < 3; ++shot) expected.push_back(pull + 400 + 100 * shot);
    left -= 3;
    const int reloaded = pull + 600 + 3000;
    pull = left == 0 ? std::max(pull + 2000, reloaded) : pull + 2000;
    if (left == 0) left = 12;
  }
  const auto fired = only(play(simulation, 40 * rate), What::fired);
  std::size_t until = 0;
  const int first = 1000 / rate;  // noticed at tick 0, pulled at tick 1
  while (expected[until] + first <= 40'000) ++until;
  ASSERT_EQ(fired.size(), until) << rate;
  for (std::size_t i = 0; i < until; ++i) {
    const double due = expected[i] / 1000.0 + 1.0 / rate;
    const double at = static_cast<double>(fired[i].tick) / rate;
    EXPECT_GE(at, due - 1e-9) << i;
    EXPECT_LT(at, due + 1.0 / rate) << i;
  }
}

INSTANTIATE_TEST_SUITE_P(Rates, Magazines, ::testing::Values(20, 50, 100, 250));

TEST(Magazines, WithoutReloadAreEmptyForEver) {
  Simulation simulation(
      garden(range("how = \"shot\"\nspeed = 14.0\ndamage = 1\ncooldown = 0.1\nammunition = 5\n")));
  EXPECT_EQ(only(play(simulation, 600), What::fired).size(), 5U);
}

// Who steps out of reach while the blow is being wound up is not hit.
TEST(WindUp, LetsBlowsMiss) {
  const std::string strike = "how = \"strike\"\ndamage = 5\ncooldown = 100.0\nwind_up = 0.5\n";
  for (const bool walks : {false, true}) {
    Simulation simulation(garden(range(strike, walks ? "script = [{ go = [9.0, 0.0] }]\n" : ""),
                                 {{"kind.lobber.attack.pod.range", "6.5"}}));
    const auto events = play(simulation, 60);
    EXPECT_EQ(only(events, What::attacked).size(), 1U);
    EXPECT_EQ(only(events, What::hit).size(), walks ? 0U : 1U);
    if (!walks) {
      EXPECT_EQ(only(events, What::hit)[0].tick, 1 + 30);
    }
  }
}

// In a ground level the angle is evenly distributed and the shots stay level: the mean of cos(turn)
// over [-30, 30] degrees is sin(30) / (pi / 6).
TEST(Spread, StaysInThePlaneOfAGroundLevel) {
  Simulation simulation(garden(range("how = \"shot\"\nspeed = 14.0\ndamage = 0\ncooldown = "
                                     "0.002\nspread = 60.0\nlifetime = 0.1\n"
                                     "muzzle = [0.0, 0.0, 0.5]\n"),
                               {{"agent.collector.at", "[50.0, 0.0]"}}));
  double sum = 0.0;
  double widest = 1.0;
  int count = 0;
  for (int tick = 0; tick < 240; ++tick) {
    simulation.step();
    for (const Projectile& projectile : simulation.projectiles()) {
      EXPECT_EQ(projectile.velocity.z(), 0.0);
      sum += projectile.velocity.x() / 14.0;
      widest = std::min(widest, projectile.velocity.x() / 14.0);
      ++count;
    }
  }
  EXPECT_GT(count, 5000);
  EXPECT_GE(widest, std::cos(M_PI / 6.0) - 1e-12);
  EXPECT_LT(widest, std::cos(M_PI / 6.0) + 0.01);
  EXPECT_NEAR(sum / count, 0.5 / (M_PI / 6.0), 0.003);
}

// At 360 degrees each heading is as likely as any other: a twelfth of them in each twelfth of a
// turn.
TEST(Spread, OfAWholeTurnIsARandomHeading) {
  Simulation simulation(garden(range("how = \"shot\"\naim = \"ahead\"\nspeed = 14.0\ndamage = 0\n"
                                     "cooldown = 0.002\nspread = 360.0\nlifetime = 0.1\n"
                                     "muzzle = [0.0, 0.0, 0.5]\n"),
                               {{"agent.collector.at", "[50.0, 0.0]"}}));
  std::array<int, 12> twelfths{};
  int count = 0;
  for (int tick = 0; tick < 600; ++tick) {
    simulation.step();
    for (const Projectile& projectile : simulation.projectiles()) {
      EXPECT_NEAR(projectile.velocity.norm(), 14.0, 1e-12);
      EXPECT_EQ(projectile.velocity.z(), 0.0);
      const double turn =
          std::atan2(projectile.velocity.y(), projectile.velocity.x()) / (2.0 * M_PI);
      ++twelfths[static_cast<std::size_t>((turn + 0.5) * 12.0) % 12];
      ++count;
    }
  }
  ASSERT_GT(count, 10'000);
  for (const int twelfth : twelfths) EXPECT_NEAR(twelfth, count / 12.0, count * 0.01);
}

TEST(Spread, FillsItsConeEvenly) {
  Simulation simulation(garden(range("how = \"shot\"\nspeed = 14.0\ndamage = 0\ncooldown = "
                                     "0.002\nspread = 60.0\nspread_rises = true\nlifetime = 0.1\n"
                                     "muzzle = [0.0, 0.0, 0.5]\n"),
                               {{"agent.collector.at", "[50.0, 0.0]"}}));
  double sum = 0.0;
  double widest = 1.0;
  double left = 0.0;
  int count = 0;
  for (int tick = 0; tick < 240; ++tick) {
    simulation.step();
    for (const Projectile& projectile : simulation.projectiles()) {
      const Vector3d way = projectile.velocity / 14.0;
      EXPECT_NEAR(way.norm(), 1.0, 1e-12);
      sum += way.x();
      left += way.y() > 0.0 ? 1.0 : 0.0;
      widest = std::min(widest, way.x());
      ++count;
    }
  }
  const double rim = std::cos(M_PI / 6.0);
  EXPECT_GT(count, 5000);
  EXPECT_GE(widest, rim - 1e-12);
  EXPECT_LT(widest, rim + 0.01);
  EXPECT_NEAR(sum / count, (1.0 + rim) / 2.0, 0.003);  // evenly along the axis
  EXPECT_NEAR(left / count, 0.5, 0.03);
}

TEST(Bounces, ComeBackWithLessSpeedAndNeverWithMore) {
  Simulation simulation(garden(
      range(
          "how = \"shot\"\nspeed = 10.0\nradius = 0.1\ndamage = 0\ncooldown = 100.0\nbounces = 3\n"
          "bounce_loss = 0.4\nlifetime = 9.0\ngravity_share = 1.0\naim = \"ahead\"\n"
          "noise_reach = 5.0\n",
          "[[wall]]\nid = \"wall\"\nmaterial = \"trellis\"\npath = [[9.0, -5.0], [9.0, 5.0]]\n"
          "[material.trellis]\nstops = [\"shots\"]\n"),
      {{"agent.collector.at", "[6.0, 3.0]"},
       {"agent.lobber.sight.range", "60"},
       {"kind.lobber.attack.pod.aim_tolerance", "180"},
       {"kind.lobber.move.turn_rate", "0"}}));
  double energy = 1e9;
  std::size_t hits = 0;
  for (int tick = 0; tick < 400; ++tick) {
    simulation.step();
    hits += only({simulation.events().begin(), simulation.events().end()}, What::hit).size();
    if (simulation.projectiles().empty()) continue;
    const Projectile& ball = simulation.projectiles()[0];
    const double now = ball.velocity.squaredNorm() / 2.0 + 9.81 * ball.position.z();
    EXPECT_LE(now, energy + 1e-4) << tick;  // what is put between ball and wall after a bounce
    EXPECT_GE(ball.position.z(), 0.1 - 1e-9);
    energy = now;
  }
  EXPECT_EQ(hits, 4U);  // three bounces and the end
}

// 3 m a second off a wall: 40 % of the speed is lost.
TEST(Bounces, AreMirroredInWhatTheyHit) {
  Simulation simulation(garden(
      range("how = \"shot\"\nspeed = 5.0\nradius = 0.1\ndamage = 0\ncooldown = 100.0\nbounces = 1\n"
            "bounce_loss = 0.4\nlifetime = 9.0\naim = \"ahead\"\naim_tolerance = 180\n",
            "[[block]]\nid = \"wedge\"\nmaterial = \"brick\"\n"
            "outline = [[4.0, -3.0], [7.0, 0.0], [4.0, 3.0], [5.0, 0.0]]\n"),
      {{"agent.collector.at", "[-6.0, 3.0]"},
       {"agent.lobber.at", "[0.0, 1.5]"},
       {"kind.lobber.move.turn_rate", "0"}}));
  play(simulation, 90);
  ASSERT_EQ(simulation.projectiles().size(), 1U);
  // The face from [5, 0] to [4, 3] looks along (-3, -1) / sqrt(10).
  const Vector3d normal = Vector3d(-3.0, -1.0, 0.0) / std::sqrt(10.0);
  const Vector3d before{5.0, 0.0, 0.0};
  const Vector3d expected = 0.6 * (before - 2.0 * before.dot(normal) * normal);
  EXPECT_NEAR((simulation.projectiles()[0].velocity - expected).norm(), 0.0, 1e-9);
}

std::string row_of_three() {
  std::string text;
  for (const int x : {8, 10}) {
    text += fmt::format("[[agent]]\nid = \"c{}\"\nkind = \"collector\"\nat = [{}, 0]\n", x, x);
  }
  return text;
}

TEST(Pierce, PassesThroughSoManyAndHurtsEachOnce) {
  Simulation simulation(garden(range(kShot + "pierce = 1\n", row_of_three())));
  play(simulation, 60);
  EXPECT_EQ(lost(simulation, "collector"), 10.0);
  EXPECT_EQ(lost(simulation, "c8"), 10.0);
  EXPECT_EQ(lost(simulation, "c10"), 0.0);
}

// It ends at the skin of the first, 0.05 m before it; the second's skin is 2 m beyond that.
TEST(Blasts, FallOffAndAreShielded) {
  const std::string blast = kShot + "blast_radius = 4.0\n";
  const std::string friendly =
      "[[agent]]\nid = \"friend\"\nkind = \"lobber\"\nat = [6.0, 1.0]\nsight.range = 0.1\n";
  Simulation open(garden(range(blast, row_of_three() + friendly)));
  const auto events = play(open, 60);
  ASSERT_EQ(only(events, What::blast).size(), 1U);
  EXPECT_NEAR(only(events, What::blast)[0].place.x(), 5.65, 1e-9);
  EXPECT_NEAR(lost(open, "collector"), 10.0 * (1.0 - 0.05 / 4.0), 1e-9);
  EXPECT_NEAR(lost(open, "c8"), 10.0 * (1.0 - 2.05 / 4.0), 1e-9);
  EXPECT_EQ(lost(open, "c10"), 0.0);
  EXPECT_EQ(lost(open, "friend"), 0.0);
  EXPECT_EQ(lost(open, "lobber"), 0.0);
  Simulation even(garden(range(blast + "blast_fall_off = 0.0\n", row_of_three())));
  play(even, 60);
  EXPECT_NEAR(lost(even, "c8"), 10.0, 1e-9);
  Simulation shielded(
      garden(range(blast, row_of_three() + "[[wall]]\nid = \"pane\"\nmaterial = \"glass\"\n"
                                           "path = [[7.0, -3.0], [7.0, 3.0]]\n"
                                           "[material.glass]\nstops = [\"bodies\", \"shots\"]\n")));
  play(shielded, 60);
  EXPECT_GT(lost(shielded, "collector"), 0.0);
  EXPECT_EQ(lost(shielded, "c8"), 0.0);
}

TEST(Bursts, HurtAllAroundWhoMakesThem) {
  Simulation simulation(
      garden(range("how = \"burst\"\ndamage = 20\ncooldown = 100.0\n",
                   "[[agent]]\nid = \"behind\"\nkind = \"collector\"\nat = [-3.0, 0.0]\n"),
             {{"kind.lobber.attack.pod.range", "6.5"}}));
  play(simulation, 10);
  EXPECT_NEAR(lost(simulation, "collector"), 20.0 * (1.0 - 5.7 / 6.5), 1e-9);
  EXPECT_NEAR(lost(simulation, "behind"), 20.0 * (1.0 - 2.7 / 6.5), 1e-9);
  EXPECT_EQ(lost(simulation, "lobber"), 0.0);
}

// By friction of 10 m/s2 a push of v goes v^2 / 20 far; what is twice as heavy gets half of v.
TEST(Push, MovesAwayAndStopsByFriction) {
  for (const int rate : {20, 60, 240}) {
    for (const double mass : {1.0, 2.0}) {
      Simulation simulation(
          garden(range(kShot + "push = 4.0\n"), {{"ticks_per_second", std::to_string(rate)},
                                                 {"kind.collector.mass", std::to_string(mass)}}));
      play(simulation, 3 * rate);
      const double v = 4.0 / mass;
      EXPECT_NEAR(simulation.state(simulation.agent("collector")).position.x(), 6.0 + v * v / 20.0,
                  1e-9)
          << rate;
    }
  }
}

TEST(Damage, IsWhatIsLostByKindOfItAndGrace) {
  const std::string often =
      "how = \"shot\"\nspeed = 14.0\ndamage = 10\ncooldown = 0.1\ndamage_kind = \"water\"\n";
  Simulation plain(garden(range(often)));
  double sum = 0.0;
  for (const Event& hurt : only(play(plain, 300), What::hurt)) sum += hurt.damage;
  EXPECT_NEAR(sum, lost(plain, "collector"), 1e-9);
  Simulation resisting(garden(range(often, "", "[kind.collector.resist]\nwater = 0.75\n")));
  play(resisting, 300);
  EXPECT_NEAR(lost(resisting, "collector"), 0.25 * sum, 1e-9);
  // At most one in each half second: hits come every tenth of a second.
  Simulation sparing(garden(range(often, "", "grace = 0.5\n")));
  const auto hurts = only(play(sparing, 300), What::hurt);
  ASSERT_GT(hurts.size(), 5U);
  for (std::size_t i = 1; i < hurts.size(); ++i) EXPECT_EQ(hurts[i].tick - hurts[i - 1].tick, 30);
}

// Who stands on it hurts it; who stands beside it is hurt.
TEST(Touches, HurtBySide) {
  const std::string garden_of_touch = R"(
ground_height = 0.0
plane = "space"
[kind.sweeper]
team = "caretakers"
radius = 0.4
height = 0.5
[kind.sweeper.attack.bump]
how = "touch"
sides = ["front", "back", "left", "right"]
damage = 3
cooldown = 0.5
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.7
[kind.collector.attack.stomp]
how = "touch"
sides = ["bottom"]
damage = 7
cooldown = 1.0
)" + placed("sweeper", "sweeper", "[0.0, 0.0, 0.0]") +
                                      R"(
[[agent]]
id = "collector"
kind = "collector"
driver = "host"
)";
  Simulation beside(garden(garden_of_touch + "at = [0.7, 0.0, 0.0]\n"));
  play(beside, 31);  // at once, and after half a second
  EXPECT_EQ(lost(beside, "collector"), 6.0);
  EXPECT_EQ(lost(beside, "sweeper"), 0.0);
  Simulation above(garden(garden_of_touch + "at = [0.1, 0.0, 0.5]\n"));
  play(above, 31);
  EXPECT_EQ(lost(above, "collector"), 0.0);
  EXPECT_EQ(lost(above, "sweeper"), 7.0);
}

// Its damage is spread over the time it stays on, at any rate; nothing passes glass.
TEST(Beams, HurtWhileTheyAreOn) {
  const std::string beam =
      "how = \"beam\"\ndamage = 12\ncooldown = 2.0\nhold = 0.5\nthickness = 0.1\n";
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(range(beam), {{"ticks_per_second", std::to_string(rate)}}));
    play(simulation, 3 * rate / 10 + 1);
    EXPECT_NEAR(lost(simulation, "collector"), 7.2, 1e-7) << rate;
    EXPECT_EQ(only(play(simulation, rate), What::hit).size(), 0U);  // told when it began
    EXPECT_NEAR(lost(simulation, "collector"), 12.0, 1e-7) << rate;
  }
  Simulation blocked(garden(range(beam,
                                  "[[wall]]\nid = \"pane\"\nmaterial = \"glass\"\n"
                                  "path = [[3.0, -1.0], [3.0, 1.0]]\n"
                                  "[material.glass]\nstops = [\"bodies\", \"shots\"]\n")));
  EXPECT_TRUE(only(play(blocked, 100), What::attacked).empty());
}

TEST(Homing, TurnsToItsTarget) {
  const std::string shot = kShot + "aim = \"ahead\"\naim_tolerance = 180\nlifetime = 5.0\n";
  const auto hits = [&](const char* rate) {
    Simulation simulation(
        garden(range(shot + "homing_rate = " + rate + "\n"),
               {{"agent.lobber.facing", "60"}, {"kind.lobber.move.turn_rate", "0"}}));
    return only(play(simulation, 300), What::hurt).size();
  };
  EXPECT_EQ(hits("0.0"), 0U);
  EXPECT_EQ(hits("360.0"), 1U);
}

// What keeps an attack from being made, with its number.
TEST(AttacksAt, SayWhatKeepsThem) {
  const auto reason = [](const std::string& attack, const std::vector<Setting>& settings,
                         const std::string& more = "", int steps = 1) {
    Simulation simulation(garden(range(attack, more), settings));
    play(simulation, steps);
    const auto answers =
        attacks_at(simulation, simulation.agent("lobber"), simulation.agent("collector"));
    EXPECT_EQ(answers.size(), 1U);
    EXPECT_EQ(answers[0].attack, "pod");
    EXPECT_EQ(answers[0].can, answers[0].reason == "can be made");
    return answers[0].reason;
  };
  const std::string strike = "how = \"strike\"\ndamage = 5\ncooldown = 2.0\n";
  const std::string pane =
      "[[wall]]\nid = \"pane\"\nmaterial = \"glass\"\npath = [[3.0, -1.0], [3.0, 1.0]]\n"
      "[material.glass]\nstops = [\"bodies\", \"shots\"]\n";
  EXPECT_EQ(reason(strike, {{"kind.lobber.attack.pod.range", "3.9"}}),
            "out of reach by 2.10 m (6.00 m away, at most 3.90)");
  EXPECT_EQ(reason(strike, {}, "", 31), "ready in 1.50 s");  // struck at tick 1
  EXPECT_EQ(reason(strike, {}, pane), "pane is in the way");
  EXPECT_EQ(reason(strike + "arc = 90.0\n",
                   {{"agent.lobber.facing", "60"}, {"kind.lobber.move.turn_rate", "0"}}),
            "turned away by 15.0 degrees (60.0 off, at most 45.0)");
  EXPECT_EQ(reason(kShot, {}, pane), "pane is in the way");
  EXPECT_EQ(reason(strike, {{"kind.lobber.sight.range", "5"}}), "it has noticed nobody");
  EXPECT_EQ(reason(kShot + "ammunition = 1\n", {}, "", 5), "its ammunition has gone");
  // 7 m/s: 49 / 9.81 = 4.995 m on the level.
  EXPECT_EQ(reason(kShot + "aim = \"lob\"\n", {{"kind.lobber.attack.pod.speed", "7"}}),
            "out of reach by 1.01 m (its arcs end 4.99 m away)");
  EXPECT_EQ(reason(strike + "[kind.lobber.when]\nhurt = { attack = \"pod\" }\n", {}),
            "made only when a reaction asks for it");
  // The host moves it into reach between two steps.
  Simulation simulation(
      garden(range(strike, "driver = \"host\"\n"), {{"kind.lobber.attack.pod.range", "3.9"}}));
  play(simulation, 5);
  const AgentId collector = simulation.agent("collector");
  simulation.set_pose(collector, {3.0, 0.0, 0.0}, Angle{});
  EXPECT_TRUE(attacks_at(simulation, simulation.agent("lobber"), collector)[0].can);
}

}  // namespace
}  // namespace gaze
