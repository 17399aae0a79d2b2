#pragma once

#include "agents/everyone.hpp"
#include "gaze/sight.hpp"
#include "sense/senses.hpp"

namespace gaze {

/// The game as senses see it. Senses write what agents know.
struct Sensing : Teller {
  Knowledge& knowledge;
  Senses& senses;

  template <typename State>
  explicit Sensing(State& state)
      : Teller(state), knowledge(state.knowledge), senses(state.senses) {}
};

/// The stages of a step that perceive, in this order. Between the first and the others minds wake
/// those whom something wakes.
void enter_zones(Sensing& state);
void hear(Sensing& state);
void look_out(Sensing& state);

/// Notes who has moved and where everybody is now, before these stages.
void look_who_is_where(Sensing& state);

/// Adds to `perceived` whom an agent perceives now by feelers, nearness and touch.
void perceive_bodies(Sensing& state, std::uint32_t who);

/// An agent as others see it.
[[nodiscard]] LookedAt looked(const Everyone& all, std::uint32_t who);

/// What a feeler turns with.
[[nodiscard]] inline const Vector2d& feeler_facing(const Everyone& all, std::uint32_t who,
                                                   const Feeler& feeler) {
  return feeler.turns_with_head ? all.bodies.head[who] : all.bodies.facing[who];
}

/// True if feet at a place are in a zone, borders included.
[[nodiscard]] bool is_in(Plane plane, const Zone& zone, const Vector3d& feet);

}  // namespace gaze
