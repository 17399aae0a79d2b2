#include "gaze/tools/trace.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "level/rounded.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

// Of its way in the plan, degrees.
double heading(const Simulation& simulation, const Projectile& shot) {
  const bool is_upright = simulation.level().plane == Plane::upright;
  return angle_of(Vector2d{shot.velocity.x(), is_upright ? shot.velocity.z() : shot.velocity.y()})
      .degrees();
}

// Of places no digit is left out: a track is to lead through the very same.
double exact(double value) {
  return value + 0.0;
}

/// What somebody who is driven does, so that a track can have it done again. All empty of others.
struct Doing {
  std::string fires;  ///< The share of the step, and the attacks if not all.
  std::optional<Vector3d> aim;
  bool is_plan_aim = false;
  std::string does;
};

std::string fires_text(const Simulation::State& state, std::uint32_t who, const Trigger& trigger) {
  if (!trigger.fires) return "";
  const Moment left = std::clamp<Moment>(trigger.until - state.step_start(), 0, kMomentsPerTick);
  const double share = static_cast<double>(left) / static_cast<double>(kMomentsPerTick);
  std::string text = fmt::format("{}", rounded(share));
  if (trigger.attacks == ~std::uint64_t{0}) return text;
  const Kind& kind = state.kind(who);
  for (std::size_t i = 0; i < kind.attacks.size(); ++i) {
    if ((trigger.attacks >> i & 1U) != 0) text += "+" + kind.attacks[i].name;
  }
  return text;
}

std::string deed_text(const Simulation::State& state, const Deed& deed) {
  switch (deed.what) {
    case TrackDeed::What::take:
      return "take " + state.agent(deed.thing).id;
    case TrackDeed::What::throw_:
      return fmt::format("throw {} {} {} {}", state.level().kinds[deed.thing].name,
                         exact(deed.place.x()), exact(deed.place.y()), exact(deed.place.z()));
    case TrackDeed::What::noise:
      return fmt::format("noise {} {}", deed.noise.text, exact(deed.reach));
    default:
      return "drop";
  }
}

// Only where it is not the position at the end of the step.
std::string from_text(const Simulation::State& state, const Deed& deed) {
  const Vector3d& feet = deed.feet;
  if (feet == state.bodies.position[deed.who]) return "";
  return fmt::format(" from {} {} {}", exact(feet.x()), exact(feet.y()), exact(feet.z()));
}

Doing doing_of(const Simulation& simulation, AgentId agent) {
  const Simulation::State& state = state_of(simulation);
  Doing doing;
  if (state.fixed.driver[agent.index] == Driver::mind) return doing;
  if (const Trigger* trigger = state.bodies.trigger[agent.index]) {
    doing.fires = fires_text(state, agent.index, *trigger);
    doing.aim = trigger->aim;
    doing.is_plan_aim = trigger->is_plan;
  }
  if (state.ways.quiet[agent.index] != 0) doing.does = "quiet";
  for (const Deed& deed : state.told.deeds) {
    if (deed.who != agent.index) continue;
    doing.does +=
        (doing.does.empty() ? "" : "; ") + deed_text(state, deed) + from_text(state, deed);
  }
  return doing;
}

std::string csv_part(const Doing& doing) {
  std::string aim = ",,";
  if (doing.aim) {
    const auto z = doing.is_plan_aim ? "" : fmt::format("{}", exact(doing.aim->z()));
    aim = fmt::format("{},{},{}", exact(doing.aim->x()), exact(doing.aim->y()), z);
  }
  return fmt::format("{},{},{}", doing.fires, aim, doing.does);
}

void add_doing(nlohmann::ordered_json& json, const Doing& doing) {
  if (!doing.fires.empty()) json["fires"] = doing.fires;
  if (doing.aim) {
    json["aim_x"] = exact(doing.aim->x());
    json["aim_y"] = exact(doing.aim->y());
    if (!doing.is_plan_aim) json["aim_z"] = exact(doing.aim->z());
  }
  if (!doing.does.empty()) json["does"] = doing.does;
}

std::string csv_line(const Simulation& simulation, AgentId agent, const AgentState& state) {
  return fmt::format(
      "{},{},{},{},{},{},{},{},{},,,{},{}\n", simulation.seconds(), simulation.id_of(agent),
      exact(state.position.x()), exact(state.position.y()), exact(state.position.z()),
      exact(angle_of(state.facing).degrees()), name_of(state.mode), rounded(state.health),
      state.target ? simulation.id_of(*state.target) : std::string(),
      csv_part(doing_of(simulation, agent)), rounded_turn(angle_of(state.head).degrees()));
}

std::string json_line(const Simulation& simulation, AgentId agent, const AgentState& state) {
  nlohmann::ordered_json json;
  json["time"] = simulation.seconds();
  json["agent"] = simulation.id_of(agent);
  json["x"] = exact(state.position.x());
  json["y"] = exact(state.position.y());
  json["z"] = exact(state.position.z());
  json["facing"] = exact(angle_of(state.facing).degrees());
  json["mode"] = name_of(state.mode);
  json["health"] = rounded(state.health);
  json["target"] = state.target ? simulation.id_of(*state.target) : std::string();
  add_doing(json, doing_of(simulation, agent));
  json["head"] = rounded_turn(angle_of(state.head).degrees());
  return json.dump() + "\n";
}

// A shot stands under the name of who fired it, without mode, health and target.
std::string csv_line(const Simulation& simulation, const Projectile& shot) {
  return fmt::format("{},{},{},{},{},{},,,,{},{},,,,,,\n", simulation.seconds(),
                     simulation.id_of(shot.shooter), rounded(shot.position.x()),
                     rounded(shot.position.y()), rounded(shot.position.z()),
                     rounded_turn(heading(simulation, shot)), shot.attack, shot.number);
}

std::string json_line(const Simulation& simulation, const Projectile& shot) {
  nlohmann::ordered_json json;
  json["time"] = simulation.seconds();
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
  return format == TraceFormat::csv ? "time,agent,x,y,z,facing,mode,health,target,shot,number,"
                                      "fires,aim_x,aim_y,aim_z,does,head\n"
                                    : "";
}

std::string trace_line(const Simulation& simulation, AgentId agent, TraceFormat format) {
  const AgentState state = simulation.state(agent);
  return format == TraceFormat::csv ? csv_line(simulation, agent, state)
                                    : json_line(simulation, agent, state);
}

std::string trace_lines(const Simulation& simulation, TraceFormat format) {
  std::string lines;
  for (const AgentId agent : simulation.agents()) lines += trace_line(simulation, agent, format);
  for (const Projectile& shot : simulation.projectiles()) {
    lines += format == TraceFormat::csv ? csv_line(simulation, shot) : json_line(simulation, shot);
  }
  return lines;
}

}  // namespace gaze
