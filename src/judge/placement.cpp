#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "level/whom.hpp"
#include "travel/walk.hpp"
#include "world/bounds.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

// The part of a body that solids can stop, if its feet were there.
Cylinder solid_part(const Kind& kind, const Vector3d& feet) {
  const double step = *kind.move->step_height;
  return core_of({feet + Vector3d{0.0, 0.0, step}, kind.radius, kind.height - step});
}

// What is said of an agent inside a solid. If its centre is outside, it is merely kept from going
// in.
std::string_view what_can_it_do(const Bench& bench, const Kind& kind, const Vector3d& feet) {
  if (!travels(kind.move->gait)) return "what is meant to hit it stops at the solid";
  Cylinder core = solid_part(kind, feet);
  if (bench.level().plane != Plane::upright) core.radius = kContactGap;
  return bench.world().overlaps(core, Stops::bodies) ? "it cannot walk out"
                                                     : "it can only walk away from it";
}

void judge_in_solid(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  const auto solid = bench.world().first_overlap(solid_part(kind, agent.position), Stops::bodies);
  if (!solid) return;
  const std::string_view what_happens = what_can_it_do(bench, kind, agent.position);
  bench.say(
      Severity::error, "agent-in-solid", level.origin(agent, "at").value_or(agent.place),
      worded("{} (radius {} m) is placed inside {} at {}: {}", agent.id, kind.radius,
             level.solids[solid->index].id, place_text(level.plane, agent.position), what_happens));
}

// Reports a walker or hopper with neither ground nor a solid below it.
void judge_fall(Bench& bench, const Agent& agent) {
  constexpr double kDeepest = 100'000.0;  // metres
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  const Gait gait = kind.move->gait;
  const bool falls = (gait == Gait::walk || gait == Gait::hop) && level.gravity > 0.0 &&
                     level.plane != Plane::ground && !kind.thing;
  const bool is_put = agent.driver == Driver::host || agent.driver == Driver::track;
  if (!falls || is_put || level.ground_height) return;
  const Cylinder body{agent.position, kind.radius, kind.height};
  if (bench.world().sweep(body, {0.0, 0.0, -kDeepest}, Stops::bodies)) return;
  bench.say(Severity::error, "nothing-below", level.origin(agent, "at").value_or(agent.place),
            worded("{} is placed at {} and has nothing below it: it falls for ever. Add a "
                   "[[floor]] or set `ground_height`",
                   agent.id, place_text(level.plane, agent.position)));
}

// Returns whether a walker in side view can stand at the x of a point and get there. It climbs
// steps on its path, so that the height of the point does not matter.
bool stands_on_a_ledge(Bench& bench, const Agent& agent, const Vector3d& point) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  if (level.plane != Plane::upright || !travels(kind.move->gait)) return false;
  if (kind.move->gait == Gait::hover) return false;
  std::set<double> heights{point.z(), agent.position.z()};
  for (const Solid& solid : level.solids) {
    for (const Vector2d& corner : solid.points) heights.insert(corner.y());
  }
  const NavigationMesh mesh = bench.mesh_of(agent);
  const auto own = mesh.find(agent.position);
  return own && std::any_of(heights.begin(), heights.end(), [&](double height) {
           const auto there = mesh.find({point.x(), 0.0, height});
           return there && mesh.is_reachable(mesh.island_of(*own), mesh.island_of(*there));
         });
}

void judge_patrol(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  for (std::size_t i = 0; i < agent.patrol.size(); ++i) {
    Vector3d feet = agent.patrol[i];
    if (level.plane == Plane::upright) feet.z() = agent.position.z();
    const auto solid = bench.world().first_overlap(solid_part(kind, feet), Stops::bodies);
    if (!solid || stands_on_a_ledge(bench, agent, agent.patrol[i])) continue;
    bench.say(Severity::error, "patrol-point-in-solid",
              level.origin(agent, "patrol").value_or(agent.place),
              worded("patrol point {} of {} at {} is inside {} for a body of radius {} m: it "
                     "will press against it for a second and go on to the next point",
                     i + 1, agent.id, place_text(level.plane, agent.patrol[i]),
                     level.solids[solid->index].id, kind.radius));
  }
  if (kind.when.idle == Mode::patrol && agent.patrol.size() < 2 && agent.driver == Driver::mind) {
    bench.say(Severity::warning, "patrol-without-points", agent.place,
              worded("{} is to patrol when idle but has {} of the 2 points that takes: it will "
                     "stand",
                     agent.id, agent.patrol.size()));
  }
}

