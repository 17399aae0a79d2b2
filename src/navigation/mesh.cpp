#include "navigation/mesh.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "navigation/mend.hpp"
#include "navigation/polygon_surfaces.hpp"

namespace gaze {
namespace {

/// Makes all of a mesh whose body, surfaces and gravity are known.
void make(NavigationMesh::Data& mesh, const Level& level, const World& world) {
  mesh.plane = level.plane;
  mesh.is_side_on = level.plane == Plane::upright && mesh.body.altitude.has_value();
  mesh.solid_count = static_cast<std::uint32_t>(level.solids.size());
  find_areas(mesh, level);
  cover_surfaces(mesh, level, world);
  join_surfaces(mesh);
  make_convex(mesh);
  lay_grid(mesh);
  find_links(mesh, level, world);
  part_areas(mesh);
  list_crossings(mesh);
  measure_faces(mesh);
  find_islands(mesh, level);
  find_corners(mesh);
  link_turns(mesh, mesh.most_looks);
  mesh.vertices = {};
}

std::shared_ptr<const NavigationMesh::Data> made_anew(const NavigationMesh::Data& old,
                                                      const Level& level, const World& world) {
  auto mesh = std::make_shared<NavigationMesh::Data>();
  mesh->body = old.body;
  mesh->gravity = old.gravity;
  mesh->is_of_polygons = old.is_of_polygons;
  mesh->surfaces = old.is_of_polygons ? old.surfaces : surfaces_of(level, world, old.body);
  mesh->most_looks = old.most_looks;
  make(*mesh, level, world);
  return mesh;
}

Vector2d nearest_on_edge(const MeshPoint& a, const MeshPoint& b, const Vector2d& p) {
  const Vector2d along{b.x - a.x, b.y - a.y};
  const Vector2d from{p.x() - a.x, p.y() - a.y};
  const double length2 = dot(along, along);
  const double share = length2 > 0.0 ? std::clamp(dot(from, along) / length2, 0.0, 1.0) : 0.0;
  return Vector2d{a.x, a.y} + along * share;
}

// True if a point lies outside one of the edges of a face by more than counts as near. This answers
// for most faces at once.
bool is_clearly_off(const NavigationMesh::Data& mesh, std::uint32_t face, const Vector2d& p,
                    double near) {
  const MeshFace& its = mesh.faces[face];
  const MeshPoint point{p.x(), p.y()};
  MeshPoint a = mesh.edges[its.first + its.count - 1].from;
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    const MeshPoint& b = mesh.edges[e].from;
    const double side = turn(a, b, point);
    const double x = b.x - a.x;
    const double y = b.y - a.y;
    if (side < 0.0 && side * side > near * near * (x * x + y * y)) return true;
    a = b;
  }
  return false;
}

// The face that holds a point or on whose rim the point lies, if it is not more than a few faces
// away. The walk there crosses whatever edge the point is beyond.
std::uint32_t face_beside(const NavigationMesh::Data& mesh, std::uint32_t face,
                          const MeshPoint& p) {
  constexpr int kMostFaces = 6;
  for (int i = 0; i < kMostFaces; ++i) {
    const MeshFace& its = mesh.faces[face];
    std::uint32_t edge = its.first + its.count - 1;
    std::uint32_t beyond = kNone;
    for (std::uint32_t e = its.first; e < its.first + its.count && beyond == kNone; ++e) {
      if (turn(mesh.edges[edge].from, mesh.edges[e].from, p) < 0.0) beyond = edge;
      edge = e;
    }
    if (beyond == kNone || mesh.edges[beyond].twin == kNone) return face;
    face = mesh.edges[mesh.edges[beyond].twin].polygon;
  }
  return kNone;
}

// The area of a face in the plan, square metres.
double area_of(const NavigationMesh::Data& mesh, const MeshFace& face) {
  double twice = 0.0;
  const MeshPoint& origin = mesh.edges[face.first].from;
  for (std::uint32_t k = 1; k + 1 < face.count; ++k) {
    const MeshPoint& a = mesh.edges[face.first + k].from;
    const MeshPoint& b = mesh.edges[face.first + k + 1].from;
    twice += (a.x - origin.x) * (b.y - origin.y) - (a.y - origin.y) * (b.x - origin.x);
  }
  return twice / 2.0;
}

void need_body(const BodySize& body) {
  const auto need = [](double value, bool is_right, std::string_view what) {
    if (is_right && std::isfinite(value)) return;
    throw UsageError(fmt::format("a body whose {} is {} m has no mesh", what, value));
  };
  need(body.radius, body.radius > 0.0, "radius");
  need(body.height, body.height > 0.0, "height");
  need(body.step_height, body.step_height >= 0.0, "step height");
  need(body.hop_height, body.hop_height >= 0.0, "hop height");
  need(body.hop_length, body.hop_length >= 0.0, "hop length");
  need(body.drop_height, body.drop_height >= 0.0, "drop height");
  need(body.altitude.value_or(0.0), true, "altitude");
}

}  // namespace

