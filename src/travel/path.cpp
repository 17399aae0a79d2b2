#include "gaze/path.hpp"

#include <cmath>

#include "geometry/plan.hpp"
#include "travel/path_search.hpp"

namespace gaze {

struct PathFinder::Scratch {
  PathSearch search;
  std::vector<MeshPoint> turns;
  Path path;
};

namespace {

MeshPoint plan_of(const Vector3d& p) {
  return {p.x(), p.y()};
}

void add_point(std::vector<Vector3d>& points, const Vector3d& p) {
  if (points.empty() || points.back() != p) points.push_back(p);
}

double level_length(const std::vector<Vector3d>& points) {
  double length = 0.0;
  for (std::size_t i = 1; i < points.size(); ++i) {
    const Vector2d leg{points[i].x() - points[i - 1].x(), points[i].y() - points[i - 1].y()};
    length += std::sqrt(dot(leg, leg));
  }
  return length;
}

// A goal on another island is replaced by the place nearest to it on the start's own.
Path::Outcome choose_goal(const NavigationMesh& mesh, const MeshPlace& start, MeshPlace& goal) {
  const std::vector<MeshFace>& faces = mesh.data().faces;
  const std::uint32_t island = faces[start.polygon].island;
  if (faces[goal.polygon].island == island) return Path::Outcome::whole;
  const auto reachable = mesh.nearest(goal.place, island);
  const auto distance = [&](const Vector3d& p) {
    return plane_distance(Plane::space, p, goal.place);
  };
  if (!reachable || !(distance(reachable->place) < distance(start.place))) {
    return Path::Outcome::none;
  }
  goal = *reachable;
  return Path::Outcome::partial;
}

void find_whole(PathFinder::Scratch& scratch, const NavigationMesh& mesh, const MeshPlace& start,
                const MeshPlace& goal) {
  scratch.search.begin(mesh.data(), start.polygon, plan_of(start.place), goal.polygon,
                       plan_of(goal.place));
  while (!scratch.search.go_on(1'000'000)) {
  }
  if (!scratch.search.has_found()) return;
  scratch.search.trace(scratch.turns);
  for (const MeshPoint& p : scratch.turns) {
    add_point(scratch.path.points, {p.x, p.y, mesh.data().height_at(start.polygon, p.x, p.y)});
  }
}

}  // namespace

PathFinder::PathFinder() : scratch_(std::make_unique<Scratch>()) {}
PathFinder::PathFinder(const PathFinder& other)
    : scratch_(std::make_unique<Scratch>(*other.scratch_)) {}
PathFinder::PathFinder(PathFinder&& other) noexcept = default;
PathFinder& PathFinder::operator=(const PathFinder& other) {
  return *this = PathFinder(other);
}
PathFinder& PathFinder::operator=(PathFinder&& other) noexcept = default;
PathFinder::~PathFinder() = default;

bool NavigationMesh::is_free(const Vector3d& from, const Vector3d& to) const noexcept {
  const auto start = find(from);
  const auto goal = find(to);
  if (!start || !goal) return false;
  return is_straight_free(*data_, start->polygon, plan_of(start->place), goal->polygon,
                          plan_of(goal->place));
}

const Path& PathFinder::find(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to) {
  Path& path = scratch_->path;
  path.length = 0.0;
  path.points.clear();
  const auto start = mesh.find(from);
  if (!start) {
    path.outcome = Path::Outcome::bad_start;
    return path;
  }
  auto goal = mesh.find(to);
  if (!goal) {
    path.outcome = Path::Outcome::bad_goal;
    return path;
  }
  const bool ends_at_goal =
      (path.outcome = choose_goal(mesh, *start, *goal)) == Path::Outcome::whole;
  if (path.outcome == Path::Outcome::none) return path;
  add_point(path.points, from);
  find_whole(*scratch_, mesh, *start, *goal);
  if (ends_at_goal) add_point(path.points, to);
  path.length = level_length(path.points);
  return path;
}

std::size_t PathFinder::looked_at() const noexcept {
  return scratch_->search.looked_at();
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

BodySize body_size(const Kind& kind) {
  return {kind.radius, kind.height, kind.move.step_height, kind.move.slope};
}

}  // namespace gaze
