// The gallery of bad input, word for word.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;

struct Bad {
  const char* text;
  const char* faults;
};

void PrintTo(const Bad& bad, std::ostream* out) {
  *out << std::string(bad.text).substr(0, 12);
}

class BadInput : public ::testing::TestWithParam<Bad> {};

TEST_P(BadInput, IsReportedInOneClearLineEach) {
  EXPECT_EQ(faults_of(GetParam().text), GetParam().faults);
}

const char* const kBlock = "[[block]]\nid = \"b\"\nmaterial = \"brick\"\noutline = ";

INSTANTIATE_TEST_SUITE_P(
    GalleryOfWays, BadInput,
    ::testing::Values(
        Bad{"[[floor]]\nid = \"f\"\nmaterial = \"brick\"\noutline = [[0, 0], [1, 0]]\n",
            "bad.toml:4:11: error: floor.f.outline has 2 points; 3 to 500 are allowed\n"},
        Bad{"[[ramp]]\nid = \"r\"\nmaterial = \"brick\"\nfrom = [0, 0]\nto = [1, 0, 1]\n",
            "bad.toml:1:1: error: ramp.r.width is missing: a number must be given\n"
            "bad.toml:4:8: error: ramp.r.from is a list of 2; 3 numbers are needed\n"},
        Bad{"[[ramp]]\nid = \"r\"\nmaterial = \"brick\"\nfrom = [0, 0, 0]\nto = [0, 0, 3]\n"
            "width = 1\n",
            "bad.toml:5:6: error: ramp.r.to lies straight above or below where it begins: a ramp "
            "or "
            "stairs need 0.01 m of length in the plan at least\n"},
        Bad{"[[stairs]]\nid = \"s\"\nmaterial = \"brick\"\nfrom = [0, 0, 0]\nto = [3, 0, 3]\n"
            "width = 1\nsteps = 0\n",
            "bad.toml:7:9: error: stairs.s.steps is 0; 1 to 1000 is allowed\n"},
        Bad{"plane = \"upright\"\n[[floor]]\nid = \"f\"\nmaterial = \"brick\"\n"
            "outline = [[0, 0], [1, 0], [1, 1]]\n",
            "bad.toml:2:1: error: [[floor]] belongs in ground and space levels; in upright ones "
            "blocks are what one walks on\n"},
        Bad{"[kind.a.move]\nroute = \"paths\"\nslope = 90\nno_path = \"Wait\"\n",
            "bad.toml:2:9: error: kind.a.move.route is the text \"paths\"; allowed: \"path\", "
            "\"straight\"; did you mean 'path'?\n"
            "bad.toml:3:9: error: kind.a.move.slope is 90; 0 to 89 degrees is allowed\n"
            "bad.toml:4:11: error: kind.a.move.no_path is the text \"Wait\"; allowed: \"nearest\", "
            "\"wait\", \"give up\"; did you mean 'wait'?\n"}));

