#pragma once

#include <cstddef>
#include <limits>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/event.hpp"
#include "gaze/level.hpp"
#include "gaze/navigation.hpp"
#include "gaze/prepared.hpp"
#include "gaze/public.hpp"
#include "gaze/shots.hpp"
#include "gaze/sight.hpp"
#include "gaze/steering.hpp"
#include "gaze/world.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// A noise that an agent heard and has not forgotten.
struct HeardNoise {
  std::string_view noise;  ///< Its name; lives as long as the simulation or any copy of it.
  Vector3d place{0.0, 0.0, 0.0};
};

/// A noise that an agent made.
struct NoiseMade {
  std::string_view noise;  ///< Its name; lives as long.
  Vector3d place{0.0, 0.0, 0.0};
  double reach = 0.0;  ///< Metres.
  std::int64_t tick = 0;
};

/// What is known of an agent at the current tick.
struct AgentState {
  Vector3d position{0.0, 0.0, 0.0};  ///< Of the feet.
  Vector2d facing{1.0, 0.0};         ///< Unit vector in the plan.
  double health = 0.0;               ///< Never below 0.
  bool is_alive = true;
  Mode mode = Mode::post;
  std::optional<AgentId> target;      ///< The agent it acts on, of those it notices.
  Vector2d head{1.0, 0.0};            ///< Where its sight looks: the facing, if it has no head.
  bool is_awake = true;               ///< Else it perceives nothing and does nothing.
  std::vector<std::string> tags;      ///< Those it has now.
  std::optional<HeardNoise> goes_by;  ///< What it heard last.
  double score = 0.0;                 ///< For those whom it has defeated, over all rounds.
  bool is_there = true;               ///< False before somebody has left it behind.
  std::optional<AgentId> carrier;     ///< Of a thing, who carries it.
  std::vector<int> pockets;           ///< What is left of each that its kind carries.
};

/// How far one agent is with noticing another.
enum class Awareness { unaware, gathering, noticed, remembers };

/// What `advance` has done.
struct Advance {
  int steps = 0;
  /// Of a step, [0, 1): what is left of the time given, to blend the last two poses by.
  double left_over = 0.0;
  double lost_seconds = 0.0;  ///< Of the time given, beyond the most steps that were allowed.
};

/// Which events to pick; what is left out does not matter.
struct EventFilter {
  std::optional<Event::What> what;
  std::optional<AgentId> agent;  ///< Who did or felt it, or to whom it was done.
};

/// A level being played in steps of a fixed length. A value: a copy is a snapshot, and both go on
/// alike. The same level, seed and inputs give the same bits on every machine. One that has been
/// moved from may be copied, assigned to and destroyed, and nothing else.
class Simulation {
 public:
  /// Places all agents and lets them look once, at tick 0.
  explicit Simulation(const Prepared& prepared);
  /// The same in a host's own world beside the solids of the level: what agents see, feel and hear,
  /// and what shots and beams meet, is asked of both, one by one. Bodies are moved among the
  /// level's solids, on its meshes, or by the host. Copies share the host's world; a save goes on
  /// alike where that is the same.
  Simulation(const Prepared& prepared, std::shared_ptr<const RaySource> host);
  /// The same for one game alone: the level is made ready first. Throws LevelError with all that
  /// `validate` finds.
  explicit Simulation(const Level& level);
  Simulation(const std::shared_ptr<const Level>& level, const World& world);
  Simulation(const Simulation& other);
  Simulation(Simulation&& other) noexcept;
  /// Over an older copy of the same game it allocates nothing but for what has grown since.
  Simulation& operator=(const Simulation& other);
  Simulation& operator=(Simulation&& other) noexcept;
  ~Simulation();

  /// Plays one step. Once the arrays have grown to what play needs, it allocates nothing.
  void step();

  /// Plays as many whole steps as fit in the time given so far and keeps the rest for the next
  /// call. If that are more than `most_steps`, the time for the others is lost: a game that cannot
  /// keep up goes slower, instead of falling behind for ever. Throws UsageError if the time is
  /// negative, not finite or above 3600, or the most steps are below 0.
  Advance advance(double frame_seconds, int most_steps = std::numeric_limits<int>::max());

  [[nodiscard]] std::int64_t tick() const noexcept;
  [[nodiscard]] double seconds() const noexcept;  ///< tick / ticks_per_second

  /// What happened in the last call of `step` or `advance`, in order of time, and what calls of the
  /// host have brought since. What was noticed at tick 0 comes with the first step.
  [[nodiscard]] std::span<const Event> events() const noexcept;
  /// Those of them that pass a filter, in the same order.
  [[nodiscard]] std::vector<Event> events(const EventFilter& filter) const;
  [[nodiscard]] std::string describe(const Event& event) const;  ///< One line, without the time.

