#include <limits>

#include "combat/damage.hpp"
#include "combat/flight.hpp"
#include "combat/shells.hpp"
#include "combat/things.hpp"
#include "geometry/rolling.hpp"
#include "world/bounds.hpp"
#include "world/contact_gap.hpp"

/// What has been fired: how it flies, what it meets, and beams.
namespace gaze {
namespace {

using Index = std::uint32_t;

/// What a shell meets first on its way.
struct Meeting {
  double share = 1.0;
  std::optional<SolidId> solid;
  std::optional<Index> body;
  Vector3d normal{0.0, 0.0, 0.0};  ///< Away from a solid or the ground.

  bool is_something() const { return share < 1.0; }
};

/// A stretch of a step: shares of it.
struct Stretch {
  double from = 0.0;
  double to = 1.0;
};

bool has_pierced(const Fighting& state, const Shell& shell, Index other) {
  if (shell.pierced_count == 0) return false;
  const Pierced& pierced =
      state.fights.pierced[static_cast<std::size_t>(&shell - state.fights.shells.data())];
  const auto end = pierced.begin() + shell.pierced_count;
  return std::find(pierced.begin(), end, other) != end;
}

bool passes(const Fighting& state, const Shell& shell, Index other) {
  if (!state.lives.alive[other] || other == shell.shooter) return true;
  if (has_pierced(state, shell, other)) return true;
  const std::uint32_t team = state.kind(shell.shooter).team;
  return shell.attack->friends == Attack::Friends::pass && team != kNoTeam &&
         team == state.kind(other).team;
}

// Both move within a step: each body evenly from where it was at the tick before.
void meet_bodies(const Fighting& state, const Shell& shell, const BallPath& ball,
                 const Stretch& stretch, Meeting& meeting) {
  const Vector3d middle = (ball.path.from + ball.path.to) / 2.0;
  const Vector3d way = ball.path.to - ball.path.from;
  if (std::min(ball.path.from.z(), ball.path.to.z()) - ball.radius > state.fights.highest) return;
  const double extent = state.plane() == Plane::upright ? state.fixed.tallest : 0.0;
  const double reach = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z()) / 2.0 +
                       ball.radius + state.fixed.widest + extent + state.fights.most_moved;
  state.fights.hittable.near(middle, reach, [&](Index other, double) {
    if (passes(state, shell, other)) return;
    const Kind& kind = state.kind(other);
    const Vector3d step = state.bodies.position[other] - state.bodies.previous[other];
    const Cylinder body{state.bodies.previous[other] + step * stretch.from, kind.radius,
                        kind.height};
    const auto share = first_touch(ball, body, step * (stretch.to - stretch.from));
    const bool is_first =
        share && (*share < meeting.share ||
                  (*share == meeting.share && meeting.body && other < *meeting.body));
    if (is_first) meeting = {*share, std::nullopt, other, {0.0, 0.0, 0.0}};
  });
}

Meeting first_meeting(const Fighting& state, const Shell& shell, const BallPath& ball,
                      const Stretch& stretch, bool is_clear) {
  Meeting meeting;
  if (!is_clear) {
    if (const auto touch = state.world.first_touch(ball, Stops::shots)) {
      meeting = {touch->share, touch->solid, std::nullopt, touch->normal};
    }
  }
  if (state.level().ground_height) {
    const auto share = first_touch_of_floor(ball, *state.level().ground_height);
    if (share && *share < meeting.share) {
      meeting = {*share, std::nullopt, std::nullopt, {0.0, 0.0, 1.0}};
    }
  }
  meet_bodies(state, shell, ball, stretch, meeting);
  return meeting;
}

Event& tell_hit(Fighting& state, const Shell& shell, const Meeting& meeting,
                const Vector3d& place) {
  Event& event = tell_attack(state, Event::What::hit, shell.shooter, *shell.attack);
  event.place = place;
  event.solid = meeting.solid;
  if (meeting.body) event.other = AgentId{*meeting.body};
  event.projectile = shell.number;
  return event;
}

// What lands is heard once, however often it bounces. What bursts hurts by that alone.
void hit(Fighting& state, Shell& shell, const Meeting& meeting, const Vector3d& place) {
  const Attack& attack = *shell.attack;
  tell_hit(state, shell, meeting, place);
  if (!shell.has_landed) {
    state.make_noise(place, attack.noise_reach, shell.noise, shell.shooter);
  }
  shell.has_landed = true;
  if (attack.blast_radius > 0.0) return;
  const Vector3d way = place - shell.origin;
  const double distance = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z());
  const double share = damage_share(attack, distance);
  if (meeting.solid) {
    wear_down(state, meeting.solid->index, attack.damage * share, shell.shooter);
  }
  if (!meeting.body || !can_hurt(state, shell.shooter, attack, *meeting.body)) return;
  state.fights.blows.push_back(
      {shell.shooter, *meeting.body, &attack, share, place - shell.velocity, place, shell.met_at});
}

