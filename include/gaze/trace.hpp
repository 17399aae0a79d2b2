#pragma once

#include <string>

#include "gaze/simulation.hpp"

namespace gaze {

enum class TraceFormat { csv, jsonl };

/// The first line of a trace, with its end of line; empty for jsonl.
[[nodiscard]] std::string trace_head(TraceFormat format);

/// A line for each agent at the current tick: time, agent, x, y, z, facing in degrees, mode,
/// health, target (empty if none). Numbers are rounded to 9 decimals.
[[nodiscard]] std::string trace_lines(const Simulation& simulation, TraceFormat format);

}  // namespace gaze
