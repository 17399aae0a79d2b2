// The command where things go wrong around it: options, files, links, signals.

#include <fcntl.h>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <locale>
#include <nlohmann/json.hpp>
#include <sstream>
#include <thread>

#include "support/command.hpp"
#include "support/programs.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

namespace fs = std::filesystem;
using testing::Answer;
using testing::bytes_of;
using testing::gaze_call;

class BadWeather : public testing::InTemporaryFolder {
 protected:
  std::string level() {
    return write("level.toml",
                 "[kind.pot]\n[kind.pot.sight]\nrange = 5.0\nfield_of_view = 90.0\n"
                 "keep_range = 6.0\n[[agent]]\nid = \"pot-1\"\nkind = \"pot\"\n"
                 "at = [0, 0]\n[figure.seen]\ncount = \"noticed\"\n")
        .string();
  }

  // What a call says that ends with status 2.
  static std::string refused(const std::vector<std::string>& call) {
    const Answer answer = gaze_call(call);
    EXPECT_EQ(answer.status, 2) << answer.out;
    return answer.err;
  }

  // A level with one mesh of this file.
  std::string mesh_fault(const std::string& file) {
    const auto of_mesh =
        write("mesh.toml", "[[mesh]]\nid = \"m\"\nmaterial = \"brick\"\nfile = \"" + file + "\"\n");
    return refused({"check", of_mesh.string()});
  }

  // Starts the command in a process of its own; what it prints comes to the file `printed`, and
  // what it says as an error to `told`.
  pid_t start(std::vector<std::string> call, bool as_nobody = false) const {
    call.insert(call.begin(), "gaze");
    const std::string command = testing::program("gaze");
    const std::string printed = (folder / "printed").string();
    const std::string told = (folder / "told").string();
    const pid_t child = fork();
    EXPECT_GE(child, 0);
    if (child != 0) return child;
    dup2(open(printed.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0644), STDOUT_FILENO);
    dup2(open(told.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0644), STDERR_FILENO);
    constexpr uid_t kNobody = 65534;
    if (as_nobody && getuid() == 0 && setuid(kNobody) != 0) _exit(98);
    std::vector<char*> arguments;
    for (std::string& argument : call) arguments.push_back(argument.data());
    arguments.push_back(nullptr);
    execv(command.c_str(), arguments.data());
    _exit(99);
  }

  // -1: a signal ended it.
  static int status_of(pid_t child) {
    int status = 0;
    EXPECT_EQ(waitpid(child, &status, 0), child);
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
  }

  static void wait_a_little() { std::this_thread::sleep_for(std::chrono::milliseconds(10)); }

  static void wait_for_a_file(const fs::path& where) {
    const auto is_there = [&] {
      return std::any_of(
          fs::directory_iterator(where), fs::directory_iterator(),
          [](const auto& entry) { return entry.path().filename().string().starts_with(".gaze"); });
    };
    for (int i = 0; i < 1000 && !is_there(); ++i) wait_a_little();
    EXPECT_TRUE(is_there());
  }

  // Neither what was asked for nor what it is written under on the way.
  std::size_t files_but_the_level() const {
    std::size_t count = 0;
    for (const auto& entry : fs::directory_iterator(folder)) {
      const fs::path name = entry.path().filename();
      count += name != "level.toml" && name != "told" && name != "printed";
    }
    return count;
  }
};

TEST_F(BadWeather, SettingsOfWholeTablesAndOfNoNumber) {
  EXPECT_EQ(refused({"check", level(), "--set", "kind.pot=1"}),
            "--set kind.pot: error: kind.pot is a table; one of its keys is set, as "
            "kind.pot.KEY=VALUE\n");
  EXPECT_EQ(refused({"check", level(), "--set", "agent.pot-1=1"}),
            "--set agent.pot-1: error: agent.pot-1 is a table; one of its keys is set, as "
            "agent.pot-1.KEY=VALUE\n");
  EXPECT_EQ(refused({"check", level(), "--set", "kind.pot.sight.range=1e999"}),
            "--set kind.pot.sight.range: error: 'kind.pot.sight.range=1e999' is no number that "
            "TOML can hold\n");
  // A range at fault is told once, and not that it is above what it keeps as well.
  EXPECT_EQ(refused({"check", level(), "--set", "kind.pot.sight.range=far"}),
            "--set kind.pot.sight.range: error: kind.pot.sight.range is the text \"far\"; a number "
            "is needed\n");
}

TEST_F(BadWeather, OptionsWithoutValuesAndTwice) {
  EXPECT_EQ(refused({"run", level(), "--seconds", ""}), "gaze: error: --seconds has no value\n");
  EXPECT_EQ(refused({"run", level(), "--seed="}), "gaze: error: --seed has no value\n");
  EXPECT_EQ(refused({"draw", level(), "--at", "", "--output", "a.png"}),
            "gaze: error: --at has no value\n");
  EXPECT_EQ(
      refused({"check", level(), "--set", "seconds=-1", "--seconds", "5"}),
      "gaze: error: --seconds and --set seconds say the same thing; one of them is allowed\n");
}

