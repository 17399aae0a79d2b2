#pragma once

#include <cstdint>
#include <optional>
#include <string_view>

#include "gaze/face.hpp"
#include "gaze/geometry.hpp"
#include "gaze/level.hpp"
#include "gaze/world.hpp"

namespace GAZE_FACE gaze {

/// A sound made at one place, heard once.
struct Noise {
  Vector3d place{0.0, 0.0, 0.0};
  double reach = 0.0;  ///< Metres, above 0: how far it carries in the open to an acuity of 1.
};

/// Stands for no agent at all.
inline constexpr std::uint32_t kNobody = 0xFFFFFFFF;

/// An agent of a simulation, by its number. One that nobody has set is nobody; every call that
/// takes one refuses an agent that there is not, or that is no longer there (UsageError).
struct AgentId {
  std::uint32_t index = kNobody;  ///< In Level::agents.
  /// So many had the number before it: numbers of those who were taken out are used again.
  std::uint32_t generation = 0;
  auto operator<=>(const AgentId&) const = default;
};

/// Something that happened at a tick. Which of the numbers mean something depends on what it is;
/// the others are 0.
struct Event {
  /// In the order in which the events of one tick are listed.
  enum class What : std::uint8_t {
    arrived,   ///< At `place`, the end of a script's way.
    landed,    ///< At `place`, by hop, drop or fall: `distance` below the highest of it.
    blocked,   ///< On the way to `place`: under 1 cm nearer within a second; or it could not take
               ///< `other`, from a gap of `distance`, or throw an `attack` that it does not have.
    took,      ///< `other`, a thing.
    left,      ///< The bounds of the level, at `place`, and is put back unless `is_outside`.
    attacked,  ///< `other` with `attack`, from `distance`.
    fired,     ///< A projectile of `attack` from `place`.
    hit,       ///< `other`, or `solid`, or the ground, with `attack` at `place`.
    spent,     ///< A projectile of `attack`, whose time was over at `place`, or that got out of the
               ///< level there (`is_outside`). Every flight ends by this or by a hit.
    broke,     ///< `solid`, at the last of its health.
    blast,     ///< Of `attack` at `place`.
    hurt,      ///< By `other` with `attack` on a `side`: lost `damage`, `health` is left.
    defeated,  ///< By `other`, for a `score`; by nobody: it has left the level.
    caught,    ///< `other` with `attack`.
    ended,     ///< The round: the last to fall, or who caught `other`.
    triggered,  ///< Stepped into `zone`.
    heard,      ///< `noise` of `other`, or of nobody, at `place`, `distance` away.
    noticed,    ///< `other`, `by` a sense, at `distance` (by nearness: along the axes that
                ///< count), `angle_deg` off its facing.
    lost,       ///< `other`; last perceived at `place`.
    forgot,     ///< `other`, or the noise that it went by.
    mode,       ///< Changed it, `from` one `to` another.
  };

  What what = What::mode;
  std::int64_t tick = 0;
  AgentId agent;  ///< Who did or felt it.
  std::optional<AgentId> other;
  std::optional<SolidId> solid;
  std::optional<std::uint32_t> zone;  ///< Index in Level::zones.
  std::optional<AgentId> teller;      ///< Noticed because told by this one.
  Sense by = Sense::sight;
  std::string_view attack;  ///< Lives as long as the simulation or any copy of it.
  std::string_view noise;   ///< Its name; lives as long.
  double distance = 0.0;
  double angle_deg = 0.0;
  double damage = 0.0;
  double health = 0.0;
  double score = 0.0;
  Side side = Side::front;
  std::int64_t projectile = -1;  ///< Its number, of what was fired and what it hit; -1: of none.
  std::uint32_t team = kNoTeam;  ///< All of which are out, so that the round ended.
  std::uint64_t host_id = 0;  ///< Of what was hit in a host's own world, where `solid` is kOfHost.
  bool is_outside = false;    ///< What is spent got out of the level; who left stays out.
  Vector3d place{0.0, 0.0, 0.0};
  Mode from = Mode::post;
  Mode to = Mode::post;
};

[[nodiscard]] std::string_view name_of(Event::What what);

}  // namespace gaze
