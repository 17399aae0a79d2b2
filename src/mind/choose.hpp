#pragma once

#include <optional>
#include <span>

#include "gaze/level.hpp"
#include "sense/notice.hpp"

namespace gaze {

/// What happened to an agent's knowledge in the last look.
struct News {
  bool noticed = false;
  bool lost = false;
  bool forgot = false;
};

/// The mode that follows from the news; the same one if nothing does. An agent in its idle mode has
/// nowhere to return to.
[[nodiscard]] Mode next_mode(Mode mode, Mode idle, const When& when, const News& news,
                             std::span<const Contact> contacts);

/// The contact that an agent acts on: the nearest of those noticed, else the one lost last; ties by
/// file order. `distance2(other)` gives the squared distance to another agent.
template <typename SquaredDistance>
std::optional<Contact> choose_target(std::span<const Contact> contacts,
                                     SquaredDistance&& distance2) {
  std::optional<Contact> best;
  double best_distance2 = 0.0;
  for (const Contact& contact : contacts) {
    if (contact.state == Contact::State::gathering) continue;
    const bool is_noticed = contact.state == Contact::State::noticed;
    const bool best_is_noticed = best && best->state == Contact::State::noticed;
    if (best_is_noticed && !is_noticed) continue;
    const double d2 = is_noticed ? distance2(contact.other) : 0.0;
    const bool better = !best || is_noticed != best_is_noticed ||
                        (is_noticed ? d2 < best_distance2 : contact.since > best->since);
    if (!better) continue;
    best = contact;
    best_distance2 = d2;
  }
  return best;
}

}  // namespace gaze
