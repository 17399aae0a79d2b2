// Worlds of the host's own: for every sense, and for a whole simulation.

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// A host whose world is one of Gaze's, so that both have to answer alike.
class OwnRays : public RaySource {
 public:
  explicit OwnRays(const Level& level) : world_(level), level_(level) {}

  void first_hits(std::span<const Segment> segments, std::span<RayHit> hits) const override {
    ask(Stops::sight, segments, hits);
  }
  void first_hits_of(Stops what, std::span<const Segment> segments,
                     std::span<RayHit> hits) const override {
    ask(what, segments, hits);
  }
  double sound_through(const Segment& segment) const override {
    const Noise noise{segment.from, 1e6};
    Listener listener;
    listener.feet = segment.to;
    listener.ear_height = 0.0;
    listener.hearing.range = 1e6;
    return listen(world_, level_, listener, noise).let_through;
  }
  mutable int calls = 0;

 private:
  void ask(Stops what, std::span<const Segment> segments, std::span<RayHit> hits) const {
    ++calls;
    for (std::size_t i = 0; i < segments.size(); ++i) {
      const auto touch = world_.first_touch(segments[i], what);
      if (touch) hits[i] = {true, touch->place, level_.solids[touch->solid.index].id, 77};
    }
  }

  World world_;
  const Level& level_;
};

const char* const kGuards = R"(
[kind.reed]
team = "caretakers"
[kind.reed.move]
gait = "fixed"
[kind.reed.sight]
range = 14
field_of_view = 360
notice_time = 0.2
remember = 1
[kind.reed.hearing]
range = 12
[kind.reed.feeler.tip]
length = 4
[kind.reed.attack.thorn]
how = "shot"
range = 14
damage = 1
speed = 12
radius = 0.001
cooldown = 0.5
[kind.guest]
team = "visitors"
health = 1000
)";

std::string guards() {
  std::string text = kGuards;
  for (int i = 0; i < 6; ++i) {
    text += testing::placed("reed-" + std::to_string(i), "reed",
                            "[" + std::to_string(4 * i) + ".1, " + std::to_string(i % 3) + ".2]",
                            "facing = " + std::to_string(60 * i));
  }
  return text + testing::placed("guest", "guest", "[-3, -3]", "driver = \"host\"");
}

std::string walls() {
  return testing::wall("one", "[[2, -2], [2, 4]]") + testing::wall("two", "[[7, 1], [11, 1.5]]") +
         testing::wall("three", "[[14, -4], [13, 3], [18, 3]]");
}

// Who notices whom, and whom shots hurt; not by what name what they hit goes.
std::string told(Simulation& game) {
  std::string text;
  for (int step = 0; step < 600; ++step) {
    const double share = step / 600.0;
    game.set_pose(game.agent("guest"), {-3.0 + 26.0 * share, 3.0 * std::sin(12.0 * share), 0.0},
                  {});
    if (step % 50 == 0) game.make_noise({-3.0 + 26.0 * share, 0.0, 1.0}, 9.0, "tap");
    game.step();
    for (const Event& event : game.events()) {
      using What = Event::What;
      const bool counts = event.what == What::noticed || event.what == What::lost ||
                          event.what == What::heard || event.what == What::hurt ||
                          event.what == What::forgot || event.what == What::attacked;
      if (counts) text += std::to_string(event.tick) + " " + game.describe(event) + "\n";
    }
  }
  return text;
}

TEST(HostWorld, AWholeSimulationPlaysInItAsAmongSolids) {
  const Level with = testing::garden(guards() + walls());
  const Level without = testing::garden(guards());
  Simulation own(with);
  const auto host = std::make_shared<const OwnRays>(with);
  Simulation theirs(Prepared(without), host);
  const std::string first = told(own);
  EXPECT_EQ(first, told(theirs));
  EXPECT_NE(first.find("noticed guest by sight"), std::string::npos);
  EXPECT_NE(first.find("lost guest"), std::string::npos);
  EXPECT_NE(first.find("heard a tap"), std::string::npos);
  EXPECT_NE(first.find("lost 1 health to thorn"), std::string::npos);
  EXPECT_GT(host->calls, 1000);
  Simulation copy = theirs;  // copies share it
  EXPECT_EQ(told(copy), told(theirs));
}

TEST(HostWorld, SaysWhatIsInTheWayByTheHostsOwnNumber) {
  const Level with = testing::garden(guards() + walls());
  Simulation game(Prepared(testing::garden(guards())), std::make_shared<const OwnRays>(with));
  game.set_pose(game.agent("guest"), {5.0, 0.2, 0.0}, {});
  const Verdict verdict = game.look("reed-0", "guest");
  EXPECT_FALSE(verdict.line.pass);
  EXPECT_EQ(verdict.line.blocked_by, "the host's world");
  EXPECT_EQ(verdict.line.blocked_by_id, 77U);
  EXPECT_NEAR(verdict.line.blocked_at.x(), 1.9, 1e-9);
  bool any = false;
  for (int i = 0; i < 600; ++i) {
    game.set_pose(game.agent("guest"), {1.0, i % 60 < 30 ? 2.0 : 60.0, 0.0}, {});
    game.step();
    for (const Event& event : game.events()) {
      if (event.what != Event::What::hit || event.solid != kOfHost) continue;
      any = true;
      EXPECT_EQ(event.host_id, 77U);
      EXPECT_NE(game.describe(event).find("hit the host's world with thorn"), std::string::npos);
    }
  }
  EXPECT_TRUE(any);
}

TEST(HostWorld, HearsAsInGazesOwn) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(30); ++seed) {
    Level level = scenes::make_scene(20, 16.0, seed);
    level.materials = {{"brick", StopSet(0b1111), 0.6}};
    complete(level);
    const World world(level);
    const OwnRays host(level);
    scenes::Random random(seed);
    for (int i = 0; i < 40; ++i) {
      const auto place = [&] {
        return Vector3d{random.between(0.0, 16.0), random.between(0.0, 16.0), 0.0};
      };
      Listener listener;
      listener.feet = place();
      listener.hearing.range = 12.0;
      const Noise noise{place() + Vector3d{0.0, 0.0, 1.0}, random.between(2.0, 20.0)};
      const HearingVerdict own = listen(world, level, listener, noise);
      const HearingVerdict theirs = listen(host, Plane::ground, listener, noise);
      EXPECT_EQ(own.hears, theirs.hears);
      EXPECT_NEAR(own.reach, theirs.reach, 1e-12);
    }
  }
}

// Many rays come near to the exact area, from whichever side.
TEST(HostWorld, ManyRaysComeNearToTheSeenArea) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(12); ++seed) {
    Level level = scenes::make_scene(12, 16.0, seed);
    complete(level);
    const World world(level);
    const OwnRays host(level);
    scenes::Random random(seed);
    Looker looker;
    looker.feet = {random.between(1.0, 15.0), random.between(1.0, 15.0), 0.0};
    looker.sight.range = 9.0;
    looker.sight.keep_range = 9.0;
    looker.sight.field_of_view = Angle::from_degrees(seed % 2 == 0 ? 360.0 : 100.0);
    const double exact = seen_area(world, looker).area();
    if (exact == 0.0) continue;  // it stands in a solid
    const double sampled = seen_area(host, Plane::ground, looker, 20'000).area();
    EXPECT_NEAR(sampled / exact, 1.0, 0.01) << seed;
  }
  EXPECT_THROW(static_cast<void>(seen_area(OwnRays(Level{}), Plane::ground, Looker{}, 2)),
               UsageError);
}

}  // namespace
}  // namespace gaze
