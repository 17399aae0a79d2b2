#pragma once

#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <span>
#include <vector>

#include "gaze/navigation.hpp"
#include "geometry/plan.hpp"
#include "geometry/plan_grid.hpp"
#include "geometry/triangulation.hpp"
#include "navigation/surface.hpp"

namespace gaze {

/// The coordinates of a vertex or corner in the plan.
struct MeshPoint {
  double x = 0.0;
  double y = 0.0;
};

/// One edge of a polygon, as it is seen from inside. The edges of a polygon follow each other in
/// the list.
struct MeshEdge {
  MeshPoint from;
  std::uint32_t vertex = 0;      ///< That of `from`, while the mesh is made.
  std::uint32_t twin = kNone;    ///< The same edge of the polygon beyond, if there is one.
  std::uint32_t polygon = 0;     ///< Whose edge it is.
  std::uint32_t corner = kNone;  ///< At `from`, as seen from within the polygon, if there is one.
};

struct MeshFace {
  std::uint32_t first = 0;  ///< Its edges.
  std::uint32_t count = 0;
  std::uint32_t surface = 0;
  std::uint32_t island = 0;
  std::uint32_t exits = 0;  ///< Edges with a polygon beyond, and crossings.
  std::uint32_t patch = 0;  ///< What has to go first, in `patches`.
  double cost = 1.0;        ///< Of a metre in it.
  double area = 0.0;        ///< In the plan, square metres.
};

/// An area of the plan in which a metre costs more or less, or which is closed. It counts at
/// heights in [low, high).
struct MeshArea {
  Polygon outline;
  double low = 0.0;
  double high = 0.0;
  double cost = 1.0;
  bool is_closed = false;
};

/// A way from one place of the mesh to another that is not walked: a link, or a step over the rim
/// of an area, which takes no time.
struct Crossing {
  MeshPoint from;
  MeshPoint to;
  std::uint32_t from_face = 0;
  std::uint32_t to_face = 0;
  double length = 0.0;
  std::uint32_t link = kNone;  ///< Index in `links`; none: it leads over a rim.
  std::uint32_t edge = kNone;  ///< The edge of that rim.
};

/// An edge between two faces in which a metre costs differently.
struct MeshBorder {
  std::uint32_t edge = 0;
  std::uint32_t beyond = 0;
};

/// A corner round which a way may turn: where the rim of the mesh, followed with the free space to
/// its left, turns right.
struct MeshCorner {
  MeshPoint at;
  MeshPoint before;            ///< The rim comes from there
  MeshPoint after;             ///< It goes on to there.
  std::uint32_t edge = kNone;  ///< The edge along which it goes on.
};

/// On which hand of a way the corner stands round which it turns.
enum class Hand : std::uint32_t { right, left };

/// What the search needs to know of a corner, kept together so that it is read at once.
/// What is seen from a turn of the graph below.
struct TurnNode {
  std::uint32_t first = 0;  ///< Where the turns seen from there begin.
  float reach = 0.0F;       ///< Nothing farther is seen, metres.
};

/// The graph in which shortest ways are searched. A turn is a corner together with the hand on
/// which the way passes it: turn 2 c + hand is that round corner c. From each turn there is a list
/// of the turns and crossings to which a shortest way may go on: those that are seen from there,
/// and that the way may turn round. Crossings are numbered after all turns. The lists of the first
/// corners and crossings are kept; beyond the budget of looks each search looks for itself.
struct TurnGraph {
  std::vector<MeshPoint> places;            ///< By corner.
  std::vector<double> costs;                ///< By corner: of a metre around it. Empty: alike.
  std::vector<TurnNode> nodes;              ///< By turn; one more than there are.
  std::vector<std::uint32_t> to;            ///< Turns and crossings.
  std::vector<std::uint32_t> first_beyond;  ///< By crossing: what is seen from its end.
  std::uint32_t linked = 0;                 ///< So many corners are linked
  std::uint32_t linked_crossings = 0;       ///< and so many crossings.

  std::uint32_t turn_count() const { return static_cast<std::uint32_t>(2 * places.size()); }

