#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

#include "gaze/navigation.hpp"
#include "gaze/path.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// Follows a path, for a host that moves its bodies itself: the next point, the metres left, and
/// whether the body has strayed. A value; allocates memory only when it gets a path.
class PathFollower {
 public:
  PathFollower() = default;
  /// Begins at the second point of the path. The path began at the first.
  explicit PathFollower(const Path& path);

  /// The point to walk to from `at`; nothing if the last one is passed. A point is passed if it
  /// lies within `reach` metres in the plan and 1 m in height, and if the straight line from `at`
  /// to the point after it stays on `mesh`: a body that walks straight to each point never leaves
  /// the mesh, whatever `reach`, speed and step time are. The start of a link, and any point for a
  /// body that is off the mesh, is passed within `reach`. Cost: one straight walk over the mesh for
  /// each point within `reach`.
  std::optional<Vector3d> next(const NavigationMesh& mesh, const Vector3d& at, double reach = 0.05);

  /// The leg to that point if it is a link of the mesh (a hop, a drop, a ladder). The host carries
  /// it out.
  [[nodiscard]] std::optional<Path::Leg> link() const;

  /// Metres from `at` to the end of the path, along it; 0 at its end.
  [[nodiscard]] double left(const Vector3d& at) const;

  /// True if the body is farther than `reach` metres from its leg, and the straight line to the
  /// next point leaves the mesh. Then find a new path. Always false on a link.
  [[nodiscard]] bool has_strayed(const NavigationMesh& mesh, const Vector3d& at,
                                 double reach = 0.05) const;

  /// The points that are not passed yet. Invalid after the next call of `next` or an assignment.
  [[nodiscard]] std::span<const Vector3d> ahead() const;

 private:
  [[nodiscard]] bool may_pass(const NavigationMesh& mesh, const Vector3d& at) const;
  [[nodiscard]] bool is_link_to(std::size_t point) const;

  std::vector<Vector3d> points_;
  std::vector<Path::Leg> links_;
  std::size_t next_ = 0;
};

}  // namespace gaze
GAZE_PUBLIC_END
