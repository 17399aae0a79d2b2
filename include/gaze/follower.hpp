#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "gaze/face.hpp"
#include "gaze/navigation.hpp"
#include "gaze/path.hpp"

namespace GAZE_FACE gaze {

/// Follows a path, for a host that moves its bodies itself: where to go next, how far it is still,
/// and whether the way still holds. A value; asks for memory only when it gets a path.
class PathFollower {
 public:
  PathFollower() = default;
  /// From the second point of the path on: the first is where it began.
  explicit PathFollower(const Path& path);

  /// The point to walk to from here. Points within `reach`, metres in the plan and no more than 1 m
  /// up or down, are passed; a link is passed at its end alone. Nothing once the last one is.
  std::optional<Vector3d> next(const Vector3d& at, double reach = 0.05);

  /// The leg to that point if it is a link of the mesh (a hop, a drop, a ladder), for the host to
  /// carry out.
  [[nodiscard]] std::optional<Path::Leg> link() const;

  /// Metres from here to the end of the path, along it; 0 at its end.
  [[nodiscard]] double left(const Vector3d& at) const;

  /// True if the body has come off the way: it is farther than `reach` from the leg that it is on,
  /// and the straight way to the next point does not stay on the mesh. Then a new path is to be
  /// found. Links do not count.
  [[nodiscard]] bool has_strayed(const NavigationMesh& mesh, const Vector3d& at,
                                 double reach = 0.05) const;

  /// The points that lie ahead.
  [[nodiscard]] std::span<const Vector3d> ahead() const;

 private:
  std::vector<Vector3d> points_;
  std::vector<Path::Leg> links_;
  std::size_t next_ = 0;
};

}  // namespace gaze