// Where it ends it bursts, or leaves something, or lies there itself.
void end_flight(Fighting& state, Shell& shell, const Vector3d& place) {
  const Attack& attack = *shell.attack;
  shell.is_spent = true;
  if (attack.blast_radius > 0.0) {
    blast(state, shell.shooter, shell.shooter, attack, place, attack.blast_radius, shell.met_at);
  }
  leave_behind(state, shell.thing.value_or(shell.shooter), attack, place);
  if (shell.thing_kind != kNoKind) land(state, shell, place);
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

/// True once it has come to an end.
bool meet(Fighting& state, Shell& shell, const Meeting& meeting, const Vector3d& place) {
  const Attack& attack = *shell.attack;
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

// Just off what it meets: what bursts there is not shielded by that itself. A point meets no side:
// it is taken back the way that it came.
Vector3d just_before(const BallPath& ball, const Meeting& meeting, const Vector3d& place) {
  if (meeting.body) return place;
  if (meeting.normal != Vector3d(0.0, 0.0, 0.0)) return place + meeting.normal * kContactGap;
  const Vector3d way = ball.path.to - ball.path.from;
  const double length = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z());
  return length > 0.0 ? Vector3d(place - way * (kContactGap / length)) : place;
}

void tell_spent(Fighting& state, const Shell& shell, bool is_outside) {
  Event& event = tell_attack(state, Event::What::spent, shell.shooter, *shell.attack);
  event.place = shell.position;
  event.projectile = shell.number;
  event.is_outside = is_outside;
}

// What has been thrown out of the level is gone for good.
void lose(Fighting& state, Shell& shell) {
  tell_spent(state, shell, true);
  shell.is_spent = true;
  if (shell.thing) put_out(state, *shell.thing);
}

// How many whole steps nothing solid is in its way, found for many at once. In so many steps an
// arc strays from its chord by at most g t^2 / 8: a ball that is thicker by that touches first.
void look_ahead(const Fighting& state, Shell& shell, double fall) {
  constexpr int kSteps = 20;
  constexpr double kSlack = 1e-6;  // metres: rounding
  const Attack& attack = *shell.attack;
  if (attack.drag > 0.0 || attack.homing_rate.degrees() > 0.0) return;
  const double seconds = static_cast<double>(kSteps) / state.level().ticks_per_second;
  const FlightState to = flown({shell.position, shell.velocity}, fall, 0.0, seconds);
  const double sag = std::abs(fall) * seconds * seconds / 8.0;
  const BallPath thick{{shell.position, to.place}, attack.radius + sag + kSlack};
  const auto touch = state.world.first_touch(thick, Stops::shots);
  shell.clear_steps = touch ? static_cast<int>(touch->share * kSteps) : kSteps;
}

// Where its middle gets out of the level: a share of the way.
std::optional<double> way_out(const Fighting& state, const BallPath& ball) {
  if (!state.level().bounds) return std::nullopt;
  return leaves_at(state.plane(), *state.level().bounds, ball.path);
}

// From meeting to meeting, until the step or its time is over.
void fly(Fighting& state, Shell& shell) {
  const Attack& attack = *shell.attack;
  const double fall = state.level().gravity * attack.gravity_share;
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
    const BallPath ball{{from.place, to.place}, attack.radius};
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

void look_who_can_be_hit(Fighting& state) {
  state.fights.most_moved = 0.0;
  state.fights.highest = -std::numeric_limits<double>::infinity();
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who]) continue;
    const double feet = std::max(state.bodies.position[who].z(), state.bodies.previous[who].z());
    state.fights.highest = std::max(state.fights.highest, feet + state.kind(who).height);
    const Vector3d moved = state.bodies.position[who] - state.bodies.previous[who];
    state.fights.most_moved = std::max(
        {state.fights.most_moved, std::abs(moved.x()), std::abs(moved.y()), std::abs(moved.z())});
  }
  state.fights.hittable.rebuild(state.plane(), state.bodies.position, state.lives.alive);
}