  std::span<const std::uint32_t> seen_beyond(std::uint32_t crossing) const {
    return {to.data() + first_beyond[crossing],
            first_beyond[crossing + 1] - first_beyond[crossing]};
  }

  std::span<const std::uint32_t> seen_from(std::uint32_t turn) const {
    return {to.data() + nodes[turn].first, nodes[turn + 1].first - nodes[turn].first};
  }
};

struct NavigationMesh::Data {
  BodySize body;
  Plane plane = Plane::ground;
  std::vector<Surface> surfaces;
  std::vector<MeshFace> faces;
  std::vector<MeshEdge> edges;
  std::vector<MeshPoint> vertices;  ///< While it is made.
  std::vector<MeshCorner> corners;
  TurnGraph turns;
  std::vector<Island> islands;
  PlanGrid grid;  ///< Of the faces.
  double area = 0.0;
  bool is_side_on = false;  ///< Its plan is x and z.
  double gravity = 0.0;
  bool is_of_polygons = false;    ///< A host's own.
  std::size_t most_looks = 0;     ///< As it was made.
  std::uint32_t solid_count = 0;  ///< Of the level, when it was made or mended.
  std::vector<MeshArea> areas;
  std::vector<MeshBorder> borders;                      ///< By edge.
  std::vector<std::vector<std::uint32_t>> patches{{}};  ///< Solids that have to go; 0: none.
  std::vector<std::uint32_t> cell;  ///< By face: those of one cell are joined by edges.
  std::vector<MeshLink> links;
  std::vector<Crossing> crossings;
  std::vector<std::uint32_t> first_crossing;  ///< By face, in `crossings_from`; one more.
  std::vector<std::uint32_t> crossings_from;
  double least_cost = 1.0;
  bool is_even = true;  ///< One surface, every metre of which costs the same, without crossings.
  std::vector<std::uint32_t>
      leads_to_row;  ///< By island, its row in `leads_to`; kNone: to itself alone.
  std::vector<std::vector<char>> leads_to;

