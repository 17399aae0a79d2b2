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
  std::shared_ptr<const Fixed> shared;
  const Fixed& fixed;  ///< The same.

  State(std::shared_ptr<const Fixed> the_fixed, World the_world, Meshes the_meshes)
      : RunState(*the_fixed, std::move(the_meshes)),
        RoundState(*the_fixed, std::move(the_world), *this),
        shared(std::move(the_fixed)),
        fixed(*shared) {}

  /// The index of an agent that a host names. Throws UsageError if there is no such agent.
  std::uint32_t index_of(AgentId id) const;
};

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

/// All that follows from a level before anything moves, with agents for what may be left behind.
[[nodiscard]] std::shared_ptr<const Fixed> make_fixed(std::shared_ptr<const Level> level);

}  // namespace gaze
