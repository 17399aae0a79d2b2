// A crowd surrounds whom it chases or follows.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

double apart(const Simulation& game, AgentId a, AgentId b) {
  const Vector3d way = game.state(a).position - game.state(b).position;
  return std::hypot(way.x(), way.y());
}

/// Some who chase or follow a guest, from one side or from all sides, and stop at a distance.
struct Crowd {
  std::string text;
  double stop = 0.0;
  double radius = 0.0;
  std::uint32_t count = 0;
};

Crowd random_crowd(Choices& choices) {
  Crowd crowd;
  crowd.stop = choices.between(1.0, 3.0);
  crowd.radius = choices.of<double>({0.2, 0.3, 0.4});
  crowd.count = 2 + choices.below(39);
  const bool follows = choices.one_in(2);
  const bool is_space = choices.one_in(2);
  crowd.text = follows ? "[kind.pruner]\nteam = \"visitors\"\nmove.follows = [\"guest\"]\n"
                         "when.idle = \"follow\"\n"
                       : "[kind.pruner]\nteam = \"caretakers\"\nwhen.sees = \"chase\"\n"
                         "sight = { range = 80.0, field_of_view = 360.0 }\n";
  if (is_space) crowd.text = "plane = \"space\"\n" + crowd.text;
  crowd.text += fmt::format(
      "radius = {}\nmove.speed = {}\nmove.{} = {}\n[kind.guest]\nteam = \"visitors\"\n"
      "move.speed = 2\n",
      crowd.radius, choices.between(1.5, 4.0), follows ? "follow_distance" : "stop_distance",
      crowd.stop);
  const bool from_one_side = choices.one_in(2);
  const auto at = [&](double x, double y) {
    return is_space ? fmt::format("[{}, {}, 0.0]", x, y) : fmt::format("[{}, {}]", x, y);
  };
  for (std::uint32_t i = 0; i < crowd.count; ++i) {
    const double x = -8.0 - 1.0 * (i / 7);
    const double y = 1.0 * (i % 7) - 3.0;
    const double angle = 2.0 * M_PI * i / crowd.count;
    crowd.text += placed(fmt::format("pruner-{}", i), "pruner",
                         from_one_side ? at(x, y) : at(9 * std::cos(angle), 9 * std::sin(angle)));
  }
  crowd.text += placed("guest", "guest", at(0, 0));
  return crowd;
}

// Whether some angle of the ring has room for the body of an agent among all the others.
bool has_room(const Simulation& game, AgentId who, AgentId guest, const Crowd& crowd) {
  constexpr double kElbowRoom = 0.021;  // metres: 2 cm are kept between bodies
  const Vector3d middle = game.state(guest).position;
  for (int i = 0; i < 1440; ++i) {
    const double angle = 2.0 * M_PI * i / 1440.0;
    const Vector3d at = middle + Vector3d{std::cos(angle), std::sin(angle), 0.0} * crowd.stop;
    bool is_free = true;
    for (const AgentId other : game.agents()) {
      if (other == who || other == guest) continue;
      is_free &= (game.state(other).position - at).norm() > 2.0 * crowd.radius + kElbowRoom;
    }
    if (is_free) return true;
  }
  return false;
}

TEST(Ring, NobodyStandsInASecondRowWhileTheFirstHasRoom) {
  std::int64_t behind = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(60); ++seed) {
    Choices choices(seed);
    const Crowd crowd = random_crowd(choices);
    const int rate = choices.of<int>({20, 60, 120, 240});
    Simulation game(garden(crowd.text, {{"ticks_per_second", std::to_string(rate)}}));
    play(game, 40 * rate);
    const AgentId guest = game.agent("guest");
    for (const AgentId who : game.agents()) {
      if (who == guest) continue;
      for (const AgentId other : game.agents()) {
        if (other == who || other == guest) continue;
        EXPECT_GE(apart(game, who, other), 2.0 * crowd.radius - 1e-6) << "seed " << seed;
      }
      if (apart(game, who, guest) <= crowd.stop * 1.0001 + 0.01) continue;
      ++behind;
      EXPECT_FALSE(has_room(game, who, guest, crowd))
          << "seed " << seed << " " << game.id_of(who) << " " << apart(game, who, guest) << " of "
          << crowd.stop;
    }
    std::vector<Vector3d> rest;
    for (const AgentId who : game.agents()) rest.push_back(game.state(who).position);
    play(game, 2 * rate);
    for (std::size_t i = 0; i < rest.size(); ++i) {
      EXPECT_LT((game.state(game.agents()[i]).position - rest[i]).norm(), 1e-6)
          << "seed " << seed << " " << game.id_of(game.agents()[i]);
    }
  }
  EXPECT_GT(behind, testing::enough(100));
}

