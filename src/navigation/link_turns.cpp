#include <algorithm>
#include <limits>
#include <optional>

#include "navigation/triangle_fan.hpp"

namespace gaze {
namespace {

class Linking {
 public:
  Linking(NavigationMesh::Data& mesh, std::size_t most_looks)
      : mesh_(mesh), graph_(mesh.turns), most_looks_(most_looks) {
    if (most_looks > 0) fan_.emplace(mesh);
  }

  void link() {
    graph_ = {};
    place_corners(mesh_);
    graph_.nodes.reserve(2 * mesh_.corners.size() + 1);
    for (std::uint32_t corner = 0; corner < mesh_.corners.size(); ++corner) add_corner(corner);
    graph_.nodes.push_back({here()});
    for (const Crossing& crossing : mesh_.crossings) add_crossing(crossing);
    graph_.first_beyond.push_back(here());
  }

 private:
  std::uint32_t here() const { return static_cast<std::uint32_t>(graph_.to.size()); }

  bool may_go_on() const {
    if (!fan_) return false;
    return fan_->gaps_looked_through() + beyond_.gaps_looked_through() < most_looks_ &&
           graph_.to.size() < NavigationMesh::kMostSights;
  }

  void add(const std::vector<std::uint32_t>& seen) {
    graph_.to.insert(graph_.to.end(), seen.begin(), seen.end());
  }

  void add_corner(std::uint32_t corner) {
    const bool is_linked = may_go_on();
    if (is_linked) ++graph_.linked;
    for (const Hand hand : {Hand::right, Hand::left}) {
      graph_.nodes.push_back({here(), std::numeric_limits<float>::infinity()});
      if (!is_linked) continue;
      add(fan_->look(corner, hand));
      graph_.nodes.back().reach = fan_->reach();
    }
  }

  void add_crossing(const Crossing& crossing) {
    graph_.first_beyond.push_back(here());
    if (!may_go_on()) return;
    ++graph_.linked_crossings;
    add(beyond_.look_beyond(mesh_, crossing));
  }

  NavigationMesh::Data& mesh_;
  TurnGraph& graph_;
  std::optional<TriangleFan> fan_;  ///< None where nothing is to be looked at.
  CornerFan beyond_;
  std::size_t most_looks_;
};

}  // namespace

void place_corners(NavigationMesh::Data& mesh) {
  TurnGraph& graph = mesh.turns;
  graph.places.reserve(mesh.corners.size());
  for (const MeshCorner& corner : mesh.corners) graph.places.push_back(corner.at);
  const auto is_cheapest = [&](const MeshFace& face) { return face.cost == mesh.least_cost; };
  if (std::all_of(mesh.faces.begin(), mesh.faces.end(), is_cheapest)) return;
  graph.costs.reserve(mesh.corners.size());
  for (const MeshCorner& corner : mesh.corners) {
    graph.costs.push_back(mesh.faces[mesh.edges[corner.edge].polygon].cost);
  }
}

void link_turns(NavigationMesh::Data& mesh, std::size_t most_looks) {
  Linking(mesh, most_looks).link();
}

}  // namespace gaze
