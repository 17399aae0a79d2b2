#include <fmt/format.h>

#include <algorithm>

#include <ostream>

#include "output.hpp"
#include "play.hpp"

namespace gaze::cli {
namespace {

// That of the first agent that a mind moves.
const Kind& first_walker(const Level& level) {
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    if (agent.driver == Driver::mind && travels(kind.move->gait)) return kind;
  }
  throw std::invalid_argument("no agent of this level walks by itself: --mesh needs --kind");
}

int draw_mesh(const DrawOptions& options, const Level& level, const PictureOptions& picture,
              const Streams& streams) {
  const Kind& kind = options.kind.empty() ? first_walker(level) : kind_called(level, options.kind);
  const NavigationMesh mesh = mesh_for(level, World(level), kind, streams);
  const MeshPicture drawn{&mesh, nullptr, kind.name, {0.0, 0.0, 0.0}, {0.0, 0.0, 0.0}, "", {}};
  write_file(options.output, gaze::draw(Simulation(level), drawn, picture));
  const std::size_t islands = mesh.islands().size();
  streams.err << fmt::format("{} drawn: {} polygons, {} {}\n", options.output, mesh.polygon_count(),
                             islands, islands == 1 ? "island" : "islands");
  return done;
}

// Upon whom: a kind that was asked for, else that of the first hostile agent, players first.
const Kind& victim_of(const DrawOptions& options, const Level& level, const Kind& by) {
  if (!options.kind.empty()) return kind_called(level, options.kind);
  if (const Kind* victim = usual_victim(level, by)) return *victim;
  throw std::invalid_argument(
      fmt::format("no agent of this level is hostile to {}: --reach needs --kind", by.name));
}

SpotPicture reach_picture(const Simulation& simulation, AgentId agent, const Kind& victim) {
  const FreeFloor floor =
      free_floor(simulation.level(), simulation.world(), floor_for(victim, 0.1));
  SpotPicture picture;
  picture.grid = floor.grid;
  picture.is_free = floor.is_free;
  picture.seen_by.assign(floor.grid.count(), 0);
  picture.heading = fmt::format("Attacks of {} that reach", simulation.id_of(agent));
  picture.classes = {"none", "one", "two", "three", "four or more"};
  picture.numbers.push_back(fmt::format("a {} standing there,", victim.name));
  picture.numbers.push_back(fmt::format("of {:.1f} m² of floor:", floor.area));
  const auto reaches = attack_reach(simulation, agent, victim, floor);
  picture.classes.resize(std::min<std::size_t>(picture.classes.size(), reaches.size() + 1));
  for (const AttackReach& reach : reaches) {
    picture.numbers.push_back(fmt::format("{}: {:.1f} m²", reach.attack, reach.area));
    for (std::size_t spot = 0; spot < picture.seen_by.size(); ++spot) {
      picture.seen_by[spot] =
          static_cast<std::uint16_t>(picture.seen_by[spot] + reach.can_hurt[spot]);
    }
  }
  return picture;
}

int draw_reach(const DrawOptions& options, const Level& level, const PictureOptions& picture,
               const Streams& streams) {
  Simulation simulation = prepared(level, streams);
  play(streams, simulation, tick_at(level, options.at), nullptr);
  const AgentId agent = agent_called(simulation, options.reach, "--reach");
  const Kind& kind = level.kinds[simulation.level().agents[agent.index].kind];
  const SpotPicture spots = reach_picture(simulation, agent, victim_of(options, level, kind));
  write_file(options.output, gaze::draw(simulation, spots, picture));
  for (const std::string& line : spots.numbers) streams.err << line << '\n';
  streams.err << fmt::format("{} drawn at {:.3f} s\n", options.output, simulation.seconds());
  return done;
}

}  // namespace

int draw(const DrawOptions& options, const Streams& streams) {
  PictureOptions picture;
  picture.format = picture_format(options.output);
  const Level level = read(options.level);
  if (options.mesh) return draw_mesh(options, level, picture, streams);
  if (!options.reach.empty()) return draw_reach(options, level, picture, streams);
  const std::int64_t tick = tick_at(level, options.at);
  Simulation simulation = prepared(level, streams);
  Trails trails(simulation);
  play(streams, simulation, tick, [&] { trails.add(simulation); });
  write_file(options.output, gaze::draw(simulation, trails, picture));
  streams.err << fmt::format("{} drawn at {:.3f} s\n", options.output, simulation.seconds());
  return done;
}

}  // namespace gaze::cli