double overlap_depth(const Level& level, const Agent& one, const Agent& other) {
  const Kind& a = level.kind_of(one);
  const Kind& b = level.kind_of(other);
  const double x = other.position.x() - one.position.x();
  const double y = other.position.y() - one.position.y();
  const double level_depth = a.radius + b.radius - std::sqrt(x * x + y * y);
  const double top = std::min(one.position.z() + a.height, other.position.z() + b.height);
  const double bottom = std::max(one.position.z(), other.position.z());
  return std::min(level_depth, top - bottom);
}

// For each agent, whether a [[start]] replaces its position before the first tick.
std::vector<char> starts_elsewhere(const Level& level) {
  std::vector<char> elsewhere(level.agents.size(), 0);
  const std::vector<std::string> tags = tag_names(level);
  for (const Start& start : level.starts) {
    const Whom whom(level, {&start.kind, 1}, tags);
    for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
      const std::uint32_t kind = level.agents[i].kind;
      elsewhere[i] |= whom.means({i, kind, tag_bits(tags, level.kinds[kind].tags)});
    }
  }
  return elsewhere;
}

// Agents by the left end of their bodies, so that each is compared with its neighbours only.
void judge_overlaps(Bench& bench) {
  const Level& level = bench.level();
  std::vector<const Agent*> agents;
  // Things are carried, thrown and stepped over: they may lie anywhere.
  const std::vector<char> elsewhere = starts_elsewhere(level);
  for (std::size_t i = 0; i < level.agents.size(); ++i) {
    const Agent& agent = level.agents[i];
    if (!level.kind_of(agent).thing && !elsewhere[i]) agents.push_back(&agent);
  }
  const auto left = [&](const Agent* a) { return a->position.x() - level.kind_of(*a).radius; };
  std::stable_sort(agents.begin(), agents.end(),
                   [&](const Agent* a, const Agent* b) { return left(a) < left(b); });
  for (std::size_t i = 0; i < agents.size(); ++i) {
    const double right = agents[i]->position.x() + level.kind_of(*agents[i]).radius;
    for (std::size_t j = i + 1; j < agents.size() && left(agents[j]) < right; ++j) {
      const auto [first, second] = std::minmax(agents[i], agents[j]);  // in file order
      const double depth = overlap_depth(level, *first, *second);
      if (!(depth > kContactGap)) continue;
      if (!stop_each_other(level, level.kind_of(*first), level.kind_of(*second))) continue;
      bench.say(Severity::warning, "agents-overlap", second->place,
                worded("{} is placed where {} is, {} m inside it: bodies stop each other, "
                       "so these can only go apart",
                       second->id, first->id, depth));
    }
  }
}

// Tells of agents that are placed where they would be gone at once.
void judge_bounds(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const auto is_out = [&](const Vector3d& place) {
    return !is_within(level.plane, *level.bounds, place);
  };
  if (is_out(agent.position)) {
    bench.say(Severity::error, "out-of-bounds", level.origin(agent, "at").value_or(agent.place),
              worded("{} is placed at {}, outside of the bounds of the level: it is gone at the "
                     "first step",
                     agent.id, place_text(level.plane, agent.position)));
  }
  const auto leads_out = [&](const Vector3d& place, const Place& written, const char* what) {
    if (!is_out(place)) return;
    bench.say(Severity::warning, "leads-out-of-bounds", written,
              worded("{} of {} leads to {}, outside of the bounds of the level: there it is {}",
                     what, agent.id, place_text(level.plane, place),
                     level.bounds->puts_back ? "put back to where it began" : "gone"));
  };
  for (const Vector3d& point : agent.patrol) {
    leads_out(point, level.origin(agent, "patrol").value_or(agent.place), "the patrol");
  }
  for (const ScriptStep& step : agent.script) {
    if (step.what == ScriptStep::What::go) leads_out(step.place, step.written, "the script");
  }
}

}  // namespace

void judge_placement(Bench& bench) {
  for (const Agent& agent : bench.level().agents) {
    judge_in_solid(bench, agent);
    judge_fall(bench, agent);
    judge_patrol(bench, agent);
    if (bench.level().bounds) judge_bounds(bench, agent);
  }
  judge_overlaps(bench);
}

}  // namespace gaze
