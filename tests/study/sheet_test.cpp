// The balance sheet: each number in closed form against a run in which it must come out.

#include "gaze/tools/sheet.hpp"

#include <fmt/format.h>

#include <cmath>

#include "gaze/tools/report.hpp"
#include "scenes.hpp"
#include "support/command.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

struct Values {
  double range = 8.0;
  double notice = 0.5;
  double fade_from = 1.0;
  double speed = 2.0;
  double visibility = 1.0;
  double dimness = 0.0;
  bool to_surface = false;
};

std::string level_text(const Values& values, double from, int rate) {
  std::string text = fmt::format(
      R"(
seconds = 60.0
ticks_per_second = {}
[kind.lamp]
team = "caretakers"
sight = {{ range = {}, field_of_view = 360.0, notice_time = {}, fade_from = {}, measure = "{}" }}
[kind.guest]
team = "visitors"
radius = 0.4
visibility = {}
move = {{ speed = {} }}
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
[[agent]]
id = "guest-1"
kind = "guest"
at = [{}, 0.0]
script = [{{ go = [0.5, 0.0] }}]
)",
      rate, values.range, values.notice, values.fade_from, values.to_surface ? "surface" : "centre",
      values.visibility, values.speed, from);
  if (values.dimness > 0.0) {
    text += fmt::format(
        "[[zone]]\nid = 'shade'\noutline = [[-60,-60],[60,-60],[60,60],[-60,60]]\ndimness = {}\n",
        values.dimness);
  }
  return text;
}

// How far away somebody is who comes straight up, when noticed.
std::optional<double> noticed_at(const Values& values, int rate) {
  Simulation game(testing::garden(level_text(values, values.range + 3.0, rate)));
  const AgentId lamp = game.agent("lamp-1");
  const AgentId guest = game.agent("guest-1");
  while (game.seconds() < 60.0 && game.awareness(lamp, guest) != Awareness::noticed) game.step();
  if (game.awareness(lamp, guest) != Awareness::noticed) return std::nullopt;
  return game.state(guest).position.x();
}

SheetRow row_for(const Values& values) {
  const auto rows = balance_sheet(testing::garden(level_text(values, 5.0, 60)));
  EXPECT_EQ(rows.size(), 1U);
  return rows.at(0);
}

TEST(Sheet, NoticesFromAsFarAsItDoesInPlay) {
  scenes::Random random(11);
  int fading = 0;
  for (std::uint64_t i = 0; i < testing::rounds(60); ++i) {
    Values values;
    values.range = random.between(4.0, 15.0);
    values.notice = i % 5 == 0 ? 0.0 : random.between(0.1, 1.5);
    values.fade_from = i % 2 == 0 ? 1.0 : random.between(0.0, 0.9);
    values.speed = random.between(0.5, 4.0);
    values.visibility = random.between(0.5, 2.0);
    values.dimness = i % 3 == 0 ? random.between(0.1, 0.8) : 0.0;
    values.to_surface = i % 4 == 0;
    const SheetRow row = row_for(values);
    constexpr int kRate = 240;
    const auto played = noticed_at(values, kRate);
    const auto expected = values.dimness > 0.0 ? row.notices.in_dim_light : row.notices.moving;
    const double stopped = 0.5;  // where the guest ends: nearer than that is not played
    if (!expected || *expected <= stopped + 0.1) continue;
    ASSERT_TRUE(played) << i;
    // One step of walking, and as much again for evidence that grows step by step.
    EXPECT_NEAR(*played, *expected, 2.5 * values.speed / kRate + 0.01 * (values.fade_from < 1.0))
        << i;
    fading += values.fade_from < 1.0 ? 1 : 0;
  }
  EXPECT_GT(fading, testing::enough(10));
}

// Who stands just inside the range is noticed sooner or later, and just outside it never.
TEST(Sheet, NoticesWhoStandsUpToItsRange) {
  for (const double fade_from : {1.0, 0.4}) {
    Values values;
    values.fade_from = fade_from;
    values.to_surface = true;
    const double limit = *row_for(values).notices.standing;
    EXPECT_NEAR(limit, 8.4, 1e-12);
    for (const double off : {-0.05, 0.05}) {
      std::string text = level_text(values, limit + off, 60);
      text.replace(text.find("script"), std::string::npos, "driver = 'host'\n");
      Simulation game(testing::garden(text));
      const AgentId lamp = game.agent("lamp-1");
      for (int i = 0; i < 60 * 200; ++i) game.step();
      EXPECT_EQ(game.awareness(lamp, game.agent("guest-1")) == Awareness::noticed, off < 0.0)
          << fade_from << " " << off;
    }
  }
}

constexpr const char* kChase = R"(
seconds = 40.0
[kind.pruner]
team = "caretakers"
sight = { range = 60.0, field_of_view = 360.0 }
hearing = { range = 9.0, acuity = 1.5 }
move = { speed = 2.5 }
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 8.0
cooldown = 0.75
wind_up = 0.2
[kind.pruner.when]
sees = "chase"
[kind.guest]
team = "visitors"
health = 60.0
move = { speed = 2.0, step_reach = 5.0, quiet_reach = 1.0 }
[[agent]]
id = "pruner-1"
kind = "pruner"
at = [0.0, 0.0]
[[agent]]
id = "guest-1"
kind = "guest"
at = [10.0, 0.0]
script = [{ go = [300.0, 0.0] }]
)";

TEST(Sheet, ChasesHearsAndDefeatsAsInPlay) {
  const auto rows = balance_sheet(testing::garden(kChase));
  ASSERT_EQ(rows.size(), 1U);
  const SheetRow& row = rows[0];
  EXPECT_EQ(row.by, "pruner");
  EXPECT_EQ(row.hears.walking, 7.5);
  EXPECT_EQ(row.hears.quiet, 1.5);
  EXPECT_NEAR(*row.pair.gain, -0.5, 1e-12);
  // 60 points by 8 in 8 blows: the eighth comes after seven pauses, and the time that it takes.
  ASSERT_EQ(row.pair.harms.size(), 1U);
  EXPECT_NEAR(*row.pair.harms[0].seconds, 7.0 * 0.75 + 0.2, 1e-9);
  EXPECT_NEAR(*row.played.defeated, 7.0 * 0.75 + 0.2, 2.0 / 60.0);
  // In play the gap shrinks by half a metre a second.
  Simulation game(testing::garden(kChase));
  const auto gap = [&] {
    return game.state(game.agent("guest-1")).position.x() -
           game.state(game.agent("pruner-1")).position.x();
  };
  while (game.seconds() < 2.0) game.step();
  const double before = gap();
  while (game.seconds() < 8.0) game.step();
  EXPECT_NEAR(gap() - before, 6.0 * *row.pair.gain, 0.05);
}

TEST(Sheet, OfTheDemoIsTheSameOnOneThreadAndOnMany) {
  const Level level = read_level(GAZE_DEMO);
  StudyOptions one;
  one.threads = 1;
  StudyOptions many;
  many.threads = 4;
  const std::string first = sheet_json(balance_sheet(level, one));
  EXPECT_EQ(first, sheet_json(balance_sheet(level, many)));
  const auto answer = testing::gaze_call({"sheet", GAZE_DEMO});
  EXPECT_EQ(answer.status, 0);
  EXPECT_NE(answer.out.find("pruner against collector"), std::string::npos);
}

}  // namespace
}  // namespace gaze
