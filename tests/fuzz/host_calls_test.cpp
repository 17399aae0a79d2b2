#include <gtest/gtest.h>

#include <limits>

#include "fuzz/level_writer.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// A host that calls anything with anything.
class WildHost {
 public:
  WildHost(const Level& level, std::uint64_t seed) : game_(level), copy_(game_), random_(seed) {}

  void call() {
    try {
      call_any();
    } catch (const UsageError& error) {
      ++refused_;
      EXPECT_GT(std::string_view(error.what()).size(), 10U);
    } catch (const SaveError&) {
      ++refused_;
    }
  }

  int refused() const { return refused_; }
  const Simulation& game() const { return game_; }

 private:
  void call_any() {
    switch (random_.next() % 34) {
      case 0:
        return static_cast<void>(game_.advance(random_.between(-0.01, 0.1)));
      case 1:
        return game_.set_pose(agent(), place(), Angle::from_degrees(number()));
      case 2:
        return game_.set_aim(agent(), maybe_place(), random_.next() % 2 == 0);
      case 3:
        return static_cast<void>(game_.take(agent(), agent()));
      case 4:
        return static_cast<void>(game_.throw_thing(agent(), name(), place()));
      case 5:
        return game_.drop(agent());
      case 6:
        return game_.wake(agent());
      case 7:
        return game_.make_noise(place(), number(), name(), maybe_agent());
      case 8:
        return static_cast<void>(game_.state(agent()));
      case 9:
        return static_cast<void>(explain(game_.look(agent(), agent())));
      case 10:
        return static_cast<void>(game_.last_place(agent(), agent()));
      case 11:
        return static_cast<void>(going(game_, agent()));
      case 12:
        return static_cast<void>(acquaintance(game_, agent(), agent()));
      case 13:
        return static_cast<void>(game_.mesh(agent()));
      case 14:
        return describe_any();
      case 15:
        copy_ = game_;
        return;
      case 16:
        game_ = copy_;
        return;
      case 17:
        save_ = game_.save();
        return;
      case 18:
        return restore_any();
      case 19:
        return static_cast<void>(game_.last_noise(agent()));
      case 20:
        return static_cast<void>(game_.last_blast(agent()));
      case 21:
        return static_cast<void>(game_.teleport(agent(), place(), Angle::from_degrees(number())));
      case 22:
        return static_cast<void>(game_.hurt(agent(), number(), maybe_agent()));
      case 23:
        return static_cast<void>(game_.heal(agent(), number()));
      case 24:
        return static_cast<void>(game_.revive(agent()));
      case 25:
        return random_.next() % 2 == 0 ? game_.give_tag(agent(), "wet")
                                       : game_.take_tag(agent(), name());
      case 26:
        return game_.set_gone({static_cast<std::uint32_t>(random_.next() % 40)},
                              random_.next() % 2 == 0);
      case 27:
        return spawn_any();
      case 28:
        return game_.despawn(agent());
      case 29:
        return game_.set_kind(agent(), name());
      case 30:
        return game_.set_value(
            "kind." + name() + (random_.next() % 2 == 0 ? ".health" : ".sight.range"), number());
      default:
        return game_.step();
    }
  }

  void spawn_any() {
    if (game_.agent_count() > 90) return;
    if (random_.next() % 2 == 0) {
      static_cast<void>(game_.spawn(name(), place(), Angle::from_degrees(number())));
      return;
    }
    Agent wished;
    wished.id = "new-" + std::to_string(random_.next() % 5);
    wished.kind = static_cast<std::uint32_t>(random_.next() % (game_.level().kinds.size() + 1));
    wished.position = place();
    if (random_.next() % 2 == 0) wished.patrol = {place(), place()};
    if (random_.next() % 3 == 0) wished.driver = Driver::host;
    static_cast<void>(game_.spawn(wished));
  }

  void describe_any() {
    for (const Event& event : game_.events()) {
      EXPECT_FALSE(game_.describe(event).empty());
    }
    Event event;
    event.what = static_cast<Event::What>(random_.next() % 30);
    event.agent = agent();
    if (random_.next() % 2 == 0) event.other = agent();
    if (random_.next() % 2 == 0)
      event.solid = SolidId{static_cast<std::uint32_t>(random_.next() % 9)};
    if (random_.next() % 2 == 0) event.zone = static_cast<std::uint32_t>(random_.next() % 3);
    static_cast<void>(game_.describe(event));
  }

  void restore_any() {
    auto save = save_;
    if (!save.empty() && random_.next() % 3 == 0) {
      save[random_.next() % save.size()] ^= static_cast<std::byte>(random_.next() % 255);
    }
    game_.restore(save);
  }

  AgentId agent() {
    if (random_.next() % 10 == 0) return {};
    const auto number =
        static_cast<std::uint32_t>(random_.next() % (game_.level().agents.size() + 1));
    if (number == game_.level().agents.size() || random_.next() % 10 == 0) return {number, 1};
    for (const AgentId one : game_.agents()) {
      if (one.index == number) return one;
    }
    return {number};
  }
  std::optional<AgentId> maybe_agent() {
    return random_.next() % 2 == 0 ? std::optional(agent()) : std::nullopt;
  }

  double number() {
    const double kNumbers[] = {0.0,
                               -1.0,
                               1e-300,
                               1e300,
                               std::numeric_limits<double>::quiet_NaN(),
                               std::numeric_limits<double>::infinity(),
                               2e4,
                               90.0};
    if (random_.next() % 4 == 0) return kNumbers[random_.next() % std::size(kNumbers)];
    return random_.between(-20.0, 20.0);
  }
  Vector3d place() {
    Vector3d p{random_.between(-20.0, 20.0), random_.between(-20.0, 20.0),
               random_.between(-1.0, 4.0)};
    if (random_.next() % 5 == 0) p[random_.next() % 3] = number();
    return p;
  }
  std::optional<Vector3d> maybe_place() {
    return random_.next() % 3 == 0 ? std::nullopt : std::optional(place());
  }
  std::string name() {
    const auto& kinds = game_.level().kinds;
    if (kinds.empty() || random_.next() % 3 == 0) return "whistle";
    return kinds[random_.next() % kinds.size()].name;
  }

  Simulation game_;
  Simulation copy_;
  std::vector<std::byte> save_;
  scenes::Random random_;
  int refused_ = 0;
};

// Whatever a host calls, in whatever order: it is done, or refused with a reason.
TEST(HostCalls, OfAnySortNeverBreakAGame) {
  int refused = 0;
  int games = 0;
  for (std::uint64_t seed = 1; games < static_cast<int>(testing::rounds(40)); ++seed) {
    auto level = fuzz::level_of_seed(seed);
    if (!level || level->agents.size() > 60 || level->agents.empty()) continue;
    ++games;
    level->agents[0].driver = Driver::host;  // one that listens to it
    WildHost host(*level, seed);
    for (int call = 0; call < 1500; ++call) host.call();
    refused += host.refused();
    for (const AgentId who : host.game().agents()) {
      ASSERT_TRUE(host.game().state(who).position.allFinite()) << seed;
    }
    // What has come of it can be begun anew, and saved.
    const Simulation anew(host.game().level());
    EXPECT_EQ(anew.agent_count(), Simulation(anew.level()).agent_count()) << seed;
    Simulation restored(*level);
    restored.restore(host.game().save());
    EXPECT_EQ(restored.digest(), host.game().digest()) << seed;
  }
  EXPECT_GT(refused, 50 * games);
}

}  // namespace
}  // namespace gaze
