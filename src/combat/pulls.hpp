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

/// True if an agent is as healthy as the attack asks.
[[nodiscard]] bool is_fit(const Everyone& all, std::uint32_t who, const Attack& attack);
/// An attack of one agent at another, as both stand now.
[[nodiscard]] Attempt attempt_of(const Everyone& all, std::uint32_t who, const Attack& attack,
                                 std::uint32_t target);
/// True if an attack can be made at that target now, but for health and being ready: it is far
/// enough, the attack gets there, and no friend is in the way.
[[nodiscard]] bool can_make(const Everyone& all, std::uint32_t who, const Attack& attack,
                            std::uint32_t target);
/// The same of one that is under way: who has come nearer meanwhile than it asks is hit.
[[nodiscard]] bool can_still_make(const Everyone& all, std::uint32_t who, const Attack& attack,
                                  std::uint32_t target);
/// The friend whom an attack would meet on its way, if it does not pass friends.
[[nodiscard]] std::optional<std::uint32_t> friend_in_the_way(const Everyone& all, std::uint32_t who,
                                                             const Attempt& attempt);

}  // namespace gaze
