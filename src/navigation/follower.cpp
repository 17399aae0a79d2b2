#include "gaze/follower.hpp"

#include <algorithm>
#include <cmath>
#include <span>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"

namespace gaze {
namespace {

bool is_within(const Vector3d& at, const Vector3d& point, double reach) {
  constexpr double kLevel = 1.0;  // metres: a floor above is another place
  const Vector3d off = point - at;
  return off.x() * off.x() + off.y() * off.y() <= reach * reach && std::abs(off.z()) <= kLevel;
}

}  // namespace

PathFollower::PathFollower(const Path& path) : points_(path.points), links_(path.links) {
  next_ = std::min<std::size_t>(1, points_.size());
}

// Paths turn at the corners of obstacles. A body that passes such a point early and goes
// straight to the next one cuts that corner.
bool PathFollower::may_pass(const NavigationMesh& mesh, const Vector3d& at) const {
  const std::size_t after = next_ + 1;
  if (after == points_.size() || is_link_to(after) || at == points_[next_]) return true;
  const std::optional<MeshPlace> place = mesh.find(at);
  return !place || mesh.straight_on(*place, points_[after]);
}

std::optional<Vector3d> PathFollower::next(const NavigationMesh& mesh, const Vector3d& at,
                                           double reach) {
  while (next_ < points_.size() && is_within(at, points_[next_], reach) && may_pass(mesh, at)) {
    ++next_;
  }
  if (next_ == points_.size()) return std::nullopt;
  return points_[next_];
}

bool PathFollower::is_link_to(std::size_t point) const {
  return std::any_of(links_.begin(), links_.end(),
                     [&](const Path::Leg& one) { return one.to_point == point; });
}

std::optional<Path::Leg> PathFollower::link() const {
  const auto leg = std::find_if(links_.begin(), links_.end(),
                                [&](const Path::Leg& one) { return one.to_point == next_; });
  return leg == links_.end() || next_ >= points_.size() ? std::nullopt : std::optional(*leg);
}

double PathFollower::left(const Vector3d& at) const {
  double length = 0.0;
  Vector3d from = at;
  for (const Vector3d& point : ahead()) {
    length += length_of(Vector3d(point - from));
    from = point;
  }
  return length;
}

bool PathFollower::has_strayed(const NavigationMesh& mesh, const Vector3d& at, double reach) const {
  if (next_ >= points_.size() || link()) return false;
  const auto plan = [](const Vector3d& p) { return Vector2d{p.x(), p.y()}; };
  const Vector3d& before = points_[next_ > 0 ? next_ - 1 : next_];
  if (distance_to_segment(plan(before), plan(points_[next_]), plan(at)) <= reach) return false;
  return !mesh.is_free(at, points_[next_]);
}

std::span<const Vector3d> PathFollower::ahead() const {
  return std::span(points_).subspan(next_);
}

}  // namespace gaze
