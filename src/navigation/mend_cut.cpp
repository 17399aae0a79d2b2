#include <algorithm>
#include <numeric>
#include <span>

#include "navigation/mend.hpp"

/// Which part of a mesh new solids cut out, and what is left of it.
namespace gaze {
namespace {

/// Metres. What is farther from an outline than this keeps its corners when the outline is rounded
/// to the lattice and cut.
constexpr double kClear = 4.0 / kLatticePerMetre;

// True if all points lie beyond one edge of a convex outline, by more than is clear.
template <typename At>
bool lies_beyond(const LatticeOutline& outline, std::size_t count, At&& at) {
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d a = from_lattice(outline[i]);
    const Vector2d b = from_lattice(outline[(i + 1) % outline.size()]);
    const Vector2d along = b - a;
    const double clear = kClear * length_of(along);
    bool is_beyond = true;
    for (std::size_t k = 0; k < count && is_beyond; ++k) {
      const Vector2d p = at(k) - a;
      is_beyond = along.x() * p.y() - along.y() * p.x() < -clear;
    }
    if (is_beyond) return true;
  }
  return false;
}

// Two convex shapes are apart if all of one lies beyond an edge of the other.
bool is_off(const NavigationMesh::Data& mesh, const MeshFace& face, const LatticeOutline& outline) {
  LatticeOutline corners;
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
    const MeshPoint& p = mesh.edges[e].from;
    corners.push_back(to_lattice({p.x, p.y}));
  }
  return lies_beyond(outline, corners.size(),
                     [&](std::size_t k) { return from_lattice(corners[k]); }) ||
         lies_beyond(corners, outline.size(),
                     [&](std::size_t k) { return from_lattice(outline[k]); });
}

PlanBox box_of(const LatticeOutline& outline) {
  std::vector<Vector2d> points;
  for (const LatticePoint& p : outline) points.push_back(from_lattice(p));
  const PlanBox box = box_around(points);
  const Vector2d clear{2.0 * kClear, 2.0 * kClear};
  return {box.low - clear, box.high + clear};
}

void find_hindrances(Cutting& cutting, const NavigationMesh::Data& mesh, const Level& level,
                     const World& world, std::uint32_t first) {
  for (std::uint32_t s = 0; s < mesh.surfaces.size(); ++s) {
    for (Hindrance& one : hindrances_on(mesh.surfaces[s], level, world, mesh.body, first)) {
      ConvexOutline outline = convex_on_lattice(one.outline);
      if (outline.corners.empty()) continue;
      cutting.hindrances.push_back(std::move(one));
      cutting.on.push_back(s);
      cutting.outlines.push_back(std::move(outline));
    }
  }
}

void find_faces(Cutting& cutting, const NavigationMesh::Data& mesh) {
  for (std::size_t i = 0; i < cutting.outlines.size(); ++i) {
    mesh.grid.each_in(box_of(cutting.outlines[i].corners), [&](std::uint32_t face) {
      const MeshFace& its = mesh.faces[face];
      if (its.surface == cutting.on[i] && !is_off(mesh, its, cutting.outlines[i].corners)) {
        cutting.faces.push_back(face);
      }
    });
  }
  std::sort(cutting.faces.begin(), cutting.faces.end());
  cutting.faces.erase(std::unique(cutting.faces.begin(), cutting.faces.end()), cutting.faces.end());
}

// An edge beyond which another surface goes on keeps its corners only if nothing new lies near it.
bool reaches_a_joint(const Cutting& cutting, const NavigationMesh::Data& mesh) {
  const auto touches_new = [&](std::uint32_t e, std::uint32_t surface) {
    const MeshPoint ends[] = {mesh.edges[e].from, mesh.edges[mesh.next(e)].from};
    for (std::size_t i = 0; i < cutting.outlines.size(); ++i) {
      if (cutting.on[i] != surface) continue;
      const auto end = [&](std::size_t k) { return Vector2d{ends[k].x, ends[k].y}; };
      if (!lies_beyond(cutting.outlines[i].corners, 2, end)) return true;
    }
    return false;
  };
  return std::any_of(cutting.faces.begin(), cutting.faces.end(), [&](std::uint32_t number) {
    const MeshFace& face = mesh.faces[number];
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      const std::uint32_t twin = across(mesh, e);
      if (twin == kNone) continue;
      const bool is_joint = mesh.faces[mesh.edges[twin].polygon].surface != face.surface;
      if (is_joint && touches_new(e, face.surface)) return true;
    }
    return false;
  });
}

