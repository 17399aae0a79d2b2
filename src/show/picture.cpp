#include "gaze/tools/picture.hpp"

#include <algorithm>

#include "show/paint.hpp"

namespace gaze {

Trails::Trails(const Simulation& simulation) : positions_(simulation.level().agents.size()) {}

ShotTrack* Trails::track(std::int64_t number) {
  const auto it = std::lower_bound(
      tracks_.begin(), tracks_.end(), number,
      [](const ShotTrack& track, std::int64_t wanted) { return track.number < wanted; });
  return it == tracks_.end() || it->number != number ? nullptr : &*it;
}

// Who is put somewhere anew has left no trail to there.
void Trails::forget_old(const Simulation& simulation) {
  if (round_is_over_) {
    for (std::vector<Vector3d>& places : positions_) places.clear();
    tracks_.clear();
  }
  round_is_over_ = false;
  for (const Event& event : simulation.events()) {
    round_is_over_ |= event.what == Event::What::ended;
    const bool returns = event.what == Event::What::mode && event.from == Mode::out;
    if (returns) positions_[event.agent.index].clear();
  }
}

void Trails::add(const Simulation& simulation) {
  positions_.resize(simulation.level().agents.size());
  forget_old(simulation);
  constexpr double kShown = 1.5;  // seconds
  const double ticks = kShown * simulation.level().ticks_per_second;
  std::erase_if(tracks_, [&](const ShotTrack& track) {
    return static_cast<double>(simulation.tick() - track.tick) > ticks;
  });
  for (const Event& event : simulation.events()) {
    ShotTrack* hit = event.projectile < 0 ? nullptr : track(event.projectile);
    if (hit == nullptr || event.what != Event::What::hit) continue;
    hit->places.push_back(event.place);
    hit->hits.push_back(event.place);
    hit->tick = simulation.tick();
  }
  for (const Projectile& shot : simulation.projectiles()) {
    ShotTrack* known = track(shot.number);
    if (known == nullptr) {
      const auto place = std::upper_bound(
          tracks_.begin(), tracks_.end(), shot.number,
          [](std::int64_t wanted, const ShotTrack& track) { return wanted < track.number; });
      known = &*tracks_.insert(place, {shot.number, shot.radius, {}, {}, 0});
    }
    known->places.push_back(shot.position);
    known->tick = simulation.tick();
  }
  for (const AgentId agent : simulation.agents()) {
    const Vector3d position = simulation.state(agent).position;
    std::vector<Vector3d>& trail = positions_[agent.index];
    // Standing still leaves no trail, however long.
    if (trail.empty() || trail.back() != position) trail.push_back(position);
  }
}

std::string draw(const Simulation& simulation, const Trails& trails,
                 const PictureOptions& options) {
  const Scene scene = make_scene(simulation, trails);
  Canvas canvas(options);
  const Sheet sheet = lay_out(canvas, scene);
  paint_map(canvas, scene, sheet.view);
  paint_captions(canvas, scene, sheet);
  paint_legend(canvas, scene, sheet.legend);
  return canvas.finish();
}

}  // namespace gaze
