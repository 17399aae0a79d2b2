#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "geometry/polygon.hpp"
#include "navigation/mesh.hpp"

/// How areas of the plan that cost more or less than the rest, or are closed, are cut out of a
/// mesh.
namespace gaze {
namespace {

// Joins the two sides of a place on the rim of an area, in both directions.
void add_crossings(NavigationMesh::Data& mesh, const MeshBorder& border, double spacing) {
  const MeshPoint a = mesh.edges[border.edge].from;
  const MeshPoint b = mesh.edges[mesh.next(border.edge)].from;
  const auto count = static_cast<int>(std::ceil(distance(a, b) / spacing));
  for (int i = 0; i < count; ++i) {
    const double share = (i + 0.5) / count;
    const MeshPoint p{a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share};
    const std::uint32_t inside = mesh.edges[border.edge].polygon;
    const std::uint32_t outside = mesh.edges[border.beyond].polygon;
    mesh.crossings.push_back({p, p, inside, outside, 0.0, kNone, border.edge});
    mesh.crossings.push_back({p, p, outside, inside, 0.0, kNone, border.edge});
  }
}

// In levels seen from the side: the stretches of a ledge that lie inside an outline, as strips.
std::vector<Polygon> strips_inside(const Polygon& outline, const Surface& ledge) {
  const HeightPlane& line = ledge.height;
  std::vector<double> crossed;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& a = outline[i];
    const Vector2d& b = outline[(i + 1) % outline.size()];
    const double at_a = a.y() - line.at(a.x(), 0.0);
    const double at_b = b.y() - line.at(b.x(), 0.0);
    crossed.push_back(a.x());
    if ((at_a < 0.0) != (at_b < 0.0)) {
      crossed.push_back(a.x() + (b.x() - a.x()) * at_a / (at_a - at_b));
    }
  }
  std::sort(crossed.begin(), crossed.end());
  std::vector<Polygon> strips;
  for (std::size_t i = 0; i + 1 < crossed.size(); ++i) {
    const double middle = (crossed[i] + crossed[i + 1]) / 2.0;
    if (!contains(outline, {middle, line.at(middle, 0.0)})) continue;
    constexpr double kDepth = 1.0;  // metres: over the strips that ledges are
    strips.push_back({{crossed[i], -kDepth},
                      {crossed[i + 1], -kDepth},
                      {crossed[i + 1], kDepth},
                      {crossed[i], kDepth}});
  }
  return strips;
}

}  // namespace

std::vector<MeshArea> areas_on(const NavigationMesh::Data& mesh, const Surface& surface) {
  if (mesh.plane != Plane::upright) return mesh.areas;
  std::vector<MeshArea> areas;
  for (MeshArea area : mesh.areas) {
    area.low = -std::numeric_limits<double>::infinity();
    area.high = -area.low;
    if (mesh.is_side_on) {
      areas.push_back(area);
      continue;
    }
    for (Polygon& strip : strips_inside(area.outline, surface)) {
      area.outline = std::move(strip);
      areas.push_back(area);
    }
  }
  return areas;
}

void find_areas(NavigationMesh::Data& mesh, const Level& level) {
  for (std::uint32_t i = 0; i < level.zones.size(); ++i) {
    const Zone& zone = level.zones[i];
    const auto& closed = mesh.body.closed;
    const bool is_closed = std::find(closed.begin(), closed.end(), i) != closed.end();
    if (zone.cost == 1.0 && !is_closed) continue;
    const double base = base_of(level, zone);
    mesh.areas.push_back({zone.outline, base, base + zone.height, zone.cost, is_closed});
  }
}

void part_areas(NavigationMesh::Data& mesh, const Anew& anew) {
  const std::uint32_t first = anew.first_edge;
  const std::size_t known = mesh.borders.size();
  for (std::uint32_t e = first; e < mesh.edges.size(); ++e) {
    const std::uint32_t twin = mesh.edges[e].twin;
    if (twin == kNone) continue;
    const MeshFace& own = mesh.faces[mesh.edges[e].polygon];
    const MeshFace& other = mesh.faces[mesh.edges[twin].polygon];
    if (own.cost == other.cost && own.patch == other.patch) continue;
    mesh.borders.push_back({e, twin});
    if (twin < first) mesh.borders.push_back({twin, e});
  }
  double length = 0.0;
  for (const MeshBorder& border : mesh.borders) {
    length += distance(mesh.edges[border.edge].from, mesh.edges[mesh.next(border.edge)].from) / 2.0;
  }
  const double spacing = std::max(NavigationMesh::kRimSpacing,
                                  length / static_cast<double>(NavigationMesh::kMostCrossings));
  for (std::size_t i = known; i < mesh.borders.size(); ++i) {
    const MeshBorder& border = mesh.borders[i];
    mesh.edges[border.edge].twin = kNone;
    if (border.edge < border.beyond) add_crossings(mesh, border, spacing);
  }
  std::sort(mesh.borders.begin(), mesh.borders.end(),
            [](const MeshBorder& a, const MeshBorder& b) { return a.edge < b.edge; });
}

// Both were made one after the other, and the first leads out of the face whose edge it is.
std::uint32_t reversed(const NavigationMesh::Data& mesh, std::uint32_t crossing) {
  const Crossing& its = mesh.crossings[crossing];
  return mesh.edges[its.edge].polygon == its.from_face ? crossing + 1 : crossing - 1;
}

void list_crossings(NavigationMesh::Data& mesh) {
  mesh.first_crossing.assign(mesh.faces.size() + 1, 0);
  for (const Crossing& crossing : mesh.crossings) ++mesh.first_crossing[crossing.from_face + 1];
  for (std::size_t i = 1; i < mesh.first_crossing.size(); ++i) {
    mesh.first_crossing[i] += mesh.first_crossing[i - 1];
  }
  std::vector<std::uint32_t> at(mesh.first_crossing.begin(), mesh.first_crossing.end() - 1);
  mesh.crossings_from.resize(mesh.crossings.size());
  for (std::uint32_t i = 0; i < mesh.crossings.size(); ++i) {
    mesh.crossings_from[at[mesh.crossings[i].from_face]++] = i;
  }
}

}  // namespace gaze
