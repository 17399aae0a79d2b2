#include "combat/attempt.hpp"

#include <gtest/gtest.h>

#include <array>
#include <cmath>
#include <random>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;
using How = Attack::How;
using Aim = Attack::Aim;
using What = Shortfall::What;

constexpr std::array<double, 3> kPoints{0.0, 0.5, 1.0};

Fighter body_at(double x, double y, double z = 0.0) {
  return {.feet = {x, y, z}, .radius = 0.3, .height = 2.0, .body_points = kPoints};
}

Attack attack_of(How how, double range) {
  Attack attack;
  attack.how = how;
  attack.range = range;
  attack.radius = 0.0;
  attack.muzzle = Vector3d{0.0, 0.0, 0.0};
  attack.gravity_share = 0.0;
  return attack;
}

Attack strike(double range, double arc_deg) {
  Attack attack = attack_of(How::strike, range);
  attack.arc = Angle::from_degrees(arc_deg);
  return attack;
}

Attack shot_within(double tolerance_deg, double radius = 0.1) {
  Attack attack = attack_of(How::shot, 10);
  attack.speed = 20;
  attack.radius = radius;
  attack.muzzle = Vector3d{0.3, 0.0, 1.0};
  attack.aim_tolerance = Angle::from_degrees(tolerance_deg);
  return attack;
}

bool reaches(const World& world, const Attack& attack, const Fighter& other) {
  return can_reach({world, attack, body_at(0, 0), other, {0, 0, 0}, 9.81});
}

TEST(CanReach, OfAStrikeNeedsRangeArcAndAFreeWay) {
  const World open{Level{}};
  EXPECT_TRUE(reaches(open, strike(2, 90), body_at(2, 0)));
  EXPECT_FALSE(reaches(open, strike(2, 90), body_at(2.01, 0)));
  EXPECT_TRUE(reaches(open, strike(2, 90), body_at(1, 1)));
  EXPECT_FALSE(reaches(open, strike(2, 90), body_at(1, 1.01)));
  Level level = level_of({box({0.9, -1}, {1.1, 1}, 0.9)});
  EXPECT_TRUE(reaches(World(level), strike(2, 90), body_at(2, 0)));  // over a low wall
  level.solids[0].height = 1.0;                                      // as high as the middles
  EXPECT_FALSE(reaches(World(level), strike(2, 90), body_at(2, 0)));
}

TEST(CanReach, OfAShotNeedsTheFacingAndRoomForTheBall) {
  const World open{Level{}};
  EXPECT_TRUE(reaches(open, shot_within(45), body_at(5, 5)));
  EXPECT_FALSE(reaches(open, shot_within(44.9), body_at(5, 5)));
  EXPECT_FALSE(reaches(open, shot_within(0), body_at(5, 0.001)));
  EXPECT_TRUE(reaches(open, shot_within(0), body_at(5, 0)));
  const World slit(level_of({box({2, 0.11}, {3, 5}), box({2, -5}, {3, -0.11})}));
  EXPECT_TRUE(reaches(slit, shot_within(3), body_at(5, 0)));
  EXPECT_FALSE(reaches(slit, shot_within(3, 0.12), body_at(5, 0)));
}

// A burst is worth its while if it hurts: over a wall of 1.2 m the blast from the middle, 1 m up,
// reaches the head, 2 m up, of somebody 2 m behind it, and nothing of somebody behind 2.5 m.
TEST(CanReach, OfABurstNeedsABlastThatHurts) {
  const Attack burst = attack_of(How::burst, 5);
  const World low(level_of({box({1.9, -3}, {2.0, 3}, 1.2)}));
  const World high(level_of({box({1.9, -3}, {2.0, 3}, 2.5)}));
  EXPECT_TRUE(reaches(low, burst, body_at(4, 0)));
  EXPECT_FALSE(reaches(high, burst, body_at(4, 0)));
  EXPECT_TRUE(reaches(high, burst, body_at(1, 0)));
  EXPECT_FALSE(reaches(World{Level{}}, burst, body_at(5.01, 0)));
  EXPECT_FALSE(reaches(World{Level{}}, burst, body_at(3, 0, 6.0)));  // too high for the blast
}

// What shields it is named; what is out of the blast has its distance: up from 1 m to its feet at 6
// m, and across from the middle to its side at 2.7 m.
TEST(Shortfall, OfABurstSaysWhatShieldsOrHowFarItIs) {
  const Attack burst = attack_of(How::burst, 5);
  const World wall(level_of({box({1.9, -3}, {2.0, 3}, 2.5)}));
  const auto shielded = shortfall({wall, burst, body_at(0, 0), body_at(4, 0), {0, 0, 0}, 9.81});
  ASSERT_TRUE(shielded && shielded->touch);
  EXPECT_EQ(shielded->what, What::shielded);
  EXPECT_EQ(shielded->touch->solid.index, 0U);
  const World open{Level{}};
  const auto beyond = shortfall({open, burst, body_at(0, 0), body_at(3, 0, 6.0), {0, 0, 0}, 9.81});
  ASSERT_TRUE(beyond);
  EXPECT_EQ(beyond->what, What::blast);
  EXPECT_NEAR(beyond->found, std::hypot(5.0, 2.7), 1e-12);
  EXPECT_EQ(beyond->limit, 5.0);
}

