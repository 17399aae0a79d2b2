#include "gaze/simulation.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::seconds_of;
using What = Event::What;

// A turret at the origin facing +x that sees 12 m and 60 degrees wide, and a player who walks past.
const std::string kTurret = R"(
[kind.turret]
team = "caretakers"
[kind.turret.sight]
range = 12.0
field_of_view = 60.0
eye_height = 1.0
[kind.player]
team = "visitors"
height = 2.0
[kind.player.move]
speed = 3.0
)" + placed("turret", "turret", "[0.0, 0.0]") +
                            R"(
[[agent]]
id = "player"
kind = "player"
)";

TEST(ClosedForm, PlayerWalksIntoTheFieldOfView) {
  for (const char* rate : {"20", "60", "144", "1000"}) {
    Simulation simulation(
        garden(std::string(kTurret) + "at = [8.0, -9.0]\nscript = [{ go = [8.0, 9.0] }]",
               {{"ticks_per_second", rate}}));
    const auto noticed = only(play(simulation, 6 * std::atoi(rate)), What::noticed);
    ASSERT_GE(noticed.size(), 1U);
    // Half of 60 degrees at 8 m: y = -8 tan 30 at 3 m/s from -9.
    const double expected = (9.0 - 8.0 * std::tan(M_PI / 6)) / 3.0;
    const double step = 1.0 / std::atoi(rate);
    EXPECT_GE(seconds_of(noticed[0], simulation), expected - 1e-9);
    EXPECT_LE(seconds_of(noticed[0], simulation), expected + step);
    EXPECT_LE(noticed[0].angle_deg, 30.0);
    EXPECT_NEAR(noticed[0].distance, 8.0 / std::cos(M_PI / 6), 3.0 * step + 1e-9);
  }
}

TEST(ClosedForm, PlayerWalksIntoRange) {
  Simulation simulation(
      garden(std::string(kTurret) + "at = [20.0, 1.0]\nscript = [{ go = [1.0, 1.0] }]"));
  const auto noticed = only(play(simulation, 600), What::noticed);
  ASSERT_EQ(noticed.size(), 1U);
  const double expected = (20.0 - std::sqrt(12.0 * 12.0 - 1.0)) / 3.0;
  EXPECT_NEAR(seconds_of(noticed[0], simulation), expected + 1.0 / 120, 1.0 / 120);
}

TEST(ClosedForm, PlayerComesOutFromBehindAWall) {
  // The wall's corner at (4, 1): the middle of the player at x = 8 is in sight once y is above 2.
  const std::string level = std::string(kTurret) +
                            "at = [8.0, -1.0]\nscript = [{ go = [8.0, 4.0] }]\n"
                            "[[block]]\nid = \"wall\"\nmaterial = \"brick\"\n"
                            "outline = [[4.0, -9.0], [4.5, -9.0], [4.5, 1.0], [4.0, 1.0]]\n";
  Simulation simulation(garden(level));
  const auto noticed = only(play(simulation, 200), What::noticed);
  ASSERT_EQ(noticed.size(), 1U);
  EXPECT_NEAR(seconds_of(noticed[0], simulation), 1.0 + 1.0 / 120, 1.0 / 119);
}

TEST(ClosedForm, NoticeTimeCountsFromWhereEvidenceBegan) {
  const std::string level =
      std::string(kTurret) + "at = [8.0, -9.0]\nscript = [{ go = [8.0, 9.0] }]";
  const double begins = (9.0 - 8.0 * std::tan(M_PI / 6)) / 3.0;
  for (const int rate : {20, 30, 60, 144, 240}) {
    for (const double notice_time : {0.11, 0.5, 0.777}) {
      Simulation simulation(
          garden(level, {{"ticks_per_second", std::to_string(rate)},
                         {"kind.turret.sight.notice_time", std::to_string(notice_time)}}));
      const auto noticed = only(play(simulation, 4 * rate), What::noticed);
      ASSERT_EQ(noticed.size(), 1U);
      const double late = seconds_of(noticed[0], simulation) - begins - notice_time;
      EXPECT_GE(late, -1e-9);
      EXPECT_LE(late, 1.0 / rate + 1e-6) << rate << " " << notice_time;
    }
  }
}

TEST(Noticing, AtTheStartIsToldWithTheFirstStep) {
  Simulation simulation(garden(std::string(kTurret) + "at = [8.0, 0.0]"));
  EXPECT_TRUE(simulation.events().empty());
  simulation.step();
  ASSERT_EQ(simulation.events().size(), 1U);
  EXPECT_EQ(simulation.events()[0].tick, 0);
  EXPECT_EQ(simulation.describe(simulation.events()[0]),
            "turret noticed player by sight, 8.00 m away, 0.0 degrees off");
  simulation.step();
  EXPECT_TRUE(simulation.events().empty());
}

