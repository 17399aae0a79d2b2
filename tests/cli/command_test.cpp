// The command, in-process and from outside.

#include <gtest/gtest.h>
#include <sys/wait.h>

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "gaze/gaze.hpp"
#include "gaze/tools/picture.hpp"
#include "support/command.hpp"
#include "support/programs.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::count_of;

namespace fs = std::filesystem;
using Json = nlohmann::json;

using testing::Answer;
using testing::bytes_of;
using testing::gaze_call;

// Through the shell, with what it prints to both streams together.
Answer shell(const std::string& line) {
  FILE* pipe = popen((line + " 2>&1").c_str(), "r");
  std::string text;
  char buffer[4096];
  while (const std::size_t n = std::fread(buffer, 1, sizeof buffer, pipe)) text.append(buffer, n);
  return {WEXITSTATUS(pclose(pipe)), text, ""};
}

using Command = testing::InTemporaryFolder;

TEST_F(Command, CheckPassesTheDemo) {
  const Answer answer = gaze_call({"check", GAZE_DEMO});
  EXPECT_EQ(answer.status, 0) << answer.out;
  EXPECT_NE(answer.out.find("1 level read: 0 errors, 0 warnings"), std::string::npos);
}

// What is wrong is told, how play will go is counted; a narrow terminal gets narrow lines.
TEST_F(Command, CheckKeepsItsNotesUntilAsked) {
  const std::string plain = gaze_call({"check", GAZE_DEMO}).out;
  EXPECT_EQ(plain.find(": note: "), std::string::npos);
  EXPECT_NE(plain.find(" notes (--notes shows them, and how kinds fare against each other)\n"),
            std::string::npos)
      << plain;
  const std::string all = gaze_call({"check", GAZE_DEMO, "--notes"}).out;
  EXPECT_NE(all.find(": note: "), std::string::npos);
  EXPECT_EQ(all.find("--notes shows them"), std::string::npos);
  EXPECT_NE(all.find("\nby "), std::string::npos);  // the table of pairs
  std::ostringstream out;
  std::ostringstream err;
  EXPECT_EQ(cli::command({"check", GAZE_DEMO, "--notes"}, {out, err, 80}), 0);
  std::istringstream lines(out.str());
  int wrapped_lines = 0;
  for (std::string line; std::getline(lines, line);) {
    EXPECT_LE(line.size(), 80U) << line;
    wrapped_lines += line.starts_with("    ") ? 1 : 0;
  }
  EXPECT_GT(wrapped_lines, 20);
}

TEST_F(Command, CheckFailsWithOneAndPlaces) {
  const fs::path level =
      write("a.toml",
            "[kind.spare]\n[[block]]\nid = \"b\"\nmaterial = \"brick\"\n"
            "outline = [[0,0],[1,0],[1,1]]\n"
            "[kind.gnome]\n[[agent]]\nid = \"g\"\nkind = \"gnome\"\nat = [9, 9]\n");
  const Answer answer = gaze_call({"check", level.string()});
  EXPECT_EQ(answer.status, 1);
  EXPECT_EQ(answer.out.find(level.string() + ":1:1: warning: kind spare is never used"), 0U)
      << answer.out;
  const Json findings = Json::parse(gaze_call({"check", "--json", level.string()}).out);
  ASSERT_EQ(findings.size(), 1U);
  EXPECT_EQ(findings[0]["code"], "kind-never-used");
  EXPECT_EQ(findings[0]["severity"], "warning");
  EXPECT_EQ(findings[0]["line"], 1);
}

TEST_F(Command, ReportsAllFaultsOfAllFiles) {
  const fs::path one = write("one.toml", "sed = 1\nseconds = 0\n");
  const Answer answer = gaze_call({"check", one.string(), (folder / "none.toml").string()});
  EXPECT_EQ(answer.status, 2);
  EXPECT_EQ(answer.err,
            one.string() + ":1:1: error: unknown key 'sed'; did you mean 'seed'?\n" + one.string() +
                ":2:11: error: seconds is 0; above 0 to 86400 s is allowed\n" +
                (folder / "none.toml").string() + ":1:1: error: there is no such file\n");
}

