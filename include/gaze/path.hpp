#pragma once

#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/navigation.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// A way for a body to a goal.
struct Path {
  enum class Outcome {
    whole,      ///< It leads to the goal.
    partial,    ///< The goal cannot be reached: it leads to the nearest place that can.
    none,       ///< The goal cannot be reached, and nowhere that can is nearer than the start.
    bad_start,  ///< The start is not on the mesh.
    bad_goal,   ///< The goal is not on the mesh.
  };
  /// One leg of the way that is a link.
  struct Leg {
    std::uint32_t to_point =
        0;                   ///< Index in `points` of where it ends; it begins at the one before.
    std::uint32_t link = 0;  ///< Index in NavigationMesh::links().
  };
  Outcome outcome = Outcome::none;
  double length = 0.0;           ///< Metres: level, as walkers' speed is; links from end to end.
  double cost = 0.0;             ///< The same with each metre in areas as often as it costs.
  std::vector<Vector3d> points;  ///< The start, each turn, where the slope changes, the end.
  std::vector<Leg> links;        ///< In the order of the way.
};

[[nodiscard]] std::string_view name_of(Path::Outcome outcome);

/// Searches paths over navigation meshes, and keeps its memory from one search to the next. Several
/// threads use one each. A copy has memory of its own, and an assigned one keeps its own.
///
/// The way that it finds is the shortest of all over the mesh, to rounding: intervals of the edges
/// that can be seen from a turn are carried from polygon to polygon, best first (Cui, Harabor and
/// Grastien, "Compromise-free pathfinding on a navigation mesh", IJCAI 2017), and a way turns only
/// round corners that it touches.
///
/// Links begin and end at places of their own. Ways cross the rim of an area that costs more or
/// less at places `kRimSpacing` apart at first, and then where that is best between the same turns:
/// what it costs is above the least by no more than half that distance times both costs for each
/// rim.
class PathFinder {
 public:
  PathFinder();
  PathFinder(const PathFinder& other);
  PathFinder(PathFinder&& other) noexcept;
  PathFinder& operator=(const PathFinder& other);
  PathFinder& operator=(PathFinder&& other) noexcept;
  ~PathFinder();

  /// Valid until the next search. Once it has grown to the size of a mesh it allocates nothing.
  ///
  /// @param now  The world as it is now: without those doors and breakable solids that have gone
  ///             since the mesh was made. Nothing: all are there.
  /// @param standing  Bodies that stand in a level seen from above: where one leaves no room beside
  ///                  it, in a gap or a corridor, the way leads round by another one. Each costs a
  ///                  little time for every leg that is looked at; memory is asked for.
  const Path& find(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to,
                   const World* now = nullptr, std::span<const Cylinder> standing = {});

  /// Ways from many places to one, as short as those of `find`. Starts that lie together, as seen
  /// from the goal, share one search, unless links lie on the mesh.
  ///
  /// @param found  Called once for each start with its number, in no order; the path is valid until
  ///               it returns.
  using Found = std::function<void(std::size_t, const Path&)>;
  void find_all(const NavigationMesh& mesh, std::span<const Vector3d> from, const Vector3d& to,
                const World* now, const Found& found);

  /// The place nearest to a place that can be reached from another on the mesh; of those as near
  /// the one nearest to where it is reached from.
  std::optional<MeshPlace> nearest_reachable(const NavigationMesh& mesh, const MeshPlace& from,
                                             const Vector3d& to, const World* now = nullptr);

  /// How many gaps and turns the last search has looked at.
  std::size_t looked_at() const noexcept;

  struct Scratch;

 private:
  std::unique_ptr<Scratch> scratch_;
};

/// What cuts a path's goal off from its start, if that is why it is not whole.
[[nodiscard]] std::optional<Parting> parting(const Level& level, const World& world,
                                             const NavigationMesh& mesh, const Path& path,
                                             const Vector3d& from, const Vector3d& to);

/// Why a path is as it is, with the numbers: what keeps the start or goal off the mesh, or islands
/// apart, or how much longer than straight it is.
[[nodiscard]] std::string explain(const Level& level, const World& world,
                                  const NavigationMesh& mesh, const Path& path,
                                  const Vector3d& from, const Vector3d& to,
                                  const std::optional<Parting>& parting);

/// One search, with memory of its own.
[[nodiscard]] Path find_path(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to);

}  // namespace gaze
GAZE_PUBLIC_END