TEST(CanReach, OfACatchNeedsTouchWhereItHasNoRange) {
  const World open{Level{}};
  EXPECT_TRUE(reaches(open, attack_of(How::catch_, 0), body_at(0.6, 0)));
  EXPECT_FALSE(reaches(open, attack_of(How::catch_, 0), body_at(0.601, 0)));
  EXPECT_FALSE(reaches(open, attack_of(How::catch_, 0), body_at(0.5, 0, 2.1)));  // above its head
  EXPECT_TRUE(reaches(open, attack_of(How::catch_, 1), body_at(1, 0)));
  Attack thorns = attack_of(How::touch, 0);
  thorns.sides = SideSet{0b000001};
  EXPECT_TRUE(reaches(open, thorns, body_at(0.6, 0)));
  EXPECT_FALSE(reaches(open, thorns, body_at(-0.6, 0)));
}

class Scenes {
 public:
  explicit Scenes(std::uint64_t seed) : random_(seed) {}

  Level level(Plane plane) {
    std::vector<Solid> solids;
    for (int i = 0; i < 3; ++i) {
      const Vector2d low{between(-4, 4), between(-4, 4)};
      solids.push_back(box(low, {low.x() + between(0.1, 2), low.y() + between(0.1, 2)}, 1.1));
    }
    return level_of(std::move(solids), plane);
  }

  Fighter fighter(Plane plane) {
    const SineCosine way = sine_cosine(Angle::from_degrees(between(0, 360)));
    Fighter one = body_at(between(-4, 4), between(-4, 4), between(-4, 4));
    if (plane == Plane::upright) one.feet.y() = 0.0;
    one.facing = {way.cosine, way.sine};
    one.tilt_limits = {between(-90, 0), between(0, 90)};
    return one;
  }

  Attack attack() {
    Attack attack = shot_within(between(0, 180), between(0, 0.3));
    attack.how = static_cast<How>(below(6));
    attack.aim = attack.how == How::shot ? static_cast<Aim>(below(6)) : Aim::direct;
    if (attack.how == How::beam) {
      attack.aim =
          std::array{Aim::direct, Aim::ahead, Aim::mirror}[static_cast<std::size_t>(below(3))];
      attack.locks_on = attack.aim != Aim::mirror && below(2) == 0;
    }
    attack.range = attack.how == How::catch_ && below(2) == 0 ? 0.0 : between(1, 10);
    attack.min_range = attack.how == How::touch ? 0.0 : std::max(0.0, between(-2, 2));
    attack.speed = between(3, 20);
    attack.gravity_share = is_lobbed(attack) ? 1.0 : 0.0;
    attack.arc = Angle::from_degrees(between(1, 360));
    return attack;
  }

  double between(double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random_);
  }
  int below(int count) { return std::uniform_int_distribution<int>(0, count - 1)(random_); }

 private:
  std::mt19937_64 random_;
};

// The quick answer and the one with numbers are twins, and what the numbers say is so.
TEST(Shortfall, IsThereExactlyIfTheAttackCannotBeMade) {
  Scenes scenes(14);
  std::array<int, 12> told{};
  int made = 0;
  for (std::uint64_t i = 0; i < testing::rounds(30'000); ++i) {
    const Plane plane = std::array{Plane::ground, Plane::upright, Plane::space}[i % 3];
    const World world(scenes.level(plane));
    const Attack attack = scenes.attack();
    const Vector3d motion{scenes.between(-8, 8), 0.0, 0.0};
    const Attempt attempt{world,  attack, scenes.fighter(plane), scenes.fighter(plane),
                          motion, 9.81};
    const auto kept = shortfall(attempt);
    ASSERT_EQ(!kept, is_far_enough(attempt) && can_reach(attempt)) << i;
    if (!kept) {
      ++made;
      continue;
    }
    ++told[static_cast<std::size_t>(kept->what)];
    if (kept->what == What::far || kept->what == What::turn || kept->what == What::arc) {
      EXPECT_GT(kept->found, kept->limit - 1e-9) << i;
    }
    if (kept->what == What::near) {
      EXPECT_LT(kept->found, kept->limit) << i;
    }
  }
  EXPECT_GT(made, 500);
  for (const int count : told) EXPECT_GT(count, testing::enough(10));
}

}  // namespace
}  // namespace gaze
