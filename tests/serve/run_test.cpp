#include "serve/run.hpp"

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze::serve {
namespace {

std::shared_ptr<const Prepared> house() {
  return std::make_shared<const Prepared>(read_level(GAZE_DEMO));
}

Input some_input(scenes::Random& random) {
  Input input;
  input.agent = "collector";
  const auto sort = random.next() % 8;
  if (sort == 0) {
    input.deed.emplace().what = HandDeed::What::take;
  } else if (sort == 1) {
    const double x = random.between(0.0, 18.0);
    const double y = random.between(0.0, 11.0);
    input.deed.emplace().what = HandDeed::What::throw_;
    input.deed->place = {x, y, 0.0};
  } else if (sort > 2) {  // else it is let go
    Steering& steering = input.steering.emplace();
    const double x = random.between(-1.0, 1.0);
    const double y = random.between(-1.0, 1.0);
    steering.way = {x, y};
    steering.fires = random.next() % 3 == 0;
    steering.is_quiet = random.next() % 3 == 0;
    if (random.next() % 2 == 0) {
      steering.aim = Vector3d{random.between(0.0, 18.0), 5.0, 0.0};
      steering.is_plan_aim = true;
    }
  }
  return input;
}

/// The same play without any going back: the digest at each tick.
std::vector<std::uint64_t> straight(const Inputs& inputs, std::int64_t end) {
  Simulation game(*house());
  std::vector<std::uint64_t> digests{game.digest()};
  while (game.tick() < end) {
    inputs.apply(game);
    game.step();
    digests.push_back(game.digest());
  }
  return digests;
}

// Plays on, goes to and fro, and does other things from there: at the end every moment is to the
// bit what a play of the same inputs from the beginning has.
TEST(Run, EveryMomentCanBeGoneBackToExactly) {
  const auto prepared = house();
  for (std::uint64_t seed = 1; seed <= testing::rounds(12); ++seed) {
    scenes::Random random(seed);
    serve::Run run(prepared, {});
    for (int i = 0; i < 40; ++i) {
      switch (random.next() % 4) {
        case 0:
          run.change(some_input(random));
          break;
        case 1:
          run.go_to(static_cast<std::int64_t>(random.next() % (std::uint64_t(run.end()) + 1)));
          break;
        default:
          for (std::uint64_t steps = random.next() % 40; steps > 0; --steps) run.step();
      }
    }
    run.go_to(run.end());
    const auto digests = straight(run.inputs(), run.end());
    EXPECT_EQ(run.game().digest(), digests.back()) << seed;
    for (int i = 0; i < 20; ++i) {
      const auto tick = random.next() % digests.size();
      EXPECT_EQ(run.at(static_cast<std::int64_t>(tick)).digest(), digests[tick]) << seed;
      run.go_to(static_cast<std::int64_t>(tick));
      EXPECT_EQ(run.game().digest(), digests[tick]) << seed;
    }
  }
}

// What is known of a run is what a run without any going back tells.
TEST(Run, EventsAndFiguresAreThoseOfThePlay) {
  serve::Run run(house(), {});
  scenes::Random random(5);
  for (int i = 0; i < 30; ++i) {
    run.change(some_input(random));
    for (int j = 0; j < 25; ++j) run.step();
    if (i % 4 == 3) run.go_to(run.end() - 20);
  }
  Simulation game(*house());
  std::vector<std::string> events;
  Figures measures(game, run.figures());
  measures.add(game);
  while (game.tick() < run.end()) {
    run.inputs().apply(game);
    game.step();
    measures.add(game);
    for (const Event& event : game.events()) events.push_back(game.describe(event));
  }
  ASSERT_EQ(run.events().size(), events.size());
  for (std::size_t i = 0; i < events.size(); ++i) {
    EXPECT_EQ(run.game().describe(run.events()[i]), events[i]);
  }
  const auto expected = measures.values();
  const auto values = run.figure_values();
  ASSERT_EQ(values.size(), expected.size());
  for (std::size_t i = 0; i < values.size(); ++i) EXPECT_EQ(values[i].value, expected[i].value);
  EXPECT_GT(events.size(), 20U);
}

TEST(Run, SomethingElseForgetsWhatCameLater) {
  serve::Run run(house(), {});
  run.go_to(600);
  const std::size_t events = run.events().size();
  run.go_to(300);
  EXPECT_EQ(run.end(), 600);
  EXPECT_EQ(run.events().size(), events);
  Input input;
  input.agent = "collector";
  input.steering.emplace().way = {1.0, 0.0};
  run.change(input);
  EXPECT_EQ(run.end(), 300);
  ASSERT_EQ(run.cuts().size(), 1U);
  EXPECT_EQ(run.cuts()[0], run.events().size());
  for (const Event& event : run.events()) EXPECT_LE(event.tick, 300);
  EXPECT_LT(run.events().size(), events);
}

TEST(TrailLog, AreWhereSomebodyHasBeen) {
  serve::Run run(house(), {});
  run.go_to(600);
  const AgentId collector = run.game().agent("collector");
  const auto places = run.trails().of(collector, 0, 600);
  ASSERT_EQ(places.size(), 101U);
  for (std::int64_t i = 0; i < 101; i += 10) {
    const Vector3d place = run.at(i * 6).state(collector).position;
    EXPECT_NEAR(places[std::size_t(i)].x(), place.x(), 1e-5);
    EXPECT_NEAR(places[std::size_t(i)].y(), place.y(), 1e-5);
  }
}

}  // namespace
}  // namespace gaze::serve
