#pragma once

#include <optional>

#include "agents/contact.hpp"

namespace gaze {

/// What there is of another at one look.
struct Evidence {
  bool by_sight = false;
  Moment gained = 0;             ///< By sight: moments of full evidence since the look before.
  std::optional<Sense> lasting;  ///< The first of touch, feeler, nearness that perceives it.
  std::optional<Sense> sudden;   ///< Hurt or told, in this step: noticed and remembered at once.
  Moment remember = 0;           ///< Of the lasting or the sudden sense.
};

/// What became of a contact at a look.
struct NoticeChange {
  bool noticed = false;
  bool saw = false;  ///< Sight began to count.
  bool lost = false;
  bool forgot = false;
  bool is_over = false;  ///< The contact is to be dropped.
};

/// Goes on from the contact's state with the evidence of this look, one step after the last.
/// Evidence that is there when a memory ends begins anew, and counts from the next look on.
[[nodiscard]] NoticeChange update_contact(Contact& contact, const Evidence& evidence, Moment now,
                                          const NoticeLimits& limits);

}  // namespace gaze
