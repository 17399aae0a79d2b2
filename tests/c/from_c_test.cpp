// Gaze from C: it answers as the C++ face does, and refuses what cannot be meant.

#include <gtest/gtest.h>

#include <cmath>
#include <cstring>
#include <limits>
#include <memory>

#include "gaze/gaze.h"
#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

gaze_text words(std::string_view text) {
  return {text.data(), text.size()};
}

std::string why() {
  const gaze_text text = gaze_why();
  return {text.at, text.length};
}

struct Free {
  void operator()(gaze_level* level) const { gaze_level_free(level); }
  void operator()(gaze_prepared* prepared) const { gaze_prepared_free(prepared); }
  void operator()(gaze_game* game) const { gaze_game_free(game); }
  void operator()(gaze_drawing* drawing) const { gaze_drawing_free(drawing); }
};
template <typename T>
using Handle = std::unique_ptr<T, Free>;

Handle<gaze_game> begun(std::string_view file) {
  gaze_level* level = nullptr;
  gaze_prepared* prepared = nullptr;
  gaze_game* game = nullptr;
  EXPECT_EQ(gaze_level_read(words(file), &level), GAZE_OK) << why();
  const Handle<gaze_level> its_level(level);
  EXPECT_EQ(gaze_prepare(level, &prepared), GAZE_OK) << why();
  const Handle<gaze_prepared> its_prepared(prepared);
  EXPECT_EQ(gaze_begin(prepared, &game), GAZE_OK) << why();
  return Handle<gaze_game>(game);
}

std::vector<gaze_agent> agents_of(const gaze_game* game) {
  std::size_t count = 0;
  static_cast<void>(gaze_agents(game, nullptr, 0, &count));
  std::vector<gaze_agent> agents(count);
  EXPECT_EQ(gaze_agents(game, agents.data(), agents.size(), &count), GAZE_OK);
  return agents;
}

TEST(FromC, PlaysTheDemoToTheSameBits) {
  const Handle<gaze_game> game = begun(GAZE_DEMO);
  Simulation simulation(read_level(GAZE_DEMO));
  std::vector<gaze_event> events(500);
  events[0].size = sizeof(gaze_event);
  for (int step = 0; step < 600; ++step) {
    ASSERT_EQ(gaze_step(game.get()), GAZE_OK);
    simulation.step();
    std::size_t count = 0;
    ASSERT_EQ(gaze_events(game.get(), events.data(), events.size(), sizeof(gaze_event), &count),
              GAZE_OK);
    ASSERT_EQ(count, simulation.events().size());
    for (std::size_t i = 0; i < count; ++i) {
      const Event& event = simulation.events()[i];
      EXPECT_EQ(std::string_view(events[i].what.at, events[i].what.length), name_of(event.what));
      EXPECT_EQ(events[i].agent.index, event.agent.index);
      EXPECT_EQ(events[i].other.index, event.other.value_or(AgentId{}).index);
      EXPECT_EQ(events[i].damage, event.damage);
      char line[300];
      std::size_t length = 0;
      ASSERT_EQ(gaze_describe(game.get(), i, line, sizeof line, &length), GAZE_OK);
      EXPECT_EQ(std::string_view(line, length), simulation.describe(event));
    }
  }
  std::uint64_t digest = 0;
  ASSERT_EQ(gaze_digest(game.get(), &digest), GAZE_OK);
  EXPECT_EQ(digest, simulation.digest());
  const std::vector<gaze_agent> agents = agents_of(game.get());
  struct Mine {  // a list may lie in structs of the host's
    gaze_state state;
    int other = 7;
  };
  std::vector<Mine> states(agents.size());
  states[0].state.size = sizeof(gaze_state);
  ASSERT_EQ(gaze_states(game.get(), agents.data(), agents.size(), &states[0].state, sizeof(Mine)),
            GAZE_OK);
  for (std::size_t i = 0; i < agents.size(); ++i) {
    const AgentState state = simulation.state({agents[i].index, agents[i].generation});
    EXPECT_EQ(states[i].state.position.x, state.position.x());
    EXPECT_EQ(states[i].state.health, state.health);
    EXPECT_EQ(states[i].state.mode, static_cast<int>(state.mode));
    EXPECT_EQ(states[i].other, 7);
  }
}

