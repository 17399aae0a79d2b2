#include <fmt/format.h>

#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

/// "X,Y", or "X,Y,Z" where heights can differ; otherwise at the height of the floor there.
Vector3d place_of(const Level& level, const std::string& text, const char* option) {
  std::vector<double> numbers;
  std::size_t start = 0;
  while (start <= text.size()) {
    const std::size_t comma = std::min(text.find(',', start), text.size());
    const std::string part = text.substr(start, comma - start);
    std::size_t used = 0;
    try {
      numbers.push_back(std::stod(part, &used));
    } catch (const std::exception&) {
      used = 0;
    }
    const bool is_number = used > 0 && used == part.size() && std::abs(numbers.back()) <= 20'000.0;
    if (!is_number) {
      throw std::invalid_argument(fmt::format(
          "{} {}: numbers with a comma between are needed, each within 20000 m", option, text));
    }
    start = comma + 1;
  }
  const bool has_height = numbers.size() == 3 && level.plane == Plane::space;
  if (numbers.size() != 2 && !has_height) {
    throw std::invalid_argument(fmt::format("{} {} has {} numbers; {} needed in this level", option,
                                            text, numbers.size(),
                                            level.plane == Plane::space ? "2 or 3 are" : "2 are"));
  }
  if (level.plane == Plane::upright) return {numbers[0], 0.0, numbers[1]};
  return {numbers[0], numbers[1], has_height ? numbers[2] : level.ground_height.value_or(0.0)};
}

}  // namespace

int path(const PathOptions& options, const Streams& streams) {
  PictureOptions picture;
  if (!options.output.empty()) picture.format = picture_format(options.output);
  const Level level = read(options.level);
  const Vector3d from = place_of(level, options.from, "--from");
  const Vector3d to = place_of(level, options.to, "--to");
  const Kind& kind = kind_called(level, options.kind);
  const World world(level);
  const NavigationMesh mesh(level, world, body_of(level, kind));
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
