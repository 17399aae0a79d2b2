// Going back: a ring of the last ten steps to go back to each frame, and a save that goes to
// another player.
#include "garden.hpp"

#include <array>

namespace {

void step(gaze::Simulation& game, double x) {
  game.set_pose(game.agent("player"), {x, 1.0, 0.0}, {});
  game.step();
}

}  // namespace

int main() {
  gaze::Level level = garden();
  for (int i = 0; i < 8; ++i) {
    gaze::Agent guard;
    guard.id = "guard-" + std::to_string(i);
    guard.position = {-3.0, 2.0 * i - 8.0, 0.0};
    level.agents.push_back(guard);
  }
  const gaze::Prepared prepared(level);
  gaze::Simulation game(prepared);
  std::array<gaze::Simulation, 10> ring{game, game, game, game, game, game, game, game, game, game};

  // The other player's moves come three steps late: what was guessed is played again.
  for (int now = 0; now < 300; ++now) {
    ring[static_cast<std::size_t>(now % 10)] = game;  // over an old copy: no memory is asked for
    step(game, 6.0 - 0.02 * now);
    if (now < 3) continue;
    game = ring[static_cast<std::size_t>((now - 3) % 10)];
    for (int again = now - 3; again <= now; ++again) step(game, 6.0 - 0.02 * again);
  }
  gaze::Simulation straight(prepared);
  for (int now = 0; now < 300; ++now) step(straight, 6.0 - 0.02 * now);
  need(game.digest() == straight.digest(), "going back and on leads to the same game");

  const std::vector<std::byte> save = game.save();
  gaze::Simulation elsewhere(level);
  elsewhere.restore(save);
  for (int now = 300; now < 500; ++now) {
    step(game, 1.0);
    step(elsewhere, 1.0);
  }
  need(game.digest() == elsewhere.digest(), "a save goes on as the game it is of");

  std::vector<std::byte> damaged = save;
  damaged[damaged.size() / 2] ^= std::byte{1};
  const std::uint64_t before = elsewhere.digest();
  try {
    elsewhere.restore(damaged);
    need(false, "a damaged save is refused");
  } catch (const gaze::SaveError&) {
  }
  need(elsewhere.digest() == before, "and changes nothing");
  std::printf("rollback works\n");
}
