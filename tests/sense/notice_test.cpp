#include "sense/notice.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

using State = Contact::State;

// Times in whole units; evidence at each look from `since` on.
TEST(UpdateContact, NoticesAfterUnbrokenEvidence) {
  Contact contact{1, State::gathering, 10, {0, 0, 0}};
  const NoticeLimits limits{5, 3};
  EXPECT_FALSE(update_contact(contact, true, 14, limits).noticed);
  EXPECT_TRUE(update_contact(contact, true, 15, limits).noticed);
  EXPECT_FALSE(update_contact(contact, true, 16, limits).noticed);  // once
}

TEST(UpdateContact, BrokenEvidenceStartsAgainFromNothing) {
  Contact contact{1, State::gathering, 10, {0, 0, 0}};
  EXPECT_TRUE(update_contact(contact, false, 14, {5, 3}).is_over);
}

TEST(UpdateContact, RemembersAndForgetsOnTheDot) {
  Contact contact{1, State::noticed, 0, {0, 0, 0}};
  const NoticeLimits limits{5, 3};
  const NoticeChange lost = update_contact(contact, false, 20, limits);
  EXPECT_TRUE(lost.lost && !lost.forgot && !lost.is_over);
  EXPECT_FALSE(update_contact(contact, false, 22, limits).forgot);
  const NoticeChange forgot = update_contact(contact, false, 23, limits);
  EXPECT_TRUE(forgot.forgot && forgot.is_over);
}

TEST(UpdateContact, NoticesAgainAtOnceWhileItRemembers) {
  Contact contact{1, State::remembered, 20, {0, 0, 0}};
  EXPECT_TRUE(update_contact(contact, true, 22, {5, 3}).noticed);
  EXPECT_EQ(contact.state, State::noticed);
}

TEST(UpdateContact, WithoutMemoryLosesAndForgetsAtOnce) {
  Contact contact{1, State::noticed, 0, {0, 0, 0}};
  const NoticeChange change = update_contact(contact, false, 20, {0, 0});
  EXPECT_TRUE(change.lost && change.forgot && change.is_over);
}

TEST(UpdateContact, EvidenceAtTheEndOfMemoryBeginsAnew) {
  Contact contact{1, State::remembered, 20, {0, 0, 0}};
  const NoticeChange change = update_contact(contact, true, 23, {5, 3});
  EXPECT_TRUE(change.forgot && !change.noticed && !change.is_over);
  EXPECT_FALSE(update_contact(contact, true, 27, {5, 3}).noticed);
  EXPECT_TRUE(update_contact(contact, true, 28, {5, 3}).noticed);
}

}  // namespace
}  // namespace gaze
