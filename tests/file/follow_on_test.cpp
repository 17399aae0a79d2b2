// One mistake is told once, where it is and with what would be right; nothing follows from it.

#include <regex>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;

TEST(FollowOns, AnUnknownKindIsToldOnce) {
  EXPECT_EQ(faults_of("[[agent]]\nid = \"a\"\nkind = \"nobody\"\nat = [0, 0]\n"
                      "script = [{ aim = [1, 1], fire = 1, attack = \"b\" }]\n"),
            "bad.toml:3:8: error: there is no kind 'nobody'\n");
  EXPECT_EQ(faults_of("[kind.pip]\n[kind.mover]\ncarries = { Pip = 1 }\n"),
            "bad.toml:3:13: error: there is no kind 'Pip'; did you mean 'pip'?\n");
  EXPECT_EQ(faults_of("[kind.crate]\n[kind.mover]\n[[agent]]\nid = \"m\"\nkind = \"mover\"\n"
                      "at = [0, 0]\nscript = [{ throw = \"crat\", to = [1, 1] }]\n"),
            "bad.toml:7:21: error: there is no kind 'crat'; did you mean 'crate'?\n");
}

TEST(FollowOns, ATypoInWhatIsLeftIsNoCircle) {
  const std::string agent = "[[agent]]\nid = \"a\"\nkind = \"pip\"\nat = [0, 0]\n";
  EXPECT_EQ(faults_of("[kind.pip]\n[kind.pip.defeat]\nleaves = \"pipp\"\n" + agent),
            "bad.toml:3:10: error: there is no kind 'pipp'; did you mean 'pip'?\n");
  EXPECT_EQ(faults_of("[kind.pip]\n[kind.pip.defeat]\nleaves = true\n" + agent),
            "bad.toml:3:10: error: kind is needed, but this is true\n");
}

TEST(FollowOns, AKeyInTheWrongTableIsSentToTheRightOne) {
  EXPECT_EQ(
      faults_of("[kind.pip]\nspeed = 3\n"),
      "bad.toml:2:1: error: unknown key 'speed' in kind.pip; it belongs in [kind.pip.move] or "
      "[kind.pip.attack.ANY] or [kind.pip.thing]\n");
  EXPECT_EQ(
      faults_of("[kind.pip.move]\nspeed = 3\nhealth = 3\n"),
      "bad.toml:3:1: error: unknown key 'health' in kind.pip.move; it belongs in [kind.pip]\n");
}

TEST(FollowOns, OtherWordsForAKeyAreKnown) {
  EXPECT_EQ(faults_of("[kind.pip.move]\nspeed = 3\nstop = 3\n"),
            "bad.toml:3:1: error: unknown key 'stop' in kind.pip.move; did you mean "
            "'stop_distance'?\n");
  EXPECT_EQ(faults_of("[kind.pip]\nhp = 3\n"),
            "bad.toml:2:1: error: unknown key 'hp' in kind.pip; did you mean 'health'?\n");
  EXPECT_EQ(faults_of("[kind.pip.sight]\nrange = 3\nfield_of_view = 90\nfov = 3\n"),
            "bad.toml:4:1: error: unknown key 'fov' in kind.pip.sight; did you mean "
            "'field_of_view'?\n");
}

TEST(FollowOns, AValueOfOneCopyLeavesItsPatrolWhereItIs) {
  const std::string row =
      "[kind.pip]\nradius = 0.2\n[kind.pip.move]\nspeed = 1\n[[agent]]\n"
      "id = \"row\"\nkind = \"pip\"\nat = [0, 0]\ncopies = 3\napart = [4, 1]\n"
      "patrol = [[0, 0], [0, 5]]\n";
  const auto patrol_of = [&](const std::vector<Setting>& settings) {
    return testing::garden(row, settings).agents[1].patrol;
  };
  const std::vector<Vector3d> own{{4, 1, 0}, {4, 6, 0}};
  EXPECT_EQ(patrol_of({}), own);
  EXPECT_EQ(patrol_of({{"agent.row-2.radius", "0.4"}}), own);
  EXPECT_EQ(patrol_of({{"agent.row-2.at", "[9, 9]"}}), own);
  EXPECT_EQ(patrol_of({{"agent.row-2.patrol", "[[1, 1], [2, 2]]"}}),
            (std::vector<Vector3d>{{1, 1, 0}, {2, 2, 0}}));
}

std::string faults_in(const std::string& table, const std::string& line) {
  const std::string header = table.empty() ? "[kind.pip]\n" : "[kind.pip." + table + "]\n";
  return faults_of(header + line + "\n");
}

/// The texts in a string that a pattern captures.
std::vector<std::string> all_of(const std::string& text, const char* pattern) {
  const std::regex regex(pattern);
  std::vector<std::string> found;
  for (std::sregex_iterator it(text.begin(), text.end(), regex), end; it != end; ++it) {
    found.push_back((*it)[1]);
  }
  return found;
}

// Wherever a key is sent to, it is known there: a table in place of its value is no unknown key.
TEST(WrongTable, SendsKeysToTablesThatKnowThem) {
  const std::vector<std::string> tables{"",       "move",     "sight",  "hearing", "nearness",
                                        "touch",  "scan",     "head",   "tell",    "choose",
                                        "defeat", "attack.a", "wander", "thing"};
  int sent = 0;
  for (const std::string& table : tables) {
    std::string sort;
    if (table == "scan") sort = "style = \"sweep\"\n";
    if (table == "attack.a") sort = "how = \"shot\"\n";
    const auto allowed = all_of(faults_in(table, sort + "zzqqzz = 1"), "allowed: ([^\n]*)");
    ASSERT_EQ(allowed.size(), 1U) << table;
    for (const std::string& key : all_of(allowed[0], "([a-z_]+)")) {
      for (const std::string& other : tables) {
        for (const std::string& home : all_of(faults_in(other, key + " = 1"),
                                              R"((?:belongs in|or) \[kind.pip\.?([^\]]*)\])")) {
          const std::string name = home == "attack.NAME" ? "attack.a" : home;
          const std::string faults = faults_in(name, key + " = { zzqqzz = 1 }");
          EXPECT_EQ(faults.find("unknown key '" + key + "'"), std::string::npos)
              << key << " of " << other << ": " << faults;
          ++sent;
        }
      }
    }
  }
  EXPECT_GT(sent, 500);
}

}  // namespace
}  // namespace gaze
