#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/path.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// Where an agent is going, and if it does not move, why not.
struct Going {
  bool is_moving = false;                ///< It has moved in the last step.
  double speed = 0.0;                    ///< In the last step, metres a second.
  std::optional<Vector3d> goal;          ///< Of the way that it follows or would like to.
  std::optional<Path::Outcome> outcome;  ///< Of its last search; nothing while it needed none.
  double left = 0.0;                     ///< Metres to the goal, along the way.
  std::vector<Vector3d> ahead;           ///< The points of the way that lie ahead.
  std::string reason;                    ///< In words, with the numbers.
};

/// Costs no step anything: the answer is put together when asked for.
[[nodiscard]] Going going(const Simulation& simulation, AgentId agent);

/// Of the pictures of something that can be seen from four or eight sides, the one for a facing: 0
/// is the one facing +x, and they go on anticlockwise. Exactly between two it is the one shown
/// before if that is one of them, else the one nearer to +x, or of these the lower number.
///
/// @param pictures  4 or 8; else it throws UsageError.
/// @param before    In [0, pictures), or nothing.
[[nodiscard]] int picture_facing(const Vector2d& facing, int pictures,
                                 std::optional<int> before = std::nullopt);

}  // namespace gaze
GAZE_PUBLIC_END
