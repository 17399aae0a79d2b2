#include "gaze/change.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <span>

#include "geometry/plan.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"

namespace gaze {
namespace {

bool is_turn(Change::What what) {
  return what == Change::What::turn || what == Change::What::turn_round;
}

/// So many in a metre or a degree: what is printed, and no finer.
double units_of(Change::What what) {
  return is_turn(what) ? 10.0 : 100.0;
}

// From the looker to the other, as the range counts.
Vector3d way_to(Plane plane, const Looker& looker, const LookedAt& other) {
  Vector3d way = other.feet - looker.feet;
  if (plane == Plane::ground) way.z() = 0.0;
  if (plane == Plane::upright) way.y() = 0.0;
  return way;
}

Vector3d step_of(Plane plane, const Change& change, const Looker& looker, const LookedAt& other) {
  const Vector3d way = way_to(plane, looker, other);
  const double amount = change.amount;
  switch (change.what) {
    case Change::What::higher:
      return {0.0, 0.0, amount};
    case Change::What::lower:
      return {0.0, 0.0, -amount};
    case Change::What::aside: {
      const double length = level_length(way);
      const double share = length > 0.0 ? (change.to_left ? amount : -amount) / length : 0.0;
      return {-way.y() * share, way.x() * share, 0.0};
    }
    default: {
      const double length = length_of(way);
      const double share = length > 0.0 ? amount / length : 0.0;
      return way * (change.what == Change::What::farther ? share : -share);
    }
  }
}

/// A look that can be tried with changes.
struct Scene {
  const World& world;
  const Level& level;
  Looker looker;
  LookedAt other;

  Plane plane() const { return world.plane(); }
  bool sees() const { return can_see(world, looker, other); }
  Scene with(const Change& change) const {
    Scene changed = *this;
    apply(plane(), change, changed.looker, changed.other);
    return changed;
  }
  Scene with(std::span<const Change> changes) const {
    Scene changed = *this;
    for (const Change& change : changes) apply(plane(), change, changed.looker, changed.other);
    return changed;
  }
  std::string solid() const { return look(world, level, looker, other).line.blocked_by; }
};

/// So many steps of a sort are tried.
struct Steps {
  int first = 1;
  int last = 0;
};

Steps steps_of(const Scene& scene, Change::What what, bool is_seen) {
  const RangeTest range = look(scene.world, scene.level, scene.looker, scene.other).range;
  const Vector3d way = way_to(scene.plane(), scene.looker, scene.other);
  const double distance = length_of(way);
  const double units = units_of(what);
  const auto whole = [&](double amount) { return static_cast<int>(std::min(amount * units, 1e6)); };
  switch (what) {
    case Change::What::nearer:
      // No nearer than where two of its size would touch.
      return {std::max(1, whole(range.value - range.limit)),
              whole(std::max(0.0, distance - 2.0 * scene.other.radius))};
    case Change::What::farther:
      if (distance == 0.0) return {};
      return {1, is_seen ? whole(range.limit - range.value) + 1 : whole(kFarthestStep)};
    case Change::What::turn:
      return {1, scene.looker.sight.field_of_view.degrees() >= 360.0 &&
                         eye_offset(scene.looker).head<2>() == Vector2d{0.0, 0.0}
                     ? 0
                     : whole(180.0)};
    case Change::What::turn_round:
      return {1, scene.plane() == Plane::upright && scene.looker.facing.y() == 0.0 ? 1 : 0};
    case Change::What::aside:
      return {1, scene.plane() == Plane::upright ? 0 : whole(kFarthestStep)};
    default:
      return {1, whole(kFarthestStep)};
  }
}

bool has_sides(Change::What what) {
  return what == Change::What::aside || what == Change::What::turn;
}

/// Calls is_it(change) for changes of a sort, the least first, to both sides.
/// @return The first for which it is true.
template <typename IsIt>
std::optional<Change> least(Change::What what, const Steps& steps, IsIt&& is_it) {
  for (int n = steps.first; n <= steps.last; ++n) {
    for (const bool to_left : {true, false}) {
      if (!to_left && !has_sides(what)) continue;
      const Change change{what, n / units_of(what), to_left, ""};
      if (is_it(change)) return change;
    }
  }
  return std::nullopt;
}

std::optional<Change> least_that_turns(const Scene& scene, Change::What what, bool is_seen) {
  auto change = least(what, steps_of(scene, what, is_seen),
                      [&](const Change& it) { return scene.with(it).sees() != is_seen; });
  if (change && what == Change::What::turn_round) change->amount = 180.0;
  return change;
}

// The sorts of change in the order in which they are tried: first what the failed test calls for.
std::vector<Change::What> sorts_for(const Verdict& verdict, Plane plane) {
  std::vector<Change::What> sorts;
  const auto add = [&](std::initializer_list<Change::What> more) {
    for (const Change::What what : more) {
      if (std::find(sorts.begin(), sorts.end(), what) == sorts.end()) sorts.push_back(what);
    }
  };
  if (!verdict.range.pass) add({Change::What::nearer});
  if (!verdict.field.pass) add({Change::What::turn_round, Change::What::turn});
  if (verdict.vertical && !verdict.vertical->pass)
    add({Change::What::lower, Change::What::higher, Change::What::farther});
  if (!verdict.line.pass) add({Change::What::aside});
  add({Change::What::turn_round, Change::What::turn, Change::What::nearer, Change::What::aside});
  if (plane != Plane::ground) add({Change::What::lower, Change::What::higher});
  add({Change::What::farther});
  return sorts;
}

// Straight at the other, as well as an eye off the middle allows.
Scene facing_it(const Scene& scene) {
  Scene turned = scene;
  for (int round = 0; round < 3; ++round) {
    const Vector3d from = round == 0 ? turned.looker.feet : eye_of(scene.plane(), turned.looker);
    const Vector2d way = plan_part(scene.plane(), turned.other.feet - from);
    const double length = length_of(way);
    if (length == 0.0) return turned;
    turned.looker.facing = facing_for(scene.plane(), turned.looker, way / length);
    if (turned.sees()) return turned;
  }
  return turned;
}

/// Steps of the other, and the looker then turns to it.
class Together {
 public:
  explicit Together(const Scene& scene) : scene_(scene) {}

