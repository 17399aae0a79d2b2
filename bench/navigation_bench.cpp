// What finding a way costs: making meshes, truly shortest ways between random places, and the same
// by a general graph library's A* over triangles of the same free space, which finds longer ones.

#include <benchmark/benchmark.h>

#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/astar_search.hpp>
#include <chrono>
#include <cmath>
#include <functional>
#include <limits>
#include <map>
#include <optional>

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "timing.hpp"

namespace gaze {
namespace {

const Level& level_of(int which) {
  static const Level hall = scenes::hall();
  static const Level campus = scenes::campus();
  static const Level city = scenes::city();
  return which == 0 ? hall : which == 1 ? campus : city;
}

struct Query {
  MeshPlace from;
  MeshPlace to;
};

/// A mesh, and pairs of random places that are joined by a way.
struct Place {
  World world;
  NavigationMesh mesh;
  std::vector<Query> queries;

  explicit Place(const Level& level) : world(level), mesh(level, world, BodySize{}) {
    scenes::Random random(3);
    const double side = scenes::side_of(level);
    const auto somewhere = [&]() -> std::optional<MeshPlace> {
      return mesh.find({random.between(0.0, side), random.between(0.0, side), 0.0});
    };
    while (queries.size() < 401) {
      const auto from = somewhere();
      const auto to = somewhere();
      if (!from || !to || mesh.island_of(*from) != mesh.island_of(*to)) continue;
      queries.push_back({*from, *to});
    }
  }
};

const Place& place_of(int which) {
  static std::map<int, Place> places;
  return places.try_emplace(which, level_of(which)).first->second;
}

double distance(const Vector3d& a, const Vector3d& b) {
  return (a - b).head<2>().norm();
}

using Graph =
    boost::adjacency_list<boost::vecS, boost::vecS, boost::undirectedS, boost::no_property,
                          boost::property<boost::edge_weight_t, double>>;
using Node = boost::graph_traits<Graph>::vertex_descriptor;

struct Arrived {};

/// Stops at the goal, and notes what has been touched.
struct StopAt : boost::default_astar_visitor {
  StopAt(Node node, std::vector<Node>& all) : goal(node), touched(&all) {}
  template <typename Anything>
  void discover_vertex(Node node, const Anything&) const {
    touched->push_back(node);
  }
  template <typename Anything>
  void examine_vertex(Node node, const Anything&) const {
    if (node == goal) throw Arrived{};
  }
  Node goal;
  std::vector<Node>* touched;
};

struct Straight : boost::astar_heuristic<Graph, double> {
  Straight(const std::vector<Vector3d>& nodes, Node node) : at(&nodes), goal(node) {}
  double operator()(Node node) const { return distance((*at)[node], (*at)[goal]); }
  const std::vector<Vector3d>* at;
  Node goal;
};

constexpr std::size_t kNoNode = ~std::size_t{0};

/// The middles of the edges between triangles, joined within each triangle; the last two nodes are
/// the ends of a query. The polygons of the mesh are cut into triangles from their first corner.
class TriangleGraph {
 public:
  explicit TriangleGraph(const NavigationMesh& mesh) {
    nodes_of_.resize(mesh.polygon_count());
    for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
      const MeshPolygon polygon = mesh.polygon(i);
      const std::size_t count = polygon.corners.size();
      std::size_t inner = kNoNode;
      for (std::size_t k = 1; k + 1 < count; ++k) {
        std::vector<std::size_t> around;
        if (inner != kNoNode) around.push_back(inner);
        inner = kNoNode;
        add_edge(polygon, k, around);
        if (k == 1) add_edge(polygon, 0, around);
        if (k + 2 == count) {
          add_edge(polygon, count - 1, around);
        } else {
          inner = add_node((polygon.corners[0] + polygon.corners[k + 1]) / 2.0);
          around.push_back(inner);
        }
        for (std::size_t a = 0; a < around.size(); ++a) {
          for (std::size_t b = 0; b < a; ++b) joined_.emplace_back(around[a], around[b]);
        }
        nodes_of_[i].insert(nodes_of_[i].end(), around.begin(), around.end());
      }
    }
    start_ = add_node({0.0, 0.0, 0.0});
    goal_ = add_node({0.0, 0.0, 0.0});
    graph_ = Graph(at_.size());
    for (const auto& [a, b] : joined_) boost::add_edge(a, b, distance(at_[a], at_[b]), graph_);
    before_.resize(at_.size());
    length_.assign(at_.size(), std::numeric_limits<double>::infinity());
    estimate_.resize(at_.size());
    colour_.assign(at_.size(), boost::white_color);
  }

