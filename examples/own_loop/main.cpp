// A host with its own loop: frames of uneven length, and a player whose position the host keeps.
// Gaze is told where the player is and given the time of each frame; it takes as many whole steps
// as fit, and the host reads what happened.

#include <fmt/core.h>

#include <cmath>
#include <gaze/gaze.hpp>

namespace {

const char* const kLevel = R"(
plane = "ground"
ticks_per_second = 60
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
[[wall]]
id = "wall"
material = "brick"
path = [[-2.0, 2.5], [2.0, 2.5]]
[kind.sprinkler]
team = "caretakers"
[kind.sprinkler.move]
gait = "fixed"
[kind.sprinkler.sight]
range = 8.0
field_of_view = 360.0
[kind.sprinkler.attack.jet]
how = "shot"
speed = 12.0
damage = 4
cooldown = 0.5
range = 8.0
[kind.collector]
team = "visitors"
[[agent]]
id = "sprinkler"
kind = "sprinkler"
at = [0.0, 0.0]
facing = 90.0
[[agent]]
id = "player"
kind = "collector"
at = [5.0, 5.0]
driver = "host"
)";

// The host's own player: it walks a circle round the sprinkler, five metres off, and stops for
// breath every other second.
struct Player {
  double angle = 45.0;  // degrees
  double speed = 3.0;   // metres a second
  double clock = 0.0;

  void move(double seconds) {
    clock += seconds;
    if (std::fmod(clock, 2.0) < 1.0) angle += speed / 5.0 * seconds * 180.0 / 3.14159265358979;
  }
  gaze::Vector3d position() const {
    const gaze::SineCosine way = gaze::sine_cosine(gaze::Angle::from_degrees(angle));
    return {5.0 * way.cosine, 5.0 * way.sine, 0.0};
  }
};

// A machine that stutters: frames between 6 and 40 milliseconds.
double frame_length(int frame) {
  return 0.023 + 0.017 * std::sin(frame * 1.7);
}

}  // namespace

int main() {
  const gaze::Level level = gaze::read_level_text(kLevel, "own_loop");
  gaze::Simulation simulation(level);
  const gaze::AgentId id = simulation.agent("player");
  Player player;
  double clock = 0.0;
  for (int frame = 0; clock < 12.0; ++frame) {
    const double seconds = frame_length(frame);
    clock += seconds;
    player.move(seconds);
    simulation.set_pose(id, player.position(), gaze::Angle::from_degrees(player.angle + 90.0));
    simulation.advance(seconds);
    for (const gaze::Event& event : simulation.events()) {
      fmt::print("frame {:3}, {:6.3f} s: {}\n", frame, simulation.seconds(),
                 simulation.describe(event));
    }
  }
  fmt::print("{:g} health left after {:.1f} s\n", simulation.state(id).health, clock);
}
