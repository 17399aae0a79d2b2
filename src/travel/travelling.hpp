#pragma once

#include <algorithm>
#include <optional>

#include "agents/chance.hpp"
#include "agents/everyone.hpp"
#include "travel/walk.hpp"
#include "travel/ways.hpp"

namespace gaze {

/// The game as travel sees it: it writes where bodies are and where they look.
struct Travelling : Teller {
  Bodies& bodies;
  Ways& ways;
  Meshes& meshes;
  Chance& chance;

  template <typename State>
  explicit Travelling(State& state)
      : Teller(state),
        bodies(state.bodies),
        ways(state.ways),
        meshes(state.meshes),
        chance(state.chance) {}

  /// What of a step is left from a landing and the rest after it.
  Moment left_after_rest(std::uint32_t who, Moment budget) const {
    return std::max(Moment{0}, std::min(budget, now() - ways.rests_until[who]));
  }
};

/// What an agent wants to turn to, if to anything: a place for its middle to face, or a direction.
struct FacingWish {
  std::optional<Vector3d> look_at;
  std::optional<Vector2d> look_along;
};

/// The stage of a step in which all go where their scripts and minds want.
void travel(Travelling& state);
/// What is carried is where its carrier's hand is, and things lie where they have come to.
void place_things(Travelling& state);
/// The poses that the next step begins from.
void remember_poses(Travelling& state);

/// Puts those who have start places at one of them, drawn by the seed.
void choose_starts(Travelling& state);
/// The same for one; it stays where it is if there is none for it.
void choose_start(Travelling& state, std::uint32_t who);
/// Turns the head for one step: to the target, or as it scans.
void turn_head(Travelling& state, std::uint32_t who);
/// Ways that lead past what has come are sought anew; and all that are not whole, if one has gone.
void mend_routes(Travelling& state, std::uint32_t solid);
/// What it may pass may depend on the tags that it holds: after these have changed.
void change_body(Travelling& state, std::uint32_t who);

/// The friend that an agent mirrors now: the nearest one, within the radius, who is driven.
[[nodiscard]] std::optional<std::uint32_t> mirrored(const Everyone& all, std::uint32_t who);
/// Whom it stays by: the nearest living agent of those that it follows.
[[nodiscard]] std::optional<std::uint32_t> followed(const Everyone& all, std::uint32_t who);

}  // namespace gaze
