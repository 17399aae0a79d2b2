#include <cstdio>
#include <gaze/gaze.hpp>

int main() {
  gaze::Level level;
  gaze::Solid block;
  block.id = "block";
  block.points = {{1, -1}, {2, -1}, {2, 1}, {1, 1}};
  level.solids.push_back(block);
  const gaze::World world(level);
  const bool blocked = !world.is_clear(gaze::Segment{{0, 0, 1}, {3, 0, 1}}, gaze::Stops::sight);
  gaze::Simulation simulation(gaze::read_level_text("seconds = 1", "inline"));
  simulation.step();
  std::puts(blocked && simulation.tick() == 1 ? "outside works" : "outside fails");
  return blocked ? 0 : 1;
}
