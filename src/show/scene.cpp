#include "show/scene.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

void describe_level(Scene& scene, const Simulation& simulation) {
  const Level& level = simulation.level();
  scene.title = level.name;
  scene.moment = fmt::format("{:.2f} s", simulation.seconds());
  scene.is_upright = level.plane == Plane::upright;
  scene.ground_height = level.ground_height;
  scene.material_in_use.resize(level.materials.size(), false);
  for (const Solid& solid : level.solids) scene.material_in_use[solid.material] = true;
  for (const Team& team : level.teams) scene.teams.push_back(team.name);
  for (const Material& material : level.materials) {
    std::string stops;
    for (std::size_t i = 0; i < kStopsNames.size(); ++i) {
      if (material.stops.test(i))
        stops += (stops.empty() ? "" : ", ") + std::string(kStopsNames[i]);
    }
    scene.materials.push_back(
        fmt::format("{}: stops {}", material.name, stops.empty() ? "nothing" : stops));
    scene.stops_sight.push_back(material.stops.test(0));
  }
}

void add_trails(Scene& scene, const Simulation& simulation, const Trails& trails) {
  const Level& level = simulation.level();
  for (const AgentId id : simulation.agents()) {
    Mark& mark = scene.marks.emplace_back();
    mark.layer = Layer::ways;
    mark.meaning = Meaning::trail;
    mark.who = id;
    mark.number = level.kind_of(level.agents[id.index]).team;
    for (const Vector3d& p : trails.of(id)) mark.points.push_back(plan_part(level.plane, p));
  }
}

void add_tracks(Scene& scene, const Simulation& simulation, const Trails& trails) {
  const Plane plane = simulation.level().plane;
  for (const ShotTrack& track : trails.tracks()) {
    Mark& line = scene.marks.emplace_back();
    line.layer = Layer::harm;
    line.meaning = Meaning::track;
    line.radius = track.radius;
    for (const Vector3d& p : track.places) line.points.push_back(plan_part(plane, p));
    for (const Vector3d& p : track.hits) {
      Mark& hit = scene.marks.emplace_back();
      hit.form = Mark::Form::circle;
      hit.layer = Layer::harm;
      hit.meaning = Meaning::hit;
      hit.points = {plan_part(plane, p)};
    }
  }
}

// The level, everybody, and where they have been; not how far they see.
bool is_to_be_shown(const Mark& mark) {
  if (mark.meaning == Meaning::ground || mark.meaning == Meaning::facing) return false;
  return mark.layer == Layer::level || mark.layer == Layer::agents ||
         mark.meaning == Meaning::trail;
}

void find_extent(Scene& scene) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  scene.low = {kInfinity, kInfinity};
  scene.high = -scene.low;
  for (const Mark& mark : scene.marks) {
    if (mark.form == Mark::Form::text || !is_to_be_shown(mark)) continue;
    const bool is_body = mark.meaning == Meaning::body || mark.meaning == Meaning::body_out;
    const Vector2d about = is_body ? Vector2d{mark.radius, mark.radius} : Vector2d{0.0, 0.0};
    for (const Vector2d& p : mark.points) {
      scene.low = scene.low.cwiseMin(p - about);
      scene.high = scene.high.cwiseMax(p + about);
    }
  }
  if (scene.low.x() > scene.high.x()) scene.low = scene.high = {0.0, 0.0};
}

// Texts stay last.
bool is_drawn_before(const Mark& a, const Mark& b) {
  const bool is_text = a.form == Mark::Form::text;
  if (is_text != (b.form == Mark::Form::text)) return !is_text;
  return !is_text && a.meaning < b.meaning;
}

}  // namespace

bool Scene::has(Meaning meaning) const {
  return std::any_of(marks.begin(), marks.end(), [&](const Mark& mark) {
    return mark.meaning == meaning && mark.form != Mark::Form::text;
  });
}

Scene make_scene(const Simulation& simulation, const Trails& trails, Layers layers) {
  Scene scene;
  describe_level(scene, simulation);
  scene.marks = drawing(simulation, layers);
  add_trails(scene, simulation, trails);
  add_tracks(scene, simulation, trails);
  std::stable_sort(scene.marks.begin(), scene.marks.end(), is_drawn_before);
  find_extent(scene);
  return scene;
}

}  // namespace gaze
