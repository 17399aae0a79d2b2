#pragma once

#include "gaze/level.hpp"
#include "values/key.hpp"

/// Ranges of numbers that several keys share.
namespace gaze {

inline constexpr Allowed kCoordinate{-LevelLimits::coordinate, LevelLimits::coordinate, "m"};
inline constexpr Allowed kSize{0.0, 1000.0, "m", true};
inline constexpr Allowed kMetres{0.0, 1000.0, "m"};
inline constexpr Allowed kOffset{-1000.0, 1000.0, "m"};
inline constexpr Allowed kSeconds{0.0, 86'400.0, "s"};
inline constexpr Allowed kPause{0.0, 3600.0, "s"};
inline constexpr Allowed kRange{0.0, 2.0 * LevelLimits::coordinate, "m", true};
inline constexpr Allowed kReach{0.0, 2.0 * LevelLimits::coordinate, "m"};
inline constexpr Allowed kFullAngle{0.0, 360.0, "degrees", true};
inline constexpr Allowed kTurn{-360.0, 360.0, "degrees"};
inline constexpr Allowed kTilt{-90.0, 90.0, "degrees"};
inline constexpr Allowed kRate{0.0, 36'000.0, "degrees/s"};
inline constexpr Allowed kSpeed{0.0, 1000.0, "m/s"};
inline constexpr Allowed kShotSpeed{0.0, 10'000.0, "m/s", true};
inline constexpr Allowed kShare{0.0, 1.0, ""};
inline constexpr Allowed kFactor{0.0, 1000.0, ""};
inline constexpr Allowed kPoints{0.0, 1e9, "points"};

/// True if a text lists just these names, with | between them.
template <typename Names>
constexpr bool lists(std::string_view text, const Names& names) {
  for (const std::string_view name : names) {
    if (!text.starts_with(name)) return false;
    text.remove_prefix(name.size());
    if (text.starts_with('|')) text.remove_prefix(1);
  }
  return text.empty();
}

inline constexpr std::string_view kSides = "front|back|left|right|top|bottom";
inline constexpr std::string_view kThings = "sight|bodies|shots|sound";
static_assert(lists(kSides, kSideNames) && lists(kThings, kStopsNames));

inline constexpr std::string_view kModes =
    "post|patrol|chase|investigate|search|return|wander|follow|flee";

inline constexpr std::string_view kHappenings =
    "arrived|landed|blocked|took|left|attacked|fired|hit|spent|broke|blast|hurt|defeated|caught|"
    "ended|triggered|heard|noticed|lost|forgot|mode|target";
inline constexpr std::string_view kCarried = "damage|health|distance|angle|score";
inline constexpr std::string_view kQuantities =
    "distance|angle|visible|evidence|health|speed|score|seen by";
inline constexpr std::string_view kSituations =
    "seen|unseen|noticed|post|patrol|chase|investigate|search|return|wander|follow|flee";
static_assert(lists(kHappenings, kHappeningNames) && lists(kCarried, kCarriedNames));
static_assert(lists(kQuantities, kQuantityNames) && lists(kSituations, kSituationNames));

}  // namespace gaze
