#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "travel/obstacles.hpp"

namespace gaze {
namespace {

constexpr double kExactly = 0.0005;  // metres

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

}  // namespace gaze
