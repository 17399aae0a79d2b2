#include "gaze/trace.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "show/round.hpp"

namespace gaze {
namespace {

std::string csv_line(const Simulation& simulation, AgentId agent, const AgentState& state) {
  return fmt::format(
      "{},{},{},{},{},{},{},{},{}\n", rounded(simulation.seconds()), simulation.id_of(agent),
      rounded(state.position.x()), rounded(state.position.y()), rounded(state.position.z()),
      rounded_turn(angle_of(state.facing).degrees()), name_of(state.mode), rounded(state.health),
      state.target ? simulation.id_of(*state.target) : std::string());
}

std::string json_line(const Simulation& simulation, AgentId agent, const AgentState& state) {
  nlohmann::ordered_json json;
  json["time"] = rounded(simulation.seconds());
  json["agent"] = simulation.id_of(agent);
  json["x"] = rounded(state.position.x());
  json["y"] = rounded(state.position.y());
  json["z"] = rounded(state.position.z());
  json["facing"] = rounded_turn(angle_of(state.facing).degrees());
  json["mode"] = name_of(state.mode);
  json["health"] = rounded(state.health);
  json["target"] = state.target ? simulation.id_of(*state.target) : std::string();
  return json.dump() + "\n";
}

}  // namespace

std::string trace_head(TraceFormat format) {
  return format == TraceFormat::csv ? "time,agent,x,y,z,facing,mode,health,target\n" : "";
}

std::string trace_lines(const Simulation& simulation, TraceFormat format) {
  std::string lines;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    const AgentState state = simulation.state({i});
    if (!state.is_there) continue;
    lines += format == TraceFormat::csv ? csv_line(simulation, {i}, state)
                                        : json_line(simulation, {i}, state);
  }
  return lines;
}

}  // namespace gaze
