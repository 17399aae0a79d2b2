// The command where things go wrong around it: options, files, links, signals.

#include <fcntl.h>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <nlohmann/json.hpp>
#include <thread>

#include "support/command.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

namespace fs = std::filesystem;
using testing::Answer;
using testing::gaze_call;

class BadWeather : public testing::InTemporaryFolder {
 protected:
  std::string level() {
    return write("level.toml",
                 "[kind.pot]\n[kind.pot.sight]\nrange = 5.0\nfield_of_view = 90.0\n"
                 "keep_range = 6.0\n[[agent]]\nid = \"pot-1\"\nkind = \"pot\"\n"
                 "at = [0, 0]\n")
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

  // Neither what was asked for nor what it is written under on the way.
  std::size_t files_but_the_level() const {
    std::size_t count = 0;
    for (const auto& entry : fs::directory_iterator(folder)) {
      count += entry.path().filename() != "level.toml";
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
  const std::string given = level();
  const std::string trace = (folder / "trace.csv").string();
  for (const int signal : {SIGINT, SIGTERM}) {
    const pid_t child = fork();
    ASSERT_GE(child, 0);
    if (child == 0) {
      const int nowhere = open("/dev/null", O_WRONLY);
      dup2(nowhere, STDOUT_FILENO);
      execl(GAZE_COMMAND, "gaze", "run", given.c_str(), "--seconds", "86400", "--trace",
            trace.c_str(), static_cast<char*>(nullptr));
      _exit(99);
    }
    for (int i = 0; i < 500 && files_but_the_level() == 0; ++i) {
      std::this_thread::sleep_for(std::chrono::milliseconds(10));
    }
    EXPECT_EQ(files_but_the_level(), 1U);
    ASSERT_EQ(kill(child, signal), 0);
    int status = 0;
    ASSERT_EQ(waitpid(child, &status, 0), child);
    EXPECT_TRUE(WIFEXITED(status));
    EXPECT_EQ(WEXITSTATUS(status), 128 + signal);
    EXPECT_EQ(files_but_the_level(), 0U);
  }
}

}  // namespace
}  // namespace gaze