// The output is tested first: the level does not exist.
TEST_F(BadWeather, WhatCannotBeWrittenIsRefusedBeforeAnythingIsPlayed) {
  const std::string file = (folder / "gone" / "x.svg").string();
  const std::string expected =
      "gaze: error: " + file + " cannot be written: No such file or directory\n";
  EXPECT_EQ(refused({"draw", "no-level.toml", "--output", file}), expected);
  EXPECT_EQ(refused({"run", "no-level.toml", "--trace", file}), expected);
  EXPECT_EQ(refused({"cover", "no-level.toml", "--spots", file}), expected);
  EXPECT_EQ(
      refused({"vary", "no-level.toml", "--over", "seconds=1,2", "--figure", "x", "--csv", file}),
      expected);
  EXPECT_EQ(refused({"expect", "no-level.toml", "--junit", file}), expected);
}

// The permissions count even if the superuser runs the test.
TEST_F(BadWeather, AReadOnlyFileIsNotReplaced) {
  const fs::path file = write("picture.svg", "mine");
  fs::permissions(file, fs::perms::owner_read | fs::perms::group_read);
  EXPECT_EQ(refused({"draw", level(), "--output", file.string()}),
            "gaze: error: " + file.string() + " cannot be written: Permission denied\n");
  std::ifstream in(file);
  std::string text;
  std::getline(in, text);
  EXPECT_EQ(text, "mine");
}

TEST_F(BadWeather, PipesAndMeshesThatNeverEnd) {
  const std::string pipe = (folder / "pipe.obj").string();
  ASSERT_EQ(mkfifo(pipe.c_str(), 0600), 0);
  EXPECT_EQ(refused({"check", pipe}), pipe + ":1:1: error: is not a regular file\n");
  EXPECT_NE(mesh_fault("pipe.obj").find("pipe.obj is not a regular file"), std::string::npos);
  // What a mesh names beside it says how it looks, and is not opened.
  ASSERT_EQ(mkfifo((folder / "pipe.mtl").c_str(), 0600), 0);
  write("roof.obj", "mtllib pipe.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n");
  const auto roofed =
      write("roofed.toml", "[[mesh]]\nid = \"m\"\nmaterial = \"brick\"\nfile = \"roof.obj\"\n");
  EXPECT_EQ(gaze_call({"check", roofed.string()}).status, 1);  // there are no agents
}

