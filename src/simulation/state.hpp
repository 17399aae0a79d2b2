#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
#include <string_view>
#include <vector>

#include "agents/chance.hpp"
#include "agents/everyone.hpp"
#include "agents/told.hpp"
#include "combat/aim.hpp"
#include "combat/fights.hpp"
#include "gaze/simulation.hpp"
#include "mind/choose.hpp"
#include "sense/senses.hpp"
#include "travel/ways.hpp"

namespace gaze {

/// What of a running game outlives its rounds.
struct Run {
  std::vector<double> score;  ///< By agent.
  std::vector<std::shared_ptr<const std::string>> host_names;
  double unspent_ticks = 0.0;  ///< Given to `advance`, below 1 but for rounding.
  bool is_over = false;        ///< The round.
};

/// Doors: when somebody last was near.
struct Doors {
  std::vector<Moment> last_near;  ///< By door.
};

/// A running game: the level with all that follows from it, and the parts that change.
struct Simulation::State : Asking<Simulation::State> {
  Fixed fixed;
  World world;
  Clock clock;
  Chance chance;
  Run run;
  Bodies bodies;
  Lives lives;
  Minds minds;
  Knowledge knowledge;
  Senses senses;
  Ways ways;
  Fights fights;
  Doors doors;
  Told told;

  State(std::shared_ptr<const Level> the_level, World the_world)
      : fixed(std::move(the_level)), world(std::move(the_world)) {}

  /// What a host gives: throws UsageError if there is no such agent.
  std::uint32_t index_of(AgentId id) const;

  bool is_in_flight(std::uint32_t i) const { return ways.flight[i].what != Flight::What::none; }

  /// What of a step is left from a landing and the rest after it.
  Moment left_after_rest(std::uint32_t i, Moment budget) const {
    return std::max(Moment{0}, std::min(budget, now() - ways.rests_until[i]));
  }

  Fighter fighter(std::uint32_t i) const {
    const Kind& own = kind(i);
    return {bodies.position[i], bodies.facing[i],     own.radius,
            own.height,         own.move.tilt_limits, flips(plane(), own)};
  }

  Looked looked(std::uint32_t i) const {
    const Kind& own = kind(i);
    return {bodies.position[i],
            own.height,
            own.body_points,
            own.radius,
            knowledge.is_still[i] ? own.still_visibility : own.visibility,
            knowledge.dimness[i]};
  }

  void make_noise(const Vector3d& place, double reach, std::string_view name,
                  std::optional<std::uint32_t> maker) {
    if (!(reach > 0.0)) return;
    told.noises.push_back({{place, reach}, name, maker, clock.tick});
    if (maker) told.last_noise[*maker] = told.noises.back();
  }

  /// Marks the rule of a cause and a name, if there is one: exactly that name, else any.
  void fire(std::uint32_t who, Cause cause, std::string_view name);
  /// The same for a cause by kind: that of the other, else the next that it is like, else any.
  void fire_by_kind(std::uint32_t who, Cause cause, std::uint32_t other);

  Event& tell(Event::What what, std::uint32_t who) {
    Event& event = told.events.emplace_back();
    event.what = what;
    event.tick = clock.tick;
    event.agent = {who};
    return event;
  }

  void change_mode(std::uint32_t who, Mode to) {
    if (minds.mode[who] == to) return;
    Event& event = tell(Event::What::mode, who);
    event.from = minds.mode[who];
    event.to = to;
    minds.mode[who] = to;
    minds.mode_since[who] = now();
    minds.lasted[who] = 0;
  }
};

}  // namespace gaze