  /// Those in the game, whether defeated or not, in the order of their numbers: not those that are
  /// merely kept for what may be left behind, nor those that have been taken out.
  [[nodiscard]] std::vector<AgentId> agents() const;
  [[nodiscard]] std::size_t agent_count() const noexcept;     ///< So many of them.
  [[nodiscard]] bool is_there(AgentId agent) const noexcept;  ///< False for nobody as well.
  [[nodiscard]] AgentId agent(std::string_view id) const;  ///< Throws UsageError if there is none.
  [[nodiscard]] std::optional<AgentId> find_agent(std::string_view id) const;
  [[nodiscard]] const std::string& id_of(AgentId agent) const;
  [[nodiscard]] AgentState state(AgentId agent) const;
  [[nodiscard]] std::span<const Projectile> projectiles() const noexcept;
  /// How many projectiles were not fired in this round, because `LevelLimits::projectiles` were in
  /// flight.
  [[nodiscard]] std::uint64_t projectiles_not_fired() const noexcept;
  [[nodiscard]] std::span<const BeamRay> beams() const noexcept;  ///< Those on in the last step.

  /// What one agent can tell of another now, and why. Throws UsageError for an unknown id.
  [[nodiscard]] Verdict look(AgentId looker, AgentId other) const;
  [[nodiscard]] Verdict look(std::string_view looker, std::string_view other) const;
  /// The same answer as `look(...).sees`, without its reasons, and quicker.
  [[nodiscard]] bool sees(AgentId looker, AgentId other) const;
  [[nodiscard]] Looker looker(
      AgentId agent) const;  ///< As `look` uses it. Throws UsageError without sight.
  [[nodiscard]] LookedAt looked(AgentId agent) const;

  [[nodiscard]] Awareness awareness(AgentId looker, AgentId other) const;
  /// Where the looker has last perceived the other. Nothing while it is unaware of it.
  [[nodiscard]] std::optional<Vector3d> last_place(AgentId looker, AgentId other) const;

  /// By which sense a looker knows of another: the leading one while it notices it, else the last.
  [[nodiscard]] std::optional<Sense> noticed_by(AgentId looker, AgentId other) const;

  /// Makes a noise, to be heard in the next step. Throws UsageError unless its reach is above 0 and
  /// finite, and for a place that no level may have.
  void make_noise(const Vector3d& place, double reach, std::string_view name,
                  std::optional<AgentId> maker = std::nullopt);

  /// The noise that an agent made last.
  [[nodiscard]] std::optional<NoiseMade> last_noise(AgentId agent) const;

  /// The blast that an agent caused last.
  [[nodiscard]] std::optional<BlastMade> last_blast(AgentId agent) const;

  /// Switches an agent on that sleeps.
  void wake(AgentId agent);

  /// Moves an agent that the host drives: until the next step it counts as having come there in a
  /// straight line. Its turn limits are about the new facing. Throws UsageError for another driver,
  /// a place that no level may have, or an angle beyond a million degrees.
  void set_pose(AgentId agent, const Vector3d& position, Angle facing);

  /// Throws what `set_pose` would throw, and changes nothing: for a host that sets many poses or
  /// none.
  void check_pose(AgentId agent, const Vector3d& position, Angle facing) const;

  /// What an agent that the host drives aims at, and whether it fires its attacks, until set anew:
  /// shots and beams at the place or, without one, straight ahead; strikes at the nearest foe that
  /// they reach. Throws UsageError for another driver or a place that no level may have.
  void set_aim(AgentId agent, const std::optional<Vector3d>& aim, bool fires);

  /// Has an agent go where the host wants, as its kind can, from the next step on and until it is
  /// steered otherwise, let go, or brought back to where it began. Its script waits meanwhile; a
  /// track goes on by the clock. Throws UsageError for one that its mind drives, a way that is not
  /// finite, a place that no level may have, or a deed with what the level does not have.
  void steer(AgentId agent, const Steering& steering);
  void let_go(AgentId agent);
  [[nodiscard]] bool is_steered(AgentId agent) const;

  /// Takes a thing into the hand; throws one of a kind, from the hand or out of a pocket, to land
  /// at a place; puts down all that is in the hand. @return False where it is too far off, not
  /// there, or it has none. Throws UsageError for what does not exist or is no thing.
  bool take(AgentId agent, AgentId thing);
  bool throw_thing(AgentId agent, std::string_view kind, const Vector3d& place);
  void drop(AgentId agent);

  /// Puts somebody new into play, who perceives and is perceived from the next step on; its id is
  /// the name of its kind and a number, unless it gets one. The second form takes one with a
  /// patrol; none has a script. Allocates, and looks once through the numbers of all agents; the
  /// first change of a game, and one after a copy has been made, also makes anew what is shared,
  /// O(size of the level). If `Prepared` has not made the mesh that it needs, it is made here.
  /// Throws UsageError, and changes nothing, for an unknown kind, an id that is taken, and what
  /// `validate` would find.
  AgentId spawn(std::string_view kind, const Vector3d& position, Angle facing,
                std::string_view id = {}, Driver driver = Driver::mind);
  AgentId spawn(const Agent& agent);

