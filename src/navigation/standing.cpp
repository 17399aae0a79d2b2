#include "navigation/standing.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

/// Metres. A leg that passes a body as near as touching meets nobody; this is how much nearer it
/// may come by rounding.
constexpr double kTouch = 0.01;

/// At which share of a leg, in [0, 1], it comes nearest to a place.
double nearest_share(const Vector2d& from, const Vector2d& way, const Vector2d& place) {
  const double length2 = dot(way, way);
  if (length2 == 0.0) return 0.0;
  return std::clamp(dot(way, place - from) / length2, 0.0, 1.0);
}

Vector2d place_of(const Cylinder& body) {
  return {body.feet.x(), body.feet.y()};
}

}  // namespace

bool Standing::bars(const MeshPoint& from, const MeshPoint& to, Ends ends) const {
  const Vector2d start{from.x, from.y};
  const Vector2d way{to.x - from.x, to.y - from.y};
  return std::any_of(bodies_.begin(), bodies_.end(), [&](const Cylinder& body) {
    const Vector2d at = place_of(body);
    const double share = nearest_share(start, way, at);
    if ((share == 0.0 && ends.starts) || (share == 1.0 && ends.ends)) return false;
    const Vector2d near = start + way * share;
    const Vector2d off = at - near;
    const double distance = length_of(off);
    if (distance >= gap(body) - kTouch) return false;
    Vector2d out{1.0, 0.0};
    if (distance > 0.0) {
      out = off / distance;
    } else if (const double length = length_of(way); length > 0.0) {
      out = Vector2d{-way.y() / length, way.x() / length};
    }
    const auto beside = mesh_.find({near.x(), near.y(), body.feet.z()});
    return !beside || (!has_room(*beside, near, body, out) && !has_room(*beside, near, body, -out));
  });
}

// The first place beyond a body in a direction that is also beyond all other bodies that stand
// there. It takes at most as many steps as there are bodies.
bool Standing::has_room(const MeshPlace& from, const Vector2d& near, const Cylinder& body,
                        const Vector2d& out) const {
  double beyond = dot(place_of(body) - near, out) + gap(body);
  for (std::size_t round = 0; round < bodies_.size(); ++round) {
    double next = beyond;
    for (const Cylinder& other : bodies_) {
      const Vector2d off = place_of(other) - near;
      const double aside = cross(out, off);
      const double reach2 = gap(other) * gap(other) - aside * aside;
      if (reach2 <= 0.0) continue;
      const double along = dot(off, out);
      const double reach = std::sqrt(reach2);
      if (beyond > along - reach + kTouch && beyond < along + reach - kTouch) {
        next = std::max(next, along + reach);
      }
    }
    if (next == beyond) break;
    beyond = next;
  }
  const Vector2d place = near + out * beyond;
  const auto to = mesh_.find({place.x(), place.y(), body.feet.z()}, from.polygon);
  return to && mesh_.is_free(from, *to);
}

}  // namespace gaze