std::uint32_t across(const NavigationMesh::Data& mesh, std::uint32_t edge) {
  if (mesh.edges[edge].twin != kNone) return mesh.edges[edge].twin;
  const auto it =
      std::lower_bound(mesh.borders.begin(), mesh.borders.end(), edge,
                       [](const MeshBorder& border, std::uint32_t e) { return border.edge < e; });
  return it != mesh.borders.end() && it->edge == edge ? it->beyond : kNone;
}

double squared_distance(const NavigationMesh::Data& mesh, std::uint32_t face, const Vector2d& p,
                        Vector2d& nearest) {
  const MeshFace& its = mesh.faces[face];
  bool inside = true;
  double best = std::numeric_limits<double>::infinity();
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    const MeshPoint& a = mesh.edges[e].from;
    const MeshPoint& b = mesh.edges[mesh.next(e)].from;
    if ((b.x - a.x) * (p.y() - a.y) - (b.y - a.y) * (p.x() - a.x) >= 0.0) continue;
    inside = false;
    const Vector2d on = nearest_on_edge(a, b, p);
    const double distance2 = dot(p - on, p - on);
    if (distance2 >= best) continue;
    best = distance2;
    nearest = on;
  }
  if (!inside) return best;
  nearest = p;
  return 0.0;
}

NavigationMesh NavigationMesh::with_solids(const Level& level, const World& world) const {
  if (level.solids.size() < data_->solid_count || level.plane != data_->plane) {
    throw UsageError(
        fmt::format("the level has {} solids and is not the one of the mesh, which knows {}",
                    level.solids.size(), data_->solid_count));
  }
  const World whole = world.whole();
  NavigationMesh mesh = *this;
  if (auto next = mended(*data_, level, whole, data_->solid_count)) {
    mesh.data_ = std::make_shared<const Data>(std::move(*next));
  } else {
    mesh.data_ = made_anew(*data_, level, whole);
  }
  return mesh;
}

NavigationMesh::NavigationMesh(const Level& level, const World& world, const BodySize& body,
                               std::size_t most_looks) {
  need_body(body);
  const World whole = world.whole();
  auto mesh = std::make_shared<Data>();
  mesh->body = body;
  mesh->gravity = level.gravity;
  mesh->surfaces = surfaces_of(level, whole, body);
  mesh->most_looks = most_looks;
  make(*mesh, level, whole);
  data_ = std::move(mesh);
}

NavigationMesh::NavigationMesh(std::span<const std::vector<Vector3d>> polygons,
                               const BodySize& body, std::size_t most_looks) {
  need_body(body);
  Level nothing;
  nothing.plane = Plane::space;
  nothing.ground_height.reset();
  auto mesh = std::make_shared<Data>();  // without gravity: it neither hops nor drops
  mesh->body = body;
  mesh->is_of_polygons = true;
  mesh->surfaces = surfaces_of(polygons);
  mesh->most_looks = most_looks;
  make(*mesh, nothing, World(nothing));
  data_ = std::move(mesh);
}

std::size_t NavigationMesh::corner_count() const noexcept {
  return data_->corners.size();
}

std::size_t NavigationMesh::corners_without_sights() const noexcept {
  return data_->corners.size() - data_->turns.linked;
}

const BodySize& NavigationMesh::body() const noexcept {
  return data_->body;
}

std::size_t NavigationMesh::polygon_count() const noexcept {
  return data_->faces.size();
}

