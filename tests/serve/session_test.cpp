#include "serve/session.hpp"

#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <fstream>
#include <limits>
#include <thread>

#include "fuzz/level_writer.hpp"
#include "gaze/tools/differences.hpp"
#include "scenes.hpp"
#include "serve/changes.hpp"
#include "serve/overlay.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze::serve {
namespace {

namespace fs = std::filesystem;

constexpr const char* kYard = R"(# A yard, for one evening.
seconds = 10.0

[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]

[kind.lamp]              # it hangs by the door
team = "caretakers"
sight = { range = 5.0, field_of_view = 90.0 }   # metres, degrees

[kind.guest]
team = "visitors"
move = { speed = 2.0 }

[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
facing = 0.0

[[agent]]
id = "guest-1"
kind = "guest"
at = [8.99, 0.0]
script = [{ go = [2.0, 0.0] }]
)";

class Sessions : public testing::InTemporaryFolder {
 protected:
  void SetUp() override {
    InTemporaryFolder::SetUp();
    write("yard.toml", kYard);
  }
  Session session(const std::vector<Setting>& given = {}) const {
    return Session(folder / "yard.toml", given, [](const fs::path& file, const std::string& text) {
      std::ofstream(file, std::ios::binary) << text;
    });
  }
  std::string text_of(const std::string& name) const {
    std::ifstream in(folder / name, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>()};
  }
};

std::optional<double> first_noticed(const Session& session) {
  for (const Event& event : session.run().events()) {
    if (event.what != Event::What::noticed) continue;
    return static_cast<double>(event.tick) / session.game().level().ticks_per_second;
  }
  return std::nullopt;
}

Steering going(double x, double y) {
  Steering steering;
  steering.way = {x, y};
  return steering;
}

// The guest comes at 2 m a second from 8.99 m off: within a range of 5 m after 2 s, of 7 m after 1
// s.
TEST_F(Sessions, TriesAValueOnTheSamePlay) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 16; ++i) session.advance(0.25);
  session.pause();
  ASSERT_EQ(session.game().tick(), 240);
  EXPECT_NEAR(*first_noticed(session), 2.0, 0.02);
  session.try_value("kind.lamp.sight.range", "7.0");
  EXPECT_EQ(session.game().tick(), 240);
  EXPECT_NEAR(*first_noticed(session), 1.0, 0.02);
  ASSERT_TRUE(session.ghost());
  const auto lines = changes(*session.ghost(), session.run());
  ASSERT_EQ(lines.size(), 1U);
  EXPECT_EQ(lines[0], "lamp-1 noticed guest-1 1.00 s earlier (1.00 s, before 2.00 s)");
  // The play before stays what it was while other values are tried.
  session.try_value("kind.lamp.sight.range", "3.0");
  EXPECT_EQ(changes(*session.ghost(), session.run())[0],
            "lamp-1 noticed guest-1 1.00 s later (3.00 s, before 2.00 s)");
  session.try_value("kind.lamp.sight.range", "1.0");
  EXPECT_EQ(changes(*session.ghost(), session.run())[0],
            "no longer: lamp-1 noticed guest-1 (before at 2.00 s)");
  session.drop_values();
  EXPECT_NEAR(*first_noticed(session), 2.0, 0.02);
  EXPECT_FALSE(session.ghost());
  EXPECT_EQ(text_of("yard.toml"), kYard);
}

// The ghost is the play before the value, not one from before that.
TEST_F(Sessions, ATriedValueIsHeldAgainstThePlayJustBefore) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 16; ++i) session.advance(0.25);
  session.restart();
  session.play();
  session.steer("guest-1", going(-0.5, 0.0));  // at half the speed: it is seen after 4 s
  for (int i = 0; i < 20; ++i) session.advance(0.25);
  session.try_value("kind.lamp.sight.range", "7.0");
  EXPECT_EQ(changes(*session.ghost(), session.run())[0],
            "lamp-1 noticed guest-1 2.00 s earlier (2.00 s, before 4.00 s)");
}

