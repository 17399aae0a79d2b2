// The balance sheet where views are tilted or low, bodies touch, keep away or heal: held against
// play.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <optional>
#include <string>

#include "gaze/tools/report.hpp"
#include "gaze/tools/sheet.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

struct View {
  std::string plane = "ground";
  double range = 8.0;
  double field = 120.0;
  double vertical = 0.0;  ///< Degrees; 0: none.
  double tilt = 0.0;
  double eye = 1.6;
  double near_ring = 0.0;
  double notice = 0.5;
  double ebb = 0.0;
  double fade_from = 1.0;
  bool to_surface = false;
  double height = 1.7;  ///< Of who comes.
  double speed = 2.0;
  bool is_solid = true;
};

View random_view(scenes::Random& random) {
  View view;
  const char* planes[] = {"ground", "space", "upright"};
  view.plane = planes[random.next() % 3];
  view.range = random.between(3.0, 12.0);
  view.field = random.between(20.0, 160.0);
  if (view.plane != "upright" && random.next() % 2 == 0) view.vertical = random.between(10.0, 60.0);
  if (random.next() % 2 == 0) view.tilt = random.between(-60.0, 30.0);
  view.eye = random.between(0.2, 3.0);
  if (random.next() % 3 == 0) view.near_ring = random.between(0.5, 2.5);
  view.notice = random.next() % 4 == 0 ? 0.0 : random.between(0.1, 1.0);
  if (random.next() % 2 == 0) view.ebb = random.between(0.2, 2.0);
  if (random.next() % 2 == 0) view.fade_from = random.between(0.1, 0.9);
  view.to_surface = random.next() % 3 == 0;
  view.height = random.between(0.4, 2.0);
  view.speed = random.between(0.5, 3.0);
  view.is_solid = random.next() % 2 == 0;
  return view;
}

std::string text_of(const View& view, double from) {
  const std::string vertical =
      view.vertical > 0.0 ? fmt::format(", vertical_field_of_view = {}", view.vertical) : "";
  const std::string ebb = view.ebb > 0.0 ? fmt::format(", ebb_time = {}", view.ebb) : "";
  const std::string floor = view.plane == "space" ? ", 0.0" : "";
  const std::string solid = view.is_solid ? "" : "solid_to = []\n";
  return fmt::format(
      R"(plane = "{}"
ground_height = 0.0
seconds = 60.0
ticks_per_second = 240
[kind.lamp]
team = "caretakers"
height = 1.8
{}sight = {{ range = {}, field_of_view = {}{}{}, tilt = {}, eye_height = {}, near_ring = {}, notice_time = {}, fade_from = {}, measure = "{}" }}
[kind.guest]
team = "visitors"
radius = 0.4
height = {}
{}move = {{ speed = {} }}
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0{}]
[[agent]]
id = "guest-1"
kind = "guest"
at = [{}, 0.0{}]
script = [{{ go = [0.0, 0.0{}] }}]
)",
      view.plane, solid, view.range, view.field, vertical, ebb, view.tilt, view.eye, view.near_ring,
      view.notice, view.fade_from, view.to_surface ? "surface" : "centre", view.height, solid,
      view.speed, floor, from, floor, floor);
}

std::optional<double> noticed_at(const View& view) {
  Simulation game(testing::garden(text_of(view, view.range + 1.5)));
  const AgentId lamp = game.agent("lamp-1");
  const AgentId guest = game.agent("guest-1");
  while (game.seconds() < 40.0 && game.awareness(lamp, guest) != Awareness::noticed) game.step();
  if (game.awareness(lamp, guest) != Awareness::noticed) return std::nullopt;
  return game.state(guest).position.x();
}

// Play adds evidence tick by tick, and looks at the field of view once a tick: two ticks of
// walking, and where little evidence is left out at the rim of a view, a tick's share of it.
TEST(SheetEdges, NoticesFromAsFarAsInPlayWhateverTheView) {
  scenes::Random random(2027);
  std::uint64_t compared = 0;
  std::uint64_t never = 0;
  for (std::uint64_t i = 0; i < testing::rounds(300); ++i) {
    const View view = random_view(random);
    const auto rows = balance_sheet(testing::garden(text_of(view, 5.0)));
    ASSERT_EQ(rows.size(), 1U);
    const auto expected = rows[0].notices.moving;
    const auto played = noticed_at(view);
    if (expected.has_value() != played.has_value()) {
      // Only where it has all but enough, or a tick more than enough, evidence in the field of
      // view.
      View longer = view;
      longer.notice *= expected ? 1.1 : 0.9;
      const auto other = balance_sheet(testing::garden(text_of(longer, 5.0)))[0].notices.moving;
      EXPECT_EQ(other.has_value(), played.has_value()) << i << "\n" << text_of(view, 5.0);
      continue;
    }
    if (!expected) {
      ++never;
      continue;
    }
    ++compared;
    EXPECT_NEAR(*played, *expected, 4.0 * view.speed / 240 + 0.02 + 0.02 * *expected)
        << i << "\n"
        << text_of(view, 5.0);
  }
  EXPECT_GT(compared, testing::enough(std::uint64_t{100}));
  EXPECT_GT(never, testing::enough(std::uint64_t{20}));
}

