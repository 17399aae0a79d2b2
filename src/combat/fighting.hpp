#pragma once

#include "agents/chance.hpp"
#include "agents/everyone.hpp"
#include "combat/aim.hpp"
#include "combat/fights.hpp"

namespace gaze {

/// The game as combat sees it. Combat writes who is there and how well, and which parts of the
/// world are gone.
struct Fighting : Teller {
  World& world;
  Lives& lives;
  Fights& fights;
  Chance& chance;
  std::vector<double>& score;
  std::int64_t& shells_made;

  template <typename State>
  explicit Fighting(State& state)
      : Teller(state),
        world(state.world),
        lives(state.lives),
        fights(state.fights),
        chance(state.chance),
        score(state.score),
        shells_made(state.shells_made) {}
};

/// The stage of a step in which shells fly, attacks are made and blows fall.
void fight(Fighting& state);
/// Does what scripts want hands to do: take, throw and put down.
void use_hands(Fighting& state);
/// Gives each thing with `picked_up_by` to the nearest agent within reach that may take it.
void pick_things_up(Fighting& state);
/// Brings things back into play that have been put down or have landed.
void release_things(Fighting& state);

/// An agent as a body in a fight.
[[nodiscard]] Fighter fighter_of(const Everyone& all, std::uint32_t who);
/// True if one agent looks for another and may harm it.
[[nodiscard]] bool may_harm(const Everyone& all, std::uint32_t who, std::uint32_t other);
/// True if an attack of one hurts another: a foe, a thing, or a friend if it spares none.
[[nodiscard]] bool can_hurt(const Everyone& all, std::uint32_t by, const Attack& attack,
                            std::uint32_t victim);
/// Which share of its damage an attack does from so far away, in [0, 1].
[[nodiscard]] double damage_share(const Attack& attack, double distance);
/// Tells an event about an attack.
Event& tell_attack(const Teller& state, Event::What what, std::uint32_t who,
                   const AttackId& attack);

}  // namespace gaze
