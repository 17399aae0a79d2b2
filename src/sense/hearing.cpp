#include "gaze/hearing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gaze/ray_source.hpp"
#include "sense/listen.hpp"
#include "sense/open_way.hpp"
#include "world/index.hpp"
#include "world/lengths.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

Vector3d ear_of(const Listener& listener) {
  return listener.feet + Vector3d{0.0, 0.0, listener.ear_height};
}

void find_walls(const World& world, const Segment& way, std::vector<SolidId>& walls) {
  const World::Index& index = index_of(world);
  const PlanSegment in_plan = to_plan(world.plane(), way);
  walk_any(index.tree, Walker(in_plan, {0.0, 0.0, 0.0}), [&](std::uint32_t piece) {
    const SolidId solid{index.pieces[piece].solid};
    if (!stops(world, piece, Stops::sound)) return false;
    if (std::find(walls.begin(), walls.end(), solid) != walls.end()) return false;
    if (first_touch(index, piece, in_plan)) walls.push_back(solid);
    return false;
  });
  std::sort(walls.begin(), walls.end(), [](SolidId a, SolidId b) { return a.index < b.index; });
}

// In space the way round corners, which is found in the plan, also has to climb.
std::optional<double> way_around(const World& world, const Listener& listener, const Noise& noise,
                                 double most) {
  const PlanPoint from = to_plan(world.plane(), noise.place);
  const PlanPoint to = to_plan(world.plane(), ear_of(listener));
  const double climb = world.plane() == Plane::space ? to.across - from.across : 0.0;
  const auto way = open_way(world, from, to, Stops::sound, most);
  if (!way) return std::nullopt;
  const double length = std::sqrt(*way * *way + climb * climb);
  return length <= most ? std::optional(length) : std::nullopt;
}

}  // namespace

namespace {

// The part that needs no world.
bool is_in_reach(Plane plane, const Listener& listener, const Noise& noise,
                 HearingVerdict& verdict) {
  const Hearing& hearing = listener.hearing;
  verdict.distance = plane_distance(plane, noise.place, listener.feet);
  verdict.range = hearing.range;
  verdict.open_reach = noise.reach * hearing.acuity;
  verdict.reach = verdict.open_reach;
  verdict.let_through = 1.0;
  verdict.muffled_by.clear();
  verdict.around.reset();
  verdict.hears = false;
  return verdict.distance <= std::min(verdict.range, verdict.reach);
}

}  // namespace

void listen_into(const World& world, const Level& level, const Listener& listener,
                 const Noise& noise, HearingVerdict& verdict) {
  if (!is_in_reach(world.plane(), listener, noise, verdict)) return;
  const double open_limit = std::min(verdict.range, verdict.reach);
  find_walls(world, {noise.place, ear_of(listener)}, verdict.muffled_by);
  for (const SolidId wall : verdict.muffled_by) {
    verdict.let_through *= 1.0 - level.materials[level.solids[wall.index].material].muffles;
  }
  if (world.host()) {
    verdict.let_through *= world.host()->sound_through({noise.place, ear_of(listener)});
  }
  verdict.reach *= verdict.let_through;
  verdict.hears = verdict.distance <= verdict.reach;
  if (verdict.hears || !listener.hearing.around_corners) return;
  verdict.around = way_around(world, listener, noise, open_limit);
  verdict.hears = verdict.around.has_value();
}

HearingVerdict listen(const RaySource& world, Plane plane, const Listener& listener,
                      const Noise& noise) {
  HearingVerdict verdict;
  if (!is_in_reach(plane, listener, noise, verdict)) return verdict;
  verdict.let_through = world.sound_through({noise.place, ear_of(listener)});
  verdict.reach *= verdict.let_through;
  verdict.hears = verdict.distance <= verdict.reach;
  return verdict;
}

HearingVerdict listen(const World& world, const Level& level, const Listener& listener,
                      const Noise& noise) {
  HearingVerdict verdict;
  listen_into(world, level, listener, noise, verdict);
  return verdict;
}

void listen(const World& world, const Level& level, std::span<const Listener> listeners,
            const Noise& noise, std::span<std::uint8_t> hears) {
  need_as_many(listeners.size(), hears.size());
  HearingVerdict verdict;
  for (std::size_t i = 0; i < listeners.size(); ++i) {
    listen_into(world, level, listeners[i], noise, verdict);
    hears[i] = verdict.hears;
  }
}

namespace {

// Text of the lower limit.
std::string limit_text(const HearingVerdict& verdict) {
  if (verdict.range <= verdict.reach) return fmt::format("its range is {:.2f} m", verdict.range);
  if (verdict.muffled_by.empty()) {
    return fmt::format("the reach of the noise is {:.2f} m", verdict.reach);
  }
  return fmt::format("the reach of the noise is {:.2f} m in the open and {:.2f} m here",
                     verdict.open_reach, verdict.reach);
}

}  // namespace

std::string explain(const HearingVerdict& verdict, const Level& level) {
  std::string walls;
  for (const SolidId wall : verdict.muffled_by) {
    walls += fmt::format("{}{}", walls.empty() ? "" : ", ", level.solids[wall.index].id);
  }
  if (!walls.empty()) {
    walls = fmt::format("; {} let{} {:.0f} % through", walls,
                        verdict.muffled_by.size() == 1 ? "s" : "", verdict.let_through * 100.0);
  }
  if (verdict.around) {
    return fmt::format("heard round corners: {:.2f} m through the open{}", *verdict.around, walls);
  }
  return fmt::format("{}: {:.2f} m away, {}{}", verdict.hears ? "heard" : "not heard",
                     verdict.distance, limit_text(verdict), walls);
}

}  // namespace gaze
