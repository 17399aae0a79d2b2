// Every call from C, with each pointer null in turn. It is refused, or documented as allowed.

#include <gtest/gtest.h>

#include <array>
#include <fstream>
#include <regex>
#include <set>
#include <sstream>
#include <tuple>
#include <vector>

#include "gaze/gaze.h"

namespace gaze {
namespace {

gaze_text letters(std::string_view text) {
  return {text.data(), text.size()};
}

void no_rays(void*, const gaze_segment*, gaze_hit* hits, size_t count) {
  for (size_t i = 0; i < count; ++i) hits[i] = {};
}

/// A game, and memory for all results.
class Null : public ::testing::Test {
 protected:
  Null() {
    EXPECT_EQ(gaze_level_read(letters(GAZE_DEMO), &level_), GAZE_OK);
    EXPECT_EQ(gaze_prepare(level_, &prepared_), GAZE_OK);
    EXPECT_EQ(gaze_begin(prepared_, &game_), GAZE_OK);
    EXPECT_EQ(gaze_begin(prepared_, &other_), GAZE_OK);
    EXPECT_EQ(gaze_step(game_), GAZE_OK);
    size_t count = 0;
    static_cast<void>(gaze_agents(game_, nullptr, 0, &count));
    agents_.resize(count);
    EXPECT_EQ(gaze_agents(game_, agents_.data(), count, &count), GAZE_OK);
    EXPECT_EQ(gaze_draw(game_, 15, 0.01, &drawing_), GAZE_OK);
  }
  ~Null() override {
    gaze_drawing_free(drawing_);
    gaze_game_free(game_);
    gaze_game_free(other_);
    gaze_prepared_free(prepared_);
    gaze_level_free(level_);
  }

  template <typename R, typename... P>
  void call(const std::string& name, R (*function)(P...), std::type_identity_t<P>... arguments) {
    called_.insert(name);
    const std::tuple<P...> all(arguments...);
    null_each(name, function, all, std::index_sequence_for<P...>());
  }

  std::set<std::string> called_;
  int nulls_ = 0;
  gaze_level* level_ = nullptr;
  gaze_prepared* prepared_ = nullptr;
  gaze_game* game_ = nullptr;
  gaze_game* other_ = nullptr;
  gaze_drawing* drawing_ = nullptr;
  std::vector<gaze_agent> agents_;

 private:
  template <typename R, typename... P, std::size_t... I>
  void null_each(const std::string& name, [[maybe_unused]] R (*function)(P...),
                 const std::tuple<P...>& all, std::index_sequence<I...>) {
    (null_one<I>(name, function, all), ...);
  }

