#include "gaze/path.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "navigation/lifting.hpp"
#include "navigation/path_search.hpp"

namespace gaze {

struct PathFinder::Scratch {
  PathSearch search;
  WayInPlan way;
  Walked walked;
  Path path;
  std::vector<char> shut;     ///< By patch.
  std::vector<char> reached;  ///< By face, the first of its cell.
  // What is kept where there are many starts:
  struct Start {
    std::size_t number = 0;
    PlaceInPlan place;
  };
  std::vector<Start> left;            ///< Those still to be searched for.
  std::vector<std::size_t> together;  ///< Those that are searched for together.
  std::vector<PlaceInPlan> starts;    ///< Where these are.
  std::size_t looked_at = 0;
};

namespace {

double length_in_plan(const NavigationMesh::Data& mesh, const std::vector<Vector3d>& points) {
  double length = 0.0;
  for (std::size_t i = 1; i < points.size(); ++i) {
    length += distance(mesh.plan(points[i - 1]), mesh.plan(points[i]));
  }
  return length;
}

void note_shut(PathFinder::Scratch& scratch, const NavigationMesh::Data& mesh, const World* now) {
  scratch.shut.clear();
  for (const std::vector<std::uint32_t>& to_go : mesh.patches) {
    const bool is_shut = std::any_of(to_go.begin(), to_go.end(), [&](std::uint32_t solid) {
      return now == nullptr || !now->is_gone({solid});
    });
    scratch.shut.push_back(is_shut ? 1 : 0);
  }
}

// Which cells can be reached as things are now, when solids may have gone. All crossings are
// followed until none leads any farther.
void note_reached(PathFinder::Scratch& scratch, const NavigationMesh::Data& mesh,
                  std::uint32_t from_face) {
  scratch.reached.assign(mesh.faces.size(), 0);
  scratch.reached[mesh.cell[from_face]] = 1;
  for (bool goes_on = true; goes_on;) {
    goes_on = false;
    for (const Crossing& crossing : mesh.crossings) {
      char& is_reached = scratch.reached[mesh.cell[crossing.to_face]];
      if (is_reached != 0 || scratch.reached[mesh.cell[crossing.from_face]] == 0) continue;
      if (scratch.shut[mesh.faces[crossing.to_face].patch] != 0) continue;
      is_reached = 1;
      goes_on = true;
    }
  }
}

/// Tells which faces can be reached from one face.
class Reach {
 public:
  Reach(PathFinder::Scratch& scratch, const NavigationMesh& mesh, std::uint32_t from_face)
      : scratch_(scratch), mesh_(mesh), from_(data_of(mesh).faces[from_face].island) {
    has_patches_ = data_of(mesh).patches.size() > 1;
    if (has_patches_) note_reached(scratch, data_of(mesh), from_face);
  }
  bool holds(std::uint32_t face) const {
    if (has_patches_) return scratch_.reached[data_of(mesh_).cell[face]] != 0;
    return mesh_.is_reachable(from_, data_of(mesh_).faces[face].island);
  }
  std::optional<MeshPlace> nearest(const Vector3d& place, const Vector3d& from) const {
    return nearest_place(
        data_of(mesh_), place, [&](std::uint32_t face) { return holds(face); }, &from);
  }

