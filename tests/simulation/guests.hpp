#pragma once

#include "support/levels.hpp"

/// A few kinds to come and go, and all that is told of them.
namespace gaze::testing {

inline const char* const kKinds = R"(
[kind.pruner]
team = "caretakers"
health = 50
[kind.pruner.sight]
range = 12
field_of_view = 360
remember = 2
[kind.pruner.move]
speed = 2
[kind.pruner.attack.shears]
how = "strike"
range = 1
damage = 10
cooldown = 1
[kind.pruner.defeat]
leaves = "clippings"
[kind.pruner.when]
sees = "chase"
[kind.reed]
team = "caretakers"
health = 30
[kind.reed.sight]
range = 6
field_of_view = 360
[kind.reed.attack.thorn]
how = "shot"
range = 20
damage = 5
speed = 10
cooldown = 1
[kind.clippings]
[kind.guest]
team = "visitors"
)";

inline Level house(const std::string& agents) {
  return testing::garden(kKinds + agents);
}

inline std::string all_told(Simulation& game, int steps) {
  std::string text;
  for (int i = 0; i < steps; ++i) {
    game.step();
    for (const Event& event : game.events()) {
      text += std::to_string(event.tick) + " " + game.describe(event) + "\n";
    }
  }
  return text;
}

}  // namespace gaze::testing
