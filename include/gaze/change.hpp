#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/sight.hpp"

namespace gaze {

/// What would turn the answer of a look, and by how much.
struct Change {
  enum class What {
    nearer,   ///< The other, metres.
    farther,  ///< The other, metres: it would be out of range.
    turn,     ///< The looker, degrees: into or out of its field of view.
    tilt,     ///< The line to the other, degrees: into or out of the vertical field of view.
    aside,    ///< The other, metres across the line to it: out of cover.
    behind,   ///< The other, metres across the line to it: into cover.
    nowhere   ///< Nothing within `kFarthestAside` metres to either side helps.
  };
  What what = What::nearer;
  double amount = 0.0;
  bool to_left =
      false;          ///< Aside: as the looker sees it; upright: upwards for one that faces right.
  std::string solid;  ///< Aside: what is in the way now, or would be.
};

inline constexpr double kFarthestAside = 10.0;  ///< Metres to either side.

/// For one that is not seen: everything that has to change, each by the least amount, in the order
/// of the tests. For one that is seen: the ways to end that, each enough alone. Steps aside are
/// looked for every 5 cm and then narrowed down to a millimetre, with all else as it is.
[[nodiscard]] std::vector<Change> least_changes(const World& world, const Level& level,
                                                const Looker& looker, const Looked& other);

/// "turn 4.2 degrees; 0.6 m nearer"
[[nodiscard]] std::string describe(const std::vector<Change>& changes, Plane plane);

}  // namespace gaze
