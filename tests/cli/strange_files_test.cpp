// Level files as editors, systems and mistakes make them: encodings, line ends, links, rings.

#include <gtest/gtest.h>
#include <sys/stat.h>

#include "support/command.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

namespace fs = std::filesystem;
using testing::Answer;
using testing::gaze_call;

const char* const kLevel = "[kind.pot]\n[[agent]]\nid = \"pot-1\"\nkind = \"pot\"\nat = [0, 0]\n";

class StrangeFiles : public testing::InTemporaryFolder {
 protected:
  static std::string refused(const fs::path& file) {
    const Answer answer = gaze_call({"check", file.string()});
    EXPECT_EQ(answer.status, 2) << answer.out;
    return answer.err;
  }
  std::string named(const char* file) const { return (folder / file).string(); }
};

TEST_F(StrangeFiles, LineEndsAndMarksOfOtherSystems) {
  std::string crlf;
  for (const char* c = kLevel; *c != '\0'; ++c) crlf += *c == '\n' ? "\r\n" : std::string(1, *c);
  for (const std::string& text : {crlf, "\xEF\xBB\xBF" + std::string(kLevel)}) {
    const Answer answer = gaze_call({"check", write("other.toml", text).string()});
    EXPECT_EQ(answer.status, 0) << answer.err;
  }
}

TEST_F(StrangeFiles, OtherEncodingsAreToldByPlace) {
  const auto latin = write("latin.toml", std::string(kLevel) + "# caf\xE9\n");
  EXPECT_EQ(refused(latin), latin.string() +
                                ":6:6: error: not TOML: Encountered invalid utf-8 "
                                "sequence\n");
  const auto wide = write("wide.toml", std::string("\xFF\xFE[\0k\0]\0", 8));
  EXPECT_EQ(refused(wide).find(wide.string() + ":1:1: error: not TOML"), 0U);
}

// Every letter of what was written shows, and the message is one line.
TEST_F(StrangeFiles, ControlLettersAreWrittenOut) {
  const auto file = write("odd.toml",
                          "[kind.pot]\n[[agent]]\nid = \"p\"\nkind = \"pot\\n\\u001b[31m\"\n"
                          "at = [0, 0]\n");
  EXPECT_EQ(refused(file), file.string() + ":4:8: error: there is no kind 'pot\\x0A\\x1B[31m'\n");
  EXPECT_EQ(refused(folder / "no\nsuch.toml"),
            named("no\\x0Asuch.toml") + ":1:1: error: there is no such file\n");
}

TEST_F(StrangeFiles, NamesOfTenThousandLettersAndOfOtherScripts) {
  const std::string id(10'000, 'a');
  const auto file = write(
      "long.toml", "[kind.pot]\n[[agent]]\nid = \"" + id + "\"\nkind = \"pot\"\nat = [0, 0]\n");
  const Answer answer = gaze_call({"run", file.string(), "--seconds", "0.1"});
  EXPECT_EQ(answer.status, 0) << answer.err;
  EXPECT_NE(answer.out.find(id), std::string::npos);
  const auto other = write("other.toml", "[kind.\"花\"]\n");
  EXPECT_EQ(refused(other), other.string() +
                                ":1:7: error: kind '花' is no name; letters, digits, _ "
                                "and - are allowed\n");
}

TEST_F(StrangeFiles, IncludesInARing) {
  write("b.toml", "include = [\"a.toml\"]\n");
  EXPECT_EQ(refused(write("a.toml", "include = [\"b.toml\"]\n")),
            named("b.toml") +
                ":1:1: error: 'include' in an included file; team, material and kind are "
                "allowed there\n");
  EXPECT_NE(refused(write("self.toml", "include = [\"self.toml\"]\n")).find("'include' in an"),
            std::string::npos);
}

TEST_F(StrangeFiles, IncludesByLinksAreFollowed) {
  write("kinds.toml", "[kind.pot]\n");
  fs::create_symlink("kinds.toml", folder / "link.toml");
  const auto file = write("level.toml",
                          "include = [\"link.toml\"]\n[[agent]]\nid = \"p\"\nkind = \"pot\"\n"
                          "at = [0, 0]\n");
  EXPECT_EQ(gaze_call({"check", file.string()}).status, 0);
  fs::create_symlink("two.toml", folder / "one.toml");
  fs::create_symlink("one.toml", folder / "two.toml");
  EXPECT_EQ(refused(folder / "one.toml"),
            named("one.toml") + ":1:1: error: there is no such file\n");
}

TEST_F(StrangeFiles, IncludesOfWhatIsNoFile) {
  ASSERT_EQ(mkfifo(named("pipe").c_str(), 0600), 0);
  const auto of = [&](const std::string& name) {
    return refused(write("of.toml", "include = [\"" + name + "\"]\n"));
  };
  EXPECT_EQ(of("pipe"), named("pipe") + ":1:1: error: is not a regular file\n" + named("of.toml") +
                            ":1:12: error: cannot include 'pipe'\n");
  EXPECT_EQ(of("/dev/zero"), "/dev/zero:1:1: error: is not a regular file\n" + named("of.toml") +
                                 ":1:12: error: cannot include '/dev/zero'\n");
  EXPECT_EQ(of(""), named("of.toml") +
                        ":1:12: error: include has an empty text; the name of a file is "
                        "needed\n");
  EXPECT_NE(of(".").find("is a folder"), std::string::npos);
}

}  // namespace
}  // namespace gaze
