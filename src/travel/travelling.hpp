#pragma once

#include <algorithm>
#include <optional>

#include "agents/chance.hpp"
#include "agents/everyone.hpp"
#include "travel/walk.hpp"
#include "travel/ways.hpp"

namespace gaze {

/// The game as travel sees it. Travel writes where bodies are and where they look.
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

  /// At which an agent goes in its mode, metres a second.
  double speed_now(std::uint32_t who) const {
    const Move& move = *kind(who).move;
    const Mode mode = minds.mode[who];
    const bool is_idle = mode == fixed.idle[who] || mode == Mode::return_;
    return is_idle ? move.idle_speed.value_or(move.speed) : move.speed;
  }

  /// How much of a step is left for walking, after a landing and the rest that follows it.
  Moment left_after_rest(std::uint32_t who, Moment budget) const {
    return std::max(Moment{0}, std::min(budget, now() - ways.rests_until[who]));
  }
};

/// What an agent wants to turn to, if it wants to: a place that its middle is to face, or a
/// direction.
struct FacingWish {
  std::optional<Vector3d> look_at;
  std::optional<Vector2d> look_along;
};

/// The stage of a step in which all go where their scripts and minds want.
void travel(Travelling& state);
/// Moves things that are carried along with the hand of who carries them; things that have been put
/// down or have landed are placed where they lie.
void place_things(Travelling& state);
/// Keeps the poses from which the next step begins.
void remember_poses(Travelling& state);

/// Puts agents that have start places at one of these, drawn by the seed.
void choose_starts(Travelling& state);
/// The same for one agent. It stays where it is if there is no start place for it.
void choose_start(Travelling& state, std::uint32_t who);
/// Turns the head for one step: to the target, or as it scans.
void turn_head(Travelling& state, std::uint32_t who);
/// After solids have come or gone: ways that lead past what has come are searched anew; and if one
/// has gone, so are all ways that do not lead to their goals.
void mend_routes(Travelling& state, std::uint32_t solid);
/// After the tags of an agent have changed: what it may pass may depend on them, so that its mesh
/// and its way are looked up anew.
void change_body(Travelling& state, std::uint32_t who);
/// Looks up on which mesh an agent finds its ways, because its body is another.
void find_mesh(Travelling& state, std::uint32_t who);

/// The friend that an agent mirrors now: of those that are driven the nearest, if it is within the
/// radius.
[[nodiscard]] std::optional<std::uint32_t> mirrored(const Everyone& all, std::uint32_t who);
/// By whom an agent stays: the nearest living one of those that it follows.
[[nodiscard]] std::optional<std::uint32_t> followed(const Everyone& all, std::uint32_t who);

}  // namespace gaze
