#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
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
  std::vector<std::vector<std::string_view>>
      kind_names;           ///< By kind: its own, and those it is like.
  bool uses_crowd = false;  ///< Some sense asks who is near.
  std::vector<Vector2d> placed_facing;
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
  std::vector<Vector3d> home;         ///< Where it left its idle mode.
  std::vector<Vector3d> post;         ///< Where it began.
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
  std::vector<Vector3d> velocity;  ///< In the air, metres a second.
  std::vector<double> air_share;   ///< Of the step in which it took off that it is in the air.
  std::vector<char> hangs;         ///< What drops has not dropped yet.
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
  std::vector<double> radius;     ///< Of each agent, metres.
  std::vector<char> is_on_way;    ///< It went towards something in the last step,
  std::vector<char> goes_on_way;  ///< and in this one.
  double widest = 0.0;            ///< Radius of any agent.
  double fastest = 0.0;           ///< Of all in the last step, metres a second.
  KeepApart keep_apart;
  std::vector<Neighbour> neighbours;  ///< Scratch.

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

/// The stages of one step, in this order. Each reads what the ones before it wrote.
void decide(Simulation::State& state);
void travel(Simulation::State& state);
void fight(Simulation::State& state);
void set_up_fights(Simulation::State& state);
void hear(Simulation::State& state);
void enter_zones(Simulation::State& state);
void sense(Simulation::State& state);
void order_events(Simulation::State& state);

/// Flies what has been fired before this step.
void fly_shells(Simulation::State& state);
/// Fires one projectile from the muzzle.
void fire_shell(Simulation::State& state, std::uint32_t who, std::uint32_t attack,
                const Vector3d& velocity, const Aimed& at);
/// Switches a beam on, from a moment on.
void light_beam(Simulation::State& state, const Release& release);
/// What beams that are on do in this step.
void shine_beams(Simulation::State& state);
/// A blast: blows for all whom it may hurt within it and nothing shields, and wear on what breaks.
/// `by` is who did it, `maker` whose attack it is: the jar, not its thrower.
void blast(Simulation::State& state, std::uint32_t by, std::uint32_t maker, const Attack& attack,
           const Vector3d& place, double radius, Moment when);
/// Blows of this step fall together, against the health at its start.
void deal_blows(Simulation::State& state);
/// Moves for one step those who have been pushed.
void move_pushed(Simulation::State& state);
/// Gives back what heals by itself in this step.
void heal(Simulation::State& state);

/// Attacks of this step: of minds, by touch, and of those whom a script or the host drives.
void make_attacks(Simulation::State& state);
void make_touches(Simulation::State& state);
/// What each blow or shot does that is due.
void let_go_of_what_is_due(Simulation::State& state);
/// True if an attack can be made at that target now, but for being ready.
[[nodiscard]] bool can_make(const Simulation::State& state, std::uint32_t who, const Attack& attack,
                            std::uint32_t target);
/// As healthy as its condition asks.
[[nodiscard]] bool is_fit(const Simulation::State& state, std::uint32_t who, const Attack& attack);
/// The same, and far enough from its target.
[[nodiscard]] bool is_chosen(const Simulation::State& state, std::uint32_t who,
                             const Attack& attack, std::uint32_t target);
/// Who of its own side an attack would meet that does not pass friends.
[[nodiscard]] std::optional<std::uint32_t> friend_in_the_way(const Simulation::State& state,
                                                             std::uint32_t who,
                                                             const Attack& attack,
                                                             const Launch& launch);

/// One of the events of an attack.
Event& tell_attack(Simulation::State& state, Event::What what, std::uint32_t who,
                   const Attack& attack);
/// True if one looks for and may harm another.
[[nodiscard]] bool may_harm(const Simulation::State& state, std::uint32_t who, std::uint32_t other);
/// True if an attack of one hurts another: a foe, a thing, or a friend if it spares none.
[[nodiscard]] bool can_hurt(const Simulation::State& state, std::uint32_t by, const Attack& attack,
                            std::uint32_t victim);
/// What is left of the damage of an attack from so far, in [0, 1].
[[nodiscard]] double damage_share(const Attack& attack, double distance);
/// How an agent moves in this step, metres a second.
[[nodiscard]] Vector3d motion_of(const Simulation::State& state, std::uint32_t who);

/// Things: takes one, if it is near enough; throws one that it has, if it has one; puts all down.
bool take(Simulation::State& state, std::uint32_t who, std::uint32_t thing);
bool throw_thing(Simulation::State& state, std::uint32_t who, std::uint32_t kind,
                 const Vector3d& place);
