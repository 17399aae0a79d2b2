#pragma once

#include <cstdint>

#include "gaze/geometry.hpp"
#include "gaze/time.hpp"

namespace gaze {

/// What one agent knows of one other. No contact: it is unaware of it.
struct Contact {
  enum class State : std::uint8_t { gathering, noticed, remembered };
  std::uint32_t other = 0;
  State state = State::gathering;
  Moment since = 0;  ///< Gathering: when evidence began. Remembered: when it ended.
  Vector3d last_place{0.0, 0.0, 0.0};  ///< Of the other's feet when last perceived.
};

struct NoticeLimits {
  Moment notice_time = 0;
  Moment remember = 0;
};

/// What became of a contact at a moment.
struct NoticeChange {
  bool noticed = false;
  bool lost = false;
  bool forgot = false;
  bool is_over = false;  ///< The contact is to be dropped.
};

/// Goes on from the contact's state with the evidence of this moment. Evidence that is there when
/// a memory ends begins anew, and counts from the next look on.
[[nodiscard]] NoticeChange update_contact(Contact& contact, bool evidence, Moment now,
                                          const NoticeLimits& limits);

}  // namespace gaze
