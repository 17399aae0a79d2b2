#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "travel/mesh.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

constexpr double kExactly = 0.0005;  // metres

Cylinder body_at(const BodySize& body, const Vector3d& feet, double radius) {
  return {feet + Vector3d{0.0, 0.0, body.step_height}, radius, body.height - body.step_height};
}

/// Meshes of bodies that differ in one measure, and whether they lead from one place to the other.
class Trial {
 public:
  Trial(const Level& level, const World& world, const Vector3d& from, const Vector3d& to)
      : level_(level), world_(world), from_(from), to_(to) {}

  bool leads(const BodySize& body) {
    const NavigationMesh mesh(level_, world_, body);
    Path path = find_path(mesh, from_, to_);
    if (path.outcome != Path::Outcome::whole) return false;
    path_ = std::move(path);
    return true;
  }

  /// The measure nearest to `fails` that leads, if `works` does.
  template <typename With>
  double boundary(double works, double fails, With&& with) {
    while (std::abs(fails - works) > kExactly) {
      const double middle = (works + fails) / 2.0;
      (leads(with(middle)) ? works : fails) = middle;
    }
    leads(with(works));
    return works;
  }

  const Path& path() const { return path_; }

 private:
  const Level& level_;
  const World& world_;
  const Vector3d& from_;
  const Vector3d& to_;
  Path path_;
};

// The middle of the first stretch of a way where the true body has no room.
std::optional<Vector3d> first_off(const NavigationMesh& mesh, const Path& path) {
  constexpr double kStride = 0.02;
  std::optional<Vector3d> first;
  Vector3d last{0.0, 0.0, 0.0};
  for (std::size_t i = 0; i + 1 < path.points.size(); ++i) {
    const Vector3d leg = path.points[i + 1] - path.points[i];
    const int strides = static_cast<int>(std::sqrt(leg.squaredNorm()) / kStride) + 1;
    for (int k = 0; k <= strides; ++k) {
      const Vector3d place = path.points[i] + leg * (double(k) / strides);
      if (mesh.find(place)) {
        if (first) return (*first + last) / 2.0;
        continue;
      }
      if (!first) first = place;
      last = place;
    }
  }
  return first;
}

std::vector<SolidId> solids_at(const World& world, const Cylinder& body) {
  std::vector<SolidId> solids;
  const World::Index& index = world.index();
  const PlanBody plan = to_plan(world.plane(), body);
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    if (!index.stops(piece, Stops::bodies) || !overlaps(index.prism(piece), plan)) continue;
    const SolidId solid{index.pieces[piece].solid};
    if (std::find(solids.begin(), solids.end(), solid) == solids.end()) solids.push_back(solid);
  }
  std::sort(solids.begin(), solids.end(),
            [](const SolidId& a, const SolidId& b) { return a.index < b.index; });
  return solids;
}

// Where it turns in the plan; a round corner is several turns close together.
int corners_of(const Path& path, double radius) {
  std::vector<Vector2d> plan;  // a step up is no turn
  for (const Vector3d& p : path.points) {
    if (plan.empty() || plan.back() != p.head<2>()) plan.emplace_back(p.head<2>());
  }
  int corners = 0;
  double since_turn = std::numeric_limits<double>::infinity();
  for (std::size_t i = 1; i + 1 < plan.size(); ++i) {
    const Vector2d in = plan[i] - plan[i - 1];
    const Vector2d out = plan[i + 1] - plan[i];
    since_turn += std::sqrt(dot(in, in));
    if (std::abs(cross(in, out)) <= 1e-6 * std::sqrt(dot(in, in) * dot(out, out))) continue;
    corners += since_turn > radius ? 1 : 0;
    since_turn = 0.0;
  }
  return corners;
}

}  // namespace

Parting parting(const Level& level, const World& world, const NavigationMesh& mesh,
                const Vector3d& from, const Vector3d& to) {
  const BodySize& body = mesh.body();
  Trial trial(level, world, from, to);
  Parting result;
  const auto with_radius = [&](double radius) {
    BodySize other = body;
    other.radius = radius;
    return other;
  };
  const auto with_step = [&](double step) {
    BodySize other = body;
    other.step_height = step;
    return other;
  };
  if (trial.leads(with_radius(kExactly))) {
    const double radius = trial.boundary(kExactly, body.radius, with_radius);
    result = {Parting::What::narrow, 2.0 * radius, 2.0 * body.radius, from, {}};
  } else if (trial.leads(with_step(body.height * 0.9))) {
    const double step = trial.boundary(body.height * 0.9, body.step_height, with_step);
    result = {Parting::What::step, step, body.step_height, from, {}};
  } else {
    const double rise = to.z() - from.z();
    if (std::abs(rise) > body.step_height) {
      result = {Parting::What::height, rise, body.step_height, to, {}};
    }
    return result;
  }
  const auto off = first_off(mesh, trial.path());
  if (!off) return result;
  result.place = *off;
  // A hand wider, so that both sides of the gap are met.
  result.solids = solids_at(world, body_at(body, *off, body.radius + 0.05));
  return result;
}

std::string describe(const Level& level, const Parting& parting) {
  std::string between;
  for (std::size_t i = 0; i < parting.solids.size(); ++i) {
    const std::string& id = level.solids[parting.solids[i].index].id;
    between += i == 0 ? (parting.solids.size() > 1 ? " between " : " at ") : " and ";
    between += id;
  }
  const std::string at = fmt::format(" at [{:.2f}, {:.2f}]", parting.place.x(), parting.place.y());
  switch (parting.what) {
    case Parting::What::narrow:
      return fmt::format("the gap{}{} is {:.2f} m wide, this body needs {:.2f} m", between, at,
                         parting.found, parting.needed);
    case Parting::What::step:
      return fmt::format("the step{}{} is {:.2f} m high, this body steps up {:.2f} m", between, at,
                         parting.found, parting.needed);
    case Parting::What::height:
      return fmt::format(
          "it lies {:.2f} m {}, this body steps {:.2f} m, and no ramp or stairs join them",
          std::abs(parting.found), parting.found > 0.0 ? "higher" : "lower", parting.needed);
    default:
      return "nothing joins the two";
  }
}

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

std::string explain(const Level& level, const World& world, const NavigationMesh& mesh,
                    const Path& path, const Vector3d& from, const Vector3d& to) {
  const auto island = [&](const Vector3d& p) {
    const auto place = mesh.find(p);
    return place ? mesh.islands()[mesh.data().faces[place->polygon].island].name : "";
  };
  switch (path.outcome) {
    case Path::Outcome::whole: {
      const double straight = level_distance(Plane::ground, from, to);
      const int corners = corners_of(path, mesh.body().radius);
      if (corners == 0) return "straight and free";
      return fmt::format("round {} {}; {:.2f} m longer than straight", corners,
                         corners == 1 ? "corner" : "corners",
                         std::max(0.0, path.length - straight));
    }
    case Path::Outcome::bad_start:
      return fmt::format("the start {}", mesh.hindrance(level, world, from));
    case Path::Outcome::bad_goal:
      return fmt::format("the goal {}", mesh.hindrance(level, world, to));
    default:
      return fmt::format("the start is on {}, the goal on {}: {}", island(from), island(to),
                         describe(level, parting(level, world, mesh, from, to)));
  }
}

}  // namespace gaze