TEST(FromC, DrawsWhatTheSimulationDraws) {
  const Handle<gaze_game> game = begun(GAZE_DEMO);
  Simulation simulation(read_level(GAZE_DEMO));
  gaze_drawing* made = nullptr;
  ASSERT_EQ(gaze_draw(game.get(), GAZE_ALL_LAYERS, 0.01, &made), GAZE_OK);
  const Handle<gaze_drawing> its(made);
  const auto marks = drawing(simulation);
  ASSERT_EQ(gaze_mark_count(made), marks.size());
  for (std::size_t i = 0; i < marks.size(); ++i) {
    gaze_mark mark{};
    mark.size = sizeof mark;
    ASSERT_EQ(gaze_mark_at(made, i, &mark), GAZE_OK);
    EXPECT_EQ(mark.meaning, static_cast<int>(marks[i].meaning));
    EXPECT_EQ(std::string_view(mark.text.at, mark.text.length), marks[i].text);
    ASSERT_EQ(mark.point_count, marks[i].points.size());
    for (std::size_t k = 0; k < mark.point_count; ++k) {
      EXPECT_EQ(mark.points[2 * k], marks[i].points[k].x());
      EXPECT_EQ(mark.points[2 * k + 1], marks[i].points[k].y());
    }
  }
  gaze_mark mark{};
  mark.size = sizeof mark;
  EXPECT_EQ(gaze_mark_at(made, marks.size(), &mark), GAZE_USAGE);
}

// A program that was compiled with fewer members gets no more than those.
TEST(FromC, FillsNoMoreThanTheHostKnowsOf) {
  const Handle<gaze_game> game = begun(GAZE_DEMO);
  const gaze_agent first = agents_of(game.get()).front();
  constexpr std::size_t kOld = offsetof(gaze_state, health);
  gaze_state state{};
  state.size = kOld;
  state.health = -1.0;
  ASSERT_EQ(gaze_states(game.get(), &first, 1, &state, sizeof state), GAZE_OK);
  EXPECT_EQ(state.health, -1.0);
  EXPECT_NE(state.position.x, 0.0);
  EXPECT_EQ(state.size, kOld);
  state.size = 0;
  EXPECT_EQ(gaze_states(game.get(), &first, 1, &state, sizeof state), GAZE_USAGE);
  EXPECT_NE(why().find("sizeof"), std::string::npos);
}

TEST(FromC, RefusesWithAReasonAndChangesNothing) {
  gaze_level* level = nullptr;
  EXPECT_EQ(gaze_level_parse(words("[kind.x]\nradius = -1\n"), words("mine"), &level), GAZE_LEVEL);
  EXPECT_EQ(level, nullptr);
  EXPECT_TRUE(why().starts_with("mine:2:10: error: ")) << why();
  EXPECT_EQ(gaze_level_read(words("/nowhere"), &level), GAZE_LEVEL);
  EXPECT_EQ(gaze_level_parse(words("x"), words(""), nullptr), GAZE_USAGE);
  EXPECT_EQ(gaze_prepare(nullptr, nullptr), GAZE_USAGE);
  EXPECT_EQ(gaze_step(nullptr), GAZE_USAGE);
  EXPECT_EQ(why(), "the game is null");
  EXPECT_EQ(gaze_tick(nullptr), -1);
  gaze_game_free(nullptr);

  const Handle<gaze_game> game = begun(GAZE_DEMO);
  std::uint64_t before = 0;
  std::uint64_t after = 0;
  ASSERT_EQ(gaze_digest(game.get(), &before), GAZE_OK);
  gaze_agent found{};
  ASSERT_EQ(gaze_find(game.get(), words("nobody-1"), &found), GAZE_OK);
  EXPECT_EQ(found.index, GAZE_NOBODY_INDEX);
  EXPECT_EQ(gaze_hurt(game.get(), found, 1.0, found, nullptr), GAZE_USAGE);
  EXPECT_EQ(gaze_set_value(game.get(), words("kind.pruner.sight.rnage"), 3.0), GAZE_USAGE);
  EXPECT_NE(why().find("did you mean 'sight.range'"), std::string::npos) << why();
  EXPECT_EQ(gaze_spawn(game.get(), words("pruner"), {{1e9, 0, 0}, 0}, words(""), 0, nullptr),
            GAZE_USAGE);
  EXPECT_EQ(gaze_restore(game.get(), "GAZESAVE", 8), GAZE_SAVE);
  EXPECT_EQ(gaze_advance(game.get(), -1.0, 5, nullptr), GAZE_USAGE);
  // Of two agents one is not the host's: neither is moved.
  const std::vector<gaze_agent> agents = agents_of(game.get());
  const gaze_pose poses[2] = {{{1, 1, 0}, 0}, {{2, 2, 0}, 0}};
  EXPECT_EQ(gaze_set_poses(game.get(), agents.data(), 2, poses, sizeof(gaze_pose)), GAZE_USAGE);
  ASSERT_EQ(gaze_digest(game.get(), &after), GAZE_OK);
  EXPECT_EQ(before, after);
}

