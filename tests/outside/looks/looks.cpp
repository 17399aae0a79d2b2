#include <array>
#include <cstdio>
#include <gaze/sight.hpp>
#include <gaze/version.hpp>
#include <gaze/world.hpp>

static_assert(GAZE_VERSION_MAJOR == 0 && GAZE_VERSION_MINOR == 1);

// A wall 1 m high between two who stand 4 m apart: over it an eye at 1.5 m sees the head, and no
// feet.
int main() {
  gaze::Level level;
  gaze::Solid wall;
  wall.id = "wall";
  wall.points = {{1.9, -1}, {2.1, -1}, {2.1, 1}, {1.9, 1}};
  wall.height = 1.0;
  level.solids.push_back(wall);
  const gaze::World world(level);

  const std::array<double, 2> feet_and_head{0.0, 1.0};
  gaze::Looker looker;
  looker.sight.range = 10.0;
  looker.sight.field_of_view = gaze::Angle::from_degrees(90.0);
  looker.sight.eye = gaze::Vector3d{0.0, 0.0, 1.5};
  gaze::LookedAt other;
  other.feet = {4.0, 0.0, 0.0};
  other.body_points = feet_and_head;
  const gaze::Verdict verdict = gaze::look(world, level, looker, other);
  const bool works = verdict.sees && verdict.line.visible == 0.5;
  std::puts(works ? "looks works" : "looks fails");
  return works ? 0 : 1;
}
