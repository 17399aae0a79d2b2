#include <fmt/format.h>

#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

// That of the first agent that a mind moves.
const Kind& first_walker(const Level& level) {
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    if (agent.driver == Driver::mind && travels(kind.move.gait)) return kind;
  }
  throw std::invalid_argument("no agent of this level walks by itself: --mesh needs --kind");
}

int draw_mesh(const DrawOptions& options, const Level& level, const PictureOptions& picture,
              const Streams& streams) {
  const Kind& kind = options.kind.empty() ? first_walker(level) : kind_called(level, options.kind);
  const NavigationMesh mesh(level, World(level), body_of(level, kind));
  const MeshPicture drawn{&mesh, nullptr, kind.name, {0.0, 0.0, 0.0}, {0.0, 0.0, 0.0}, "", {}};
  write_file(options.output, gaze::draw(Simulation(level), drawn, picture));
  streams.err << fmt::format("{} drawn: {} polygons, {} islands\n", options.output,
                             mesh.polygon_count(), mesh.islands().size());
  return done;
}

}  // namespace

int draw(const DrawOptions& options, const Streams& streams) {
  PictureOptions picture;
  picture.format = picture_format(options.output);
  const Level level = read(options.level);
  if (options.mesh) return draw_mesh(options, level, picture, streams);
  const std::int64_t tick = tick_at(level, options.at);
  Simulation simulation(level);
  Trails trails(simulation);
  play(simulation, tick, [&] { trails.add(simulation); });
  write_file(options.output, gaze::draw(simulation, trails, picture));
  streams.err << fmt::format("{} drawn at {:g} s\n", options.output, simulation.seconds());
  return done;
}

}  // namespace gaze::cli
