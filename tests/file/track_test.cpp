// Tracks: read from CSV, followed, traced and judged.

#include <fmt/format.h>

#include <fstream>

#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

constexpr const char* kOneGuest = R"(
seconds = 4.0
[team.visitors]
hostile = []
[kind.guest]
team = "visitors"
move = { speed = 3.0 }
[[agent]]
id = "guest"
kind = "guest"
)";

class Tracks : public testing::InTemporaryFolder {
 protected:
  Level level_with(const std::string& csv, const std::string& plane = "ground",
                   const std::string& track = "track = 'way.csv'") {
    write("way.csv", csv);
    return read_level(
        write("level.toml", "plane = '" + plane + "'\n" + std::string(kOneGuest) + track + "\n"));
  }

  std::string fault_of(const std::string& csv, const std::string& plane = "ground",
                       const std::string& track = "track = 'way.csv'") {
    try {
      static_cast<void>(level_with(csv, plane, track));
    } catch (const LevelError& error) {
      return error.faults().front().text();
    }
    return "readable";
  }
};

TEST_F(Tracks, LeadStraightFromPointToPoint) {
  Simulation game(level_with("time,x,y\n0.5,1,2\n1.5,3,2\n2.0,3,4\n"));
  const AgentId guest = game.agent("guest");
  EXPECT_EQ(game.state(guest).position, Vector3d(1, 2, 0));
  const auto at = [&](double seconds) {
    while (game.seconds() < seconds - 1e-9) game.step();
    return game.state(guest);
  };
  EXPECT_TRUE(at(0.5).position.isApprox(Vector3d(1, 2, 0)));
  EXPECT_TRUE(at(1.0).position.isApprox(Vector3d(2, 2, 0)));
  EXPECT_TRUE(at(1.25).facing.isApprox(Vector2d(1, 0)));  // along its way
  EXPECT_TRUE(at(1.75).position.isApprox(Vector3d(3, 3, 0)));
  EXPECT_TRUE(at(1.75).facing.isApprox(Vector2d(0, 1)));
  EXPECT_TRUE(at(3.0).position.isApprox(Vector3d(3, 4, 0)));
  EXPECT_TRUE(at(3.0).facing.isApprox(Vector2d(0, 1)));
}

// The same way in the plane that is seen from the side, and in space; the short way round.
TEST_F(Tracks, FaceAsTheySayInEachPlane) {
  for (const std::string plane : {"ground", "upright", "space"}) {
    Simulation game(level_with("facing,time,z,y,x\n170,0,0,0,1\n-170,1,2,2,3\n", plane));
    while (game.seconds() < 0.5 - 1e-9) game.step();
    const AgentState state = game.state(game.agent("guest"));
    const double y = plane == "upright" ? 0.0 : 1.0;
    EXPECT_TRUE(state.position.isApprox(Vector3d(2, y, 1), 1e-9)) << plane;
    EXPECT_TRUE(state.facing.isApprox(Vector2d(-1, 0), 1e-9)) << plane;
  }
}

TEST_F(Tracks, TellWhatIsWrongWithTheirLine) {
  const std::string file = (folder / "way.csv").string();
  EXPECT_EQ(fault_of("time,x,y\n0,1,1\n0.5,2,2\n0.4,3,3\n"),
            file + ":4:1: error: the line is at 0.4 s, after one at 0.5 s; time goes on");
  EXPECT_EQ(fault_of("time,x,y\n0,1,1\n0.5,2,a\n"),
            file + ":3:1: error: the line has 'a' for y; a number of -20000 to 20000 is needed");
  EXPECT_EQ(fault_of("time,x\n0,1\n"), file + ":1:1: error: the line has no column 'y'");
  EXPECT_EQ(fault_of("time,x,y\n", "space"),
            file + ":1:1: error: the line has no column 'z', which a level in space needs");
  EXPECT_EQ(fault_of("time,x,y\n"), file + ":1:1: error: the line has no lines after the first");
  EXPECT_EQ(fault_of("time,x,y\n0,1\n"),
            file + ":2:1: error: the line has fewer columns than the first line");
  EXPECT_NE(fault_of("time,x,y,agent\n0,1,1,a\n1,2,2,b\n").find("others are of 'a'"),
            std::string::npos);
  EXPECT_NE(fault_of("time,x,y,agent\n0,1,1,anna\n", "ground",
                     "track = { file = 'way.csv', agent = 'ana' }")
                .find("has no line of an agent 'ana'; did you mean 'anna'?"),
            std::string::npos);
  EXPECT_NE(fault_of("time,x,y,does\n0,1,1,dance\n").find("does 'dance'"), std::string::npos);
  EXPECT_NE(fault_of("time,x,y,fires\n0,1,1,7\n").find("fires '7'"), std::string::npos);
  EXPECT_NE(fault_of("time,x,y,fires\n0,1,1,jet\n").find("no attack 'jet'"), std::string::npos);
  EXPECT_NE(fault_of("time,x,y,does\n0,1,1,take pot\n").find("no agent 'pot'"), std::string::npos);
  EXPECT_NE(fault_of("time,x,y\n0,1,1\n", "ground", "track = 'other.csv'").find("other.csv"),
            std::string::npos);
  EXPECT_NE(fault_of("time,x,y\n0,1,1\n", "ground", "track = 'way.csv'\nscript = [{ wait = 1 }]")
                .find("stands beside a script"),
            std::string::npos);
  EXPECT_NE(fault_of("", "ground", "driver = 'track'\nat = [0, 0]").find("without a track"),
            std::string::npos);
}

