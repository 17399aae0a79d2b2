#pragma once

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "agents/few.hpp"
#include "agents/links.hpp"
#include "gaze/event.hpp"
#include "gaze/reaction.hpp"
#include "gaze/senses.hpp"

namespace gaze {

/// What became known to an agent since its mind last decided.
struct News {
  std::uint64_t fired = 0;  ///< Rules of its kind whose cause came up, by bit.
  std::uint64_t due = 0;    ///< Rules that had waited for their time.
  bool forgot = false;
};

/// A noise of this step.
struct MadeNoise {
  Noise noise;
  NoiseName name;
  std::optional<std::uint32_t> maker;
  std::int64_t tick = 0;
};

/// Another agent perceived by a sense other than sight, in this step.
struct Perceived {
  std::uint32_t who = 0;  ///< Perceives it.
  std::uint32_t other = 0;
  Sense sense = Sense::feeler;
  Moment remember = 0;
  Vector3d place{0.0, 0.0, 0.0};
  std::optional<std::uint32_t> teller;
};

/// What a mind has decided about where it goes, for travel.
struct CourseChange {
  enum class What : std::uint8_t {
    anew,        ///< It begins with what its mode goes about.
    leaves,      ///< It leaves its idle mode, and will come back to where it is.
    as_before,   ///< It takes up its idle mode where it left that.
    turns_round  ///< A reaction has it turn.
  };
  std::uint32_t who = 0;
  What what = What::anew;
  Angle turn;
  Mode mode = Mode::post;  ///< In which it turns round.
};

/// A mode that has ended on the way, which the mind has to know.
struct ModeChange {
  std::uint32_t who = 0;
  Mode to = Mode::post;
};

/// What a script wants a hand to do, which combat carries out.
struct HandWish {
  enum class What : std::uint8_t { take, throw_, drop };
  std::uint32_t who = 0;
  What what = What::take;
  std::uint32_t thing = 0;        ///< The agent to take, or the kind to throw.
  Vector3d place{0.0, 0.0, 0.0};  ///< To throw to.
  Vector3d feet{0.0, 0.0, 0.0};   ///< Where who wishes that is at that moment.
};

/// What somebody who is driven did at once, in the last step.
struct Deed {
  std::uint32_t who = 0;
  TrackDeed::What what = TrackDeed::What::take;
  std::uint32_t thing = 0;  ///< The agent taken, or the kind thrown.
  NoiseName noise;
  Vector3d place{0.0, 0.0, 0.0};
  double reach = 0.0;
  Vector3d feet{0.0, 0.0, 0.0};  ///< Position of its feet at that moment.
};

/// A push by a blow: metres a second, level.
struct Push {
  std::uint32_t who = 0;
  Vector3d velocity{0.0, 0.0, 0.0};
};

/// Where a thing is now that is carried, flies, or has come to lie somewhere.
struct Placed {
  std::uint32_t who = 0;
  Vector3d feet{0.0, 0.0, 0.0};
  bool is_released = false;  ///< It falls from there to what is below.
};

/// Something that comes into play because it is left behind.
struct Coming {
  std::uint32_t who = 0;
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};
};

/// An attack for which a reaction had asked, and which has been made.
struct Made {
  std::uint32_t who = 0;
  std::uint32_t attack = 0;
};

/// An agent whose beam has locked on to a target. The agent turns to that target.
struct Locked {
  std::uint32_t who = 0;
  std::uint32_t target = 0;
};

/// What has happened, for the host.
struct Events {
  std::vector<Event> all;
  std::size_t sorted = 0;            ///< So many are in their order.
  bool are_shown = false;            ///< The host has had its chance to read them.
  std::vector<std::uint64_t> order;  ///< Scratch: the keys of their order.
  std::vector<Event> in_order;       ///< Scratch.
};

/// What the stages of a step tell each other. Every stage may append; the stage that makes use of a
/// list clears it.
struct Told {
  std::vector<News> news;         ///< By agent, for its mind.
  std::vector<MadeNoise> noises;  ///< Made in this step, to be heard in it.
  Few<MadeNoise> last_noise;      ///< By maker.
  std::vector<Perceived> sudden;  ///< Who was hurt, or told of somebody.

  // For travel.
  std::vector<CourseChange> courses;
  std::vector<Push> pushes;
  std::vector<Placed> placed;
  std::vector<Locked> locked;                 ///< Set by the beams of the last tick.
  std::vector<std::uint32_t> changed_tags;    ///< Agents whose tags are others now.
  std::vector<std::uint32_t> changed_solids;  ///< What has opened, shut or broken.

  // For minds.
  std::vector<ModeChange> modes;
  std::vector<std::uint32_t> wakes;
  std::vector<Made> made;

  // For senses.
  std::vector<std::uint32_t> arrivals;  ///< Who has come to where it went to look.

  // For combat, and for who is in play.
  std::vector<HandWish> hands;
  std::vector<Deed> deeds;          ///< For traces; kept until the next step.
  std::vector<std::uint32_t> gone;  ///< Who has been defeated, caught or lost.
  std::vector<Coming> comings;

  /// So many agents.
  void resize(std::size_t agents) {
    news.resize(agents);
    last_noise.resize(agents);
  }
};

}  // namespace gaze