TEST_F(Command, RunPrintsTheEventsThatAreAskedFor) {
  const Answer all = gaze_call({"run", GAZE_DEMO, "--seconds", "9"});
  const Answer few = gaze_call({"run", GAZE_DEMO, "--seconds", "9", "--only", "noticed,lost"});
  ASSERT_EQ(few.status, 0);
  const auto lines_with = [](const std::string& text, const std::string& event) {
    int lines = 0;
    std::istringstream stream(text);
    for (std::string line; std::getline(stream, line);) lines += line.find(" s  " + event) == 8;
    return lines;
  };
  EXPECT_GT(lines_with(few.out, "noticed"), 5);
  // All that hurts, and not the first of each lot alone.
  EXPECT_GT(lines_with(gaze_call({"run", GAZE_DEMO, "--only", "hurt"}).out, "hurt"),
            lines_with(all.out, "hurt"));
  EXPECT_EQ(lines_with(few.out, "noticed"), lines_with(all.out, "noticed"));
  EXPECT_EQ(lines_with(few.out, "lost"), lines_with(all.out, "lost"));
  EXPECT_GT(lines_with(all.out, "hurt"), 0);
  EXPECT_EQ(lines_with(few.out, "hurt"), 0);
  const Answer wrong = gaze_call({"run", GAZE_DEMO, "--only", "notice"});
  EXPECT_EQ(wrong.status, 2);
  EXPECT_NE(wrong.err.find("there is no event 'notice'; did you mean 'noticed'?"),
            std::string::npos)
      << wrong.err;
}

// Rows that differ in nothing but their time are one, and one line more.
TEST_F(Command, AStretchInWhichNothingChangesIsTwoLines) {
  const std::string level =
      (fs::path(GAZE_DEMO).parent_path() / "mistakes" / "hurts_each_step.toml").string();
  const Answer answer = gaze_call({"why", level, "--agent", "bumper-1", "--other", "collector",
                                   "--from", "1", "--to", "3", "--every", "0.5"});
  EXPECT_EQ(std::count(answer.out.begin(), answer.out.end(), '\n'), 4) << answer.out;
  EXPECT_NE(answer.out.find("\nto 3.000  the same in 4 more rows\n"), std::string::npos);
}

TEST_F(Command, WhyWithoutAMomentIsAboutTheWholeRun) {
  // 20 degrees at 90 degrees a second: 0.22 s a pass, of the 0.5 s that it takes.
  const std::string level =
      (fs::path(GAZE_DEMO).parent_path() / "mistakes" / "sweeps_too_fast.toml").string();
  const std::vector<std::string> call{"why", level, "--agent", "lamp-1", "--other", "collector"};
  const Answer never = gaze_call(call);
  EXPECT_EQ(never.status, 0);
  EXPECT_NE(never.out.find("Over 10.00 s lamp-1 never notices collector."), std::string::npos);
  EXPECT_NE(never.out.find("range          always passes; best at 0.000 s: 8.00 m, at most 10.00"),
            std::string::npos)
      << never.out;
  EXPECT_NE(never.out.find("all pass       for 0.22 s at the longest"), std::string::npos);
  // What it says it noticed is what the run tells.
  const Answer why =
      gaze_call({"why", GAZE_DEMO, "--agent", "pruner-1", "--other", "collector", "--json"});
  const Json noticed = Json::parse(why.out)["noticed"];
  const Json run = Json::parse(gaze_call({"run", GAZE_DEMO, "--json"}).out);
  std::vector<double> times;
  for (const Json& event : run["events"]) {
    const bool is_it = event["event"] == "noticed" && event["agent"] == "pruner-1" &&
                       event["other"] == "collector";
    if (is_it) times.push_back(event["time"]);
  }
  ASSERT_EQ(noticed.size(), times.size());
  for (std::size_t i = 0; i < times.size(); ++i) {
    EXPECT_NEAR(noticed[i]["from"].get<double>(), times[i], 1e-6);
  }
}

TEST_F(Command, WhyShowsByHowMuchALimitIsMissed) {
  const fs::path level = write("near.toml", R"(
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 9.0
field_of_view = 90.0
[kind.collector]
team = "visitors"
[[agent]]
id = "lamp"
kind = "lamp"
at = [0, 0]
[[agent]]
id = "collector"
kind = "collector"
at = [9.00002, 0]
)");
  const Answer answer =
      gaze_call({"why", level.string(), "--agent", "lamp", "--other", "collector", "--at", "0"});
  EXPECT_NE(answer.out.find("9.00002 m, at most 9.00000"), std::string::npos) << answer.out;
}

