// Ways that nobody notices: played, and held against a search on a fine grid.

#include "gaze/tools/sneak.hpp"

#include <fmt/format.h>

#include <fstream>
#include <set>

#include "gaze/path.hpp"
#include "gaze/tools/report.hpp"
#include "scenes.hpp"
#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

// A room of 6 m by 5 m with blocks in it, watchers at posts or on patrol, and somebody at one end.
std::string room(std::uint64_t seed) {
  scenes::Random random(seed * 7 + 3);
  std::string text = "seconds = 12.0\nground_height = 0.0\n";
  const char* notice[] = {"0.0", "0.3", "0.0", "0.6"};
  // One after the other: in which order arguments are evaluated is the compiler's choice.
  const double range = random.between(2.0, 6.0);
  const double field_of_view = random.between(40.0, 200.0);
  const char* notice_time = notice[random.next() % 4];
  const char* ebb_time = random.next() % 2 == 0 ? "0.0" : "1.0";
  text += fmt::format(R"(
[kind.watcher]
team = "caretakers"
radius = 0.25
sight = {{ range = {:.2f}, field_of_view = {:.0f}, notice_time = {}, ebb_time = {} }}
move = {{ speed = 1.0 }}
[kind.guest]
team = "visitors"
radius = 0.25
move = {{ speed = 2.0 }}
solid_to = []
)",
                      range, field_of_view, notice_time, ebb_time);
  text += testing::wall("outer", "[[0, 0], [6, 0], [6, 5], [0, 5], [0, 0]]", "height = 3.0");
  const auto blocks = 1 + random.next() % 4;
  for (std::uint64_t i = 0; i < blocks; ++i) {
    const double x = random.between(1.4, 4.0);
    const double y = random.between(0.4, 3.2);
    const double w = random.between(0.3, 1.2);
    const double h = random.between(0.3, 1.6);
    text += testing::block(fmt::format("block-{}", i),
                           fmt::format("[[{:.2f}, {:.2f}], [{:.2f}, {:.2f}], [{:.2f}, {:.2f}], "
                                       "[{:.2f}, {:.2f}]]",
                                       x, y, x + w, y, x + w, y + h, x, y + h),
                           fmt::format("height = {:.1f}", random.next() % 3 == 0 ? 1.0 : 2.5));
  }
  const auto watchers = 1 + random.next() % 3;
  for (std::uint64_t i = 0; i < watchers; ++i) {
    const double x = random.between(2.0, 5.5);
    const double y = random.between(0.6, 4.4);
    std::string more = fmt::format("facing = {:.0f}", random.between(0.0, 360.0));
    if (random.next() % 3 == 0) {
      const double to_x = random.between(2.0, 5.5);
      const double to_y = random.between(0.6, 4.4);
      more = fmt::format("patrol = [[{:.2f}, {:.2f}], [{:.2f}, {:.2f}]]", x, y, to_x, to_y);
    }
    text += testing::placed(fmt::format("watcher-{}", i), "watcher",
                            fmt::format("[{:.2f}, {:.2f}]", x, y), more);
  }
  return text + testing::placed("guest", "guest", "[0.75, 2.55]", "driver = 'host'");
}

// Both ends are places of the fine grid: what is seen there is seen by both searches.
const Vector3d kGoal{5.45, 2.55, 0.0};

bool is_noticed_on(Level level, const Track& track) {
  Agent& agent = level.agents.back();
  agent.driver = Driver::track;
  agent.track = std::make_shared<const Track>(track);
  Simulation game(level);
  const AgentId guest = game.agent("guest");
  for (std::size_t i = 1; i < track.points.size(); ++i) {  // no faster than it can, through nothing
    const Vector3d way = track.points[i].place - track.points[i - 1].place;
    EXPECT_LE(std::hypot(way.x(), way.y()),
              2.0001 * (track.points[i].seconds - track.points[i - 1].seconds));
  }
  while (game.seconds() < track.points.back().seconds) {  // not what comes once it is there
    EXPECT_FALSE(game.world().overlaps(
        {game.state(guest).position + Vector3d{0, 0, 0.31}, 0.24, 1.3}, Stops::bodies));
    game.step();
    for (const Event& event : game.events()) {
      const bool is_found_out =
          event.what == Event::What::noticed || event.what == Event::What::heard;
      if (is_found_out && event.other == guest) return true;
    }
  }
  return false;
}