  double shortest(const Query& query) {
    if (query.from.polygon == query.to.polygon) return distance(query.from.place, query.to.place);
    tie(start_, query.from);
    tie(goal_, query.to);
    search();
    boost::clear_vertex(start_, graph_);
    boost::clear_vertex(goal_, graph_);
    return length_[goal_];
  }

 private:
  std::size_t add_node(const Vector3d& at) {
    at_.push_back(at);
    return at_.size() - 1;
  }

  // The node of an edge with a polygon beyond; both polygons share it.
  void add_edge(const MeshPolygon& polygon, std::size_t k, std::vector<std::size_t>& around) {
    if (!polygon.beyond[k]) return;
    const Vector3d& a = polygon.corners[k];
    const Vector3d& b = polygon.corners[(k + 1) % polygon.corners.size()];
    const Vector3d middle = (a + b) / 2.0;
    const auto [known, is_new] = edge_node_.try_emplace({middle.x(), middle.y()}, at_.size());
    if (is_new) add_node(middle);
    around.push_back(known->second);
  }

  void tie(std::size_t node, const MeshPlace& place) {
    at_[node] = place.place;
    for (const std::size_t other : nodes_of_[place.polygon]) {
      boost::add_edge(node, other, distance(at_[node], at_[other]), graph_);
    }
  }

  // Only what the search before has touched is made new: all of it would cost more than the search.
  void search() {
    for (const Node node : touched_) {
      length_[node] = std::numeric_limits<double>::infinity();
      colour_[node] = boost::white_color;
    }
    touched_.clear();
    const auto number = boost::get(boost::vertex_index, graph_);
    const auto map = [&](auto& values) {
      return boost::make_iterator_property_map(values.begin(), number);
    };
    const Straight ahead(at_, goal_);
    length_[start_] = 0.0;
    estimate_[start_] = ahead(start_);
    try {
      boost::astar_search_no_init(
          graph_, start_, ahead, StopAt(goal_, touched_), map(before_), map(estimate_),
          map(length_), boost::get(boost::edge_weight, graph_), map(colour_), number, std::less<>(),
          boost::closed_plus<double>(), std::numeric_limits<double>::infinity(), 0.0);
    } catch (const Arrived&) {
    }
  }

