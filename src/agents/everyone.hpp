#pragma once

#include <cstdint>
#include <optional>

#include "agents/bodies.hpp"
#include "agents/fixed.hpp"
#include "agents/knowledge.hpp"
#include "agents/lives.hpp"
#include "agents/minds.hpp"
#include "gaze/world.hpp"
#include "geometry/plan.hpp"

namespace gaze {

/// The time of a running game: a count of steps.
struct Clock {
  std::int64_t tick = 0;
};

/// What may be asked of all parts that everyone may read. `Parts` has them as members.
template <typename Parts>
class Asking {
 public:
  std::uint32_t agent_count() const {
    return static_cast<std::uint32_t>(parts().fixed.kind_index.size());
  }
  const Level& level() const { return *parts().fixed.level; }
  Plane plane() const { return level().plane; }
  const Agent& agent(std::uint32_t i) const { return level().agents[i]; }
  const Kind& kind(std::uint32_t i) const { return level().kinds[parts().fixed.kind_index[i]]; }
  const Attack& attack(std::uint32_t i, std::uint32_t number) const {
    return kind(i).attacks[number];
  }
  const KindLimits& limit(std::uint32_t i) const {
    return parts().fixed.limits[parts().fixed.kind_index[i]];
  }

  Moment now() const { return parts().clock.tick * kMomentsPerTick; }
  Moment step_start() const { return now() - kMomentsPerTick; }
  Moment moments(Duration duration) const { return moments_of(duration, level().ticks_per_second); }

  bool is_up(std::uint32_t i) const { return parts().lives.alive[i] && parts().minds.awake[i]; }
  Cylinder body(std::uint32_t i) const {
    return {parts().bodies.position[i], kind(i).radius, kind(i).height};
  }
  Vector3d middle(std::uint32_t i) const {
    return parts().bodies.position[i] + Vector3d{0.0, 0.0, kind(i).height / 2.0};
  }
  Somebody somebody(std::uint32_t i) const {
    return {i, parts().fixed.kind_index[i], parts().knowledge.tags[i]};
  }

  /// The agent it acts on, if that is one and not just a place.
  std::optional<std::uint32_t> target_agent(std::uint32_t i) const {
    if (!parts().minds.has_target[i]) return std::nullopt;
    const auto& contact = parts().minds.target[i];
    if (!contact || contact->state != Contact::State::noticed) return std::nullopt;
    return contact->other;
  }

  /// Seen from the side what hovers goes up and down too.
  bool flies_freely(std::uint32_t i) const {
    return plane() == Plane::upright && kind(i).move.gait == Gait::hover;
  }
  /// How far it is from one place to another for an agent: level, but for what flies freely.
  double apart(std::uint32_t i, const Vector3d& a, const Vector3d& b) const {
    return flies_freely(i) ? plane_distance(plane(), a, b) : level_distance(plane(), a, b);
  }

  bool are_foes(std::uint32_t i, std::uint32_t j) const {
    return limit(i).is_foe_of_team[team_slot(kind(j).team)] != 0;
  }
  /// True if two bodies stop each other.
  bool are_solid(std::uint32_t i, std::uint32_t j) const {
    return limit(i).is_solid_to_team[team_slot(kind(j).team)] &&
           limit(j).is_solid_to_team[team_slot(kind(i).team)];
  }

 private:
  friend Parts;
  Asking() = default;

  const Parts& parts() const { return static_cast<const Parts&>(*this); }
  static std::uint32_t team_slot(std::uint32_t team) { return team == kNoTeam ? 0 : team + 1; }
};

}  // namespace gaze