/// A search of another make: on a grid of 0.1 m, in steps of a tick or more, without any evidence
/// but for the time for which one watcher sees it on end.
class FineGrid {
 public:
  explicit FineGrid(const Level& level) : level_(level), world_(level) {
    const NavigationMesh mesh(level, world_, body_size(level, level.agents.back()));
    for (int row = 0; row < kRows; ++row) {
      for (int column = 0; column < kColumns; ++column) {
        const auto place = mesh.find(place_of(column, row));
        free_.push_back(place.has_value());
      }
    }
  }

  // Watchers notice at once: whether a way leads to the goal through what is unseen.
  bool has_way() {
    Simulation game(level_);
    game.despawn(game.agent("guest"));
    std::vector<char> now(free_.size(), 0);
    if (!is_seen(game, at(place_index(0.75, 2.55)))) now[place_index(0.75, 2.55)] = 1;
    const std::size_t goal = place_index(kGoal.x(), kGoal.y());
    constexpr int kTicks = 3;  // 0.1 m at 2 m a second
    while (game.seconds() < level_.seconds) {
      if (now[goal] != 0) return true;
      for (int i = 0; i < kTicks; ++i) game.step();
      std::vector<char> next(free_.size(), 0);
      for (std::size_t i = 0; i < next.size(); ++i) {
        if (!free_[i] || !any_about(now, i)) continue;
        next[i] = is_seen(game, at(i)) ? 0 : 1;
      }
      now = std::move(next);
    }
    return now[goal] != 0;
  }

 private:
  static constexpr int kColumns = 60;
  static constexpr int kRows = 50;

  static Vector3d place_of(int column, int row) {
    return {0.05 + 0.1 * column, 0.05 + 0.1 * row, 0.0};
  }
  static Vector3d at(std::size_t i) {
    return place_of(static_cast<int>(i % kColumns), static_cast<int>(i / kColumns));
  }
  static std::size_t place_index(double x, double y) {
    return static_cast<std::size_t>(std::lround((y - 0.05) / 0.1)) * kColumns +
           static_cast<std::size_t>(std::lround((x - 0.05) / 0.1));
  }

  // To its four neighbours alone: what this finds can be walked in the time.
  bool any_about(const std::vector<char>& now, std::size_t i) const {
    const auto column = static_cast<int>(i % kColumns);
    const bool left = column > 0 && now[i - 1] != 0;
    const bool right = column + 1 < kColumns && now[i + 1] != 0;
    const bool below = i >= kColumns && now[i - kColumns] != 0;
    const bool above = i + kColumns < now.size() && now[i + kColumns] != 0;
    return now[i] != 0 || left || right || below || above;
  }

  bool is_seen(const Simulation& game, const Vector3d& place) const {
    const Kind& guest = level_.kind_of(level_.agents.back());
    LookedAt body;
    body.feet = place;
    body.height = guest.height;
    body.body_points = guest.body_points;
    body.radius = guest.radius;
    for (const AgentId agent : game.agents()) {
      if (can_see(world_, game.looker(agent), body)) return true;
    }
    return false;
  }

  const Level& level_;
  World world_;
  std::vector<bool> free_;
};