TEST_F(Command, RunPrintsTheContractsJson) {
  const Answer answer = gaze_call({"run", GAZE_DEMO, "--json", "--seconds", "9", "--seed", "7"});
  ASSERT_EQ(answer.status, 0);
  const Json run = Json::parse(answer.out);
  EXPECT_EQ(run["ticks_per_second"], 60);
  EXPECT_EQ(run["seconds"], 9.0);
  EXPECT_EQ(run["seed"], 7);
  ASSERT_EQ(run["agents"].size(), 13U + 1U);  // and what is left of one of them
  for (const char* key : {"id", "kind", "position", "facing", "health", "alive", "mode"}) {
    EXPECT_TRUE(run["agents"][0].contains(key)) << key;
  }
  std::map<std::string, std::vector<std::string>> keys{
      {"noticed", {"agent", "other", "by", "distance", "angle"}},
      {"mode", {"agent", "from", "to"}},
      {"attacked", {"agent", "other", "attack"}},
      {"hurt", {"agent", "other", "damage", "health"}},
      {"fired", {"agent", "attack"}},
      {"hit", {"agent", "attack", "place"}},
      {"arrived", {"agent"}}};
  std::set<std::string> met;
  double last = 0.0;
  for (const Json& event : run["events"]) {
    const std::string what = event["event"];
    met.insert(what);
    EXPECT_NEAR(event["time"].get<double>(), event["tick"].get<int>() / 60.0, 1e-9);
    EXPECT_GE(event["time"].get<double>(), last);
    last = event["time"];
    // The script of the collector aims at a place, at nobody.
    const bool is_aimed_at_a_place = what == "attacked" && event["agent"] == "collector";
    for (const std::string& key : keys[what]) {
      const bool is_missing = is_aimed_at_a_place && key == "other";
      EXPECT_NE(event.contains(key), is_missing) << what << " " << key;
    }
  }
  for (const auto& [what, ignored] : keys) EXPECT_TRUE(met.contains(what)) << what;
}

TEST_F(Command, RunPrintsATimelineAndASummary) {
  const Answer answer = gaze_call({"run", GAZE_DEMO});
  EXPECT_EQ(answer.status, 0);
  EXPECT_NE(answer.out.find("noticed   sprinkler-1 noticed collector by sight, "),
            std::string::npos);
  EXPECT_NE(answer.out.find("\nagent "), std::string::npos);
  EXPECT_TRUE(answer.err.empty());
}

TEST_F(Command, TraceHasALineForEachAgentAndShotAtEachTick) {
  for (const std::string ending : {"csv", "jsonl"}) {
    const fs::path trace = folder / ("trace." + ending);
    EXPECT_EQ(gaze_call({"run", GAZE_DEMO, "--seconds", "3", "--trace", trace.string()}).status, 0);
    const std::string text = bytes_of(trace);
    const auto lines = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
    const auto shots =
        static_cast<std::size_t>(count_of(text, ending == "csv" ? ",,,,jet," : "jet"));
    EXPECT_GT(shots, 10U);  // one each tick for each that is in flight
    EXPECT_EQ(lines, 13U * 181U + shots +
                         count_of(text, ending == "csv" ? ",,,,thorn," : "thorn\"") +
                         (ending == "csv" ? 1U : 0U));
  }
  std::istringstream csv(bytes_of(folder / "trace.csv"));
  std::string line;
  std::getline(csv, line);
  EXPECT_EQ(
      line,
      "time,agent,x,y,z,facing,mode,health,target,shot,number,fires,aim_x,aim_y,aim_z,does,head");
  std::getline(csv, line);
  EXPECT_EQ(line, "0,pruner-1,1.6,9.6,0,0,patrol,30,,,,,,,,,0");
  std::istringstream jsonl(bytes_of(folder / "trace.jsonl"));
  std::getline(jsonl, line);
  EXPECT_EQ(Json::parse(line)["agent"], "pruner-1");
}

// Its duels are those of the table, and what is in flight at the end is there with its number.
TEST_F(Command, RunJsonHasDuelsAndProjectiles) {
  const Json run = Json::parse(gaze_call({"run", GAZE_DEMO, "--seconds", "3", "--json"}).out);
  ASSERT_EQ(run["projectiles"].size(), 1U);
  const Json& shot = run["projectiles"][0];
  EXPECT_EQ(shot["by"], "sprinkler-1");
  bool is_fired = false;
  for (const Json& event : run["events"]) {
    is_fired |= event["event"] == "fired" && event["projectile"] == shot["number"];
  }
  EXPECT_TRUE(is_fired);
  // The reed noticed the collector at 1.0 s and hit it once for 4, at 1.1 s.
  const auto duel = std::find_if(run["duels"].begin(), run["duels"].end(),
                                 [](const Json& one) { return one["by"] == "thorn-reed-1"; });
  ASSERT_NE(duel, run["duels"].end());
  EXPECT_EQ((*duel)["hits"], 1);
  EXPECT_EQ((*duel)["dealt"], 4.0);
  EXPECT_NEAR((*duel)["warning"].get<double>(), 0.1, 1e-9);
  EXPECT_FALSE(duel->contains("defeated"));
}

