#include <fmt/format.h>

#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
int path(const PathOptions& options, const Streams& streams) {
  PictureOptions picture;
  if (!options.output.empty()) picture.format = picture_format(options.output);
  const Level level = read(options.level);
  const Vector3d from = place_of(level, options.from, "--from");
  const Vector3d to = place_of(level, options.to, "--to");
  const Kind& kind = kind_called(level, options.kind);
  const World world(level);
  const NavigationMesh mesh = mesh_for(level, world, kind, streams);
  const Path path = find_path(mesh, from, to);
  const auto apart = parting(level, world, mesh, path, from, to);
  const std::string reason = explain(level, world, mesh, path, from, to, apart);
  if (!options.output.empty()) {
    const MeshPicture drawn{&mesh, &path, kind.name, from, to, reason, apart};
    write_file(options.output, gaze::draw(Simulation(level), drawn, picture));
    streams.err << fmt::format("{} drawn\n", options.output);
  }
  streams.out << (options.json ? path_json(level, mesh, path, reason)
                               : path_account(level, mesh, path, kind.name, reason));
  return path.outcome == Path::Outcome::whole ? done : check_failed;
}

}  // namespace gaze::cli
