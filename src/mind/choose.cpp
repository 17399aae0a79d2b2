#include "mind/choose.hpp"

#include <algorithm>

namespace gaze {
namespace {

bool knows_any(std::span<const Contact> contacts, Contact::State state) {
  return std::any_of(contacts.begin(), contacts.end(),
                     [=](const Contact& contact) { return contact.state == state; });
}

std::optional<Mode> reaction(const When& when, const News& news,
                             std::span<const Contact> contacts) {
  if (news.noticed && when.sees) return when.sees;
  if (knows_any(contacts, Contact::State::noticed)) return std::nullopt;
  // Both at once where nothing is remembered: what comes last in time decides.
  if (news.forgot && when.forgets && !knows_any(contacts, Contact::State::remembered)) {
    return when.forgets;
  }
  return news.lost ? when.loses : std::nullopt;
}

}  // namespace

Mode next_mode(Mode mode, Mode idle, const When& when, const News& news,
               std::span<const Contact> contacts) {
  const Mode wanted = reaction(when, news, contacts).value_or(mode);
  return wanted == Mode::return_ && mode == idle ? mode : wanted;
}

}  // namespace gaze
