#pragma once

#include <cstdint>
#include <optional>
#include <string_view>

#include "gaze/geometry.hpp"
#include "gaze/happening.hpp"
#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/world.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

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
  using What = Happening;

  What what = What::mode;
  std::int64_t tick = 0;
  AgentId agent;  ///< Who did or felt it.
  std::optional<AgentId> other;
  std::optional<SolidId> solid;
  std::optional<std::uint32_t> zone;  ///< Index in Level::zones.
  std::optional<AgentId> teller;      ///< Noticed because told by this one.
  Sense by = Sense::sight;
  /// Of `took`: the first attack that the thing refilled.
  std::string_view attack;  ///< Lives as long as the simulation or any copy of it.
  std::string_view noise;   ///< Its name; lives as long.
  double distance = 0.0;
  double angle_deg = 0.0;
  double damage = 0.0;
  double health = 0.0;
  double gained = 0.0;  ///< Took: points of health that the agent gained from the thing.
  double score = 0.0;
  Side side = Side::front;
  std::int64_t projectile = -1;  ///< Its number, of what was fired and what it hit; -1: of none.
  std::uint32_t team = kNoTeam;  ///< All of which are out, so that the round ended.
  std::uint64_t host_id = 0;  ///< Of what was hit in a host's own world, where `solid` is kOfHost.
  bool is_outside = false;    ///< What is spent got out of the level; who left stays out.
  Vector3d place{0.0, 0.0, 0.0};  ///< Of most events: the feet of `agent`.
  Mode from = Mode::post;
  Mode to = Mode::post;
};

}  // namespace gaze
GAZE_PUBLIC_END
