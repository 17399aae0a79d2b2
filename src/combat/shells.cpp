#include <limits>

#include "combat/damage.hpp"
#include "combat/meeting.hpp"
#include "combat/shells.hpp"
#include "combat/things.hpp"
#include "gaze/flight.hpp"
#include "geometry/rolling.hpp"
#include "world/bounds.hpp"
#include "world/touching.hpp"

/// What has been fired or thrown: how it flies, and what becomes of it.
namespace gaze {
namespace {

using Index = std::uint32_t;

// A landing is heard once, however often the shell bounces. A shell that bursts hurts by its blast
// alone.
void hit(Fighting& state, Shell& shell, const Meeting& meeting, const Vector3d& place) {
  const Attack& attack = state.attack(shell.attack);
  tell_hit(state, shell, meeting, place);
  if (!shell.has_landed) {
    state.make_noise(place, attack.noise_reach, shell.noise, shell.shooter);
  }
  shell.has_landed = true;
  if (attack.blast_radius > 0.0) return;
  const Vector3d way = place - shell.origin;
  const double distance = length_of(way);
  const double share = damage_share(attack, distance);
  if (meeting.solid) {
    wear_down(state, meeting.solid->index, attack.damage * share, shell.shooter, place);
  }
  if (!meeting.body || !can_hurt(state, shell.shooter, attack, *meeting.body)) return;
  state.fights.blows.push_back({shell.shooter, *meeting.body, shell.attack, share,
                                place - shell.velocity, place, shell.met_at});
}

// Where a shell ends it bursts, or leaves something behind, or lies there itself.
void end_flight(Fighting& state, Shell& shell, const Vector3d& place) {
  const Attack& attack = state.attack(shell.attack);
  shell.is_spent = true;
  if (attack.blast_radius > 0.0) {
    blast(state, shell.shooter, shell.shooter, shell.attack, place, attack.blast_radius,
          shell.met_at);
  }
  leave_behind(state, shell.thing.value_or(shell.shooter), shell.attack, place);
  if (shell.thing_kind != kNothing) land(state, shell, place);
}

void home(const Fighting& state, Shell& shell, const Attack& attack) {
  if (attack.homing_rate.degrees() == 0.0 || !shell.target || !state.lives.alive[*shell.target])
    return;
  const double most =
      std::min(180.0, attack.homing_rate.degrees() / state.level().ticks_per_second);
  shell.velocity =
      turned_to(shell.velocity, fighter_of(state, *shell.target).middle() - shell.position,
                sine_cosine(Angle::from_degrees(most)));
}

/// True once a shell has come to its end.
bool meet(Fighting& state, Shell& shell, const Meeting& meeting, const Vector3d& place) {
  const Attack& attack = state.attack(shell.attack);
  hit(state, shell, meeting, place);
  if (meeting.body) {
    if (shell.pierced_count == attack.pierce) return true;
    Pierced& pierced =
        state.fights.pierced[static_cast<std::size_t>(&shell - state.fights.shells.data())];
    pierced[static_cast<std::size_t>(shell.pierced_count++)] = *meeting.body;
    return false;
  }
  const bool can_bounce = shell.bounces_left > 0 && meeting.normal != Vector3d(0.0, 0.0, 0.0);
  if (!can_bounce) return true;
  --shell.bounces_left;
  shell.clear_steps = 0;
  shell.velocity = bounced(shell.velocity, meeting.normal, attack.bounce_loss);
  shell.position = place + meeting.normal * kContactGap;
  return false;
}

bool has_left(const Vector3d& place) {
  constexpr double kFarthest = 50'000.0;  // metres: well outside any level
  return !(std::abs(place.x()) < kFarthest && std::abs(place.y()) < kFarthest &&
           std::abs(place.z()) < kFarthest);
}

// The place just off what a shell meets, so that what it met does not shield the blast. A point has
// no side by which it meets anything: it is taken back the way that it came.
Vector3d just_before(const BallPath& ball, const Meeting& meeting, const Vector3d& place) {
  if (meeting.body) return place;
  if (meeting.normal != Vector3d(0.0, 0.0, 0.0)) return place + meeting.normal * kContactGap;
  const Vector3d way = ball.path.to - ball.path.from;
  const double length = length_of(way);
  return length > 0.0 ? Vector3d(place - way * (kContactGap / length)) : place;
}

void tell_spent(Fighting& state, const Shell& shell, bool is_outside) {
  Event& event = tell_attack(state, Event::What::spent, shell.shooter, shell.attack);
  event.place = shell.position;
  event.angle_deg = angle_of(plan_part(state.plane(), shell.velocity)).degrees();
  event.projectile = shell.number;
  event.is_outside = is_outside;
}

// A thing that has been thrown out of the level is gone for good.
void lose(Fighting& state, Shell& shell) {
  tell_spent(state, shell, true);
  shell.is_spent = true;
  if (shell.thing) put_out(state, *shell.thing);
}

// Finds, for many shells at once, for how many whole steps nothing solid is in their way. In so
// many steps an arc strays from its chord by at most g t^2 / 8: a ball that is thicker by that
// touches first.
void look_ahead(const Fighting& state, Shell& shell, double fall) {
  constexpr int kSteps = 20;
  constexpr double kSlack = 1e-6;  // metres: rounding
  const Attack& attack = state.attack(shell.attack);
  if (attack.drag > 0.0 || attack.homing_rate.degrees() > 0.0) return;
  if (state.world.host()) return;  // which may be another in the next step
  const double seconds = static_cast<double>(kSteps) / state.level().ticks_per_second;
  const FlightState to = flown({shell.position, shell.velocity}, fall, 0.0, seconds);
  const double sag = std::abs(fall) * seconds * seconds / 8.0;
  const BallPath thick{{shell.position, to.place}, *attack.radius + sag + kSlack};
  const auto touch = state.world.first_touch(thick, Stops::shots);
  shell.clear_steps = touch ? static_cast<int>(touch->share * kSteps) : kSteps;
}

// At which share of its way the middle of a shell gets out of the level.
std::optional<double> way_out(const Fighting& state, const BallPath& ball) {
  if (!state.level().bounds) return std::nullopt;
  return leaves_at(state.plane(), *state.level().bounds, ball.path);
}

// Flies a shell from meeting to meeting, until the step or its lifetime is over.
void fly(Fighting& state, Shell& shell) {
  const Attack& attack = state.attack(shell.attack);
  const double fall = state.level().gravity * *attack.gravity_share;
  const Moment end = std::min(kMomentsPerTick, shell.lifetime - shell.age);
  Moment at = 0;
  home(state, shell, attack);
  if (shell.clear_steps == 0) look_ahead(state, shell, fall);
  const bool is_clear = shell.clear_steps > 0;
  if (is_clear) --shell.clear_steps;
  while (!shell.is_spent && at < end) {
    const auto seconds = [&](Moment moments) {
      return static_cast<double>(moments) / double(kMomentsPerTick) /
             state.level().ticks_per_second;
    };
    const FlightState from{shell.position, shell.velocity};
    const FlightState to = flown(from, fall, attack.drag, seconds(end - at));
    const BallPath ball{{from.place, to.place}, *attack.radius};
    const Stretch stretch{static_cast<double>(at) / double(kMomentsPerTick),
                          static_cast<double>(end) / double(kMomentsPerTick)};
    const Meeting meeting = first_meeting(state, shell, ball, stretch, is_clear && at == 0);
    if (const auto out = way_out(state, ball); out && *out <= meeting.share) {
      shell.position = ball.path.from + (ball.path.to - ball.path.from) * *out;
      lose(state, shell);
      break;
    }
    if (!meeting.is_something()) {
      shell.position = to.place;
      shell.velocity = to.velocity;
      at = end;
      break;
    }
    const Vector3d place = from.place + (to.place - from.place) * meeting.share;
    const auto used = static_cast<Moment>(static_cast<double>(end - at) * meeting.share);
    shell.met_at = state.step_start() + at + used;
    if (!meeting.body) {
      shell.velocity = flown(from, fall, attack.drag, seconds(used)).velocity;
      at += used;
    }
    if (meet(state, shell, meeting, place)) {
      end_flight(state, shell, just_before(ball, meeting, place));
    }
  }
  shell.age += end;
  if (shell.is_spent) return;
  shell.met_at = state.step_start() + end;
  if (shell.age >= shell.lifetime) {
    tell_spent(state, shell, false);
    end_flight(state, shell, shell.position);
  }
  if (!shell.is_spent && has_left(shell.position)) lose(state, shell);
}

// The last shell takes the place of one that is spent. To move all that follow would cost more than
// to fly them.
void take_out_spent(Fighting& state) {
  for (std::size_t i = 0; i < state.fights.shells.size();) {
    if (!state.fights.shells[i].is_spent) {
      ++i;
      continue;
    }
    state.fights.shells[i] = state.fights.shells.back();
    state.fights.pierced[i] = state.fights.pierced.back();
    state.fights.shells.pop_back();
    state.fights.pierced.pop_back();
  }
}

Shell shell_of(Fighting& state, Index who, const AttackId& attack, const Vector3d& muzzle,
               const Vector3d& velocity) {
  const Attack& values = state.attack(attack);
  Shell shell;
  shell.shooter = who;
  shell.attack = attack;
  shell.noise = state.fixed.links.kinds[attack.kind].attack_noises[attack.number];
  shell.number = state.shells_made++;
  shell.lifetime = state.moments(*values.lifetime);
  shell.position = shell.origin = muzzle;
  shell.velocity = velocity;
  shell.bounces_left = values.bounces;
  return shell;
}

Event& tell_fired(const Fighting& state, const Shell& shell) {
  Event& event = tell_attack(state, Event::What::fired, shell.shooter, shell.attack);
  event.projectile = shell.number;
  event.place = shell.position;
  event.angle_deg = angle_of(plan_part(state.plane(), shell.velocity)).degrees();
  return event;
}

// Limits the memory of a level. Counts the projectiles that are not fired.
bool has_room_for_one_more(Fighting& state) {
  Fights& fights = state.fights;
  const bool has_room = fights.shells.size() + fights.thrown.size() < LevelLimits::projectiles;
  if (!has_room) ++fights.not_fired;
  return has_room;
}

}  // namespace

void fire_shell(Fighting& state, Index who, Index attack, const Vector3d& velocity,
                const Aimed& at) {
  if (!has_room_for_one_more(state)) return;
  const Attack& values = state.attack(who, attack);
  const Vector3d muzzle = muzzle_of(state.plane(), values, fighter_of(state, who));
  Shell shell = shell_of(state, who, state.attack_id(who, attack), muzzle, velocity);
  shell.target = at.agent;
  state.fights.shells.push_back(shell);
  state.fights.pierced.emplace_back();
  Event& event = tell_fired(state, shell);
  if (at.agent) event.other = state.id_of(*at.agent);
  state.make_noise(muzzle, values.fire_reach, state.fixed.links.shot, who);
}

// Collects the projectiles in `thrown`, because a defeat may happen during the loop over `shells`.
void scatter(Fighting& state, Index who, const AttackId& attack, const Vector3d& place,
             const Vector3d& ahead) {
  const Attack& values = state.attack(attack);
  for (int i = 0; i < values.burst; ++i) {
    if (!has_room_for_one_more(state)) continue;
    const Vector3d velocity = spread(state, who, values, ahead * values.speed);
    state.fights.thrown.push_back(shell_of(state, who, attack, place, velocity));
    tell_fired(state, state.fights.thrown.back());
  }
  state.make_noise(place, values.fire_reach, state.fixed.links.shot, who);
}

void fly_shells(Fighting& state) {
  if (!state.fights.shells.empty() || !state.fights.beams.empty() || state.fixed.uses_beams)
    look_who_can_be_hit(state);
  for (Shell& shell : state.fights.shells) {
    fly(state, shell);
    if (shell.thing && !shell.is_spent) {
      const Vector3d feet = shell.position - Vector3d{0.0, 0.0, *state.attack(shell.attack).radius};
      state.told.placed.push_back({*shell.thing, feet, false});
    }
  }
  take_out_spent(state);
}

}  // namespace gaze