TEST_F(BadWeather, MeshesThatLieInEachOtherTooDeep) {
  write("brackets.gltf", std::string(1'000'000, '['));
  EXPECT_NE(mesh_fault("brackets.gltf").find("has brackets in each other more than 200 deep"),
            std::string::npos);
  const auto nodes = [&](std::size_t count, auto&& child_of) {
    nlohmann::json gltf{{"asset", {{"version", "2.0"}}}, {"scene", 0}};
    gltf["scenes"] = {{{"nodes", {0}}}};
    gltf["nodes"] = nlohmann::json::array();
    for (std::size_t i = 0; i < count; ++i) {
      gltf["nodes"].push_back(nlohmann::json::object());
      const std::size_t child = child_of(i);
      if (child < count) gltf["nodes"].back()["children"] = {child};
    }
    write("nodes.gltf", gltf.dump());
    return mesh_fault("nodes.gltf");
  };
  const std::string deep = "has nodes in each other more than 200 deep";
  EXPECT_NE(nodes(100'000, [](std::size_t i) { return i + 1; }).find(deep), std::string::npos);
  EXPECT_NE(nodes(1'000, [](std::size_t i) { return i - 1; }).find(deep), std::string::npos);
  EXPECT_NE(nodes(3, [](std::size_t i) { return (i + 1) % 3; }).find(deep), std::string::npos);
  EXPECT_EQ(nodes(199, [](std::size_t i) { return i + 1; }).find(deep), std::string::npos);
}

TEST_F(BadWeather, CopiesBeyondTheEdge) {
  const auto far = write("far.toml",
                         "[kind.pot]\n[[agent]]\nid = \"pot\"\nkind = \"pot\"\n"
                         "at = [0, 0]\ncopies = 10000\napart = [20000, 0]\n");
  EXPECT_EQ(refused({"check", far.string()}),
            far.string() +
                ":2:1: error: pot-3 comes to lie farther than 20000 m out; no place "
                "may\n");
}

TEST_F(BadWeather, NamesAsLongAsNamesCanBe) {
  const fs::path file = folder / (std::string(251, 'a') + ".svg");
  EXPECT_EQ(gaze_call({"draw", level(), "--output", file.string()}).status, 0);
  EXPECT_TRUE(fs::exists(file));
  const std::string too_long = (folder / (std::string(252, 'a') + ".svg")).string();
  const std::string told = refused({"draw", level(), "--output", too_long});
  EXPECT_NE(told.find(too_long + " cannot be written: File name too long"), std::string::npos);
  EXPECT_EQ(files_but_the_level(), 1U);
}

TEST_F(BadWeather, LinksAreFollowed) {
  const std::string given = level();
  const fs::path link = folder / "link.svg";
  fs::create_directory(folder / "sub");
  fs::create_symlink("sub/real.svg", link);
  EXPECT_EQ(gaze_call({"draw", given, "--output", link.string()}).status, 0);
  EXPECT_TRUE(fs::is_symlink(link));
  EXPECT_TRUE(fs::is_regular_file(folder / "sub" / "real.svg"));
}

// At once, with the status of shells, and without a trace of what was being written.
TEST_F(BadWeather, SignalsEndItAndLeaveNothingBehind) {
  const std::string trace = (folder / "trace.csv").string();
  for (const int signal : {SIGINT, SIGTERM}) {
    const pid_t child = start({"run", level(), "--seconds", "86400", "--trace", trace});
    wait_for_a_file(folder);
    const auto before = std::chrono::steady_clock::now();
    ASSERT_EQ(kill(child, signal), 0);
    EXPECT_EQ(status_of(child), 128 + signal);
    EXPECT_LT(std::chrono::steady_clock::now() - before, std::chrono::seconds(1));
    EXPECT_EQ(files_but_the_level(), 0U);
  }
}

// What is done is shown: rows of values of which all runs were played, and of no others.
TEST_F(BadWeather, AnInterruptEndsAStudyWithWhatIsDone) {
  constexpr std::size_t kRuns = 20;
  const pid_t child =
      start({"vary", level(), "--over", "kind.pot.sight.range=1:5:0.001", "--figure", "seen",
             "--runs", std::to_string(kRuns), "--seconds", "20"});
  for (int i = 0; i < 50; ++i) wait_a_little();
  ASSERT_EQ(kill(child, SIGINT), 0);
  EXPECT_EQ(status_of(child), 128 + SIGINT);
  std::istringstream told(bytes_of(folder / "told"));
  std::size_t done = 0;
  std::size_t all = 0;
  std::string word;
  told >> word >> word >> done >> word >> all;
  EXPECT_EQ(all, 4001U * kRuns) << told.str();
  EXPECT_LT(done, all);
  const auto rows = testing::lines_of(bytes_of(folder / "printed"));
  EXPECT_LE(rows.size(), done / kRuns + 4) << done;
  EXPECT_GE(rows.size() + 4, done / kRuns) << done;
}

// Nothing can be tidied up then; but no file has the name that was asked for.
TEST_F(BadWeather, KilledItLeavesNoHalfFile) {
  const fs::path trace = folder / "trace.csv";
  const pid_t child = start({"run", level(), "--seconds", "86400", "--trace", trace.string()});
  wait_for_a_file(folder);
  ASSERT_EQ(kill(child, SIGKILL), 0);
  EXPECT_EQ(status_of(child), -1);
  EXPECT_FALSE(fs::exists(trace));
}

TEST_F(BadWeather, TheFolderGoesWhileItWrites) {
  const fs::path sub = folder / "sub";
  fs::create_directory(sub);
  const pid_t child =
      start({"run", level(), "--seconds", "20000", "--trace", (sub / "trace.csv").string()});
  wait_for_a_file(sub);
  fs::remove_all(sub);
  EXPECT_EQ(status_of(child), 2);
  EXPECT_TRUE(bytes_of(folder / "told")
                  .ends_with("gaze: error: " + (sub / "trace.csv").string() +
                             " cannot be written: No such file or directory\n"));
}

TEST_F(BadWeather, ALongRunSaysHowFarItIs) {
  const pid_t child = start({"run", level(), "--seconds", "86400", "--ticks-per-second", "1000"});
  for (int i = 0; i < 1000 && bytes_of(folder / "told").empty(); ++i) wait_a_little();
  ASSERT_EQ(kill(child, SIGINT), 0);
  EXPECT_EQ(status_of(child), 128 + SIGINT);
  const std::string told = bytes_of(folder / "told");
  EXPECT_EQ(told.find("played "), 0U);
  EXPECT_NE(told.find(" of 86400.0 s\n"), std::string::npos);
}

// Who reads the first line alone has what it wants; more output than a pipe holds follows it.
TEST_F(BadWeather, AClosedPipeEndsItQuietly) {
  const std::string line = testing::program("gaze") + " run " + GAZE_DEMO + " --json 2> " +
                           (folder / "told").string() + " | head -1 > " + (folder / "out").string();
  EXPECT_EQ(std::system(line.c_str()), 0);
  std::istringstream told(bytes_of(folder / "told"));
  for (std::string one; std::getline(told, one);) {
    EXPECT_TRUE(one.starts_with("played ")) << one;  // how far a slow machine has come
  }
  EXPECT_FALSE(bytes_of(folder / "out").empty());
}

TEST_F(BadWeather, OrdinaryUsersAreToldWhatIsNotTheirs) {
  const std::string given = level();
  const fs::path closed = folder / "closed";
  fs::create_directory(closed);
  fs::permissions(folder, fs::perms(0777));
  fs::permissions(closed, fs::perms(0555));
  const std::string picture = (closed / "a.svg").string();
  EXPECT_EQ(status_of(start({"draw", given, "--output", picture}, true)), 2);
  EXPECT_EQ(bytes_of(folder / "told"),
            "gaze: error: " + picture + " cannot be written: Permission denied\n");
  fs::permissions(given, fs::perms(0000));
  EXPECT_EQ(status_of(start({"check", given}, true)), 2);
  EXPECT_EQ(bytes_of(folder / "told"), given + ":1:1: error: cannot be read: Permission denied\n");
}

TEST_F(BadWeather, NoHomeAndNothingElseInTheEnvironment) {
  const std::string line = std::string("env -i LSAN_OPTIONS=\"$LSAN_OPTIONS\" ") +
                           testing::program("gaze") + " draw " + GAZE_DEMO + " --at 1 --output " +
                           (folder / "a.png").string() + " > /dev/null 2>&1";
  EXPECT_EQ(std::system(line.c_str()), 0);
  EXPECT_TRUE(fs::exists(folder / "a.png"));
}

// A program around the library may have set that: files and numbers stay as they are.
TEST_F(BadWeather, CommasInNumbersElsewhere) {
  struct Commas : std::numpunct<char> {
    char do_decimal_point() const override { return ','; }
    char do_thousands_sep() const override { return '.'; }
    std::string do_grouping() const override { return "\3"; }
  };
  const auto everything = [&] {
    const std::string trace = (folder / "t.csv").string();
    const std::string spots = (folder / "s.csv").string();
    std::string all = gaze_call({"run", GAZE_DEMO, "--json", "--trace", trace}).out;
    all += gaze_call({"cover", GAZE_DEMO, "--at", "5.6", "--spots", spots}).out;
    all += gaze_call({"check", GAZE_DEMO, "--notes"}).out;
    return all + bytes_of(trace) + bytes_of(spots);
  };
  const std::string usual = everything();
  const std::locale before = std::locale::global(std::locale(std::locale(), new Commas));
  const std::string with_commas = everything();
  std::locale::global(before);
  EXPECT_TRUE(usual == with_commas);
  EXPECT_GT(usual.size(), 100'000U);
}

TEST_F(BadWeather, SettingsWithOddPaths) {
  const std::vector<std::pair<std::string, std::string>> odd{
      {"=1", "gaze: error: --set =1 is not of the form PATH=VALUE\n"},
      {"seconds", "gaze: error: --set seconds is not of the form PATH=VALUE\n"},
      {"kind..health=1", "--set kind..health: error: there is no kind '' to set a value of\n"},
      {"kind.\"pot\".health=1",
       "--set kind.\"pot\".health: error: there is no kind '\"pot\"' to set a value of; did you "
       "mean 'pot'?\n"},
      {"agent.0.at=[0,0]", "--set agent.0.at: error: there is no agent '0' to set a value of\n"},
      {"kind.pot.radius=", "--set kind.pot.radius: error: 'kind.pot.radius=' has no TOML value\n"},
      {"kind.pot.radius=0.4\nx=1",
       "--set kind.pot.radius: error: 'kind.pot.radius=0.4\\x0Ax=1' has no TOML value\n"},
  };
  for (const auto& [set, told] : odd) EXPECT_EQ(refused({"check", level(), "--set", set}), told);
  const std::string deep = "a.b.c.d.e.f.g.h.i.j.k.l.m.n.o.p=1";
  EXPECT_EQ(refused({"check", level(), "--set", deep}).find("--set a.b.c.d.e.f.g.h"), 0U);
}

TEST_F(BadWeather, TimesBeforeTheBeginning) {
  EXPECT_EQ(refused({"draw", level(), "--at", "-1", "--output", "a.svg"}),
            "gaze: error: --at -1 s; 0 to 86400 is allowed\n");
  EXPECT_EQ(refused({"why", level(), "--all", "--at", "-0.5"}),
            "gaze: error: --at -0.5 s; 0 to 86400 is allowed\n");
  EXPECT_EQ(refused({"run", level(), "--seconds", "-1"}),
            "--seconds: error: seconds is -1; above 0 to 86400 s is allowed\n");
}

}  // namespace
}  // namespace gaze
