// A level made in code: what is left out is completed, what is wrong is told with its path, and
// what cannot be played is refused.
#include "garden.hpp"

int main() {
  gaze::Level level = garden();
  need(gaze::validate(level).empty(), "the garden is right");

  gaze::Level wrong = level;
  wrong.kinds[0].sight->range = 0.0;
  const auto faults = gaze::validate(wrong);
  need(faults.size() == 1, "one fault is found");
  need(faults[0].text().find("kind.pruner.sight.range is 0") != std::string::npos,
       "it says where and what");
  try {
    gaze::Simulation refused(wrong);
    need(false, "a simulation refuses it");
  } catch (const gaze::LevelError& error) {
    need(error.faults().size() == 1, "with the same list");
  }

  // A guard that sees: nothing is silently left at 0.
  gaze::Agent guard;
  guard.id = "guard";
  level.agents.push_back(guard);
  gaze::Simulation game(level);
  const gaze::Sight& sight = *game.level().kinds[0].sight;
  need(*sight.keep_range == 8.0, "the range in which it goes on seeing follows its range");
  need(sight.eye->z() > 1.0, "its eye is not at its feet");
  need(game.level().kinds[0].attacks[0].muzzle->z() > 0.8, "its attack comes from its middle");

  const gaze::AgentId player = game.agent("player");
  bool is_noticed = false;
  for (int i = 0; i < 60; ++i) {
    game.set_pose(player, {3.0, 0.0, 0.0}, {});
    game.step();
    is_noticed |= game.noticed_by(game.agent("guard"), player).has_value();
  }
  need(is_noticed, "it notices the player");
  need(game.state(game.agent("guard")).mode == gaze::Mode::chase, "and chases it");
  std::printf("made_in_code works\n");
}
