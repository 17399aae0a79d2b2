#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <utility>

#include "geometry/plan.hpp"
#include "navigation/mesh.hpp"

namespace gaze {
namespace {

/// Metres. Rims that lie on one line in the level may be this far apart once they are rounded to
/// the lattice.
constexpr double kSameLine = 4.0 / kLatticePerMetre;

/// A vertex that lies on the rim of another surface: on which edge, and at which share of it.
struct Cut {
  double share = 0.0;
  std::uint32_t vertex = 0;
  bool operator<(const Cut& other) const {
    return share != other.share ? share < other.share : vertex < other.vertex;
  }
};

/// Makes the rims of neighbouring surfaces share their vertices and edges.
class Joining {
 public:
  explicit Joining(NavigationMesh::Data& mesh) : mesh_(mesh), root_(mesh.vertices.size()) {
    std::iota(root_.begin(), root_.end(), 0U);
  }

  void join() {
    find_pairs();
    for (const auto& [e, f] : pairs_) weld(e, f);
    cuts_.resize(mesh_.edges.size());
    for (const auto& [e, f] : pairs_) {
      add_cuts(e, f);
      add_cuts(f, e);
    }
    rebuild();
    match();
  }

 private:
  std::uint32_t root(std::uint32_t vertex) const {
    while (root_[vertex] != vertex) vertex = root_[vertex];
    return vertex;
  }
  Vector2d at(std::uint32_t vertex) const {
    return {mesh_.vertices[vertex].x, mesh_.vertices[vertex].y};
  }
  Vector2d start(std::uint32_t e) const { return at(mesh_.edges[e].vertex); }
  Vector2d end(std::uint32_t e) const { return at(mesh_.edges[mesh_.next(e)].vertex); }
  std::uint32_t surface(std::uint32_t e) const {
    return mesh_.faces[mesh_.edges[e].polygon].surface;
  }

  bool is_step(std::uint32_t e, std::uint32_t f, const Vector2d& p) const {
    const double one = mesh_.surfaces[surface(e)].height.at(p.x(), p.y());
    const double other = mesh_.surfaces[surface(f)].height.at(p.x(), p.y());
    return std::abs(one - other) <= mesh_.body.step_height + kSameLine;
  }

  /// How far to the left of an edge's line a point is, and at which share of the edge.
  struct OnLine {
    double off = 0.0;
    double share = 0.0;
  };
  OnLine on_line(std::uint32_t e, const Vector2d& p) const {
    const Vector2d along = end(e) - start(e);
    const Vector2d from = p - start(e);
    const double length = length_of(along);
    return {cross(along, from) / length, dot(along, from) / (length * length)};
  }

  bool is_pair(std::uint32_t e, std::uint32_t f) const {
    if (surface(e) == surface(f)) return false;
    const Vector2d along = end(e) - start(e);
    if (!(dot(along, end(f) - start(f)) < 0.0)) return false;
    const OnLine from = on_line(e, end(f));
    const OnLine to = on_line(e, start(f));
    const double length = length_of(along);
    const double low = std::max(0.0, from.share);
    const double high = std::min(1.0, to.share);
    if ((high - low) * length <= kSameLine) return false;
    // The two lines have to agree where both of them are. The ends of the longer one may be far
    // away from the other.
    const auto off_at = [&](double share) {
      const double way = (share - from.share) / (to.share - from.share);
      return std::abs(from.off + (to.off - from.off) * way);
    };
    if (off_at(low) > kSameLine || off_at(high) > kSameLine) return false;
    return is_step(e, f, start(e) + along * low) && is_step(e, f, start(e) + along * high);
  }

  void find_pairs() {
    std::vector<std::uint32_t> rim;
    std::vector<PlanBox> boxes;
    const Vector2d wide{kSameLine, kSameLine};
    for (std::uint32_t e = 0; e < mesh_.edges.size(); ++e) {
      if (mesh_.edges[e].twin != kNone) continue;
      rim.push_back(e);
      boxes.push_back({start(e).cwiseMin(end(e)) - wide, start(e).cwiseMax(end(e)) + wide});
    }
    const PlanGrid grid(boxes);
    for (std::uint32_t i = 0; i < rim.size(); ++i) {
      grid.each_in(boxes[i], [&](std::uint32_t k) {
        if (k > i && is_pair(rim[i], rim[k])) pairs_.emplace_back(rim[i], rim[k]);
      });
    }
    std::sort(pairs_.begin(), pairs_.end());
    pairs_.erase(std::unique(pairs_.begin(), pairs_.end()), pairs_.end());
  }