void drop_all(Simulation::State& state, std::uint32_t who);
/// Where a thrown thing ends: it breaks, or lies there.
void land(Simulation::State& state, const Shell& shell, const Vector3d& place);
/// What is carried is where its carrier's hand is.
void carry(Simulation::State& state);
[[nodiscard]] Vector3d hand_of(const Simulation::State& state, std::uint32_t who);
void set_up_things(Simulation::State& state);

/// Takes somebody out of play who has lost all health, with all that this brings.
void defeat(Simulation::State& state, std::uint32_t who, std::uint32_t by, Moment when);
/// Takes somebody out of the round, whole.
void put_out(Simulation::State& state, std::uint32_t who);
/// Puts somebody into play afresh.
void appear(Simulation::State& state, std::uint32_t who, const Vector3d& feet,
            const Vector2d& facing);
/// What a shot leaves behind where it ends.
void leave_behind(Simulation::State& state, std::uint32_t owner, const Attack& attack,
                  const Vector3d& place);
/// Those who were defeated so long ago that they come back.
void bring_back(Simulation::State& state);
void set_up_defeats(Simulation::State& state);
/// The level with an agent, not there yet, for everything that may be left behind.
[[nodiscard]] std::shared_ptr<const Level> with_leftovers(std::shared_ptr<const Level> level);

/// Ends the round in this step if it is to.
void judge_round(Simulation::State& state);
/// Everything but the time, the score and the course of chance as it was in the beginning.
void begin_round(Simulation::State& state);
/// Everything in its place, before anybody has looked.
void place_all(Simulation::State& state);
/// Start places are drawn and all look once.
void begin(Simulation::State& state);

/// Turns what is fixed, within its limits if it has any.
void turn_turret(Simulation::State& state, std::uint32_t who, const Vector2d& wanted);
/// The friend that an agent mirrors now: the nearest one, within the radius, who is driven.
[[nodiscard]] std::optional<std::uint32_t> mirrored(const Simulation::State& state,
                                                    std::uint32_t who);
/// Tells an agent where another is, if it looks for it.
void tell_of(Simulation::State& state, std::uint32_t who, std::uint32_t other);

/// True if feet at a place are in a zone, borders included.
[[nodiscard]] bool is_in(Plane plane, const Zone& zone, const Vector3d& feet);

/// Switches an agent on, if it sleeps.
void wake(Simulation::State& state, std::uint32_t who);

/// True if one looks for the other at all: hostile, and not filtered out by kind, team or tag.
[[nodiscard]] bool looks_for(const Simulation::State& state, std::uint32_t who,
                             std::uint32_t other);

/// Whom, in range of a feeler, nearness or touch, an agent perceives now; adds to `perceived`.
void perceive_bodies(Simulation::State& state, std::uint32_t who);

[[nodiscard]] std::optional<Focus> focus_of(const Simulation::State& state, std::uint32_t who);

/// Turns the head for one step: to the target, or as it scans.
void turn_head(Simulation::State& state, std::uint32_t who);

/// The modes in which it goes to a place: each moves it for one step and says where to look.
[[nodiscard]] FacingWish investigate(Simulation::State& state, std::uint32_t who);
[[nodiscard]] FacingWish search(Simulation::State& state, std::uint32_t who);
[[nodiscard]] FacingWish wander(Simulation::State& state, std::uint32_t who);
[[nodiscard]] FacingWish follow(Simulation::State& state, std::uint32_t who);
/// Whom it stays by: the nearest living agent of those that it follows.
[[nodiscard]] std::optional<std::uint32_t> followed(const Simulation::State& state,
                                                    std::uint32_t who);
[[nodiscard]] FacingWish flee(Simulation::State& state, std::uint32_t who);
[[nodiscard]] FacingWish mirror(Simulation::State& state, std::uint32_t who);

/// An even number in [0, 1), of the agent's own stream.
[[nodiscard]] double random_share(Simulation::State& state, std::uint32_t who);

/// Walks to a goal and tells once if it cannot be reached. @return The result of the leg.
LegResult walk_watched(Simulation::State& state, std::uint32_t who, const Vector3d& goal,
                       Moment budget, bool& stuck);

