#include "gaze/level_file.hpp"

#include <gtest/gtest.h>

#include <filesystem>

#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

using testing::placed;
namespace fs = std::filesystem;
using testing::faults_of;

// The first example of the level file's page, with its include left out.
const std::string kExample = R"(format = 1
name = "Propagation house, after closing"
plane = "ground"
ticks_per_second = 60
seconds = 30.0
seed = 1
gravity = 9.81
ground_height = 0.0
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
[material.glass]
stops = ["bodies", "shots"]
[[wall]]
id = "north-bench"
material = "brick"
path = [[0.0, 0.0], [10.0, 0.0], [10.0, 6.0]]
thickness = 0.2
base = 0.0
height = 2.5
[[block]]
id = "planter-1"
material = "brick"
outline = [[3.0, 2.0], [4.5, 2.0], [4.5, 3.0], [3.0, 3.0]]
base = 0.0
height = 1.2
[kind.pruner]
team = "caretakers"
radius = 0.4
height = 1.6
health = 30
[kind.pruner.sight]
range = 9.0
keep_range = 11.0
field_of_view = 110.0
eye_height = 1.5
notice_time = 0.0
remember = 4.0
[kind.pruner.move]
gait = "walk"
speed = 2.6
turn_rate = 360.0
stop_distance = 1.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 8
cooldown = 1.0
[kind.pruner.when]
sees = "chase"
forgets = "return"
idle = "patrol"
[kind.long-pruner]
like = "pruner"
[kind.long-pruner.attack.shears]
range = 2.2
[kind.sprinkler]
team = "caretakers"
[kind.sprinkler.sight]
range = 12.0
field_of_view = 60.0
[kind.sprinkler.move]
gait = "fixed"
[kind.sprinkler.attack.jet]
how = "shot"
speed = 14.0
radius = 0.05
damage = 5
cooldown = 0.8
range = 12.0
[[agent]]
id = "pruner-1"
kind = "pruner"
at = [8.0, 4.0]
facing = 180.0
patrol = [[8.0, 4.0], [2.0, 4.0]]
sight.range = 7.5
)" + placed("collector", "long-pruner", "[1.0, 1.0]",
            "script = [ { go = [9.0, 1.0] }, { wait = 2.0 }, { go = [9.0, 5.0], speed = 1.5 } ]");

Level example(const std::vector<Setting>& settings = {}) {
  return read_level_text(kExample, "house.toml", settings);
}

const Kind& kind_of(const Level& level, const std::string& id) {
  for (const Agent& agent : level.agents) {
    if (agent.id == id) return level.kind_of(agent);
  }
  throw std::out_of_range(id);
}