// An eye 1.6 m up with a field of 60 degrees up and down about level sees the middle of a body of 1
// m from 1.1 / tan 30 degrees on, and nothing nearer.
TEST(SheetEdges, AViewFromAboveLosesWhoComesNear) {
  View view;
  view.vertical = 60.0;
  view.height = 1.0;
  view.notice = 3.5;  // 7 m of walking, and it is in view for 8 - 1.905 = 6.095 m
  EXPECT_EQ(balance_sheet(testing::garden(text_of(view, 5.0)))[0].notices.moving, std::nullopt);
  view.notice = 3.0;
  const auto noticed = balance_sheet(testing::garden(text_of(view, 5.0)))[0].notices.moving;
  ASSERT_TRUE(noticed);
  EXPECT_NEAR(*noticed, 2.0, 1e-9);
}

std::string hawk_and_hare(const std::string& hawk, const std::string& hare) {
  return "[kind.hawk]\nteam = \"caretakers\"\nsight = { range = 10, field_of_view = 120 }\n" +
         hawk + "[kind.hare]\nteam = \"visitors\"\n" + hare +
         testing::placed("hawk", "hawk", "[0, 0]") +
         testing::placed("hare", "hare", "[8, 0]", "driver = \"host\"");
}

SheetRow row_of(const std::string& hawk, const std::string& hare) {
  return balance_sheet(testing::garden(hawk_and_hare(hawk, hare))).at(0);
}

TEST(SheetEdges, WhoDoesNotMoveDoesNotComeUp) {
  const SheetRow row = row_of("", "");
  EXPECT_FALSE(row.foe_moves);
  EXPECT_EQ(row.notices.moving, std::nullopt);
  EXPECT_EQ(sheet_text(std::vector{row}).find("coming up"), std::string::npos);
}

TEST(SheetEdges, WhoKeepsAwayDoesNotReach) {
  const std::string claw =
      "when.sees = \"chase\"\nattack.claw = { how = \"strike\", range = 1.6, damage = 7, cooldown "
      "= 0.9 }\n";
  const SheetRow away = row_of("move = { speed = 2, keep_away = 4 }\n" + claw, "");
  EXPECT_EQ(away.stop, 4.0);
  EXPECT_FALSE(away.pair.harms.at(0).is_in_reach());
  EXPECT_EQ(away.played.defeated, std::nullopt);
  const SheetRow near = row_of("move = { speed = 2 }\n" + claw, "");
  EXPECT_TRUE(near.pair.harms.at(0).is_in_reach());
  EXPECT_NE(near.played.defeated, std::nullopt);
}

// Blows of D points every T seconds, healed by h points a second after w: between two blows it
// regains h (T - w). It is defeated if that is less than D. Held against the run.
TEST(SheetEdges, HealingCounts) {
  scenes::Random random(5);
  int healed = 0;
  int defeated = 0;
  for (std::uint64_t i = 0; i < testing::rounds(60); ++i) {
    const double damage = random.between(5.0, 40.0);
    const double cooldown = random.between(0.3, 1.5);
    const double heals = random.between(1.0, 60.0);
    const double wait = random.between(0.0, 1.0);
    const SheetRow row = row_of(
        fmt::format("attack.claw = {{ how = \"strike\", range = 2, damage = {}, cooldown = {} }}\n",
                    damage, cooldown),
        fmt::format("heals = {}\nheals_after = {}\n", heals, wait));
    const double regained = heals * std::max(0.0, cooldown - wait);
    if (std::abs(regained - damage) < 0.2 * damage) continue;  // rates of steps would decide
    EXPECT_EQ(row.pair.harms.at(0).is_healed, regained > damage) << i;
    EXPECT_EQ(row.played.defeated.has_value(), regained < damage) << i;
    (regained > damage ? healed : defeated) += 1;
    if (regained > damage) continue;
    ASSERT_TRUE(row.pair.harms[0].seconds);
    // Blows fall on steps of 1/60 s, and between two of them it heals so much longer or shorter.
    const double share = heals / 60.0 / (damage - regained);
    EXPECT_NEAR(*row.pair.harms[0].seconds, *row.played.defeated,
                cooldown + 0.05 + share * *row.played.defeated)
        << i;
  }
  EXPECT_GT(healed, testing::enough(8));
  EXPECT_GT(defeated, testing::enough(8));
}

// Two hits of 10 points are all there is. A target that regains 1 point per second is hurt, and the
// ammunition is spent.
TEST(SheetEdges, SpentAmmunitionIsNotHealing) {
  const SheetRow spent = row_of(
      "attack.claw = { how = \"strike\", range = 2, damage = 10, cooldown = 1, ammunition = 2 }\n",
      "heals = 1\n");
  EXPECT_FALSE(spent.pair.harms.at(0).is_healed);
  EXPECT_EQ(spent.pair.harms[0].seconds, std::nullopt);
  EXPECT_NEAR(spent.pair.harms[0].dealt, 19.0, 1e-9);  // 1 point is regained between both hits
}

}  // namespace
}  // namespace gaze
