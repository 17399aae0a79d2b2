#pragma once

#include "combat/attempt.hpp"
#include "combat/fighting.hpp"

/// When attacks are pulled, and what they do once they are due.
namespace gaze {

/// Attacks of this step: of minds, and of those whom a script or the host drives.
void make_attacks(Fighting& state);
/// Attacks of this step by touch.
void make_touches(Fighting& state);
/// What each blow or shot does that is due.
void let_go_of_what_is_due(Fighting& state);

/// As healthy as its condition asks.
[[nodiscard]] bool is_fit(const Everyone& all, std::uint32_t who, const Attack& attack);
/// An attack of one at another, as both stand.
[[nodiscard]] Attempt attempt_of(const Everyone& all, std::uint32_t who, const Attack& attack,
                                 std::uint32_t target);
/// True if an attack can be made at that target now, but for health and being ready: it is far
/// enough, the attack gets there, and no friend is in the way.
[[nodiscard]] bool can_make(const Everyone& all, std::uint32_t who, const Attack& attack,
                            std::uint32_t target);
/// The same of one that is under way: who has come nearer meanwhile than it asks is hit.
[[nodiscard]] bool can_still_make(const Everyone& all, std::uint32_t who, const Attack& attack,
                                  std::uint32_t target);
/// Who of its own side an attack would meet that does not pass friends.
[[nodiscard]] std::optional<std::uint32_t> friend_in_the_way(const Everyone& all, std::uint32_t who,
                                                             const Attempt& attempt);

}  // namespace gaze
