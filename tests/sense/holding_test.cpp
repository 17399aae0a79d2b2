// A contact that comes and goes at a limit is held, whatever the sense.

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

const std::vector<std::string> kSenses{
    "sight = { range = 5.0, field_of_view = 360.0 }\n", "nearness = { range = 5.0 }\n",
    "feeler.tip = { length = 5.0, thickness = 0.4, finds = \"hostile\" }\n"};

Level watch(const std::string& sense, int rate) {
  return garden("[kind.pruner]\nteam = \"caretakers\"\nsolid_to = []\n" + sense +
                    "[kind.guest]\nteam = \"visitors\"\nsolid_to = []\n" +
                    placed("pruner", "pruner", "[0, 0]") +
                    placed("guest", "guest", "[3, 0]", "driver = \"host\""),
                {{"ticks_per_second", std::to_string(rate)}});
}

// The guest is in range for some seconds and out of it for as many, over and over. Returns how
// often it is noticed in 12 s.
std::size_t noticed_in(const std::string& sense, int rate, double seconds) {
  Simulation game(watch(sense, rate));
  const int half = static_cast<int>(std::lround(seconds * rate));
  std::size_t noticed = 0;
  for (int tick = 0; tick < 12 * rate; ++tick) {
    game.set_pose(game.agent("guest"), {tick / half % 2 == 0 ? 3.0 : 30.0, 0.0, 0.0}, {});
    game.step();
    noticed += only({game.events().begin(), game.events().end()}, Event::What::noticed).size();
  }
  return noticed;
}

TEST(HeldContact, LastsLongerEachTimeItIsFoundAgainSoon) {
  for (const int rate : {20, 60, 100, 240}) {
    for (const std::string& sense : kSenses) {
      // Found again after 0.25 s, it is held for 0.5 s: it is not lost a second time.
      EXPECT_EQ(noticed_in(sense, rate, 0.25), 2U) << sense << rate;
      // Lost after 0.5 s of 0.8 s, found again 0.3 s later, held for 1 s.
      EXPECT_EQ(noticed_in(sense, rate, 0.8), 3U) << sense << rate;
      // More than 1 s later it is another contact: 4 times in 12 s.
      EXPECT_EQ(noticed_in(sense, rate, 1.5), 4U) << sense << rate;
    }
  }
}

TEST(HeldContact, WhySaysForHowLong) {
  Simulation game(watch(kSenses[1], 60));
  const auto step_at = [&](double x) {
    game.set_pose(game.agent("guest"), {x, 0.0, 0.0}, {});
    game.step();
  };
  for (const double x : {3.0, 30.0, 3.0, 30.0, 30.0, 30.0}) step_at(x);
  const Acquaintance knows = acquaintance(game, game.agent("pruner"), game.agent("guest"));
  EXPECT_EQ(knows.awareness, Awareness::noticed);
  ASSERT_TRUE(knows.held);
  EXPECT_NEAR(knows.held->limit, 0.5, 1e-12);
  EXPECT_NEAR(knows.held->unperceived, 3.0 / 60.0, 1e-12);
  EXPECT_EQ(knows.last_place, Vector3d(3.0, 0.0, 0.0));
  for (int i = 0; i < 30; ++i) step_at(30.0);
  EXPECT_NE(game.awareness(game.agent("pruner"), game.agent("guest")), Awareness::noticed);
}

// A fence that lets everything pass but bodies parts a chaser from a target near the limit of its
// range: the way round leads out of range.
TEST(HeldContact, KeepsChasersFromTurningBackAtEachStep) {
  std::int64_t returned = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(60); ++seed) {
    Choices choices(seed);
    const double range = choices.between(4.0, 12.0);
    const double apart = range * choices.between(0.6, 0.99);
    const double fence = range * choices.between(0.8, 3.0);
    const int rate = choices.of<int>({20, 30, 60, 120, 240});
    const std::string sense =
        choices.one_in(2) ? fmt::format("nearness.range = {}\n", range)
                          : fmt::format("sight = {{ range = {}, field_of_view = 360.0 }}\n", range);
    const std::string text =
        "[material.trellis]\nstops = [\"bodies\"]\n"
        "[[wall]]\nid = \"fence\"\nmaterial = \"trellis\"\n" +
        fmt::format("path = [[0.0, {}], [0.0, {}]]\n", -fence, fence) +
        "[kind.pruner]\nteam = \"caretakers\"\nwhen.sees = \"chase\"\nwhen.near = \"chase\"\n" +
        sense + fmt::format("move.speed = {}\n", choices.between(1.0, 6.0)) +
        "[kind.guest]\nteam = \"visitors\"\n" +
        placed("pruner", "pruner", fmt::format("[{}, 0.0]", -apart / 2.0)) +
        placed("guest", "guest", fmt::format("[{}, 0.0]", apart / 2.0));
    Simulation game(garden(text, {{"ticks_per_second", std::to_string(rate)}}));
    const auto modes = only(play(game, 20 * rate), Event::What::mode);
    EXPECT_LE(modes.size(), 14U) << "seed " << seed;
    returned += modes.size() > 1;
  }
  EXPECT_GT(returned, testing::enough(10));
}

}  // namespace
}  // namespace gaze
