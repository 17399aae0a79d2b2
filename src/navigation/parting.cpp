#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "level/numbers.hpp"
#include "navigation/obstacles.hpp"

namespace gaze {
namespace {

constexpr double kExactly = 0.0005;  // metres

/// Tries bodies that differ in one measure: makes a mesh for each, and asks whether it leads from
/// one place to the other.
class Trial {
 public:
  Trial(const Level& level, const World& world, const Vector3d& from, const Vector3d& to)
      : level_(level), world_(world), from_(from), to_(to) {}

  bool leads(const BodySize& body) {
    const NavigationMesh mesh(level_, world_, body, 0);
    Path path = find_path(mesh, from_, to_);
    if (path.outcome != Path::Outcome::whole) return false;
    path_ = std::move(path);
    return true;
  }

  /// Two measures that enclose the one at which bodies begin to fit: with one a body fits, with the
  /// other it does not.
  struct Boundary {
    double works = 0.0;
    double fails = 0.0;
  };
  template <typename With>
  Boundary boundary(double works, double fails, With&& with) {
    while (std::abs(fails - works) > kExactly) {
      const double middle = (works + fails) / 2.0;
      (leads(with(middle)) ? works : fails) = middle;
    }
    leads(with(works));
    return {works, fails};
  }

  const Path& path() const { return path_; }

