// The timeline of a run: every event, and blows that go on as before in one line.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <regex>
#include <sstream>

#include "gaze/tools/report.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

// A reed that strikes every half second, and a collector that stands before it.
const char* const kStrikingReed = R"(
[kind.thorn-reed]
team = "caretakers"
[kind.thorn-reed.sight]
range = 5.0
field_of_view = 90.0
[kind.thorn-reed.attack.thorn]
how = "strike"
range = 2.0
damage = 3
cooldown = 0.5
[kind.collector]
team = "visitors"
health = 1000
)";

std::vector<std::string> lines_of(const Simulation& simulation, const std::vector<Event>& events,
                                  const std::string& with) {
  std::istringstream text(timeline(simulation, events));
  std::vector<std::string> lines;
  for (std::string line; std::getline(text, line);) {
    if (line.find(with) != std::string::npos) lines.push_back(line);
  }
  return lines;
}

TEST(Timeline, TellsBlowsThatGoOnInOneLine) {
  Simulation simulation(
      testing::garden(kStrikingReed + testing::placed("reed", "thorn-reed", "[0, 0]") +
                      testing::placed("collector", "collector", "[1.5, 0]", "driver = \"host\"")));
  const auto events = testing::play(simulation, 600);
  // Noticed at 0 s, it strikes at the next step and each half second from there: 20 times in 10 s.
  const auto again = lines_of(simulation, events, " again ");
  ASSERT_EQ(again.size(), 1U);
  EXPECT_EQ(again[0],
            "   0.517 s  again     reed went on with thorn at collector until 9.517 s: 19 blows, "
            "19 hits, 57 health lost, 940 left");
  EXPECT_EQ(lines_of(simulation, events, " attacked ").size(), 1U);
  EXPECT_EQ(lines_of(simulation, events, " hurt ").size(), 1U);
}

// Who is lost and noticed once more is attacked afresh.
TEST(Timeline, BeginsAnewWhereSomethingHasChanged) {
  Simulation simulation(testing::garden(
      kStrikingReed + testing::placed("reed", "thorn-reed", "[0, 0]") +
      testing::placed("collector", "collector", "[1.5, 0]",
                      "script = [{ wait = 2 }, { go = [9, 0] }, { go = [1.5, 0] }]") +
      "[kind.collector.move]\nspeed = 4.0\n"));
  const auto events = testing::play(simulation, 600);
  EXPECT_EQ(lines_of(simulation, events, " s  lost ").size(), 1U);
  EXPECT_EQ(lines_of(simulation, events, " attacked ").size(), 2U);
  EXPECT_EQ(lines_of(simulation, events, " again ").size(), 2U);
}

// Nothing is left out: the demo's lines tell of as many shots, hits and health as its events.
TEST(Timeline, AddsUpToTheEvents) {
  Simulation simulation(read_level(GAZE_DEMO));
  std::vector<Event> events = testing::play(simulation, 1800);
  double lost = 0.0;
  int hits = 0;
  for (const Event& event : events) {
    hits += event.what == Event::What::hit;
    if (event.what == Event::What::hurt) lost += event.damage;
  }
  double told_lost = 0.0;
  std::size_t told_hits = 0;
  std::istringstream text(timeline(simulation, events));
  for (std::string line; std::getline(text, line);) {
    std::smatch found;
    if (std::regex_search(line, found, std::regex(" again .* (\\d+) hits?"))) {
      told_hits += std::stoul(found[1]);
    } else {
      told_hits += line.find(" s  hit ") != std::string::npos;
    }
    if (std::regex_search(line, found, std::regex("([0-9.]+) health lost")) ||
        std::regex_search(line, found, std::regex(" lost ([0-9.]+) health"))) {
      told_lost += std::stod(found[1]);
    }
  }
  EXPECT_EQ(told_hits, static_cast<std::size_t>(hits));
  EXPECT_NEAR(told_lost, lost, 0.1);  // each is told to a hundredth
  EXPECT_LT(lines_of(simulation, events, "").size(), events.size());
}

}  // namespace
}  // namespace gaze
