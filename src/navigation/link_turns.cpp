#include <limits>

#include "navigation/corner_fan.hpp"

namespace gaze {
namespace {

class Linking {
 public:
  Linking(NavigationMesh::Data& mesh, std::size_t most_looks)
      : mesh_(mesh), graph_(mesh.turns), most_looks_(most_looks) {}

  void link() {
    graph_ = {};
    graph_.nodes.reserve(mesh_.corners.size() + 1);
    for (std::uint32_t corner = 0; corner < mesh_.corners.size(); ++corner) add_corner(corner);
    const std::uint32_t end = here();
    graph_.nodes.push_back({{}, {end, end}, {}});
    for (const Crossing& crossing : mesh_.crossings) add_crossing(crossing);
    graph_.first_beyond.push_back(here());
  }

 private:
  std::uint32_t here() const { return static_cast<std::uint32_t>(graph_.to.size()); }

  bool may_go_on() const {
    return fan_.gaps_looked_through() < most_looks_ &&
           graph_.to.size() < NavigationMesh::kMostSights;
  }

  void add(const std::vector<std::uint32_t>& seen) {
    graph_.to.insert(graph_.to.end(), seen.begin(), seen.end());
  }

  void add_corner(std::uint32_t corner) {
    TurnNode node;
    node.at = mesh_.corners[corner].at;
    node.cost = mesh_.faces[mesh_.edges[mesh_.corners[corner].edge].polygon].cost;
    node.reach.fill(std::numeric_limits<float>::infinity());
    node.first.fill(here());
    if (may_go_on()) {
      ++graph_.linked;
      for (const Hand hand : {Hand::right, Hand::left}) {
        const auto index = static_cast<std::size_t>(hand);
        node.first[index] = here();
        add(fan_.look(mesh_, corner, hand));
        node.reach[index] = static_cast<float>(fan_.reach()) * 1.00001F;
      }
    }
    graph_.nodes.push_back(node);
  }

  void add_crossing(const Crossing& crossing) {
    graph_.first_beyond.push_back(here());
    if (!may_go_on()) return;
    ++graph_.linked_crossings;
    add(fan_.look_beyond(mesh_, crossing));
  }

  NavigationMesh::Data& mesh_;
  TurnGraph& graph_;
  CornerFan fan_;
  std::size_t most_looks_;
};

}  // namespace

void link_turns(NavigationMesh::Data& mesh, std::size_t most_looks) {
  Linking(mesh, most_looks).link();
}

}  // namespace gaze
