#include "sense/notice.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

// Says by which sense another is noticed: the one that perceives it now. Sight goes first, if its
// evidence is full.
void perceive(Contact& contact, const Evidence& evidence, bool sight_counts, Moment now,
              const NoticeLimits& limits, NoticeChange& change) {
  change.noticed = contact.state != Contact::State::noticed;
  change.saw = sight_counts && !contact.is_seen;
  if (change.noticed) contact.since = now;
  contact.perceived_at = now;
  contact.state = Contact::State::noticed;
  contact.is_seen = sight_counts;
  contact.by = sight_counts ? Sense::sight : evidence.lasting.value_or(contact.by);
  contact.remember = sight_counts ? limits.remember : evidence.remember;
}

void remember_sudden(Contact& contact, const Evidence& evidence, Moment now, NoticeChange& change) {
  change.noticed = contact.state == Contact::State::gathering;
  if (change.noticed) contact.by = *evidence.sudden;
  contact.state = Contact::State::remembered;
  contact.since = now;
  contact.forget_at = std::max(contact.forget_at, now + evidence.remember);
}

void gather(Contact& contact, const Evidence& evidence, const NoticeLimits& limits) {
  if (evidence.by_sight) {
    contact.gathered = std::min(contact.gathered + evidence.gained, limits.notice_time);
    return;
  }
  if (limits.ebb_time == 0) {
    contact.gathered = 0;
    return;
  }
  const double ebbed = static_cast<double>(kMomentsPerTick) *
                       static_cast<double>(limits.notice_time) /
                       static_cast<double>(limits.ebb_time);
  contact.gathered = std::max<Moment>(0, contact.gathered - std::llround(ebbed));
}

NoticeChange go_on_gathering(Contact& contact, const Evidence& evidence, Moment now,
                             const NoticeLimits& limits) {
  NoticeChange change;
  gather(contact, evidence, limits);
  const bool is_full = evidence.by_sight && contact.gathered >= limits.notice_time;
  if (is_full || evidence.lasting) {
    perceive(contact, evidence, is_full, now, limits, change);
  } else if (evidence.sudden) {
    contact.forget_at = 0;
    remember_sudden(contact, evidence, now, change);
  } else {
    change.is_over = !evidence.by_sight && contact.gathered == 0;
  }
  return change;
}

NoticeChange go_on_remembering(Contact& contact, const Evidence& evidence, Moment now,
                               const NoticeLimits& limits) {
  NoticeChange change;
  if (now >= contact.forget_at) {
    change.forgot = true;
    contact.state = Contact::State::gathering;
    contact.is_seen = false;
    contact.gathered = 0;
    change.is_over = !evidence.by_sight && !evidence.lasting && !evidence.sudden;
  } else if (evidence.by_sight || evidence.lasting) {
    perceive(contact, evidence, evidence.by_sight, now, limits, change);
  } else if (evidence.sudden) {
    remember_sudden(contact, evidence, now, change);
  }
  return change;
}

// Who has been noticed by another sense counts as seen at once.
NoticeChange go_on_noticing(Contact& contact, const Evidence& evidence, Moment now,
                            const NoticeLimits& limits) {
  NoticeChange change;
  if (evidence.by_sight || evidence.lasting) {
    perceive(contact, evidence, evidence.by_sight, now, limits, change);
    return change;
  }
  if (now - contact.perceived_at < contact.held_for) return change;
  contact.state = Contact::State::remembered;
  contact.since = now;
  contact.forget_at = now + contact.remember;
  change = go_on_remembering(contact, evidence, now, limits);
  contact.is_seen = false;
  change.lost = true;
  return change;
}

}  // namespace

Moment hold_after(Moment lost_for, Moment held_for, Moment second) {
  if (lost_for > std::max(second, 2 * held_for)) return 0;
  return std::clamp(2 * held_for, second / 2, 8 * second);
}

NoticeChange update_contact(Contact& contact, const Evidence& evidence, Moment now,
                            const NoticeLimits& limits) {
  switch (contact.state) {
    case Contact::State::gathering:
      return go_on_gathering(contact, evidence, now, limits);
    case Contact::State::remembered:
      return go_on_remembering(contact, evidence, now, limits);
    default:
      return go_on_noticing(contact, evidence, now, limits);
  }
}

}  // namespace gaze
