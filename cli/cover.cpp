#include "gaze/tools/cover.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <ostream>

#include "level/numbers.hpp"
#include "level/rounded.hpp"
#include "level/spelling.hpp"
#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

using Json = nlohmann::ordered_json;

constexpr int kLooksPerSecond = 10;  // over a run

// Whose floor it is: the kind asked for, else that of the first agent that a player drives.
const Kind* standing_kind(const Level& level, const std::string& name) {
  if (!name.empty()) {
    std::vector<std::string> names;
    for (const Kind& kind : level.kinds) names.push_back(kind.name);
    const auto it = std::find(names.begin(), names.end(), name);
    if (it == names.end()) {
      throw std::invalid_argument(
          fmt::format("--kind: there is no kind '{}'{}", name, suggestion(name, names)));
    }
    return &level.kinds[static_cast<std::size_t>(it - names.begin())];
  }
  const auto player = std::find_if(level.agents.begin(), level.agents.end(),
                                   [](const Agent& agent) { return agent.driver != Driver::mind; });
  return player == level.agents.end() ? nullptr : &level.kind_of(*player);
}

FloorOptions floor_options(const Kind* kind, double spot_size) {
  FloorOptions options;
  options.spot_size = spot_size;
  if (kind == nullptr) return options;
  options.team = kind->team;
  options.radius = kind->radius;
  options.height = kind->height;
  options.body_points = kind->body_points;
  options.step_height = *kind->move->step_height;
  return options;
}

std::string cover_json(const Simulation& simulation, const Cover& cover, bool is_moment) {
  Json json;
  if (is_moment) json["time"] = rounded(simulation.seconds());
  json["agents"] = Json::array();
  for (const CoverAgent& agent : cover.agents()) {
    json["agents"].push_back(
        {{"id", simulation.id_of(agent.agent)}, {"seen_area", rounded(agent.seen_area)}});
  }
  json["seen_share"] = rounded(cover.seen_share());
  json["never_seen_share"] = rounded(cover.never_seen_share());
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::vector<std::string> report(const Simulation& simulation, const Cover& cover, const Kind* kind,
                                bool is_moment) {
  std::vector<std::string> lines;
  lines.push_back(fmt::format("free floor {:.1f} m²", cover.floor().area));
  lines.push_back(fmt::format("for a {} {} m tall", kind == nullptr ? "body" : kind->name,
                              number_text(cover.floor().height)));
  lines.push_back(
      fmt::format("seen {:.1f} %{}", cover.seen_share() * 100.0, is_moment ? "" : " in the mean"));
  lines.push_back(fmt::format("never seen {:.1f} %", cover.never_seen_share() * 100.0));
  lines.emplace_back();
  for (const CoverAgent& agent : cover.agents()) {
    lines.push_back(
        fmt::format("{} sees {:.1f} m²", simulation.id_of(agent.agent), agent.seen_area));
  }
  constexpr double kPrinted = 0.05;  // square metres: less is printed as 0.0
  std::vector<UnseenPatch> patches = cover.unseen_patches();
  std::erase_if(patches, [](const UnseenPatch& patch) { return patch.area < kPrinted; });
  if (patches.empty()) return lines;
  lines.emplace_back();
  lines.emplace_back("nobody ever sees, largest first:");
  for (std::size_t i = 0; i < std::min<std::size_t>(patches.size(), 6); ++i) {
    lines.push_back(fmt::format("  {:.1f} m² about [{:.2f}, {:.2f}]", patches[i].area,
                                patches[i].place.x(), patches[i].place.y()));
  }
  return lines;
}

// One line for each spot of the floor; those who saw it apart by spaces.
std::string spots_csv(const Simulation& simulation, const Cover& cover) {
  const SpotGrid& grid = cover.floor().grid;
  const std::vector<CoverAgent> agents = cover.agents();
  std::string text = "x,y,most,share,by\n";
  for (int row = 0; row < grid.rows; ++row) {
    for (int column = 0; column < grid.columns; ++column) {
      const std::size_t spot = grid.index(column, row);
      if (cover.floor().is_free[spot] == 0) continue;
      const Vector2d middle = grid.middle(column, row);
      text += fmt::format("{},{},{},{},", rounded(middle.x()), rounded(middle.y()),
                          cover.most_seen_by()[spot], rounded(cover.seen_time(spot)));
      bool is_first = true;
      for (std::size_t i = 0; i < agents.size(); ++i) {
        if (!cover.has_seen(i, spot)) continue;
        text += (is_first ? "" : " ") + simulation.id_of(agents[i].agent);
        is_first = false;
      }
      text += "\n";
    }
  }
  return text;
}

SpotPicture picture_of(const Cover& cover, bool is_moment, std::vector<std::string> numbers) {
  SpotPicture picture;
  picture.grid = cover.floor().grid;
  picture.is_free = cover.floor().is_free;
  picture.seen_by = cover.most_seen_by();
  picture.heading = is_moment ? "Seen now by" : "Seen at once by at most";
  picture.numbers = std::move(numbers);
  if (is_moment) return picture;
  for (std::size_t spot = 0; spot < picture.grid.count(); ++spot) {
    picture.seen_time.push_back(cover.seen_time(spot));
  }
  return picture;
}

}  // namespace

int cover(const CoverOptions& options, const Streams& streams) {
  PictureOptions picture;
  if (!options.output.empty()) picture.format = picture_format(options.output);
  if (!options.spots.empty() && !options.spots.ends_with(".csv")) {
    throw std::invalid_argument(fmt::format("--spots {} does not end in .csv", options.spots));
  }
  if (!(options.spot >= 0.01 && options.spot <= 100.0)) {
    throw std::invalid_argument(fmt::format("--spot {}; 0.01 to 100 m is allowed", options.spot));
  }
  const Level level = read(options.level);
  const Kind* kind = standing_kind(level, options.kind);
  Simulation simulation = prepared(level, streams);
  FreeFloor floor = free_floor(level, simulation.world(), floor_options(kind, options.spot));
  Cover seen(std::move(floor));
  const std::uint32_t looked_for = kind == nullptr ? kNoTeam : kind->team;
  const bool is_moment = options.at.has_value();
  const std::int64_t last = is_moment ? tick_at(level, *options.at) : run_length(level);
  const auto each = std::max<std::int64_t>(1, level.ticks_per_second / kLooksPerSecond);
  play(streams, simulation, last, [&] {
    const bool is_due = is_moment ? simulation.tick() == last : simulation.tick() % each == 0;
    if (is_due) seen.add(simulation, looked_for);
  });
  const std::vector<std::string> lines = report(simulation, seen, kind, is_moment);
  if (!options.output.empty()) {
    write_file(options.output, gaze::draw(simulation, picture_of(seen, is_moment, lines), picture));
    streams.err << fmt::format("{} drawn\n", options.output);
  }
  if (!options.spots.empty()) write_file(options.spots, spots_csv(simulation, seen));
  if (options.json) {
    streams.out << cover_json(simulation, seen, is_moment);
  } else {
    for (const std::string& line : lines) streams.out << line << '\n';
  }
  return done;
}

}  // namespace gaze::cli
