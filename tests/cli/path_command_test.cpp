// gaze path and gaze draw --mesh, as a user calls them.

#include <nlohmann/json.hpp>

#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::Answer;
using testing::bytes_of;
using testing::gaze_call;
using testing::wall;
using Json = nlohmann::json;

const std::string kRooms =
    wall("fence-1", "[[5.0, -30.0], [5.0, 4.69]]") + wall("fence-2", "[[5.0, 5.31], [5.0, 30.0]]") +
    wall("house", "[[0.0, 0.0], [10.0, 0.0], [10.0, 10.0], [0.0, 10.0], [0.0, 0.0]]") + R"(
[kind.pruner]
radius = 0.4
[kind.cat]
radius = 0.2
)";

class PathCommand : public testing::InTemporaryFolder {
 protected:
  void SetUp() override {
    testing::InTemporaryFolder::SetUp();
    level = write("rooms.toml", kRooms).string();
  }
  Answer path(const std::string& from, const std::string& to, const std::string& kind,
              const std::vector<std::string>& more = {}) {
    std::vector<std::string> arguments{"path", level, "--from", from, "--to", to, "--kind", kind};
    arguments.insert(arguments.end(), more.begin(), more.end());
    return gaze_call(arguments);
  }
  std::string level;
};

TEST_F(PathCommand, PrintsTheShortestWay) {
  const Answer answer = path("1,1", "4,5", "cat", {"--json"});
  EXPECT_EQ(answer.status, 0);
  const Json json = Json::parse(answer.out);
  EXPECT_EQ(json["outcome"], "whole");
  EXPECT_EQ(json["length"], 5.0);
  EXPECT_EQ(json["points"], Json::parse("[[1.0, 1.0, 0.0], [4.0, 5.0, 0.0]]"));
  EXPECT_EQ(json["links"], Json::array());
  EXPECT_EQ(json["reason"], "straight and free");
  EXPECT_EQ(path("1,1", "4,5", "cat").out.substr(0, 44),
            "whole for cat: 5.00 m; straight and free\n   ");
}

// The straight line from [2, 5] to [18, 5] leads through the door: 16 m. Who may not pass walks
// round the end of the wall.
TEST_F(PathCommand, NamesTheDoorThatItLeadsRound) {
  level = write("door.toml",
                wall("south", "[[10, 0], [10, 4]]") + wall("north", "[[10, 6], [10, 9]]") + R"(
[bounds]
outline = [[0, 0], [20, 0], [20, 10], [0, 10]]
[[door]]
id = "hatch"
material = "brick"
path = [[10, 4], [10, 6]]
opens_for = ["key"]
[kind.dog]
radius = 0.3
[kind.cat]
radius = 0.3
tags = ["key"]
)")
              .string();
  const Answer round = path("2,5", "18,5", "dog");
  EXPECT_EQ(round.status, 0);
  EXPECT_NE(round.out.find("; 16.00 m through hatch, which does not open for it"),
            std::string::npos)
      << round.out;
  EXPECT_EQ(path("2,5", "18,5", "cat").out.find("hatch"), std::string::npos);
  EXPECT_EQ(path("2,5", "8,5", "dog").out.find("hatch"), std::string::npos);  // not in its way
}

TEST_F(PathCommand, SaysWhatKeepsTwoPlacesApart) {
  const Answer answer = path("1,1", "9,9", "pruner", {"--json"});
  EXPECT_EQ(answer.status, 1);
  const Json json = Json::parse(answer.out);
  EXPECT_EQ(json["outcome"], "partial");
  const std::string reason = json["reason"];
  EXPECT_NE(reason.find("the gap between fence-1 and fence-2"), std::string::npos) << reason;
  EXPECT_NE(reason.find("is 0.62 m wide, this body needs 0.80 m"), std::string::npos) << reason;
  EXPECT_EQ(path("1,1", "9,9", "cat").status, 0);
}

TEST_F(PathCommand, SaysWhatIsWrongWithItsEnds) {
  const auto reason = [&](const std::string& from, const std::string& to) {
    return Json::parse(path(from, to, "pruner", {"--json"}).out)["reason"].get<std::string>();
  };
  EXPECT_EQ(reason("5,1", "1,1"), "the start lies in fence-1");
  EXPECT_EQ(reason("1,1", "0.3,5"), "the goal is 0.20 m too near house for a body 0.80 m wide");
  // The wall ends at 10.1 m, and the ground 64 m beyond it.
  EXPECT_EQ(reason("1,1", "9000,5"), "the goal is 8925.90 m off the nearest floor for this body");
}

TEST_F(PathCommand, WrongUseIsOneLine) {
  const auto fault = [](const Answer& answer) {
    EXPECT_EQ(answer.status, 2);
    EXPECT_EQ(answer.out, "");
    return answer.err;
  };
  EXPECT_EQ(fault(path("1,1", "2,2", "Pruner")),
            "gaze: error: there is no kind 'Pruner'; did you mean 'pruner'?\n");
  EXPECT_EQ(fault(path("1", "2,2", "cat")),
            "gaze: error: --from 1 has 1 numbers; 2 are needed in this level\n");
  EXPECT_EQ(
      fault(path("1,x", "2,2", "cat")),
      "gaze: error: --from 1,x: numbers with a comma between are needed, each within 20000 m\n");
  EXPECT_EQ(
      fault(path("1,1", "2,nan", "cat")),
      "gaze: error: --to 2,nan: numbers with a comma between are needed, each within 20000 m\n");
  EXPECT_EQ(fault(gaze_call({"draw", level, "--mesh", "--output", "x.png"})),
            "gaze: error: no agent of this level walks by itself: --mesh needs --kind\n");
}

TEST_F(PathCommand, DrawsMeshAndPath) {
  const std::string mesh = (folder / "mesh.svg").string();
  EXPECT_EQ(gaze_call({"draw", level, "--mesh", "--kind", "pruner", "--output", mesh}).status, 0);
  EXPECT_NE(bytes_of(mesh).find("<svg"), std::string::npos);
  const std::string way = (folder / "way.png").string();
  EXPECT_EQ(path("1,1", "9,9", "pruner", {"--output", way}).status, 1);
  EXPECT_EQ(bytes_of(way).substr(1, 3), "PNG");
}

}  // namespace
}  // namespace gaze
