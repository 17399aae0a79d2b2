#include "navigation/arc_room.hpp"

#include <algorithm>
#include <cmath>

#include "world/touching.hpp"

namespace gaze {
namespace {

constexpr double kSagitta = 0.005;   // metres
constexpr double kOffFloor = 0.001;  // metres

bool sweeps(const World& world, const BodySize& body, const Vector3d& from, const Vector3d& to,
            double step = 0.0) {
  const double lift = std::max(step, kOffFloor);
  const Cylinder cylinder =
      standing_core({from + Vector3d{0.0, 0.0, lift}, body.radius, body.height + kSagitta - lift});
  return !world.sweep(cylinder, to - from, Stops::bodies);
}

}  // namespace

bool has_room_for(const World& world, const BodySize& body, const Arc& arc, double step) {
  // A chord over t seconds lies at most g t^2 / 8 below the arc.
  const double most = std::sqrt(8.0 * kSagitta / arc.gravity);
  const int pieces = std::max(2, static_cast<int>(std::ceil(arc.seconds / most)));
  Vector3d before = arc.from;
  for (int i = 1; i <= pieces; ++i) {
    const Vector3d at = place_on(arc, arc.seconds * i / pieces);
    if (!sweeps(world, body, before, at, step)) return false;
    before = at;
  }
  return true;
}

bool has_room_to_drop(const World& world, const BodySize& body, const Vector3d& from,
                      const Vector3d& to) {
  const Vector3d above{to.x(), to.y(), from.z()};
  return sweeps(world, body, from, above) && sweeps(world, body, above, to);
}

}  // namespace gaze
