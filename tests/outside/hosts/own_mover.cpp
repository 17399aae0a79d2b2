// A mover of the host's own: the mesh is the host's polygons, paths and a follower lead it, and
// Gaze aims and throws.
#include "garden.hpp"

#include <array>
#include <vector>

int main() {
  const auto tile = [](double x, double y) {
    return std::vector<gaze::Vector3d>{
        {x, y, 0.0}, {x + 4.0, y, 0.0}, {x + 4.0, y + 4.0, 0.0}, {x, y + 4.0, 0.0}};
  };
  const std::vector<std::vector<gaze::Vector3d>> tiles{tile(0, 0), tile(4, 0), tile(8, 0),
                                                       tile(8, 4), tile(8, 8)};
  gaze::BodySize body;
  body.radius = 0.3;
  body.height = 1.8;
  const gaze::NavigationMesh mesh(tiles, body);

  gaze::Vector3d at{1.0, 3.0, 0.0};
  const gaze::Path path = gaze::find_path(mesh, at, {9.0, 11.0, 0.0});
  need(path.outcome == gaze::Path::Outcome::whole, "a way round the corner is found");
  gaze::PathFollower follower(path);
  double walked = 0.0;
  while (const auto next = follower.next(mesh, at)) {
    need(!follower.has_strayed(mesh, at), "the mover stays on it");
    const gaze::Vector3d way = *next - at;
    const double step = std::min(2.0 / 60.0, way.norm());  // 2 m/s in frames of 1/60 s
    at += way * (step / way.norm());
    walked += step;
    need(walked < 100.0, "it comes to the end");
  }
  need(std::abs(walked - path.length) < 0.2, "it has walked as far as the path is long");

  // On the way it throws at somebody who walks: where to aim, and how the ball flies.
  const gaze::Vector3d target{6.0, 2.0, 1.0};
  const gaze::Vector3d motion{0.5, 0.0, 0.0};
  const auto lob =
      gaze::aim_lob(at + gaze::Vector3d{0.0, 0.0, 1.5}, target, motion, 14.0, 9.81, false);
  need(lob.has_value(), "it can be reached");
  gaze::FlightState ball{at + gaze::Vector3d{0.0, 0.0, 1.5}, lob->velocity};
  ball = gaze::flown(ball, 9.81, 0.0, lob->seconds);
  need((ball.place - (target + motion * lob->seconds)).norm() < 1e-9,
       "it comes down where the other is by then");
  std::printf("own_mover works\n");
}
