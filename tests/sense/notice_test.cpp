#include "sense/notice.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

using State = Contact::State;

constexpr Moment kStep = kMomentsPerTick;

// Five steps to notice, three to remember.
NoticeLimits limits_with(Moment ebb = 0) {
  return {5 * kStep, ebb, 3 * kStep};
}

Evidence seen(double rate = 1.0) {
  Evidence evidence;
  evidence.by_sight = true;
  evidence.gained = static_cast<Moment>(rate * kStep);
  return evidence;
}

Evidence lasting(Sense sense, Moment remember = 0) {
  Evidence evidence;
  evidence.lasting = sense;
  evidence.remember = remember;
  return evidence;
}

Evidence sudden(Sense sense, Moment remember) {
  Evidence evidence;
  evidence.sudden = sense;
  evidence.remember = remember;
  return evidence;
}

Contact in_state(State state) {
  Contact contact;
  contact.state = state;
  contact.is_seen = state == State::noticed;
  contact.remember = 3 * kStep;
  return contact;
}

TEST(UpdateContact, NoticesOnceWhenEvidenceIsFull) {
  Contact contact;
  for (int step = 1; step <= 4; ++step) {
    EXPECT_FALSE(update_contact(contact, seen(), step * kStep, limits_with()).noticed);
  }
  const NoticeChange change = update_contact(contact, seen(), 5 * kStep, limits_with());
  EXPECT_TRUE(change.noticed && change.saw);
  EXPECT_FALSE(update_contact(contact, seen(), 6 * kStep, limits_with()).noticed);
}

TEST(UpdateContact, ThinEvidenceTakesLonger) {
  Contact contact;
  int steps = 0;
  for (Moment now = kStep; contact.state == State::gathering; now += kStep, ++steps) {
    static_cast<void>(update_contact(contact, seen(0.25), now, limits_with()));
  }
  EXPECT_EQ(steps, 20);  // 5 / 0.25
}

TEST(UpdateContact, BrokenEvidenceGoesAtOnceUnlessItEbbs) {
  Contact contact;
  static_cast<void>(update_contact(contact, seen(), kStep, limits_with()));
  EXPECT_TRUE(update_contact(contact, {}, 2 * kStep, limits_with()).is_over);
  // Full evidence (5 steps' worth) ebbs in 10 steps: half a step's worth each.
  Contact slow;
  static_cast<void>(update_contact(slow, seen(), kStep, limits_with(10 * kStep)));
  EXPECT_FALSE(update_contact(slow, {}, 2 * kStep, limits_with(10 * kStep)).is_over);
  EXPECT_EQ(slow.gathered, kStep / 2);
  EXPECT_TRUE(update_contact(slow, {}, 3 * kStep, limits_with(10 * kStep)).is_over);
}

TEST(UpdateContact, RemembersAndForgetsOnTheDot) {
  Contact contact = in_state(State::noticed);
  const NoticeChange lost = update_contact(contact, {}, 20 * kStep, limits_with());
  EXPECT_TRUE(lost.lost && !lost.forgot && !lost.is_over);
  EXPECT_FALSE(update_contact(contact, {}, 22 * kStep, limits_with()).forgot);
  const NoticeChange forgot = update_contact(contact, {}, 23 * kStep, limits_with());
  EXPECT_TRUE(forgot.forgot && forgot.is_over);
}

TEST(UpdateContact, NoticesAgainAtOnceWhileItRemembers) {
  Contact contact = in_state(State::remembered);
  contact.forget_at = 23 * kStep;
  EXPECT_TRUE(update_contact(contact, seen(), 22 * kStep, limits_with()).noticed);
  EXPECT_EQ(contact.state, State::noticed);
}

TEST(UpdateContact, WithoutMemoryLosesAndForgetsAtOnce) {
  Contact contact = in_state(State::noticed);
  contact.remember = 0;
  const NoticeChange change = update_contact(contact, {}, 20 * kStep, limits_with());
  EXPECT_TRUE(change.lost && change.forgot && change.is_over);
}

TEST(UpdateContact, EvidenceAtTheEndOfMemoryBeginsAnew) {
  Contact contact = in_state(State::remembered);
  contact.forget_at = 23 * kStep;
  const NoticeChange change = update_contact(contact, seen(), 23 * kStep, limits_with());
  EXPECT_TRUE(change.forgot && !change.noticed && !change.is_over);
  for (int step = 24; step < 28; ++step) {
    EXPECT_FALSE(update_contact(contact, seen(), step * kStep, limits_with()).noticed);
  }
  EXPECT_TRUE(update_contact(contact, seen(), 28 * kStep, limits_with()).noticed);
}

TEST(UpdateContact, OtherSensesNoticeAtOnceAndSightThenLeads) {
  Contact contact;
  const NoticeChange felt = update_contact(contact, lasting(Sense::feeler), kStep, limits_with());
  EXPECT_TRUE(felt.noticed && !felt.saw);
  EXPECT_EQ(contact.by, Sense::feeler);
  const NoticeChange both = update_contact(contact, seen(), 2 * kStep, limits_with());
  EXPECT_TRUE(both.saw && !both.noticed);
  EXPECT_EQ(contact.by, Sense::sight);
}

TEST(UpdateContact, IsForgottenByTheSenseThatLed) {
  Contact contact;
  static_cast<void>(update_contact(contact, lasting(Sense::touch, kStep), kStep, limits_with()));
  EXPECT_TRUE(update_contact(contact, {}, 2 * kStep, limits_with()).lost);
  EXPECT_TRUE(update_contact(contact, {}, 3 * kStep, limits_with()).forgot);  // not 3 steps later
}

TEST(UpdateContact, WhatIsToldIsNoticedAndRememberedInOne) {
  Contact contact;
  const NoticeChange told =
      update_contact(contact, sudden(Sense::told, 2 * kStep), kStep, limits_with());
  EXPECT_TRUE(told.noticed && !told.lost);
  EXPECT_EQ(contact.state, State::remembered);
  // Told again: remembered from then, and no second notice.
  EXPECT_FALSE(
      update_contact(contact, sudden(Sense::told, 2 * kStep), 2 * kStep, limits_with()).noticed);
  EXPECT_FALSE(update_contact(contact, {}, 3 * kStep, limits_with()).forgot);
  EXPECT_TRUE(update_contact(contact, {}, 4 * kStep, limits_with()).forgot);
}

}  // namespace
}  // namespace gaze
