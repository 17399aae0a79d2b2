#pragma once

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
  /// True if what bodies can pass depends on the tags that they hold.
  bool goes_by_tags() const;
  /// The tags that this depends on, by bit.
  std::uint64_t tags_that_count() const;
  /// True if what bodies can pass depends on who they are.
  bool goes_by_agents() const;
};

}  // namespace gaze
