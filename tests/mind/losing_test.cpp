// What an agent goes over to when it loses its target.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

std::string modes_of_lamp(const std::string& when) {
  Simulation simulation(
      garden("[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 6.0, field_of_view = 360.0 }\n"
             "move.speed = 1.5\nwhen = { " +
             when +
             " }\n"
             "[kind.guest]\nteam = \"visitors\"\nmove.speed = 3.0\n" +
             placed("lamp", "lamp", "[0, 0]") +
             placed("guest", "guest", "[5, 0]", "script = [{ go = [30, 0] }]")));
  std::string modes;
  for (const Event& event : only(play(simulation, 8 * 60), Event::What::mode)) {
    modes += std::string(name_of(event.to)) + " ";
  }
  return modes;
}

TEST(Losing, HoldsAlthoughForgettingIsNotWritten) {
  EXPECT_EQ(modes_of_lamp("sees = \"chase\", loses = \"post\""), "chase post ");
  EXPECT_EQ(modes_of_lamp("sees = \"chase\", loses = \"patrol\""), "chase patrol ");
}

TEST(Losing, ForgettingStillEndsWhatIsGoneAbout) {
  EXPECT_EQ(modes_of_lamp("sees = \"chase\""), "chase return post ");
  EXPECT_EQ(modes_of_lamp("sees = \"chase\", loses = \"investigate\""), "chase return post ");
  EXPECT_EQ(modes_of_lamp("sees = \"chase\", loses = \"post\", forgets = \"return\""),
            "chase return post ");
}

}  // namespace
}  // namespace gaze