const std::string kDuel = R"(
ticks_per_second = 60
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 30.0
field_of_view = 360.0
remember = 1.0
[kind.pruner.move]
speed = 2.0
stop_distance = 1.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 8
cooldown = 0.5
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
health = 20
[kind.collector.move]
speed = 3.0
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                          R"(
[[agent]]
id = "collector"
kind = "collector"
)";

TEST(Chase, WalksStraightAndStopsAtItsDistance) {
  Simulation simulation(
      garden(std::string(kDuel) + "at = [9.0, 0.0]", {{"kind.collector.health", "9000"}}));
  play(simulation, 60);
  EXPECT_NEAR(simulation.state(simulation.agent("pruner")).position.x(), 2.0, 1e-9);
  play(simulation, 300);
  EXPECT_NEAR(simulation.state(simulation.agent("pruner")).position.x(), 8.0, 1e-9);
}

TEST(Strikes, FallAtTheCooldownUntilHealthIsZeroAndNotBelow) {
  Simulation simulation(garden(std::string(kDuel) + "at = [1.2, 0.0]"));
  const auto events = play(simulation, 300);
  const auto hurt = only(events, What::hurt);
  ASSERT_EQ(hurt.size(), 3U);  // 8, 8, 4 of 20
  EXPECT_EQ(hurt[0].tick, 1);
  EXPECT_EQ(hurt[1].tick, 31);
  EXPECT_EQ(hurt[2].tick, 61);
  EXPECT_EQ(hurt[2].damage, 4.0);
  EXPECT_EQ(hurt[2].health, 0.0);
  ASSERT_EQ(only(events, What::defeated).size(), 1U);
  EXPECT_EQ(only(events, What::attacked).size(), 3U);  // and none after the defeat
  EXPECT_EQ(simulation.state(simulation.agent("collector")).mode, Mode::out);
  ASSERT_EQ(only(events, What::lost).size(), 1U);
  EXPECT_EQ(only(events, What::lost)[0].tick, 61);
  ASSERT_EQ(only(events, What::forgot).size(), 1U);
  EXPECT_EQ(only(events, What::forgot)[0].tick, 61);  // it saw it go
}

TEST(Strikes, OfOneStepFallTogether) {
  const std::string both = std::string(kDuel) + R"(at = [1.0, 0.0]
[kind.collector.sight]
range = 9.0
field_of_view = 360.0
[kind.collector.attack.fist]
how = "strike"
range = 2.0
damage = 500
cooldown = 1.0
)";
  Simulation simulation(garden(both, {{"kind.pruner.attack.shears.damage", "500"}}));
  const auto events = play(simulation, 3);
  EXPECT_EQ(only(events, What::defeated).size(), 2U);
  EXPECT_EQ(only(events, What::attacked).size(), 2U);
}

TEST(Events, OfAStepAreListedByWhatAndThenByFile) {
  Simulation simulation(
      garden(std::string(kDuel) + "at = [1.2, 0.0]\nscript = [{ go = [1.2, 0.05] }]",
             {{"kind.collector.health", "8"}}));
  std::vector<What> order;
  for (const Event& event : play(simulation, 1)) order.push_back(event.what);
  EXPECT_EQ(order,
            (std::vector<What>{What::noticed, What::arrived, What::attacked, What::hit, What::hurt,
                               What::defeated, What::lost, What::forgot, What::mode, What::mode}));
}

const std::string kShooting = R"(
ticks_per_second = 60
[material.glass]
stops = ["bodies", "shots"]
[kind.sprinkler]
team = "caretakers"
height = 1.0
[kind.sprinkler.sight]
range = 30.0
field_of_view = 360.0
[kind.sprinkler.attack.jet]
how = "shot"
speed = 400.0
radius = 0.05
damage = 5
cooldown = 0.5
range = 30.0
lifetime = 1.0
[kind.collector]
team = "visitors"
height = 1.0
radius = 0.3
)" + placed("sprinkler", "sprinkler", "[0.0, 0.0]") +
                              placed("collector", "collector", "[10.0, 0.0]");

TEST(Shots, HitTheBodySurfaceHoweverFast) {
  Simulation simulation(garden(kShooting));
  const auto events = play(simulation, 5);
  const auto hits = only(events, What::hit);
  ASSERT_GE(hits.size(), 1U);
  EXPECT_EQ(hits[0].tick, 3);  // away at tick 1, 6.7 m a step
  EXPECT_NEAR(hits[0].place.x(), 10.0 - 0.35, 1e-9);
  EXPECT_EQ(only(events, What::hurt).size(), 1U);
}

