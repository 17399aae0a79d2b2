#pragma once

#include <optional>

#include "combat/fighting.hpp"

namespace gaze {

/// What a shell meets first on its way.
struct Meeting {
  double share = 1.0;
  std::optional<SolidId> solid;
  std::optional<std::uint32_t> body;
  Vector3d normal{0.0, 0.0, 0.0};  ///< Away from a solid or the ground.
  std::uint64_t host_id = 0;       ///< Of what is in the host's world.

  bool is_something() const { return share < 1.0; }
};

/// A part of a step, from one share of it to another.
struct Stretch {
  double from = 0.0;
  double to = 1.0;
};

/// Notes where those are who can be hit, before anything flies.
void look_who_can_be_hit(Fighting& state);

/// What a ball of a shell meets first on a way: a solid, the ground or a body. Bodies move evenly
/// within a step from where they were at the tick before.
/// @param is_clear  No solid is on the way; that has been found before.
[[nodiscard]] Meeting first_meeting(const Fighting& state, const Shell& shell, const BallPath& ball,
                                    const Stretch& stretch, bool is_clear);

Event& tell_hit(const Fighting& state, const Shell& shell, const Meeting& meeting,
                const Vector3d& place);

}  // namespace gaze