TEST_F(Sessions, KeepsWhatTheHandDidUnderAnotherValue) {
  Session session = this->session();
  session.play();
  session.steer("guest-1", going(0.0, 1.0));
  for (int i = 0; i < 4; ++i) session.advance(0.25);
  session.try_value("kind.guest.move.speed", "1.0");
  const Vector3d place = session.game().state(session.game().agent("guest-1")).position;
  EXPECT_NEAR(place.y(), 1.0, 1e-9);  // one second at the new speed
  EXPECT_NEAR(place.x(), 8.99, 1e-9);
}

// At another rate of steps the hand does the same at the same times.
TEST_F(Sessions, KeepsTimesAtAnotherRate) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 4; ++i) session.advance(0.25);
  session.steer("guest-1", going(0.0, 1.0));
  for (int i = 0; i < 4; ++i) session.advance(0.25);
  for (const char* rate : {"20", "240", "144"}) {
    session.try_value("ticks_per_second", rate);
    EXPECT_NEAR(session.game().seconds(), 2.0, 1e-9) << rate;
    const Vector3d place = session.game().state(session.game().agent("guest-1")).position;
    EXPECT_NEAR(place.x(), 6.99, 1e-6) << rate;  // one second west at 2 m/s, then one north
    EXPECT_NEAR(place.y(), 2.0, 1e-6) << rate;
  }
}

TEST_F(Sessions, RefusesValuesThatCannotBe) {
  Session session = this->session();
  session.go_to(0);
  for (const auto& [path, value] :
       std::vector<std::pair<std::string, std::string>>{{"kind.lamp.sight.range", "-1"},
                                                        {"kind.lump.sight.range", "4"},
                                                        {"kind.lamp.sight.range", "far"},
                                                        {"kind.lamp.sight.rang", "4"},
                                                        {"", "4"}}) {
    EXPECT_THROW(session.try_value(path, value), LevelError) << path << " " << value;
  }
  EXPECT_TRUE(session.tried().empty());
  EXPECT_EQ(session.game().level().kinds[0].sight->range, 5.0);
}

TEST_F(Sessions, KeepWritesTheValueAloneAndUndoTakesItBack) {
  Session session = this->session();
  session.try_value("kind.lamp.sight.range", "7");
  session.try_value("agent.lamp-1.facing", "30");
  session.keep_values();
  std::string expected = kYard;
  expected.replace(expected.find("range = 5.0"), 11, "range = 7.0");
  expected.replace(expected.find("facing = 0.0"), 12, "facing = 30.0");
  EXPECT_EQ(text_of("yard.toml"), expected);
  EXPECT_TRUE(session.tried().empty());
  EXPECT_EQ(session.game().level().kinds[0].sight->range, 7.0);
  session.look_at_files();  // what it wrote itself is no news
  EXPECT_TRUE(session.faults().empty());
  session.undo();
  EXPECT_EQ(text_of("yard.toml"), kYard);
  EXPECT_EQ(session.game().level().kinds[0].sight->range, 5.0);
  EXPECT_THROW(session.undo(), UsageError);
}

// What cannot be written whole is not written at all, and stays tried.
TEST_F(Sessions, KeepWritesAllFilesOrNone) {
  fs::copy(fs::path(GAZE_DEMO).parent_path(), folder, fs::copy_options::recursive);
  int left = 1;
  Session session(folder / "propagation_house.toml", {},
                  [&](const fs::path& file, const std::string& text) {
                    if (left-- == 0) throw std::runtime_error("the disk is full");
                    std::ofstream(file, std::ios::binary) << text;
                  });
  const std::string house = text_of("propagation_house.toml");
  const std::string kinds = text_of("garden_kinds.toml");
  session.try_value("kind.sprinkler.sight.range", "7");
  session.try_value("agent.sprinkler-1.facing", "30");
  EXPECT_THROW(session.keep_values(), std::runtime_error);
  EXPECT_EQ(text_of("propagation_house.toml"), house);
  EXPECT_EQ(text_of("garden_kinds.toml"), kinds);
  EXPECT_EQ(session.tried().size(), 2U);
  left = 10;
  session.keep_values();
  EXPECT_NE(text_of("propagation_house.toml"), house);
  EXPECT_NE(text_of("garden_kinds.toml"), kinds);
}

