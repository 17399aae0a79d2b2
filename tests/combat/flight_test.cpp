#include "gaze/flight.hpp"

#include <gtest/gtest.h>

#include "combat/decay.hpp"
#include "scenes.hpp"

namespace gaze {
namespace {

TEST(Decay, IsTheExponentialFunction) {
  for (double x = 0.0; x < 60.0; x += 0.037) {
    EXPECT_NEAR(decay(x), std::exp(-x), 1e-14 * (1.0 + x) * std::exp(-x)) << x;
  }
  EXPECT_EQ(decay(0.0), 1.0);
}

TEST(Flown, IsTheSameInAnySteps) {
  const FlightState start{{1.0, 2.0, 3.0}, {8.0, -2.0, 5.0}};
  for (const double drag : {0.0, 0.3, 2.0}) {
    const FlightState whole = flown(start, 9.81, drag, 1.5);
    FlightState parts = start;
    for (int i = 0; i < 90; ++i) parts = flown(parts, 9.81, drag, 1.0 / 60.0);
    EXPECT_NEAR((whole.place - parts.place).norm(), 0.0, 1e-11) << drag;
    EXPECT_NEAR((whole.velocity - parts.velocity).norm(), 0.0, 1e-11) << drag;
  }
}

// Another method: the equation of motion in 100,000 small steps (midpoint rule).
TEST(Flown, FollowsTheEquationOfMotion) {
  const double drag = 0.7;
  Vector3d place{0.0, 0.0, 2.0};
  Vector3d velocity{12.0, 1.0, 6.0};
  const FlightState end = flown({place, velocity}, 9.81, drag, 2.0);
  constexpr int kSteps = 100'000;
  const double dt = 2.0 / kSteps;
  const Vector3d down{0.0, 0.0, -9.81};
  for (int i = 0; i < kSteps; ++i) {
    const Vector3d half = velocity + (down - velocity * drag) * (dt / 2.0);
    place += half * dt;
    velocity += (down - half * drag) * dt;
  }
  EXPECT_NEAR((end.place - place).norm(), 0.0, 1e-7);
  EXPECT_NEAR((end.velocity - velocity).norm(), 0.0, 1e-7);
}

TEST(Bounced, MirrorsAndLosesItsShare) {
  const Vector3d floor{0.0, 0.0, 1.0};
  EXPECT_NEAR((bounced({3.0, 0.0, -4.0}, floor, 0.0) - Vector3d(3.0, 0.0, 4.0)).norm(), 0.0, 1e-15);
  EXPECT_NEAR(bounced({3.0, 0.0, -4.0}, floor, 0.4).norm(), 3.0, 1e-15);
  EXPECT_EQ(bounced({3.0, 0.0, 4.0}, floor, 0.0), Vector3d(3.0, 0.0, 4.0));  // goes away already
}

TEST(TurnedTo, TurnsByAtMostSoMuchAndKeepsItsSpeed) {
  scenes::Random random(3);
  for (int i = 0; i < 1000; ++i) {
    const Vector3d velocity{random.between(-9, 9), random.between(-9, 9), random.between(-9, 9)};
    const Vector3d way{random.between(-9, 9), random.between(-9, 9), random.between(-9, 9)};
    const double most = random.between(0.0, 90.0);
    const Vector3d turned = turned_to(velocity, way, sine_cosine(Angle::from_degrees(most)));
    const auto between = [](const Vector3d& a, const Vector3d& b) {
      return std::acos(std::clamp(a.dot(b) / a.norm() / b.norm(), -1.0, 1.0)) * 180.0 / M_PI;
    };
    const double whole = between(velocity, way);
    EXPECT_NEAR(turned.norm(), velocity.norm(), 1e-9);
    EXPECT_NEAR(between(velocity, turned), std::min(most, whole), 1e-5);
    EXPECT_NEAR(between(turned, way), std::max(0.0, whole - most), 1e-5);
  }
}

// Another method: both are moved in 20,000 small steps, and the gap between them is measured.
TEST(SweptBall, MeetsTheFirstOfMovingBodies) {
  scenes::Random random(77);
  const auto place = [&](double reach) {
    return Vector3d{random.between(-reach, reach), random.between(-reach, reach),
                    random.between(-1.0, 2.0)};
  };
  const auto gap = [](const Vector3d& ball, double radius, const Cylinder& body) {
    const double across = (ball - body.feet).head<2>().norm() - body.radius;
    const double along = std::max(body.feet.z() - ball.z(), ball.z() - body.feet.z() - body.height);
    return std::hypot(std::max(0.0, across), std::max(0.0, along)) - radius;
  };
  int met_any = 0;
  for (int round = 0; round < 400; ++round) {
    const BallPath ball{{place(6.0), place(6.0)}, random.between(0.02, 0.3)};
    std::vector<Cylinder> bodies;
    std::vector<Vector3d> motions;
    for (int i = 0; i < 6; ++i) {
      bodies.push_back({place(6.0), random.between(0.2, 0.8), random.between(0.5, 2.0)});
      motions.push_back(place(4.0));
    }
    constexpr int kSteps = 20'000;
    std::optional<std::size_t> first;
    double share = 1.0;
    for (int step = 0; step < kSteps && !first; ++step) {
      share = step / double(kSteps);
      const Vector3d at = ball.path.from + (ball.path.to - ball.path.from) * share;
      for (std::size_t i = 0; i < bodies.size() && !first; ++i) {
        Cylinder body = bodies[i];
        body.feet += motions[i] * share;
        if (gap(at, ball.radius, body) <= 0.0) first = i;
      }
    }
    const auto met = sweep(ball, bodies, motions);
    if (!first && met && met->share > 1.0 - 2.0 / kSteps) continue;
    ASSERT_EQ(met.has_value(), first.has_value()) << round;
    if (!met) continue;
    ++met_any;
    EXPECT_NEAR(met->share, share, 2.0 / kSteps) << round;
    EXPECT_EQ(met->body, *first) << round;
  }
  EXPECT_GT(met_any, 40);
  EXPECT_EQ(sweep({}, {}, {}), std::nullopt);
  EXPECT_THROW(static_cast<void>(sweep({}, std::vector<Cylinder>(1), {})), UsageError);
}

}  // namespace
}  // namespace gaze
