#pragma once

#include <memory>
#include <string>
#include <vector>

#include "agents/chance.hpp"
#include "agents/everyone.hpp"
#include "combat/fights.hpp"
#include "gaze/simulation.hpp"
#include "sense/senses.hpp"
#include "travel/ways.hpp"

namespace gaze {

/// The part of a running game that outlives its rounds.
struct RunState {
  Clock clock;
  Chance chance;
  Events events;
  Meshes meshes;
  std::vector<double> score;  ///< By agent.
  std::int64_t shells_made = 0;
  std::vector<std::shared_ptr<const std::string>> host_names;
  double unspent_ticks = 0.0;  ///< Given to `advance`, below 1 but for rounding.

  RunState(const Fixed& fixed, Meshes the_meshes);
};

/// The part of a running game that begins anew with each round. Each member is written by one room.
struct RoundState {
  World world;
  Bodies bodies;
  Lives lives;
  Minds minds;
  Knowledge knowledge;
  Senses senses;
  Ways ways;
  Fights fights;
  Told told;
  std::vector<Moment> door_used;  ///< By door: when somebody last was near.
  bool is_over = false;

  RoundState(const Fixed& fixed, World the_world, RunState& run);
};

/// A running game: what never changes, what goes on over all rounds, and the round.
struct Simulation::State : Asking<Simulation::State>, RunState, RoundState {
  std::shared_ptr<const Fixed> begun;   ///< Of the level with which the game began.
  std::shared_ptr<const Fixed> shared;  ///< As it is now.
  const Fixed& fixed;                   ///< The same.

  State(const std::shared_ptr<const Fixed>& the_fixed, World the_world, Meshes the_meshes)
      : State(the_fixed, the_fixed, std::move(the_world), std::move(the_meshes)) {}
  State(std::shared_ptr<const Fixed> at_begin, std::shared_ptr<const Fixed> now, World the_world,
        Meshes the_meshes)
      : RunState(*now, std::move(the_meshes)),
        RoundState(*now, std::move(the_world), *this),
        begun(std::move(at_begin)),
        shared(std::move(now)),
        fixed(*shared) {}
  /// A game that goes on with something changed.
  State(State&& game, std::shared_ptr<const Fixed> now)
      : RunState(static_cast<RunState&&>(game)),
        RoundState(static_cast<RoundState&&>(game)),
        begun(std::move(game.begun)),
        shared(std::move(now)),
        fixed(*shared) {}
  State(const State&) = default;

  /// The index of an agent that a host names. Throws UsageError if there is no such agent, or it is
  /// no longer there.
  std::uint32_t index_of(AgentId id) const;
  /// The same of one that may have been taken out, as long as nobody else has its number.
  std::uint32_t known_index(AgentId id) const {
    const bool has_just_gone = id.index < agent_count() && agent(id.index).is_spare &&
                               id.generation + 1 == fixed.generation[id.index];
    return has_just_gone ? id.index : index_of(id);
  }
  /// True if it is in the game: not kept for something to leave behind, nor taken out.
  bool is_in_game(std::uint32_t who) const {
    return lives.presence[who] != Presence::away && fixed.vacancy[who] == Vacancy::none;
  }
};

/// True where nothing but the numbers of its senses keeps one agent from noticing another: a
/// verdict about them names no hindrance.
[[nodiscard]] bool looks_now(const Simulation::State& state, std::uint32_t looker,
                             std::uint32_t other);

/// The parts of a running game.
[[nodiscard]] inline const Simulation::State& state_of(const Simulation& simulation) noexcept {
  return *simulation.state_;
}

/// A level made ready to be played.
struct Prepared::Data {
  std::shared_ptr<const Fixed> fixed;
  World world;
  Meshes meshes;
};

[[nodiscard]] inline const Prepared::Data& data_of(const Prepared& prepared) noexcept {
  return *prepared.data_;
}

}  // namespace gaze