INSTANTIATE_TEST_SUITE_P(
    GalleryOfLinks, BadInput,
    ::testing::Values(
        Bad{"[[link]]\nid = \"l\"\nfrom = [0, 0, 0]\n",
            "bad.toml:1:1: error: link.l.to is missing: a point [x, y, z] must be given\n"},
        Bad{"[[link]]\nid = \"l\"\nfrom = [0, 0, 1]\nto = [0, 0, 1]\n",
            "bad.toml:4:6: error: link.l.to is where the link begins; it leads nowhere\n"},
        Bad{"[[start]]\nid = \"s\"\nkind = \"toad\"\noutline = [[0, 0], [1, 0], [1, 1]]\n"
            "distance = 3\n[kind.toat]\n",
            "bad.toml:3:8: error: there is no kind or agent 'toad'; did you mean 'toat'?\n"
            "bad.toml:5:12: error: start.s.distance needs apart_from: whom\n"},
        Bad{"[[zone]]\nid = \"z\"\noutline = [[0, 0], [1, 0], [1, 1]]\ncost = 0\n"
            "closed_to = [\"machine\"]\n",
            "bad.toml:4:8: error: zone.z.cost is 0; 0.1 to 100 is allowed\n"
            "bad.toml:5:13: error: there is no agent, kind, team or tag 'machine'\n"},
        Bad{"[[door]]\nid = \"d\"\nmaterial = \"brick\"\npath = [[0, 0], [1, 0]]\n"
            "opens_for = [\"caretaker\"]\nopens_within = 0\n[team.caretakers]\n",
            "bad.toml:5:13: error: there is no agent, kind, team or tag 'caretaker'; did you mean "
            "'caretakers'?\n"
            "bad.toml:6:16: error: door.d.opens_within is 0; above 0 to 1000 m is allowed\n"},
        Bad{"[[block]]\nid = \"b\"\nmaterial = \"brick\"\nhealth = -1\n"
            "outline = [[0, 0], [1, 0], [1, 1]]\n",
            "bad.toml:4:10: error: block.b.health is -1; above 0 to 1000000000 points is "
            "allowed\n"},
        Bad{"[kind.a.move]\ngait = \"hops\"\nhop_height = -1\n",
            "bad.toml:2:8: error: kind.a.move.gait is the text \"hops\"; allowed: \"fixed\", "
            "\"walk\", \"hop\", \"hover\", \"drop\"; did you mean 'hop'?\n"
            "bad.toml:3:14: error: kind.a.move.hop_height is -1; 0 to 1000 m is allowed\n"},
        Bad{"plane = \"upright\"\n[[mesh]]\nid = \"m\"\nmaterial = \"brick\"\nfile = \"m.obj\"\n",
            "bad.toml:2:1: error: [[mesh]] belongs in ground and space levels\n"}));