class FromCInFolder : public testing::InTemporaryFolder {};

TEST_F(FromCInFolder, PosesThatAreRefusedLeaveTheGameAsItIs) {
  // Facings that no angle in degrees gives back to the last bit.
  const std::string text =
      "[kind.guest]\nteam = \"visitors\"\n" +
      testing::placed("one", "guest", "[0, 0]", "facing = 33.3\ndriver = \"host\"") +
      testing::placed("two", "guest", "[3, 0]", "facing = 101.7\ndriver = \"host\"");
  const Handle<gaze_game> game = begun(write("two.toml", text + testing::kTeams).string());
  const std::vector<gaze_agent> agents = agents_of(game.get());
  std::uint64_t before = 0;
  std::uint64_t after = 0;
  ASSERT_EQ(gaze_digest(game.get(), &before), GAZE_OK);
  for (const gaze_pose& bad : {gaze_pose{{1e9, 0, 0}, 0}, gaze_pose{{0, 0, 0}, 1e9}}) {
    const gaze_pose poses[2] = {{{1, 1, 0}, 77.7}, bad};
    EXPECT_EQ(gaze_set_poses(game.get(), agents.data(), 2, poses, sizeof(gaze_pose)), GAZE_USAGE);
    ASSERT_EQ(gaze_digest(game.get(), &after), GAZE_OK);
    EXPECT_EQ(before, after);
  }
  const gaze_pose poses[2] = {{{1, 1, 0}, 77.7}, {{2, 1, 0}, 0}};
  EXPECT_EQ(gaze_set_poses(game.get(), agents.data(), 2, poses, sizeof(gaze_pose)), GAZE_OK);
  ASSERT_EQ(gaze_digest(game.get(), &after), GAZE_OK);
  EXPECT_NE(before, after);
}

TEST(FromC, TellsHowMuchRoomThereHasToBe) {
  const Handle<gaze_game> game = begun(GAZE_DEMO);
  std::size_t length = 0;
  EXPECT_EQ(gaze_save(game.get(), nullptr, 0, &length), GAZE_ROOM);
  std::vector<char> save(length);
  ASSERT_EQ(gaze_save(game.get(), save.data(), save.size(), &length), GAZE_OK);
  gaze_game* copy = nullptr;
  ASSERT_EQ(gaze_copy(game.get(), &copy), GAZE_OK);
  const Handle<gaze_game> its_copy(copy);
  for (int i = 0; i < 100; ++i) ASSERT_EQ(gaze_step(copy), GAZE_OK);
  ASSERT_EQ(gaze_restore(copy, save.data(), save.size()), GAZE_OK);
  std::uint64_t digests[2] = {0, 1};
  ASSERT_EQ(gaze_digest(copy, &digests[0]), GAZE_OK);
  ASSERT_EQ(gaze_digest(game.get(), &digests[1]), GAZE_OK);
  EXPECT_EQ(digests[0], digests[1]);
  ASSERT_EQ(gaze_assign(copy, game.get()), GAZE_OK);
}

// A host's world of one wall across x = 5: whoever looks across it is stopped there.
TEST(FromC, SeesInAWorldOfTheHosts) {
  const auto wall = [](void* host, const gaze_segment* segments, gaze_hit* hits,
                       std::size_t count) {
    ++*static_cast<int*>(host);
    for (std::size_t i = 0; i < count; ++i) {
      hits[i].is_hit = (segments[i].from.x < 5.0) != (segments[i].to.x < 5.0);
    }
  };
  const gaze_looker lookers[2] = {{{0, 0, 0}, 0.0, 1.6, 10.0, 90.0},
                                  {{0, 0, 0}, 180.0, 1.6, 10.0, 90.0}};
  const gaze_looked others[3] = {
      {{4, 0, 0}, 0.3, 1.7}, {{6, 0, 0}, 0.3, 1.7}, {{-9, 0, 0}, 0.3, 1.7}};
  std::uint8_t sees[6];
  int calls = 0;
  ASSERT_EQ(gaze_see_all(wall, &calls, GAZE_GROUND, lookers, 2, others, 3, sees), GAZE_OK);
  EXPECT_EQ(std::vector<int>(sees, sees + 6), (std::vector<int>{1, 0, 0, 0, 0, 1}));
  EXPECT_EQ(calls, 1);
  EXPECT_EQ(gaze_see_all(nullptr, nullptr, GAZE_GROUND, lookers, 2, others, 3, sees), GAZE_USAGE);
}

