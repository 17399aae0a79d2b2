#pragma once

#include <cstddef>
#include <optional>
#include <span>

#include "gaze/attack.hpp"
#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/world.hpp"

/// How shots fly, bounce, meet bodies and burst, asked of numbers alone.
GAZE_PUBLIC_BEGIN
namespace gaze {

struct FlightState {
  Vector3d place{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};  ///< Metres a second.
};

/// Where something in free flight is after some seconds, exactly: pulled down by `fall` metres a
/// second squared, and slowed by `drag`, the share of its speed that it loses a second (v' = -drag
/// v - fall z), in steps of any length.
[[nodiscard]] FlightState flown(const FlightState& from, double fall, double drag, double seconds);

/// Turns a velocity towards a direction by at most so much. The speed stays the same.
[[nodiscard]] Vector3d turned_to(const Vector3d& velocity, const Vector3d& way,
                                 const SineCosine& most);

/// The velocity after a bounce off a surface: the part that goes into the surface comes back, and a
/// share of the speed is lost.
[[nodiscard]] Vector3d bounced(const Vector3d& velocity, const Vector3d& normal, double loss);

/// The body that a ball meets first.
struct BodyMet {
  double share = 0.0;    ///< Of the ball's way, [0, 1); 0 if it begins in touch.
  std::size_t body = 0;  ///< Its number in the list.
  bool operator==(const BodyMet&) const = default;
};

/// Which of some bodies a ball meets first while body i moves straight and evenly by `motions[i]`;
/// of several at once the first in the list. Exact, whatever the speed. The far end alone may
/// touch. Throws UsageError unless there are as many motions as bodies. O(bodies).
[[nodiscard]] std::optional<BodyMet> sweep(const BallPath& ball, std::span<const Cylinder> bodies,
                                           std::span<const Vector3d> motions);

/// Which share of its damage a blast of an attack does to a body, in [0, 1]: 0 beyond its radius,
/// and if something that stops shots lies before every point of the body that others look at. What
/// counts of the attack is how its blast falls off.
///
/// @param radius  Of the blast, metres.
/// @param body_points  Shares of the body's height.
[[nodiscard]] double blast_share(const World& world, const Attack& attack, const Vector3d& place,
                                 double radius, const Cylinder& body,
                                 std::span<const double> body_points);

}  // namespace gaze
GAZE_PUBLIC_END
