#include "gaze/flight.hpp"

#include <cmath>

#include "combat/decay.hpp"
#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"
#include "world/lengths.hpp"

namespace gaze {

FlightState flown(const FlightState& from, double fall, double drag, double seconds) {
  FlightState to;
  if (drag == 0.0) {
    to.place = from.place + from.velocity * seconds;
    to.place.z() -= fall * seconds * seconds / 2.0;
    to.velocity = from.velocity;
    to.velocity.z() -= fall * seconds;
    return to;
  }
  // About the speed of a steady fall the velocity decays evenly.
  const Vector3d steady{0.0, 0.0, -fall / drag};
  const double left = decay(drag * seconds);
  to.velocity = steady + (from.velocity - steady) * left;
  to.place = from.place + steady * seconds + (from.velocity - steady) * ((1.0 - left) / drag);
  return to;
}

Vector3d turned_to(const Vector3d& velocity, const Vector3d& way, const SineCosine& most) {
  const double speed = length_of(velocity);
  const double length = length_of(way);
  if (speed == 0.0 || length == 0.0) return velocity;
  const Vector3d along = velocity / speed;
  const Vector3d wanted = way / length;
  const double cosine = dot3(along, wanted);
  const Vector3d across = wanted - along * cosine;
  const double sine = length_of(across);
  if (cosine >= most.cosine || sine == 0.0) return wanted * speed;
  return (along * most.cosine + across / sine * most.sine) * speed;
}

Vector3d bounced(const Vector3d& velocity, const Vector3d& normal, double loss) {
  const double into = dot3(velocity, normal);
  const Vector3d mirrored = into < 0.0 ? Vector3d(velocity - normal * (2.0 * into)) : velocity;
  return mirrored * (1.0 - loss);
}

std::optional<BodyMet> sweep(const BallPath& ball, std::span<const Cylinder> bodies,
                             std::span<const Vector3d> motions) {
  need_as_many(bodies.size(), motions.size());
  std::optional<BodyMet> first;
  for (std::size_t i = 0; i < bodies.size(); ++i) {
    const auto share = first_touch(ball, bodies[i], motions[i]);
    if (share && (!first || *share < first->share)) first = BodyMet{*share, i};
  }
  return first;
}

}  // namespace gaze
