#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
#include <span>
#include <vector>

#include "combat/aim.hpp"
#include "gaze/feeling.hpp"
#include "gaze/hearing.hpp"
#include "gaze/simulation.hpp"
#include "geometry/plan.hpp"
#include "level/whom.hpp"
#include "mind/choose.hpp"
#include "simulation/crowd.hpp"
#include "simulation/parts.hpp"
#include "travel/keep_apart.hpp"
#include "travel/openings.hpp"
#include "travel/walk.hpp"

namespace gaze {

/// Everything that changes while a level is played, one array per field, indexed by agent. The
/// stages of a step are functions over it; each writes only what its own line names.
struct Simulation::State {
  std::shared_ptr<const Level> level;
  World world;

  // Worked out once.
  std::vector<KindLimits> limits;                   ///< By kind.
  std::vector<std::vector<std::uint32_t>> foes_of;  ///< By team: the agents it is hostile to.
  std::vector<std::uint32_t> kind_index;            ///< By agent; dense, for hot loops,
  std::vector<Driver> driver;                       ///< as this.
  Openings openings;
  std::vector<ZoneTrigger> triggers;  ///< By zone.
  std::vector<std::uint32_t> bases;   ///< By kind: the one that it is like, or kNoBase.
  bool uses_crowd = false;            ///< Some sense asks who is near.
  std::vector<Vector2d> placed_facing;
  std::vector<Vector2d> rest_facing;  ///< To which it turns when it has nothing to look at.
  std::vector<Mode> idle;

  // Bodies: written by travel, by the host and by damage.
  std::vector<Vector3d> position;
  std::vector<Vector3d> previous;   ///< At the tick before.
  std::vector<Vector3d> last_move;  ///< In the last whole step.
  std::vector<Vector2d> facing;
  std::vector<Vector2d> head;  ///< Where sight looks; the facing if it has no head.
  std::vector<Vector2d> previous_head;
  std::vector<double> head_deg;  ///< From the facing of the body.
  std::vector<double> health;
  std::vector<char> alive;
  std::vector<char> awake;
  std::vector<char> quiet;
  std::vector<double> stride_left;                     ///< Metres to the next noise of a step.
  std::vector<std::optional<Vector2d>> script_facing;  ///< Set by a script's `face`.

  // Minds: written by decide, and by travel on coming home.
  std::vector<Mode> mode;
  std::vector<Moment> mode_since;
  std::vector<std::optional<Contact>> target;
  std::vector<char> has_target;       ///< The same in short.
  std::vector<std::uint64_t> urged;   ///< Attacks that a reaction asks for, by bit.
  std::vector<std::uint64_t> lasted;  ///< Rules of the cause `lasts` that have fired in this mode.
  std::vector<TurnedBack> turned_back;
  std::vector<Vector3d> home;               ///< Where it left its idle mode.
  std::vector<Vector3d> post;               ///< Where it began.
  std::vector<std::uint32_t> has_no_start;  ///< Agents for whom no start place was found.
  std::vector<Course> course;
  std::vector<Course> left_course;    ///< Of its idle mode, where it left that.
  std::vector<std::uint64_t> random;  ///< By agent: where its stream of numbers stands.
  std::vector<Vector3d> wander_goal;  ///< Valid while its course is not new.
  std::vector<Whom> follows;          ///< By kind: whom it may stay by.

  // Senses.
  std::vector<std::vector<Contact>> contacts;  ///< By agent, in file order of the others.
  std::vector<News> news;                      ///< Since minds last decided.
  std::vector<std::optional<Clue>> clue;
  std::vector<std::uint32_t> feelers;  ///< By agent: those that now say yes, by bit.
  std::vector<char> was_near;          ///< Its nearness sense, once only, has fired.
  std::vector<char> is_still;
  std::vector<double> dimness;  ///< Where it stands.
  std::vector<std::uint64_t> tags;
  std::vector<std::vector<std::uint32_t>> zones_of;  ///< By agent: those it is in, in order.
  std::vector<char> zone_spent;
  std::vector<MadeNoise> noises;                     ///< Made in this step, to be heard in it.
  std::vector<std::optional<MadeNoise>> last_noise;  ///< By maker.
  std::vector<std::shared_ptr<const std::string>> host_names;
  std::vector<Alarm> alarms;
  std::vector<Pending> pending;
  std::vector<Perceived> perceived;       ///< Scratch: of one agent.
  std::vector<Perceived> sudden;          ///< Hurt and told, of this step and of all.
  std::vector<std::uint32_t> candidates;  ///< Scratch.
  std::vector<Cylinder> bodies;           ///< Scratch.
  std::vector<Heard> heard;               ///< Scratch: of one hearer.
  HearingVerdict hearing;                 ///< Scratch.
  Crowd crowd{8.0};