INSTANTIATE_TEST_SUITE_P(
    Gallery, BadInput,
    ::testing::Values(
        Bad{"seed = \"1\"",
            "bad.toml:1:8: error: seed is the text \"1\"; a whole number is needed\n"},
        Bad{"ticks_per_second = 60.5",
            "bad.toml:1:20: error: ticks_per_second is 60.5; a whole number is needed\n"},
        Bad{"ticks_per_second = 1001",
            "bad.toml:1:20: error: ticks_per_second is 1001; 1 to 1000 is allowed\n"},
        Bad{"seconds = nan",
            "bad.toml:1:11: error: seconds is nan; above 0 to 86400 s is allowed\n"},
        Bad{"seconds = 5e-324",
            "bad.toml:1:11: error: seconds is 5e-324; the least above 0 is 0.000001 s\n"},
        Bad{"gravity = 1e-300",
            "bad.toml:1:11: error: gravity is 1e-300; the least above 0 is 0.000001 m/s2\n"},
        Bad{"gravity = inf", "bad.toml:1:11: error: gravity is inf; 0 to 1000 m/s2 is allowed\n"},
        Bad{"gravity = true", "bad.toml:1:11: error: gravity is true; a number is needed\n"},
        Bad{"name = 2026-01-01", "bad.toml:1:8: error: name is a date or time; text is needed\n"},
        Bad{"plane = \"Ground\"",
            "bad.toml:1:9: error: plane is the text \"Ground\"; allowed: \"ground\", \"upright\", "
            "\"space\"; did you mean 'ground'?\n"},
        Bad{"Plane = \"ground\"",
            "bad.toml:1:1: error: unknown key 'Plane'; did you mean 'plane'?\n"},
        Bad{"format = 2", "bad.toml:1:10: error: format is 2; 1 to 1 is allowed\n"},
        Bad{"[team.a]\nhostile = [\"B\"]\n[team.b]\n",
            "bad.toml:2:12: error: there is no team 'B'; did you mean 'b'?\n"},
        Bad{"[material.glass]\nstops = [\"light\"]\n",
            "bad.toml:2:10: error: there is no thing to stop called 'light'; did you mean "
            "'sight'?\n"},
        Bad{"[kind.a]\nlike = \"b\"\n[kind.b]\nlike = \"a\"\n",
            "bad.toml:4:8: error: kinds in a circle: a is like b is like a\n"},
        Bad{"[kind.a]\nlike = \"c\"\n",
            "bad.toml:2:8: error: there is no kind 'c'; did you mean 'a'?\n"},
        Bad{"[kind.a.sight]\nfield_of_view = 90\n",
            "bad.toml:1:1: error: kind.a.sight.range is missing: a number must be given\n"},
        Bad{"[kind.a.sight]\nrange = 9\nkeep_range = 8\nfield_of_view = 361\n",
            "bad.toml:3:14: error: kind.a.sight.keep_range is 8; at least the range of 9 m is "
            "allowed\n"
            "bad.toml:4:17: error: kind.a.sight.field_of_view is 361; above 0 to 360 degrees is "
            "allowed\n"},
        Bad{"[kind.a.attack.x]\nhow = \"strike\"\nrange = 1\ndamage = -1\ncooldown = 0\nspeed = "
            "3\n",
            "bad.toml:4:10: error: kind.a.attack.x.damage is -1; 0 to 1000000000 points is "
            "allowed\n"
            "bad.toml:5:12: error: kind.a.attack.x.cooldown is 0; 0.001 to 86400 s is allowed\n"
            "bad.toml:6:1: error: unknown key 'speed' in kind.a.attack.x; allowed: how, range, "
            "damage, cooldown, wind_up, ammunition, reload, min_range, at_health, "
            "far_damage, fade_from, push, damage_kind, arc\n"},
        Bad{"[kind.a.move]\nstep_height = 1.7\n",
            "bad.toml:2:15: error: kind.a.move.step_height is 1.7; below the height of 1.7 m is "
            "allowed\n"},
        Bad{"[[agent]]\nid = \"x\"\nkind = \"prunr\"\nat = [0, 0]\n[kind.pruner]\n",
            "bad.toml:3:8: error: there is no kind 'prunr'; did you mean 'pruner'?\n"},
        Bad{"[kind.a]\n[[agent]]\nid = \"x y\"\nkind = \"a\"\nat = [1e300, 0]\n",
            "bad.toml:3:6: error: agent.x y.id is the text \"x y\"; letters, digits, _ and - are "
            "allowed\n"
            "bad.toml:5:7: error: agent.x y.at is 1e+300; -20000 to 20000 m is allowed\n"},
        Bad{"[kind.a]\n[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [0, 0]\n"
            "[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [5, 0]\n",
            "bad.toml:6:1: error: the id 'x' is taken by what stands at bad.toml:2:1\n"},
        Bad{"[kind.a]\n[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [0, 0]\ncopies = 2\n",
            "bad.toml:6:10: error: copies and apart are given together: how many, and how far from "
            "one "
            "to the next\n"},
        Bad{"[kind.a]\n[[agent]]\nid = \"x\"\nkind = \"a\"\nat = [0, 0]\n"
            "script = [{ go = [1, 1], wait = 1 }, { repeat = true }, { wait = 1 }]\n",
            "bad.toml:6:11: error: agent.x.script[1] holds 'go' and 'wait'; exactly one is allowed "
            "of: go, wait, face, noise, "
            "quiet, hop, repeat, take, throw, drop, aim\n"
            "bad.toml:6:38: error: agent.x.script[2] repeats; the steps after it would never be "
            "played\n"},
        Bad{"[[wall]]\nid = \"w\"\nmaterial = \"brik\"\npath = [[0, 0], [0, 0]]\n",
            "bad.toml:3:12: error: there is no material 'brik'; did you mean 'brick'?\n"
            "bad.toml:4:8: error: wall.w.path has a stretch of no length at [0, 0]\n"},
        Bad{"[[wall]]\nid = \"w\"\nmaterial = \"brick\"\npath = [[0, 0], [5, 0], [0, 0]]\n",
            "bad.toml:4:8: error: wall.w.path has a corner too sharp, or a stretch too short, for "
            "a "
            "thickness of 0.2 m\n"},
        Bad{"kind = 3\n", "bad.toml:1:8: error: kind is 3; [kind.NAME] is needed\n"},
        Bad{"agent = [3]\n", "bad.toml:1:10: error: agent is 3; a table is needed\n"},
        Bad{"include = [3]\n", "bad.toml:1:12: error: include holds 3; names are needed\n"}));