 private:
  const Level& level_;
  const World& world_;
  const Vector3d& from_;
  const Vector3d& to_;
  Path path_;
};

// The gap: where the way of a body that just fits comes to ground that a body which just does not
// fit cannot reach. A place that the way merely passes closely is no gap: there the other body
// walks a hair farther away.
std::optional<Vector3d> where_it_parts(const NavigationMesh& mesh, const Path& path) {
  constexpr double kStride = 0.02;  // metres
  std::optional<std::uint32_t> home;
  Vector3d last_at_home{0.0, 0.0, 0.0};
  for (std::size_t i = 0; i + 1 < path.points.size(); ++i) {
    const Vector3d leg = path.points[i + 1] - path.points[i];
    const int strides = static_cast<int>(std::sqrt(leg.squaredNorm()) / kStride) + 1;
    for (int k = 0; k <= strides; ++k) {
      const Vector3d place = path.points[i] + leg * (double(k) / strides);
      const auto found = mesh.find(place);
      if (!found) continue;
      const std::uint32_t island = mesh.island_of(*found);
      if (!home) home = island;
      if (!mesh.is_reachable(*home, island)) return (last_at_home + place) / 2.0;
      last_at_home = place;
    }
  }
  return std::nullopt;
}

// Which doors and things that break keep a body from getting there. Only as many as have to go are
// named.
std::vector<SolidId> shut_between(const Level& level, const World& world,
                                  const NavigationMesh& mesh, const Vector3d& from,
                                  const Vector3d& to) {
  std::vector<SolidId> shut;
  World open = world;
  for (std::uint32_t i = 0; i < level.solids.size(); ++i) {
    if (!can_go_away(level.solids[i]) || world.is_gone({i})) continue;
    shut.push_back({i});
    open.set_gone({i}, true);
  }
  PathFinder finder;
  const auto leads = [&] {
    return finder.find(mesh, from, to, &open).outcome == Path::Outcome::whole;
  };
  if (shut.empty() || !leads()) return {};
  std::erase_if(shut, [&](SolidId solid) {
    open.set_gone(solid, false);
    const bool is_needed = !leads();
    open.set_gone(solid, is_needed);
    return !is_needed;
  });
  return shut;
}

Vector3d middle_of(const Level& level, const Solid& solid) {
  Vector2d sum{0.0, 0.0};
  for (const Vector2d& point : solid.points) sum += point;
  sum /= static_cast<double>(std::max<std::size_t>(1, solid.points.size()));
  return {sum.x(), sum.y(), base_of(level, solid)};
}

std::string shut_text(const Solid& solid) {
  if (solid.form != Solid::Form::door) {
    return fmt::format("{} is in the way until it is {}", solid.id,
                       solid.health > 0.0 ? "broken" : "taken away");
  }
  if (solid.door.opens_for.empty()) return fmt::format("the door {} is shut", solid.id);
  return fmt::format("the door {} opens for {} alone", solid.id,
                     fmt::join(solid.door.opens_for, ", "));
}

/// Two places on different islands. From step to step they come nearer to each other.
struct Closest {
  Vector3d here{0.0, 0.0, 0.0};
  Vector3d there{0.0, 0.0, 0.0};
};

// Goes to and fro between two islands, from a place on the first: each time to the nearest place on
// the other, until the distance gets no less.
Closest closest(const NavigationMesh& mesh, const Vector3d& begin, std::uint32_t own,
                std::uint32_t its) {
  constexpr int kRounds = 4;
  Closest result{begin, begin};
  for (int i = 0; i < kRounds; ++i) {
    if (const auto there = mesh.nearest(result.here, its)) result.there = there->place;
    if (const auto here = mesh.nearest(result.there, own)) result.here = here->place;
  }
  return result;
}

// Two islands may come near to each other in many places. Of two such places the one is taken over
// which the whole way is shorter.
Closest closest_on_the_way(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to) {
  const std::uint32_t own = mesh.island_of(*mesh.find(from));
  const std::uint32_t its = mesh.island_of(*mesh.find(to));
  const Closest near_start = closest(mesh, from, own, its);
  const Closest turned = closest(mesh, to, its, own);
  const Closest near_goal{turned.there, turned.here};
  const auto length = [&](const Closest& over) {
    return plane_distance(Plane::space, from, over.here) +
           plane_distance(Plane::space, over.here, over.there) +
           plane_distance(Plane::space, over.there, to);
  };
  return length(near_start) < length(near_goal) ? near_start : near_goal;
}

// What is told if no smaller body and no higher step would get there: either one place lies above
// the other, or something closes the way off where the islands come nearest to each other.
Parting whatever_the_body(const Level& level, const World& world, const NavigationMesh& mesh,
                          const Vector3d& from, const Vector3d& to) {
  const BodySize& body = mesh.body();
  const auto [here, there] = closest_on_the_way(mesh, from, to);
  const double rise = there.z() - here.z();
  if (std::abs(rise) > body.step_height) {
    const double leap = rise > 0.0 ? body.hop_height : body.drop_height;
    const bool by_hop = leap > body.step_height;
    return {Parting::What::height, rise, by_hop ? leap : body.step_height, there, {}, by_hop};
  }
  Parting result;
  result.place = there;
  const Vector3d up{0.0, 0.0, (body.step_height + body.height) / 2.0};
  const Segment between{here + up, there + up};
  if (const auto touch = world.first_touch(between, Stops::bodies)) {
    result.solids.push_back(touch->solid);
    result.place = touch->place;
    result.place.z() = level.plane == Plane::upright ? result.place.z() : here.z();
  }
  return result;
}

}  // namespace

Parting parting(const Level& level, const World& world, const NavigationMesh& mesh,
                const Vector3d& from, const Vector3d& to) {
  if (auto shut = shut_between(level, world, mesh, from, to); !shut.empty()) {
    const Vector3d place = middle_of(level, level.solids[shut.front().index]);
    return {Parting::What::shut, 0.0, 0.0, place, std::move(shut)};
  }
  const BodySize& body = mesh.body();
  Trial trial(level, world, from, to);
  Parting result;
  const auto with_radius = [&](double radius) {
    BodySize other = body;
    other.radius = radius;
    return other;
  };
  const auto with_step = [&](double step) {
    BodySize other = body;
    other.step_height = step;
    return other;
  };
  BodySize fails = body;
  double reach = body.radius;  // of the body that is about as large as the gap
  if (trial.leads(with_radius(kExactly))) {
    const auto radius = trial.boundary(kExactly, body.radius, with_radius);
    result = {Parting::What::narrow, 2.0 * radius.works, 2.0 * body.radius, from, {}};
    fails = with_radius(radius.fails);
    reach = radius.works;
  } else if (trial.leads(with_step(body.height * 0.9))) {
    const auto step = trial.boundary(body.height * 0.9, body.step_height, with_step);
    result = {Parting::What::step, step.works, body.step_height, from, {}};
    fails = with_step(step.fails);
  } else {
    return whatever_the_body(level, world, mesh, from, to);
  }
  const auto place = where_it_parts(NavigationMesh(level, world, fails, 0), trial.path());
  if (!place) return result;
  result.place = *place;
  // A hand's breadth wider than the gap, so that both of its sides are met.
  result.solids = solids_at(world, body_at(body, *place, reach + 0.05));
  return result;
}

std::string describe(const Level& level, const Parting& parting) {
  if (parting.what == Parting::What::shut) {
    std::vector<std::string> texts;
    for (const SolidId solid : parting.solids) {
      texts.push_back(shut_text(level.solids[solid.index]));
    }
    return fmt::format("{}", fmt::join(texts, ", and "));
  }
  std::string between;
  for (std::size_t i = 0; i < parting.solids.size(); ++i) {
    const std::string& id = level.solids[parting.solids[i].index].id;
    between += i == 0 ? (parting.solids.size() > 1 ? " between " : " at ") : " and ";
    between += id;
  }
  const std::string at = " at " + place_text(level.plane, parting.place);
  switch (parting.what) {
    case Parting::What::narrow:
      return fmt::format("the gap{}{} is {:.2f} m wide, this body needs {:.2f} m", between, at,
                         parting.found, parting.needed);
    case Parting::What::step:
      return fmt::format("the step{}{} is {:.2f} m high, this body steps up {:.2f} m", between, at,
                         parting.found, parting.needed);
    case Parting::What::height:
      return fmt::format("it lies {:.2f} m {}, this body {} {:.2f} m, and nothing joins them",
                         std::abs(parting.found), parting.found > 0.0 ? "higher" : "lower",
                         !parting.by_hop       ? "steps"
                         : parting.found > 0.0 ? "hops"
                                               : "drops",
                         parting.needed);
    default:
      if (parting.solids.empty()) return "nothing joins the two";
      return fmt::format("{} closes it off{}, with no gap however small",
                         level.solids[parting.solids[0].index].id, at);
  }
}

}  // namespace gaze