TEST(Shots, AreNotFiredThroughWhatStopsThem) {
  const std::string pane =
      "[[wall]]\nid = \"pane\"\nmaterial = \"glass\"\npath = [[5.0, -2.0], [5.0, 2.0]]\n";
  Simulation simulation(garden(std::string(kShooting) + pane));
  const auto events = play(simulation, 60);
  EXPECT_EQ(only(events, What::noticed).size(), 1U);  // seen through
  EXPECT_TRUE(only(events, What::fired).empty());
}

TEST(Shots, NeverPassAThinWallAtAnySpeed) {
  // The target walks behind a pane of 1 cm after the shot has left.
  for (const char* speed : {"1", "7.3", "61", "997", "10000"}) {
    const std::string text = std::string(kShooting) +
                             "[[wall]]\nid = \"pane\"\nmaterial = \"glass\"\nthickness = 0.01\n"
                             "path = [[5.0, 0.5], [5.0, 90.0]]\n";
    Simulation simulation(garden(text, {{"kind.sprinkler.attack.jet.speed", speed},
                                        {"kind.sprinkler.attack.jet.lifetime", "60"},
                                        {"kind.collector.move.speed", "1000"},
                                        {"agent.collector.at", "[10.0, 0.5]"},
                                        {"agent.collector.script", "[{ go = [10.0, 3.0] }]"}}));
    // From the first step on the target is behind the pane; nothing fired later can leave.
    for (const Event& event : play(simulation, 900)) {
      if (event.what == What::hit && event.other) {
        EXPECT_LT(event.place.y(), 1.0) << speed;
      }
    }
  }
}

TEST(Shots, PassFriendsAndStopAtOthers) {
  const std::string crowd = std::string(kShooting) + R"(
[kind.friend]
like = "sprinkler"
sight.range = 0.1
[kind.bystander]
radius = 0.3
)" + placed("friend", "friend", "[3.0, 0.0]");
  Simulation simulation(garden(crowd));
  EXPECT_EQ(only(play(simulation, 5), What::hurt).size(), 1U);
  Simulation with_bystander(
      garden(crowd + "[[agent]]\nid = \"bystander\"\nkind = \"bystander\"\nat = [6.0, 0.0]\n"));
  const auto events = play(with_bystander, 5);
  ASSERT_EQ(only(events, What::hit).size(), 1U);
  EXPECT_EQ(with_bystander.id_of(*only(events, What::hit)[0].other), "bystander");
  EXPECT_TRUE(only(events, What::hurt).empty());
}

TEST(Shots, EndAtTheirLifetimeAndFallByTheirShareOfGravity) {
  Simulation simulation(garden(kShooting, {{"kind.sprinkler.attack.jet.speed", "12"},
                                           {"kind.sprinkler.attack.jet.gravity_share", "0.5"},
                                           {"kind.sprinkler.attack.jet.cooldown", "60"},
                                           {"agent.collector.at", "[29.0, 0.0]"},
                                           {"kind.sprinkler.height", "40"},
                                           {"kind.collector.height", "40"}}));
  play(simulation, 1 + 30);
  ASSERT_EQ(simulation.projectiles().size(), 1U);
  EXPECT_NEAR(simulation.projectiles()[0].position.x(), 6.0, 1e-9);
  EXPECT_NEAR(simulation.projectiles()[0].position.z(), 20.0 - 0.5 * 9.81 * 0.25 / 2, 1e-9);
  play(simulation, 30);
  EXPECT_TRUE(simulation.projectiles().empty());
}

TEST(Shots, StopAtTheGround) {
  Simulation simulation(garden(kShooting, {{"kind.sprinkler.attack.jet.speed", "5"},
                                           {"kind.sprinkler.attack.jet.gravity_share", "1"}}));
  const auto hits = only(play(simulation, 60), What::hit);
  ASSERT_GE(hits.size(), 1U);
  EXPECT_FALSE(hits[0].other || hits[0].solid);
  EXPECT_NEAR(hits[0].place.z(), 0.05, 1e-9);
  EXPECT_NE(simulation.describe(hits[0]).find("hit the ground with jet"), std::string::npos);
}