  // Solids that may go.
  std::vector<std::uint32_t> doors;  ///< Those, by solid.
  std::vector<Moment> last_near;     ///< By door: when somebody last was near.
  std::vector<double> solid_health;  ///< By solid; empty if none breaks.

  // Footing.
  bool has_relief = false;  ///< Somebody may step up, down or fall.
  std::vector<char> is_airborne;
  std::vector<char> is_just_placed;  ///< It has not stood or fallen there for a step.
  std::vector<char> has_settled;     ///< It has fallen already in this one.
  std::vector<std::optional<double>> highest_of_fall;  ///< Of one that goes on, metres.
  std::vector<Vector3d> velocity;                      ///< In the air, metres a second.
  std::vector<double> air_share;  ///< Of the step in which it took off that it is in the air.
  std::vector<char> hangs;        ///< What drops has not dropped yet.
  std::vector<Flight> flight;
  std::vector<Moment> rests_until;  ///< From a landing on.

  // Ways.
  std::vector<std::uint32_t> mesh_of;                 ///< By agent.
  std::vector<BodySize> mesh_bodies;                  ///< By mesh.
  std::vector<std::optional<NavigationMesh>> meshes;  ///< By mesh; made when first needed.
  std::vector<Route> route;
  std::vector<std::uint32_t> asked;     ///< Who waits for a search, first come, first served.
  std::vector<std::uint32_t> together;  ///< Scratch: who shares a search,
  std::vector<Vector3d> starts;         ///< and where they are.
  std::int64_t searches_left = 0;       ///< Of the budget of this step.
  PathFinder finder;
  Crowd walkers{0.75};         ///< As minds begin to travel.
  std::vector<Vector2d> pace;  ///< Velocity in the last step, level, metres a second.
  std::vector<double> pace_length;
  std::vector<double> gathered;     ///< The speed at which it last walked, whatever stopped it.
  std::vector<Vector2d> wish;       ///< The velocity that it wanted in the last step,
  std::vector<Vector2d> next_wish;  ///< and in this one.
  std::vector<InLine> line;         ///< As of the last step,
  std::vector<InLine> next_line;    ///< and of this one.
  std::vector<double> radius;       ///< Of each agent, metres.
  std::vector<char> is_on_way;      ///< It went towards something in the last step,
  std::vector<char> goes_on_way;    ///< and in this one.
  double widest = 0.0;              ///< Radius of any agent.
  double fastest = 0.0;             ///< Of all in the last step, metres a second.
  KeepApart keep_apart;
  std::vector<Neighbour> neighbours;  ///< Scratch.
  std::vector<Cylinder> in_the_way;   ///< Scratch: bodies that may stop one that moves.
  std::vector<Cylinder> avoided;      ///< Scratch: of one search.
  double strayed = 0.0;               ///< No body is farther from where `walkers` has it, metres.

  // Combat.
  std::vector<std::vector<Readiness>> ready;  ///< By agent and attack.
  std::vector<Release> releases;              ///< Of what has been pulled, in that order.
  std::vector<Beam> beams;
  std::vector<BeamRay> beam_rays;                    ///< As they fell in this step.
  std::vector<std::optional<BlastMade>> last_blast;  ///< By agent.
  std::vector<Shell> shells;                         ///< In flight, in no order.
  std::vector<Pierced> pierced;                      ///< By shell; apart, for few of them pierce.
  Crowd hittable{2.0};                               ///< Where those are who can be hit.
  double most_moved = 0.0;                      ///< In this step along an axis, by anybody, metres.
  double tallest = 0.0;                         ///< Of any agent, metres.
  double highest = 0.0;                         ///< Top of any living body in this step, metres.
  bool uses_beams = false;                      ///< Some kind has a beam.
  std::vector<Moment> grace_until;              ///< It cannot be hurt again before that.
  std::vector<Vector3d> pushed;                 ///< By blows: velocity, level, metres a second.
  std::vector<std::uint32_t> touchers;          ///< Agents with an attack by touch.
  std::vector<std::vector<Touching>> touching;  ///< By agent: those that touch it.
  std::vector<Blow> blows;
  std::vector<Projectile> projectiles;  ///< The shells, as the host may see them.
  std::int64_t shells_made = 0;
  std::vector<Shell> thrown;     ///< In this step; they fly from the next one on.
  std::vector<Trigger> trigger;  ///< Of those who are driven.
  std::vector<std::optional<std::uint32_t>> leader;  ///< Whom it mirrors.
  std::vector<Moment> hurt_at;                       ///< When it was hurt last.
  std::vector<std::uint32_t> healers;                ///< Agents that heal by themselves.

