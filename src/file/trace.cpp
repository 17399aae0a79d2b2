#include "gaze/tools/trace.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "level/rounded.hpp"

namespace gaze {
namespace {

// Of its way in the plan, degrees.
double heading(const Simulation& simulation, const Projectile& shot) {
  const bool is_upright = simulation.level().plane == Plane::upright;
  return angle_of(Vector2d{shot.velocity.x(), is_upright ? shot.velocity.z() : shot.velocity.y()})
      .degrees();
}

std::string csv_line(const Simulation& simulation, AgentId agent, const AgentState& state) {
  return fmt::format(
      "{},{},{},{},{},{},{},{},{},,\n", rounded(simulation.seconds()), simulation.id_of(agent),
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

// A shot stands under the name of who fired it, without mode, health and target.
std::string csv_line(const Simulation& simulation, const Projectile& shot) {
  return fmt::format("{},{},{},{},{},{},,,,{},{}\n", rounded(simulation.seconds()),
                     simulation.id_of(shot.shooter), rounded(shot.position.x()),
                     rounded(shot.position.y()), rounded(shot.position.z()),
                     rounded_turn(heading(simulation, shot)), shot.attack, shot.number);
}

std::string json_line(const Simulation& simulation, const Projectile& shot) {
  nlohmann::ordered_json json;
  json["time"] = rounded(simulation.seconds());
  json["agent"] = simulation.id_of(shot.shooter);
  json["x"] = rounded(shot.position.x());
  json["y"] = rounded(shot.position.y());
  json["z"] = rounded(shot.position.z());
  json["facing"] = rounded_turn(heading(simulation, shot));
  json["shot"] = shot.attack;
  json["number"] = shot.number;
  return json.dump() + "\n";
}

}  // namespace

std::string trace_head(TraceFormat format) {
  return format == TraceFormat::csv ? "time,agent,x,y,z,facing,mode,health,target,shot,number\n"
                                    : "";
}

std::string trace_lines(const Simulation& simulation, TraceFormat format) {
  std::string lines;
  for (const AgentId agent : simulation.agents()) {
    const AgentState state = simulation.state(agent);
    lines += format == TraceFormat::csv ? csv_line(simulation, agent, state)
                                        : json_line(simulation, agent, state);
  }
  for (const Projectile& shot : simulation.projectiles()) {
    lines += format == TraceFormat::csv ? csv_line(simulation, shot) : json_line(simulation, shot);
  }
  return lines;
}

}  // namespace gaze