TEST(BadInput, OutlinesSayWhichSidesMeet) {
  EXPECT_EQ(faults_of(std::string(kBlock) + "[[0, 0], [1, 0]]"),
            "bad.toml:4:11: error: block.b.outline has 2 points; 3 to 500 are allowed\n");
  EXPECT_EQ(faults_of(std::string(kBlock) + "[[0, 0], [1, 1], [1, 0], [0, 1]]"),
            "bad.toml:4:11: error: block.b.outline crosses or touches itself: the side from [0, 0] "
            "meets the side from [1, 0]\n");
  EXPECT_EQ(faults_of(std::string(kBlock) + "[[0, 0], [1, 1], [1, 0], [0, 0]]"),
            "bad.toml:4:11: error: block.b.outline repeats the point [0, 0]; the outline closes by "
            "itself\n");
}

TEST(BadInput, SyntaxErrorsHaveAPlaceAndOneLine) {
  for (const std::string text : {"a = ", "[[[", "x = \"\n", "\xff\xfe", "[a]\n[a]\n"}) {
    const std::string faults = faults_of(text);
    EXPECT_EQ(faults.find("bad.toml:"), 0U) << faults;
    EXPECT_NE(faults.find("error: not TOML: "), std::string::npos) << faults;
    EXPECT_EQ(std::count(faults.begin(), faults.end(), '\n'), 1) << faults;
  }
  EXPECT_EQ(faults_of("seed = 1\n\n[.a]\nseed = 2\n"),
            "bad.toml:3:1: error: not TOML: a key is expected in this line\n");
  EXPECT_NE(faults_of(std::string(1'000'000, '[')).find("error: not TOML"), std::string::npos);
  EXPECT_NE(faults_of("a = " + std::string(1'000'000, '[')).find("error: not TOML"),
            std::string::npos);
}

TEST(BadInput, KeysWithoutEndAreRefused) {
  std::string dots;
  for (int i = 0; i < 300'000; ++i) dots += "a.";
  EXPECT_EQ(faults_of("\n  " + dots + "a = 1"),
            "bad.toml:2:18: error: a key of more than 8 parts\n");
  EXPECT_EQ(faults_of("[" + dots + "a]"), "bad.toml:1:17: error: a key of more than 8 parts\n");
  // Dots in texts, comments and numbers are none of a key.
  EXPECT_EQ(faults_of("name = \"a.b.c.d.e.f.g.h.i.j\" # a.b.c.d.e.f.g.h.i.j.k\nseed = 1"),
            "readable");
  EXPECT_EQ(faults_of("name = \"\"\"\n.........\\\"........\"\"\"\nseed = 1"), "readable");
}

// ---- files

// Letters of any script where none belong, and where they do.
TEST(BadInput, LettersOfAnyScript) {
  for (std::uint32_t letter = 0xA0; letter < 0x10000; letter += letter < 0x3000 ? 1 : 37) {
    if (letter >= 0xD800 && letter < 0xE000) continue;  // halves of letters
    std::string text;
    if (letter < 0x800) {
      text = {static_cast<char>(0xC0U | letter >> 6U), static_cast<char>(0x80U | (letter & 0x3FU))};
    } else {
      text = {static_cast<char>(0xE0U | letter >> 12U),
              static_cast<char>(0x80U | (letter >> 6U & 0x3FU)),
              static_cast<char>(0x80U | (letter & 0x3FU))};
    }
    EXPECT_EQ(read_level_text("name = \"" + text + "\"  # " + text + "\n", "t").name, text);
    try {
      static_cast<void>(read_level_text("seed = 1" + text + "2\n", "t"));
      ADD_FAILURE() << letter;
    } catch (const LevelError& error) {
      EXPECT_NE(std::string(error.what()).find("t:1:"), std::string::npos);
    }
  }
}

}  // namespace
}  // namespace gaze