TEST(Return, GoesBackToWhereItLeftAndResumesItsPost) {
  const std::string text = std::string(kDuel) + "at = [6.0, 0.0]\nscript = [{ go = [40.0, 0.0] }]";
  Simulation simulation(
      garden(text, {{"agent.pruner.facing", "90"}, {"kind.pruner.sight.range", "8"}}));
  const auto events = play(simulation, 1800);
  std::vector<std::pair<Mode, Mode>> modes;
  for (const Event& event : only(events, What::mode)) modes.emplace_back(event.from, event.to);
  EXPECT_EQ(modes, (std::vector<std::pair<Mode, Mode>>{{Mode::post, Mode::chase},
                                                       {Mode::chase, Mode::return_},
                                                       {Mode::return_, Mode::post}}));
  const AgentState pruner = simulation.state(simulation.agent("pruner"));
  EXPECT_EQ(pruner.position, Vector3d(0, 0, 0));
  EXPECT_EQ(pruner.facing, Vector2d(0, 1));
}

TEST(Patrol, GoesRoundOrToAndFroWithoutLosingTime) {
  const std::string text = R"(
ticks_per_second = 7
[kind.pruner]
[kind.pruner.move]
speed = 1.0
)" + placed("round", "pruner", "[0.0, 0.0]", "patrol = [[0.0, 0.0], [1.3, 0.0], [1.3, 1.3]]") +
                           R"(
[[agent]]
id = "fro"
kind = "pruner"
at = [0.0, 9.0]
patrol = [[0.0, 9.0], [1.0, 9.0], [2.0, 9.0]]
patrol_style = "to and fro"
)";
  Simulation simulation(read_level_text(text, "patrol.toml"));
  play(simulation, 7 * 30);
  // 30 m along a round of 2.6 + 1.3 sqrt 2; 30 m along 4 m to and fro: 2 m into the eighth.
  const double rest = std::fmod(30.0, 2.6 + 1.3 * std::sqrt(2.0));
  const Vector3d expected =
      rest < 1.3   ? Vector3d(rest, 0, 0)
      : rest < 2.6 ? Vector3d(1.3, rest - 1.3, 0)
                   : Vector3d(1.3, 1.3, 0) * (1 - (rest - 2.6) / (1.3 * std::sqrt(2.0)));
  EXPECT_NEAR((simulation.state(simulation.agent("round")).position - expected).norm(), 0, 1e-9);
  EXPECT_NEAR(simulation.state(simulation.agent("fro")).position.x(), 2.0, 1e-9);
}

TEST(Script, GoesWaitsAndRepeatsExactly) {
  const std::string text = R"(
ticks_per_second = 60
[kind.collector.move]
speed = 3.0
)" + placed("collector", "collector", "[0.0, 0.0]",
            "script = [ { go = [1.0, 0.0] }, { wait = 0.5 }, { go = [0.0, 0.0], speed = 1.5 }, { "
            "repeat = true } ]");
  Simulation simulation(read_level_text(text, "script.toml"));
  const auto arrived = only(play(simulation, 60 * 9), What::arrived);
  // A round takes 1/3 + 1/2 + 2/3 = 1.5 s.
  ASSERT_EQ(arrived.size(), 12U);
  for (std::size_t i = 0; i < arrived.size(); ++i) {
    EXPECT_EQ(arrived[i].tick, static_cast<std::int64_t>(90 * (i / 2) + (i % 2 == 0 ? 20 : 90)));
  }
  EXPECT_EQ(simulation.state(simulation.agent("collector")).position, Vector3d(0, 0, 0));
}

TEST(Script, EndsAWayThatIsBlockedAndGoesOn) {
  const std::string text = block("wall", "[[1.0, -9.0], [2.0, -9.0], [2.0, 9.0], [1.0, 9.0]]") + R"(
[kind.collector.move]
speed = 3.0
)" +
                           placed("collector", "collector", "[0.0, 0.0]",
                                  "script = [ { go = [5.0, 0.0] }, { go = [0.0, 0.0] } ]");
  Simulation simulation(read_level_text(text, "blocked.toml"));
  const auto events = play(simulation, 120);
  ASSERT_EQ(only(events, What::blocked).size(), 1U);
  // At the wall after 0.7 / 3 s; a second without a centimetre later it gives up.
  EXPECT_NEAR(seconds_of(only(events, What::blocked)[0], simulation), 0.7 / 3 + 1.0, 1.0 / 30);
  EXPECT_EQ(only(events, What::arrived).size(), 1U);
}