/// Numbers what stays in the order that it had. What goes is given in order.
std::vector<std::uint32_t> numbered(std::size_t count, std::span<const std::uint32_t> gone) {
  std::vector<std::uint32_t> moved(count + 1);
  std::uint32_t next = 0;
  std::size_t at = 0;
  const auto count_up_to = [&](std::size_t end) {
    const auto first = moved.begin() + static_cast<std::ptrdiff_t>(at);
    const auto last = moved.begin() + static_cast<std::ptrdiff_t>(end);
    std::iota(first, last, next);
    next += static_cast<std::uint32_t>(end - at);
  };
  for (const std::uint32_t number : gone) {
    count_up_to(number);
    moved[number] = kNone;
    at = number + 1;
  }
  count_up_to(count);
  moved[count] = kNone;
  return moved;
}

Renumbering renumber(const NavigationMesh::Data& mesh, const std::vector<std::uint32_t>& cut) {
  std::vector<std::uint32_t> edges;
  std::vector<std::uint32_t> corners;
  for (const std::uint32_t number : cut) {
    const MeshFace& its = mesh.faces[number];
    for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
      edges.push_back(e);
      if (mesh.edges[e].corner != kNone) corners.push_back(mesh.edges[e].corner);
    }
  }
  std::sort(corners.begin(), corners.end());
  corners.erase(std::unique(corners.begin(), corners.end()), corners.end());
  std::sort(edges.begin(), edges.end());
  Renumbering moved;
  moved.face = numbered(mesh.faces.size(), cut);
  moved.edge = numbered(mesh.edges.size(), edges);
  moved.corner = numbered(mesh.corners.size(), corners);
  std::vector<std::uint32_t> crossings;
  for (std::uint32_t i = 0; i < mesh.crossings.size(); ++i) {
    const Crossing& its = mesh.crossings[i];
    const bool is_gone = moved.face[its.from_face] == kNone || moved.face[its.to_face] == kNone;
    if (is_gone) crossings.push_back(i);
  }
  moved.crossing = numbered(mesh.crossings.size(), crossings);
  return moved;
}

std::vector<std::uint32_t> faces_around(const NavigationMesh::Data& mesh, const Cutting& cutting) {
  std::vector<std::uint32_t> around;
  for (const std::uint32_t number : cutting.faces) {
    const MeshFace& its = mesh.faces[number];
    for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
      const std::uint32_t beyond = across(mesh, e);
      if (beyond == kNone) continue;
      const std::uint32_t face = cutting.moved.face[mesh.edges[beyond].polygon];
      if (face != kNone) around.push_back(face);
    }
  }
  std::sort(around.begin(), around.end());
  around.erase(std::unique(around.begin(), around.end()), around.end());
  return around;
}

// Without a branch, for which of many edges have a neighbour or a corner cannot be guessed.
std::uint32_t moved_to(const std::vector<std::uint32_t>& moved, std::uint32_t old) {
  return moved[std::min<std::size_t>(old, moved.size() - 1)];
}

/// About as many of each sort will follow.
constexpr std::size_t kMore = 256;
/// So few are copied at once that they are in the cache when they get their new numbers.
constexpr std::uint32_t kAtOnce = 128;

