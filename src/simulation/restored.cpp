#include <algorithm>
#include <cmath>

#include "simulation/stages.hpp"

/// Tests the values of a restored game against its level. The digest of a save shows that its bytes
/// are unchanged. It does not show that the library wrote them.
namespace gaze {
namespace {

using Index = std::uint32_t;
using How = Attack::How;

class Restored {
 public:
  explicit Restored(const Simulation::State& state) : state_(state) {}

  bool can_be() const {
    return is_run_right() && are_events_right() && is_everybody_right() && is_combat_right() &&
           is_told_right() && are_meshes_right();
  }

 private:
  template <typename List, typename Test>
  static bool all(const List& list, Test&& test) {
    return std::all_of(list.begin(), list.end(), test);
  }

  bool is_agent(Index who) const { return who < state_.agent_count(); }
  bool is_agent(const AgentId& id) const { return is_agent(id.index); }
  bool is_solid(Index solid) const {
    return solid < state_.level().solids.size() || solid == kOfHost.index;
  }
  bool is_zone(Index zone) const { return zone < state_.level().zones.size(); }
  bool is_thing(Index who) const { return is_agent(who) && state_.kind(who).thing.has_value(); }
  bool is_kind_of_thing(Index kind) const {
    return kind < state_.level().kinds.size() && state_.level().kinds[kind].thing.has_value();
  }
  bool has_attack(Index who, Index attack) const {
    return attack < state_.kind(who).attacks.size();
  }

  bool is_run_right() const {
    constexpr std::int64_t kMostTicks = 4'000'000'000;  // times of later ticks would overflow
    return state_.clock.tick >= 0 && state_.clock.tick <= kMostTicks && state_.shells_made >= 0;
  }

  bool are_events_right() const {
    return all(state_.events.all, [&](const Event& event) {
      return is_agent(event.agent) && (!event.other || is_agent(*event.other)) &&
             (!event.teller || is_agent(*event.teller)) &&
             (!event.solid || is_solid(event.solid->index)) &&
             (!event.zone || is_zone(*event.zone)) &&
             (event.team == kNoTeam || event.team < state_.level().teams.size());
    });
  }

  bool is_everybody_right() const {
    for (Index who = 0; who < state_.agent_count(); ++who) {
      if (!is_one_right(who)) return false;
    }
    return all(state_.minds.pending, [&](const Pending& pending) {
      return pending.rule < state_.kind(pending.who).when.rules.size();
    });
  }

  // Lookups of contacts need their order.
  bool is_one_right(Index who) const {
    const std::vector<Contact>& contacts = state_.knowledge.contacts[who];
    const bool is_in_order = std::adjacent_find(contacts.begin(), contacts.end(),
                                                [](const Contact& a, const Contact& b) {
                                                  return a.other >= b.other;
                                                }) == contacts.end();
    const std::vector<Index>* zones = state_.senses.zones_of[who];
    const bool is_in_zones = zones == nullptr || all(*zones, [&](Index z) { return is_zone(z); });
    return is_in_order && is_in_zones && is_body_right(who) && is_course_right(who) &&
           is_route_right(who) && is_leap_right(who) && are_deeds_right(who);
  }

  // A level lies within 20 km of the origin. A falling body has no lowest position.
  static bool is_place(const Vector3d& place) {
    constexpr double kFarthest = 1e6;  // metres
    constexpr double kDeepest = 1e11;  // metres; more than a free fall of one day
    return std::abs(place.x()) <= kFarthest && std::abs(place.y()) <= kFarthest &&
           std::abs(place.z()) <= kDeepest;
  }
  static bool is_velocity(const Vector3d& velocity) {
    constexpr double kFastest = 1e7;  // m/s; more than after a free fall of one day
    return velocity.cwiseAbs().maxCoeff() <= kFastest;
  }
  static bool is_direction(const Vector2d& way) { return std::abs(dot(way, way) - 1.0) <= 1e-6; }

  bool is_body_right(Index who) const {
    const Bodies& bodies = state_.bodies;
    const Ways& ways = state_.ways;
    return is_place(bodies.position[who]) && is_place(bodies.previous[who]) &&
           is_place(bodies.seen_position[who]) && is_place(bodies.post[who]) &&
           is_place(ways.home[who]) && is_velocity(ways.velocity[who]) &&
           is_velocity(ways.pushed[who]) && is_direction(bodies.facing[who]) &&
           is_direction(bodies.head[who]) && is_direction(bodies.placed_facing[who]) &&
           is_direction(bodies.rest_facing[who]) && state_.lives.health[who] >= 0.0 &&
           ways.air_share[who] >= 0.0 && ways.air_share[who] <= 1.0;
  }

  bool is_course_right(Index who) const {
    const std::size_t stops = state_.agent(who).patrol.size();
    const bool patrols = state_.minds.mode[who] == Mode::patrol;
    const bool patrols_later = state_.fixed.idle[who] == Mode::patrol;
    return (!patrols || stops == 0 || state_.ways.course[who].next < stops) &&
           (!patrols_later || stops == 0 || state_.ways.left_course[who].next < stops);
  }

  bool is_route_right(Index who) const {
    const Route& route = state_.ways.route[who];
    return all(route.links,
               [&](const Path::Leg& leg) { return leg.to_point < route.points.size(); });
  }