TEST_F(Sessions, UndoLeavesAFileThatSomebodyChanged) {
  Session session = this->session();
  session.try_value("kind.lamp.sight.range", "7");
  session.keep_values();
  write("yard.toml", text_of("yard.toml") + "# mine\n");
  EXPECT_THROW(session.undo(), UsageError);
  EXPECT_TRUE(text_of("yard.toml").ends_with("# mine\n"));
}

TEST_F(Sessions, FollowsItsFile) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 16; ++i) session.advance(0.25);
  const int level = session.revisions().level;
  session.look_at_files();
  EXPECT_EQ(session.revisions().level, level);  // nothing has changed
  std::string text = kYard;
  text.replace(text.find("range = 5.0"), 11, "range = 7.25");
  write("yard.toml", text);
  session.look_at_files();
  EXPECT_EQ(session.revisions().level, level + 1);
  EXPECT_EQ(session.game().tick(), 240);
  EXPECT_NEAR(*first_noticed(session), 0.875, 0.02);
  ASSERT_TRUE(session.ghost());

  write("yard.toml", text + "[kind.lamp\n");
  session.look_at_files();
  ASSERT_EQ(session.faults().size(), 1U);
  EXPECT_EQ(session.faults()[0].place.line, std::count(text.begin(), text.end(), '\n') + 1);
  EXPECT_EQ(session.revisions().level, level + 1);  // the last good level goes on
  EXPECT_EQ(session.game().level().kinds[0].sight->range, 7.25);
  write("yard.toml", text + "\n");
  session.look_at_files();
  EXPECT_TRUE(session.faults().empty());
  fs::remove(folder / "yard.toml");
  session.look_at_files();
  EXPECT_EQ(session.faults().size(), 1U);
}

TEST_F(Sessions, PlaysOnDifferentlyFromAnyMoment) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 20; ++i) session.advance(0.25);
  EXPECT_TRUE(first_noticed(session));
  session.go_to(60);
  EXPECT_EQ(session.run().end(), 300);
  session.steer("guest-1", going(1.0, 0.0));  // away
  EXPECT_EQ(session.run().end(), 60);
  for (int i = 0; i < 16; ++i) session.advance(0.25);
  EXPECT_EQ(session.run().end(), 300);
  EXPECT_FALSE(first_noticed(session));
  ASSERT_TRUE(session.ghost());
  EXPECT_EQ(changes(*session.ghost(), session.run())[0],
            "no longer: lamp-1 noticed guest-1 (before at 2.00 s)");
}

TEST_F(Sessions, PausesWhereTheLevelEnds) {
  Session session = this->session();
  session.play();
  for (int i = 0; i < 50; ++i) session.advance(0.25);
  EXPECT_FALSE(session.is_playing());
  EXPECT_EQ(session.game().tick(), 600);
  session.play();
  session.advance(0.25);
  EXPECT_EQ(session.game().tick(), 615);
  session.set_pace(4.0);
  session.advance(0.25);
  EXPECT_EQ(session.game().tick(), 675);
  session.step(-5);
  EXPECT_EQ(session.game().tick(), 670);
  EXPECT_FALSE(session.is_playing());
  EXPECT_THROW(session.set_pace(0.0), UsageError);
  EXPECT_THROW(session.set_pace(9.0), UsageError);
}

