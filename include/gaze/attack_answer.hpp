#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// Whether an attack could be made at another agent now, and if not, what keeps it.
struct AttackAnswer {
  std::string_view attack;  ///< Its name; lives as long as the level.
  bool can = false;
  double off = 0.0;    ///< By how much it fails: metres, degrees or seconds, as the reason says.
  std::string reason;  ///< In words, with the numbers: "out of reach by 2.1 m".
};

/// One answer for each attack of the kind of `by`, in their order. They are about where both agents
/// are now, while the next step asks after they have moved. Costs no step anything. Throws
/// UsageError for an unknown agent.
[[nodiscard]] std::vector<AttackAnswer> attacks_at(const Simulation& simulation, AgentId by,
                                                   AgentId other);

}  // namespace gaze
GAZE_PUBLIC_END
