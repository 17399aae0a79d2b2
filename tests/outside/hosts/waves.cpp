// Waves: guards are spawned, fall, and are taken out; a thousand come and go without the game
// growing.
#include "garden.hpp"

#include <vector>

int main() {
  const gaze::Prepared prepared(garden(), {"pruner"});  // whose mesh is made now, and not in play
  gaze::Simulation game(prepared);
  const gaze::AgentId player = game.agent("player");
  std::vector<gaze::AgentId> wave;
  int defeated = 0;
  std::size_t most = 0;

  for (int number = 0; number < 100; ++number) {
    for (int i = 0; i < 10; ++i) {
      wave.push_back(game.spawn("pruner", {-6.0 + i, 2.0 * (i % 3), 0.0}, {}));
    }
    for (int step = 0; step < 30; ++step) {
      game.set_pose(player, {-2.0, 6.0, 0.0}, {});
      game.step();
    }
    for (const gaze::AgentId guard : wave) game.hurt(guard, 1000.0, player);
    for (const gaze::Event& event : game.events({gaze::Event::What::defeated, {}})) {
      defeated += event.other == player;
    }
    game.despawn(wave);
    need(!game.is_there(wave[0]), "who was taken out is told from who is there");
    wave.clear();
    most = std::max(most, game.level().agents.size());
  }
  need(defeated == 1000, "all were defeated by the player");
  need(game.agent_count() == 1, "the player alone is left");
  need(most == 11, "numbers are used again");

  const gaze::AgentId first = game.spawn("pruner", {0.0, 0.0, 0.0}, {}, "boss");
  game.despawn(first);
  const gaze::AgentId second = game.spawn("pruner", {1.0, 0.0, 0.0}, {}, "boss");
  need(second.index == first.index && second != first, "an old handle is not the new boss");
  try {
    static_cast<void>(game.state(first));
    need(false, "an old handle is refused");
  } catch (const gaze::UsageError&) {
  }
  need(gaze::Simulation(game.level()).agent_count() == 2, "the level holds who is there");
  std::printf("waves works\n");
}