 private:
  const PathFinder::Scratch& scratch_;
  const NavigationMesh& mesh_;
  std::uint32_t from_;
  bool has_patches_ = false;
};

// A goal that cannot be reached is replaced by the place nearest to it that can.
Path::Outcome choose_goal(PathFinder::Scratch& scratch, const NavigationMesh& mesh,
                          const MeshPlace& start, MeshPlace& goal) {
  const Reach reach(scratch, mesh, start.polygon);
  if (reach.holds(goal.polygon)) return Path::Outcome::whole;
  const auto reachable = reach.nearest(goal.place, start.place);
  const auto distance = [&](const Vector3d& p) {
    return plane_distance(Plane::space, p, goal.place);
  };
  if (!reachable || !(distance(reachable->place) < distance(start.place))) {
    return Path::Outcome::none;
  }
  goal = *reachable;
  return Path::Outcome::partial;
}

PlaceInPlan in_plan(const NavigationMesh::Data& mesh, const MeshPlace& place) {
  return {mesh.plan(place.place), place.polygon};
}

void lift(PathFinder::Scratch& scratch, const NavigationMesh::Data& mesh, std::uint32_t from_face) {
  shift_crossings(mesh, scratch.way);
  lift_way(mesh, from_face, scratch.walked, scratch.path, scratch.way);
}

void find_whole(PathFinder::Scratch& scratch, const NavigationMesh& mesh, const MeshPlace& start,
                const MeshPlace& goal, std::span<const Cylinder> standing) {
  const NavigationMesh::Data& data = data_of(mesh);
  const PlaceInPlan to = in_plan(data, goal);
  std::optional<Standing> bars;
  if (!standing.empty()) bars.emplace(mesh, standing);
  scratch.search.find(data, in_plan(data, start), {&to, 1}, scratch.shut, bars ? &*bars : nullptr);
  if (!scratch.search.has_found(0)) {
    scratch.path.outcome = Path::Outcome::none;
    scratch.path.points.clear();
    return;
  }
  scratch.search.trace(0, scratch.way);
  lift(scratch, data, start.polygon);
}

void begin(Path& path) {
  path.length = 0.0;
  path.cost = 0.0;
  path.points.clear();
  path.links.clear();
}

// Gives a path the ends that were asked for.
void finish(Path& path, const NavigationMesh& mesh, const MeshPlace& goal, const Vector3d& to) {
  if (path.outcome == Path::Outcome::whole) {
    add_point(path.points, mesh.body().altitude ? goal.place : to);
  }
  path.length += length_in_plan(data_of(mesh), path.points);
  path.cost += path.length;
}

/// Takes the first of the starts that are left, and those near it. They lie in a box that is small
/// for its distance from the goal. So a search towards the box looks at little more than a search
/// towards a single place in it.
void take_cluster(PathFinder::Scratch& scratch, const MeshPoint& goal) {
  constexpr double kMostSize = 0.1;  // of the box, as a share of its distance
  scratch.together.clear();
  scratch.starts.clear();
  MeshPoint low = scratch.left.front().place.at;
  MeshPoint high = low;
  const auto takes = [&](const PathFinder::Scratch::Start& start) {
    const MeshPoint& at = start.place.at;
    const MeshPoint new_low{std::min(low.x, at.x), std::min(low.y, at.y)};
    const MeshPoint new_high{std::max(high.x, at.x), std::max(high.y, at.y)};
    const MeshPoint nearest{std::clamp(goal.x, new_low.x, new_high.x),
                            std::clamp(goal.y, new_low.y, new_high.y)};
    const bool is_first = scratch.together.empty();
    if (!is_first && distance(new_low, new_high) > kMostSize * distance(nearest, goal))
      return false;
    low = new_low;
    high = new_high;
    scratch.together.push_back(start.number);
    scratch.starts.push_back(start.place);
    return true;
  };
  std::erase_if(scratch.left, takes);
}

void turn_round(const NavigationMesh::Data& mesh, WayInPlan& way) {
  std::reverse(way.points.begin(), way.points.end());
  std::reverse(way.crossings.begin(), way.crossings.end());
  const auto count = static_cast<std::uint32_t>(way.points.size());
  for (WayInPlan::Leg& leg : way.crossings) {
    leg = {count - leg.to_point, reversed(mesh, leg.crossing)};
  }
}

}  // namespace

PathFinder::PathFinder() : scratch_(std::make_unique<Scratch>()) {}
// What it keeps from search to search is memory, and nothing that a later search could tell.
PathFinder::PathFinder(const PathFinder&) : PathFinder() {}
PathFinder::PathFinder(PathFinder&& other) noexcept = default;
PathFinder& PathFinder::operator=(const PathFinder&) {
  return *this;
}
PathFinder& PathFinder::operator=(PathFinder&& other) noexcept = default;
PathFinder::~PathFinder() = default;

const Path& PathFinder::find(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to,
                             const World* now, std::span<const Cylinder> standing) {
  Path& path = scratch_->path;
  begin(path);
  scratch_->looked_at = 0;
  const auto start = mesh.find(from);
  if (!start) {
    path.outcome = Path::Outcome::bad_start;
    return path;
  }
  auto goal = mesh.find(to);
  note_shut(*scratch_, data_of(mesh), now);
  const bool is_shut = goal && scratch_->shut[data_of(mesh).faces[goal->polygon].patch] != 0;
  if (!goal || is_shut) {
    path.outcome = Path::Outcome::bad_goal;
    return path;
  }
  path.outcome = choose_goal(*scratch_, mesh, *start, *goal);
  if (path.outcome == Path::Outcome::none) return path;
  add_point(path.points, mesh.body().altitude ? start->place : from);
  find_whole(*scratch_, mesh, *start, *goal, standing);
  finish(path, mesh, *goal, to);
  scratch_->looked_at = scratch_->search.looked_at();
  return path;
}

// But for links, ways are the same in both directions. So one search from the goal finds the ways
// of all starts that lie together.
void PathFinder::find_all(const NavigationMesh& mesh, std::span<const Vector3d> from,
                          const Vector3d& to, const World* now, const Found& found) {
  Scratch& scratch = *scratch_;
  const NavigationMesh::Data& data = data_of(mesh);
  note_shut(scratch, data, now);
  const auto goal = mesh.find(to);
  const bool is_good =
      goal && data.links.empty() && scratch.shut[data.faces[goal->polygon].patch] == 0;
  std::optional<Reach> reach;
  if (is_good) reach.emplace(scratch, mesh, goal->polygon);
  scratch.left.clear();
  std::size_t looked_at = 0;
  for (std::size_t i = 0; i < from.size(); ++i) {
    const auto start = is_good ? mesh.find(from[i]) : std::nullopt;
    if (start && reach->holds(start->polygon)) {
      scratch.left.push_back({i, in_plan(data, *start)});
    } else {
      found(i, find(mesh, from[i], to, now));
      looked_at += scratch.looked_at;
    }
  }
  note_shut(scratch, data, now);
  while (!scratch.left.empty()) {
    take_cluster(scratch, data.plan(goal->place));
    scratch.search.find(data, in_plan(data, *goal), scratch.starts, scratch.shut);
    looked_at += scratch.search.looked_at();
    for (std::size_t k = 0; k < scratch.together.size(); ++k) {
      const std::size_t i = scratch.together[k];
      const PlaceInPlan& start = scratch.starts[k];
      begin(scratch.path);
      scratch.path.outcome = Path::Outcome::whole;
      add_point(scratch.path.points,
                mesh.body().altitude ? data.lift(start.face, start.at) : from[i]);
      scratch.search.trace(k, scratch.way);
      turn_round(data, scratch.way);
      lift(scratch, data, start.face);
      finish(scratch.path, mesh, *goal, to);
      found(i, scratch.path);
    }
  }
  scratch.looked_at = looked_at;
}

std::optional<MeshPlace> PathFinder::nearest_reachable(const NavigationMesh& mesh,
                                                       const MeshPlace& from, const Vector3d& to,
                                                       const World* now) {
  note_shut(*scratch_, data_of(mesh), now);
  return Reach(*scratch_, mesh, from.polygon).nearest(to, from.place);
}

std::size_t PathFinder::looked_at() const noexcept {
  return scratch_->looked_at;
}

Path find_path(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to) {
  return PathFinder().find(mesh, from, to);
}

std::string_view name_of(Path::Outcome outcome) {
  switch (outcome) {
    case Path::Outcome::whole:
      return "whole";
    case Path::Outcome::partial:
      return "partial";
    case Path::Outcome::none:
      return "none";
    case Path::Outcome::bad_start:
      return "bad start";
    default:
      return "bad goal";
  }
}

}  // namespace gaze
