#include "combat/cooldown.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

int take_pulls(Moment& ready, Moment now, Moment cooldown) {
  int pulls = 0;
  while (take_pull(ready, now, cooldown)) ++pulls;
  return pulls;
}

int pulls_over(int rate, double seconds, double cooldown, int first_tick) {
  Moment ready = kAlwaysReady;
  int pulls = 0;
  const Moment wait = moments_of(Duration::from_seconds(cooldown), rate);
  const int last = first_tick + static_cast<int>(seconds * rate);
  for (int tick = first_tick; tick <= last; ++tick) {
    pulls += take_pulls(ready, tick * kMomentsPerTick, wait);
  }
  return pulls;
}

TEST(TakePulls, MakesFloorOfTimeByCooldownPlusOneAtAnyRate) {
  for (const int rate : {1, 7, 20, 30, 60, 144, 240, 1000}) {
    for (const double cooldown : {0.001, 0.013, 0.1, 0.35, 0.8, 1.0, 2.5}) {
      const int expected = static_cast<int>(6000 / static_cast<int>(cooldown * 1000 + 0.5)) + 1;
      EXPECT_EQ(pulls_over(rate, 6.0, cooldown, 5), expected) << rate << " " << cooldown;
    }
  }
}

TEST(TakePulls, APauseIsNotMadeUpFor) {
  Moment ready = kAlwaysReady;
  const Moment wait = moments_of(Duration::from_seconds(0.5), 60);
  EXPECT_EQ(take_pulls(ready, 10 * kMomentsPerTick, wait), 1);
  EXPECT_EQ(take_pulls(ready, 400 * kMomentsPerTick, wait), 1);
  EXPECT_EQ(ready, 430 * kMomentsPerTick);  // half a second after this step's own time
}

}  // namespace
}  // namespace gaze
