// `gaze why` over a stretch and for all, and `gaze cover`.

#include <gtest/gtest.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "support/command.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

namespace fs = std::filesystem;

using nlohmann::json;

using testing::Answer;
using testing::bytes_of;
using testing::gaze_call;

class SensesCommand : public testing::InTemporaryFolder {
 protected:
  // A lamp at the origin that looks along x; the collector walks past it from behind, 2 m/s.
  std::string level() {
    return write("lamp.toml", R"(
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 5.0
field_of_view = 90.0
notice_time = 0.5
[kind.lamp.hearing]
range = 20.0
[kind.collector]
team = "visitors"
[[agent]]
id = "lamp"
kind = "lamp"
at = [0, 0]
[[agent]]
id = "collector"
kind = "collector"
at = [-4, 2]
move.speed = 2.0
script = [{ noise = "cough", reach = 3.0 }, { go = [6, 2] }]
)")
        .string();
  }

  Answer why(std::vector<std::string> more) {
    std::vector<std::string> arguments{"why", level()};
    arguments.insert(arguments.end(), more.begin(), more.end());
    return gaze_call(arguments);
  }
};

TEST_F(SensesCommand, PlotsShowWhatThereIsToMeasure) {
  const std::string rooms = (fs::path(GAZE_DEMO).parent_path() / "sense_rooms.toml").string();
  const auto plot = [&](const std::string& agent, const std::string& set) {
    const fs::path file = folder / "plot.svg";
    EXPECT_EQ(gaze_call({"why", rooms, "--agent", agent, "--other", "collector", "--from", "17",
                         "--to", "22", "--plot", file.string(), "--set", set})
                  .status,
              0);
    return bytes_of(file);
  };
  // Another range of nearness is another line; the basket sees nothing.
  EXPECT_NE(plot("hanging-basket-1", "kind.hanging-basket.nearness.range=1.2"),
            plot("hanging-basket-1", "kind.hanging-basket.nearness.range=1.9"));
  EXPECT_NE(plot("listener-1", "kind.listener.hearing.range=14"),
            plot("listener-1", "kind.listener.hearing.range=0.5"));
}

TEST_F(SensesCommand, WhySaysWhatItTakesAndHowFarEvidenceIs) {
  const Answer answer = why({"--agent", "lamp", "--other", "collector", "--at", "0.5"});
  EXPECT_EQ(answer.status, 0);
  // At (-3, 2): 180 - atan(2 / 3) = 146.31 degrees of 45. The cough was at (-4, 2), sqrt(20) m
  // away.
  EXPECT_EQ(answer.out,
            "At 0.500 s lamp (mode post) does not see collector.\n"
            "  range          3.61 m, at most 5.00                           pass\n"
            "  field of view  146.3 degrees off, at most 45.0                FAIL\n"
            "  line of sight  100 % of 3 points visible, more than 0 needed  pass\n"
            "  evidence       0 % of 0.5 s\n"
            "  hearing        its last noise 'cough', from here: not heard: 4.47 m away, the reach "
            "of the noise is 3.00 m\n"
            "  because        outside the field of view by 101.3 degrees\n"
            "  it would take  turn 101.4 degrees to its left\n"
            "  so far         lamp is unaware of it\n");
}

TEST_F(SensesCommand, WhyOverAStretchMarksWhatIsCrossed) {
  const Answer answer = why(
      {"--agent", "lamp", "--other", "collector", "--from", "2.1", "--to", "4.1", "--every", "1"});
  EXPECT_EQ(answer.status, 0);
  std::istringstream lines(answer.out);
  std::string head, at_two, at_three;
  std::getline(lines, head);
  std::getline(lines, at_two);
  std::getline(lines, at_three);
  EXPECT_NE(at_two.find("84.3!"), std::string::npos);  // at (0.2, 2)
  EXPECT_NE(at_three.find("+field of view"), std::string::npos);
  const Answer as_json = why({"--agent", "lamp", "--other", "collector", "--from", "2.1", "--to",
                              "4.1", "--every", "1", "--json"});
  const json rows = json::parse(as_json.out);
  ASSERT_EQ(rows.size(), 3U);
  EXPECT_NEAR(rows[1]["distance"], std::hypot(2.2, 2.0), 1e-9);
  EXPECT_EQ(rows[1]["sees"], true);
}