// To its target while it is turned to it, or to the place that it is aimed at.
std::optional<Vector3d> beam_way(const Fighting& state, const Beam& beam, const Attack& attack,
                                 const Fighter& fighter, const Vector3d& muzzle) {
  Fighter target;
  if (beam.at.agent && state.lives.alive[*beam.at.agent]) {
    target = fighter_of(state, *beam.at.agent);
    if (!is_aimed_at(state.plane(), attack, fighter, target)) return std::nullopt;
  } else if (beam.at.place) {
    target.feet = *beam.at.place;
    if (beam.at.is_plan) target.feet.z() = muzzle.z();
  } else {
    return std::nullopt;
  }
  const Vector3d to = target.middle() - muzzle;
  const double length = std::sqrt(to.x() * to.x() + to.y() * to.y() + to.z() * to.z());
  if (!(length > 0.0) || !can_tilt(state.plane(), fighter, to)) return std::nullopt;
  return Vector3d(to / length);
}

/// Where a beam falls now: up to what it meets first. Nobody moves meanwhile.
Meeting beam_end(const Fighting& state, const Beam& beam, Shell& ray, Vector3d& place) {
  const Attack& attack = state.attack(beam.who, beam.attack);
  const Fighter fighter = fighter_of(state, beam.who);
  ray.shooter = beam.who;
  ray.attack = &attack;
  ray.position = muzzle_of(state.plane(), attack, fighter);
  Vector3d way = ahead_of(state.plane(), attack, fighter);
  if (const auto to = beam_way(state, beam, attack, fighter, ray.position)) way = *to;
  const BallPath ball{{ray.position, ray.position + way * attack.range}, attack.radius};
  const Meeting meeting = first_meeting(state, ray, ball, {1.0, 1.0}, false);
  place = ball.path.from + (ball.path.to - ball.path.from) * meeting.share;
  return meeting;
}

// What it has done so far where it falls: of its damage as much as of its time.
void settle_beam(Fighting& state, Beam& beam, const Vector3d& from) {
  const Attack& attack = state.attack(beam.who, beam.attack);
  const bool is_moment = beam.from == beam.until;
  const double share =
      is_moment ? 1.0
                : static_cast<double>(beam.owed) / static_cast<double>(beam.until - beam.from);
  beam.owed = 0;
  if (!(share > 0.0)) return;
  const double left = share * damage_share(attack, beam.length);
  if (beam.solid) wear_down(state, *beam.solid, attack.damage * left, beam.who);
  if (!beam.body || !can_hurt(state, beam.who, attack, *beam.body)) return;
  // Several of one step, from pulls that follow each other quickly, fall at moments of their own.
  const Moment when = std::min(beam.until, state.now());
  state.fights.blows.push_back({beam.who, *beam.body, &attack, left, from, from, when});
}

