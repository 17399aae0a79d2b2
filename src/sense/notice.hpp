#pragma once

#include <optional>

#include "agents/contact.hpp"

namespace gaze {

/// The evidence that there is of another agent at one look.
struct Evidence {
  bool by_sight = false;
  Moment gained = 0;             ///< By sight: moments of full evidence since the look before.
  std::optional<Sense> lasting;  ///< The first of touch, feeler, nearness that perceives it.
  std::optional<Sense> sudden;   ///< Hurt or told, in this step: noticed and remembered at once.
  Moment remember = 0;           ///< Of the lasting or the sudden sense.
};

/// What has changed about a contact at a look.
struct NoticeChange {
  bool noticed = false;
  bool saw = false;  ///< Sight began to count.
  bool lost = false;
  bool forgot = false;
  bool is_over = false;  ///< The contact is to be dropped.
};

/// For how long a contact is held that is found again `lost_for` after it was lost, if it was held
/// for `held_for` before: 0 if that is long ago, else half a second, or twice as long as before up
/// to 8 s. So senses do not flicker at their limits.
[[nodiscard]] Moment hold_after(Moment lost_for, Moment held_for, Moment second);

/// Brings a contact up to date with the evidence of this look, which is one step after the last
/// one. If there is evidence when a memory ends, noticing begins anew, and counts from the next
/// look on.
[[nodiscard]] NoticeChange update_contact(Contact& contact, const Evidence& evidence, Moment now,
                                          const NoticeLimits& limits);

}  // namespace gaze
