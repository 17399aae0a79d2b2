#include "study/sneak_scene.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "level/named_kind.hpp"
#include "level/spelling.hpp"
#include "level/whom.hpp"
#include "navigation/body_size.hpp"

namespace gaze {
namespace {

std::uint32_t agent_called(const Level& level, const std::string& id) {
  std::vector<std::string> ids;
  for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
    if (level.agents[i].id == id) return i;
    ids.push_back(level.agents[i].id);
  }
  throw UsageError(fmt::format("there is no agent '{}'{}", id, suggestion(id, ids)));
}

SneakLevel prepared_for(const Level& given, const SneakTask& task) {
  if (given.plane == Plane::upright) {
    throw UsageError("ways that nobody notices are looked for in levels seen from above");
  }
  SneakLevel result;
  result.level = given;
  result.who = agent_called(given, task.agent);
  Agent& agent = result.level.agents[result.who];
  if (!task.body.empty()) agent.kind = kind_called(given, task.body);
  agent.driver = Driver::host;
  agent.script.clear();
  agent.track.reset();
  if (task.from) agent.position = *task.from;
  complete(result.level);
  return result;
}

void need_walker(const Kind& kind) {
  if (kind.move && travels(kind.move->gait) && kind.move->speed > 0.0) return;
  throw UsageError(fmt::format("a {} does not go anywhere", kind.name));
}

Vector3d place_on(const NavigationMesh& mesh, const Vector3d& place, std::string_view what) {
  const auto found = mesh.find(place);
  if (found) return found->place;
  const auto nearest = mesh.nearest(place);
  throw UsageError(fmt::format("{} at [{:.2f}, {:.2f}] is off the floor of that body{}", what,
                               place.x(), place.y(),
                               nearest ? fmt::format("; [{:.2f}, {:.2f}] is the nearest of it",
                                                     nearest->place.x(), nearest->place.y())
                                       : std::string()));
}

Somebody who_goes(const SneakLevel& own, const std::vector<std::string>& tags) {
  const Agent& agent = own.level.agents[own.who];
  return {own.who, agent.kind, tag_bits(tags, own.level.kind_of(agent).tags)};
}

bool triggers(const SneakLevel& own, const Zone& zone) {
  const std::vector<std::string> tags = tag_names(own.level);
  const Whom whom(own.level, zone.triggered_by, tags);
  const Kind& kind = own.level.kind_of(own.level.agents[own.who]);
  return whom.is_empty() ? !kind.thing : whom.means(who_goes(own, tags));
}

Sneaker sneaker_of(const SneakLevel& own) {
  Sneaker sneaker;
  sneaker.kind = own.level.kind_of(own.level.agents[own.who]);
  need_walker(sneaker.kind);
  sneaker.speed = sneaker.kind.move->speed;
  for (const Zone& zone : own.level.zones) {
    sneaker.triggers.push_back(triggers(own, zone) ? 1 : 0);
  }
  return sneaker;
}

}  // namespace

SneakScene::SneakScene(const Level& given, const SneakTask& asked, SneakEffort& with)
    : task(asked),
      effort(with),
      own(prepared_for(given, asked)),
      world(own.level),
      sneaker(sneaker_of(own)),
      mesh(own.level, world, body_size(own.level, own.level.agents[own.who]), 0),
      start(place_on(mesh, own.level.agents[own.who].position, "the start")),
      goal(place_on(mesh, asked.to, "the goal")) {
  lay_out();
}

// Places as fine as asked for, or as the size of the level allows.
void SneakScene::lay_out() {
  constexpr double kUsualSpot = 0.25;  // metres
  double spot = task.spot.value_or(kUsualSpot);
  const double rate = own.level.ticks_per_second;
  while (true) {
    sneaker.ticks = std::max(1, static_cast<int>(std::lround(spot * rate / sneaker.speed)));
    const double size = sneaker.speed * sneaker.ticks / rate;
    moments = static_cast<std::size_t>(own.level.seconds * rate / sneaker.ticks) + 1;
    watchers = watchers_of(own.level, {own.who}, sneaker, moments, effort);
    cover_floor(size);
    if (fits() || task.spot) return;
    spot *= 2.0;
  }
}