MeshPolygon NavigationMesh::polygon(std::size_t index) const {
  const MeshFace& face = data_->faces[index];
  MeshPolygon polygon;
  polygon.island = face.island;
  const auto number = static_cast<std::uint32_t>(index);
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
    const MeshEdge& edge = data_->edges[e];
    polygon.corners.push_back(data_->lift(number, edge.from));
    const std::uint32_t beyond = gaze::across(*data_, e);
    polygon.beyond.push_back(beyond == kNone ? std::nullopt
                                             : std::optional(data_->edges[beyond].polygon));
  }
  return polygon;
}

std::uint32_t NavigationMesh::island_of(const MeshPlace& place) const noexcept {
  return data_->faces[place.polygon].island;
}

double NavigationMesh::area() const noexcept {
  return data_->area;
}

const std::vector<Island>& NavigationMesh::islands() const noexcept {
  return data_->islands;
}

const std::vector<MeshLink>& NavigationMesh::links() const noexcept {
  return data_->links;
}

double NavigationMesh::cost(const MeshPlace& place) const noexcept {
  return data_->faces[place.polygon].cost;
}

bool NavigationMesh::is_reachable(std::uint32_t from_island,
                                  std::uint32_t to_island) const noexcept {
  if (from_island == to_island) return true;
  const std::uint32_t row = data_->leads_to_row[from_island];
  return row != kNone && data_->leads_to[row][to_island] != 0;
}

std::optional<MeshPlace> place_below(const NavigationMesh::Data& mesh, const Vector3d& place,
                                     double within) {
  const MeshPoint plan = mesh.plan(place);
  const Vector2d p{plan.x, plan.y};
  std::optional<MeshPlace> best;
  double best_distance2 = within * within;
  double best_height = 0.0;
  mesh.grid.outward(
      p,
      [&](std::uint32_t face) {
        if (is_clearly_off(mesh, face, p, within)) return;
        Vector2d on{0.0, 0.0};
        const double distance2 = squared_distance(mesh, face, p, on);
        if (distance2 > best_distance2) return;
        const double height = mesh.height_at(face, on.x(), on.y());
        if (!mesh.body.altitude && height > place.z()) return;
        if (best && distance2 == best_distance2 && height <= best_height) return;
        best = MeshPlace{face, mesh.lift(face, {on.x(), on.y()})};
        best_distance2 = distance2;
        best_height = height;
      },
      [&](double metres) { return metres > within; });
  return best;
}

std::optional<MeshPlace> NavigationMesh::find(const Vector3d& feet) const noexcept {
  if (!feet.allFinite()) return std::nullopt;
  const double step = body().altitude ? 0.0 : body().step_height;  // what hovers takes none
  return place_below(*data_, feet + Vector3d{0.0, 0.0, step}, kNearMesh);
}

std::optional<MeshPlace> NavigationMesh::find(const Vector3d& feet,
                                              std::uint32_t hint) const noexcept {
  if (!feet.allFinite()) return std::nullopt;
  const Data& mesh = *data_;
  const MeshPoint p = mesh.plan(feet);
  const std::uint32_t face = hint < mesh.faces.size() ? face_beside(mesh, hint, p) : kNone;
  if (face == kNone) return find(feet);
  Vector2d on{0.0, 0.0};
  const double off2 = squared_distance(mesh, face, {p.x, p.y}, on);
  const Vector3d place = mesh.lift(face, {on.x(), on.y()});
  const bool is_level =
      mesh.body.altitude || std::abs(place.z() - feet.z()) <= mesh.body.step_height;
  // Beside the rim of one surface another surface may be nearer.
  const double farthest = mesh.surfaces.size() == 1 ? kNearMesh : 0.0;
  if (!is_level || off2 > farthest * farthest) return find(feet);
  return MeshPlace{face, place};
}

