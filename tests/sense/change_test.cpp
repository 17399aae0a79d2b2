// What would turn the answer of a look: read as it is printed, done, and looked at again.

#include "gaze/change.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <regex>

#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/sights.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::kThreePoints;
using testing::level_of;
using testing::someone;
using testing::watcher;

std::string remedy_text(const Level& level, const Looker& from, const LookedAt& to) {
  return describe(remedy(World(level), level, from, to), level.plane);
}

TEST(Remedy, OfOneFailureIsOneChange) {
  EXPECT_EQ(remedy_text({}, watcher(), someone({12, 0, 0})), "2.00 m nearer");
  // 60 degrees off with 45 to either side.
  const SineCosine left = sine_cosine(Angle::from_degrees(60.04));
  EXPECT_EQ(remedy_text({}, watcher(), someone({5 * left.cosine, 5 * left.sine, 0})),
            "turn 15.1 degrees to its left");
  // Past the upper end of a wall the line from (0, 0) to (8, y) has to pass above (4, 1): y > 2.
  const Level level = level_of({box({4, -2}, {4.2, 1}, 3.0)});
  EXPECT_EQ(remedy_text(level, watcher(), someone({8, 0, 0})), "2.01 m to its left, past box");
}

TEST(Remedy, OfTwoFailuresIsAListThatDoesItTogether) {
  EXPECT_EQ(remedy_text({}, watcher(), someone({-12, 0, 0})),
            "no single change helps; 2.00 m nearer, then turn 135.0 degrees to its left");
}

TEST(Remedy, OverheadInSpaceIsNoTurn) {
  Level level;
  level.plane = Plane::space;
  // 4 m above the eye: a cone of 45 degrees never gets there by turning. Aside by 4 m it does.
  const std::string text = remedy_text(level, watcher(), someone({0.5, 0, 4}));
  EXPECT_EQ(text.find("turn"), std::string::npos) << text;
  EXPECT_NE(text.find("lower"), std::string::npos) << text;
}

TEST(Remedy, SeenFromTheSideWhoFacesLeftTurnsRound) {
  Level level;
  level.plane = Plane::upright;
  Looker from = watcher();
  from.facing = {-1, 0};
  EXPECT_EQ(remedy_text(level, from, someone({5, 0, 0})), "turn round");
  // Facing left, up is clockwise: 60 degrees up, 45 to either side.
  from.facing = {-1, 0};
  from.sight.field_of_view = Angle::from_degrees(10.0);
  const double rise = 5.0 * std::sqrt(3.0);
  const std::string text = remedy_text(level, from, someone({-5, 0, rise - 1.0}));
  EXPECT_EQ(text.find("anticlockwise"), std::string::npos) << text;
  EXPECT_NE(text.find("clockwise"), std::string::npos) << text;
}

TEST(Remedy, SaysThatNothingHelps) {
  const Level level = level_of({box({0.8, -50}, {1, 50}, 30.0), box({-1, -50}, {-0.8, 50}, 30.0)});
  EXPECT_EQ(remedy_text(level, watcher(), someone({40, 0, 0})),
            "no turn and no step of up to 10 m, nor both, helps: box is in the way");
}

TEST(Remedy, OfOneWhoIsSeenAreTheWaysToEndThat) {
  // At 10 m and at 45 degrees it is seen still.
  EXPECT_EQ(remedy_text({}, watcher(), someone({4, 0, 0})),
            "6.01 m farther, or turn 45.1 degrees to its left, or 4.01 m to its left");
}

// ---- what is printed, done by another hand

struct Done {
  Looker looker;
  LookedAt other;
};

void do_step(Plane plane, double metres, const std::string& how, Done& done) {
  const Vector3d off = done.other.feet - done.looker.feet;
  if (how == "higher") {
    done.other.feet.z() += metres;
  } else if (how == "lower") {
    done.other.feet.z() -= metres;
  } else if (how == "to its left" || how == "to its right") {
    const double angle = std::atan2(off.y(), off.x()) + (how == "to its left" ? 0.5 : -0.5) * M_PI;
    done.other.feet += Vector3d{std::cos(angle) * metres, std::sin(angle) * metres, 0.0};
  } else {
    Vector3d along = off;
    if (plane == Plane::ground) along.z() = 0.0;
    along.normalize();
    done.other.feet += along * (how == "farther" ? metres : -metres);
  }
}

void do_turn(double degrees, const std::string& how, Done& done) {
  const bool is_left = how == "to its left" || how == "anticlockwise";
  const double angle = std::atan2(done.looker.facing.y(), done.looker.facing.x()) +
                       (is_left ? 1.0 : -1.0) * degrees * M_PI / 180.0;
  done.looker.facing = {std::cos(angle), std::sin(angle)};
}

Done done_as_printed(Plane plane, const std::string& text, const Looker& looker,
                     const LookedAt& other) {
  Done done{looker, other};
  const std::regex step(R"(([0-9.]+) m (nearer|farther|higher|lower|to its left|to its right))");
  const std::regex turn(
      R"(turn ([0-9.]+) degrees (to its left|to its right|anticlockwise|clockwise))");
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.size(), text.find(", then ", at));
    const std::string part = text.substr(at, end - at);
    at = end + 7;
    std::smatch found;
    if (part == "turn round") {
      done.looker.facing.x() = -done.looker.facing.x();
    } else if (std::regex_search(part, found, turn)) {
      do_turn(std::stod(found[1]), found[2], done);
    } else if (std::regex_search(part, found, step)) {
      do_step(plane, std::stod(found[1]), found[2], done);
    } else {
      ADD_FAILURE() << text;
    }
  }
  return done;
}