// Rings of 20 at 2.0 m and of 26 at 2.62 m have room for bodies of 0.3 m: 2 asin(0.31 / radius).
TEST(Ring, ThirtyFollowersStandWithin270Centimetres) {
  for (const bool follows : {true, false}) {
    std::string text = follows ? "[kind.pruner]\nteam = \"visitors\"\nmove.follows = [\"guest\"]\n"
                                 "move.follow_distance = 2.0\nwhen.idle = \"follow\"\n"
                               : "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 80\n"
                                 "when.near = \"chase\"\nmove.stop_distance = 2.0\n";
    text += "radius = 0.3\n[kind.guest]\nteam = \"visitors\"\nmove.speed = 1.5\n";
    for (int i = 0; i < 30; ++i) {
      text += placed(fmt::format("p-{}", i), "pruner",
                     fmt::format("[{}, {}]", -8.0 + 0.8 * (i % 6), -2.0 + 0.8 * (i / 6)));
    }
    text += placed("guest", "guest", "[0, 0]", "script = [{ go = [4, 0] }, { go = [4, 3] }]");
    Simulation game(garden(text));
    play(game, 30 * 60);
    const AgentId guest = game.agent("guest");
    for (const AgentId who : game.agents()) {
      EXPECT_LE(apart(game, who, guest), 2.7) << game.id_of(who);
    }
  }
}

// Several who strike one target each strike once in each cooldown, as one alone does.
TEST(Ring, AttackersKeepTheirCooldowns) {
  for (const int count : {1, 2, 5}) {
    std::string text =
        "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 40\nwhen.near = \"chase\"\n"
        "move = { speed = 3.0, stop_distance = 1.0 }\n"
        "attack.snip = { how = \"strike\", range = 1.5, damage = 1, cooldown = 0.5 }\n"
        "[kind.guest]\nteam = \"visitors\"\nhealth = 1000\nmove.speed = 1\n" +
        placed("guest", "guest", "[0, 0]");
    for (int i = 0; i < count; ++i) {
      text += placed(fmt::format("p-{}", i), "pruner", fmt::format("[{}, 0.0]", -5.0 - i));
    }
    Simulation game(garden(text));
    const auto attacks = only(play(game, 20 * 60), Event::What::attacked);
    for (int i = 0; i < count; ++i) {
      std::vector<std::int64_t> ticks;
      for (const Event& event : attacks) {
        if (event.agent == game.agent(fmt::format("p-{}", i))) ticks.push_back(event.tick);
      }
      ASSERT_GT(ticks.size(), 25U) << count;
      for (std::size_t k = 1; k < ticks.size(); ++k) EXPECT_EQ(ticks[k] - ticks[k - 1], 30);
    }
  }
}

// Between walls it uses only the part of the ring on which it can stand and that no wall parts
// from the middle.
TEST(Ring, LeavesOutWhatLiesBehindAWall) {
  std::string text =
      testing::wall("hedge", "[[0.8, -40.0], [0.8, 40.0]]") +
      "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 80\nwhen.near = \"chase\"\n"
      "radius = 0.3\nmove = { speed = 3.0, stop_distance = 2.0 }\n[kind.guest]\n"
      "team = \"visitors\"\n" +
      placed("guest", "guest", "[0, 0]");
  for (int i = 0; i < 16; ++i) {
    text += placed(fmt::format("p-{}", i), "pruner", fmt::format("[-8.0, {}]", i - 8.0));
  }
  Simulation game(garden(text));
  play(game, 30 * 60);
  for (const AgentId who : game.agents()) {
    EXPECT_LT(game.state(who).position.x(), 0.5) << game.id_of(who);
    EXPECT_LE(apart(game, who, game.agent("guest")), 2.7) << game.id_of(who);
  }
}

// A follower sets out once it is farther off than `follow_start`, and an agent goes at `idle_speed`
// in its idle mode: both exactly.
TEST(Follower, SetsOutAtItsStartAndGoesAtItsIdleSpeed) {
  const std::string text =
      "[kind.goat]\nteam = \"visitors\"\nsolid_to = []\nwhen.idle = \"follow\"\n"
      "move = { speed = 8.0, idle_speed = 3.0, follows = [\"guest\"], follow_distance = 1.0, "
      "follow_start = 4.0 }\n[kind.guest]\nteam = \"visitors\"\nmove.speed = 2.0\nsolid_to = []\n" +
      placed("goat", "goat", "[0, 0]") +
      placed("guest", "guest", "[1, 0]", "script = [{ go = [9, 0] }]");
  Simulation game(garden(text));
  const AgentId goat = game.agent("goat");
  const AgentId guest = game.agent("guest");
  double before = 0.0;
  for (int tick = 0; tick < 600; ++tick) {
    const double away = apart(game, goat, guest);
    game.step();
    const double moved = game.state(goat).position.x() - before;
    before = game.state(goat).position.x();
    EXPECT_LE(moved, 3.0 / 60.0 + 1e-12);
    if (before == moved && moved > 0.0) {
      EXPECT_NEAR(away, 4.0, 2.1 / 60.0);
    }
  }
  EXPECT_NEAR(apart(game, goat, guest), 1.0, 1e-9);
}

}  // namespace
}  // namespace gaze