TEST(Host, SetsThePoseAndWrongUseThrows) {
  Simulation simulation(garden(std::string(kTurret) + "at = [20.0, 0.0]\ndriver = \"host\""));
  const AgentId player = simulation.agent("player");
  simulation.set_pose(player, {5, 0, 0}, Angle::from_degrees(90));
  simulation.step();
  EXPECT_EQ(only({simulation.events().begin(), simulation.events().end()}, What::noticed).size(),
            1U);
  EXPECT_EQ(simulation.state(player).position, Vector3d(5, 0, 0));
  EXPECT_EQ(simulation.state(player).facing, Vector2d(0, 1));
  EXPECT_THROW(simulation.set_pose(simulation.agent("turret"), {0, 0, 0}, {}), UsageError);
  EXPECT_THROW(simulation.set_pose(player, {NAN, 0, 0}, {}), UsageError);
  EXPECT_THROW(static_cast<void>(simulation.agent("nobody")), UsageError);
  EXPECT_THROW(simulation.advance(-1.0), UsageError);
  EXPECT_THROW(static_cast<void>(simulation.looker(player)), UsageError);  // it has no sight
  EXPECT_THROW(static_cast<void>(simulation.state({99})), UsageError);
}

TEST(Advance, TakesWholeStepsAndKeepsTheRest) {
  Simulation simulation(garden(kTurret + std::string("at = [20.0, 0.0]")));
  EXPECT_EQ(simulation.advance(0.010).steps, 0);
  const Advance second = simulation.advance(0.010);
  EXPECT_EQ(second.steps, 1);
  EXPECT_NEAR(second.left_over, 0.2, 1e-9);  // 1.2 steps were given
  EXPECT_EQ(simulation.advance(1.0).steps, 60);
  int steps = 0;
  for (int frame = 0; frame < 600; ++frame) steps += simulation.advance(1.0 / 60.0).steps;
  EXPECT_EQ(steps, 600);
}

// A second at 60 steps a second, of which 5 are allowed: 55 of them are lost, and the rest stays.
TEST(Advance, LosesTheTimeBeyondTheMostSteps) {
  Simulation simulation(garden(kTurret + std::string("at = [20.0, 0.0]")));
  const Advance done = simulation.advance(1.0 + 0.5 / 60.0, 5);
  EXPECT_EQ(done.steps, 5);
  EXPECT_EQ(simulation.tick(), 5);
  EXPECT_NEAR(done.left_over, 0.5, 1e-9);
  EXPECT_NEAR(done.lost_seconds, 55.0 / 60.0, 1e-9);
  EXPECT_EQ(simulation.advance(0.5 / 60.0).steps, 1);
  EXPECT_EQ(simulation.advance(0.1, 0).steps, 0);
  EXPECT_THROW(simulation.advance(0.1, -1), UsageError);
}

TEST(Events, ArePickedByWhatTheyAreAndWhomTheyAreAbout) {
  Simulation simulation(read_level(GAZE_DEMO));
  std::size_t seen = 0;
  std::size_t by_filter = 0;
  const AgentId player = simulation.agent("collector");
  for (int i = 0; i < 1200; ++i) {
    simulation.step();
    for (const Event& event : simulation.events()) {
      seen += event.what == Event::What::noticed && event.other == player;
    }
    by_filter += simulation.events({Event::What::noticed, player}).size();
    EXPECT_EQ(simulation.events(EventFilter{}).size(), simulation.events().size());
  }
  EXPECT_GT(seen, 3U);
  EXPECT_EQ(by_filter, seen);  // the player notices nobody itself
}

TEST(Look, SaysWhatHindersIt) {
  Simulation simulation(garden(std::string(kDuel) + "at = [1.2, 0.0]"));
  EXPECT_EQ(explain(simulation.look("collector", "pruner")), "collector has no sight");
  EXPECT_EQ(explain(simulation.look("pruner", "pruner")), "pruner does not look for itself");
  play(simulation, 100);
  const Verdict verdict = simulation.look("pruner", "collector");
  EXPECT_FALSE(verdict.sees);
  EXPECT_EQ(explain(verdict), "collector is defeated");
}

TEST(Snapshot, CopyGoesOnAlike) {
  Simulation one(garden(std::string(kDuel) + "at = [9.0, 3.0]\nscript = [{ go = [-9.0, 1.0] }]"));
  play(one, 77);
  Simulation other = one;
  const auto a = play(one, 200);
  const auto b = play(other, 200);
  ASSERT_EQ(a.size(), b.size());
  EXPECT_EQ(one.state({0}).position, other.state({0}).position);
  EXPECT_EQ(one.state({1}).health, other.state({1}).health);
}

TEST(Nobody, IsANormalCase) {
  Simulation empty(Level{});
  EXPECT_TRUE(play(empty, 10).empty());
  Simulation alone(garden(std::string(kDuel) + "at = [900.0, 0.0]"));
  EXPECT_TRUE(play(alone, 100).empty());
}

}  // namespace
}  // namespace gaze