  std::uint32_t next(std::uint32_t edge) const {
    const MeshFace& face = faces[edges[edge].polygon];
    return edge + 1 == face.first + face.count ? face.first : edge + 1;
  }
  double height_at(std::uint32_t face, double x, double y) const {
    return surfaces[faces[face].surface].height.at(x, y);
  }
  std::uint32_t before(std::uint32_t edge) const {
    const MeshFace& face = faces[edges[edge].polygon];
    return edge == face.first ? face.first + face.count - 1 : edge - 1;
  }
  MeshPoint plan(const Vector3d& p) const { return {p.x(), is_side_on ? p.z() : p.y()}; }
  Vector3d lift(std::uint32_t face, const MeshPoint& p) const {
    if (is_side_on) return {p.x, 0.0, p.y};
    return {p.x, p.y, height_at(face, p.x, p.y)};
  }
  std::span<const std::uint32_t> crossings_of(std::uint32_t face) const {
    return {crossings_from.data() + first_crossing[face],
            first_crossing[face + 1] - first_crossing[face]};
  }
};

inline double squared_distance(const MeshPoint& a, const MeshPoint& b) {
  const double x = b.x - a.x;
  const double y = b.y - a.y;
  return x * x + y * y;
}

inline double distance(const MeshPoint& a, const MeshPoint& b) {
  return std::sqrt(squared_distance(a, b));
}

/// The distance from a point to a segment, which may have no length.
inline double distance_to_segment(const MeshPoint& a, const MeshPoint& b, const MeshPoint& p) {
  return distance_to_segment(Vector2d{a.x, a.y}, Vector2d{b.x, b.y}, Vector2d{p.x, p.y});
}

/// Above 0 if c lies to the left of the line from a to b.
inline double turn(const MeshPoint& a, const MeshPoint& b, const MeshPoint& c) {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

/// What of a mesh that is mended is not as it was.
struct Anew {
  std::uint32_t first_face = 0;               ///< Faces from here on are new,
  std::uint32_t first_edge = 0;               ///< and edges from here on;
  std::span<const std::uint32_t> around;      ///< these border on other faces than before.
  std::vector<std::uint32_t> hangs_together;  ///< By face: one of its cell, itself or one before
                                              ///< it. Empty: that has to be found out.
};

/// The steps by which a mesh is made. Each goes by what the steps before it have written.
void find_areas(NavigationMesh::Data& mesh, const Level& level);
void cover_surfaces(NavigationMesh::Data& mesh, const Level& level, const World& world);
void join_surfaces(NavigationMesh::Data& mesh);
void make_convex(NavigationMesh::Data& mesh);
void part_areas(NavigationMesh::Data& mesh, const Anew& anew = {});
void find_links(NavigationMesh::Data& mesh, const Level& level, const World& world);
void list_crossings(NavigationMesh::Data& mesh);
void find_corners(NavigationMesh::Data& mesh, const Anew& anew = {});
void place_corners(NavigationMesh::Data& mesh);
void link_turns(NavigationMesh::Data& mesh, std::size_t most_looks);
void find_islands(NavigationMesh::Data& mesh, const Level& level, const Anew& anew = {});
void measure_faces(NavigationMesh::Data& mesh, const Anew& anew = {});
void lay_grid(NavigationMesh::Data& mesh);

/// True if the body makes links of its own: it hops or drops.
[[nodiscard]] bool makes_links(const NavigationMesh::Data& mesh);

/// The crossing in the other direction over the same place of a rim; no link.
[[nodiscard]] std::uint32_t reversed(const NavigationMesh::Data& mesh, std::uint32_t crossing);

/// The box around a face.
[[nodiscard]] PlanBox box_of(const NavigationMesh::Data& mesh, const MeshFace& face);

/// Follows the straight way from a point in a face to another point, and gives back the face in
/// which it ends; kNone if the way leaves the mesh. If the face of the end is known it may be
/// given; else it is kNone.
[[nodiscard]] std::uint32_t face_straight_on(const NavigationMesh::Data& mesh,
                                             std::uint32_t from_face, const MeshPoint& from,
                                             std::uint32_t to_face, const MeshPoint& to);

/// True if the straight way from a point in a face to another point stays on the mesh, whose rim
/// belongs to it. The face of the end may be kNone: then any face that holds the end will do.
[[nodiscard]] bool is_straight_free(const NavigationMesh::Data& mesh, std::uint32_t from_face,
                                    const MeshPoint& from, std::uint32_t to_face,
                                    const MeshPoint& to);

/// Cuts one surface of a mesh along the areas that lie on it.
[[nodiscard]] std::vector<MeshArea> areas_on(const NavigationMesh::Data& mesh,
                                             const Surface& surface);

/// The place on the mesh that is nearest to a place, among the faces for which `counts` is true. Of
/// several places that are equally near, to a micrometre, it is the one nearest to where somebody
/// comes from, if that is given. So nobody is sent round to the far side of a block.
[[nodiscard]] std::optional<MeshPlace> nearest_place(
    const NavigationMesh::Data& mesh, const Vector3d& place,
    const std::function<bool(std::uint32_t)>& counts, const Vector3d* from = nullptr);

/// The highest place on the mesh that is not above a height, within some distance in the plan. Of
/// equally high places it is the nearest.
[[nodiscard]] std::optional<MeshPlace> place_below(const NavigationMesh::Data& mesh,
                                                   const Vector3d& place, double within);

/// The same edge of the face beyond, whether a metre costs the same there or not; kNone on the rim.
[[nodiscard]] std::uint32_t across(const NavigationMesh::Data& mesh, std::uint32_t edge);

/// True if a point lies in a face or on its edge, within rounding.
[[nodiscard]] bool holds(const NavigationMesh::Data& mesh, std::uint32_t face, const MeshPoint& p);

/// The distance in the plan from a point to a face; 0 inside. `nearest` becomes the point of the
/// face that is nearest.
[[nodiscard]] double squared_distance(const NavigationMesh::Data& mesh, std::uint32_t face,
                                      const Vector2d& p, Vector2d& nearest);

/// What a mesh is made of. All copies of a mesh share it.
[[nodiscard]] inline const NavigationMesh::Data& data_of(const NavigationMesh& mesh) noexcept {
  return *mesh.data_;
}

}  // namespace gaze
