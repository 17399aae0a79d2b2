#pragma once

#include "gaze/navigation.hpp"
#include "level/whom.hpp"

namespace gaze {

/// For whom the doors of a level open, and to whom its areas are closed.
struct Openings {
  std::vector<std::string> tag_names;
  std::vector<Whom> opens;   ///< By solid; empty if there are no doors.
  std::vector<Whom> closed;  ///< By zone.

  explicit Openings(const Level& level);
  bool opens_for(std::uint32_t door, const Somebody& who) const {
    return opens[door].is_empty() || opens[door].means(who);
  }
  /// What bodies can pass depends on what they hold, or on who they are.
  bool goes_by_tags() const;
  bool goes_by_agents() const;
};

/// The body of somebody who holds these tags now.
[[nodiscard]] BodySize body_size(const Level& level, const Openings& openings, const Somebody& who);

}  // namespace gaze
