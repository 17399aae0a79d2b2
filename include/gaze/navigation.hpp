#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/world.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// A body as a navigation mesh knows it. Each mesh is made for one size of body.
struct BodySize {
  double radius = 0.3;                      ///< Metres, above 0.
  double height = kUsualHeight;             ///< Metres, above 0.
  double step_height = 0.3;                 ///< Metres, >= 0.
  Angle slope = Angle::from_degrees(40.0);  ///< Steepest that it walks on, [0, 90).
  double hop_height = 0.0;                  ///< Metres: so far up it hops; 0: not at all.
  double hop_length = 0.0;                  ///< Metres in the plan: so far it hops.
  double drop_height = 0.0;                 ///< Metres: so far down it drops or hops.
  std::optional<double> altitude;           ///< Of its feet, if it hovers.
  std::vector<std::uint32_t> closed;        ///< Zones that are closed to it, in order.
  std::vector<std::uint32_t> opens;         ///< Doors that open for it, by solid, in order.
  bool operator==(const BodySize&) const = default;
};

/// The body of a kind. What hovers does so above the ground (at height 0 where there is none).
[[nodiscard]] BodySize body_size(const Level& level, const Kind& kind);
/// The body of an agent. What hovers does so above the place where the agent was put.
[[nodiscard]] BodySize body_size(const Level& level, const Agent& agent);

/// How high the feet of an agent that hovers or hangs are, metres.
[[nodiscard]] double altitude_of(const Level& level, const Kind& kind, const Vector3d& at);

/// A part of the free space: a convex polygon on one surface.
struct MeshPolygon {
  std::vector<Vector3d> corners;  ///< Anticlockwise in the plan; some may lie in line.
  std::vector<std::optional<std::uint32_t>> beyond;  ///< The polygon across the edge from corner i.
  std::uint32_t island = 0;
};

/// A part of the mesh from which the rest cannot be reached and back, neither by walking nor by
/// links.
struct Island {
  std::string name;   ///< "ground", or after the solids on top of which it lies.
  double area = 0.0;  ///< Square metres, level.
  std::uint32_t some_polygon = 0;
};

/// A way from one place of the mesh to another that is not walked.
struct MeshLink {
  enum class What {
    hop,   ///< Up, down or over a gap, in free flight.
    drop,  ///< Over a ledge and straight down.
    made,  ///< As the designer has it: straight up or down, and level.
  };
  What what = What::hop;
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
  std::uint32_t made = 0;  ///< Of what is made: index in Level::links.
};

/// "hop", "drop", or the id of what the designer made.
[[nodiscard]] std::string name_of(const Level& level, const MeshLink& link);

/// Where in the mesh a place is.
struct MeshPlace {
  std::uint32_t polygon = 0;
  Vector3d place{0.0, 0.0, 0.0};  ///< On the mesh.
};

/// Where a body of one size can be: convex polygons over the exact free space of its centre, which
/// join without cracks. Their edges keep the body's radius from every solid that stops it; round
/// corners are given by tangents, at most `kRoundingSlack` outside the true arc. A place belongs to
/// the mesh if a surface carries the feet there and no solid that stops bodies overlaps the heights
/// from feet + step height to feet + height within the radius.
///
/// Doors that open for the body are no hindrance. Where other doors stand, and what breaks, there
/// is mesh too; it counts once they have gone.
///
/// Immutable; copies share everything, and any number of threads may ask at the same time.
class NavigationMesh {
 public:
  /// Metres: how far outside the exact free space's rim the mesh may end.
  static constexpr double kRoundingSlack = 0.009;
  /// Metres: a place so near to the mesh counts as on it: bodies slide along solids more closely
  /// than the mesh reaches.
  static constexpr double kNearMesh = 0.02;

  /// Metres: how far apart along a ledge hops and drops begin; at least the width of the body, and
  /// wider where all rims together are longer than `kMostLinkPlaces` times that.
  static constexpr double kLinkSpacing = 1.0;
  static constexpr std::size_t kMostLinkPlaces = 1000;
  /// Metres: how far apart the places are at which ways may cross the rims of areas with a cost;
  /// wider where all rims together are longer than `kMostCrossings` times that.
  static constexpr double kRimSpacing = 0.25;
  static constexpr std::size_t kMostCrossings = 1000;

  /// So many sights from corner to corner are kept at most, and so many gaps looked through to find
  /// them. Of corners beyond that each search looks anew: ways are as short, and take longer to
  /// find.
  static constexpr std::size_t kMostSights = 20'000'000;
  static constexpr std::size_t kMostLooks = 50'000'000;

  /// O(n log n) for n corners of solids, and as many looks as the corners see of each other.
  /// Throws UsageError for a body of no size, or with a number that is not finite.
  /// @param most_looks  0: no sights are kept, for a mesh that is made for few searches.
  NavigationMesh(const Level& level, const World& world, const BodySize& body,
                 std::size_t most_looks = kMostLooks);