TEST(Sneak, AgreesWithAFineGridInRandomRooms) {
  int found = 0;
  int none = 0;
  int undecided = 0;
  const std::uint64_t rooms = testing::rounds(testing::is_sanitized() ? 50 : 200);
  for (std::uint64_t seed = 1; seed <= rooms; ++seed) {
    Level level = testing::garden(room(seed));
    complete(level);
    SneakTask task;
    task.agent = "guest";
    task.to = kGoal;
    task.names_change = false;
    Sneak answer;
    try {
      answer = sneak(level, task);
    } catch (const UsageError&) {
      continue;  // a block stands at one end
    }
    if (answer.outcome == Sneak::Outcome::found) {
      ++found;
      EXPECT_FALSE(is_noticed_on(level, answer.track)) << seed;
      EXPECT_LT((answer.track.points.back().place - kGoal).norm(), 1e-6) << seed;
    } else if (answer.outcome == Sneak::Outcome::none) {
      ++none;
      // Where evidence has to gather, more may pass than through what is unseen; never less.
      EXPECT_FALSE(FineGrid(level).has_way()) << seed;
      EXPECT_TRUE(!answer.barriers.empty() || !answer.reason.empty()) << seed;
    } else {
      ++undecided;
      EXPECT_FALSE(answer.reason.empty());
    }
  }
  RecordProperty("found", found);
  RecordProperty("none", none);
  RecordProperty("undecided", undecided);
  fmt::print("{} found, {} none, {} undecided\n", found, none, undecided);
  if (testing::is_sanitized()) return;
  EXPECT_GT(found, testing::enough(40));
  EXPECT_GT(none, testing::enough(20));
  EXPECT_LT(undecided, found + none);
}

// A corridor that a lamp looks along: shut, and open again once its range is shorter.
constexpr const char* kCorridor = R"(
seconds = 20.0
[kind.lamp]
team = "caretakers"
sight = { range = 9.0, field_of_view = 60.0 }
[kind.guest]
team = "visitors"
move = { speed = 2.0, quiet_reach = 1.0 }
[[wall]]
id = "sides"
material = "brick"
path = [[0, 0], [12, 0], [12, 1.6], [0, 1.6], [0, 0]]
height = 3.0
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [11.0, 0.8]
facing = 180.0
[[agent]]
id = "guest"
kind = "guest"
at = [1.0, 0.8]
driver = "host"
)";

TEST(Sneak, NamesTheBarrierAndTheLeastChange) {
  const Level level = testing::garden(kCorridor);
  SneakTask task;
  task.agent = "guest";
  task.to = {6.0, 0.8, 0.0};
  const Sneak answer = sneak(level, task);
  ASSERT_EQ(answer.outcome, Sneak::Outcome::none);
  ASSERT_EQ(answer.barriers.size(), 1U);
  const SneakBarrier& barrier = answer.barriers[0];
  EXPECT_EQ(barrier.watcher, "lamp-1");
  EXPECT_NEAR(barrier.place.x(), 2.0, 0.6);  // 9 m before it
  EXPECT_EQ(barrier.from, 0.0);
  EXPECT_NEAR(barrier.to, 20.0, 0.2);
  // To get to 5 m before it, its range has to be shorter than that.
  ASSERT_TRUE(barrier.range);
  EXPECT_LE(*barrier.range, 5.0);
  EXPECT_GE(*barrier.range, 5.0 - 9.0 / 100.0 - 0.3);
  Level shorter = level;
  shorter.kinds[0].sight->range = *barrier.range;
  EXPECT_EQ(sneak(shorter, task).outcome, Sneak::Outcome::found);
}

// Who takes two seconds to notice lets somebody cross its view who is quick.
TEST(Sneak, CountsTheTimeThatNoticingTakes) {
  std::string text = kCorridor;
  text.replace(text.find("range = 9.0"), 11, "range = 9.0, notice_time = 4.0, ebb_time = 0.5");
  const Level level = testing::garden(text);
  SneakTask task;
  task.agent = "guest";
  task.to = {6.0, 0.8, 0.0};
  const Sneak answer = sneak(level, task);
  ASSERT_EQ(answer.outcome, Sneak::Outcome::found);
  EXPECT_GT(answer.most_evidence, 0.3);
  EXPECT_LT(answer.most_evidence, 1.0);
  EXPECT_EQ(answer.by, "lamp-1");
  EXPECT_FALSE(is_noticed_on(level, answer.track));
}

// A patrol that turns its back: the way waits for that.
TEST(Sneak, WaitsUntilAPatrolLooksAway) {
  std::string text = kCorridor;
  text.replace(text.find("facing = 180.0"), 14,
               "facing = 180.0\npatrol = [[11.0, 0.8], { at = [8.0, 0.8], wait = 1.0 }]");
  text.replace(text.find("range = 9.0"), 11, "range = 4.0");
  text.replace(text.find("team = \"caretakers\""), 19,
               "team = \"caretakers\"\nmove = { speed = 1.0 }");
  const Level level = testing::garden(text);
  SneakTask task;
  task.agent = "guest";
  task.to = {6.5, 0.8, 0.0};
  const Sneak answer = sneak(level, task);
  ASSERT_EQ(answer.outcome, Sneak::Outcome::found) << answer.reason;
  EXPECT_FALSE(is_noticed_on(level, answer.track));
}

