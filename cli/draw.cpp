#include <fmt/format.h>

#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {

int draw(const DrawOptions& options, const Streams& streams) {
  PictureOptions picture;
  picture.format = picture_format(options.output);
  const Level level = read(options.level);
  const std::int64_t tick = tick_at(level, options.at);
  Simulation simulation(level);
  Trails trails(simulation);
  play(simulation, tick, [&] { trails.add(simulation); });
  write_file(options.output, gaze::draw(simulation, trails, picture));
  streams.err << fmt::format("{} drawn at {:g} s\n", options.output, simulation.seconds());
  return done;
}

}  // namespace gaze::cli
