// The time at which an agent forgets a noise.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

const std::string kListener = R"(
[kind.listener]
team = "caretakers"
move.speed = 2.0
hearing = { range = 40.0, remember = 2.0 }
when.hears = { any = "investigate" }
)" + placed("listener", "listener", "[0.0, 0.0]");

// The noise is 20 m away, which takes 10 s.
std::vector<Event> heard(bool forgets_on_way, int rate) {
  Simulation simulation(garden(
      kListener, {{"ticks_per_second", std::to_string(rate)},
                  {"kind.listener.hearing.forgets_on_way", forgets_on_way ? "true" : "false"}}));
  simulation.make_noise({20.0, 0.0, 0.0}, 40.0, "bang");
  return play(simulation, 15 * rate);
}

TEST(Forgetting, BeginsWhereItArrives) {
  for (const int rate : {20, 60, 240}) {
    const auto events = heard(false, rate);
    const auto arrived = only(events, What::arrived);
    const auto forgot = only(events, What::forgot);
    ASSERT_EQ(arrived.size(), 1U);
    ASSERT_EQ(forgot.size(), 1U);
    EXPECT_GE(arrived[0].tick, 10 * rate);
    EXPECT_EQ(forgot[0].tick - arrived[0].tick, 2 * rate) << rate;
  }
}

TEST(Forgetting, BeginsWithTheNoiseIfItForgetsOnItsWay) {
  for (const int rate : {20, 60, 240}) {
    const auto events = heard(true, rate);
    EXPECT_TRUE(only(events, What::arrived).empty());
    const auto was_heard = only(events, What::heard);
    const auto forgot = only(events, What::forgot);
    ASSERT_EQ(was_heard.size(), 1U);
    ASSERT_EQ(forgot.size(), 1U);
    EXPECT_EQ(forgot[0].tick - was_heard[0].tick, 2 * rate) << rate;
    const auto modes = only(events, What::mode);
    ASSERT_GE(modes.size(), 2U);
    EXPECT_EQ(modes[0].to, Mode::investigate);
    EXPECT_EQ(modes[1].to, Mode::return_);
  }
}

}  // namespace
}  // namespace gaze