  std::vector<Change> find() {
    for (const Change::What what : {Change::What::nearer, Change::What::aside, Change::What::lower,
                                    Change::What::higher, Change::What::farther}) {
      if (const auto first = least(what, steps_of(scene_, what, false),
                                   [&](const Change& it) { return may_do({it}); })) {
        return finished({*first});
      }
    }
    for (const Change::What what :
         {Change::What::aside, Change::What::lower, Change::What::higher}) {
      std::vector<Change> both;
      const auto first = least(what, steps_of(scene_, what, false), [&](const Change& it) {
        both.assign({it});
        add_nearer(both);
        return both.size() > 1 && may_do(both);
      });
      if (first) return finished(both);
    }
    return {};
  }

 private:
  bool may_do(const std::vector<Change>& steps) const {
    return facing_it(scene_.with(steps)).sees();
  }

  void add_nearer(std::vector<Change>& steps) const {
    const Scene moved = scene_.with(steps);
    const Verdict verdict = look(moved.world, moved.level, moved.looker, moved.other);
    const double over = verdict.range.value - verdict.range.limit;
    if (verdict.range.pass || !(over > 0.0)) return;
    const double units = units_of(Change::What::nearer);
    steps.push_back({Change::What::nearer, std::ceil(over * units) / units, false, ""});
  }

  // With the least turn, and each part as small as the others allow.
  std::vector<Change> finished(std::vector<Change> changes) const {
    const Scene moved = scene_.with(changes);
    if (!moved.sees()) {
      const auto turn = least_that_turns(moved, Change::What::turn, false);
      if (!turn) return {};
      changes.push_back(*turn);
    }
    for (bool goes_on = true; goes_on;) {
      goes_on = false;
      for (Change& change : changes) {
        const double before = change.amount;
        const double units = units_of(change.what);
        change.amount = (std::round(before * units) - 1.0) / units;
        if (change.amount > 0.0 && scene_.with(changes).sees()) {
          goes_on = true;
        } else {
          change.amount = before;
        }
      }
    }
    return changes;
  }

  const Scene& scene_;
};

}  // namespace

void apply(Plane plane, const Change& change, Looker& looker, LookedAt& other) {
  if (change.what == Change::What::turn_round) {
    looker.facing.x() = -looker.facing.x();
  } else if (change.what == Change::What::turn) {
    const double degrees = change.to_left ? change.amount : -change.amount;
    looker.facing = turned(looker.facing, sine_cosine(Angle::from_degrees(degrees)));
  } else {
    other.feet += step_of(plane, change, looker, other);
  }
}

Remedy remedy(const World& world, const Level& level, const Looker& looker, const LookedAt& other) {
  const Scene scene{world, level, looker, other};
  const Verdict verdict = look(world, level, looker, other);
  Remedy result;
  result.is_seen = verdict.sees;
  result.solid = verdict.line.blocked_by;
  if (other.body_points.empty()) return result;
  if (verdict.sees) {
    for (const Change::What what :
         {Change::What::farther, Change::What::turn_round, Change::What::turn, Change::What::aside,
          Change::What::higher, Change::What::lower}) {
      const bool is_step_up = what == Change::What::higher || what == Change::What::lower;
      if (is_step_up && scene.plane() != Plane::upright) continue;
      auto change = least_that_turns(scene, what, true);
      if (!change) continue;
      if (!is_turn(what)) change->solid = scene.with(*change).solid();
      result.changes.push_back(*change);
    }
    return result;
  }
  for (const Change::What what : sorts_for(verdict, scene.plane())) {
    if (const auto change = least_that_turns(scene, what, false)) {
      result.changes = {*change};
      break;
    }
  }
  if (result.changes.empty()) result.changes = Together(scene).find();
  for (Change& change : result.changes) {
    if (!is_turn(change.what)) change.solid = result.solid;
  }
  return result;
}

}  // namespace gaze
