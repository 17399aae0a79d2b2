#include "mind/choose.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

using State = Contact::State;

Contact contact(std::uint32_t other, State state, Moment since = 0) {
  Contact result;
  result.other = other;
  result.state = state;
  result.since = since;
  return result;
}

std::optional<Contact> choose(const std::vector<Contact>& contacts,
                              const std::vector<double>& distance, const Choose& by = {},
                              std::optional<std::uint32_t> current = std::nullopt) {
  return choose_target(contacts, by, current, [&](std::uint32_t other) {
    return Trait{distance[other], 100.0 - 10.0 * other};
  });
}

TEST(ChooseTarget, TakesTheNearestNoticedAndOfEqualsTheFirst) {
  const std::vector<Contact> contacts{contact(0, State::gathering), contact(1, State::noticed),
                                      contact(2, State::noticed), contact(3, State::noticed)};
  EXPECT_EQ(choose(contacts, {1, 3, 2, 2})->other, 2U);
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

TEST(ChooseTarget, SticksUntilAnotherIsNearerByMore) {
  const std::vector<Contact> both{contact(0, State::noticed), contact(1, State::noticed)};
  Choose sticky;
  sticky.stick = 1.0;
  EXPECT_EQ(choose(both, {5.0, 4.5}, sticky, 0)->other, 0U);
  EXPECT_EQ(choose(both, {5.0, 4.0}, sticky, 0)->other, 0U);  // by a metre is not by more
  EXPECT_EQ(choose(both, {5.0, 3.9}, sticky, 0)->other, 1U);
  EXPECT_EQ(choose(both, {4.0, 5.0}, sticky, 1)->other, 1U);
  EXPECT_EQ(choose(both, {5.0, 4.5}, {}, 0)->other, 1U);
}

TEST(ChooseTarget, SticksByDistanceAlone) {
  const std::vector<Contact> both{contact(0, State::noticed), contact(1, State::noticed)};
  Choose weakest;
  weakest.by = Choose::By::weakest;
  weakest.stick = 50.0;  // metres, not points of health
  EXPECT_EQ(choose(both, {1, 9}, weakest, 0)->other, 1U);
}

TEST(ChooseTarget, ByEachOfItsWays) {
  std::vector<Contact> three{contact(0, State::noticed, 30), contact(1, State::noticed, 10),
                             contact(2, State::noticed, 20)};
  three[0].rate = 0.9;
  three[1].rate = 0.4;
  three[0].hurt_at = 5;
  three[1].hurt_at = 7;
  const std::vector<double> distance{3, 2, 1};
  const auto chosen = [&](Choose::By by) {
    Choose choice;
    choice.by = by;
    return choose(three, distance, choice)->other;
  };
  EXPECT_EQ(chosen(Choose::By::nearest), 2U);
  EXPECT_EQ(chosen(Choose::By::first), 1U);
  EXPECT_EQ(chosen(Choose::By::weakest), 2U);
  EXPECT_EQ(chosen(Choose::By::clearest), 0U);
  EXPECT_EQ(chosen(Choose::By::hurt_me_last), 1U);
}

Rule rule(Cause cause, Mode mode, std::int64_t after = 0) {
  Rule result;
  result.cause = cause;
  result.reaction.mode = mode;
  result.reaction.after = Duration{after};
  return result;
}

class NextMode : public ::testing::Test {
 protected:
  When when{{rule(Cause::sees, Mode::chase), rule(Cause::loses, Mode::post),
             rule(Cause::hears, Mode::investigate), rule(Cause::hurt, Mode::search)},
            Mode::patrol};
  const Knowing nothing{};
  const Knowing notices{true, false};
  const Knowing remembers{false, true};

  static News fired(std::uint64_t rules, bool forgot = false) { return {rules, 0, forgot}; }
  Mode next(Mode mode, const News& news, const Knowing& knowledge) const {
    return next_mode(mode, Mode::patrol, when, news, knowledge);
  }
};

TEST_F(NextMode, FollowsTheRules) {
  EXPECT_EQ(next(Mode::patrol, fired(0b0001), notices), Mode::chase);
  EXPECT_EQ(next(Mode::return_, fired(0b0001), notices), Mode::chase);
  EXPECT_EQ(next(Mode::chase, fired(0b0010), remembers), Mode::post);
  EXPECT_EQ(next(Mode::chase, fired(0, true), nothing), Mode::return_);
  EXPECT_EQ(next(Mode::chase, {}, notices), Mode::chase);
}

TEST_F(NextMode, TakesTheFirstCauseOfSeveral) {
  EXPECT_EQ(next(Mode::patrol, fired(0b1001), notices), Mode::chase);
  EXPECT_EQ(next(Mode::patrol, fired(0b1100), remembers), Mode::search);
}

TEST_F(NextMode, SeeingBeatsHearing) {
  EXPECT_EQ(next(Mode::chase, fired(0b0100), notices), Mode::chase);
  EXPECT_EQ(next(Mode::patrol, fired(0b0100), remembers), Mode::investigate);
}

TEST_F(NextMode, LosesAndForgetsOnlyTheLastOne) {
  EXPECT_EQ(next(Mode::chase, fired(0b0010), notices), Mode::chase);
  EXPECT_EQ(next(Mode::chase, fired(0, true), remembers), Mode::chase);
  // Lost and forgotten at one time: what is written for losing holds.
  EXPECT_EQ(next(Mode::chase, fired(0b0010, true), nothing), Mode::post);
  EXPECT_EQ(next(Mode::post, fired(0, true), nothing), Mode::post);
  when.rules.push_back(rule(Cause::forgets, Mode::return_));
  EXPECT_EQ(next(Mode::chase, fired(0b0010, true), nothing), Mode::return_);
}

TEST_F(NextMode, WhatHasToWaitIsDueLater) {
  when.rules[0].reaction.after = Duration{1};
  EXPECT_EQ(next(Mode::patrol, fired(0b0001), notices), Mode::patrol);
  EXPECT_EQ(next(Mode::patrol, {0, 0b0001, false}, notices), Mode::chase);
}

TEST_F(NextMode, WhatIsIdleHasNowhereToReturnTo) {
  EXPECT_EQ(next(Mode::patrol, fired(0, true), nothing), Mode::patrol);
}

}  // namespace
}  // namespace gaze
