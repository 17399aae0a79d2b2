#include "gaze/feeling.hpp"
#include "world/lengths.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"

namespace gaze {
namespace {

void keep_nearer(Felt& felt, double& best, double share, std::optional<std::uint32_t> body,
                 std::optional<SolidId> solid) {
  if (!(share < best)) return;
  best = share;
  felt.body = body;
  felt.solid = solid;
}

}  // namespace

BallPath feeler_path(Plane plane, const Feeler& feeler, const Vector3d& feet,
                     const Vector2d& facing) {
  const Vector3d from = feeler.from.value_or(Vector3d{0.0, 0.0, kUsualHeight / 2.0});
  const Vector3d start = offset_place(plane, feet, facing, from);
  const Vector3d end =
      start + direction_along(plane, facing, feeler.toward, feeler.tilt) * feeler.length;
  return {{start, end}, feeler.thickness / 2.0};
}

Felt feel(const World& world, std::optional<double> ground, const Feeler& feeler,
          const Vector3d& feet, const Vector2d& facing, std::span<const Cylinder> bodies) noexcept {
  const BallPath path = feeler_path(world.plane(), feeler, feet, facing);
  Felt felt;
  double best = 1.0;
  if (const auto touch = world.first_touch(path, feeler.stopped_by)) {
    keep_nearer(felt, best, touch->share, std::nullopt, touch->solid);
  }
  if (ground) {
    if (const auto share = first_touch_of_floor(path, *ground)) {
      keep_nearer(felt, best, *share, std::nullopt, std::nullopt);
    }
  }
  for (std::uint32_t i = 0; i < bodies.size(); ++i) {
    if (const auto share = first_touch(path, bodies[i], Vector3d{0.0, 0.0, 0.0})) {
      keep_nearer(felt, best, *share, i, std::nullopt);
    }
  }
  felt.place = path.path.from + (path.path.to - path.path.from) * best;
  if (best < 1.0) felt.distance = best * feeler.length;
  return felt;
}

void feel(const World& world, std::optional<double> ground,
          std::span<const FeelerQuestion> questions, std::span<const Cylinder> bodies,
          std::span<Felt> felt) {
  need_as_many(questions.size(), felt.size());
  for (std::size_t i = 0; i < questions.size(); ++i) {
    const FeelerQuestion& question = questions[i];
    felt[i] = feel(world, ground, question.feeler, question.feet, question.facing, bodies);
  }
}

double distance_along(const std::array<bool, 3>& axes, const Vector3d& a,
                      const Vector3d& b) noexcept {
  const Vector3d way = b - a;
  const double x = axes[0] ? way.x() : 0.0;
  const double y = axes[1] ? way.y() : 0.0;
  const double z = axes[2] ? way.z() : 0.0;
  return std::sqrt(x * x + y * y + z * z);
}

}  // namespace gaze
