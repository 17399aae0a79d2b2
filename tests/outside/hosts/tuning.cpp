// Live tuning: values are set while the game goes on, a gate is shut and opened, a guard becomes
// another.
#include "garden.hpp"

int main() {
  gaze::Level level = garden();
  gaze::Kind sleepy = pruner();
  sleepy.name = "sleepy";
  sleepy.when.rules.clear();
  level.kinds.push_back(sleepy);
  gaze::Solid gate;
  gate.id = "gate";
  gate.form = gaze::Solid::Form::wall;
  gate.points = {{-2.0, -40.0}, {-2.0, 40.0}};
  gate.can_go = true;
  level.solids.push_back(gate);
  gaze::Agent guard;
  guard.id = "guard";
  level.agents.push_back(guard);

  gaze::Simulation game(level);
  const gaze::AgentId player = game.agent("player");
  const gaze::AgentId pruner_1 = game.agent("guard");
  const gaze::SolidId the_gate{1};
  const auto play = [&](double x, int steps) {
    for (int i = 0; i < steps; ++i) {
      game.set_pose(player, {x, 0.0, 0.0}, {});
      game.step();
    }
  };

  play(-12.0, 30);
  need(!game.look(pruner_1, player).sees, "the gate is in the way");
  game.set_gone(the_gate, true);
  play(-12.0, 30);
  need(!game.look(pruner_1, player).sees, "12 m are out of its range");
  game.set_value("kind.pruner.sight.range", 15.0);
  need(game.value("kind.pruner.sight.keep_range") == 15.0, "what follows from it follows");
  play(-12.0, 120);
  need(game.look(pruner_1, player).sees, "now it sees");
  need(game.state(pruner_1).position.x() < -3.0, "and walks through where the gate was");

  try {
    game.set_value("kind.pruner.sight.rnage", 3.0);
    need(false, "a misspelt path is refused");
  } catch (const gaze::UsageError& error) {
    need(std::string(error.what()).find("sight.range") != std::string::npos,
         "with the nearest name");
  }

  game.set_kind(pruner_1, "sleepy");
  game.set_value("agent.guard.health", 5.0);  // its own, from now on
  need(game.state(pruner_1).health == 5.0, "its health is that of its kind at most");
  need(game.value("kind.sleepy.health") == 30.0, "others of its kind keep theirs");
  std::printf("tuning works\n");
}
