#pragma once

#include <optional>
#include <span>

#include "agents/contact.hpp"
#include "agents/told.hpp"
#include "gaze/level.hpp"

namespace gaze {

/// What decides about a mode, beside what has become known.
struct Knowing {
  bool notices_any = false;
  bool remembers_any = false;  ///< An agent or a place.
};

/// The mode that follows, or the same one if nothing follows. Of several causes the first in the
/// order of Cause decides. While somebody is noticed, nothing that is heard, told, lost or
/// forgotten changes the mode; and while one thing is remembered, to forget another changes
/// nothing. An agent that forgets returns, unless a rule says otherwise. An agent in its idle mode
/// has nowhere to return to.
[[nodiscard]] Mode next_mode(Mode mode, Mode idle, const When& when, const News& news,
                             const Knowing& knowing);

/// By what an agent chooses among those it has noticed.
struct Trait {
  double distance = 0.0;  ///< Metres.
  double health = 0.0;
};

/// How good a contact is to act on. Of two contacts the one with the greater value is taken.
[[nodiscard]] double merit(Choose::By by, const Contact& contact, const Trait& trait);

/// The contact that an agent acts on: of those noticed the best by its choice, else the one lost
/// last; ties by file order. The one it acts on now stays unless another is better: nearer by more
/// than `stick`. `trait(other)` tells what the choice goes by.
template <typename TraitOf>
std::optional<Contact> choose_target(std::span<const Contact> contacts, const Choose& choose,
                                     std::optional<std::uint32_t> current, TraitOf&& trait) {
  const Contact* best = nullptr;
  double best_merit = 0.0;
  for (const Contact& contact : contacts) {
    if (contact.state == Contact::State::gathering) continue;
    const bool is_noticed = contact.state == Contact::State::noticed;
    const bool best_is_noticed = best != nullptr && best->state == Contact::State::noticed;
    if (best_is_noticed && !is_noticed) continue;
    double value = 0.0;
    if (is_noticed) {
      value = merit(choose.by, contact, trait(contact.other));
      if (current == contact.other && choose.by == Choose::By::nearest) value += choose.stick;
    }
    const bool wins_tie =
        current == contact.other && (choose.stick > 0.0 || choose.by != Choose::By::nearest);
    const bool better = best == nullptr || is_noticed != best_is_noticed ||
                        (is_noticed ? value > best_merit || (value == best_merit && wins_tie)
                                    : contact.since > best->since);
    if (!better) continue;
    best = &contact;
    best_merit = value;
  }
  return best == nullptr ? std::nullopt : std::optional(*best);
}

}  // namespace gaze
