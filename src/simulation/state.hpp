#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
#include <vector>

#include "combat/aim.hpp"
#include "gaze/simulation.hpp"
#include "geometry/plan.hpp"
#include "mind/choose.hpp"
#include "travel/walk.hpp"

namespace gaze {

/// What follows from the values of a kind at this rate of ticks, worked out once.
struct KindLimits {
  NoticeLimits notice;
  SineCosine turn;                ///< Most of one step.
  std::vector<Moment> cooldowns;  ///< By attack.
  std::vector<Moment> lifetimes;  ///< By attack; of its projectiles.
};

/// How long a goal has been out of reach.
struct Progress {
  double best = 0.0;  ///< Nearest so far, metres, in whole centimetres gained.
  Moment since = 0;   ///< When that was.
  bool told = false;  ///< `blocked` has been told for this goal.
};

/// Where a walker with a list of places stands in it.
struct Course {
  std::uint32_t next = 0;
  bool backwards = false;
  bool is_new = true;      ///< The goal was set since the last look at progress.
  Moment wait_until = -1;  ///< Scripts: -1 while not waiting.
  Progress progress;
};

/// What an agent wants to turn to, if to anything: a place for its middle to face, or a direction.
struct FacingWish {
  std::optional<Vector3d> look_at;
  std::optional<Vector2d> look_along;
};

struct Shell {
  std::uint32_t shooter = 0;
  std::uint32_t attack = 0;
  Vector3d position{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};
  Moment age = 0;
  bool is_spent = false;
};

struct Blow {
  std::uint32_t by = 0;
  std::uint32_t victim = 0;
  std::uint32_t attack = 0;
};

/// Everything that changes while a level is played, one array per field, indexed by agent. The
/// stages of a step are functions over it; each writes only what its own line names.
struct Simulation::State {
  std::shared_ptr<const Level> level;
  World world;

  // Worked out once.
  std::vector<KindLimits> limits;                   ///< By kind.
  std::vector<std::vector<std::uint32_t>> foes_of;  ///< By team: the agents it is hostile to.
  std::vector<Vector2d> placed_facing;
  std::vector<Mode> idle;

  // Bodies: written by travel, by the host and by damage.
  std::vector<Vector3d> position;
  std::vector<Vector3d> previous;  ///< At the tick before.
  std::vector<Vector2d> facing;
  std::vector<Vector2d> previous_facing;
  std::vector<double> health;
  std::vector<char> alive;

  // Minds: written by decide, and by travel on coming home.
  std::vector<Mode> mode;
  std::vector<std::optional<Contact>> target;
  std::vector<Vector3d> home;  ///< Where it left its idle mode.
  std::vector<Course> course;

  // Senses.
  std::vector<std::vector<Contact>> contacts;  ///< By agent, in file order of the others.
  std::vector<News> news;

  // Combat.
  std::vector<std::vector<Moment>> ready;  ///< By agent and attack.
  std::vector<Shell> shells;
  std::vector<Blow> blows;
  std::vector<Projectile> projectiles;  ///< The shells, as the host may see them.

  std::vector<Vector3d> seen_position;  ///< What minds travel by: poses once drivers have moved.
  std::vector<FacingWish> wishes;
  std::vector<Event> events;
  std::size_t sorted_events = 0;
  bool events_are_old = false;
  std::int64_t tick = 0;
  double unspent_ticks = 0.0;  ///< Given to `advance`, below 1 but for rounding.

  State(std::shared_ptr<const Level> the_level, World the_world)
      : level(std::move(the_level)), world(std::move(the_world)) {}

  std::uint32_t agent_count() const { return static_cast<std::uint32_t>(position.size()); }
  const Agent& agent(std::uint32_t i) const { return level->agents[i]; }
  const Kind& kind(std::uint32_t i) const { return level->kind_of(level->agents[i]); }
  const KindLimits& limit(std::uint32_t i) const { return limits[level->agents[i].kind]; }
  Plane plane() const { return level->plane; }
  Moment now() const { return tick * kMomentsPerTick; }
  Moment step_start() const { return now() - kMomentsPerTick; }

  /// The agent it acts on, if that is one and not just a place.
  std::optional<std::uint32_t> target_agent(std::uint32_t i) const {
    const auto& contact = target[i];
    if (!contact || contact->state != Contact::State::noticed) return std::nullopt;
    return contact->other;
  }

  Fighter fighter(std::uint32_t i) const {
    return {position[i], facing[i], kind(i).radius, kind(i).height};
  }

  Looked looked(std::uint32_t i) const {
    return {position[i], kind(i).height, kind(i).body_points};
  }

  Event& tell(Event::What what, std::uint32_t who) {
    Event& event = events.emplace_back();
    event.what = what;
    event.tick = tick;
    event.agent = {who};
    return event;
  }

  void change_mode(std::uint32_t who, Mode to) {
    if (mode[who] == to) return;
    Event& event = tell(Event::What::mode, who);
    event.from = mode[who];
    event.to = to;
    mode[who] = to;
  }
};

/// The stages of one step, in this order. Each reads what the ones before it wrote.
void decide(Simulation::State& state);
void travel(Simulation::State& state);
void fight(Simulation::State& state);
void sense(Simulation::State& state);
void order_events(Simulation::State& state);

/// True once a goal has been out of reach for a second; resets itself for a new goal.
[[nodiscard]] bool is_stuck(Course& course, double distance, Moment now, int ticks_per_second);

/// Moves on to the next place of a list, round or to and fro.
void advance_course(Course& course, std::size_t places, bool to_and_fro);

/// Follows an agent's script for one step.
void follow_script(Simulation::State& state, std::uint32_t who);

/// Walks one leg for as much of the budget as it takes, and moves the agent.
LegResult walk_leg(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget);

}  // namespace gaze
