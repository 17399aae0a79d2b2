#pragma once

#include <vector>

#include "gaze/level.hpp"
#include "values/fault_list.hpp"

/// What has to hold for a level as a whole, once each of its parts is right.
namespace gaze {

/// All of it, each fault with its place.
[[nodiscard]] std::vector<Fault> faults_of_whole(const Level& level);

/// What the last solid of a level breaks, where all else is right.
void check_last_solid_among_others(FaultList& faults, const Level& level);

/// Ids that two things have.
void check_ids(FaultList& faults, const Level& level);
/// Names that nobody has.
void check_references(FaultList& faults, const Level& level);
/// Speeds that depend on themselves, and hops that would never end.
void check_speeds(FaultList& faults, const Level& level);
/// Kinds that leave each other behind for ever.
void check_leftovers(FaultList& faults, const Level& level);

}  // namespace gaze