  bool is_leap_right(Index who) const {
    const Leap* leap = state_.ways.leap[who];
    if (leap == nullptr || leap->what == Leap::What::none) return true;
    const bool is_hop = leap->what == Leap::What::hop;
    return leap->end >= leap->start && leap->arc.gravity >= 0.0 && (is_hop || leap->speed > 0.0);
  }

  bool are_deeds_right(Index who) const {
    const Steering* steering = state_.ways.steering[who];
    if (steering == nullptr) return true;
    try {
      for (const TrackDeed& deed : steering->deeds) need_deed(state_, deed);
    } catch (const UsageError&) {
      return false;
    }
    return true;
  }

  bool is_combat_right() const {
    const Fights& fights = state_.fights;
    for (Index who = 0; who < state_.agent_count(); ++who) {
      if (!are_supplies_right(who)) return false;
    }
    for (std::size_t i = 0; i < fights.next_left.size(); ++i) {
      if (fights.next_left[i] >= state_.fixed.pools[i].count) return false;
    }
    return all(fights.releases, [&](const Release& one) { return is_right(one); }) &&
           all(fights.shells, [&](const Shell& one) { return is_right(one); }) &&
           all(fights.thrown, [&](const Shell& one) { return is_right(one); }) &&
           all(fights.beams, [&](const Beam& one) { return is_right(one); }) &&
           all(fights.projectiles, [&](const Projectile& one) { return is_agent(one.shooter); }) &&
           all(fights.beam_rays, [&](const BeamRay& one) { return is_agent(one.who); });
  }

  bool are_supplies_right(Index who) const {
    const Kind& kind = state_.kind(who);
    for (std::size_t i = 0; i < kind.attacks.size(); ++i) {
      const int left = state_.fights.ready[who][i].left;
      if (left < 0 || left > kind.attacks[i].ammunition) return false;
    }
    for (std::size_t i = 0; i < kind.carries.size(); ++i) {
      if (state_.fights.pockets[who][i] < 0) return false;
    }
    return true;
  }

  bool is_right(const Release& release) const {
    if (!has_attack(release.who, release.attack)) return false;
    const How how = state_.attack(release.who, release.attack).how;
    const bool needs_one = how == How::strike || how == How::touch || how == How::catch_;
    return !needs_one || release.at.agent;
  }
  bool is_right(const Shell& shell) const {
    return is_place(shell.position) && is_velocity(shell.velocity) && shell.pierced_count >= 0 &&
           shell.pierced_count <= kMostPierced && shell.clear_steps >= 0 && shell.age >= 0 &&
           (!shell.thing || is_thing(*shell.thing)) &&
           (shell.thing_kind == kNothing || is_kind_of_thing(shell.thing_kind));
  }
  bool is_right(const Beam& beam) const {
    return has_attack(beam.who, beam.attack) &&
           state_.attack(beam.who, beam.attack).how == How::beam && beam.from <= beam.until &&
           (!beam.solid || is_solid(*beam.solid));
  }

  bool is_told_right() const {
    const Told& told = state_.told;
    const std::size_t solids = state_.level().solids.size();
    return all(told.hands, [&](const HandWish& wish) { return is_right(wish); }) &&
           all(told.deeds, [&](const Deed& deed) { return is_right(deed); }) &&
           all(told.changed_solids, [&](Index solid) { return solid < solids; }) &&
           all(told.made, [&](const Made& made) { return has_attack(made.who, made.attack); });
  }
  bool is_right(const HandWish& wish) const {
    if (wish.what == HandWish::What::take) return wish.thing == kNothing || is_thing(wish.thing);
    return wish.what == HandWish::What::drop || is_kind_of_thing(wish.thing);
  }
  bool is_right(const Deed& deed) const {
    if (deed.what == TrackDeed::What::take) return deed.thing == kNothing || is_agent(deed.thing);
    return deed.what != TrackDeed::What::throw_ || is_kind_of_thing(deed.thing);
  }

  bool are_meshes_right() const {
    return all(state_.meshes.bodies, [&](const BodySize& body) { return is_right(body); });
  }
  // The ranges are those of the keys of a kind.
  bool is_right(const BodySize& body) const {
    constexpr double kLargest = 1000.0;  // metres
    constexpr double kSmallest = 1e-6;   // metres
    constexpr double kSteepest = 89.0;   // degrees
    const auto is_length = [&](double metres) { return metres >= 0.0 && metres <= kLargest; };
    const std::size_t solids = state_.level().solids.size();
    return is_length(body.radius) && body.radius >= kSmallest && is_length(body.height) &&
           body.height >= kSmallest && is_length(body.step_height) && is_length(body.hop_height) &&
           is_length(body.hop_length) && is_length(body.drop_height) &&
           body.slope.degrees() >= 0.0 && body.slope.degrees() <= kSteepest &&
           all(body.closed, [&](Index zone) { return is_zone(zone); }) &&
           all(body.opens, [&](Index solid) { return solid < solids; });
  }

  const Simulation::State& state_;
};

}  // namespace

bool can_be(const Simulation::State& state) {
  return Restored(state).can_be();
}

}  // namespace gaze