  void weld(std::uint32_t e, std::uint32_t f) {
    const std::uint32_t e_ends[] = {mesh_.edges[e].vertex, mesh_.edges[mesh_.next(e)].vertex};
    const std::uint32_t f_ends[] = {mesh_.edges[mesh_.next(f)].vertex, mesh_.edges[f].vertex};
    for (int k = 0; k < 2; ++k) {
      const Vector2d apart = at(e_ends[k]) - at(f_ends[k]);
      if (dot(apart, apart) > kSameLine * kSameLine) continue;
      const std::uint32_t one = root(e_ends[k]);
      const std::uint32_t other = root(f_ends[k]);
      root_[std::max(one, other)] = std::min(one, other);
    }
  }

  void add_cuts(std::uint32_t e, std::uint32_t f) {
    const std::uint32_t own[] = {root(mesh_.edges[e].vertex),
                                 root(mesh_.edges[mesh_.next(e)].vertex)};
    for (const std::uint32_t vertex : {mesh_.edges[f].vertex, mesh_.edges[mesh_.next(f)].vertex}) {
      const std::uint32_t welded = root(vertex);
      if (welded == own[0] || welded == own[1]) continue;
      const OnLine on = on_line(e, at(welded));
      const bool is_near = std::abs(on.off) <= 2.0 * kSameLine;
      if (is_near && on.share > 0.0 && on.share < 1.0) cuts_[e].push_back({on.share, welded});
    }
  }

  void rebuild() {
    std::vector<MeshEdge> edges;
    std::vector<std::uint32_t> moved(mesh_.edges.size());
    for (std::uint32_t i = 0; i < mesh_.faces.size(); ++i) {
      MeshFace& face = mesh_.faces[i];
      const auto first = static_cast<std::uint32_t>(edges.size());
      for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
        moved[e] = static_cast<std::uint32_t>(edges.size());
        add_edge(edges, mesh_.edges[e]);
        std::vector<Cut>& cuts = cuts_[e];
        std::sort(cuts.begin(), cuts.end());
        for (const Cut& cut : cuts) {
          if (edges.back().vertex != cut.vertex) add_edge(edges, {{}, cut.vertex, kNone, i});
        }
      }
      face.first = first;
      face.count = static_cast<std::uint32_t>(edges.size()) - first;
    }
    for (MeshEdge& edge : edges) {
      if (edge.twin != kNone) edge.twin = moved[edge.twin];
    }
    mesh_.edges = std::move(edges);
  }

  void add_edge(std::vector<MeshEdge>& edges, MeshEdge edge) const {
    edge.vertex = root(edge.vertex);
    edge.from = mesh_.vertices[edge.vertex];
    edges.push_back(edge);
  }

  void match() {
    std::map<std::pair<std::uint32_t, std::uint32_t>, std::vector<std::uint32_t>> rim;
    const auto ends = [&](std::uint32_t e) {
      return std::pair(mesh_.edges[e].vertex, mesh_.edges[mesh_.next(e)].vertex);
    };
    for (std::uint32_t e = 0; e < mesh_.edges.size(); ++e) {
      if (mesh_.edges[e].twin == kNone) rim[ends(e)].push_back(e);
    }
    for (std::uint32_t e = 0; e < mesh_.edges.size(); ++e) {
      if (mesh_.edges[e].twin != kNone) continue;
      const auto [from, to] = ends(e);
      const auto found = rim.find({to, from});
      if (found == rim.end()) continue;
      for (const std::uint32_t f : found->second) {
        const bool fits = mesh_.edges[f].twin == kNone && surface(e) != surface(f) &&
                          is_step(e, f, at(from)) && is_step(e, f, at(to));
        if (!fits) continue;
        mesh_.edges[e].twin = f;
        mesh_.edges[f].twin = e;
        break;
      }
    }
  }

  NavigationMesh::Data& mesh_;
  std::vector<std::uint32_t> root_;  ///< By vertex: the one that it is welded to.
  std::vector<std::pair<std::uint32_t, std::uint32_t>> pairs_;
  std::vector<std::vector<Cut>> cuts_;  ///< By edge.
};

}  // namespace

void join_surfaces(NavigationMesh::Data& mesh) {
  if (mesh.surfaces.size() > 1) Joining(mesh).join();
}

}  // namespace gaze