TEST_F(Command, WhyPrintsTheContractsJson) {
  const Answer answer = gaze_call({"why", GAZE_DEMO, "--agent", "sprinkler-2", "--other",
                                   "collector", "--at", "3.0", "--json"});
  ASSERT_EQ(answer.status, 0);
  const Json why = Json::parse(answer.out);
  EXPECT_EQ(why["time"], 3.0);
  EXPECT_EQ(why["agent"], "sprinkler-2");
  EXPECT_EQ(why["sees"], false);
  ASSERT_EQ(why["tests"].size(), 3U);
  EXPECT_EQ(why["tests"][0]["test"], "range");
  EXPECT_EQ(why["tests"][0]["limit"], 10.0);
  EXPECT_EQ(why["tests"][1]["test"], "field of view");
  EXPECT_EQ(why["tests"][1]["limit"], 30.0);
  EXPECT_EQ(why["tests"][2]["test"], "line of sight");
  EXPECT_TRUE(why["tests"][2].contains("visible"));
  EXPECT_FALSE(why["reason"].get<std::string>().empty());
  // The nearest tick; past the end nothing is played.
  const auto at = [](const std::string& seconds) {
    return gaze_call({"why", GAZE_DEMO, "--agent", "pruner-1", "--other", "collector", "--at",
                      seconds, "--json"});
  };
  EXPECT_EQ(Json::parse(at("27.009").out)["time"], 27.016666667);
  EXPECT_EQ(at("29").status, 2);
  EXPECT_EQ(at("29").err,
            "gaze: error: --at 29 s lies beyond the run of this level, which lasts 28 s; "
            "--seconds 29 makes it longer\n");
}

TEST_F(Command, WhySaysItInWords) {
  const Answer answer =
      gaze_call({"why", GAZE_DEMO, "--agent", "collector", "--other", "pruner-1", "--at", "1"});
  EXPECT_EQ(answer.out,
            "At 1.000 s collector (mode script) does not notice pruner-1.\n"
            "  because        it has no senses\n"
            "  moves          3.00 m/s; it goes straight\n"
            "  no attack      peas: it is driven, and attacks only as its driver says\n");
  const Answer nobody =
      gaze_call({"why", GAZE_DEMO, "--agent", "pruner-2", "--other", "collector", "--at", "1"});
  EXPECT_EQ(nobody.status, 2);
  EXPECT_EQ(nobody.err, "gaze: error: there is no agent 'pruner-2'; did you mean 'pruner-1'?\n");
}

TEST_F(Command, DrawWritesWholePicturesOfBothKinds) {
  const fs::path png = folder / "a.png";
  EXPECT_EQ(gaze_call({"draw", GAZE_DEMO, "--at", "5", "--output", png.string()}).status, 0);
  EXPECT_EQ(bytes_of(png).substr(0, 8), "\x89PNG\r\n\x1a\n");
  EXPECT_NE(bytes_of(png).find("IEND"), std::string::npos);
  const fs::path svg = folder / "a.svg";
  EXPECT_EQ(gaze_call({"draw", GAZE_DEMO, "--at", "5", "--output", svg.string()}).status, 0);
  // What the library draws after as many steps.
  Simulation simulation(read_level(GAZE_DEMO));
  Trails trails(simulation);
  trails.add(simulation);
  while (simulation.tick() < 300) {
    simulation.step();
    trails.add(simulation);
  }
  PictureOptions options;
  EXPECT_TRUE(bytes_of(png) == gaze::draw(simulation, trails, options));
  options.format = PictureFormat::svg;
  const std::string drawn = gaze::draw(simulation, trails, options);
  EXPECT_EQ(testing::count_of(bytes_of(svg), "<path"), testing::count_of(drawn, "<path"));
  EXPECT_EQ(bytes_of(svg).size(), drawn.size());
}

