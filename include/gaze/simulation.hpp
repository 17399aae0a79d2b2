#pragma once

#include <memory>
#include <optional>
#include <span>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/event.hpp"
#include "gaze/level.hpp"
#include "gaze/shots.hpp"
#include "gaze/sight.hpp"
#include "gaze/version.hpp"
#include "gaze/world.hpp"

namespace GAZE_FACE gaze {

/// Thrown by calls that name what does not exist, or that give a number which cannot be.
class UsageError : public std::invalid_argument {
 public:
  using std::invalid_argument::invalid_argument;
};

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
  bool is_there = true;               ///< False while it is kept for something to leave behind.
  std::optional<AgentId> carrier;     ///< Of a thing, who carries it.
  std::vector<int> pockets;           ///< What is left of each that its kind carries.
};

/// How far one agent is with noticing another.
enum class Awareness { unaware, gathering, noticed, remembers };

/// A level being played in steps of a fixed length. A value: a copy is a snapshot, and both go on
/// alike. The same level, seed and inputs give the same bits on every machine.
class Simulation {
 public:
  /// Places all agents and lets them look once, at tick 0. Behind the agents of the level come, not
  /// there yet, those that may be left behind: `agent_count` counts them, and `level` has them. The
  /// level must be as `read_level` leaves it, or as valid as that.
  explicit Simulation(const Level& level);
  Simulation(std::shared_ptr<const Level> level, World world);
  Simulation(const Simulation& other);
  Simulation(Simulation&& other) noexcept;
  Simulation& operator=(const Simulation& other);
  Simulation& operator=(Simulation&& other) noexcept;
  ~Simulation();

  /// Plays one step. Once the arrays have grown to what play needs, it allocates nothing.
  void step();

  /// Plays as many whole steps as fit in the time given so far and keeps the rest for the next
  /// call. @return How many. Throws UsageError if it is negative, not finite or above 3600.
  int advance(double frame_seconds);

  std::int64_t tick() const;
  double seconds() const;  ///< tick / ticks_per_second

  /// What happened in the last call of `step` or `advance`, in order of time. What was noticed at
  /// tick 0 comes with the first of them.
  std::span<const Event> events() const;
  std::string describe(const Event& event) const;  ///< One line, without the time.

  std::size_t agent_count() const;
  AgentId agent(std::string_view id) const;  ///< Throws UsageError if there is none.
  const std::string& id_of(AgentId agent) const;
  AgentState state(AgentId agent) const;
  std::span<const Projectile> projectiles() const;
  std::span<const BeamRay> beams() const;  ///< Those on in the last step.

  /// What one agent can tell of another now, and why. Throws UsageError for an unknown id.
  Verdict look(AgentId looker, AgentId other) const;
  Verdict look(std::string_view looker, std::string_view other) const;
  Looker looker(AgentId agent) const;  ///< As `look` uses it. Throws UsageError without sight.
  LookedAt looked(AgentId agent) const;

  Awareness awareness(AgentId looker, AgentId other) const;
  /// Where the looker has last perceived the other. Nothing while it is unaware of it.
  std::optional<Vector3d> last_place(AgentId looker, AgentId other) const;

  /// By which sense a looker knows of another: the leading one while it notices it, else the last.
  std::optional<Sense> noticed_by(AgentId looker, AgentId other) const;

  /// Makes a noise, to be heard in the next step. Throws UsageError unless its reach is above 0.
  void make_noise(const Vector3d& place, double reach, std::string_view name,
                  std::optional<AgentId> maker = std::nullopt);

  /// The noise that an agent made last.
  std::optional<NoiseMade> last_noise(AgentId agent) const;

  /// The blast that an agent caused last.
  std::optional<BlastMade> last_blast(AgentId agent) const;

  /// Switches an agent on that sleeps.
  void wake(AgentId agent);

  /// Moves an agent that the host drives: until the next step it counts as having come there in a
  /// straight line. Throws UsageError for another driver or numbers that are not finite.
  void set_pose(AgentId agent, const Vector3d& position, Angle facing);

  /// What an agent that the host drives aims at, and whether it fires its attacks, until set anew:
  /// shots and beams at the place or, without one, straight ahead; strikes at the nearest foe that
  /// they reach. Throws UsageError for another driver or numbers that are not finite.
  void set_trigger(AgentId agent, const std::optional<Vector3d>& aim, bool fires);

  /// Takes a thing into the hand; throws one of a kind, from the hand or out of a pocket, to land
  /// at a place; puts down all that is in the hand. @return False where it is too far off, not
  /// there, or it has none. Throws UsageError for what does not exist or is no thing.
  bool take(AgentId agent, AgentId thing);
  bool throw_thing(AgentId agent, std::string_view kind, const Vector3d& place);
  void drop(AgentId agent);

  /// True once the round has ended in a level that does not begin again: nothing moves any more.
  bool is_over() const;

  /// The level as it was given; after its agents come those that may be left behind.
  const Level& level() const;
  const World& world() const;

  struct State;

 private:
  friend const State& state_of(const Simulation& simulation) noexcept;

  std::unique_ptr<State> state_;
};

}  // namespace gaze
