#pragma once

#include <cstdint>
#include <string_view>

#include "gaze/event.hpp"
#include "gaze/public.hpp"

/// What attacks have set going, as a host may see and draw it.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// A shot in flight.
struct Projectile {
  AgentId shooter;
  std::string_view attack;
  Vector3d position{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};
  double radius = 0.0;
  std::int64_t number = 0;  ///< So many were fired before it in this simulation.
};

/// A beam that is on.
struct BeamRay {
  AgentId who;
  std::string_view attack;
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};  ///< Where it meets something, or its end.
  double radius = 0.0;
};

/// A blast that an agent caused.
struct BlastMade {
  std::string_view attack;  ///< Its name; lives as long as the simulation or any copy of it.
  Vector3d place{0.0, 0.0, 0.0};
  double radius = 0.0;  ///< Metres.
  std::int64_t tick = 0;
};

}  // namespace gaze
GAZE_PUBLIC_END
