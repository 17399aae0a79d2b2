#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <span>

#include "gaze/aim.hpp"
#include "gaze/level.hpp"
#include "gaze/world.hpp"

namespace gaze {

/// A body in a fight.
struct Fighter {
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};  ///< In the plan.
  double radius = 0.0;
  double height = 0.0;
  std::array<double, 2> tilt_limits{-90.0, 90.0};  ///< Degrees that its shots rise.
  bool flips = false;  ///< Seen from the side it walks, and faces left or right alone.
  std::span<const double> body_points{};  ///< Shares of its height that a blast has to reach.

  Vector3d middle() const { return feet + Vector3d{0.0, 0.0, height / 2.0}; }
};

/// True if the target is near enough, and the fighter is turned to it as far as the tolerance asks
/// (in the plan, from middle to middle).
[[nodiscard]] bool is_aimed_at(Plane plane, const Attack& attack, const Fighter& fighter,
                               const Fighter& target);

/// A body of a kind as a fighter, placed somewhere. It points into the kind, which has to outlive
/// it.
[[nodiscard]] Fighter fighter_of(Plane plane, const Kind& kind, const Vector3d& feet,
                                 const Vector2d& facing);

/// How far from its facing a fighter may aim. One that faces left or right alone aims anywhere to
/// that side, in the plane of the picture.
[[nodiscard]] Angle aim_limit(const Attack& attack, const Fighter& fighter);

/// True if an agent of a kind faces left or right alone.
[[nodiscard]] bool flips(Plane plane, const Kind& kind);

/// True if the fighter is turned to the target as far as the limit asks, in the plan, from middle
/// to middle.
[[nodiscard]] bool is_facing(Plane plane, const Fighter& fighter, const Fighter& target,
                             Angle limit);

/// True if a shot or beam in that direction rises no more and no less than the fighter can tilt it.
/// Seen from the side it turns in the plane instead.
[[nodiscard]] bool can_tilt(Plane plane, const Fighter& fighter, const Vector3d& way);

/// With which velocity a shot leaves the muzzle for the middle of a target that keeps its velocity,
/// as the attack aims; nothing if it cannot get there. Whether anything is in the way is not asked.
///
/// @param gravity  Of the level, metres a second squared.
[[nodiscard]] std::optional<Launch> launch_at(Plane plane, const Attack& attack,
                                              const Fighter& shooter, const Fighter& target,
                                              const Vector3d& motion, double gravity);

/// Calls `use(Segment)` for the way of a launch, until it returns false: one piece, or of arcs as
/// many chords as keep within 5 mm of it. @return False if it did.
template <typename Use>
bool along_flight(const Attack& attack, const Vector3d& muzzle, const Launch& launch,
                  double gravity, Use&& use) {
  if (!is_lobbed(attack)) return use(Segment{muzzle, launch.meets});
  constexpr double kSag = 0.005;  // metres: that of a chord of s seconds is g s^2 / 8
  constexpr double kMostChords = 1000.0;
  const double fall = gravity * *attack.gravity_share;
  const double chords =
      std::clamp(std::ceil(launch.seconds / std::sqrt(8.0 * kSag / fall)), 1.0, kMostChords);
  const auto at = [&](double share) {
    const double t = launch.seconds * share;
    return Vector3d(muzzle + launch.velocity * t - Vector3d{0.0, 0.0, fall * t * t / 2.0});
  };
  for (double i = 0.0; i < chords; i += 1.0) {
    if (!use(Segment{at(i / chords), at((i + 1.0) / chords)})) return false;
  }
  return true;
}

/// True if a ball of the projectile's size flies from the muzzle to where it meets the target
/// without meeting a solid that stops shots. Arcs are asked chord by chord, each at most 5 mm from
/// the arc.
[[nodiscard]] bool is_flight_clear(const World& world, const Attack& attack, const Vector3d& muzzle,
                                   const Launch& launch, double gravity);

/// Where the muzzle is.
[[nodiscard]] Vector3d muzzle_of(Plane plane, const Attack& attack, const Fighter& fighter);

/// What straight ahead is for an attack: along the facing, or along a feeler.
[[nodiscard]] Vector3d ahead_of(Plane plane, const Attack& attack, const Fighter& fighter);

}  // namespace gaze
