#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "gaze/sight.hpp"
#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"
#include "geometry/signed_turn.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "sense/field.hpp"

namespace gaze {
namespace {

constexpr std::size_t kMostLookers = 100;
constexpr double kSpotsAcross = 48.0;

/// A place where a body could stand.
struct Standing {
  Vector3d feet{0.0, 0.0, 0.0};
  std::string on;  ///< Id of the solid; empty for the floor.
};

// A looker as it was placed, with how far its look can turn to either side from there, degrees.
struct Turning {
  Looker looker;
  double most = 0.0;
};

Turning turning_of(const Agent& agent, const Kind& kind) {
  const SineCosine facing = sine_cosine(agent.facing);
  Turning turning{{agent.position, {facing.cosine, facing.sine}, *kind.sight, false}, 0.0};
  if (kind.move->turn_rate.degrees() > 0.0) {
    turning.most = std::max(-kind.move->turn_limits[0], kind.move->turn_limits[1]);
  }
  if (kind.head) {
    turning.most += std::max(-kind.head->low.degrees(), kind.head->high.degrees());
  } else if (kind.scan) {
    turning.most += kind.scan->style == Scan::Style::sweep ? kind.scan->arc.degrees() / 2.0 : 180.0;
  }
  return turning;
}

/// Counts where within its range a body of one kind is never seen by a looker at its post.
class BlindSpots {
 public:
  BlindSpots(Bench& bench, const Agent& agent, const Kind& kind, const Agent& other)
      : bench_(bench),
        level_(bench.level()),
        turning_(turning_of(agent, kind)),
        other_(level_.kind_of(other)),
        mesh_(bench.mesh_of(other)),
        start_(mesh_.find(other.position)) {
    const double range = turning_.looker.sight.range;
    step_ = 2.0 * range / kSpotsAcross;
    find_tops(range);
    for (double a = -range + step_ / 2.0; a < range; a += step_) {
      for (double b = -range + step_ / 2.0; b < range; b += step_) {
        if (a * a + b * b <= range * range) add_spot({a, b});
      }
    }
  }

  bool any() const { return blind_ > 0; }

  std::string text(const std::string& who) const {
    const double spot = step_ * step_;
    return worded(
        "{} can never see a {} in {} of the {} m² within its range where one can stand, "
        "however it turns; the nearest such place is {}{}, {} m away: {}",
        who, other_.name, std::llround(blind_ * spot), std::llround(all_ * spot),
        place_text(level_.plane, nearest_.feet), nearest_.on.empty() ? "" : " on " + nearest_.on,
        distance_, reason_);
  }

 private:
  Vector2d plan(const Vector3d& p) const { return plan_part(level_.plane, p); }

  void add_spot(const Vector2d& offset) {
    const double floor = level_.ground_height.value_or(0.0);
    Vector3d feet = turning_.looker.feet;
    feet.x() += offset.x();
    (level_.plane == Plane::upright ? feet.z() : feet.y()) += offset.y();
    if (level_.plane != Plane::upright) feet.z() = floor;
    consider({feet, ""});
    if (level_.plane == Plane::upright) return;
    for (const Solid* solid : tops_) {
      if (!contains(solid->points, plan(feet))) continue;
      feet.z() = *solid->base + solid->height;
      consider({feet, solid->id});
    }
  }

  // The pieces of solids that come as near in the plan as the looker sees.
  void find_tops(double range) {
    const Vector2d middle = plan(turning_.looker.feet);
    for (const Solid& solid : level_.solids) {
      if (solid.form != Solid::Form::block && solid.form != Solid::Form::floor) continue;
      Vector2d low = solid.points.front();
      Vector2d high = low;
      for (const Vector2d& point : solid.points) {
        low = low.cwiseMin(point);
        high = high.cwiseMax(point);
      }
      const bool is_near =
          ((low - middle).array() <= range).all() && ((middle - high).array() <= range).all();
      if (is_near) tops_.push_back(&solid);
    }
  }