  /// A mesh of a host's own: convex polygons in space on which the middle of the body may be, flat
  /// within 1 cm, given either way round. They join where their sides lie on one another and the
  /// body steps from one to the other; they may overlap and lie above each other. Of hops, drops
  /// and solids it knows nothing. Throws UsageError for other polygons, and as above.
  NavigationMesh(std::span<const std::vector<Vector3d>> polygons, const BodySize& body,
                 std::size_t most_looks = kMostLooks);

  /// The mesh after solids have been added at the end of its level. It is mended where they stand,
  /// and all else is taken over: far quicker than making it anew, and as exact. It is made anew
  /// where the solids give more to stand on, lie outside of what the mesh covers, or reach up to
  /// where two surfaces join, and where the body hops, drops or takes links.
  ///
  /// For a mesh of a host's own polygons the level holds what has been put in, and nothing else;
  /// solids with `can_go` are taken out again by `World::set_gone`, which a search is given. Throws
  /// UsageError for a level with fewer solids than the mesh knows, or in another plane.
  NavigationMesh with_solids(const Level& level, const World& world) const;

  const BodySize& body() const noexcept;
  std::size_t polygon_count() const noexcept;
  MeshPolygon polygon(std::size_t index) const;
  /// Corners that ways may turn round, and how many of them are looked from anew by each search.
  std::size_t corner_count() const noexcept;
  std::size_t corners_without_sights() const noexcept;
  double area() const noexcept;  ///< Of all polygons, square metres, level.
  const std::vector<Island>& islands() const noexcept;
  const std::vector<MeshLink>& links() const noexcept;
  double cost(const MeshPlace& place) const noexcept;  ///< Of a metre there.

  /// The polygon on which a body with these feet stands: the highest surface that is not above
  /// feet + step height. Nothing if there is none within `kNearMesh`. For what hovers the height
  /// does not matter: in the plan of the ground any will do.
  std::optional<MeshPlace> find(const Vector3d& feet) const noexcept;
  /// The same, looking first at the polygon where it was before: any number is a valid hint.
  std::optional<MeshPlace> find(const Vector3d& feet, std::uint32_t hint) const noexcept;

  /// The place of the mesh nearest to a place; of those that can be reached from an island if one
  /// is given.
  std::optional<MeshPlace> nearest(const Vector3d& place,
                                   std::optional<std::uint32_t> from_island = {}) const noexcept;

  std::uint32_t island_of(const MeshPlace& place) const noexcept;
  /// True if ways lead from one island to another.
  bool is_reachable(std::uint32_t from_island, std::uint32_t to_island) const noexcept;

  /// True if the straight way between two places stays on the mesh, outside all areas that cost
  /// more than others. A way along the rim or through a corner of it is on the mesh.
  bool is_free(const Vector3d& from, const Vector3d& to) const noexcept;
  bool is_free(const MeshPlace& from, const MeshPlace& to) const noexcept;

  /// The place to which the straight way from a place leads that ends there in the plan; nothing if
  /// it leaves the mesh.
  std::optional<MeshPlace> straight_on(const MeshPlace& from, const Vector3d& to) const noexcept;

  /// What keeps a body off a place, in a few words: "0.12 m too near planter-1". Empty on the mesh.
  std::string hindrance(const Level& level, const World& world, const Vector3d& place) const;

  struct Data;

 private:
  friend const Data& data_of(const NavigationMesh& mesh) noexcept;

  std::shared_ptr<const Data> data_;
};

/// What keeps two islands apart.
struct Parting {
  enum class What {
    shut,    ///< By `solids`: doors that do not open for the body, and what would have to break.
    narrow,  ///< A gap too narrow: `found` and `needed` are widths, metres.
    step,    ///< A step too high: `found` and `needed` are heights, metres.
    height,  ///< The one lies `found` metres above the other (below, if negative), where they come
             ///< nearest to each other; the body gets over `needed` metres.
    unjoined,  ///< Neither: nothing joins them, whatever the body; one of `solids` closes it off.
  };
  What what = What::unjoined;
  double found = 0.0;
  double needed = 0.0;
  Vector3d place{0.0, 0.0, 0.0};  ///< Where.
  std::vector<SolidId> solids;    ///< Between which.
  bool by_hop = false;            ///< Heights: the body hops or drops, and does not only step.
};

/// What is shut, else the widest gap, or the lowest step, by which a body that is small enough
/// would get from one place to the other; both lie on the mesh, on different islands. Found by
/// making meshes for smaller bodies, to a centimetre.
[[nodiscard]] Parting parting(const Level& level, const World& world, const NavigationMesh& mesh,
                              const Vector3d& from, const Vector3d& to);

/// The same in words: "0.62 m wide between pots-1 and bench, this body needs 0.80 m".
[[nodiscard]] std::string describe(const Level& level, const Parting& parting);

}  // namespace gaze
GAZE_PUBLIC_END
