#include <gtest/gtest.h>

#include <cstdlib>
#include <filesystem>

#include "gaze/tools/level_keys.hpp"
#include "support/command.hpp"
#include "support/programs.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::gaze_call;

TEST(KeysCommand, PrintsSchemaAndReference) {
  EXPECT_EQ(gaze_call({"schema"}).out, level_schema());
  EXPECT_EQ(gaze_call({"schema", "--reference"}).out, level_reference());
}

TEST(KeysCommand, PrintsOnePathALine) {
  const auto answer = gaze_call({"complete", GAZE_DEMO, "kind.pruner.sight.r"});
  EXPECT_EQ(answer.status, 0);
  EXPECT_EQ(answer.out, "kind.pruner.sight.range\nkind.pruner.sight.remember\n");
  EXPECT_EQ(gaze_call({"complete", "no-such.toml", "kind."}).status, 2);
}

class Completion : public testing::InTemporaryFolder {
 protected:
  // What bash offers after these words, the last of which is being written.
  std::string offered(const std::string& words) {
    const std::string path = std::filesystem::path(testing::program("gaze")).parent_path().string();
    const auto script = write("complete.sh", "PATH=" + path +
                                                 ":$PATH\nsource " GAZE_SOURCE
                                                 "/scripts/gaze.bash-completion\nCOMP_WORDS=(" +
                                                 words +
                                                 ")\nCOMP_CWORD=$((${#COMP_WORDS[@]} - 1))\n"
                                                 "_gaze\necho \"${COMPREPLY[*]}\"\n");
    const std::string line = "bash " + script.string() + " > " + (folder / "out").string();
    EXPECT_EQ(std::system(line.c_str()), 0);
    return testing::bytes_of(folder / "out");
  }
};

TEST_F(Completion, KnowsCallsOptionsAndPaths) {
  EXPECT_EQ(offered("gaze ru"), "run\n");
  EXPECT_EQ(offered("gaze cover --spo"), "--spot --spots\n");
  EXPECT_EQ(offered("gaze run " GAZE_DEMO " --set kind.pruner.sight.field"),
            "kind.pruner.sight.field_of_view=\n");
  EXPECT_EQ(offered("gaze run " GAZE_DEMO " --set kind.prune"), "kind.pruner.\n");
}

}  // namespace
}  // namespace gaze