  // Replaces one argument: a pointer by null, a text by one of five letters at null.
  template <std::size_t I, typename R, typename... P>
  void null_one(const std::string& name, R (*function)(P...), std::tuple<P...> all) {
    using Argument = std::tuple_element_t<I, std::tuple<P...>>;
    if constexpr (std::is_pointer_v<Argument>) {
      std::get<I>(all) = nullptr;
    } else if constexpr (std::is_same_v<Argument, gaze_text>) {
      std::get<I>(all) = {nullptr, 5};
    } else {
      return;
    }
    ++nulls_;
    if constexpr (std::is_same_v<R, gaze_status>) {
      // Optional results, and lists that have no elements here.
      static const std::set<std::string> kMayBeNull{
          "gaze_advance 3",   "gaze_set_aim 2",  "gaze_teleport 3", "gaze_hurt 4",
          "gaze_heal 3",      "gaze_revive 2",   "gaze_take 3",     "gaze_throw 4",
          "gaze_add_block 8", "gaze_begin_in 2", "gaze_see_all 1",  "gaze_spawn 5",
          "gaze_events 1",    "gaze_shots 1"};
      const std::string which = name + " " + std::to_string(I);
      const gaze_status status = std::apply(function, all);
      if (kMayBeNull.contains(which)) return;
      EXPECT_EQ(status, GAZE_USAGE) << which;
      EXPECT_GT(gaze_why().length, 0U) << which;
    } else {
      static_cast<void>(std::apply(function, all));
    }
  }
};

std::set<std::string> names_in_header() {
  std::ifstream file(GAZE_SOURCE "/include/gaze/gaze.h");
  std::ostringstream text;
  text << file.rdbuf();
  const std::string header = text.str();
  std::set<std::string> names;
  const std::regex call(R"(GAZE_CALL [^(;#]*?(gaze_[a-z_]+)\()");
  for (std::sregex_iterator it(header.begin(), header.end(), call), end; it != end; ++it) {
    names.insert((*it)[1]);
  }
  return names;
}

#define GAZE_NULL(function, ...) call(#function, &function __VA_OPT__(, ) __VA_ARGS__)

TEST_F(Null, IsRefusedByEveryCallOfTheHeader) {
  const gaze_agent who = agents_.at(0);
  const gaze_agent whom = agents_.at(1);
  const gaze_text id = letters("pruner-1");
  gaze_level* level = nullptr;
  gaze_prepared* prepared = nullptr;
  gaze_game* game = nullptr;
  gaze_drawing* drawing = nullptr;
  gaze_advanced advanced{};
  advanced.size = sizeof advanced;
  std::vector<std::byte> bytes(4'000'000);
  std::array<char, 4000> text{};
  size_t length = 0;
  uint64_t digest = 0;
  gaze_agent agent{};
  gaze_text name{};
  std::vector<gaze_state> states(agents_.size());
  std::vector<gaze_event> events(500);
  std::vector<gaze_shot> shots(100);
  states[0].size = sizeof(gaze_state);
  events[0].size = sizeof(gaze_event);
  shots[0].size = sizeof(gaze_shot);
  gaze_pose pose{};
  const gaze_vector aim{1.0, 1.0, 0.0};
  int32_t done = 0;
  uint32_t solid = 0;
  double value = 0.0;
  const std::array<double, 6> outline{0.0, 0.0, 0.1, 0.0, 0.1, 0.1};
  gaze_verdict verdict{};
  verdict.size = sizeof verdict;
  gaze_mark mark{};
  mark.size = sizeof mark;
  gaze_looker looker{};
  looker.range = 5.0;
  looker.field_deg = 90.0;
  gaze_looked looked{};
  looked.height = 1.0;
  uint8_t sees = 0;

  GAZE_NULL(gaze_version);
  GAZE_NULL(gaze_why);
  GAZE_NULL(gaze_level_read, letters(GAZE_DEMO), &level);
  gaze_level_free(level);
  GAZE_NULL(gaze_level_parse, letters(""), letters("name"), &level);
  GAZE_NULL(gaze_level_free, level);
  GAZE_NULL(gaze_prepare, level_, &prepared);
  GAZE_NULL(gaze_prepared_free, prepared);
  GAZE_NULL(gaze_begin, prepared_, &game);
  GAZE_NULL(gaze_begin_in, prepared_, &no_rays, nullptr, &game);
  gaze_game_free(game);
  GAZE_NULL(gaze_copy, game_, &game);
  GAZE_NULL(gaze_assign, other_, game_);
  GAZE_NULL(gaze_game_free, game);
  GAZE_NULL(gaze_step, game_);
  GAZE_NULL(gaze_advance, game_, 0.1, 10, &advanced);
  GAZE_NULL(gaze_tick, game_);
  GAZE_NULL(gaze_seconds, game_);
  GAZE_NULL(gaze_is_over, game_);
  GAZE_NULL(gaze_save, game_, bytes.data(), bytes.size(), &length);
  GAZE_NULL(gaze_restore, game_, bytes.data(), bytes.size());
  GAZE_NULL(gaze_digest, game_, &digest);
  GAZE_NULL(gaze_agents, game_, agents_.data(), agents_.size(), &length);
  GAZE_NULL(gaze_find, game_, id, &agent);
  GAZE_NULL(gaze_id, game_, who, &name);
  GAZE_NULL(gaze_is_there, game_, who);
  GAZE_NULL(gaze_states, game_, agents_.data(), agents_.size(), states.data(), sizeof(gaze_state));
  GAZE_NULL(gaze_set_poses, game_, agents_.data(), 1, &pose, sizeof pose);
  GAZE_NULL(gaze_set_aim, game_, who, &aim, 1);
  GAZE_NULL(gaze_teleport, game_, who, pose, &done);
  GAZE_NULL(gaze_hurt, game_, who, 1.0, whom, &done);
  GAZE_NULL(gaze_heal, game_, who, 1.0, &done);
  GAZE_NULL(gaze_revive, game_, who, &done);
  GAZE_NULL(gaze_wake, game_, who);
  GAZE_NULL(gaze_give_tag, game_, who, letters("dusty"));
  GAZE_NULL(gaze_take_tag, game_, who, letters("dusty"));
  GAZE_NULL(gaze_take, game_, who, whom, &done);
  GAZE_NULL(gaze_throw, game_, who, letters("pebble"), aim, &done);
  GAZE_NULL(gaze_drop, game_, who);
  GAZE_NULL(gaze_make_noise, game_, aim, 5.0, letters("bang"), who);
  GAZE_NULL(gaze_set_gone, game_, 0, 0);
  GAZE_NULL(gaze_add_block, game_, letters("box"), outline.data(), 3, 0.0, 1.0, 0, 0, &solid);
  GAZE_NULL(gaze_spawn, game_, letters("pruner"), pose, letters(""), 0, &agent);
  GAZE_NULL(gaze_despawn, game_, &who, 1);
  GAZE_NULL(gaze_set_kind, game_, who, letters("pruner"));
  GAZE_NULL(gaze_set_value, game_, letters("kind.pruner.sight.range"), 6.0);
  GAZE_NULL(gaze_value, game_, letters("kind.pruner.sight.range"), &value);
  GAZE_NULL(gaze_events, other_, events.data(), events.size(), sizeof(gaze_event), &length);
  GAZE_NULL(gaze_describe, other_, 0, text.data(), text.size(), &length);
  GAZE_NULL(gaze_shots, game_, shots.data(), shots.size(), sizeof(gaze_shot), &length);
  GAZE_NULL(gaze_look, game_, who, whom, &verdict);
  GAZE_NULL(gaze_explain, game_, who, whom, text.data(), text.size(), &length);
  GAZE_NULL(gaze_sweep, game_, aim, 0.3, 1.0, aim, &value);
  GAZE_NULL(gaze_see_all, &no_rays, nullptr, GAZE_GROUND, &looker, 1, &looked, 1, &sees);
  GAZE_NULL(gaze_draw, game_, 15, 0.01, &drawing);
  GAZE_NULL(gaze_mark_count, drawing_);
  GAZE_NULL(gaze_mark_at, drawing_, 0, &mark);
  GAZE_NULL(gaze_drawing_free, drawing);

  const std::set<std::string> known = names_in_header();
  EXPECT_GE(known.size(), 50U);
  for (const std::string& one : known) EXPECT_TRUE(called_.contains(one)) << one;
  EXPECT_GE(nulls_, 100);
}

}  // namespace
}  // namespace gaze
