#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <vector>

#include "agents/crowd.hpp"
#include "agents/few.hpp"
#include "agents/links.hpp"
#include "agents/rows.hpp"
#include "agents/scratch.hpp"
#include "agents/touches.hpp"
#include "gaze/level.hpp"
#include "gaze/shots.hpp"

namespace gaze {

/// When an attack of an agent can be pulled again, and how often until it is empty.
struct Readiness {
  Moment at = 0;
  int left = 0;  ///< Of its ammunition, if that is not endless.
};

/// What an attack is made at: an agent, or a place; if it is neither, the attack goes straight
/// ahead.
struct Aimed {
  std::optional<std::uint32_t> agent;
  std::optional<Vector3d> place;
  bool is_plan = false;  ///< The place has no height: what flies straight flies level.
};

/// A blow or shot of an attack that has been pulled.
struct Release {
  std::uint32_t who = 0;
  std::uint32_t attack = 0;
  Aimed at;
  Moment due = 0;
  bool is_late = false;  ///< Some time has passed since it was pulled.
};

/// A projectile or a thrown thing in flight.
struct Shell {
  std::uint32_t shooter = 0;
  AttackId attack;
  std::optional<std::uint32_t> thing;   ///< The agent that has been thrown, if it is one.
  std::uint32_t thing_kind = kNothing;  ///< The kind of what is thrown, also out of a pocket.
  NoiseName noise;                      ///< That it makes where it lands.
  std::int64_t number = -1;             ///< So many were fired before it; -1: a beam.
  Moment lifetime = 0;
  Vector3d origin{0.0, 0.0, 0.0};
  Vector3d position{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};
  Moment age = 0;
  std::optional<std::uint32_t> target;  ///< That it turns to, if it does.
  bool has_landed = false;
  bool is_spent = false;
  Moment met_at = 0;    ///< When it met something last, or ended.
  int clear_steps = 0;  ///< So many whole steps from here on nothing solid is in its way.
  int bounces_left = 0;
  int pierced_count = 0;
};

/// Bodies that a shell has passed through.
using Pierced = std::array<std::uint32_t, kMostPierced>;

/// A ray that stays on.
struct Beam {
  std::uint32_t who = 0;
  std::uint32_t attack = 0;
  Aimed at;
  Moment from = 0;
  Moment until = 0;
  std::optional<std::uint32_t> body;   ///< That it falls on.
  std::optional<std::uint32_t> solid;  ///< That it falls on, if on no body.
  double length = 0.0;                 ///< To there, metres.
  Vector3d end{0.0, 0.0, 0.0};         ///< There.
  Moment owed = 0;                     ///< For so long it has fallen there and not hurt yet.
};

struct Blow {
  std::uint32_t by = 0;
  std::uint32_t victim = 0;
  AttackId attack;
  double share = 1.0;            ///< Of the damage and push of the attack.
  Vector3d from{0.0, 0.0, 0.0};  ///< Where it came from: it pushes away from there.
  Vector3d at{0.0, 0.0, 0.0};    ///< What tells on which side it falls.
  Moment when = 0;               ///< Within the step.
  std::size_t number = 0;        ///< In the order in which they came up.
};

/// What only combat knows.
struct Fights {
  Rows<Readiness> ready;            ///< By agent and attack.
  std::vector<Release> releases;    ///< Of what has been pulled, in that order.
  std::vector<Blow> blows;          ///< Still to be dealt in this step.
  std::vector<Moment> grace_until;  ///< By agent: it cannot be hurt again before that.
  Few<BlastMade> last_blast;        ///< By who made it.
  Touches touches;                  ///< For attacks by touch.
  bool somebody_caught = false;     ///< In this step.

  std::vector<Shell> shells;            ///< In flight, in no order.
  std::vector<Pierced> pierced;         ///< By shell; apart, for few of them pierce.
  std::vector<Shell> thrown;            ///< In this step; they fly from the next one on.
  std::uint64_t not_fired = 0;          ///< Shells that would have been too many.
  std::vector<Projectile> projectiles;  ///< The shells, as the host may see them.
  Scratch<Crowd> hittable{2.0};         ///< Where those are who can be hit.
  Scratch<Crowd> pickers{2.0};          ///< Agents in play, while there are things to pick up.
  double most_moved = 0.0;              ///< In this step along an axis, by anybody, metres.
  double highest = 0.0;                 ///< Top of any living body in this step, metres.

  std::vector<Beam> beams;
  std::vector<BeamRay> beam_rays;  ///< As they fell in this step.

  Rows<int> pockets;                     ///< By agent, as its kind has them: how many are left.
  std::vector<std::uint32_t> next_left;  ///< By pool of the level: which of it is used next.
  std::vector<std::uint32_t> returning;  ///< Those who will come back.
  std::vector<double> solid_health;      ///< By solid; empty if none breaks.
};

}  // namespace gaze