// It hurts in portions, not in every step, and tells what it meets when that changes.
void shine(Fighting& state, Beam& beam) {
  constexpr double kPortion = 0.1;  // seconds
  Shell ray;
  Vector3d place{0.0, 0.0, 0.0};
  const Meeting meeting = beam_end(state, beam, ray, place);
  const Attack& attack = state.attack(beam.who, beam.attack);
  state.fights.beam_rays.push_back({{beam.who}, attack.name, ray.position, place, attack.radius});
  const std::optional<Index> solid =
      meeting.solid ? std::optional(meeting.solid->index) : std::nullopt;
  if (meeting.body != beam.body || solid != beam.solid) {
    if (beam.owed > 0) settle_beam(state, beam, ray.position);
    beam.body = meeting.body;
    beam.solid = solid;
    if (meeting.is_something()) tell_hit(state, ray, meeting, place);
  }
  beam.length = attack.range * meeting.share;
  beam.owed += std::max(
      Moment{0}, std::min(beam.until, state.now()) - std::max(beam.from, state.step_start()));
  const Moment portion = state.moments(Duration::from_seconds(kPortion));
  if (beam.owed >= portion || beam.until <= state.now()) settle_beam(state, beam, ray.position);
}

// The last takes the place of what is spent: moving all that follow would cost more than flying.
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

}  // namespace

void fire_shell(Fighting& state, Index who, Index attack, const Vector3d& velocity,
                const Aimed& at) {
  const Attack& values = state.attack(who, attack);
  Shell shell;
  shell.shooter = who;
  shell.attack = &values;
  shell.noise = state.links(who).attack_noises[attack];
  shell.number = state.shells_made++;
  shell.lifetime = state.moments(values.lifetime);
  shell.position = muzzle_of(state.plane(), values, fighter_of(state, who));
  shell.origin = shell.position;
  shell.velocity = velocity;
  shell.target = at.agent;
  shell.bounces_left = values.bounces;
  state.fights.shells.push_back(shell);
  state.fights.pierced.emplace_back();
  Event& event = tell_attack(state, Event::What::fired, who, values);
  if (at.agent) event.other = AgentId{*at.agent};
  event.projectile = shell.number;
  event.place = shell.position;
  state.make_noise(shell.position, values.fire_reach, state.fixed.links.shot, who);
}

void fly_shells(Fighting& state) {
  if (!state.fights.shells.empty() || !state.fights.beams.empty() || state.fixed.uses_beams)
    look_who_can_be_hit(state);
  for (Shell& shell : state.fights.shells) {
    fly(state, shell);
    if (shell.thing && !shell.is_spent) {
      const Vector3d feet = shell.position - Vector3d{0.0, 0.0, shell.attack->radius};
      state.told.placed.push_back({*shell.thing, feet, false});
    }
  }
  take_out_spent(state);
}

void light_beam(Fighting& state, const Release& release) {
  const Attack& attack = state.attack(release.who, release.attack);
  const Moment hold = state.moments(attack.hold);
  Beam& beam = state.fights.beams.emplace_back();
  beam.who = release.who;
  beam.attack = release.attack;
  beam.at = release.at;
  beam.from = release.due;
  beam.until = release.due + hold;
  const Vector3d muzzle = muzzle_of(state.plane(), attack, fighter_of(state, release.who));
  state.make_noise(muzzle, attack.fire_reach, state.fixed.links.shot, release.who);
}

void shine_beams(Fighting& state) {
  state.fights.beam_rays.clear();
  for (Beam& beam : state.fights.beams) {
    if (state.is_up(beam.who)) shine(state, beam);
  }
  std::erase_if(state.fights.beams, [&](const Beam& beam) {
    return beam.until <= state.now() || !state.is_up(beam.who);
  });
}

}  // namespace gaze