// The faces from `first` to before `end`, all of which stay.
void take_over_run(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                   const Renumbering& moved, std::uint32_t first, std::uint32_t end) {
  const auto at = [](auto& list, std::size_t i) {
    return list.begin() + static_cast<std::ptrdiff_t>(i);
  };
  const std::uint32_t first_edge = old.faces[first].first;
  const std::uint32_t end_edge = old.faces[end - 1].first + old.faces[end - 1].count;
  const std::size_t own_face = mesh.faces.size();
  const std::size_t own_edge = mesh.edges.size();
  const auto faces_less = first - static_cast<std::uint32_t>(own_face);
  const auto edges_less = first_edge - static_cast<std::uint32_t>(own_edge);
  mesh.faces.insert(mesh.faces.end(), at(old.faces, first), at(old.faces, end));
  mesh.edges.insert(mesh.edges.end(), at(old.edges, first_edge), at(old.edges, end_edge));
  for (std::size_t i = own_face; i < mesh.faces.size(); ++i) mesh.faces[i].first -= edges_less;
  for (std::size_t e = own_edge; e < mesh.edges.size(); ++e) {
    MeshEdge& edge = mesh.edges[e];
    edge.twin = moved_to(moved.edge, edge.twin);
    edge.corner = moved_to(moved.corner, edge.corner);
    edge.polygon -= faces_less;
  }
}

void take_over_faces(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                     const Cutting& cutting) {
  mesh.faces.reserve(old.faces.size() + kMore);
  mesh.edges.reserve(old.edges.size() + 4 * kMore);
  std::uint32_t at = 0;
  const auto take_over_before = [&](std::uint32_t end) {
    for (; at < end; at = std::min(end, at + kAtOnce)) {
      take_over_run(mesh, old, cutting.moved, at, std::min(end, at + kAtOnce));
    }
    at = end + 1;
  };
  for (const std::uint32_t face : cutting.faces) take_over_before(face);
  take_over_before(static_cast<std::uint32_t>(old.faces.size()));
}

void take_over_ways(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                    const Renumbering& moved) {
  for (const MeshBorder& border : old.borders) {
    if (moved.edge[border.edge] == kNone || moved.edge[border.beyond] == kNone) continue;
    mesh.borders.push_back({moved.edge[border.edge], moved.edge[border.beyond]});
  }
  for (std::uint32_t i = 0; i < old.crossings.size(); ++i) {
    if (moved.crossing[i] == kNone) continue;
    Crossing crossing = old.crossings[i];
    crossing.from_face = moved.face[crossing.from_face];
    crossing.to_face = moved.face[crossing.to_face];
    crossing.edge = moved_to(moved.edge, crossing.edge);
    mesh.crossings.push_back(crossing);
  }
}

void take_over_corners(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                       const Renumbering& moved) {
  mesh.corners.reserve(old.corners.size() + kMore);
  const auto place = [&](std::size_t i) {
    return old.corners.begin() + static_cast<std::ptrdiff_t>(i);
  };
  for (std::size_t i = 0; i < old.corners.size();) {
    if (moved.corner[i] == kNone) {
      ++i;
      continue;
    }
    std::size_t end = i + 1;
    while (end < i + kAtOnce && moved.corner[end] != kNone) ++end;
    const std::size_t own = mesh.corners.size();
    mesh.corners.insert(mesh.corners.end(), place(i), place(end));
    for (std::size_t k = own; k < mesh.corners.size(); ++k) {
      mesh.corners[k].edge = moved.edge[mesh.corners[k].edge];
    }
    i = end;
  }
}

}  // namespace

std::optional<Cutting> cut_out(const NavigationMesh::Data& mesh, const Level& level,
                               const World& world, std::uint32_t first) {
  Cutting cutting;
  find_hindrances(cutting, mesh, level, world, first);
  find_faces(cutting, mesh);
  if (mesh.surfaces.size() > 1 && reaches_a_joint(cutting, mesh)) return std::nullopt;
  cutting.moved = renumber(mesh, cutting.faces);
  cutting.around = faces_around(mesh, cutting);
  return cutting;
}

NavigationMesh::Data without(const NavigationMesh::Data& mesh, const Cutting& cutting) {
  NavigationMesh::Data rest;
  rest.body = mesh.body;
  rest.plane = mesh.plane;
  rest.surfaces = mesh.surfaces;
  rest.is_side_on = mesh.is_side_on;
  rest.gravity = mesh.gravity;
  rest.is_of_polygons = mesh.is_of_polygons;
  rest.most_looks = mesh.most_looks;
  rest.areas = mesh.areas;
  rest.patches = mesh.patches;
  take_over_faces(rest, mesh, cutting);
  take_over_ways(rest, mesh, cutting.moved);
  take_over_corners(rest, mesh, cutting.moved);
  return rest;
}

}  // namespace gaze