TEST(Sneak, IsTheSameOnOneThreadAndOnMany) {
  Level level = testing::garden(room(5));
  SneakTask task;
  task.agent = "guest";
  task.to = kGoal;
  StudyOptions one;
  one.threads = 1;
  StudyOptions many;
  many.threads = 4;
  EXPECT_EQ(sneak_json(task, sneak(level, task, one)), sneak_json(task, sneak(level, task, many)));
}

// Whoever wants past has to keep out of its range, which is farther out than anything that stands.
TEST(Sneak, GoesAsFarRoundAsSomebodySees) {
  const Level level = testing::garden(R"(
seconds = 60.0
[kind.lamp]
team = "caretakers"
sight = { range = 15.0, field_of_view = 360.0 }
[kind.guest]
team = "visitors"
move = { speed = 2.0, quiet_reach = 0.0 }
[[block]]
id = "bench"
material = "brick"
outline = [[-1, 3], [1, 3], [1, 4], [-1, 4]]
height = 0.5
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
[[agent]]
id = "guest"
kind = "guest"
at = [-17.0, 0.0]
driver = "host"
)");
  SneakTask task;
  task.agent = "guest";
  task.to = {17.0, 0.0, 0.0};
  const Sneak answer = sneak(level, task);
  ASSERT_EQ(answer.outcome, Sneak::Outcome::found) << answer.reason;
  EXPECT_FALSE(is_noticed_on(level, answer.track));
  // Two tangents of a circle of 15 m, and the arc between them.
  const double tangent = std::sqrt(17.0 * 17.0 - 15.0 * 15.0);
  const double least = 2.0 * tangent + 15.0 * (M_PI - 2.0 * std::acos(15.0 / 17.0));
  EXPECT_GT(answer.seconds, least / 2.0);
  EXPECT_LT(answer.seconds, least / 2.0 * 1.12);  // ways over a grid of eight directions
}

// The ground, a deck over a part of it, and a ramp up to it: with a lamp on one of the two floors.
// Whoever goes can get everywhere; what the lamp sees on one floor it does not see on the other.
std::string two_floors(const std::string& lamp) {
  return R"(
plane = "space"
seconds = 20.0
[kind.lamp]
team = "caretakers"
sight = { range = 2.5, field_of_view = 360.0 }
[kind.guest]
team = "visitors"
move = { speed = 2.0, quiet_reach = 0.0 }
[[floor]]
id = "deck"
material = "brick"
outline = [[4, -3], [12, -3], [12, 3], [4, 3]]
top = 2.6
[[ramp]]
id = "ramp"
material = "brick"
from = [-1, 0, 0]
to = [4, 0, 2.6]
width = 1.6
[[agent]]
id = "lamp-1"
kind = "lamp"
at = )" + lamp +
         R"(
[[agent]]
id = "guest"
kind = "guest"
at = [-3.0, 0.0, 0.0]
driver = "host"
)";
}

TEST(Sneak, GoesUpRampsAndUnderDecks) {
  for (const double height : {0.0, 2.6}) {
    const Level level = testing::garden(two_floors(fmt::format("[8.0, 0.0, {}]", height)));
    SneakTask task;
    task.agent = "guest";
    for (const double goal : {0.0, 2.6}) {
      task.to = {8.0, 1.5, goal};  // 1.5 m beside the lamp, or right above or below that
      const Sneak answer = sneak(level, task);
      const bool is_beside = goal == height;
      EXPECT_EQ(answer.outcome, is_beside ? Sneak::Outcome::none : Sneak::Outcome::found)
          << height << " " << goal << " " << answer.reason;
      if (is_beside) {
        ASSERT_FALSE(answer.barriers.empty());
        EXPECT_EQ(answer.barriers[0].watcher, "lamp-1");
      } else {
        EXPECT_FALSE(is_noticed_on(level, answer.track));
        EXPECT_LT((answer.track.points.back().place - task.to).norm(), 1e-6);
        for (const TrackPoint& point : answer.track.points) {
          const double up = std::clamp((point.place.x() + 1.0) / 5.0, 0.0, 1.0) * 2.6;
          EXPECT_NEAR(point.place.z(), goal == 0.0 ? 0.0 : up, 0.15);
        }
      }
    }
  }
}