  // Things, defeats and rounds.
  std::vector<Presence> presence;
  std::vector<std::uint32_t> things;      ///< Agents that are things.
  std::vector<std::uint32_t> carrier;     ///< By agent, of what is carried.
  std::vector<std::vector<int>> pockets;  ///< By agent, as its kind has them: how many are left.
  std::vector<Leftover> leftovers;        ///< By owner.
  std::vector<std::optional<std::uint32_t>> defeated_by;  ///< The last time that it was.
  std::vector<double> score;
  std::vector<Moment> returns_at;        ///< By agent; kNeverReady: not at all.
  std::vector<std::uint32_t> returning;  ///< Those who will.
  bool somebody_caught = false;          ///< In this step.
  bool is_over = false;                  ///< The round.
  std::size_t placed = 0;                ///< Agents of the level itself; behind them leftovers.

  std::vector<Vector3d> seen_position;  ///< What minds travel by: poses once drivers have moved.
  std::vector<Event> events;
  std::vector<std::uint64_t> event_keys;  ///< Scratch: their order,
  std::vector<Event> ordered_events;      ///< and they in it.
  std::size_t sorted_events = 0;
  bool events_are_old = false;
  std::int64_t tick = 0;
  double unspent_ticks = 0.0;  ///< Given to `advance`, below 1 but for rounding.

  State(std::shared_ptr<const Level> the_level, World the_world)
      : level(std::move(the_level)), world(std::move(the_world)), openings(*level) {}

  std::uint32_t agent_count() const { return static_cast<std::uint32_t>(position.size()); }
  /// What a host gives: throws UsageError if there is no such agent.
  std::uint32_t index_of(AgentId id) const;
  const Agent& agent(std::uint32_t i) const { return level->agents[i]; }
  const Kind& kind(std::uint32_t i) const { return level->kinds[kind_index[i]]; }
  const Attack& attack(std::uint32_t i, std::uint32_t number) const {
    return kind(i).attacks[number];
  }
  Somebody somebody(std::uint32_t i) const { return {i, kind_index[i], tags[i]}; }
  const KindLimits& limit(std::uint32_t i) const { return limits[kind_index[i]]; }
  Plane plane() const { return level->plane; }
  Moment now() const { return tick * kMomentsPerTick; }
  Moment step_start() const { return now() - kMomentsPerTick; }

  /// The agent it acts on, if that is one and not just a place.
  std::optional<std::uint32_t> target_agent(std::uint32_t i) const {
    if (!has_target[i]) return std::nullopt;
    const auto& contact = target[i];
    if (!contact || contact->state != Contact::State::noticed) return std::nullopt;
    return contact->other;
  }

  bool is_in_flight(std::uint32_t i) const { return flight[i].what != Flight::What::none; }

  /// What of a step is left from a landing and the rest after it.
  Moment left_after_rest(std::uint32_t i, Moment budget) const {
    return std::max(Moment{0}, std::min(budget, now() - rests_until[i]));
  }

  /// Seen from the side what hovers goes up and down too.
  bool flies_freely(std::uint32_t i) const {
    return plane() == Plane::upright && kind(i).move.gait == Gait::hover;
  }
  double apart(std::uint32_t i, const Vector3d& a, const Vector3d& b) const {
    return flies_freely(i) ? plane_distance(plane(), a, b) : level_distance(plane(), a, b);
  }

  static std::uint32_t team_slot(std::uint32_t team) { return team == kNoTeam ? 0 : team + 1; }
  bool are_foes(std::uint32_t i, std::uint32_t j) const {
    return limit(i).is_foe_of_team[team_slot(kind(j).team)] != 0;
  }
  /// True if two bodies stop each other.
  bool are_solid(std::uint32_t i, std::uint32_t j) const {
    return limit(i).is_solid_to_team[team_slot(kind(j).team)] &&
           limit(j).is_solid_to_team[team_slot(kind(i).team)];
  }

  bool is_up(std::uint32_t i) const { return alive[i] && awake[i]; }

  Fighter fighter(std::uint32_t i) const {
    const Kind& own = kind(i);
    return {position[i],          facing[i],          own.radius, own.height,
            own.move.tilt_limits, flips(plane(), own)};
  }

  Looked looked(std::uint32_t i) const {
    const Kind& own = kind(i);
    return {position[i],
            own.height,
            own.body_points,
            own.radius,
            is_still[i] ? own.still_visibility : own.visibility,
            dimness[i]};
  }

  Cylinder body(std::uint32_t i) const { return {position[i], kind(i).radius, kind(i).height}; }

  void make_noise(const Vector3d& place, double reach, std::string_view name,
                  std::optional<std::uint32_t> maker) {
    if (!(reach > 0.0)) return;
    noises.push_back({{place, reach}, name, maker, tick});
    if (maker) last_noise[*maker] = noises.back();
  }

  /// Marks the rule of a cause and a name, if there is one: exactly that name, else any.
  void fire(std::uint32_t who, Cause cause, std::string_view name);
  /// The same for a cause by kind: that of the other, else the next that it is like, else any.
  void fire_by_kind(std::uint32_t who, Cause cause, std::uint32_t other);

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
    mode_since[who] = now();
    lasted[who] = 0;
  }
};

}  // namespace gaze
