#include <gtest/gtest.h>

#include "gaze/aim.hpp"
#include "scenes.hpp"

namespace gaze {
namespace {

constexpr double kGravity = 9.81;

Vector3d random_vector(scenes::Random& random, double most) {
  return {random.between(-most, most), random.between(-most, most), random.between(-most, most)};
}

// How far apart shot and target are at a time, after a launch.
double apart(const Vector3d& muzzle, const Vector3d& target, const Vector3d& motion,
             const Launch& launch, double gravity, double seconds) {
  const Vector3d fall{0.0, 0.0, gravity * seconds * seconds / 2.0};
  return (muzzle + launch.velocity * seconds - fall - target - motion * seconds).norm();
}

TEST(AimLead, MeetsAnyTargetThatKeepsItsCourseAndAsEarlyAsCanBe) {
  scenes::Random random(1);
  int met = 0;
  for (int i = 0; i < 5000; ++i) {
    const Vector3d muzzle = random_vector(random, 5.0);
    const Vector3d target = random_vector(random, 40.0);
    const Vector3d motion = random_vector(random, i % 2 == 0 ? 3.0 : 15.0);
    const double speed = random.between(1.0, 25.0);
    const auto launch = aim_lead(muzzle, target, motion, speed);
    // Reached before some time if the way there is shorter than what the shot goes meanwhile.
    const auto is_in_reach = [&](double t) {
      return (target + motion * t - muzzle).norm() <= speed * t;
    };
    if (!launch) {
      for (int k = 1; k <= 400; ++k) EXPECT_FALSE(is_in_reach(0.1 * k * k)) << i;
      continue;
    }
    ++met;
    EXPECT_NEAR(launch->velocity.norm(), speed, 1e-9 * speed) << i;
    EXPECT_NEAR(apart(muzzle, target, motion, *launch, 0.0, launch->seconds), 0.0,
                1e-9 * (1.0 + launch->seconds * speed))
        << i;
    for (int k = 1; k < 20; ++k) EXPECT_FALSE(is_in_reach(launch->seconds * k / 20.0)) << i;
  }
  EXPECT_GT(met, 3000);
  EXPECT_LT(met, 4900);
}

TEST(AimLob, MeetsItsTargetByBothArcs) {
  scenes::Random random(2);
  int both = 0;
  for (int i = 0; i < 5000; ++i) {
    const Vector3d muzzle = random_vector(random, 2.0);
    const Vector3d target = random_vector(random, 12.0);
    const Vector3d motion = random_vector(random, 2.0);
    const double speed = random.between(6.0, 25.0);
    const auto low = aim_lob(muzzle, target, motion, speed, kGravity, false);
    const auto high = aim_lob(muzzle, target, motion, speed, kGravity, true);
    for (const auto& launch : {low, high}) {
      if (!launch) continue;
      EXPECT_NEAR(launch->velocity.norm(), speed, 1e-6 * speed) << i;
      EXPECT_NEAR(apart(muzzle, target, motion, *launch, kGravity, launch->seconds), 0.0, 1e-6)
          << i;
    }
    if (!low || !high) continue;
    ++both;
    EXPECT_LE(low->seconds, high->seconds + 1e-6) << i;
  }
  EXPECT_GT(both, 2500);
}

// On level ground s^2 / g; from a height as the closed form says, where an arc is just possible.
TEST(LobReach, IsWhereArcsEnd) {
  EXPECT_NEAR(lob_reach(12.0, kGravity, 0.0), 144.0 / kGravity, 1e-12);
  EXPECT_EQ(lob_reach(3.0, kGravity, 1.0), 0.0);
  for (const double rise : {-6.0, 0.0, 4.0}) {
    const double reach = lob_reach(12.0, kGravity, rise);
    const Vector3d still{0.0, 0.0, 0.0};
    EXPECT_TRUE(aim_lob(still, {reach * 0.9999, 0.0, rise}, still, 12.0, kGravity, false));
    EXPECT_FALSE(aim_lob(still, {reach * 1.0001, 0.0, rise}, still, 12.0, kGravity, false));
  }
}

TEST(Aim, HasNoAnswerToNonsense) {
  const Vector3d here{1.0, 2.0, 3.0};
  const Vector3d still{0.0, 0.0, 0.0};
  const Vector3d nowhere{std::numeric_limits<double>::quiet_NaN(), 0.0, 0.0};
  EXPECT_FALSE(aim_lead(here, here, still, 5.0));
  EXPECT_FALSE(aim_lead(here, nowhere, still, 5.0));
  EXPECT_FALSE(aim_lob(here, here, still, 5.0, kGravity, false));
  EXPECT_FALSE(aim_lob(here, nowhere, still, 5.0, kGravity, true));
  EXPECT_FALSE(aim_lob(here, {2.0, 2.0, 3.0}, still, 5.0, 0.0, false));
}

}  // namespace
}  // namespace gaze