// Who does not look for it does not matter; and what cannot be known is not said to be proven.
TEST(Sneak, CountsThoseAloneWhoLookForSomebody) {
  std::string text = kCorridor;
  text.replace(
      text.find("[kind.guest]"), 12,
      "[kind.lamp.choose]\nkinds = ['other']\n[kind.other]\nteam = 'visitors'\n[kind.guest]");
  SneakTask task;
  task.agent = "guest";
  task.to = {6.0, 0.8, 0.0};
  EXPECT_EQ(sneak(testing::garden(text), task).outcome, Sneak::Outcome::found);
  std::string tags = kCorridor;
  tags.replace(tags.find("[kind.guest]"), 12,
               "[kind.lamp.choose]\ntags = ['loud']\n[kind.guest]\ntags = ['loud']");
  EXPECT_EQ(sneak(testing::garden(tags), task).outcome, Sneak::Outcome::none);
  tags += "[[zone]]\nid = 'cloak'\noutline = [[0, 0], [2, 0], [2, 1], [0, 1]]\ntakes = ['loud']\n";
  EXPECT_NE(sneak(testing::garden(tags), task).outcome, Sneak::Outcome::none);
  std::string followed = kCorridor;
  followed += "[kind.dog]\nteam = 'visitors'\nmove = { speed = 2.0, follows = ['guest'] }\n" +
              testing::placed("dog-1", "dog", "[1.5, 0.8]", "");
  const Sneak answer = sneak(testing::garden(followed), task);
  EXPECT_EQ(answer.outcome, Sneak::Outcome::undecided);
  EXPECT_NE(answer.reason.find("dog-1 follows guest"), std::string::npos) << answer.reason;
}

class SneakCommand : public testing::InTemporaryFolder {};

TEST_F(SneakCommand, WritesATrackThatCanBePlayed) {
  std::string text = kCorridor;
  text.replace(text.find("range = 9.0"), 11, "range = 3.0");
  const std::string level = write("level.toml", text + testing::kTeams);
  const std::string track = folder / "way.csv";
  const std::string png = folder / "way.png";
  const auto answer = testing::gaze_call(
      {"sneak", level, "--agent", "guest", "--to", "6,0.8", "--track", track, "--output", png});
  EXPECT_EQ(answer.status, 0) << answer.err;
  EXPECT_NE(answer.out.find("guest gets to [6.00, 0.80] unnoticed in 2.5"), std::string::npos)
      << answer.out;
  EXPECT_TRUE(std::filesystem::exists(png));
  const auto run = testing::gaze_call({"run", level, "--set", "agent.guest.track=way.csv", "--set",
                                       "agent.guest.driver=track", "--only", "noticed"});
  EXPECT_EQ(run.status, 0) << run.err;
  EXPECT_NE(run.out.find("nothing of this happened"), std::string::npos) << run.out;
  const auto error = [&](const std::vector<std::string>& more) {
    std::vector<std::string> arguments{"sneak", level};
    arguments.insert(arguments.end(), more.begin(), more.end());
    const auto wrong = testing::gaze_call(arguments);
    EXPECT_EQ(wrong.status, 2);
    return wrong.err;
  };
  EXPECT_NE(error({"--agent", "gest", "--to", "6,0.8"}).find("did you mean 'guest'"),
            std::string::npos);
  EXPECT_NE(error({"--agent", "guest", "--to", "6,0"}).find("is off the floor"), std::string::npos);
  EXPECT_NE(error({"--agent", "guest", "--to", "6,0.8", "--body", "lmp"}).find("no kind 'lmp'"),
            std::string::npos);
}

}  // namespace
}  // namespace gaze
