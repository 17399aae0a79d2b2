#pragma once

#include <span>

#include "gaze/time.hpp"
#include "gaze/world.hpp"
#include "world/touching.hpp"

namespace gaze {

/// Moves a body as it wishes to move: level, or in x and z if it flies. Where a solid or one of
/// some bodies is in the way, it goes on along that with the part of the wish that leads there; in
/// a corner it stops. It never enters a solid, and never goes deeper into another body.
/// @return Where its feet end up.
[[nodiscard]] Vector3d slide(const World& world, const Cylinder& body, const Vector3d& wish,
                             bool flies = false, std::span<const Cylinder> others = {});

/// One way to a goal, walked for a time.
struct Leg {
  Vector3d goal{0.0, 0.0, 0.0};
  double stop = 0.0;   ///< Metres before the goal, horizontally.
  double speed = 0.0;  ///< Metres a second.
};

struct LegResult {
  Vector3d feet{0.0, 0.0, 0.0};
  Moment used = 0;  ///< Of the budget; all of it unless it arrived.
  bool arrived = false;
};

/// The part of the body of a walker that solids stop: what is more than `step_height` above its
/// feet.
struct WalkingBody {
  Vector3d feet{0.0, 0.0, 0.0};
  double radius = 0.0;
  double height = 0.0;
  double step_height = 0.0;
  bool flies = false;  ///< Seen from the side it goes up and down as well.
};

/// Walks straight towards the goal, level with where it stands (in an upright plane along x alone),
/// without overshooting: a goal without a stop distance is reached to the bit, and the time that
/// takes is rounded to a whole moment. Solids and other bodies stop it.
[[nodiscard]] LegResult walk(const World& world, const WalkingBody& body, const Leg& leg,
                             Moment budget, int ticks_per_second,
                             std::span<const Cylinder> others = {});

}  // namespace gaze
