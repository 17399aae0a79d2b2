#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/tools/cover.hpp"

/// Where an attack can hurt from where an agent stands.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// What one attack reaches of a floor.
struct AttackReach {
  std::string attack;
  double area = 0.0;                   ///< Square metres, of whole spots.
  std::vector<std::uint8_t> can_hurt;  ///< By spot of the floor.
};

/// Upon whom the reach of a kind is shown unless somebody says otherwise: the kind of the first
/// agent that it is hostile to, players first. nullptr if there is none.
[[nodiscard]] const Kind* usual_victim(const Level& level, const Kind& by);

/// The floor on which a body of a kind can stand, in spots of so many metres.
[[nodiscard]] FloorOptions floor_for(const Kind& kind, double spot_size);

/// For each attack of an agent, every spot of a floor where a body of the victim's kind, standing
/// still, can be hurt by it now, once the agent has turned there as far as it can: what `gaze draw
/// --reach` shows. Exact for each spot's middle. Touches count side by side, bursts and catches
/// from where the agent stands; bounces, and what is made only as a friend fires, are left out. In
/// ground and space levels the floor is that at ground height, in an upright level all free air.
[[nodiscard]] std::vector<AttackReach> attack_reach(const Simulation& simulation, AgentId agent,
                                                    const Kind& victim, const FreeFloor& floor);

}  // namespace gaze
GAZE_PUBLIC_END