// No bytes whatever are more than refused.
TEST_F(Tracks, OfAnyBytesAreReadOrRefused) {
  std::uint64_t state = 7;
  const std::string letters = "0123456789.,,,\n\n-+e timexyfacg\"\r\0;quiettakenoise";
  for (std::uint64_t i = 0; i < testing::rounds(600); ++i) {
    std::string text = i % 3 == 0 ? "" : "time,x,y,fires,does,aim_x,aim_y\n";
    for (int k = 0; k < 120; ++k) {
      state = state * 6364136223846793005ULL + 1442695040888963407ULL;
      text += letters[(state >> 33U) % letters.size()];
    }
    EXPECT_FALSE(fault_of(text).empty());
  }
}

TEST_F(Tracks, ThatCannotHaveBeenPlayedAreTold) {
  std::string csv = "time,x,y\n";
  for (int i = 0; i <= 20; ++i) csv += fmt::format("{},{},0\n", 0.1 * i, 0.2 * i);
  csv += "3.5,6,0\n";     // line 23: nothing for 1.5 s
  csv += "3.6,16,0\n";    // line 24: 100 m/s
  csv += "3.8,16.5,0\n";  // line 25: into the wall
  write("way.csv", csv);
  const Level level = read_level(
      write("level.toml", std::string(kOneGuest) +
                              "track = 'way.csv'\n[[block]]\nid = 'wall'\nmaterial "
                              "= 'brick'\noutline = [[16.4,-1],[18,-1],[18,1],[16.4,1]]\n"));
  std::map<std::string, Finding> told;
  for (const Finding& finding : judge(level)) told[finding.code] = finding;
  ASSERT_TRUE(told.contains("track-gap") && told.contains("track-jump") &&
              told.contains("track-in-solid"));
  EXPECT_EQ(told["track-gap"].place.line, 23);
  EXPECT_NE(told["track-gap"].message.find("nothing for 1.5 s"), std::string::npos);
  EXPECT_EQ(told["track-jump"].place.line, 24);
  EXPECT_NE(told["track-jump"].message.find("100 m/s"), std::string::npos);
  EXPECT_EQ(told["track-in-solid"].place.line, 25);
  EXPECT_NE(told["track-in-solid"].message.find("in wall at 3.8 s"), std::string::npos);
}

// What its own driver brought about is not told again: that it has arrived, landed or is blocked.
std::string told_by(Simulation& game, std::string_view who) {
  std::string text;
  while (game.seconds() < game.level().seconds) {
    game.step();
    for (const Event& event : game.events()) {
      const bool is_of_driver = event.what == Event::What::arrived ||
                                event.what == Event::What::blocked ||
                                event.what == Event::What::landed;
      if (is_of_driver && game.id_of(event.agent) == who) continue;
      text += fmt::format("{} {}\n", event.tick, game.describe(event));
    }
  }
  return text;
}