TEST_F(Sessions, RefusesHandsThatCannotBe) {
  Session session = this->session();
  EXPECT_THROW(session.steer("lamp-1", {}), UsageError);
  EXPECT_THROW(session.steer("nobody", {}), UsageError);
  EXPECT_THROW(session.let_go("nobody"), UsageError);
  EXPECT_THROW(session.choose_player("lamp-1"), UsageError);
  EXPECT_THROW(session.by_hand("guest-1", {}), UsageError);  // nothing lies about
  EXPECT_TRUE(session.run().inputs().empty());
}

// Of levels of every sort: a number of theirs, kept and taken back, leaves the file to the byte,
// and what is written says that number and nothing else.
TEST_F(Sessions, KeepAndUndoLeaveAnyLevelAsItWas) {
  int kept = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(30); ++seed) {
    fuzz::Choices choices(seed);
    const std::string text = fuzz::write_level(choices);
    write("level.toml", text);
    scenes::Random random(seed);
    try {
      Session session(folder / "level.toml", {}, [](const fs::path& file, const std::string& all) {
        std::ofstream(file, std::ios::binary) << all;
      });
      const Level& level = session.game().level();
      const Kind& kind = level.kinds[random.next() % level.named_kinds];
      const char* keys[] = {"radius", "health", "height", "mass", "visibility"};
      const std::string path =
          fmt::format("kind.{}.{}", kind.name, keys[random.next() % std::size(keys)]);
      session.try_value(path, fmt::format("{:.2f}", random.between(0.2, 0.9)));
      session.keep_values();
      write("before.toml", text);
      const auto differing = differences(folder / "before.toml", {}, folder / "level.toml", {});
      ASSERT_LE(differing.size(), 1U) << seed;
      for (const ValueDifference& one : differing) EXPECT_EQ(one.path, path);
      session.undo();
      ++kept;
    } catch (const LevelError&) {
      // Not every level can be played, nor with every value.
    }
    ASSERT_EQ(text_of("level.toml"), text) << seed;
  }
  if (testing::is_sanitized()) return;
  EXPECT_GT(kept, testing::enough(10));
}

std::vector<std::string> events_of(const Session& session) {
  std::vector<std::string> texts;
  for (const Event& event : session.run().events()) {
    if (event.what == Event::What::arrived || event.what == Event::What::blocked) continue;
    texts.push_back(std::to_string(event.tick) + " " + session.game().describe(event));
  }
  return texts;
}

// A take is a track: played from it, the same happens.
TEST_F(Sessions, ATakePlaysTheSame) {
  fs::copy(fs::path(GAZE_DEMO).parent_path(), folder, fs::copy_options::recursive);
  Session session(
      folder / "propagation_house.toml", {},
      [](const fs::path& file, const std::string& text) { std::ofstream(file) << text; });
  session.play();
  for (int i = 0; i < 40; ++i) {
    session.advance(0.25);
    const double turn = 0.7 * i;
    if (i % 3 == 0) session.steer("collector", going(std::cos(turn), std::sin(turn)));
    if (i == 20) session.by_hand("collector", {HandDeed::What::throw_, {6.0, 5.0, 0.0}});
  }
  const auto before = events_of(session);
  const std::int64_t end = session.run().end();
  EXPECT_EQ(session.takes(), std::vector<std::string>{});
  session.save_take("evening-1", "collector");
  EXPECT_EQ(session.takes(), std::vector<std::string>{"evening-1"});
  session.load_take("evening-1", "collector");
  EXPECT_EQ(session.game().tick(), 0);
  session.play();
  while (session.game().tick() < end) session.advance(1.0 / 60.0);
  const auto after = events_of(session);
  EXPECT_GE(before.size(), 10U);
  EXPECT_EQ(after, before);
  for (const char* name : {"", "../evil", "a/b", "a.b", "/etc/passwd"}) {
    EXPECT_THROW(session.save_take(name, "collector"), UsageError) << name;
    EXPECT_THROW(session.load_take(name, "collector"), UsageError) << name;
  }
  EXPECT_THROW(session.load_take("no-such-take", "collector"), LevelError);
  write("notes.csv", "this is mine\n");
  EXPECT_THROW(session.save_take("notes", "collector"), UsageError);
}

