#include "navigation/mend.hpp"

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

}  // namespace

std::optional<NavigationMesh::Data> mended(const NavigationMesh::Data& mesh, const Level& level,
                                           const World& world, std::uint32_t first) {
  if (!can_be_mended(mesh, level, world)) return std::nullopt;
  const auto cutting = cut_out(mesh, level, world, first);
  if (!cutting) return std::nullopt;
  NavigationMesh::Data next = without(mesh, *cutting);
  const auto first_face = static_cast<std::uint32_t>(next.faces.size());
  const auto first_edge = static_cast<std::uint32_t>(next.edges.size());
  if (!fill(next, mesh, *cutting)) return std::nullopt;
  part_areas(next, first_edge);
  list_crossings(next);
  measure_faces(next, first_face);
  next.grid = mesh.grid.replaced(cutting->moved.face, first_face, boxes_from(next, first_face));
  find_islands(next, level);
  find_corners(next, first_edge);
  mend_turns(next, mesh, *cutting);
  next.vertices = {};
  next.solid_count = static_cast<std::uint32_t>(level.solids.size());
  return next;
}

}  // namespace gaze