TEST_F(SensesCommand, WhyDrawsAStretch) {
  const Answer answer = why({"--agent", "lamp", "--other", "collector", "--from", "0", "--to", "4",
                             "--plot", (folder / "plot.png").string()});
  EXPECT_EQ(answer.status, 0) << answer.err;
  EXPECT_GT(std::filesystem::file_size(folder / "plot.png"), 5'000U);
}

TEST_F(SensesCommand, WhyListsAllPairs) {
  const Answer answer = why({"--at", "3.6", "--all"});
  EXPECT_EQ(answer.status, 0);
  EXPECT_NE(answer.out.find("lamp       collector  yes   sight"), std::string::npos) << answer.out;
}

TEST_F(SensesCommand, WhyRefusesWhatDoesNotGoTogether) {
  const auto fault = [&](const std::vector<std::string>& more) {
    const Answer answer = why(more);
    EXPECT_EQ(answer.status, 2);
    EXPECT_EQ(answer.out, "");
    return answer.err;
  };
  EXPECT_EQ(fault({"--agent", "lamp", "--other", "collector", "--at", "1", "--from", "0"}),
            "gaze: error: --at and --from, --to do not go together\n");
  EXPECT_EQ(fault({"--agent", "lamp", "--other", "collector", "--from", "1"}),
            "gaze: error: --from and --to go together\n");
  EXPECT_EQ(fault({"--agent", "lamp", "--other", "collector", "--from", "3", "--to", "1"}),
            "gaze: error: --from 3 must lie before --to 1\n");
  EXPECT_EQ(fault({"--agent", "lamb", "--other", "collector", "--at", "1"}),
            "gaze: error: there is no agent 'lamb'; did you mean 'lamp'?\n");
  EXPECT_EQ(fault({"--other", "collector", "--at", "1"}), "gaze: error: --agent is required\n");
  EXPECT_EQ(fault({"--at", "1", "--all", "--json"}), "gaze: error: --all prints text, not JSON\n");
}

TEST_F(SensesCommand, WhyAsJsonHasEveryTestAndTheEvidence) {
  const json object =
      json::parse(why({"--agent", "lamp", "--other", "collector", "--at", "3.25", "--json"}).out);
  EXPECT_EQ(object["sees"], true);
  EXPECT_EQ(object["tests"].size(), 4U);
  EXPECT_EQ(object["tests"][3]["test"], "hearing");
  EXPECT_EQ(object["evidence"]["visibility"], 1.0);
  EXPECT_GT(object["evidence"]["gathered"], 0.1);
}

TEST_F(SensesCommand, CoverGivesTheContractsObject) {
  const Answer at = gaze_call({"cover", level(), "--at", "1", "--json"});
  EXPECT_EQ(at.status, 0) << at.err;
  const json moment = json::parse(at.out);
  EXPECT_EQ(moment["time"], 1.0);
  EXPECT_EQ(moment["agents"][0]["id"], "lamp");
  EXPECT_NEAR(moment["seen_share"].get<double>() + moment["never_seen_share"].get<double>(), 1.0,
              1e-6);
  const json run = json::parse(gaze_call({"cover", level(), "--json", "--seconds", "2"}).out);
  EXPECT_FALSE(run.contains("time"));
  const Answer drawn =
      gaze_call({"cover", level(), "--seconds", "1", "--output", (folder / "c.svg").string()});
  EXPECT_EQ(drawn.status, 0) << drawn.err;
  EXPECT_NE(drawn.out.find("never seen"), std::string::npos);
  EXPECT_TRUE(std::filesystem::exists(folder / "c.svg"));
}

TEST_F(SensesCommand, CoverWritesEverySpotAndByWhom) {
  const auto file = folder / "spots.csv";
  const Answer answer =
      gaze_call({"cover", level(), "--at", "0", "--spot", "1", "--spots", file.string()});
  EXPECT_EQ(answer.status, 0) << answer.err;
  std::ifstream stream(file);
  std::string line;
  std::getline(stream, line);
  EXPECT_EQ(line, "x,y,most,share,by");
  int seen = 0;
  int unseen = 0;
  while (std::getline(stream, line)) {
    const bool is_seen = line.ends_with(",1,1,lamp");
    (is_seen ? seen : unseen) += 1;
    EXPECT_TRUE(is_seen || line.ends_with(",0,0,")) << line;
  }
  EXPECT_GT(seen, 0);
  EXPECT_GT(unseen, 0);
}

TEST_F(SensesCommand, CoverRefusesWrongOptions) {
  EXPECT_EQ(gaze_call({"cover", level(), "--spot", "0"}).err,
            "gaze: error: --spot 0; 0.01 to 100 m is allowed\n");
  EXPECT_EQ(gaze_call({"cover", level(), "--kind", "collectr"}).err,
            "gaze: error: --kind: there is no kind 'collectr'; did you mean 'collector'?\n");
  EXPECT_EQ(gaze_call({"cover", level(), "--output", "c.jpg"}).status, 2);
  // 20,004 m by 19,998 m: 80,016 by 79,992 spots.
  EXPECT_EQ(gaze_call({"cover", level(), "--set", "agent.lamp.at=[20000, 20000]"}).err,
            "gaze: error: spots of 0.25 m make 6400639872 of this level; at most 100000000 are "
            "allowed\n");
}

}  // namespace
}  // namespace gaze
