#pragma once

#include "combat/attempt.hpp"
#include "combat/fighting.hpp"

/// When attacks are pulled, and what they do once they are due.
namespace gaze {

/// Makes the attacks of this step: those of minds, and of agents that a script or the host drives.
void make_attacks(Fighting& state);
/// Makes the attacks by touch of this step.
void make_touches(Fighting& state);
/// Carries out each blow or shot that is due.
void let_go_of_what_is_due(Fighting& state);

/// Returns whether a touch on that side of its body is an attack: one by touch that names the side.
/// A body that has fallen and lies on the ground strikes nothing with its bottom.
[[nodiscard]] bool strikes_with(const Everyone& all, std::uint32_t who, const Attack& attack,
                                Side side);
/// True if an agent is as healthy as the attack asks.
[[nodiscard]] bool is_fit(const Everyone& all, std::uint32_t who, const Attack& attack);
/// An attack of one agent at another, as both stand now.
[[nodiscard]] Attempt attempt_of(const Everyone& all, std::uint32_t who, const Attack& attack,
                                 std::uint32_t target);
/// True if an attack gets to its target, and no friend is in the way. Whether the target is nearer
/// than the attack asks is not looked at: who has come nearer since the pull is hit.
[[nodiscard]] bool gets_there(const Everyone& all, std::uint32_t who, const Attempt& attempt);
/// The friend whom an attack would meet on its way, if it does not pass friends.
[[nodiscard]] std::optional<std::uint32_t> friend_in_the_way(const Everyone& all, std::uint32_t who,
                                                             const Attempt& attempt);

}  // namespace gaze
