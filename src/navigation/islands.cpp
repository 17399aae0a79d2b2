#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <numeric>
#include <utility>

#include "navigation/mesh.hpp"

namespace gaze {
namespace {

/// Keeps account of which faces hang together.
class Joined {
 public:
  explicit Joined(std::size_t count) : parent_(count) {
    std::iota(parent_.begin(), parent_.end(), 0U);
  }
  /// @param known  By face: one with which it hangs together, itself or one before it.
  explicit Joined(std::vector<std::uint32_t> known) : parent_(std::move(known)) {}
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

/// Which groups of faces can be reached from which. Inside a group every face leads to every other;
/// between groups there are crossings that may lead one way alone.
class Reachability {
 public:
  Reachability(const NavigationMesh::Data& mesh, Joined& joined) {
    for (const Crossing& crossing : mesh.crossings) {
      const std::uint32_t from = number(joined.root(crossing.from_face));
      const std::uint32_t to = number(joined.root(crossing.to_face));
      // A solid that may go (a door, something that breaks) is taken to be there.
      const bool is_open = mesh.faces[crossing.to_face].patch == 0;
      if (from != to && is_open) ways_[from].push_back(to);
    }
    for (std::uint32_t i = 0; i < roots_.size(); ++i) rows_.push_back(row_from(i));
  }

  // Joins groups that can be reached from each other. Their rows are equal then.
  void join(Joined& joined) const {
    for (std::uint32_t i = 0; i < roots_.size(); ++i) {
      for (std::uint32_t j = 0; j < i; ++j) {
        if (rows_[i][j] && rows_[j][i]) joined.join(roots_[i], roots_[j]);
      }
    }
  }

  const std::vector<std::uint32_t>& roots() const { return roots_; }
  const std::vector<char>& row(std::size_t i) const { return rows_[i]; }

 private:
  std::uint32_t number(std::uint32_t root) {
    const auto [at, is_new] =
        number_of_.try_emplace(root, static_cast<std::uint32_t>(roots_.size()));
    if (is_new) {
      roots_.push_back(root);
      ways_.emplace_back();
    }
    return at->second;
  }

  std::vector<char> row_from(std::uint32_t start) const {
    std::vector<char> row(roots_.size(), 0);
    std::vector<std::uint32_t> to_visit{start};
    row[start] = 1;
    while (!to_visit.empty()) {
      const std::uint32_t at = to_visit.back();
      to_visit.pop_back();
      for (const std::uint32_t next : ways_[at]) {
        if (std::exchange(row[next], char{1}) == 0) to_visit.push_back(next);
      }
    }
    return row;
  }

  std::map<std::uint32_t, std::uint32_t> number_of_;
  std::vector<std::uint32_t> roots_;
  std::vector<std::vector<std::uint32_t>> ways_;
  std::vector<std::vector<char>> rows_;
};

void note_where_islands_lead(NavigationMesh::Data& mesh, const Reachability& reachable) {
  mesh.leads_to_row.assign(mesh.islands.size(), kNone);
  for (std::size_t i = 0; i < reachable.roots().size(); ++i) {
    const std::uint32_t island = mesh.faces[reachable.roots()[i]].island;
    if (mesh.leads_to_row[island] != kNone) continue;
    mesh.leads_to_row[island] = static_cast<std::uint32_t>(mesh.leads_to.size());
    std::vector<char>& row = mesh.leads_to.emplace_back(mesh.islands.size(), char{0});
    for (std::size_t j = 0; j < reachable.roots().size(); ++j) {
      if (reachable.row(i)[j]) row[mesh.faces[reachable.roots()[j]].island] = 1;
    }
  }
}

// The solid that carries a place on a surface.
std::uint32_t carrier_of(const Surface& surface, const Vector2d& place) {
  for (std::size_t i = 0; i < surface.parts.size(); ++i) {
    if (contains(surface.parts[i], place)) return surface.solids[i];
  }
  return surface.solids.front();
}

// Names a face after the solid that carries it: the one under its middle. Of what lies deeper below
// the ground than a step it says so, for nobody walks there from above.
std::string name_of(const NavigationMesh::Data& mesh, std::uint32_t face, const Level& level) {
  const Surface& surface = mesh.surfaces[mesh.faces[face].surface];
  const auto& to_go = mesh.patches[mesh.faces[face].patch];
  if (!to_go.empty()) return fmt::format("where {} stands", level.solids[to_go[0]].id);
  if (mesh.body.altitude) return "air";
  if (surface.solids.empty()) return "ground";
  Vector2d middle{0.0, 0.0};
  const MeshFace& its = mesh.faces[face];
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    middle += Vector2d{mesh.edges[e].from.x, mesh.edges[e].from.y} / double(its.count);
  }
  const std::string& id = level.solids[carrier_of(surface, middle)].id;
  const bool is_below = level.ground_height && surface.height.at(middle) < *level.ground_height;
  return is_below ? id + " below the ground" : id;
}

// Islands of one name are told apart by numbers.
void name_islands(NavigationMesh::Data& mesh, const Level& level) {
  std::map<std::string, int> used;
  for (Island& island : mesh.islands) {
    const std::string name = name_of(mesh, island.some_polygon, level);
    const int number = ++used[name];
    island.name = number == 1 ? name : fmt::format("{} {}", name, number);
  }
}

// The largest comes first.
void number_by_size(NavigationMesh::Data& mesh, std::vector<Island> found) {
  std::vector<std::uint32_t> order(found.size());
  std::iota(order.begin(), order.end(), 0U);
  std::stable_sort(order.begin(), order.end(),
                   [&](std::uint32_t a, std::uint32_t b) { return found[a].area > found[b].area; });
  std::vector<std::uint32_t> place(found.size());
  for (const std::uint32_t i : order) {
    place[i] = static_cast<std::uint32_t>(mesh.islands.size());
    mesh.islands.push_back(std::move(found[i]));
  }
  for (MeshFace& face : mesh.faces) face.island = place[face.island];
}

}  // namespace

void find_islands(NavigationMesh::Data& mesh, const Level& level, const Anew& anew) {
  const bool is_known = !anew.hangs_together.empty();
  Joined joined = is_known ? Joined(anew.hangs_together) : Joined(mesh.faces.size());
  const std::uint32_t first = is_known ? anew.first_edge : 0;
  for (std::uint32_t e = first; e < mesh.edges.size(); ++e) {
    const std::uint32_t twin = mesh.edges[e].twin;
    if (twin != kNone && (e < twin || twin < first))
      joined.join(mesh.edges[e].polygon, mesh.edges[twin].polygon);
  }
  for (std::uint32_t i = 0; i < mesh.faces.size(); ++i) mesh.cell.push_back(joined.root(i));
  const Reachability reachable(mesh, joined);
  reachable.join(joined);
  std::vector<std::uint32_t> number_of(mesh.faces.size(), kNone);  // by root
  std::vector<Island> found;
  std::vector<double> largest_face;
  for (std::uint32_t i = 0; i < mesh.faces.size(); ++i) {
    std::uint32_t& number = number_of[joined.root(i)];
    if (number == kNone) {
      number = static_cast<std::uint32_t>(found.size());
      found.emplace_back();
      largest_face.push_back(0.0);
    }
    const double area = mesh.faces[i].area;
    found[number].area += area;
    mesh.faces[i].island = number;
    if (area <= largest_face[number]) continue;
    largest_face[number] = area;
    found[number].some_polygon = i;
  }
  number_by_size(mesh, std::move(found));
  note_where_islands_lead(mesh, reachable);
  name_islands(mesh, level);
}

}  // namespace gaze
