// Commands report work that takes longer than two seconds.

#include "waiting.hpp"

#include <gtest/gtest.h>

#include <chrono>
#include <sstream>

namespace gaze::cli {
namespace {

TEST(Waiting, SaysWhatIsDoneAfterTwoSeconds) {
  std::ostringstream stream;
  {
    const Waiting waiting(stream, "preparing the level");
    std::this_thread::sleep_for(std::chrono::milliseconds(2500));
  }
  EXPECT_EQ(stream.str(), "preparing the level: 2 s so far\n");
}

TEST(Waiting, SaysNothingOfWhatIsQuick) {
  std::ostringstream stream;
  { const Waiting waiting(stream, "preparing the level"); }
  EXPECT_EQ(stream.str(), "");
}

}  // namespace
}  // namespace gaze::cli
