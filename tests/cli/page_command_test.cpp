#include <gtest/gtest.h>

#include <fstream>

#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

/// `gaze replay`, and what `gaze play` refuses; that it serves is tried in tests/page.
namespace gaze {
namespace {

using testing::gaze_call;

class PageCommand : public testing::InTemporaryFolder {};

TEST_F(PageCommand, ReplayWritesAPageWholeOrNotAtAll) {
  const std::string file = (folder / "play.html").string();
  const std::string seconds = testing::is_sanitized() ? "0.5" : "2";
  const auto answer = gaze_call({"replay", GAZE_DEMO, "--seconds", seconds, "--output", file});
  EXPECT_EQ(answer.status, 0);
  EXPECT_TRUE(answer.out.starts_with(file)) << answer.out;
  std::ifstream in(file);
  const std::string page{std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>()};
  EXPECT_TRUE(page.starts_with("<!doctype html>"));
  EXPECT_NE(page.find("id=\"replay\""), std::string::npos);
  EXPECT_TRUE(page.ends_with("</html>\n"));
  // The same play gives the same bytes.
  const std::string again = (folder / "again.html").string();
  EXPECT_EQ(gaze_call({"replay", GAZE_DEMO, "--seconds", seconds, "--output", again}).status, 0);
  std::ifstream other(again);
  EXPECT_EQ(page, std::string(std::istreambuf_iterator<char>(other), {}));

  // What is written over keeps who may read it.
  namespace fs = std::filesystem;
  fs::permissions(file, fs::perms::owner_read | fs::perms::owner_write);
  EXPECT_EQ(gaze_call({"replay", GAZE_DEMO, "--seconds", "0.5", "--output", file}).status, 0);
  EXPECT_EQ(fs::status(file).permissions(), fs::perms::owner_read | fs::perms::owner_write);

  EXPECT_EQ(
      gaze_call({"replay", GAZE_DEMO, "--output", (folder / "a.png").string()}).err,
      "gaze: error: --output " + (folder / "a.png").string() + ": a replay is written as .html\n");
  const std::string missing = (folder / "no" / "a.html").string();
  EXPECT_EQ(gaze_call({"replay", GAZE_DEMO, "--seconds", "1", "--output", missing}).status, 2);
  EXPECT_EQ(gaze_call({"replay", GAZE_DEMO}).status, 2);
}

// Whatever stands in a level, it ends no element of the page.
TEST_F(PageCommand, ReplayHoldsNamesOfAnySort) {
  const auto level =
      write("odd.toml",
            "name = \"</script><script>alert(1)</script><!-- \\u2028 \"\nseconds = 1\n"
            "[kind.a]\n[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [0, 0]\n");
  const std::string file = (folder / "odd.html").string();
  ASSERT_EQ(gaze_call({"replay", level.string(), "--output", file}).status, 0);
  std::ifstream in(file);
  const std::string page{std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>()};
  EXPECT_EQ(page.find("<script>alert"), std::string::npos);
  EXPECT_EQ(page.find("<!--"), std::string::npos);
}

TEST_F(PageCommand, PlayRefusesWhatItCannotServe) {
  EXPECT_EQ(gaze_call({"play", GAZE_DEMO, "--port", "70000"}).err,
            "gaze: error: --port 70000; 1 to 65535 is allowed\n");
  EXPECT_EQ(gaze_call({"play", GAZE_DEMO, "--agent", "pruner-1"}).status, 2);
  EXPECT_EQ(gaze_call({"play", GAZE_DEMO, "--agent", "nobody"}).status, 2);
  EXPECT_EQ(gaze_call({"play", (folder / "none.toml").string()}).status, 2);
}

}  // namespace
}  // namespace gaze