// The player of the demo level walks, throws, takes, and fires: the same again from its trace.
TEST_F(Tracks, FromTheTraceOfARunGiveTheSameEvents) {
  const std::filesystem::path demo = GAZE_DEMO;
  for (const int rate : {20, 60, 144}) {
    const std::string trace = (folder / "run.csv").string();
    const std::string rates = std::to_string(rate);
    ASSERT_EQ(
        testing::gaze_call({"run", demo.string(), "--trace", trace, "--ticks-per-second", rates})
            .status,
        0);
    for (const char* file : {"propagation_house.toml", "garden_kinds.toml"}) {
      std::filesystem::copy_file(demo.parent_path() / file, folder / file,
                                 std::filesystem::copy_options::overwrite_existing);
    }
    const std::vector<Setting> rate_alone{{"ticks_per_second", rates}};
    std::vector<Setting> settings = rate_alone;
    settings.push_back({"agent.collector.track", "{ file = 'run.csv', agent = 'collector' }"});
    settings.push_back({"agent.collector.script", "[]"});
    Simulation first(read_level(folder / "propagation_house.toml", rate_alone));
    Simulation second(read_level(folder / "propagation_house.toml", settings));
    const std::string expected = told_by(first, "collector");
    EXPECT_GT(expected.size(), 5'000U);
    EXPECT_EQ(told_by(second, "collector"), expected) << rate;
  }
}

// Somebody throws and makes noises as it sets out, between two stretches, and hops: the same again
// from its trace, to the tick and to the place, at all rates and in levels seen from the side.
TEST_F(Tracks, DoTheSameWhileSettingOut) {
  std::uint64_t fired = 0;
  for (const std::string plane : {"ground", "upright"}) {
    for (const int rate : {20, 33, 60, 240}) {
      for (const double far : {2.02, 3.0, 4.31}) {
        const std::string at = std::to_string(far);
        const std::string head =
            "plane = \"" + plane + "\"\nticks_per_second = " + std::to_string(rate) + R"(
seconds = 7.0
[kind.hen]
move.speed = 1.69
hearing.range = 12.0
when.hears.any = "investigate"
[kind.fox]
carries = { pebble = 2 }
solid_to = []
move = { speed = 3.0, step_reach = 4.0, stride = 0.7, hop_height = 0.6 }
[kind.pebble.thing]
noise_reach = 6.0
[[agent]]
id = "hen"
kind = "hen"
at = [-4.0, 0.0]
[[agent]]
id = "fox"
kind = "fox"
at = [-7.0, 0.0]
)";
        const std::string script =
            "script = [{ throw = \"pebble\", to = [" + at +
            ", 0.0] }, { go = [-5.3, 0.0] }, { noise = \"bark\", reach = 5.0 }, { hop = true }, "
            "{ go = [" +
            at + ", 0.0] }, { throw = \"pebble\", to = [0.0, 0.0] }]\n";
        const Level first = read_level(write("first.toml", head + script));
        Simulation game(first);
        const std::string csv = (folder / "way.csv").string();
        ASSERT_EQ(
            testing::gaze_call({"run", (folder / "first.toml").string(), "--trace", csv}).status,
            0);
        const Level again =
            read_level(write("again.toml", head + "track = { file = 'way.csv', agent = 'fox' }\n"));
        Simulation other(again);
        const std::string expected = told_by(game, "fox");
        EXPECT_EQ(told_by(other, "fox"), expected) << plane << " " << rate << " " << far;
        fired += expected.find("fired") != std::string::npos ? 1 : 0;
      }
    }
  }
  EXPECT_EQ(fired, 24U);
}

// A hop takes 0.7 s and 2.1 m: three strides of 0.7 m, none of which is heard.
TEST_F(Tracks, StepsInTheAirAreSilent) {
  const Level level = read_level(write("hop.toml", R"(plane = "upright"
seconds = 0.65
[kind.hen]
hearing.range = 12.0
[kind.fox]
move = { speed = 3.0, step_reach = 9.0, stride = 0.7, hop_height = 0.6 }
[[agent]]
id = "hen"
kind = "hen"
at = [3.0, 0.0]
[[agent]]
id = "fox"
kind = "fox"
at = [-7.0, 0.0]
script = [{ hop = true }, { go = [0.0, 0.0] }]
)"));
  Simulation game(level);
  EXPECT_EQ(told_by(game, "fox").find("heard"), std::string::npos);
}

TEST_F(Tracks, AreSavedWithTheGame) {
  const Level level = level_with("time,x,y,fires,does\n0,0,0,,\n1,1,0,,noise cough 4\n3,3,0,,\n");
  Simulation game(level);
  while (game.seconds() < 0.9) game.step();
  Simulation other(level);
  other.restore(game.save());
  EXPECT_EQ(other.digest(), game.digest());
  EXPECT_EQ(told_by(other, ""), told_by(game, ""));
  EXPECT_EQ(other.digest(), game.digest());
  EXPECT_TRUE(game.last_noise(game.agent("guest")));
}

}  // namespace
}  // namespace gaze