  std::vector<Vector3d> at_;
  std::vector<std::pair<std::size_t, std::size_t>> joined_;
  std::map<std::pair<double, double>, std::size_t> edge_node_;
  std::vector<std::vector<std::size_t>> nodes_of_;  ///< By polygon.
  Graph graph_;
  std::size_t start_ = 0;
  std::size_t goal_ = 0;
  std::vector<Node> before_;
  std::vector<double> length_;
  std::vector<double> estimate_;
  std::vector<boost::default_color_type> colour_;
  std::vector<Node> touched_;
};

void making_a_mesh(benchmark::State& state) {
  const Level& level = level_of(static_cast<int>(state.range(0)));
  const World world(level);
  for (auto _ : state) {
    const NavigationMesh mesh(level, world, BodySize{});
    benchmark::DoNotOptimize(mesh.polygon_count());
  }
}
BENCHMARK(making_a_mesh)->DenseRange(0, 2)->Unit(benchmark::kMillisecond);

// Both methods by turns, all queries by one and then all by the other, so that each finds its own
// data in the cache as it would in use: medians, and how much longer the other's ways are.
void shortest_ways(benchmark::State& state) {
  const Place& place = place_of(static_cast<int>(state.range(0)));
  TriangleGraph graph(place.mesh);
  PathFinder finder;
  std::vector<double> ours;
  std::vector<double> theirs;
  double our_length = 0.0;
  double their_length = 0.0;
  for (auto _ : state) {
    std::vector<double> lengths;
    for (const Query& query : place.queries) {
      const auto begin = std::chrono::steady_clock::now();
      lengths.push_back(finder.find(place.mesh, query.from.place, query.to.place).length);
      ours.push_back(microseconds_since(begin));
      our_length += lengths.back();
    }
    for (std::size_t i = 0; i < lengths.size(); ++i) {
      const auto begin = std::chrono::steady_clock::now();
      const double length = graph.shortest(place.queries[i]);
      theirs.push_back(microseconds_since(begin));
      their_length += length;
      if (length < lengths[i] * (1.0 - 1e-9)) state.SkipWithError("a shorter way was found");
    }
  }
  state.counters["ours_us"] = median(ours);
  state.counters["graph_us"] = median(theirs);
  state.counters["ratio"] = median(theirs) / median(ours);
  state.counters["longer_%"] = 100.0 * (their_length / our_length - 1.0);
}
BENCHMARK(shortest_ways)->DenseRange(0, 2)->Unit(benchmark::kMillisecond)->Iterations(3);

// A squad of 32 in a corner of the scene goes to one place: together, against one by one, by turns.
void ways_to_one_place(benchmark::State& state) {
  const Place& place = place_of(static_cast<int>(state.range(0)));
  const double side = scenes::side_of(level_of(static_cast<int>(state.range(0))));
  const Vector3d goal = place.mesh.nearest({0.7 * side, 0.8 * side, 0.0})->place;
  PathFinder finder;
  scenes::Random random(4);
  std::vector<Vector3d> starts;
  while (starts.size() < 32) {
    const Vector3d start{0.05 * side + random.between(0.0, 4.0), random.between(1.0, 5.0), 0.0};
    if (finder.find(place.mesh, start, goal).outcome == Path::Outcome::whole) {
      starts.push_back(start);
    }
  }
  std::vector<double> together;
  std::vector<double> alone;
  for (auto _ : state) {
    double shared_length = 0.0;
    double length = 0.0;
    const auto begin = std::chrono::steady_clock::now();
    finder.find_all(place.mesh, starts, goal, nullptr,
                    [&](std::size_t, const Path& path) { shared_length += path.length; });
    together.push_back(microseconds_since(begin));
    const auto second = std::chrono::steady_clock::now();
    for (const Vector3d& start : starts) {
      length += finder.find(place.mesh, start, goal).length;
    }
    alone.push_back(microseconds_since(second));
    if (std::abs(shared_length - length) > 1e-9 * length) state.SkipWithError("not the same ways");
  }
  state.counters["together_us"] = median(together) / static_cast<double>(starts.size());
  state.counters["alone_us"] = median(alone) / static_cast<double>(starts.size());
  state.counters["ratio"] = median(alone) / median(together);
}
BENCHMARK(ways_to_one_place)->DenseRange(0, 1)->Unit(benchmark::kMillisecond)->Iterations(9);

// A door that opens and shuts for somebody in its way, in the campus: the step that does it
// against the steps before.
void a_change(benchmark::State& state) {
  Level level = scenes::campus();
  Solid door = level.solids.front();
  door.id = "door";
  door.health = 1.0;
  level.solids.push_back(door);
  World world(level);
  const NavigationMesh mesh(level, world, BodySize{});
  PathFinder finder;
  const SolidId solid{static_cast<std::uint32_t>(level.solids.size() - 1)};
  const double side = scenes::side_of(level);
  const auto from = mesh.nearest({1.0, 1.0, 0.0});
  const auto to = mesh.nearest({side - 1.0, side - 1.0, 0.0});
  bool is_gone = false;
  for (auto _ : state) {
    is_gone = !is_gone;
    world.set_gone(solid, is_gone);
    benchmark::DoNotOptimize(finder.find(mesh, from->place, to->place, &world).length);
  }
}
BENCHMARK(a_change)->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