  // The places to which the other can get from where it stands.
  bool gets_to(Standing& place) const {
    const auto found = mesh_.find(place.feet);
    if (!start_ || !found) return false;
    // In levels seen from the side spots lie between ledges. A spot counts to the nearest ledge.
    const double slack = level_.plane == Plane::upright ? step_ / 2.0 : 1e-6;
    if (std::abs(found->place.z() - place.feet.z()) > slack) return false;
    place.feet = found->place;
    return mesh_.is_reachable(mesh_.island_of(*start_), mesh_.island_of(*found));
  }

  // The looker, turned to a body as far as it can turn.
  Looker turned_to(const LookedAt& looked) const {
    Looker looker = turning_.looker;
    const Vector3d middle = looked.feet + Vector3d{0.0, 0.0, looked.height / 2.0};
    const Vector2d way = plan(middle) - plan(looker.feet);
    const double wanted = signed_turn(looker.facing, facing_for(level_.plane, looker, way));
    const double turn = std::clamp(wanted, -turning_.most, turning_.most);
    looker.facing = turned(looker.facing, sine_cosine(Angle::from_degrees(turn)));
    return looker;
  }

  void consider(Standing place) {
    if (!gets_to(place)) return;
    const LookedAt looked{place.feet, other_.height, other_.body_points, other_.radius};
    const Looker looker = turned_to(looked);
    if (measure(level_.plane, looker, looked).distance > looker.sight.range) return;
    ++all_;
    if (can_see(bench_.world(), looker, looked)) return;
    ++blind_;
    const double distance = (plan(place.feet) - plan(looker.feet)).norm();
    if (distance >= distance_) return;
    nearest_ = place;
    distance_ = distance;
    reason_ = explain(look(bench_.world(), level_, looker, looked));
  }

  const Bench& bench_;
  const Level& level_;
  Turning turning_;
  const Kind& other_;
  NavigationMesh mesh_;  ///< Of the other.
  std::optional<MeshPlace> start_;
  std::vector<const Solid*> tops_;  ///< What one may stand on within its range.
  double step_ = 1.0;
  int all_ = 0;
  int blind_ = 0;
  Standing nearest_;
  double distance_ = 1e12;
  std::string reason_;
};

bool stays(const Agent& agent, const Kind& kind) {
  return agent.driver == Driver::mind && kind.move->gait == Gait::fixed;
}

// The first agent that the looker looks for and that can move about. If there is a player, it is
// the player.
const Agent* looked_for(const Level& level, const Kind& kind) {
  const Agent* first = nullptr;
  for (const Agent& agent : level.agents) {
    const Kind& other = level.kind_of(agent);
    if (!is_hostile(level, kind.team, other.team)) continue;
    if (agent.driver != Driver::mind) return &agent;
    if (first == nullptr && travels(other.move->gait)) first = &agent;
  }
  return first;
}

}  // namespace

void judge_blind_spots(Bench& bench) {
  std::size_t judged = 0;
  std::size_t left_out = 0;
  std::map<std::uint32_t, const Agent*> others;  // by team
  for (const Agent& agent : bench.level().agents) {
    const Kind& kind = bench.level().kind_of(agent);
    if (!kind.sight || !stays(agent, kind)) continue;
    auto it = others.find(kind.team);
    if (it == others.end()) it = others.emplace(kind.team, looked_for(bench.level(), kind)).first;
    const Agent* other = it->second;
    if (other == nullptr) continue;
    if (judged == kMostLookers) {
      ++left_out;
      continue;
    }
    ++judged;
    const BlindSpots spots(bench, agent, kind, *other);
    if (!spots.any()) continue;
    bench.say(Finding::Severity::note, "blind-spots", agent.place, spots.text(agent.id));
  }
  bench.say_left_out("blind spots were looked for, for", judged, "who stay at their posts",
                     left_out);
}

}  // namespace gaze
