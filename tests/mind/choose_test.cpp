#include "mind/choose.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

using State = Contact::State;

Contact contact(std::uint32_t other, State state, Moment since = 0) {
  return {other, state, since, {0, 0, 0}};
}

std::optional<Contact> choose(const std::vector<Contact>& contacts,
                              const std::vector<double>& distance2) {
  return choose_target(contacts, [&](std::uint32_t other) { return distance2[other]; });
}

TEST(ChooseTarget, TakesTheNearestNoticedAndOfEqualsTheFirst) {
  const std::vector<Contact> contacts{contact(0, State::gathering), contact(1, State::noticed),
                                      contact(2, State::noticed), contact(3, State::noticed)};
  EXPECT_EQ(choose(contacts, {1, 9, 4, 4})->other, 2U);
  EXPECT_FALSE(choose({}, {}));
  EXPECT_FALSE(choose({contact(0, State::gathering)}, {1}));
}

TEST(ChooseTarget, PrefersWhatItSeesToWhatItRemembers) {
  EXPECT_EQ(choose({contact(0, State::remembered, 5), contact(1, State::noticed)}, {1, 99})->other,
            1U);
  EXPECT_EQ(choose({contact(0, State::noticed), contact(1, State::remembered, 5)}, {99, 1})->other,
            0U);
  EXPECT_EQ(
      choose({contact(0, State::remembered, 5), contact(1, State::remembered, 7)}, {1, 9})->other,
      1U);
}

class NextMode : public ::testing::Test {
 protected:
  When when{Mode::chase, Mode::post, Mode::return_, Mode::patrol};
  const std::vector<Contact> none;
  const std::vector<Contact> sees_one{contact(1, State::noticed)};
  const std::vector<Contact> remembers_one{contact(1, State::remembered)};

  Mode next(Mode mode, const News& news, const std::vector<Contact>& contacts) const {
    return next_mode(mode, Mode::patrol, when, news, contacts);
  }
};

TEST_F(NextMode, FollowsTheTable) {
  EXPECT_EQ(next(Mode::patrol, {true, false, false}, sees_one), Mode::chase);
  EXPECT_EQ(next(Mode::return_, {true, false, false}, sees_one), Mode::chase);
  EXPECT_EQ(next(Mode::chase, {false, true, false}, remembers_one), Mode::post);
  EXPECT_EQ(next(Mode::chase, {false, false, true}, none), Mode::return_);
  EXPECT_EQ(next(Mode::chase, {}, sees_one), Mode::chase);
}

TEST_F(NextMode, LosesAndForgetsOnlyTheLastOne) {
  EXPECT_EQ(next(Mode::chase, {false, true, false}, sees_one), Mode::chase);
  EXPECT_EQ(next(Mode::chase, {false, false, true}, remembers_one), Mode::chase);
  EXPECT_EQ(next(Mode::chase, {false, true, true}, none), Mode::return_);
}

TEST_F(NextMode, WhatIsIdleHasNowhereToReturnTo) {
  EXPECT_EQ(next(Mode::patrol, {false, false, true}, none), Mode::patrol);
  when.sees.reset();
  EXPECT_EQ(next(Mode::patrol, {true, false, false}, sees_one), Mode::patrol);
}

}  // namespace
}  // namespace gaze
