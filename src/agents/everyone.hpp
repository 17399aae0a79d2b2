#pragma once

#include <algorithm>
#include <cstdint>
#include <optional>
#include <string_view>

#include "agents/bodies.hpp"
#include "agents/fixed.hpp"
#include "agents/knowledge.hpp"
#include "agents/lives.hpp"
#include "agents/minds.hpp"
#include "agents/told.hpp"
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
  /// How a host names it.
  AgentId id_of(std::uint32_t i) const { return {i, parts().fixed.generation[i]}; }
  const Kind& kind(std::uint32_t i) const { return *parts().fixed.kind_of[i]; }
  const Attack& attack(std::uint32_t i, std::uint32_t number) const {
    return kind(i).attacks[number];
  }
  const Attack& attack(const AttackId& id) const {
    const Kind& kind_of_it = level().kinds[id.kind];
    return id.number == AttackId::kFlight ? kind_of_it.thing->flight
                                          : kind_of_it.attacks[id.number];
  }
  AttackId attack_id(std::uint32_t i, std::uint32_t number) const {
    return {parts().fixed.kind_index[i], number};
  }
  /// Its name, which lives as long as the game or any copy of it, whatever is set.
  std::string_view name_of(const AttackId& id) const {
    const KindLinks& links_of_it = parts().fixed.links.kinds[id.kind];
    return id.number == AttackId::kFlight ? links_of_it.flight_noise.text
                                          : links_of_it.attack_noises[id.number].text;
  }
  const KindLinks& links(std::uint32_t i) const {
    return parts().fixed.links.kinds[parts().fixed.kind_index[i]];
  }
  const KindLimits& limit(std::uint32_t i) const { return *parts().fixed.limit_of[i]; }

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

  /// The agent that another acts on, if it acts on an agent and not just on a place.
  std::optional<std::uint32_t> target_agent(std::uint32_t i) const {
    if (!parts().minds.has_target[i]) return std::nullopt;
    const auto& contact = parts().minds.target[i];
    if (!contact || contact->state != Contact::State::noticed) return std::nullopt;
    return contact->other;
  }

  /// True if an agent moves up and down as well: it hovers in a level seen from the side.
  bool flies_freely(std::uint32_t i) const {
    return plane() == Plane::upright && kind(i).move->gait == Gait::hover;
  }
  /// How far it is from one place to another for an agent: level, unless it flies freely.
  double apart(std::uint32_t i, const Vector3d& a, const Vector3d& b) const {
    return flies_freely(i) ? plane_distance(plane(), a, b) : level_distance(plane(), a, b);
  }

  /// Returns whether two bodies overlap in height if the feet of the other are `rise` higher.
  bool share_a_height(std::uint32_t i, std::uint32_t other, double rise) const {
    return rise < kind(i).height && -rise < kind(other).height;
  }

  /// Distance at which an agent stops before another, metres: `wanted`, or where the bodies touch
  /// if they stop each other.
  /// Metres. Agents stop this much inside their stop distance, so that rounding never leaves an
  /// attack whose range equals that distance short.
  static constexpr double kStopsInside = 1e-10;

  double stop_before(std::uint32_t i, std::uint32_t other, double wanted) const {
    const double touching = kind(i).radius + kind(other).radius;
    const double stop = std::max(0.0, wanted - kStopsInside);
    return are_solid(i, other) ? std::max(stop, touching) : stop;
  }
  /// The same for an agent that chases.
  double chase_stop(std::uint32_t i, std::uint32_t target) const {
    return stop_before(i, target, stop_distance(kind(i), kind(target)));
  }

  /// How an agent moves in this step, metres a second.
  Vector3d motion_of(std::uint32_t i) const {
    const Bodies& bodies = parts().bodies;
    return (bodies.position[i] - bodies.previous[i]) * level().ticks_per_second;
  }

  /// True if one agent looks for another at all: it is hostile to it, and does not leave it out by
  /// kind, team or tag.
  bool looks_for(std::uint32_t i, std::uint32_t other) const {
    const KindLimits& limits = limit(i);
    const std::uint32_t team = kind(other).team;
    if (i == other || team == kNoTeam || limits.wants_team.empty()) return false;
    if (!limits.wants_team[team]) return false;
    const std::uint32_t its_kind = parts().fixed.kind_index[other];
    if (!limits.wants_kind.empty() && !limits.wants_kind[its_kind]) return false;
    const std::uint64_t tags = limits.wanted_tags;
    return tags == 0 || (tags & parts().knowledge.tags[other]) != 0;
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

/// The parts that every room may read. A room's own view of the game derives from this and names
/// what the room writes once more, not const.
struct Everyone : Asking<Everyone> {
  const Fixed& fixed;
  const World& world;
  const Clock& clock;
  const Bodies& bodies;
  const Lives& lives;
  const Minds& minds;
  const Knowledge& knowledge;

  template <typename State>
  explicit Everyone(const State& state)
      : fixed(state.fixed),
        world(state.world),
        clock(state.clock),
        bodies(state.bodies),
        lives(state.lives),
        minds(state.minds),
        knowledge(state.knowledge) {}
};

/// Everyone, and a way to tell others what has happened.
struct Teller : Everyone {
  Told& told;
  Events& events;

  template <typename State>
  explicit Teller(State& state) : Everyone(state), told(state.told), events(state.events) {}

  Event& tell(Event::What what, std::uint32_t who) const;
  void make_noise(const Vector3d& place, double reach, const NoiseName& name,
                  std::optional<std::uint32_t> maker) const;
  /// Marks the rule of a cause that is about just that thing; if there is none, the rule that is
  /// about anything.
  void fire(std::uint32_t who, Cause cause, std::uint32_t about = kAnything) const;
  /// The same for a cause that names kinds: the rule for the kind of the other agent; else for the
  /// next kind that this is like; else the one for any.
  void fire_by_kind(std::uint32_t who, Cause cause, std::uint32_t other) const;
  /// Tells an agent where another is, if it looks for it.
  void tell_of(std::uint32_t who, std::uint32_t other) const;
};

/// What an agent acts on: another that it notices, else the place that it learnt of last.
struct Focus {
  std::optional<std::uint32_t> agent;
  Vector3d place{0.0, 0.0, 0.0};   ///< Of the feet.
  Vector3d motion{0.0, 0.0, 0.0};  ///< How it moved when last perceived, metres a step.
  double height = 0.0;             ///< Of what is there.
};

[[nodiscard]] std::optional<Focus> focus_of(const Everyone& all, std::uint32_t who);

/// Where the hand of an agent is. @param feet  Where the agent is.
[[nodiscard]] Vector3d hand_of(const Everyone& all, std::uint32_t who, const Vector3d& feet);

/// Metres between two bodies, across and upwards, whichever is more; 0 where they overlap.
/// @param feet  Where the first is.
[[nodiscard]] double gap_between(const Everyone& all, std::uint32_t who, const Vector3d& feet,
                                 std::uint32_t other);

}  // namespace gaze
