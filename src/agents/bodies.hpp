#pragma once

#include <cstdint>
#include <limits>
#include <optional>
#include <vector>

#include "agents/few.hpp"
#include "gaze/geometry.hpp"
#include "gaze/time.hpp"

namespace gaze {

/// What an agent that is driven aims at, and whether it fires.
struct Trigger {
  std::optional<Vector3d> aim;
  bool is_plan = false;                       ///< The aim has no height.
  std::uint64_t attacks = ~std::uint64_t{0};  ///< That it makes, by bit.
  bool fires = false;
  Moment until = std::numeric_limits<Moment>::max();  ///< It fires no later than then.
};

/// Where all agents are and where they look, by agent. Travel writes it.
struct Bodies {
  std::vector<Vector3d> position;       ///< Of the feet, metres.
  std::vector<Vector3d> previous;       ///< At the tick before.
  std::vector<Vector3d> last_move;      ///< In the last whole step.
  std::vector<Vector3d> seen_position;  ///< What minds travel by: once drivers have moved.
  std::vector<Vector2d> facing;
  std::vector<Vector2d> head;  ///< Where sight looks; the facing if it has no head.
  std::vector<Vector2d> previous_head;
  std::vector<double> head_deg;         ///< From the facing of the body.
  std::vector<Vector3d> post;           ///< Where it began.
  std::vector<Vector2d> placed_facing;  ///< As it began.
  std::vector<Vector2d> rest_facing;    ///< To which it turns when it has nothing to look at.
  std::vector<char> is_airborne;
  std::vector<char> has_come;                        ///< It has come to where it went to look.
  Few<Trigger> trigger;                              ///< Of those who are driven.
  std::vector<std::optional<std::uint32_t>> leader;  ///< Whom it mirrors.
};

}  // namespace gaze
