#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "gaze/navigation.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

// A link goes up first and then level, or level first and then down.
void judge_room(Bench& bench, const Link& link, const Kind& kind, const MeshLink& found) {
  const bool rises = found.to.z() > found.from.z();
  const Vector3d turn = rises ? Vector3d{found.from.x(), found.from.y(), found.to.z()}
                              : Vector3d{found.to.x(), found.to.y(), found.from.z()};
  constexpr double kOffFloor = 0.001;  // metres
  const double lift = std::max(*kind.move->step_height, kOffFloor);
  const Vector3d up{0.0, 0.0, lift};
  Cylinder body{found.from + up, kind.radius, kind.height - lift};
  auto touch = bench.world().sweep(body, turn - found.from, Stops::bodies);
  if (!touch) {
    body.feet = turn + up;
    touch = bench.world().sweep(body, found.to - turn, Stops::bodies);
  }
  if (!touch) return;
  bench.say(
      Severity::warning, "link-through-solid", link.place,
      worded("{} leads a {} through {} at {}", link.id, kind.name,
             bench.level().solids[touch->solid.index].id, place_text(Plane::space, touch->place)));
}

// The meshes of kinds that walk, each once.
void judge_made(Bench& bench) {
  const Level& level = bench.level();
  if (level.links.empty()) return;
  std::set<std::uint32_t> used;
  std::set<std::uint32_t> judged;
  bool any = false;
  for (const std::uint32_t number : bench.kinds_in_play()) {
    const Kind& kind = level.kinds[number];
    if (!travels(kind.move->gait) || kind.move->gait == Gait::hover) continue;
    any = true;
    const NavigationMesh mesh(level, bench.world(), body_size(level, kind));
    for (const MeshLink& link : mesh.links()) {
      if (link.what != MeshLink::What::made) continue;
      used.insert(link.made);
      if (judged.insert(link.made).second) judge_room(bench, level.links[link.made], kind, link);
    }
  }
  for (std::uint32_t i = 0; any && i < level.links.size(); ++i) {
    if (used.contains(i)) continue;
    bench.say(Severity::warning, "link-off-mesh", level.links[i].place,
              worded("no kind of this level can use {}: it has to begin and end within a "
                     "body's width of a place where one can stand",
                     level.links[i].id));
  }
}

void judge_starts(Bench& bench) {
  const Level& level = bench.level();
  if (level.starts.empty()) return;
  const Simulation simulation(level);
  for (const std::uint32_t who : state_of(simulation).ways.has_no_start) {
    const Agent& agent = level.agents[who];
    bench.say(Severity::warning, "no-start-place", agent.place,
              worded("no start place of {} in 256 tries is as far away and as well hidden as "
                     "asked for; it begins at {}",
                     agent.id, place_text(level.plane, simulation.state({who}).position)));
  }
}

}  // namespace

void judge_links(Bench& bench) {
  judge_made(bench);
  judge_starts(bench);
}

}  // namespace gaze
