// Zones as they are played.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

TEST(Zones, ReportWhoStepsInWhateverElseTheyDo) {
  const std::string scene =
      "[[zone]]\nid = \"bed\"\noutline = [[2, -1], [4, -1], [4, 1], [2, 1]]\n"
      "[kind.guest]\nteam = \"visitors\"\nmove.speed = 2.0\n" +
      placed("guest", "guest", "[0, 0]", "script = [{ go = [6, 0] }, { go = [0, 0] }]");
  for (const std::string more : {"", "dimness = 0.5\n", "tags = [\"soft\"]\n"}) {
    std::string text = scene;
    text.insert(text.find("outline"), more);
    Simulation simulation(garden(text));
    const auto triggered = only(play(simulation, 6 * 60), Event::What::triggered);
    // The guest enters at x = 2, and at x = 4 when it returns, at 2 m/s.
    ASSERT_EQ(triggered.size(), 2U) << more;
    EXPECT_NEAR(testing::seconds_of(triggered[0], simulation), 1.0, 1.01 / 60) << more;
    EXPECT_NEAR(testing::seconds_of(triggered[1], simulation), 4.0, 1.01 / 60) << more;
  }
}

}  // namespace
}  // namespace gaze
