#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "navigation/mesh.hpp"
#include "navigation/obstacles.hpp"

namespace gaze {
namespace {

// The places where a path turns in the plan. A round corner is made of several turns close
// together, which count as one.
int corners_of(const NavigationMesh& mesh, const Path& path) {
  const double radius = mesh.body().radius;
  std::vector<Vector2d> plan;  // a step up is no turn
  for (const Vector3d& p : path.points) {
    const MeshPoint at = data_of(mesh).plan(p);
    if (plan.empty() || plan.back() != Vector2d{at.x, at.y}) plan.emplace_back(at.x, at.y);
  }
  int corners = 0;
  double since_turn = std::numeric_limits<double>::infinity();
  for (std::size_t i = 1; i + 1 < plan.size(); ++i) {
    const Vector2d in = plan[i] - plan[i - 1];
    const Vector2d out = plan[i + 1] - plan[i];
    since_turn += length_of(in);
    if (std::abs(cross(in, out)) <= 1e-6 * std::sqrt(dot(in, in) * dot(out, out))) continue;
    corners += since_turn > radius ? 1 : 0;
    since_turn = 0.0;
  }
  return corners;
}

// "round 2 corners, by hop, ladder-1".
std::string course_of(const Level& level, const NavigationMesh& mesh, const Path& path) {
  const int corners = corners_of(mesh, path);
  std::string text;
  if (corners > 0) {
    text = fmt::format("round {} {}", corners, corners == 1 ? "corner" : "corners");
  }
  if (path.links.empty()) return text;
  std::vector<std::string> names;
  for (const Path::Leg& leg : path.links) names.push_back(name_of(level, mesh.links()[leg.link]));
  return fmt::format("{}{}by {}", text, text.empty() ? "" : ", ", fmt::join(names, ", "));
}

// Whether a path crosses the leaf of a door in the plan.
bool leads_through(const NavigationMesh& mesh, const Path& path, const Solid& door) {
  const auto side = [](const Vector2d& a, const Vector2d& b, const Vector2d& p) {
    return cross(Vector2d(b - a), Vector2d(p - a));
  };
  const auto plan = [&](const Vector3d& p) {
    const MeshPoint at = data_of(mesh).plan(p);
    return Vector2d{at.x, at.y};
  };
  for (std::size_t i = 0; i + 1 < path.points.size(); ++i) {
    const Vector2d from = plan(path.points[i]);
    const Vector2d to = plan(path.points[i + 1]);
    for (std::size_t k = 0; k + 1 < door.points.size(); ++k) {
      const Vector2d& a = door.points[k];
      const Vector2d& b = door.points[k + 1];
      if (side(from, to, a) * side(from, to, b) <= 0.0 &&
          side(a, b, from) * side(a, b, to) <= 0.0) {
        return true;
      }
    }
  }
  return false;
}

// Doors that do not open for this body and that make its path longer: "12.30 m through hatch, which
// does not open for it". Empty if there are none.
std::string shorter_through_doors(const Level& level, const World& world,
                                  const NavigationMesh& mesh, const Path& path,
                                  const Vector3d& from, const Vector3d& to) {
  BodySize opened = mesh.body();
  std::vector<std::uint32_t> shut;
  for (std::uint32_t i = 0; i < level.solids.size(); ++i) {
    if (level.solids[i].form != Solid::Form::door) continue;
    if (!std::binary_search(opened.opens.begin(), opened.opens.end(), i)) shut.push_back(i);
  }
  if (shut.empty()) return "";
  opened.opens.insert(opened.opens.end(), shut.begin(), shut.end());
  std::sort(opened.opens.begin(), opened.opens.end());
  const Path other = find_path(NavigationMesh(level, world, opened, 0), from, to);
  constexpr double kCentimetre = 0.01;  // as lengths are printed
  if (other.outcome != Path::Outcome::whole || other.length > path.length - kCentimetre) return "";
  std::vector<std::string> names;
  for (const std::uint32_t door : shut) {
    if (leads_through(mesh, other, level.solids[door])) names.push_back(level.solids[door].id);
  }
  if (names.empty()) return "";
  return fmt::format("; {:.2f} m through {}, which {} not open for it", other.length,
                     fmt::join(names, " and "), names.size() == 1 ? "does" : "do");
}

}  // namespace

std::string NavigationMesh::hindrance(const Level& level, const World& world,
                                      const Vector3d& place) const {
  if (find(place)) return "";
  const Cylinder cylinder = body_at(body(), place, body().radius);
  const auto name = [&](SolidId solid) -> const std::string& {
    return level.solids[solid.index].id;
  };
  Cylinder thin = cylinder;
  thin.radius = 1e-3;
  if (const auto inside = world.first_overlap(thin, Stops::bodies)) {
    return fmt::format("lies in {}", name(*inside));
  }
  const auto solids = solids_at(world, cylinder);
  const auto on = nearest(place);
  if (!on) return "there is no floor for this body";
  const double away = plane_distance(Plane::space, on->place, place);
  if (!solids.empty()) {
    return fmt::format("is {:.2f} m too near {} for a body {:.2f} m wide", away,
                       name(solids.front()), 2.0 * body().radius);
  }
  return fmt::format("is {:.2f} m off the nearest floor for this body", away);
}

std::optional<Parting> parting(const Level& level, const World& world, const NavigationMesh& mesh,
                               const Path& path, const Vector3d& from, const Vector3d& to) {
  const bool is_cut_off =
      path.outcome == Path::Outcome::partial || path.outcome == Path::Outcome::none;
  return is_cut_off ? std::optional(parting(level, world, mesh, from, to)) : std::nullopt;
}

std::string explain(const Level& level, const World& world, const NavigationMesh& mesh,
                    const Path& path, const Vector3d& from, const Vector3d& to,
                    const std::optional<Parting>& parting) {
  const auto island = [&](const Vector3d& p) {
    const auto place = mesh.find(p);
    return place ? mesh.islands()[data_of(mesh).faces[place->polygon].island].name : "";
  };
  switch (path.outcome) {
    case Path::Outcome::whole: {
      const double straight = distance(data_of(mesh).plan(from), data_of(mesh).plan(to));
      const std::string course = course_of(level, mesh, path);
      if (course.empty()) return "straight and free";
      return fmt::format("{}; {:.2f} m longer than straight{}", course,
                         std::max(0.0, path.length - straight),
                         shorter_through_doors(level, world, mesh, path, from, to));
    }
    case Path::Outcome::bad_start:
      return fmt::format("the start {}", mesh.hindrance(level, world, from));
    case Path::Outcome::bad_goal:
      return fmt::format("the goal {}", mesh.hindrance(level, world, to));
    default:
      return fmt::format("the start is on {}, the goal on {}: {}", island(from), island(to),
                         parting ? describe(level, *parting) : "");
  }
}

}  // namespace gaze