// A pipe without a writer, a link to a device, and a sparse file of 3 GB.
TEST_F(Sessions, PipesAndEndlessLinesAreNoTakes) {
  Session yard = session();
  ASSERT_EQ(mkfifo((folder / "pipe.csv").c_str(), 0600), 0);
  fs::create_symlink("/dev/zero", folder / "zero.csv");
  fs::resize_file(write("line.csv", "tim"), 3'000'000'000);
  yard.save_take("walk", "guest-1");
  EXPECT_EQ(yard.takes(), std::vector<std::string>{"walk"});
}

TEST_F(Sessions, TakesAreWrittenIntoTheFolderAlone) {
  Session yard = session();
  const fs::path outside = folder / "outside";
  fs::create_directory(outside);
  std::ofstream(outside / "of-another.csv") << "time,x\n";
  fs::create_symlink(outside / "of-another.csv", folder / "walk.csv");
  EXPECT_THROW(yard.save_take("walk", "guest-1"), UsageError);
  std::ifstream in(outside / "of-another.csv");
  std::string line;
  std::getline(in, line);
  EXPECT_EQ(line, "time,x");
}

// The level file is replaced by a pipe during a run.
TEST_F(Sessions, ALevelThatBecomesAPipeIsAFault) {
  Session yard = session();
  fs::remove(folder / "yard.toml");
  ASSERT_EQ(mkfifo((folder / "yard.toml").c_str(), 0600), 0);
  yard.look_at_files();
  ASSERT_EQ(yard.faults().size(), 1U);
  EXPECT_EQ(yard.faults()[0].message, "is not a regular file");
  yard.step(5);
  EXPECT_EQ(yard.game().tick(), 5);
}

// Each undo restores the file as it was before that writing.
TEST_F(Sessions, UndoTakesBackEachWriting) {
  Session yard = session();
  std::vector<std::string> texts{text_of("yard.toml")};
  for (int i = 0; i < 12; ++i) {
    yard.try_value("kind.lamp.sight.range", std::to_string(3 + i));
    yard.try_value("kind.guest.move.speed", std::to_string(1 + i % 3));
    yard.keep_values();
    texts.push_back(text_of("yard.toml"));
    EXPECT_NE(texts.back(), texts[texts.size() - 2]);
  }
  while (yard.kept() > 0) {
    texts.pop_back();
    yard.undo();
    EXPECT_EQ(text_of("yard.toml"), texts.back());
  }
  EXPECT_EQ(texts.size(), 1U);
}

// The runs of the expectation take 5.2 million ticks each. The next value cancels them.
TEST_F(Sessions, AnotherValueEndsTheCheckOfALongLevel) {
  write("yard.toml",
        std::string(kYard) +
            "[[expect]]\nid = \"seen\"\nfigure = \"guest-1.warning\"\nat_most = 9\nruns = 50\n");
  Session yard = session();
  yard.try_value("seconds", "86400");
  yard.try_value("seconds", "10");
  const auto begin = std::chrono::steady_clock::now();
  const auto waited = [&] { return std::chrono::steady_clock::now() - begin; };
  while (!yard.checker().checked().is_done && waited() < std::chrono::seconds(20)) {
    std::this_thread::sleep_for(std::chrono::milliseconds(5));
  }
  EXPECT_TRUE(yard.checker().checked().is_done);
  yard.try_value("seconds", "86400");  // the session ends without waiting for the runs
}

// Two walls, and a turret and a guest between them.
std::string hall_of(double half_width, const std::string& attack) {
  const auto along = [&](double x) { return fmt::format("[[{0}, -30], [{0}, 30]]", x); };
  return "[kind.lamp]\nteam = \"caretakers\"\nmove = { gait = \"fixed\" }\n" + attack +
         "[kind.guest]\nteam = \"visitors\"\n" + testing::placed("lamp", "lamp", "[0.5, 0.25]") +
         testing::placed("guest", "guest", "[0.5, 4.0]") +
         testing::wall("west", along(-half_width)) + testing::wall("east", along(half_width));
}

// The cells within reach do not depend on the width of the level.
TEST(Overlay, OfReachIsTheSameInALevelOfFourKilometres) {
  const std::string strike =
      "[kind.lamp.attack.slap]\nhow = \"strike\"\nrange = 3.0\ndamage = 1\ncooldown = 1\n";
  const Simulation narrow(testing::garden(hall_of(25.0, strike)));
  const Simulation wide(testing::garden(hall_of(2000.0, strike)));
  const Overlay near = reach_overlay(narrow, narrow.agent("lamp"));
  const Overlay far = reach_overlay(wide, wide.agent("lamp"));
  EXPECT_EQ(near.names, far.names);
  ASSERT_EQ(near.marks.size(), far.marks.size());
  EXPECT_GT(near.marks.size(), 20U);
}

// Corners of the smallest box around all marks.
std::array<Vector2d, 2> box_of(const Overlay& overlay) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  std::array<Vector2d, 2> box{Vector2d{kInfinity, kInfinity}, Vector2d{-kInfinity, -kInfinity}};
  for (const Mark& mark : overlay.marks) {
    for (const Vector2d& point : mark.points) {
      box = {box[0].cwiseMin(point), box[1].cwiseMax(point)};
    }
  }
  return box;
}