TEST_F(Command, WritesWholeOrNotAtAll) {
  const auto draw_to = [](const std::string& file) {
    return gaze_call({"draw", GAZE_DEMO, "--output", file});
  };
  const std::string missing = (folder / "no" / "a.png").string();
  EXPECT_EQ(draw_to(missing).status, 2);
  EXPECT_EQ(draw_to(missing).err,
            "gaze: error: " + missing + " cannot be written: No such file or directory\n");
  fs::create_directory(folder / "d.png");
  EXPECT_EQ(draw_to((folder / "d.png").string()).status, 2);
  EXPECT_EQ(draw_to("a.gif").err, "gaze: error: --output a.gif does not end in .png or .svg\n");
  EXPECT_EQ(gaze_call({"run", GAZE_DEMO, "--trace", "a.txt"}).status, 2);
  fs::create_symlink("/dev/full", folder / "full.png");
  EXPECT_EQ(draw_to((folder / "full.png").string()).status, 2);
  for (const auto& entry : fs::directory_iterator(folder)) {
    EXPECT_EQ(entry.path().string().find(".part"), std::string::npos) << entry.path();
  }
}

TEST_F(Command, DemoPlaysAndWritesItsPictures) {
  const Answer answer = gaze_call({"demo", "--output", (folder / "out").string()});
  EXPECT_EQ(answer.status, 0);
  int files = 0;
  for (const auto& entry : fs::directory_iterator(folder / "out")) {
    ++files;
    EXPECT_NE(answer.out.find("wrote " + entry.path().string()), std::string::npos);
  }
  EXPECT_EQ(files, 4);  // three pictures and a replay
  EXPECT_TRUE(fs::exists(folder / "out" / "replay.html"));
  EXPECT_NE(answer.out.find("To play it yourself:"), std::string::npos);
  for (const char* story :
       {"noticed   pruner-1", "patrol to chase", "fired     sprinkler-1", "to jet of sprinkler-1",
        "to shears of long-pruner-1", "took      collector",
        "blast     the splash of compost-jar-2", "defeated  pruner-1"}) {
    EXPECT_NE(answer.out.find(story), std::string::npos) << story;
  }
}

TEST_F(Command, WrongUseIsStatusTwoAndOneLine) {
  for (const std::vector<std::string>& arguments : std::vector<std::vector<std::string>>{
           {},
           {"frobnicate"},
           {"run"},
           {"run", "a", "b"},
           {"why", GAZE_DEMO},
           {"run", GAZE_DEMO, "--no"},
           {"draw", GAZE_DEMO, "--output", "a.png", "--at", "nan"},
           {"run", GAZE_DEMO, "--set", "x"},
           {"run", GAZE_DEMO, "--seconds", "abc"},
           {"run", GAZE_DEMO, "--ticks-per-second", "0"}}) {
    const Answer answer = gaze_call(arguments);
    EXPECT_EQ(answer.status, 2);
    EXPECT_TRUE(answer.out.empty());
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << answer.err;
  }
  EXPECT_EQ(gaze_call({"--help"}).status, 0);
  EXPECT_EQ(gaze_call({"run", "--help"}).status, 0);
  EXPECT_EQ(gaze_call({"--version"}).out, "gaze 0.1.0\n");
}

TEST_F(Command, FromOutsideDoesTheSame) {
  const std::string program = testing::program("gaze");
  EXPECT_EQ(shell(program + " check " + GAZE_DEMO).status, 0);
  EXPECT_EQ(shell(program + " run " + GAZE_DEMO + " > /dev/full").status, 2);
  EXPECT_EQ(shell(program + " run " + GAZE_DEMO + " --json").out,
            gaze_call({"run", GAZE_DEMO, "--json"}).out);
  EXPECT_EQ(shell("cd " + folder.string() + " && " + program + " demo").status, 0);
  EXPECT_TRUE(fs::exists(folder / "gaze-demo" / "moment-1.png"));
}

TEST_F(Command, ExamplesRun) {
  const Answer first = shell(testing::program("examples/first_look") + " " + GAZE_DEMO);
  EXPECT_EQ(first.status, 0);
  EXPECT_NE(first.out.find("pruner-1 noticed collector by sight"), std::string::npos);
  const Answer own = shell(testing::program("examples/own_loop"));
  EXPECT_EQ(own.status, 0);
  // The wall hides the player for part of its round: it is lost and noticed again.
  EXPECT_NE(own.out.find("sprinkler lost player"), std::string::npos) << own.out;
  EXPECT_NE(own.out.find("player lost 4 health to jet"), std::string::npos);
}

}  // namespace
}  // namespace gaze