std::optional<MeshPlace> nearest_place(const NavigationMesh::Data& mesh, const Vector3d& place,
                                       const std::function<bool(std::uint32_t)>& counts,
                                       const Vector3d* from) {
  constexpr double kAlike = 1e-6;  // metres
  const MeshPoint plan = mesh.plan(place);
  const Vector2d p{plan.x, plan.y};
  const auto each_within = [&](const double& farthest, auto&& visit) {
    mesh.grid.outward(
        p,
        [&](std::uint32_t face) {
          if (!counts(face)) return;
          Vector2d on{0.0, 0.0};
          const double level2 = squared_distance(mesh, face, p, on);
          const Vector3d there = mesh.lift(face, {on.x(), on.y()});
          const double rise = mesh.body.altitude ? 0.0 : there.z() - place.z();
          const double distance = std::sqrt(level2 + rise * rise);
          if (distance <= farthest) visit(MeshPlace{face, there}, distance);
        },
        [&](double metres) { return metres > farthest; });
  };
  std::optional<MeshPlace> best;
  double least = std::numeric_limits<double>::infinity();
  each_within(least, [&](const MeshPlace& at, double distance) {
    if (distance == least) return;
    best = at;
    least = distance;
  });
  if (from == nullptr || !best) return best;
  const double farthest = least + kAlike;
  double shortest = std::numeric_limits<double>::infinity();
  each_within(farthest, [&](const MeshPlace& at, double) {
    const double way = plane_distance(Plane::space, *from, at.place);
    if (way >= shortest) return;
    best = at;
    shortest = way;
  });
  return best;
}

std::optional<MeshPlace> NavigationMesh::nearest(
    const Vector3d& place, std::optional<std::uint32_t> from_island) const noexcept {
  if (!place.allFinite()) return std::nullopt;
  return nearest_place(*data_, place, [&](std::uint32_t face) {
    const MeshFace& its = data_->faces[face];
    return !from_island ? its.patch == 0 : is_reachable(*from_island, its.island);
  });
}

std::optional<MeshPlace> NavigationMesh::straight_on(const MeshPlace& from,
                                                     const Vector3d& to) const noexcept {
  const MeshPoint end = data_->plan(to);
  const std::uint32_t face =
      face_straight_on(*data_, from.polygon, data_->plan(from.place), kNone, end);
  return face == kNone ? std::nullopt : std::optional(MeshPlace{face, data_->lift(face, end)});
}

std::string name_of(const Level& level, const MeshLink& link) {
  if (link.what == MeshLink::What::made) return level.links[link.made].id;
  return link.what == MeshLink::What::hop ? "hop" : "drop";
}

bool NavigationMesh::is_free(const Vector3d& from, const Vector3d& to) const noexcept {
  const auto start = find(from);
  const auto goal = find(to);
  return start && goal && is_free(*start, *goal);
}

bool NavigationMesh::is_free(const MeshPlace& from, const MeshPlace& to) const noexcept {
  return data_->faces[from.polygon].cost <= data_->least_cost &&
         is_straight_free(*data_, from.polygon, data_->plan(from.place), to.polygon,
                          data_->plan(to.place));
}

void measure_faces(NavigationMesh::Data& mesh, const Anew& anew) {
  const auto count_exits = [&mesh](std::uint32_t number) {
    MeshFace& face = mesh.faces[number];
    face.exits = static_cast<std::uint32_t>(mesh.crossings_of(number).size());
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      if (mesh.edges[e].twin != kNone) ++face.exits;
    }
  };
  for (const std::uint32_t number : anew.around) count_exits(number);
  for (std::uint32_t i = anew.first_face; i < mesh.faces.size(); ++i) {
    mesh.faces[i].area = area_of(mesh, mesh.faces[i]);
    count_exits(i);
  }
  mesh.is_even = mesh.surfaces.size() == 1 && mesh.crossings.empty();
  for (const MeshFace& face : mesh.faces) {
    mesh.least_cost = std::min(mesh.least_cost, face.cost);
    mesh.is_even &= face.cost == 1.0;
    mesh.area += face.area;
  }
}

PlanBox box_of(const NavigationMesh::Data& mesh, const MeshFace& face) {
  const MeshPoint& start = mesh.edges[face.first].from;
  PlanBox box{{start.x, start.y}, {start.x, start.y}};
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
    const Vector2d p{mesh.edges[e].from.x, mesh.edges[e].from.y};
    box = {box.low.cwiseMin(p), box.high.cwiseMax(p)};
  }
  return box;
}

void lay_grid(NavigationMesh::Data& mesh) {
  std::vector<PlanBox> boxes;
  boxes.reserve(mesh.faces.size());
  for (const MeshFace& face : mesh.faces) boxes.push_back(box_of(mesh, face));
  mesh.grid = PlanGrid(boxes);
}

}  // namespace gaze
