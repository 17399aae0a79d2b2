#include "navigation/arc.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {

std::optional<Arc> arc_between(const Vector3d& from, const Vector3d& to, double rise,
                               double gravity) {
  const double height = to.z() - from.z();
  if (!(gravity > 0.0) || !(rise > 0.0) || !(height <= rise)) return std::nullopt;
  Arc arc{from, to, std::sqrt(2.0 * gravity * rise), gravity, 0.0};
  arc.seconds = (arc.up + std::sqrt(2.0 * gravity * (rise - height))) / gravity;
  return arc;
}

Vector3d place_on(const Arc& arc, double seconds) {
  if (!(seconds < arc.seconds)) return arc.to;
  const double share = seconds / arc.seconds;
  Vector3d place = arc.from + (arc.to - arc.from) * share;
  place.z() = arc.from.z() + arc.up * seconds - arc.gravity * seconds * seconds / 2.0;
  return place;
}

double time_to_height(const Arc& arc, double height) {
  const double root2 = arc.up * arc.up - 2.0 * arc.gravity * height;
  return (arc.up - std::sqrt(std::max(0.0, root2))) / arc.gravity;
}

}  // namespace gaze
