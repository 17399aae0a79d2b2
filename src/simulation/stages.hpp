#pragma once

#include <span>

#include "simulation/state.hpp"
#include "travel/walk.hpp"

/// What is done to the state of a simulation, by whom it is done.
namespace gaze {

/// What an agent wants to turn to, if to anything: a place for its middle to face, or a direction.
struct FacingWish {
  std::optional<Vector3d> look_at;
  std::optional<Vector2d> look_along;
};

/// What an agent acts on: another that it notices, else the place that it learnt of last.
struct Focus {
  std::optional<std::uint32_t> agent;
  Vector3d place{0.0, 0.0, 0.0};   ///< Of the feet.
  Vector3d motion{0.0, 0.0, 0.0};  ///< How it moved when last perceived, metres a step.
  double height = 0.0;             ///< Of what is there.
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
void defeat(Simulation::State& state, std::uint32_t who, std::optional<std::uint32_t> by,
            Moment when);
/// Puts somebody back to where it began; it has forgotten what it noticed.
void put_back(Simulation::State& state, std::uint32_t who);
/// Has those who have left the level defeated or put back.
void keep_in_bounds(Simulation::State& state);
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
/// Those who have just been placed come to stand, or begin to fall, before anybody goes anywhere.
void find_footing(Simulation::State& state);
/// After a hop, a drop or a fall from so high.
void tell_landing(Simulation::State& state, std::uint32_t who, double highest);
void set_up_footing(Simulation::State& state);

/// Goes towards a goal by the shortest way: straight where that is free, else by a path that is
/// searched anew only for a reason. `is_agent`: the goal moves, and it stops before it.
LegResult find_way(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent);

/// The mesh that it goes by; made when first needed.
[[nodiscard]] const NavigationMesh& mesh_for(Simulation::State& state, std::uint32_t who);

/// Those whom its way leads round, where they stand. Valid until it is asked again.
[[nodiscard]] std::span<const Cylinder> avoided_by(Simulation::State& state, std::uint32_t who);
/// Lets its way lead round those who hold it up and stand, the oldest forgotten first.
void avoid(Simulation::State& state, std::uint32_t who);
/// Forgets those who have gone. @return True if there are any.
bool forget_avoided(Simulation::State& state, std::uint32_t who);
/// True if one of them bars its straight way to a goal.
[[nodiscard]] bool stand_in_the_way(Simulation::State& state, std::uint32_t who,
                                    const Vector3d& goal);

/// Walks one leg, giving way to others that are on their way too or stand there. Who `queues` waits
/// where it gets no farther, others try to get round.
LegResult walk_apart(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool queues);

/// The living bodies that may stop one that moves by no more than so far, metres. Valid until it is
/// asked again.
[[nodiscard]] std::span<const Cylinder> bodies_in_the_way(Simulation::State& state,
                                                          std::uint32_t who, double reach);

/// True if somebody whom it all but touches stands where it wants to go.
[[nodiscard]] bool is_taken_by_one_beside(const Simulation::State& state, std::uint32_t who,
                                          const Vector3d& place);

/// Before somebody moves, and after: who is where, and how fast it has gone.
void look_for_neighbours(Simulation::State& state);
/// After one has moved.
void note_move(Simulation::State& state, std::uint32_t who);
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

/// What a feeler turns with.
[[nodiscard]] inline const Vector2d& feeler_facing(const Simulation::State& state,
                                                   std::uint32_t who, const Feeler& feeler) {
  return feeler.turns_with_head ? state.bodies.head[who] : state.bodies.facing[who];
}

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
/// Goes back to the place that it came from, and on from there that way.
void turn_course(Course& course, std::size_t places, bool to_and_fro);

/// Follows an agent's script for one step.
void follow_script(Simulation::State& state, std::uint32_t who);

/// Walks one leg for as much of the budget as it takes, and moves the agent.
LegResult walk_leg(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget);

}  // namespace gaze
