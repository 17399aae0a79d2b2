#include "mind/choose.hpp"

#include <algorithm>

namespace gaze {
namespace {

bool counts(Cause cause, const Knowing& knowing) {
  switch (cause) {
    case Cause::hears:
    case Cause::told:
    case Cause::loses:
      return !knowing.notices_any;
    case Cause::forgets:
      return !knowing.notices_any && !knowing.remembers_any;
    default:
      return true;
  }
}

bool is_idle(Mode mode) {
  return mode == Mode::post || mode == Mode::patrol || mode == Mode::wander || mode == Mode::follow;
}

bool came_up(const News& news, std::size_t rule) {
  return ((news.fired | news.due) >> rule & 1U) != 0;
}

bool came_up(const When& when, const News& news, Cause cause) {
  for (std::size_t i = 0; i < when.rules.size(); ++i) {
    if (when.rules[i].cause == cause && came_up(news, i)) return true;
  }
  return false;
}

// Mode after forgetting. Without a rule for `forgets` an agent returns. An agent whose mode comes
// from `loses` stays in it: nothing in that mode can be forgotten.
std::optional<Mode> after_forgetting(Mode mode, const When& when, const News& news) {
  const bool is_written = std::any_of(when.rules.begin(), when.rules.end(), [](const Rule& rule) {
    return rule.cause == Cause::forgets && rule.reaction.mode;
  });
  const auto after_losing = when.mode_of(Cause::loses);
  const bool stays = !is_written && after_losing && is_idle(*after_losing) &&
                     (mode == *after_losing || came_up(when, news, Cause::loses));
  return stays ? std::nullopt : when.mode_of(Cause::forgets);
}

std::optional<Mode> reaction(Mode mode, const When& when, const News& news,
                             const Knowing& knowing) {
  std::optional<Mode> best;
  Cause best_cause = Cause::lasts;
  if (news.forgot && counts(Cause::forgets, knowing)) {
    best = after_forgetting(mode, when, news);
    if (best) best_cause = Cause::forgets;
  }
  for (std::size_t i = 0; i < when.rules.size(); ++i) {
    const Rule& rule = when.rules[i];
    const bool is_now = rule.reaction.after.nanoseconds == 0 || (news.due >> i & 1U) != 0;
    if (!came_up(news, i) || !is_now || !rule.reaction.mode || !counts(rule.cause, knowing))
      continue;
    if (best && rule.cause >= best_cause) continue;
    best = rule.reaction.mode;
    best_cause = rule.cause;
  }
  return best;
}

}  // namespace

Mode next_mode(Mode mode, Mode idle, const When& when, const News& news, const Knowing& knowing) {
  const Mode wanted = reaction(mode, when, news, knowing).value_or(mode);
  return wanted == Mode::return_ && mode == idle ? mode : wanted;
}

double merit(Choose::By by, const Contact& contact, const Trait& trait) {
  switch (by) {
    case Choose::By::first:
      return -static_cast<double>(contact.since);
    case Choose::By::weakest:
      return -trait.health;
    case Choose::By::clearest:
      return contact.rate;
    case Choose::By::hurt_me_last:
      return static_cast<double>(contact.hurt_at);
    default:
      return -trait.distance;
  }
}

}  // namespace gaze