struct RandomLook {
  Level level;
  Looker looker;
  LookedAt other;
};

RandomLook random_look(scenes::Random& random, Plane plane) {
  RandomLook it;
  it.level.plane = plane;
  const bool is_side_on = plane == Plane::upright;
  for (int i = 0; i < 5; ++i) {
    const double x = random.between(1, 12);
    const double y = random.between(-6, 6);
    Solid solid = box({x, y}, {x + random.between(0.1, 2), y + random.between(0.2, 4)},
                      random.between(0.5, 4));
    solid.id = fmt::format("box-{}", i);
    it.level.solids.push_back(solid);
  }
  const auto place = [&] {
    const double x = random.between(0, 14);
    const double y = is_side_on ? 0.0 : random.between(-6, 6);
    const double z = plane == Plane::ground ? 0.0 : random.between(-4, 4);
    return Vector3d{x, y, z};
  };
  const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0, 360)));
  it.looker.feet = place();
  it.looker.facing = {way.cosine, way.sine};
  if (is_side_on && random.next() % 2 == 0) it.looker.facing = {way.cosine < 0.0 ? -1.0 : 1.0, 0.0};
  it.looker.sight.range = random.between(2, 12);
  it.looker.sight.field_of_view = Angle::from_degrees(random.between(20, 300));
  it.looker.sight.eye = Vector3d{random.between(-0.3, 0.3), random.between(-0.3, 0.3), 1.5};
  if (random.next() % 3 == 0) it.looker.sight.eye = Vector3d{0.0, 0.0, 1.5};
  if (!is_side_on && random.next() % 3 == 0) {
    it.looker.sight.vertical_field_of_view = Angle::from_degrees(random.between(20, 90));
  }
  if (random.next() % 4 == 0) it.looker.sight.visible_at_least = 0.6;
  if (random.next() % 4 == 0) it.looker.sight.measure = Measure::surface;
  if (random.next() % 4 == 0) it.looker.sight.near_ring = 1.0;
  it.other = {place(), 1.7, kThreePoints, 0.3};
  return it;
}

class RemedyIn : public ::testing::TestWithParam<Plane> {};

TEST_P(RemedyIn, RandomScenesTurnsTheAnswerWhenDoneAsPrinted) {
  scenes::Random random(11);
  int single = 0;
  int listed = 0;
  int none = 0;
  for (std::uint64_t i = 0; i < testing::rounds(150); ++i) {
    const RandomLook it = random_look(random, GetParam());
    const World world(it.level);
    if (look(world, it.level, it.looker, it.other).sees) continue;
    const Remedy found = remedy(world, it.level, it.looker, it.other);
    const std::string text = describe(found, GetParam());
    if (found.changes.empty()) {
      ++none;
      continue;
    }
    const std::string prefix = "no single change helps; ";
    const bool is_list = text.starts_with(prefix);
    (is_list ? listed : single) += 1;
    EXPECT_EQ(is_list, found.changes.size() > 1);
    const std::string steps = is_list ? text.substr(prefix.size()) : text;
    const Done done = done_as_printed(GetParam(), steps, it.looker, it.other);
    EXPECT_TRUE(look(world, it.level, done.looker, done.other).sees) << i << ": " << text;
  }
  EXPECT_GT(single, testing::enough(40));
  EXPECT_GT(listed, testing::enough(10));
  EXPECT_LT(none, testing::is_sanitized() ? 9 : 50);
}

// No smaller amount of the same sort, to either side, does it.
TEST_P(RemedyIn, RandomScenesIsTheLeastOfItsSort) {
  scenes::Random random(12);
  int tried = 0;
  for (std::uint64_t i = 0; i < testing::rounds(120); ++i) {
    const RandomLook it = random_look(random, GetParam());
    const World world(it.level);
    const bool sees = look(world, it.level, it.looker, it.other).sees;
    const Remedy found = remedy(world, it.level, it.looker, it.other);
    if (!found.is_seen && found.changes.size() > 1) continue;
    for (const Change& change : found.changes) {
      if (change.what == Change::What::turn_round) continue;
      const double units = change.what == Change::What::turn ? 10.0 : 100.0;
      const auto most = static_cast<int>(std::lround(change.amount * units));
      for (int n = 1; n < most; n += 1 + most / 50) {
        for (const bool to_left : {true, false}) {
          Looker looker = it.looker;
          LookedAt other = it.other;
          apply(GetParam(), {change.what, n / units, to_left, ""}, looker, other);
          EXPECT_EQ(look(world, it.level, looker, other).sees, sees)
              << i << ": " << describe(found, GetParam());
        }
      }
      ++tried;
    }
  }
  EXPECT_GT(tried, testing::enough(60));
}

INSTANTIATE_TEST_SUITE_P(Planes, RemedyIn,
                         ::testing::Values(Plane::ground, Plane::upright, Plane::space));

}  // namespace
}  // namespace gaze