// Leaves no floor if it would have too many places and moments.
void SneakScene::cover_floor(double size) {
  // Keeps memory below 1 GB: a square takes about 200 bytes, and 3 for each tick of the search.
  constexpr double kMostSquares = 2'000'000;
  constexpr double kMostStates = 150'000'000;  // squares times ticks
  floor = {};
  const SneakExtent extent = extent_of(mesh, own.level, watchers, sneaker, start, goal);
  const Vector2d sides = (extent.high - extent.low) / size + Vector2d{1.0, 1.0};
  const double squares = sides.x() * sides.y();
  if (squares > kMostSquares || squares * static_cast<double>(moments) > kMostStates) return;
  floor = sneak_floor(mesh, start, extent, size, effort);
}

double SneakScene::seconds_of(std::uint32_t moment) const {
  return static_cast<double>(moment) * sneaker.ticks / own.level.ticks_per_second;
}

std::uint32_t SneakScene::spot_of(const Vector3d& place) const {
  const auto number = [&](double off, int count) {
    return std::clamp(static_cast<int>(std::lround(off / floor.size)), 0, count - 1);
  };
  const std::size_t square = floor.at(number(place.x() - floor.low.x(), floor.columns),
                                      number(place.y() - floor.low.y(), floor.rows));
  std::uint32_t best = kNoSpot;
  double least = std::numeric_limits<double>::infinity();
  for (std::uint32_t spot = floor.first[square]; spot < floor.first[square + 1]; ++spot) {
    const double off = std::abs(floor.height[spot] - place.z()) - floor.spread[spot];
    if (off < least) best = spot;
    least = std::min(least, off);
  }
  return best;
}

bool SneakScene::leads_to_goal(std::uint32_t spot) const {
  if (!floor.stands[spot]) return false;
  if (level_distance(Plane::ground, floor.place(spot), goal) > 1.5 * floor.size) return false;
  const auto end = mesh.straight_on(*floor.stands[spot], goal);
  return end && std::abs(end->place.z() - goal.z()) < 1e-6;
}

std::optional<std::uint32_t> SneakScene::spot_before_goal() const {
  std::optional<std::uint32_t> best;
  double least = std::numeric_limits<double>::infinity();
  const std::uint32_t last = spot_of(goal);
  if (last == kNoSpot) return best;
  floor.for_near(last, [&](std::uint32_t spot) {
    const double off = level_distance(Plane::ground, floor.place(spot), goal);
    if (off >= least || !leads_to_goal(spot)) return;
    least = off;
    best = spot;
  });
  return best;
}

bool SneakScene::is_goal_reachable() const {
  return mesh.is_reachable(mesh.island_of(*mesh.find(start)), mesh.island_of(*mesh.find(goal)));
}

std::string SneakScene::what_may_open() const {
  const Parting found = parting(own.level, world, mesh, start, goal);
  return found.what == Parting::What::shut ? describe(own.level, found) : std::string();
}

// Solids that may go get a material that stops no bodies: watchers surely see past a place only
// where such a solid does not hide it.
std::optional<SneakScene> SneakScene::opened() const {
  Level level = own.level;
  bool opens = false;
  for (Solid& solid : level.solids) {
    if (!can_go_away(solid) || is_walkway(solid.form)) continue;
    Material open = level.materials[solid.material];
    open.stops.reset(static_cast<std::size_t>(Stops::bodies));
    solid.material = static_cast<std::uint32_t>(level.materials.size());
    level.materials.push_back(std::move(open));
    opens = true;
  }
  const bool tags_change =
      std::any_of(level.zones.begin(), level.zones.end(),
                  [](const Zone& zone) { return !zone.grants.empty() || !zone.takes.empty(); });
  for (Zone& zone : level.zones) {
    if (!tags_change || zone.closed_to.empty()) continue;
    zone.closed_to.clear();
    opens = true;
  }
  if (!opens) return std::nullopt;
  SneakScene other = *this;
  const World open_world(level);
  other.mesh = NavigationMesh(level, open_world, body_size(level, level.agents[own.who]), 0);
  other.cover_floor(floor.size);
  return other;
}

std::string SneakScene::doubt() const {
  if (!mesh.links().empty()) {
    return fmt::format("where {} hops, drops or climbs is not searched", task.agent);
  }
  const std::vector<std::string> tags = tag_names(own.level);
  const Somebody somebody = who_goes(own, tags);
  for (const Agent& agent : own.level.agents) {
    const Kind& kind = own.level.kind_of(agent);
    if (!kind.move || kind.move->follows.empty()) continue;
    if (!Whom(own.level, kind.move->follows, tags).means(somebody)) continue;
    return fmt::format("{} follows {}, and watchers may do something else for that", agent.id,
                       task.agent);
  }
  return {};
}

}  // namespace gaze
