#pragma once

#include <optional>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/track.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// How a host has an agent move and fire. It does so as its kind can, as one with a script would:
/// solids and bodies stop it, it goes up steps, falls, and turns at its rate.
struct Steering {
  /// Where it goes, in the plan, as a share of its speed; longer than 1 counts as 1. Of what does
  /// not fly, seen from the side, x alone counts.
  Vector2d way{0.0, 0.0};
  std::optional<Vector3d> aim;  ///< What it turns to and aims at; none: along its way.
  bool is_plan_aim = false;     ///< The aim has no height.
  bool fires = false;
  bool is_quiet = false;
  bool hops = false;             ///< As soon as it stands, and as high as it hops.
  std::vector<TrackDeed> deeds;  ///< Done once, in the next step.
};

}  // namespace gaze
GAZE_PUBLIC_END