// The overlay of each sort of attack contains all cells of the whole floor that the attack reaches.
TEST(Overlay, OfReachOmitsNothing) {
  const std::string common = "damage = 1\ncooldown = 1\n";
  const std::string sorts[] = {
      "how = \"strike\"\nrange = 3.0\n" + common,
      "how = \"burst\"\nrange = 2.5\n" + common,
      "how = \"touch\"\n" + common,
      "how = \"shot\"\nrange = 6.0\nspeed = 9.0\nmuzzle = [0.5, 0.3, 0.9]\n" + common,
      "how = \"shot\"\naim = \"lob\"\nrange = 7.0\nspeed = 9.0\nblast_radius = 2.0\n" + common,
      "how = \"beam\"\naim = \"ahead\"\nlocks_on = true\nrange = 4.0\nhold = 1.0\n"
      "muzzle = [1.5, 0.0, 0.9]\n" +
          common,
  };
  std::size_t reached = 0;
  for (const std::string& sort : sorts) {
    SCOPED_TRACE(sort);
    const Simulation game(testing::garden(hall_of(25.0, "[kind.lamp.attack.one]\n" + sort)));
    const AgentId lamp = game.agent("lamp");
    const Kind& guest = *usual_victim(game.level(), game.level().kinds[0]);
    const FreeFloor whole = free_floor(game.level(), game.world(), floor_for(guest, 0.05));
    const auto box = box_of(reach_overlay(game, lamp));
    const std::vector<std::uint8_t> hurt = attack_reach(game, lamp, guest, whole)[0].can_hurt;
    for (int row = 0; row < whole.grid.rows; ++row) {
      for (int column = 0; column < whole.grid.columns; ++column) {
        if (hurt[whole.grid.index(column, row)] == 0) continue;
        ++reached;
        const Vector2d at = whole.grid.middle(column, row);
        ASSERT_GE((at - box[0]).minCoeff(), -0.2);
        ASSERT_GE((box[1] - at).minCoeff(), -0.2);
      }
    }
  }
  EXPECT_GT(reached, 1000U);
}

}  // namespace
}  // namespace gaze::serve
