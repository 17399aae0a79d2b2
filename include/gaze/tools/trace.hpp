#pragma once

#include <string>

#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

enum class TraceFormat { csv, jsonl };

/// The first line of a trace, with its end of line; empty for jsonl.
[[nodiscard]] std::string trace_head(TraceFormat format);

/// A line for each agent at the current tick: time, agent, x, y, z, facing in degrees, mode,
/// health, target (empty if none). Then one for each shot in flight, under the name of who fired
/// it: the facing is where it flies, then the name of the attack and its number, as in events. The
/// last columns say what those do who are driven, as a track has it: so a trace is a track.
/// Places and directions of agents have all their digits; other numbers are rounded to 9 decimals.
[[nodiscard]] std::string trace_lines(const Simulation& simulation, TraceFormat format);
/// The line of one agent alone. Throws UsageError for an unknown one.
[[nodiscard]] std::string trace_line(const Simulation& simulation, AgentId agent,
                                     TraceFormat format);

}  // namespace gaze
GAZE_PUBLIC_END
