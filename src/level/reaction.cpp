#include "gaze/reaction.hpp"

#include <array>

namespace gaze {

std::optional<Mode> When::mode_of(Cause cause) const {
  for (const Rule& rule : rules) {
    if (rule.cause == cause && rule.reaction.mode) return rule.reaction.mode;
  }
  return cause == Cause::forgets ? std::optional(Mode::return_) : std::nullopt;
}

std::string_view name_of(Mode mode) {
  constexpr std::array<std::string_view, 13> kNames{
      "post",   "patrol", "chase",  "investigate", "search", "return", "wander",
      "follow", "flee",   "mirror", "script",      "host",   "out"};
  return kNames[static_cast<std::size_t>(mode)];
}

std::string_view name_of(Cause cause) {
  constexpr std::array<std::string_view, 13> kNames{
      "sees", "hurt",      "touches", "feels",   "misses", "near", "hears",
      "told", "triggered", "arrives", "forgets", "loses",  "lasts"};
  return kNames[static_cast<std::size_t>(cause)];
}

}  // namespace gaze
