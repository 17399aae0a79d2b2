#include "values/keys.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>

#include "support/levels.hpp"
#include "support/temporary_folder.hpp"
#include "support/text.hpp"

namespace gaze {
namespace {

using testing::faults_of;

std::string replaced(std::string text, const std::string& from, const std::string& to) {
  for (std::size_t at = text.find(from); at != std::string::npos; at = text.find(from, at)) {
    text.replace(at, from.size(), to);
    at += to.size();
  }
  return text;
}

// The text of a level in which a table holds one key with a value that nothing can be.
std::string level_with(const KeyTable& table, const std::string& base, std::string_view key) {
  const std::string entry = base + std::string(key) + " = { nonsense = { } }";
  const std::string agent =
      "[kind.pip]\n[[agent]]\nid = \"one\"\nkind = \"pip\"\nat = [0.0, 0.0]\n";
  if (table.name.empty()) return entry;
  if (&table == &kReactionKeys) return "[kind.pip.when]\nsees = { " + entry + " }\n";
  if (&table == &kStopKeys) return agent + "patrol = [{ " + entry + " }]\n";
  if (&table == &kStepKeys) return agent + "script = [{ " + entry + " }]\n";
  if (&table == &kAgentKeys) return agent + entry;
  return replaced(replaced(std::string(table.title), "NAME", "pip"), "ANY", "own") + "\n" + entry;
}

// What makes a key one of its table: the way of an attack, the step that it belongs to.
std::vector<std::string> bases_of(const KeyTable& table) {
  if (&table == &kAttackKeys) {
    return {"how = \"strike\"\n", "how = \"shot\"\n",  "how = \"beam\"\n",
            "how = \"touch\"\n",  "how = \"burst\"\n", "how = \"catch\"\n"};
  }
  if (&table == &kScanKeys) return {"style = \"sweep\"\n", "style = \"list\"\n"};
  if (&table == &kStepKeys) {
    return {"", "go = [1.0, 1.0], ", "noise = \"a\", reach = 1.0, ", "throw = \"pip\", ",
            "aim = [1.0, 1.0], "};
  }
  return {""};
}

// The reader asks for every key that the list has: whatever stands there, it is looked at.
TEST(Keys, OfTheListAreAllRead) {
  std::size_t count = 0;
  for (const KeyTable* table : all_key_tables()) {
    for (const Key& key : table->keys) {
      const std::string unknown = "unknown key '" + std::string(key.name) + "'";
      bool is_read = false;
      for (const std::string& base : bases_of(*table)) {
        const bool is_given = base.find(std::string(key.name) + " = ") != std::string::npos;
        const std::string text =
            is_given ? level_with(*table, "", key.name) : level_with(*table, base, key.name);
        is_read |= faults_of(text).find(unknown) == std::string::npos;
      }
      EXPECT_TRUE(is_read) << table->title << " " << key.name;
      ++count;
    }
  }
  EXPECT_GT(count, 200U);
}

// The second column of the reference: a way to harm has a key exactly if the list says so.
TEST(Keys, OfAttacksBelongToTheWaysThatTheListNames) {
  for (const std::string& way : words_of(kAttackKeys.key("how"))) {
    for (const Key& key : kAttackKeys.keys) {
      if (key.name == "how") continue;
      const std::string text = level_with(kAttackKeys, "how = \"" + way + "\"\n", key.name);
      const bool is_unknown =
          faults_of(text).find("unknown key '" + std::string(key.name) + "'") != std::string::npos;
      EXPECT_EQ(!is_unknown, is_for(key, way)) << way << " " << key.name;
    }
  }
}

TEST(Keys, OfModesStandInTheOrderOfModes) {
  const std::vector<std::string> words = words_of(kReactionKeys.key("mode"));
  for (std::size_t i = 0; i < words.size(); ++i) {
    EXPECT_EQ(words[i], name_of(static_cast<Mode>(i)));
  }
}

// No number beyond its range gets in, at either end, and the ends themselves do.
TEST(Keys, HoldTheirRangesAtBothEnds) {
  std::size_t count = 0;
  for (const KeyTable* table : {&kSightKeys, &kMoveKeys, &kHearingKeys, &kKindKeys, &kZoneKeys}) {
    for (const Key& key : table->keys) {
      if (key.sort != Key::Sort::number) continue;
      const auto says = [&](double value) {
        const std::string text = replaced(level_with(*table, "", key.name), "{ nonsense = { } }",
                                          fmt::format("{:.9f}", value));
        return faults_of(text).find(std::string(key.name) + " is ") != std::string::npos;
      };
      EXPECT_TRUE(says(key.allowed.high + 0.001)) << key.name;
      EXPECT_TRUE(says(key.allowed.above_low ? key.allowed.low : key.allowed.low - 0.001))
          << key.name;
      if (key.name != "step_height" && key.name != "keep_range") {
        EXPECT_FALSE(says(key.allowed.high)) << key.name;
      }
      ++count;
    }
  }
  EXPECT_GT(count, 45U);
}

TEST(Reference, StandsInItsPageAsTheListHasIt) {
  const std::string page = testing::bytes_of(GAZE_SOURCE "/docs/level-file.md");
  const std::string begin = "<!-- keys -->\n";
  const std::size_t from = page.find(begin) + begin.size();
  EXPECT_EQ(page.substr(from, page.find("<!-- end of keys -->") - from), level_reference());
}

TEST(Reference, HasNoRowOfMoreThan120Letters) {
  for (const std::string& line : testing::lines_of(level_reference())) {
    EXPECT_LE(line.size(), 120U) << line;
  }
}

// A reader may paste them one after the other.
class Examples : public testing::InTemporaryFolder {};

TEST_F(Examples, AreOneLevelWithNothingToSayAgainstIt) {
  const std::string name = (folder / "level.toml").string();
  std::filesystem::copy_file(GAZE_SOURCE "/demo/rockery.obj", folder / "rockery.obj");
  const Level level = read_level_text(level_example(), name);
  EXPECT_EQ(level.agents.size(), 3U);
  for (const Finding& finding : judge(level)) {
    EXPECT_EQ(finding.severity, Finding::Severity::note) << finding.message;
  }
}

class Schema : public testing::InTemporaryFolder {
 protected:
  // What a validator that is not ours says of each level.
  std::vector<std::string> verdicts(const std::vector<std::string>& files) {
    std::string line = "python3 " GAZE_SOURCE "/tests/support/validate.py " +
                       write("schema.json", level_schema()).string();
    for (const std::string& file : files) line += " " + file;
    EXPECT_EQ(std::system((line + " > " + (folder / "verdicts").string()).c_str()), 0);
    return testing::lines_of(testing::bytes_of(folder / "verdicts"));
  }
};

TEST_F(Schema, TakesEveryLevelThatCanBeRead) {
  std::vector<std::string> files{write("example.toml", level_example()).string()};
  for (const char* part : {"/demo", "/demo/mistakes"}) {
    for (const auto& entry : std::filesystem::directory_iterator(GAZE_SOURCE + std::string(part))) {
      if (entry.path().extension() == ".toml") files.push_back(entry.path().string());
    }
  }
  EXPECT_GT(files.size(), 15U);
  const auto all = verdicts(files);
  ASSERT_EQ(all.size(), files.size());
  for (std::size_t i = 0; i < all.size(); ++i) EXPECT_EQ(all[i], "valid") << files[i];
}

TEST_F(Schema, RefusesWhatNoLevelCanHold) {
  const std::vector<std::pair<std::string, std::string>> wrong{
      {"plan = \"ground\"\n", "invalid: "},
      {"seconds = 0.0\n", "invalid: seconds"},
      {"ticks_per_second = 1001\n", "invalid: ticks_per_second"},
      {"ticks_per_second = 2.5\n", "invalid: ticks_per_second"},
      {"[kind.a.sight]\nrnage = 3.0\n", "invalid: kind/a/sight"},
      {"[kind.a.sight]\nfield_of_view = 361.0\n", "invalid: kind/a/sight/field_of_view"},
      {"[kind.a.attack.b]\nhow = \"bite\"\n", "invalid: kind/a/attack/b"},
      {"[kind.a.when]\nsees = \"chaise\"\n", "invalid: kind/a/when/sees"},
      {"[[agent]]\nid = \"a\"\nat = [0.0, 0.0]\n", "invalid: agent/0"},
      {"[[wall]]\nid = \"a b\"\nmaterial = \"brick\"\npath = [[0, 0], [1, 0]]\n",
       "invalid: wall/0/id"},
  };
  std::vector<std::string> files;
  for (std::size_t i = 0; i < wrong.size(); ++i) {
    files.push_back(write("wrong-" + std::to_string(i) + ".toml", wrong[i].first).string());
    EXPECT_NE(faults_of(wrong[i].first), "readable");
  }
  const auto all = verdicts(files);
  ASSERT_EQ(all.size(), files.size());
  for (std::size_t i = 0; i < all.size(); ++i) EXPECT_EQ(all[i], wrong[i].second) << wrong[i].first;
}

// A level with one of most things that a path can lead to.
const std::string kSmall = R"(
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
[material.glass]
stops = ["bodies"]
[kind.pruner]
team = "caretakers"
[kind.pruner.feeler.ahead]
length = 2.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.0
damage = 1.0
cooldown = 1.0
[kind.pruner.attack.pod]
how = "shot"
range = 5.0
damage = 1.0
cooldown = 1.0
speed = 9.0
[[zone]]
id = "shade"
outline = [[0, 0], [1, 0], [1, 1]]
[[door]]
id = "gate"
material = "glass"
path = [[3, 0], [4, 0]]
[round]
ends = ["caught"]
)" + testing::wall("hedge", "[[0, 5], [5, 5]]") +
                           testing::block("crate", "[[6, 6], [7, 6], [7, 7]]") +
                           testing::placed("pruner-1", "pruner", "[2.0, 2.0]");

// The first fault of that level with a setting.
std::string faults_with(const Setting& setting) {
  try {
    static_cast<void>(read_level_text(kSmall, "small.toml", {setting}));
  } catch (const LevelError& error) {
    return error.faults()[0].text();
  }
  return "";
}

TEST(CompletePath, GoesOnFromTheLevelToTheKey) {
  const Level level = read_level(GAZE_DEMO);
  const auto has = [&](const std::string& text, const std::string& path) {
    const auto paths = complete_path(level, text);
    return std::find(paths.begin(), paths.end(), path) != paths.end();
  };
  EXPECT_TRUE(has("", "gravity"));
  EXPECT_TRUE(has("ki", "kind."));
  EXPECT_TRUE(has("kind.pru", "kind.pruner."));
  EXPECT_TRUE(has("kind.pruner.si", "kind.pruner.sight."));
  EXPECT_EQ(complete_path(level, "kind.pruner.sight.fi"),
            std::vector<std::string>{"kind.pruner.sight.field_of_view"});
  EXPECT_TRUE(has("kind.pruner.attack.", "kind.pruner.attack.shears."));
  EXPECT_TRUE(has("kind.pruner.attack.shears.co", "kind.pruner.attack.shears.cooldown"));
  EXPECT_TRUE(has("agent.collector.", "agent.collector.at"));
  EXPECT_TRUE(has("agent.collector.move.sp", "agent.collector.move.speed"));
  EXPECT_TRUE(complete_path(level, "kind.nobody.").empty());
  EXPECT_TRUE(complete_path(level, "wall.nowhere.").empty());
  EXPECT_TRUE(has("wall.house.", "wall.house.height"));
  EXPECT_TRUE(complete_path(level, "wall.house.path.deeper.").empty());
}

// What it offers can be set: whatever the value, the path is one.
TEST(CompletePath, OffersOnlyWhatCanBeSet) {
  const Level level = read_level_text(kSmall, "small.toml");
  std::vector<std::string> open{""};
  std::size_t leaves = 0;
  while (!open.empty()) {
    const std::string text = open.back();
    open.pop_back();
    for (const std::string& path : complete_path(level, text)) {
      if (path.ends_with(".")) {
        open.push_back(path);
        continue;
      }
      ++leaves;
      const std::string faults = faults_with({path, "[[[[]]]]"});
      EXPECT_EQ(faults.find("there is no"), std::string::npos) << faults;
      EXPECT_EQ(faults.find("unknown key"), std::string::npos) << faults;
    }
  }
  EXPECT_GT(leaves, 300U);
}

}  // namespace
}  // namespace gaze
