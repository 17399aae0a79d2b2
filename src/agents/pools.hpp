#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "agents/fixed.hpp"

/// Agents kept for what others may leave behind.
namespace gaze {

/// Says whether an agent has that id.
using IsTaken = std::function<bool(const std::string& id)>;

/// Adds an agent, which is not in play yet, for everything that one may leave behind, so that those
/// of one of its sources lie together; nothing if that has been done for it and its kind.
void add_pools(Level& level, std::vector<Pool>& pools, std::uint32_t owner,
               const IsTaken& is_taken);

/// The level with all that its agents may leave behind. Agents that are spare are made anew.
[[nodiscard]] std::shared_ptr<const Level> with_pools(std::shared_ptr<const Level> level,
                                                      std::vector<Pool>& pools);

}  // namespace gaze
