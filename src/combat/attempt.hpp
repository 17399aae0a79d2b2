#pragma once

#include <optional>

#include "combat/aim.hpp"
#include "gaze/flight.hpp"

/// Whether an attack can be made at a target as both stand: one rule for play, for the reasons, for
/// the judge and for studies. Whether the attacker is ready, healthy enough and may harm that
/// target, and whether a friend is in the way, is for others to ask.
namespace gaze {

/// An attack, who makes it, and its target.
struct Attempt {
  const World& world;
  const Attack& attack;
  Fighter by;
  Fighter at;
  Vector3d motion{0.0, 0.0, 0.0};  ///< Of the target, metres a second.
  double gravity = 0.0;            ///< Of the level, metres a second squared.
};

/// What keeps an attack from being made, beside its numbers: found is what was measured, limit what
/// it was compared with; metres, or degrees for `turn` and `tilt`.
struct Shortfall {
  enum class What {
    apart,     ///< The bodies do not touch.
    far,       ///< Beyond the range.
    near,      ///< Nearer than the least range.
    turn,      ///< Turned away from the target.
    ray,       ///< The ray of a beam with `locks_on` misses the target; found is the angle between.
    mirror,    ///< Made only as a friend fires.
    getaway,   ///< The target gets away faster than the shot flies.
    arc,       ///< An arc of that speed comes down before the target.
    tilt,      ///< Would have to be tilted more than the body can.
    solid,     ///< A solid is in the way.
    blast,     ///< The target is beyond the blast, up, down or across.
    shielded,  ///< A solid shields the target from the blast.
  };
  What what = What::apart;
  double found = 0.0;
  double limit = 0.0;
  std::optional<Touch> touch;  ///< Of `solid`, unless the shot flies in an arc, and of `shielded`.
};

/// True if the target is not nearer than the attack asks.
[[nodiscard]] bool is_far_enough(const Attempt& attempt);

/// True if the attack gets to its target, wherever it may be nearer than the attack asks:
/// - a strike: within range and arc, and nothing that stops bodies between the middles;
/// - a shot: within range, turned and tilted far enough, and its flight to where the two meet is
///   clear; one that is fired straight ahead asks for no clear flight, one that mirrors is never
///   made so;
/// - a beam: within range, turned and tilted far enough, and the line to the centre is clear. With
///   `locks_on`, the ray ahead meets the target instead. A beam that mirrors is never made so;
/// - a burst: within range, and its blast would hurt the target;
/// - a catch: within range or, without one, touching, and nothing that stops bodies between;
/// - a touch: touching, on one of the sides that it names.
[[nodiscard]] bool can_reach(const Attempt& attempt);

/// What keeps the attack from being made: the first of the tests that fails. Nothing exactly if the
/// target is far enough and can be reached; a slower twin of these two, with the numbers.
[[nodiscard]] std::optional<Shortfall> shortfall(const Attempt& attempt);

/// The way of what the attack fires: of a shot to where it meets its target, of a beam to the
/// middle; nothing of blows, and of shots that do not get there.
[[nodiscard]] std::optional<Launch> way_of(const Attempt& attempt);

/// Which share of its damage a blast does to a solid, in [0, 1]: it goes by the distance alone.
[[nodiscard]] double blast_share(const Attack& attack, double radius, double distance);

}  // namespace gaze
