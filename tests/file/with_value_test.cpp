#include "gaze/tools/with_value.hpp"

#include <fmt/format.h>

#include <fstream>

#include "gaze/tools/differences.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

std::string with(const std::string& text, const std::string& path, const std::string& value) {
  return with_value(text, "garden.toml", {path, value});
}

TEST(WithValue, WritesOverWhatStandsThere) {
  EXPECT_EQ(with("seconds = 30.0  # long\n", "seconds", "12"), "seconds = 12.0  # long\n");
  EXPECT_EQ(with("seed=3\r\n", "seed", "12"), "seed=12\r\n");
  EXPECT_EQ(with("name = \"a \\\" b\" # c", "name", "d"), "name = \"d\" # c");
  EXPECT_EQ(with("name = '''x\n'y''' # c", "name", "d"), "name = \"d\" # c");
  EXPECT_EQ(with("[kind.a]\ntags = [ \"]\", # }\n 'x' ]\nradius = 1", "kind.a.tags", "[\"b\"]"),
            "[kind.a]\ntags = [\"b\"]\nradius = 1");
  EXPECT_EQ(with("[kind.a]\nsight = { range = 7.5 , field_of_view = 90 }\n", "kind.a.sight.range",
                 "6.25"),
            "[kind.a]\nsight = { range = 6.25 , field_of_view = 90 }\n");
  EXPECT_EQ(with("name = '\u00e4\u00e4' # \u00fc\n[kind.a]\nradius = 0.3 # \u00e4\n",
                 "kind.a.radius", "0.5"),
            "name = '\u00e4\u00e4' # \u00fc\n[kind.a]\nradius = 0.5 # \u00e4\n");
}

TEST(WithValue, PutsWhatIsNotThereIntoItsTable) {
  EXPECT_EQ(with("[kind.a]\nradius = 0.3\n\n[kind.b]\n", "kind.a.height", "1.5"),
            "[kind.a]\nradius = 0.3\nheight = 1.5\n\n[kind.b]\n");
  EXPECT_EQ(with("[kind.a]\n  sight = {range = 3.0}\n", "kind.a.sight.field_of_view", "90"),
            "[kind.a]\n  sight = {range = 3.0, field_of_view = 90}\n");
  EXPECT_EQ(with("[kind.a]\nsight = { }", "kind.a.sight.range", "9"),
            "[kind.a]\nsight = {  range = 9 }");
  EXPECT_EQ(with("[kind.a]\r\n\tradius = 1.0\r\n", "kind.a.sight.range", "9"),
            "[kind.a]\r\n\tradius = 1.0\r\n\tsight.range = 9\r\n");
  EXPECT_EQ(with("[kind.a]\nsight.range = 3.0", "kind.a.sight.field_of_view", "90"),
            "[kind.a]\nsight.range = 3.0\nsight.field_of_view = 90");
  EXPECT_EQ(with("[[agent]]\nid = \"x\"\n[[agent]]\nid = \"y\" # this\n", "agent.y.facing", "45"),
            "[[agent]]\nid = \"x\"\n[[agent]]\nid = \"y\" # this\nfacing = 45\n");
  EXPECT_EQ(with("[kind.a]\n", "seconds", "9"), "seconds = 9\n[kind.a]\n");
  EXPECT_EQ(with("", "seconds", "9"), "seconds = 9\n");
}

TEST(WithValue, RefusesWhatHasNoPlace) {
  const std::string level = "[kind.a]\n[[agent]]\nid = \"x\"\ncopies = 3\napart = [1, 0]\n";
  EXPECT_THROW(with(level, "agent.x-2.facing", "45"), UsageError);
  EXPECT_THROW(with(level, "agent.z.facing", "45"), LevelError);
  EXPECT_THROW(with(level, "kind.b.radius", "1"), LevelError);
  EXPECT_THROW(with(level, "kind.a", "1"), LevelError);
  EXPECT_THROW(with("[kind", "seconds", "1"), LevelError);
}

/// A level file with its values written in one way or another, by a seed.
std::string some_file(scenes::Random& random) {
  const char* layouts[] = {
      "[kind.a]\nradius = 0.3 # ring\nsight = { range = 7.0, field_of_view = 90.0 }\n",
      "[kind.a]\nradius = 0.3\n[kind.a.sight]\n# far\nrange = 7.0\n",
      "[kind.a] # first\nsight.range = 7.0\nradius=0.3\n",
      "[kind.a]\nradius = 0.3\ntags = [\n  \"one\", # { [\n  'two',\n]\n",
      "kind.a.radius = 0.3\nkind.a.sight = {range=7.0}\n",
      "[kind]\na = { radius = 0.3, sight = { range = 7.0 } }\n"};
  std::string text = layouts[random.next() % std::size(layouts)];
  const char* agents[] = {
      "[[agent]]\nid = \"x\"\nat = [1.0, 2.0]\n",
      "[[agent]]\n  id = 'x' # me\n  at = [ 1.0, # x\n 2.0 ]\n  facing = 20.0\n"};
  text += agents[random.next() % std::size(agents)];
  if (random.next() % 2 == 0) text = "\xEF\xBB\xBF" + ("seconds = 20.0 # \u00fc\u00fc\n" + text);
  if (random.next() % 3 == 0) text.pop_back();
  if (random.next() % 3 == 0) {
    for (std::size_t at = text.find('\n'); at != std::string::npos; at = text.find('\n', at + 2)) {
      text.replace(at, 1, "\r\n");
    }
  }
  return text;
}

bool is_comment_kept(const std::string& before, const std::string& after) {
  const auto count = [](const std::string& text) {
    return std::count(text.begin(), text.end(), '#');
  };
  return count(before) == count(after);
}

class WithValueFiles : public testing::InTemporaryFolder {};

// Of every layout: the file then differs in that value alone, its comments are there, and the old
// value written back gives the same bytes wherever a value stood.
TEST_F(WithValueFiles, ChangeThatValueAlone) {
  const char* paths[] = {"kind.a.radius",     "kind.a.sight.range", "kind.a.sight.field_of_view",
                         "kind.a.sight.near", "agent.x.facing",     "agent.x.sight.range",
                         "seconds",           "kind.a.move.speed"};
  int written_over = 0;
  int put_in = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(600); ++seed) {
    scenes::Random random(seed);
    const std::string before = some_file(random);
    const std::string path = paths[random.next() % std::size(paths)];
    const std::string value = fmt::format("{:.3f}", random.between(0.1, 9.0));
    const std::string after = with(before, path, value);
    const auto differing = differences(write("a.toml", before), {}, write("b.toml", after), {});
    ASSERT_EQ(differing.size(), 1U) << before << path << "\n" << after;
    EXPECT_EQ(differing[0].path, path);
    EXPECT_TRUE(is_comment_kept(before, after));
    if (differing[0].values[0].empty()) {
      ++put_in;
      continue;
    }
    ++written_over;
    EXPECT_EQ(with(after, path, differing[0].values[0]), before) << path;
  }
  if (testing::is_sanitized()) return;
  EXPECT_GT(written_over, testing::enough(100));
  EXPECT_GT(put_in, testing::enough(100));
}

}  // namespace
}  // namespace gaze
