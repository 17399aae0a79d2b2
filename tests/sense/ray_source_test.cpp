#include "gaze/ray_source.hpp"

#include <gtest/gtest.h>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// A host with a world of its own, here made of Gaze's, that counts how often it is asked.
class HostWorld : public RaySource {
 public:
  HostWorld(const World& world, const Level& level) : world_(world), level_(level) {}

  void first_hits(std::span<const Segment> segments, std::span<RayHit> hits) const override {
    ++calls;
    for (std::size_t i = 0; i < segments.size(); ++i) {
      const auto touch = world_.first_touch(segments[i], Stops::sight);
      if (!touch) continue;
      const std::uint32_t solid = touch->solid.index;
      hits[i] = {true, touch->place, level_.solids[solid].id,
                 std::uint64_t{1'000'000'000'000} + solid};
    }
  }

  mutable int calls = 0;

 private:
  const World& world_;
  const Level& level_;
};

class Batches : public ::testing::Test {
 protected:
  Batches() {
    scenes::Random random(9);
    for (int i = 0; i < 400; ++i) {
      Looker looker;
      looker.feet = {random.between(0, 60), random.between(0, 60), 0.0};
      const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0, 360)));
      looker.facing = {way.cosine, way.sine};
      looker.sight.range = 25.0;
      looker.sight.field_of_view = Angle::from_degrees(200.0);
      looker.sight.eye = Vector3d{0.1, 0.0, 1.5};
      looker.sight.visible_at_least = i % 2 == 0 ? 0.5 : 0.0;
      lookers.push_back(looker);
      const Vector3d way_off{random.between(-12, 12), random.between(-12, 12), 0.0};
      others.push_back({looker.feet + way_off, 1.7, points, 0.3});
    }
  }

  const std::vector<double> points{0.0, 0.5, 1.0};
  const Level level = scenes::hall();
  const World world{level};
  std::vector<Looker> lookers;
  std::vector<LookedAt> others;
  LookScratch scratch;
};

TEST_F(Batches, OfYesAndNoAnswerLikeOneByOne) {
  std::vector<std::uint8_t> sees(lookers.size());
  can_see(world, lookers, others, sees);
  for (std::size_t i = 0; i < lookers.size(); ++i) {
    EXPECT_EQ(sees[i] != 0, can_see(world, lookers[i], others[i])) << i;
  }
}

// Every looker at every other, in Gaze's world and in a host's with the same solids.
TEST_F(Batches, OfAllAtAllAnswerLikeOneByOne) {
  const std::span<const Looker> some(lookers.data(), 30);
  const std::span<const LookedAt> all(others.data(), 50);
  std::vector<std::uint8_t> sees(some.size() * all.size());
  std::vector<std::uint8_t> host_sees(sees.size());
  can_see_all(world, some, all, sees);
  can_see_all(HostWorld(world, level), world.plane(), some, all, scratch, host_sees);
  std::size_t seen = 0;
  for (std::size_t i = 0; i < some.size(); ++i) {
    for (std::size_t j = 0; j < all.size(); ++j) {
      EXPECT_EQ(sees[i * all.size() + j] != 0, can_see(world, some[i], all[j]));
      seen += sees[i * all.size() + j];
    }
  }
  EXPECT_GT(seen, 0U);
  EXPECT_EQ(host_sees, sees);
  std::vector<QuickVerdict> sighted(sees.size());
  std::vector<QuickVerdict> theirs(sees.size());
  std::vector<QuickVerdict> one(1);
  look_all(world, some, all, scratch, sighted);
  look_all(HostWorld(world, level), world.plane(), some, all, scratch, theirs);
  for (std::size_t pair = 0; pair < sees.size(); ++pair) {
    look(world, some.subspan(pair / all.size(), 1), all.subspan(pair % all.size(), 1), scratch,
         one);
    EXPECT_EQ(sighted[pair].sees, sees[pair] != 0);
    EXPECT_EQ(theirs[pair].sees, sighted[pair].sees);
    EXPECT_EQ(sighted[pair].distance, one[0].distance);
    EXPECT_EQ(sighted[pair].visible, one[0].visible);
  }
  EXPECT_THROW(look_all(world, some, all, scratch, one), UsageError);
}

TEST_F(Batches, AnswerLikeOneByOne) {
  std::vector<QuickVerdict> sighted(lookers.size());
  look(world, lookers, others, scratch, sighted);
  int seen = 0;
  for (std::size_t i = 0; i < lookers.size(); ++i) {
    const Verdict verdict = look(world, level, lookers[i], others[i]);
    EXPECT_EQ(sighted[i].sees, verdict.sees);
    EXPECT_EQ(sighted[i].distance, verdict.range.value);
    EXPECT_EQ(sighted[i].angle_deg, verdict.field.value_deg);
    if (verdict.range.pass && verdict.field.pass) {
      EXPECT_EQ(sighted[i].visible, verdict.line.visible);
    }
    seen += verdict.sees;
  }
  EXPECT_GT(seen, 30);
  EXPECT_LT(seen, 370);
}

TEST_F(Batches, AskAHostsWorldOnce) {
  const HostWorld host(world, level);
  std::vector<QuickVerdict> own(lookers.size());
  std::vector<QuickVerdict> hosts(lookers.size());
  look(world, lookers, others, scratch, own);
  look(host, Plane::ground, lookers, others, scratch, hosts);
  EXPECT_EQ(host.calls, 1);
  for (std::size_t i = 0; i < own.size(); ++i) EXPECT_EQ(own[i].sees, hosts[i].sees);
}

TEST_F(Batches, AHostsVerdictHoldsTheSameNumbers) {
  const HostWorld host(world, level);
  for (std::size_t i = 0; i < lookers.size(); ++i) {
    const Verdict own = look(world, level, lookers[i], others[i]);
    const Verdict hosts = look(host, Plane::ground, lookers[i], others[i]);
    EXPECT_EQ(explain(own), explain(hosts));
    EXPECT_EQ(own.line.blocked_at, hosts.line.blocked_at);
    EXPECT_EQ(own.evidence.rate(), hosts.evidence.rate());
  }
}

TEST_F(Batches, OfNothingAnswerNothing) {
  look(world, std::span<const Looker>{}, std::span<const LookedAt>{}, scratch, {});
  EXPECT_TRUE(scratch.segments.empty());
}

TEST_F(Batches, FeelersAskAHostsWorldOnce) {
  const HostWorld host(world, level);
  std::vector<FeelerQuestion> questions;
  for (const Looker& looker : lookers) {
    Feeler feeler;
    feeler.from = {0.2, 0.0, 1.0};
    feeler.length = 6.0;
    feeler.stopped_by = Stops::sight;
    questions.push_back({feeler, looker.feet, looker.facing});
  }
  std::vector<HostFelt> hosts(questions.size());
  std::vector<Felt> own(questions.size());
  feel(host, Plane::ground, questions, scratch, hosts);
  feel(world, std::nullopt, questions, {}, own);
  EXPECT_EQ(host.calls, 1);
  int met = 0;
  for (std::size_t i = 0; i < own.size(); ++i) {
    ASSERT_EQ(own[i].distance.has_value(), hosts[i].distance.has_value());
    EXPECT_NEAR(own[i].distance.value_or(0.0), hosts[i].distance.value_or(0.0), 1e-9);
    met += own[i].distance.has_value();
  }
  EXPECT_GT(met, 50);
}

}  // namespace
}  // namespace gaze