  /// Takes agents out of the game, with what they have fired; what they carry falls down. Nobody
  /// knows of them any more. Their ids and numbers may be used again, with another generation.
  /// O(size of the game) for any number of them.
  void despawn(AgentId agent);
  void despawn(std::span<const AgentId> agents);

  /// Makes an agent one of another kind, with all that this has: attacks are ready, pockets full,
  /// its health is at most that of the kind. It goes on with what it is about, and remembers.
  void set_kind(AgentId agent, std::string_view kind);

  /// Sets a number of a kind, by the path that it has in a file: ("kind.pruner.sight.range", 6.0);
  /// an agent's by ("agent.pruner-1.sight.range", 6.0). Whoever is `like` that kind and has the
  /// same value there gets the new one. Angles are in degrees, times in seconds; words that say yes
  /// or no are 1 and 0. What is under way goes on by the new values. Throws UsageError, and changes
  /// nothing, for a path that leads to no number, and for what `validate` would find.
  /// O(size of the level).
  void set_value(std::string_view path, double value);
  [[nodiscard]] double value(std::string_view path) const;  ///< As it is now.

  /// Puts an agent elsewhere, whoever drives it, as if it had always stood there; it goes on with
  /// what it was about. Its post, where it returns to, and its turn limits move along. @return
  /// False if it is not in play. Throws UsageError as `set_pose` does.
  bool teleport(AgentId agent, const Vector3d& place, Angle facing);

  /// Takes points of health, whatever it resists and however lately it was hurt; at 0 it is
  /// defeated, with all that this brings. `by` is who did it, and whom it then knows of. Gives
  /// points back, up to the health of its kind. Brings one that is defeated back to where it began.
  /// @return False if there is nothing to hurt, heal or bring back. Throws UsageError for points
  /// below 0.
  bool hurt(AgentId agent, double points, std::optional<AgentId> by = std::nullopt);
  bool heal(AgentId agent, double points);
  bool revive(AgentId agent);

  /// Tags that kinds begin with or zones grant. Throws UsageError for others.
  void give_tag(AgentId agent, std::string_view tag);
  void take_tag(AgentId agent, std::string_view tag);

  /// Takes away a door, what breaks or what has `can_go`, or puts it back, whole. A door opens and
  /// shuts by itself from then on. Ways change with it: meshes know of it beforehand, so that this
  /// is quick in a level of any size. Throws UsageError for any other solid.
  void set_gone(SolidId solid, bool is_gone);
  /// Puts a solid into the level. Meshes are mended where it stands, see
  /// `NavigationMesh::with_solids`; everybody looks for a way anew. What comes and goes often is
  /// better a part of the level from the beginning, with `can_go`.
  /// Nobody should stand where it comes to be: who does cannot move. Throws UsageError, and changes
  /// nothing, for what `validate` would find.
  SolidId add_solid(const Solid& solid);

  /// True once the round has ended in a level that does not begin again: nothing moves any more.
  [[nodiscard]] bool is_over() const noexcept;

  /// The whole game as bytes, to be restored in another process or on another machine into a
  /// simulation of the same level. The same game gives the same bytes.
  [[nodiscard]] std::vector<std::byte> save() const;
  /// Goes back, or on, to what was saved: from there on everything happens as it did. Throws
  /// SaveError with the reason, and changes nothing, if the save is damaged, of another level, or
  /// of another version of the library.
  void restore(std::span<const std::byte> save);
  /// A number for all that `save` would write: two games that differ in anything have, but for
  /// one chance in 2^64, different digests.
  [[nodiscard]] std::uint64_t digest() const;

  /// The level as it is played now, with what has been set and put in since. Its agents are by
  /// number: those that are `is_spare` are kept for what may be left behind, or were taken out; a
  /// game that begins with this level has none of them. Valid until the game is changed.
  [[nodiscard]] const Level& level() const noexcept;
  [[nodiscard]] const World& world() const noexcept;
  /// The mesh for the body of this agent and for the tags that it holds now. Nothing if nobody has
  /// needed it yet: the mesh of an agent that the host drives is made if its kind was given to
  /// `Prepared` as one to come, or if a mind of the same kind is in the game.
  [[nodiscard]] std::optional<NavigationMesh> mesh(AgentId agent) const;

  struct State;

 private:
  friend const State& state_of(const Simulation& simulation) noexcept;

  std::unique_ptr<State> state_;
};

}  // namespace gaze
GAZE_PUBLIC_END