/// Begins to use a link, at a moment of this step, and goes on to the end of the step.
void take_link(Simulation::State& state, std::uint32_t who, const MeshLink& link, Moment start);
/// Goes on in a flight until the end of the step or of the flight.
void fly_on(Simulation::State& state, std::uint32_t who);
/// One hop towards a goal, if there is room for it.
LegResult hop_leg(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget);
/// Takes off as a script has it: up, and towards a place if there is one.
void hop_up(Simulation::State& state, std::uint32_t who, const ScriptStep* then, Moment budget);
/// The height of what carries its feet at a place straight on from where it is; roughly as high as
/// the place given.
[[nodiscard]] double landing_height(Simulation::State& state, std::uint32_t who,
                                    const Vector3d& place);

/// Keeps a walker on what is below its feet: up and down steps and slopes, or falling.
void settle(Simulation::State& state, std::uint32_t who);
void set_up_footing(Simulation::State& state);

/// Goes towards a goal by the shortest way: straight where that is free, else by a path that is
/// searched anew only for a reason. `is_agent`: the goal moves, and it stops before it.
LegResult find_way(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent);

/// Walks one leg, giving way to others that are on their way too or stand there. Who `queues` waits
/// where it gets no farther, others try to get round.
LegResult walk_apart(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool queues);

/// Before minds travel, and after: who is where, and how fast it has gone.
void look_for_neighbours(Simulation::State& state);
void note_pace(Simulation::State& state);
void set_up_neighbours(Simulation::State& state);

/// Where its feet are at a place, if its body fits there; and true if it can go straight there.
[[nodiscard]] std::optional<Vector3d> standing_place(Simulation::State& state, std::uint32_t who,
                                                     const Vector3d& place);
[[nodiscard]] bool can_go(Simulation::State& state, std::uint32_t who, const Vector3d& place);

/// Metres, level, that are left to a goal: along the way if it follows one.
[[nodiscard]] double way_left(const Simulation::State& state, std::uint32_t who,
                              const Vector3d& goal);

/// Searches for those who wait, up to the budget of a step.
void search_asked(Simulation::State& state);

void set_up_routes(Simulation::State& state);
/// What it may pass may depend on the tags that it holds: after these have changed.
void change_body(Simulation::State& state, std::uint32_t who);
void mend_routes(Simulation::State& state, std::uint32_t solid);

/// Opens doors before those for whom they open, and shuts them after.
void move_doors(Simulation::State& state);
/// Takes from the health of what breaks.
void wear_down(Simulation::State& state, std::uint32_t solid, double damage, std::uint32_t by);
void set_up_solids(Simulation::State& state);

/// Puts those who have start places at one of them, drawn by the seed.
void choose_starts(Simulation::State& state);
/// The same for one; it stays where it is if there is none for it.
void choose_start(Simulation::State& state, std::uint32_t who);
void set_up_roaming(Simulation::State& state);

/// True once a goal has been out of reach for a second; resets itself for a new goal.
[[nodiscard]] bool is_stuck(Course& course, double distance, Moment now, Moment patience);
/// How long it may gain nothing: a second, and for what hops a whole hop more.
[[nodiscard]] Moment patience(const Simulation::State& state, std::uint32_t who);

/// On which of its sides one is touched by another, if it is: as of the moment at which they came
/// to, for as long as they touch. The second also remembers it.
[[nodiscard]] std::optional<Side> side_touched(const Simulation::State& state, std::uint32_t who,
                                               std::uint32_t other);
/// Forgets those that no longer do.
void forget_touches(Simulation::State& state, std::uint32_t who);
std::optional<Side> note_touch(Simulation::State& state, std::uint32_t who, std::uint32_t other);

/// Metres between two bodies; 0 if they touch.
[[nodiscard]] double gap_between(const Simulation::State& state, std::uint32_t who,
                                 std::uint32_t thing);

/// True if a reaction asks for an attack now: by its own word, or for as long as its cause lasts.
[[nodiscard]] bool is_asked_for(const Simulation::State& state, std::uint32_t who,
                                std::uint32_t attack);

/// Takes up its idle mode where it left it: a patrol goes on to the point that it was going to.
void go_on_as_before(Simulation::State& state, std::uint32_t who);

/// Moves on to the next place of a list, round or to and fro.
void advance_course(Course& course, std::size_t places, bool to_and_fro);

/// Follows an agent's script for one step.
void follow_script(Simulation::State& state, std::uint32_t who);

/// Walks one leg for as much of the budget as it takes, and moves the agent.
LegResult walk_leg(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget);

}  // namespace gaze