/// Calls anything with anything.
class WildProgram {
 public:
  WildProgram(gaze_game* game, std::uint64_t seed) : game_(game), random_(seed) {}

  void call() {
    std::size_t count = 0;
    std::int32_t done = 0;
    double value = 0.0;
    char text[64];
    switch (random_.next() % 22) {
      case 0:
        return take(gaze_advance(game_, number(), int32_t(random_.next() % 9) - 2, nullptr));
      case 1:
        return take(gaze_teleport(game_, agent(), pose(), &done));
      case 2:
        return take(gaze_hurt(game_, agent(), number(), agent(), nullptr));
      case 3:
        return take(gaze_heal(game_, agent(), number(), &done));
      case 4:
        return take(gaze_revive(game_, agent(), &done));
      case 5:
        return take(gaze_wake(game_, agent()));
      case 6:
        return take(gaze_give_tag(game_, agent(), name()));
      case 7:
        return take(gaze_take(game_, agent(), agent(), &done));
      case 8:
        return take(gaze_throw(game_, agent(), name(), pose().position, &done));
      case 9:
        return take(gaze_drop(game_, agent()));
      case 10:
        return take(gaze_make_noise(game_, pose().position, number(), name(), agent()));
      case 11:
        return take(
            gaze_set_gone(game_, uint32_t(random_.next() % 30), int32_t(random_.next() % 2)));
      case 12:
        return take(
            gaze_spawn(game_, name(), pose(), words(""), int32_t(random_.next() % 2), nullptr));
      case 13: {
        const gaze_agent goes = agent();
        return take(
            gaze_despawn(game_, random_.next() % 9 == 0 ? nullptr : &goes, random_.next() % 2));
      }
      case 14:
        return take(gaze_set_kind(game_, agent(), name()));
      case 15:
        return take(gaze_set_value(game_, words("kind.pruner.sight.range"), number()));
      case 16:
        return take(gaze_explain(game_, agent(), agent(), text, sizeof text, &count));
      case 17:
        return take(gaze_describe(game_, random_.next() % 20, text, sizeof text, &count));
      case 18:
        return take(gaze_value(game_, name(), &value));
      case 19: {
        const gaze_agent who = agent();
        const gaze_pose there = pose();
        return take(gaze_set_poses(game_, &who, 1, &there, random_.next() % 2 * sizeof there));
      }
      case 20:
        return take(
            gaze_sweep(game_, pose().position, number(), number(), pose().position, &value));
      default:
        return take(gaze_step(game_));
    }
  }

  int refused() const { return refused_; }

 private:
  void take(gaze_status status) {
    ASSERT_NE(status, GAZE_FAILED) << why();
    if (status == GAZE_OK) return;
    ++refused_;
    EXPECT_GT(gaze_why().length, 10U);
  }
  gaze_agent agent() {
    if (random_.next() % 8 == 0) return {GAZE_NOBODY_INDEX, 0};
    return {uint32_t(random_.next() % 30), random_.next() % 10 == 0 ? 1U : 0U};
  }
  double number() {
    const double odd[] = {0.0, -1.0, 1e300, std::nan(""), std::numeric_limits<double>::infinity()};
    return random_.next() % 4 == 0 ? odd[random_.next() % std::size(odd)]
                                   : random_.between(0.0, 20.0);
  }
  gaze_pose pose() {
    return {{number() - 3.0, number() - 3.0, random_.between(0.0, 2.0)}, number() * 20.0};
  }
  gaze_text name() {
    const char* names[] = {"pruner", "pebble",    "collector",  "listener",
                           "",       "two words", "compost-jar"};
    return words(names[random_.next() % std::size(names)]);
  }

  gaze_game* game_;
  scenes::Random random_;
  int refused_ = 0;
};

TEST(FromC, NoCallsBreakAGame) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(12); ++seed) {
    const Handle<gaze_game> game = begun(GAZE_DEMO);
    WildProgram program(game.get(), seed);
    for (int i = 0; i < 1500; ++i) program.call();
    EXPECT_GT(program.refused(), 100);
    for (const gaze_agent& agent : agents_of(game.get())) {
      gaze_state state{};
      state.size = sizeof state;
      ASSERT_EQ(gaze_states(game.get(), &agent, 1, &state, sizeof state), GAZE_OK);
      EXPECT_TRUE(std::isfinite(state.position.x + state.position.y + state.position.z));
    }
  }
}

}  // namespace
}  // namespace gaze
