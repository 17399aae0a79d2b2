#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <numeric>

#include "travel/mesh.hpp"

namespace gaze {
namespace {

/// Which faces hang together.
class Joined {
 public:
  explicit Joined(std::size_t count) : parent_(count) {
    std::iota(parent_.begin(), parent_.end(), 0U);
  }
  std::uint32_t root(std::uint32_t i) {
    while (parent_[i] != i) i = parent_[i] = parent_[parent_[i]];
    return i;
  }
  void join(std::uint32_t a, std::uint32_t b) {
    const std::uint32_t one = root(a);
    const std::uint32_t other = root(b);
    parent_[std::max(one, other)] = std::min(one, other);
  }

 private:
  std::vector<std::uint32_t> parent_;
};

// After the solid that carries a face: that on whose part its middle lies.
std::string name_of(const NavigationMesh::Data& mesh, std::uint32_t face, const Level& level) {
  const Surface& surface = mesh.surfaces[mesh.faces[face].surface];
  if (surface.solids.empty()) return "ground";
  Vector2d middle{0.0, 0.0};
  const MeshFace& its = mesh.faces[face];
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    middle += Vector2d{mesh.edges[e].from.x, mesh.edges[e].from.y} / double(its.count);
  }
  for (std::size_t i = 0; i < surface.parts.size(); ++i) {
    if (contains(surface.parts[i], middle)) return level.solids[surface.solids[i]].id;
  }
  return level.solids[surface.solids.front()].id;
}

// Two of one name are told apart by a number, the largest first.
void name_islands(NavigationMesh::Data& mesh, const Level& level) {
  std::map<std::string, int> used;
  for (Island& island : mesh.islands) {
    const std::string name = name_of(mesh, island.some_polygon, level);
    const int number = ++used[name];
    island.name = number == 1 ? name : fmt::format("{} {}", name, number);
  }
}

}  // namespace

void find_islands(NavigationMesh::Data& mesh, const Level& level) {
  Joined joined(mesh.faces.size());
  for (const MeshEdge& edge : mesh.edges) {
    if (edge.twin != kNone) joined.join(edge.polygon, mesh.edges[edge.twin].polygon);
  }
  std::map<std::uint32_t, Island> by_root;
  std::map<std::uint32_t, double> largest_face;
  for (std::uint32_t i = 0; i < mesh.faces.size(); ++i) {
    const std::uint32_t root = joined.root(i);
    const double area = area_of(mesh, mesh.faces[i]);
    Island& island = by_root[root];
    island.area += area;
    double& largest = largest_face[root];
    if (area <= largest) continue;
    largest = area;
    island.some_polygon = i;
  }
  std::vector<std::pair<std::uint32_t, Island>> sorted(by_root.begin(), by_root.end());
  std::stable_sort(sorted.begin(), sorted.end(),
                   [](const auto& a, const auto& b) { return a.second.area > b.second.area; });
  std::map<std::uint32_t, std::uint32_t> number_of;
  for (const auto& [root, island] : sorted) {
    number_of[root] = static_cast<std::uint32_t>(mesh.islands.size());
    mesh.islands.push_back(island);
  }
  for (std::uint32_t i = 0; i < mesh.faces.size(); ++i) {
    mesh.faces[i].island = number_of[joined.root(i)];
  }
  name_islands(mesh, level);
}

}  // namespace gaze
