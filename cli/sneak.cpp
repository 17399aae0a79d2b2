#include <fmt/format.h>

#include <memory>
#include <optional>
#include <ostream>

#include "gaze/tools/picture.hpp"
#include "gaze/tools/report.hpp"
#include "output.hpp"
#include "play.hpp"
#include "study.hpp"

namespace gaze::cli {
namespace {

// The way as it was played, with the trails of all; where there is none, the moment at which the
// barrier begins.
std::string picture_of(Level level, const SneakTask& task, const Sneak& sneak,
                       const PictureOptions& sheet) {
  double end = 0.0;
  for (Agent& agent : level.agents) {
    if (agent.id != task.agent || sneak.outcome != Sneak::Outcome::found) continue;
    agent.script.clear();
    agent.driver = Driver::track;
    agent.track = std::make_shared<const Track>(sneak.track);
    agent.position = sneak.track.points.front().place;
    end = sneak.seconds;
  }
  if (!sneak.barriers.empty()) end = sneak.barriers.front().from;
  Simulation game(level);
  Trails trails(game);
  trails.add(game);
  while (game.seconds() < end) {
    game.step();
    trails.add(game);
  }
  return draw(game, trails, sheet);
}

}  // namespace

int sneak(const SneakOptions& options, const Streams& streams) {
  const Level level = read(options.level);
  SneakTask task;
  task.agent = options.agent;
  task.to = place_of(level, options.to, "--to");
  if (!options.from.empty()) task.from = place_of(level, options.from, "--from");
  task.body = options.body;
  task.spot = options.spot;
  std::optional<OutputFile> picture;
  std::optional<OutputFile> track;
  PictureOptions sheet;
  if (!options.output.empty()) {
    sheet.format = picture_format(options.output);
    picture.emplace(options.output);
  }
  if (!options.track.empty()) track.emplace(options.track);
  Studying studying(streams, "moments");
  const Sneak found = gaze::sneak(level, task, studying.options());
  const bool is_found = found.outcome == Sneak::Outcome::found;
  if (picture) {
    picture->write(picture_of(level, task, found, sheet));
    picture->finish();
  }
  if (track && is_found) {
    track->write(track_csv(found.track));
    track->finish();
  }
  streams.out << (options.json ? sneak_json(task, found) : sneak_text(level, task, found));
  if (found.reason == "the search was ended") return ended_early;
  return found.outcome == Sneak::Outcome::undecided ? check_failed : done;
}

}  // namespace gaze::cli