TEST(ReadLevel, ReadsEveryValueOfTheExample) {
  const Level level = example();
  EXPECT_EQ(level.name, "Propagation house, after closing");
  EXPECT_EQ(level.materials.size(), 2U);
  EXPECT_EQ(level.materials[1].stops, StopSet(0b0110));
  EXPECT_TRUE(is_hostile(level, 0, 1) && is_hostile(level, 1, 0) && !is_hostile(level, 0, 0));
  ASSERT_EQ(level.solids.size(), 2U);
  EXPECT_EQ(level.solids[0].points.size(), 3U);
  EXPECT_EQ(level.solids[1].height, 1.2);
  const Kind& pruner = level.kinds[0];
  EXPECT_EQ(*pruner.sight->keep_range, 11.0);
  EXPECT_EQ(pruner.sight->remember.nanoseconds, 4'000'000'000);
  EXPECT_EQ(pruner.move->stop_distance, 1.0);
  EXPECT_EQ(pruner.attacks[0].damage, 8.0);
  EXPECT_EQ(pruner.when.mode_of(Cause::sees), Mode::chase);
  EXPECT_EQ(level.agents[0].patrol[1], Vector3d(2, 4, 0));
  ASSERT_EQ(level.agents[1].script.size(), 3U);
  EXPECT_EQ(level.agents[1].script[2].speed, 1.5);
  EXPECT_EQ(level.agents[1].driver, Driver::script);
}

TEST(ReadLevel, FillsInTheDefaults) {
  const Level level = example();
  const Kind& sprinkler = level.kinds[2];
  EXPECT_EQ(sprinkler.radius, 0.3);
  EXPECT_EQ(sprinkler.height, 1.7);
  EXPECT_EQ(sprinkler.health, 100.0);
  EXPECT_EQ(sprinkler.body_points, (std::vector<double>{0.0, 0.5, 1.0}));
  EXPECT_EQ(*sprinkler.sight->keep_range, 12.0);
  EXPECT_DOUBLE_EQ(sprinkler.sight->eye->z(), 0.9 * 1.7);
  EXPECT_EQ(sprinkler.move->turn_rate.degrees(), 360.0);
  EXPECT_EQ(*sprinkler.attacks[0].muzzle, Vector3d(0, 0, 0.85));
  EXPECT_EQ(sprinkler.attacks[0].aim_tolerance.degrees(), 3.0);
  EXPECT_EQ(sprinkler.attacks[0].lifetime->nanoseconds, 857'142'857);
  EXPECT_FALSE(sprinkler.when.mode_of(Cause::sees));
  EXPECT_EQ(sprinkler.when.mode_of(Cause::forgets), Mode::return_);
  const Level empty = read_level_text("", "empty.toml");
  EXPECT_EQ(empty.name, "empty");
  EXPECT_EQ(empty.ticks_per_second, 60);
  EXPECT_EQ(empty.seconds, 30.0);
  EXPECT_EQ(empty.ground_height, 0.0);
  EXPECT_FALSE(read_level_text("ground_height = false", "t").ground_height);
  EXPECT_EQ(read_level_text("[kind.a.move]\n", "t").kinds[0].move->gait, Gait::walk);
  EXPECT_EQ(read_level_text("[kind.a]\n", "t").kinds[0].move->gait, Gait::fixed);
}

TEST(Like, MergesKeyByKeyAndTakesAttacksAway) {
  const Kind longer = example().kinds[1];
  EXPECT_EQ(longer.attacks[0].range, 2.2);
  EXPECT_EQ(longer.attacks[0].damage, 8.0);
  EXPECT_EQ(longer.sight->field_of_view.degrees(), 110.0);
  EXPECT_EQ(longer.like, "pruner");
  const Level unarmed = example({{"kind.long-pruner.attack.shears", "false"}});
  EXPECT_TRUE(unarmed.kinds[1].attacks.empty());
  EXPECT_EQ(unarmed.kinds[0].attacks.size(), 1U);
}

TEST(AgentValues, AreForThatCopyAlone) {
  const Level level = example();
  EXPECT_EQ(kind_of(level, "pruner-1").sight->range, 7.5);
  EXPECT_EQ(kind_of(level, "pruner-1").name, "pruner");
  EXPECT_EQ(level.kinds[0].sight->range, 9.0);
  EXPECT_EQ(level.named_kinds, 3U);
}

TEST(Origins, TellWhereEachValueWasWritten) {
  const Level level = example();
  const auto line = [&](const std::string& path) {
    return level.origin(path).value_or(Place{}).line;
  };
  EXPECT_EQ(line("kind.pruner.sight.range"), 34);
  EXPECT_EQ(line("kind.long-pruner.sight.range"), 34);  // it is like pruner
  EXPECT_EQ(line("kind.long-pruner.attack.shears.range"), 57);
  EXPECT_EQ(line("agent.pruner-1.sight.range"), 78);
  EXPECT_EQ(line("agent.pruner-1.sight.keep_range"), 35);  // from its kind
  EXPECT_EQ(line("agent.collector.attack.shears.range"), 57);
  EXPECT_EQ(line("block.planter-1.height"), 27);
  EXPECT_EQ(level.origin("kind.pruner.radius"), (Place{"house.toml", 30, 10}));
  EXPECT_FALSE(level.origin("kind.sprinkler.radius"));
  EXPECT_FALSE(level.origin("agent.nobody.at"));
  EXPECT_EQ(example({{"kind.pruner.radius", "0.3"}}).origin("kind.pruner.radius")->file,
            "--set kind.pruner.radius");
}

TEST(Copies, StandApartAndCanBeSetOneByOne) {
  const std::string text =
      std::string(kExample) + "[[agent]]\nid = \"row\"\nkind = \"pruner\"\n" +
      "at = [1.0, 2.0]\ncopies = 3\napart = [1.5, 0.5]\npatrol = [[1.0, 2.0], [1.0, 5.0]]\n";
  const Level level =
      read_level_text(text, "t", {{"agent.row-2.sight.range", "4"}, {"agent.row.facing", "90"}});
  ASSERT_EQ(level.agents.size(), 5U);
  EXPECT_EQ(level.agents[4].id, "row-3");
  EXPECT_EQ(level.agents[4].position, Vector3d(4, 3, 0));
  EXPECT_EQ(level.agents[4].patrol[1], Vector3d(4, 6, 0));
  EXPECT_EQ(kind_of(level, "row-2").sight->range, 4.0);
  EXPECT_EQ(level.agents[3].position, Vector3d(2.5, 2.5, 0));
  EXPECT_EQ(kind_of(level, "row-3").sight->range, 9.0);
  EXPECT_EQ(level.agents[2].facing.degrees(), 90.0);
}

TEST(Settings, ChangeValuesAndReportWhatTheyCannot) {
  const Level level = example({{"kind.pruner.sight.range", "6"},
                               {"agent.pruner-1.at", "[1.0, 1.5]"},
                               {"block.planter-1.height", "3"},
                               {"kind.pruner.when.sees", "patrol"},
                               {"seconds", "12.5"}});
  EXPECT_EQ(level.kinds[0].sight->range, 6.0);
  EXPECT_EQ(level.agents[0].position, Vector3d(1, 1.5, 0));
  EXPECT_EQ(level.solids[1].height, 3.0);
  EXPECT_EQ(level.kinds[0].when.mode_of(Cause::sees), Mode::patrol);
  EXPECT_EQ(level.seconds, 12.5);
  EXPECT_EQ(faults_of(kExample, {{"seed", "2"}, {"kind.Pruner.radius", "1"}}),
            "--set kind.Pruner.radius: error: there is no kind 'Pruner' to set a value of; did you "
            "mean 'pruner'?\n");
  EXPECT_EQ(faults_of(kExample, {{"agent.pruner-2.at", "1"}}),
            "--set agent.pruner-2.at: error: there is no agent 'pruner-2' to set a value of; did "
            "you mean "
            "'pruner-1'?\n");
  EXPECT_EQ(faults_of(kExample, {{"kind.pruner.sight.rnge", "1"}}),
            "--set kind.pruner.sight.rnge: error: unknown key 'rnge' in kind.pruner.sight; did you "
            "mean 'range'?\n");
  EXPECT_EQ(faults_of(kExample, {{"kind.pruner.health", "[1"}}),
            "--set kind.pruner.health: error: 'kind.pruner.health=[1' has no TOML value\n");
}

TEST(Planes, SayHowManyNumbersAPointHas) {
  const char* const agent = "[kind.a]\n[[agent]]\nid = \"a\"\nkind = \"a\"\nat = ";
  EXPECT_EQ(read_level_text(std::string("plane = \"upright\"\n") + agent + "[3, 4]", "t")
                .agents[0]
                .position,
            Vector3d(3, 0, 4));
  EXPECT_EQ(read_level_text(std::string("plane = \"space\"\n") + agent + "[3, 4, 5]", "t")
                .agents[0]
                .position,
            Vector3d(3, 4, 5));
  EXPECT_EQ(read_level_text(std::string("ground_height = 2\n") + agent + "[3, 4]", "t")
                .agents[0]
                .position,
            Vector3d(3, 4, 2));
  EXPECT_EQ(faults_of(std::string("plane = \"space\"\n") + agent + "[3, 4]"),
            "bad.toml:6:6: error: agent.a.at is a list of 2; 3 numbers are needed\n");
  EXPECT_EQ(faults_of("plane = \"upright\"\n[[block]]\nid = \"b\"\nmaterial = \"brick\"\n"
                      "outline = [[0, 0], [1, 0], [1, 1]]\nheight = 2\n"),
            "bad.toml:6:1: error: unknown key 'height' in block.b; allowed: id, material, outline, "
            "health, can_go\n");
}

TEST(ReadLevel, NeverCrashesOnRandomBytes) {
  std::uint64_t state = 1;
  const std::string alphabet = "[]{}=\"'.,#\n -_0123456789abkindwallagent\xc3\x28\x00\xff";
  for (int round = 0; round < 3000; ++round) {
    std::string text = round % 2 == 0 ? std::string(kExample) : "";
    for (int i = 0; i < 40; ++i) {
      state = state * 6364136223846793005ULL + 1442695040888963407ULL;
      const char c = alphabet[(state >> 33U) % alphabet.size()];
      const std::size_t at = text.empty() ? 0 : (state >> 20U) % text.size();
      round % 2 == 0 ? void(text[at] = c) : void(text += c);
      if (round % 2 == 0 && i > 2) break;
    }
    static_cast<void>(faults_of(text));
  }
}

class Files : public testing::InTemporaryFolder {
 protected:
  static std::string first_fault(const fs::path& file) {
    try {
      static_cast<void>(read_level(file));
    } catch (const LevelError& error) {
      return error.what();
    }
    return "readable";
  }
};

TEST_F(Files, ThatCannotBeReadAreNamedAtOneOne) {
  const std::string here = folder.string();
  EXPECT_EQ(first_fault(folder / "none.toml"),
            here + "/none.toml:1:1: error: there is no such file");
  EXPECT_EQ(first_fault(folder), here + ":1:1: error: is a folder, not a file");
  EXPECT_EQ(first_fault("/dev/zero"), "/dev/zero:1:1: error: is not a regular file");
  const fs::path large = write("large.toml", "");
  fs::resize_file(large, 100'000'000);
  EXPECT_EQ(first_fault(large),
            large.string() + ":1:1: error: has 100000000 bytes; at most 33554432 are allowed");
}

TEST_F(Files, IncludedOnesBringTeamsMaterialsAndKinds) {
  write("shared.toml", "[team.a]\n[material.glass]\nstops = []\n[kind.x]\nteam = \"a\"\n");
  const fs::path level =
      write("level.toml", "include = [\"shared.toml\"]\n[kind.y]\nlike = \"x\"\n");
  const Level read = read_level(level);
  EXPECT_EQ(read.kinds.size(), 2U);
  EXPECT_EQ(read.origin("kind.y.team")->file, (folder / "shared.toml").string());
}

TEST_F(Files, IncludedOnesAreJudgedWithTheirOwnPlace) {
  const fs::path shared = write("shared.toml", "[kind.x]\nradius = \"a\"\n[[agent]]\n[kind.y]\n");
  const fs::path level =
      write("level.toml", "include = [\"shared.toml\", \"none.toml\"]\n[kind.y]\n");
  std::string faults;
  try {
    static_cast<void>(read_level(level));
  } catch (const LevelError& error) {
    for (const Fault& fault : error.faults()) faults += fault.text() + "\n";
  }
  const std::string in = shared.string();
  EXPECT_NE(faults.find(in + ":2:10: error: kind.x.radius is the text \"a\"; a number is needed\n"),
            std::string::npos);
  EXPECT_NE(
      faults.find(in + ":3:3: error: 'agent' in an included file; team, material and kind are "
                       "allowed there\n"),
      std::string::npos)
      << faults;
  EXPECT_NE(faults.find("level.toml:2:1: error: kind 'y' is defined twice; the other is at " + in),
            std::string::npos)
      << faults;
  EXPECT_NE(faults.find("none.toml:1:1: error: there is no such file\n"), std::string::npos);
}

}  // namespace
}  // namespace gaze
