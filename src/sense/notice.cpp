#include "sense/notice.hpp"

namespace gaze {
namespace {

NoticeChange go_on_gathering(Contact& contact, bool evidence, Moment now,
                             const NoticeLimits& limits) {
  NoticeChange change;
  change.is_over = !evidence;
  if (evidence && now - contact.since >= limits.notice_time) {
    contact.state = Contact::State::noticed;
    change.noticed = true;
  }
  return change;
}

NoticeChange go_on_remembering(Contact& contact, bool evidence, Moment now,
                               const NoticeLimits& limits) {
  NoticeChange change;
  if (now - contact.since >= limits.remember) {
    change.forgot = true;
    change.is_over = !evidence;
    contact.state = Contact::State::gathering;
    contact.since = now;
  } else if (evidence) {
    contact.state = Contact::State::noticed;
    change.noticed = true;
  }
  return change;
}

}  // namespace

NoticeChange update_contact(Contact& contact, bool evidence, Moment now,
                            const NoticeLimits& limits) {
  switch (contact.state) {
    case Contact::State::gathering:
      return go_on_gathering(contact, evidence, now, limits);
    case Contact::State::remembered:
      return go_on_remembering(contact, evidence, now, limits);
    case Contact::State::noticed:
      break;
  }
  if (evidence) return {};
  contact.state = Contact::State::remembered;
  contact.since = now;
  NoticeChange change = go_on_remembering(contact, false, now, limits);
  change.lost = true;
  return change;
}

}  // namespace gaze
