#include "navigation/mend.hpp"

#include <algorithm>
#include <map>
#include <utility>

namespace gaze {
namespace {

bool can_be_mended(const NavigationMesh::Data& mesh, const Level& level, const World& world) {
  if (!mesh.links.empty() || makes_links(mesh)) return false;
  return mesh.is_of_polygons || surfaces_of(level, world, mesh.body) == mesh.surfaces;
}

std::vector<PlanBox> boxes_from(const NavigationMesh::Data& mesh, std::uint32_t first) {
  std::vector<PlanBox> boxes;
  for (std::uint32_t i = first; i < mesh.faces.size(); ++i) {
    boxes.push_back(box_of(mesh, mesh.faces[i]));
  }
  return boxes;
}

/// True if a face leads to all others, as far as that is seen from near by.
bool leads_to_all(const NavigationMesh::Data& mesh, std::span<const std::uint32_t> faces) {
  constexpr std::size_t kMostVisited = 4096;
  std::vector<char> is_visited(mesh.faces.size(), 0);
  std::vector<std::uint32_t> to_visit{faces.front()};
  is_visited[faces.front()] = 1;
  const auto are_all_visited = [&] {
    while (!faces.empty() && is_visited[faces.back()] != 0) faces = faces.first(faces.size() - 1);
    return faces.empty();
  };
  for (std::size_t i = 0; i < std::min(to_visit.size(), kMostVisited); ++i) {
    if (are_all_visited()) return true;
    const MeshFace& face = mesh.faces[to_visit[i]];
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      if (mesh.edges[e].twin == kNone) continue;
      const std::uint32_t beyond = mesh.edges[mesh.edges[e].twin].polygon;
      if (std::exchange(is_visited[beyond], char{1}) == 0) to_visit.push_back(beyond);
    }
  }
  return are_all_visited();
}

/// By face, one of its cell: what hung together still does if all that bordered on what has been
/// cut out does, for everything else is as it was. Empty if that is not so, or cannot be told soon.
std::vector<std::uint32_t> hangs_together(const NavigationMesh::Data& mesh,
                                          const NavigationMesh::Data& old, const Cutting& cutting) {
  std::vector<std::uint32_t> first_of(old.faces.size(), kNone);  // by cell
  std::vector<std::uint32_t> known;
  known.reserve(mesh.faces.size());
  for (std::uint32_t i = 0; i < old.faces.size(); ++i) {
    if (cutting.moved.face[i] == kNone) continue;
    std::uint32_t& first = first_of[old.cell[i]];
    if (first == kNone) first = cutting.moved.face[i];
    known.push_back(first);
  }
  std::map<std::uint32_t, std::vector<std::uint32_t>> around;  // by cell
  for (const std::uint32_t face : cutting.around) around[known[face]].push_back(face);
  for (const auto& [cell, faces] : around) {
    if (!leads_to_all(mesh, faces)) return {};
  }
  while (known.size() < mesh.faces.size())
    known.push_back(static_cast<std::uint32_t>(known.size()));
  return known;
}

}  // namespace

std::optional<NavigationMesh::Data> mended(const NavigationMesh::Data& mesh, const Level& level,
                                           const World& world, std::uint32_t first) {
  if (!can_be_mended(mesh, level, world)) return std::nullopt;
  const auto cutting = cut_out(mesh, level, world, first);
  if (!cutting) return std::nullopt;
  NavigationMesh::Data next = without(mesh, *cutting);
  Anew anew;
  anew.first_face = static_cast<std::uint32_t>(next.faces.size());
  anew.first_edge = static_cast<std::uint32_t>(next.edges.size());
  anew.around = cutting->around;
  if (!fill(next, mesh, *cutting)) return std::nullopt;
  part_areas(next, anew);
  list_crossings(next);
  measure_faces(next, anew);
  next.grid =
      mesh.grid.replaced(cutting->moved.face, anew.first_face, boxes_from(next, anew.first_face));
  anew.hangs_together = hangs_together(next, mesh, *cutting);
  find_islands(next, level, anew);
  find_corners(next, anew);
  mend_turns(next, mesh, *cutting);
  next.vertices = {};
  next.solid_count = static_cast<std::uint32_t>(level.solids.size());
  return next;
}

}  // namespace gaze
