#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/host_world.hpp"
#include "gaze/level.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

struct SolidId {
  std::uint32_t index = 0;  ///< In Level::solids.
  bool operator==(const SolidId&) const = default;
};

/// Stands for what is in a host's own world.
inline constexpr SolidId kOfHost{0xFFFFFFFE};

/// Where something that moves along a segment first meets a solid.
struct Touch {
  double share = 0.0;  ///< Of the way, in [0, 1).
  SolidId solid;  ///< The first in the level of those met at that share; kOfHost: none of these.
  Vector3d place{0.0, 0.0, 0.0};  ///< Of the point, the ball's centre or the cylinder's feet.
  Vector3d normal{0.0, 0.0,
                  0.0};       ///< Of cylinders and balls: away from the solid, unit; zero inside.
  std::uint64_t host_id = 0;  ///< Of what is in the host's world.
};

/// The solids of a level, indexed by a bounding-volume tree. Immutable; copies share the index, and
/// any number of threads may ask at the same time.
///
/// Every question is about one of the four things that a material stops, and passes through solids
/// that do not stop it. No question throws, locks or allocates.
///
/// Rays, segments and balls meet *closed* solids: a graze along a face, an edge or a corner stops
/// them, and so does a start inside or on a solid, at share 0. The far end alone may touch. A
/// segment without length is stopped if its point lies in or on a solid.
///
/// Cylinders meet *open* solids: standing against a wall or on a block is not overlapping, and a
/// sweep along a wall, or away from one, is free. A sweep that begins inside is stopped at once.
///
/// A question with a coordinate that is not finite, or beyond 1e12 m, finds nothing in the way.
///
/// Boxes of the tree are float, rounded outwards; the last word is always in double.
class World {
 public:
  /// Throws LevelError where the solids are not as `validate` asks; they may do without ids.
  /// O(n log n) for n pieces of them.
  explicit World(const Level& level);

  Plane plane() const noexcept;
  std::size_t index_bytes() const noexcept;     ///< Of the tree and the pieces it points to.
  std::size_t triangle_count() const noexcept;  ///< Of the same solids as closed triangle meshes.

  bool is_clear(const Segment& segment, Stops what) const noexcept;
  bool is_clear(const Ray& ray, Stops what) const noexcept;
  bool is_clear(const BallPath& ball, Stops what) const noexcept;

  std::optional<Touch> first_touch(const Segment& segment, Stops what) const noexcept;
  std::optional<Touch> first_touch(const Ray& ray, Stops what) const noexcept;
  std::optional<Touch> first_touch(const BallPath& ball, Stops what) const noexcept;

  bool overlaps(const Cylinder& cylinder, Stops what) const noexcept;
  /// The first solid in the level that a cylinder overlaps.
  std::optional<SolidId> first_overlap(const Cylinder& cylinder, Stops what) const noexcept;
  std::optional<Touch> sweep(const Cylinder& cylinder, const Vector3d& motion,
                             Stops what) const noexcept;

  /// The same for many at once: the answer to question i is written to place i of a span of equal
  /// length, which must not overlap the questions. 1 stands for clear, or for overlapping. Throws
  /// UsageError where the lengths differ.
  void are_clear(std::span<const Segment> segments, Stops what,
                 std::span<std::uint8_t> clear) const;
  void are_clear(std::span<const Ray> rays, Stops what, std::span<std::uint8_t> clear) const;
  void are_clear(std::span<const BallPath> balls, Stops what, std::span<std::uint8_t> clear) const;
  void first_touches(std::span<const Segment> segments, Stops what,
                     std::span<std::optional<Touch>> touches) const;
  void first_touches(std::span<const Ray> rays, Stops what,
                     std::span<std::optional<Touch>> touches) const;
  void first_touches(std::span<const BallPath> balls, Stops what,
                     std::span<std::optional<Touch>> touches) const;
  void overlap(std::span<const Cylinder> cylinders, Stops what,
               std::span<std::uint8_t> overlapping) const;
  void sweeps(std::span<const Cylinder> cylinders, std::span<const Vector3d> motions, Stops what,
              std::span<std::optional<Touch>> touches) const;

  /// Takes a solid away, or puts it back; copies made before and after are not touched.
  void set_gone(SolidId solid, bool is_gone);
  bool is_gone(SolidId solid) const noexcept;
  World whole() const;  ///< The same with all that has gone.

  /// The world after solids have been added at the end of its level: a copy that is put in, rather
  /// than a new index. What has gone stays gone. Throws as the constructor does, and UsageError for
  /// a level with fewer solids than the world knows, or in another plane.
  World with_solids(const Level& level) const;

  /// The same, where a host's own world is asked as well: segments, rays, and balls by the way of
  /// their middles, the nearer touch counts; of the host's there is no normal. Cylinders meet the
  /// level's solids alone.
  World with_host(std::shared_ptr<const RaySource> host) const;
  const std::shared_ptr<const RaySource>& host() const noexcept { return host_; }

  struct Index;

 private:
  friend const Index& index_of(const World& world) noexcept;
  friend bool stops(const World& world, std::uint32_t piece, Stops what) noexcept;

  std::shared_ptr<const Index> index_;
  std::vector<char> gone_;  ///< By solid; empty while all are there.
  std::shared_ptr<const RaySource> host_;
};

}  // namespace gaze
GAZE_PUBLIC_END
