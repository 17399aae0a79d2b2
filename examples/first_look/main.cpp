// Reads a level, plays it, prints what happens, and asks one question with its answer's reasons.
//
//   first_look [LEVEL] [LOOKER OTHER]

#include <fmt/core.h>
#include <gaze/gaze.hpp>

int main(int argc, char** argv) {
  try {
    const gaze::Level level = gaze::read_level(argc > 1 ? argv[1] : "demo/propagation_house.toml");
    gaze::Simulation simulation(level);

    while (simulation.seconds() < 20.0) {
      simulation.step();
      for (const gaze::Event& event : simulation.events()) {
        fmt::print("{}\n", simulation.describe(event));
      }
    }

    const gaze::Verdict verdict =
        simulation.look(argc > 3 ? argv[2] : "sprinkler-2", argc > 3 ? argv[3] : "collector");
    fmt::print("{}\n", gaze::explain(verdict));
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 2;
  }
}
