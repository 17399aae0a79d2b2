#include <algorithm>
#include <string>

#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/shells.hpp"
#include "combat/things.hpp"

/// What a defeat brings: a burst, something that is left behind, a score, word of it to others, and
/// perhaps a return.
namespace gaze {
namespace {

using Index = std::uint32_t;

// Makes the attack of a defeat. The defeated agent gets the credit for the hits of a shot. The
// agent that defeated it gets the credit for a burst.
void attack_at_defeat(Fighting& state, Index who, const Vector3d& feet, Index by, Moment when) {
  const Index attack = state.links(who).at_defeat;
  if (attack == kNothing) return;
  if (const Attack& values = state.attack(who, attack); values.how == Attack::How::shot) {
    Fighter body = fighter_of(state, who);
    body.feet = feet;
    return scatter(state, who, state.attack_id(who, attack), muzzle_of(state.plane(), values, body),
                   ahead_of(state.plane(), values, body));
  }
  const Vector3d middle = feet + Vector3d{0.0, 0.0, state.kind(who).height / 2.0};
  blast(state, by, who, state.attack_id(who, attack), middle, state.attack(who, attack).range,
        when);
}

void tell_and_wake(Fighting& state, Index who, std::optional<Index> by) {
  const KindLinks& links = state.links(who);
  for (const Index other : links.wakes) {
    state.told.wakes.push_back(other);
    state.fire(other, Cause::triggered);
  }
  for (const Index other : links.tells) {
    if (by) state.tell_of(other, *by);
    state.fire(other, Cause::triggered);
  }
}

// If all of them are in use, it is the one that has lain there longest.
void put_next(Fighting& state, Index owner, const std::optional<AttackId>& attack,
              const Vector3d& feet) {
  const std::vector<Pool>& pools = state.fixed.pools;
  for (std::size_t i = 0; i < pools.size(); ++i) {
    const bool is_of_kind = attack || pools[i].kind == state.fixed.kind_index[owner];
    if (pools[i].owner != owner || pools[i].attack != attack || !is_of_kind) continue;
    Index& next = state.fights.next_left[i];
    state.told.comings.push_back({pools[i].first + next, feet, state.bodies.facing[owner]});
    next = (next + 1) % pools[i].count;
    return;
  }
}

}  // namespace

void come_back_later(Fighting& state, Index who) {
  const auto& respawn = state.kind(who).defeat.respawn;
  if (!respawn) return;
  state.lives.returns_at[who] = state.now() + state.moments(*respawn);
  state.fights.returning.push_back(who);
}

void put_out(Fighting& state, Index who) {
  drop_all(state, who, state.bodies.position[who]);
  state.lives.alive[who] = 0;
  state.lives.presence[who] = Presence::here;
  state.told.gone.push_back(who);
}

void defeat(Fighting& state, Index who, const Vector3d& feet, std::optional<Index> by,
            Moment when) {
  state.lives.health[who] = 0.0;
  state.lives.defeated_by[who] = by;
  Event& event = state.tell(Event::What::defeated, who);
  if (by) {
    event.other = state.id_of(*by);
    event.score = state.kind(who).defeat.score;
    state.score[*by] += event.score;
  }
  put_out(state, who);
  attack_at_defeat(state, who, feet, by.value_or(who), when);
  put_next(state, who, std::nullopt, feet);
  tell_and_wake(state, who, by);
  come_back_later(state, who);
}

void leave_behind(Fighting& state, Index owner, const AttackId& attack, const Vector3d& place) {
  const Attack& values = state.attack(attack);
  if (!values.leaves) return;
  put_next(state, owner, attack, place - Vector3d{0.0, 0.0, *values.radius});
}

}  // namespace gaze
