#pragma once

#include "combat/fighting.hpp"

/// When attacks are pulled, and what they do once they are due.
namespace gaze {

/// Attacks of this step: of minds, and of those whom a script or the host drives.
void make_attacks(Fighting& state);
/// Attacks of this step by touch.
void make_touches(Fighting& state);
/// What each blow or shot does that is due.
void let_go_of_what_is_due(Fighting& state);

/// True if an attack can be made at that target now, but for being ready.
[[nodiscard]] bool can_make(const Everyone& all, std::uint32_t who, const Attack& attack,
                            std::uint32_t target);
/// As healthy as its condition asks.
[[nodiscard]] bool is_fit(const Everyone& all, std::uint32_t who, const Attack& attack);
/// The same, and far enough from its target.
[[nodiscard]] bool is_chosen(const Everyone& all, std::uint32_t who, const Attack& attack,
                             std::uint32_t target);
/// Who of its own side an attack would meet that does not pass friends.
[[nodiscard]] std::optional<std::uint32_t> friend_in_the_way(const Everyone& all, std::uint32_t who,
                                                             const Attack& attack,
                                                             const Launch& launch);

}  // namespace gaze
