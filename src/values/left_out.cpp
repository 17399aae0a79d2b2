#include <algorithm>
#include <cmath>
#include <set>
#include <string_view>

#include "gaze/level.hpp"
#include "values/field_archive.hpp"
#include "values/ranges.hpp"

/// What is taken for the values of a level that were left out, because it follows from others. This
/// is the one place that knows; all other values have their defaults in their structs.
namespace gaze {
namespace {

/// Looks whether anything has been left out.
struct Check {
  bool is_any = false;

  template <typename T, typename Default>
  void operator()(const std::optional<T>& value, Default&&) {
    is_any |= !value.has_value();
  }
  template <typename T>
  void set(const T& value, const T& right) {
    is_any |= !(value == right);
  }
};

/// Puts in what has been left out.
struct Fill {
  template <typename T, typename Default>
  void operator()(std::optional<T>& value, Default&& taken) {
    if (!value) value = taken();
  }
  template <typename T>
  void set(T& value, const T& right) {
    value = right;
  }
};

template <typename Put, typename Of>
void go_through_move(Put& put, Of& move, double height, Plane plane) {
  const bool hops = move.gait == Gait::hop;
  const bool is_raised = plane == Plane::ground;  // its points have no height of their own
  put(move.follow_start, [&] { return 1.25 * move.follow_distance; });
  put(move.step_height, [&] { return std::min(0.3, height / 2.0); });
  put(move.hop_height, [&] { return hops ? 0.5 : 0.0; });
  put(move.hop_length, [&] { return 2.0 * *move.hop_height; });
  put(move.hop_rest, [&] { return Duration::from_seconds(hops ? 0.5 : 0.0); });
  put(move.drop_height, [&] {
    if (move.gait == Gait::drop) return is_raised ? 2.0 : 0.0;
    return *move.hop_height;
  });
  put(move.hover_height, [&] { return move.gait == Gait::hover && is_raised ? 1.5 : 0.0; });
}

// An arc takes longer than the straight way, and ends where it comes down.
Duration usual_lifetime(const Attack& attack) {
  constexpr double kOfLobs = 30.0;
  const double straight = std::min(attack.range / attack.speed, kSeconds.high);
  return Duration::from_seconds(is_lobbed(attack) ? kOfLobs : straight);
}

// Everything that an attack may leave out, whatever its way to harm: nobody has to ask whether it
// is there.
void complete_attack(Attack& attack, double height) {
  const bool is_shot = attack.how == Attack::How::shot;
  Fill fill;
  fill(attack.cooldown, [] { return Duration::from_seconds(1.0); });
  fill(attack.radius, [&] { return is_shot ? 0.05 : 0.0; });
  fill(attack.muzzle, [&] { return Vector3d{0.0, 0.0, height / 2.0}; });
  fill(attack.gravity_share, [&] { return is_lobbed(attack) ? 1.0 : 0.0; });
  fill(attack.lifetime, [&] { return is_shot ? usual_lifetime(attack) : Duration{}; });
  fill(attack.mirror_radius, [&] { return attack.range; });
}

// Values that do not count for its way to harm are as if they had never been given.
Attack completed_attack(const Attack& attack, double height) {
  Attack own;
  own.name = attack.name;
  load_fields(bytes_of_fields(attack), own);
  complete_attack(own, height);
  return own;
}

// A thing that is thrown flies like a shot, as thick as its body, and its landing is heard by the
// name of its kind.
Attack completed_flight(const Kind& kind) {
  Thing own;
  load_fields(bytes_of_fields(*kind.thing), own);
  Attack& flight = own.flight;
  flight.name = kind.name;
  flight.radius = kind.radius;
  flight.range = kReach.high;
  complete_attack(flight, kind.height);
  return flight;
}

template <typename Put, typename Of>
void go_through_kind(Put& put, Of& kind, Plane plane) {
  put(kind.still_visibility, [&] { return kind.visibility; });
  if (kind.sight) {
    auto& sight = *kind.sight;
    put(sight.keep_range, [&] { return sight.range; });
    put(sight.eye, [&] { return Vector3d{0.0, 0.0, kEyeShare * kind.height}; });
  }
  for (auto& feeler : kind.feelers) {
    put(feeler.from, [&] { return Vector3d{0.0, 0.0, kind.height / 2.0}; });
  }
  if (kind.nearness) {
    put(kind.nearness->axes, [&] {
      return std::array<bool, 3>{true, plane != Plane::upright, plane != Plane::ground};
    });
  }
  put(kind.move, [] {
    Move stays;
    stays.gait = Gait::fixed;
    stays.turn_rate = Angle{};
    return stays;
  });
  if (kind.move) go_through_move(put, *kind.move, kind.height, plane);
  for (auto& attack : kind.attacks) put.set(attack, completed_attack(attack, kind.height));
  if (kind.thing) put.set(kind.thing->flight, completed_flight(kind));
}

// A hopper gets on by whole hops; the rate is that of hops on level ground.
double hop_speed(const Level& level, const Move& move) {
  if (level.gravity == 0.0) return move.speed;
  Move whole = move;
  Fill fill;
  go_through_move(fill, whole, 0.0, level.plane);
  const double seconds = 2.0 * std::sqrt(2.0 * *whole.hop_height / level.gravity);
  return *whole.hop_length / (seconds + whole.hop_rest->seconds());
}

// The speed of a kind may be a share of that of another kind, whose speed is a share of a third
// one's. Without an end to that it stays as it is.
double speed_of(const Level& level, const Move& move) {
  static const Move kStays;
  double share = 1.0;
  const Move* at = &move;
  for (std::size_t depth = 0; at->pace_of != "" && depth <= level.kinds.size(); ++depth) {
    const auto named = std::find_if(level.kinds.begin(), level.kinds.end(),
                                    [&](const Kind& kind) { return kind.name == at->pace_of; });
    if (named == level.kinds.end()) return move.speed;
    share *= at->pace;
    at = named->move ? &*named->move : &kStays;
  }
  if (at->pace_of != "") return move.speed;
  const double speed = at->gait == Gait::hop ? hop_speed(level, *at) : at->speed;
  return at == &move ? speed : share * speed;
}

template <typename Put, typename Of>
void set_speeds(Put& put, Of& level) {
  for (auto& kind : level.kinds) {
    if (!kind.move) continue;
    const bool hops = kind.move->gait == Gait::hop;
    put.set(kind.move->speed, hops ? hop_speed(level, *kind.move) : speed_of(level, *kind.move));
  }
}

// What something wakes begins asleep.
template <typename Put, typename Of>
void put_to_sleep(Put& put, Of& level) {
  std::set<std::string_view> woken;
  const auto add = [&](const std::vector<std::string>& ids) {
    woken.insert(ids.begin(), ids.end());
  };
  std::vector<char> is_known(level.kinds.size());
  for (const Agent& agent : level.agents) {
    if (agent.kind >= level.kinds.size() || is_known[agent.kind] != 0) continue;
    is_known[agent.kind] = 1;
    for (const Rule& rule : level.kind_of(agent).when.rules) add(rule.reaction.wakes);
    add(level.kind_of(agent).defeat.wakes);
  }
  for (const Zone& zone : level.zones) {
    for (const std::uint32_t agent : zone.wakes) {
      if (agent < level.agents.size()) woken.insert(level.agents[agent].id);
    }
  }
  if (woken.empty()) return;
  for (auto& agent : level.agents) {
    put.set(agent.is_asleep, agent.is_asleep || woken.contains(agent.id));
  }
}

// A floor is as high as it is thick.
template <typename Put, typename Of>
void go_through_solid(Put& put, Of& solid, double base) {
  if (solid.form == Solid::Form::floor) put.set(solid.height, solid.thickness);
  put(solid.base, [&] { return base; });
}

// A mesh is as high as its triangles.
template <typename Put, typename Of>
void go_through_mesh(Put& put, Of& solid) {
  if (solid.triangles.empty()) return;
  double low = solid.triangles[0][0].z();
  double high = low;
  for (const Triangle& triangle : solid.triangles) {
    for (const Vector3d& p : triangle) {
      low = std::min(low, p.z());
      high = std::max(high, p.z());
    }
  }
  put.set(solid.base, std::optional(low));
  put.set(solid.height, high - low);
}

template <typename Put, typename Of>
void go_through(Put& put, Of& level) {
  const Level& as_given = level;
  put.set(level.named_kinds,
          as_given.named_kinds == 0 ? as_given.kinds.size() : as_given.named_kinds);
  for (auto& solid : level.solids) {
    if (solid.form == Solid::Form::mesh) go_through_mesh(put, solid);
  }
  for (auto& solid : level.solids) go_through_solid(put, solid, base_of(as_given, solid));
  for (auto& zone : level.zones) put(zone.base, [&] { return base_of(as_given, zone); });
  for (auto& agent : level.agents) {
    put(agent.driver, [&] {
      if (agent.track) return Driver::track;
      return agent.script.empty() ? Driver::mind : Driver::script;
    });
  }
  set_speeds(put, level);
  for (auto& kind : level.kinds) go_through_kind(put, kind, as_given.plane);
  put_to_sleep(put, level);
}

}  // namespace

double base_of(const Level& level, const Solid& solid) {
  if (solid.base) return *solid.base;
  if (level.plane == Plane::upright) return 0.0;
  const double ground = level.ground_height.value_or(0.0);
  return solid.form == Solid::Form::floor ? ground - solid.thickness : ground;
}

double base_of(const Level& level, const Zone& zone) {
  if (zone.base) return *zone.base;
  return level.plane == Plane::upright ? 0.0 : level.ground_height.value_or(0.0);
}

Move completed(const Level& level, const Kind& kind) {
  Kind body;
  body.height = kind.height;
  body.move = kind.move;
  Fill fill;
  if (body.move) {
    fill.set(body.move->speed, body.move->gait == Gait::hop ? hop_speed(level, *body.move)
                                                            : speed_of(level, *body.move));
  }
  go_through_kind(fill, body, level.plane);
  return *body.move;
}

void complete(Level& level) {
  Fill fill;
  go_through(fill, level);
}

bool is_complete(const Level& level) {
  Check check;
  go_through(check, level);
  return !check.is_any;
}

}  // namespace gaze
