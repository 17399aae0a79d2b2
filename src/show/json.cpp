#include <nlohmann/json.hpp>

#include "gaze/acquaintance.hpp"
#include "gaze/attack_answer.hpp"
#include "gaze/change.hpp"
#include "gaze/going.hpp"
#include "gaze/tools/duel.hpp"
#include "gaze/tools/report.hpp"
#include "level/rounded.hpp"
#include "level/solid_name.hpp"

namespace gaze {
namespace {

using Json = nlohmann::ordered_json;

// Text from files may hold any bytes that TOML lets through; JSON gets valid UTF-8.
std::string dumped(const Json& json) {
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Json point(const Vector3d& p) {
  return {rounded(p.x()), rounded(p.y()), rounded(p.z())};
}

void add_names(Json& json, const Simulation& simulation, const Event& event) {
  json["agent"] = simulation.id_of(event.agent);
  if (event.other) json["other"] = simulation.id_of(*event.other);
  if (event.teller) json["told_by"] = simulation.id_of(*event.teller);
  const bool is_of_solid =
      event.what == Event::What::broke || (event.what == Event::What::hit && !event.other);
  if (is_of_solid) {
    json["solid"] = event.solid ? solid_name(simulation.level(), event.solid->index) : "ground";
  }
  if (!event.attack.empty()) json["attack"] = event.attack;
  if (!event.noise.empty()) json["noise"] = event.noise;
  if (event.what == Event::What::ended) {
    const bool is_caught = event.team == kNoTeam;
    json["reason"] = is_caught ? "caught" : simulation.level().teams[event.team].name + " out";
  }
  if (event.zone) json["zone"] = simulation.level().zones[*event.zone].id;
}

void add_numbers(Json& json, const Event& event) {
  if (event.projectile >= 0) json["projectile"] = event.projectile;
  json["place"] = point(event.place);
  switch (event.what) {
    case Event::What::landed:
      json["fall"] = rounded(event.distance);
      break;
    case Event::What::spent:
    case Event::What::left:
      json["outside"] = event.is_outside;
      break;
    case Event::What::heard:
      json["distance"] = rounded(event.distance);
      break;
    case Event::What::attacked:
      if (!event.other) break;
      json["distance"] = rounded(event.distance);
      break;
    case Event::What::hurt:
      json["damage"] = rounded(event.damage);
      json["health"] = rounded(event.health);
      json["side"] = kSideNames[static_cast<std::size_t>(event.side)];
      break;
    case Event::What::took:
      if (event.gained == 0.0) break;
      json["gained"] = rounded(event.gained);
      json["health"] = rounded(event.health);
      break;
    case Event::What::fired:
      json["direction"] = rounded_turn(event.angle_deg);
      break;
    case Event::What::noticed:
      json["by"] = name_of(event.by);
      json["distance"] = rounded(event.distance);
      json["angle"] = rounded(event.angle_deg);
      break;
    case Event::What::mode:
      json["from"] = name_of(event.from);
      json["to"] = name_of(event.to);
      break;
    case Event::What::defeated:
      if (event.score != 0.0) json["score"] = rounded(event.score);
      break;
    default:
      break;
  }
}

Json event_json(const Simulation& simulation, const Event& event) {
  Json json;
  json["time"] = rounded(static_cast<double>(event.tick) / simulation.level().ticks_per_second);
  json["tick"] = event.tick;
  json["event"] = name_of(event.what);
  add_names(json, simulation, event);
  add_numbers(json, event);
  return json;
}

Json agent_json(const Simulation& simulation, AgentId agent) {
  const AgentState state = simulation.state(agent);
  const Level& level = simulation.level();
  Json json;
  json["id"] = simulation.id_of(agent);
  json["kind"] = level.kind_of(level.agents[agent.index]).name;
  json["position"] = point(state.position);
  json["facing"] = rounded_turn(angle_of(state.facing).degrees());
  json["health"] = rounded(state.health);
  json["alive"] = state.is_alive;
  json["mode"] = name_of(state.mode);
  if (state.score != 0.0) json["score"] = rounded(state.score);
  if (state.carrier) json["carried_by"] = simulation.id_of(*state.carrier);
  return json;
}

Json projectile_json(const Simulation& simulation, const Projectile& shot) {
  return {{"number", shot.number},
          {"by", simulation.id_of(shot.shooter)},
          {"attack", shot.attack},
          {"position", point(shot.position)},
          {"velocity", point(shot.velocity)}};
}

// Times in seconds; what there is no number for is left out.
Json duel_json(const Simulation& simulation, const Duel& duel) {
  Json json{{"by", simulation.id_of(duel.by)}, {"whom", simulation.id_of(duel.victim)}};
  json["attacks"] = duel.pulls;
  json["blows"] = duel.blows;
  json["hits"] = duel.hits;
  json["dealt"] = rounded(duel.dealt);
  json["by_side"] = Json::object();
  for (std::size_t i = 0; i < duel.by_side.size(); ++i) {
    if (duel.by_side[i] != 0.0)
      json["by_side"][std::string(kSideNames[i])] = rounded(duel.by_side[i]);
  }
  const auto add = [&](const char* key, const std::optional<double>& value) {
    if (value) json[key] = rounded(*value);
  };
  add("hit_share", duel.hit_share());
  add("points_per_second", duel.damage_rate());
  add("noticed", duel.noticed);
  add("first_hit", duel.first_hurt);
  add("warning", duel.warning());
  add("defeated", duel.defeated);
  add("time_to_defeat", duel.time_to_defeat());
  return json;
}

Json line_json(const LineTest& line) {
  Json json;
  json["test"] = "line of sight";
  json["visible"] = rounded(line.visible);
  json["limit"] = rounded(line.limit);
  json["pass"] = line.pass;
  if (!line.blocked_by.empty()) {
    json["blocked_by"] = line.blocked_by;
    json["at"] = point(line.blocked_at);
  }
  return json;
}

Json number_json(const std::string& test, double value, double limit, bool pass) {
  Json json;
  json["test"] = test;
  json["value"] = rounded(value);
  json["limit"] = rounded(limit);
  json["pass"] = pass;
  return json;
}

void add_other_senses(Json& tests, const Simulation& simulation, const Acquaintance& knows) {
  for (const FeelerAnswer& feeler : knows.feelers) {
    Json json = number_json("feeler " + feeler.name, feeler.felt.distance.value_or(feeler.length),
                            feeler.length, feeler.is_yes);
    if (feeler.felt.body) {
      json["finds"] = simulation.level().agents[*feeler.felt.body].id;
    } else if (feeler.felt.solid) {
      json["finds"] = solid_name(simulation.level(), feeler.felt.solid->index);
    } else if (feeler.felt.distance) {
      json["finds"] = "ground";
    }
    json["text"] = explain(feeler, simulation);
    tests.push_back(std::move(json));
  }
  if (knows.nearness) {
    tests.push_back(number_json("nearness", knows.nearness->value, knows.nearness->limit,
                                knows.nearness->pass));
  }
  if (knows.has_touch) {
    Json json{{"test", "touch"}, {"pass", knows.touched.has_value()}};
    if (knows.touched) json["side"] = kSideNames[static_cast<std::size_t>(*knows.touched)];
    tests.push_back(std::move(json));
  }
  if (knows.noise) {
    const HearingVerdict& verdict = knows.noise->verdict;
    Json json = number_json("hearing", verdict.around.value_or(verdict.distance),
                            std::min(verdict.range, verdict.reach), verdict.hears);
    json["noise"] = knows.noise->name;
    json["open_reach"] = rounded(verdict.open_reach);
    json["let_through"] = rounded(verdict.let_through);
    json["muffled_by"] = Json::array();
    for (const SolidId wall : verdict.muffled_by) {
      json["muffled_by"].push_back(solid_name(simulation.level(), wall.index));
    }
    json["text"] = explain(verdict, simulation.level());
    tests.push_back(std::move(json));
  }
}

Json evidence_json(const Verdict& verdict) {
  return {{"gathered", rounded(verdict.gathered)},
          {"rate", rounded(verdict.evidence.rate())},
          {"visibility", rounded(verdict.evidence.visibility)},
          {"visible", rounded(verdict.evidence.visible)},
          {"fade", rounded(verdict.evidence.fade)},
          {"light", rounded(verdict.evidence.light)}};
}

// A figure that is none is null.
Json figure_json(const Figure& figure, const FigureValue& value) {
  Json json{{"name", figure.name}, {"what", describe(figure)}, {"unit", unit_of(figure)}};
  json["value"] = value.value ? Json(rounded(*value.value)) : Json(nullptr);
  return json;
}

}  // namespace

std::string run_json(const Simulation& simulation, std::span<const Event> events,
                     std::span<const Figure> figures, std::span<const FigureValue> values) {
  const Level& level = simulation.level();
  Json json;
  json["level"] = level.name;
  json["ticks_per_second"] = level.ticks_per_second;
  json["seconds"] = rounded(level.seconds);
  json["seed"] = level.seed;
  json["events"] = Json::array();
  for (const Event& event : events) json["events"].push_back(event_json(simulation, event));
  json["agents"] = Json::array();
  for (const AgentId agent : simulation.agents()) {
    json["agents"].push_back(agent_json(simulation, agent));
  }
  json["projectiles"] = Json::array();
  for (const Projectile& shot : simulation.projectiles()) {
    json["projectiles"].push_back(projectile_json(simulation, shot));
  }
  json["projectiles_not_fired"] = simulation.projectiles_not_fired();
  json["duels"] = Json::array();
  for (const Duel& duel : duels(simulation, events)) {
    json["duels"].push_back(duel_json(simulation, duel));
  }
  json["figures"] = Json::array();
  for (std::size_t i = 0; i < figures.size(); ++i) {
    json["figures"].push_back(figure_json(figures[i], values[i]));
  }
  return dumped(json);
}

namespace {

Json way_json(const Going& way) {
  Json json;
  json["speed"] = rounded(way.speed);
  if (way.outcome) json["outcome"] = name_of(*way.outcome);
  if (way.goal) {
    json["goal"] = point(*way.goal);
    json["left"] = rounded(way.left);
  }
  json["points"] = Json::array();
  for (const Vector3d& p : way.ahead) json["points"].push_back(point(p));
  json["reason"] = way.reason;
  return json;
}

Json remedy_json(const Remedy& turns_it, Plane plane) {
  Json json;
  json["text"] = describe(turns_it, plane);
  json["changes"] = Json::array();
  for (const Change& change : turns_it.changes) {
    Json& entry = json["changes"].emplace_back();
    entry["change"] = name_of(change.what);
    entry["amount"] = change.amount;
    const bool is_turn = change.what == Change::What::turn;
    if (is_turn || change.what == Change::What::aside) {
      const bool is_side_on = plane == Plane::upright;
      entry["to"] = change.to_left ? (is_side_on ? "anticlockwise" : "left")
                                   : (is_side_on ? "clockwise" : "right");
    }
    if (!change.solid.empty()) entry["solid"] = change.solid;
  }
  return json;
}

}  // namespace

std::string why_json(const Simulation& simulation, AgentId looker, AgentId other) {
  const Verdict verdict = simulation.look(looker, other);
  Json json;
  json["time"] = rounded(simulation.seconds());
  json["agent"] = verdict.looker;
  json["other"] = verdict.other;
  json["sees"] = verdict.sees;
  json["mode"] = name_of(simulation.state(looker).mode);
  json["tests"] = Json::array();
  if (verdict.has_sight) {
    json["tests"].push_back(
        number_json("range", verdict.range.value, verdict.range.limit, verdict.range.pass));
    json["tests"].push_back(number_json("field of view", verdict.field.value_deg,
                                        verdict.field.limit_deg, verdict.field.pass));
    if (verdict.vertical) {
      json["tests"].push_back(number_json("vertical field of view", verdict.vertical->value_deg,
                                          verdict.vertical->limit_deg, verdict.vertical->pass));
    }
    json["tests"].push_back(line_json(verdict.line));
  }
  const Acquaintance knows = acquaintance(simulation, looker, other);
  add_other_senses(json["tests"], simulation, knows);
  json["reason"] = explain(verdict);
  if (verdict.has_sight) json["evidence"] = evidence_json(verdict);
  if (knows.by) json["noticed_by"] = name_of(*knows.by);
  if (const auto target = simulation.state(looker).target) {
    json["acts_on"] = simulation.id_of(*target);
  }
  if (knows.held) {
    json["held"] = {{"unperceived_s", knows.held->unperceived}, {"limit_s", knows.held->limit}};
  }
  if (const auto turns_it = remedy(simulation, looker, other)) {
    json[verdict.sees ? "would_end_it" : "it_would_take"] =
        remedy_json(*turns_it, simulation.level().plane);
  }
  json["attacks"] = Json::array();
  for (const AttackAnswer& answer : attacks_at(simulation, looker, other)) {
    json["attacks"].push_back(
        {{"attack", answer.attack}, {"can", answer.can}, {"reason", answer.reason}});
  }
  json["way"] = way_json(going(simulation, looker));
  return dumped(json);
}

namespace {

Json pair_json(const PairFigures& pair) {
  Json json{{"by", pair.by}, {"whom", pair.whom}, {"health", rounded(pair.health)}};
  json["attacks"] = Json::array();
  for (const PairFigures::Harm& harm : pair.harms) {
    json["attacks"].push_back({{"attack", harm.attack}, {"dealt", rounded(harm.dealt)}});
    json["attacks"].back()["in_reach"] = harm.is_in_reach();
    if (harm.seconds) json["attacks"].back()["defeats_in"] = rounded(*harm.seconds);
  }
  if (pair.running_away) {
    const PairFigures::RunningAway& away = *pair.running_away;
    json["running_away"] = {{"from", rounded(away.from)}, {"loses", rounded(away.lost)}};
    if (away.seconds) json["running_away"]["out_of_reach_in"] = rounded(*away.seconds);
  }
  if (pair.gain) json["gap_grows"] = rounded(*pair.gain);
  return json;
}

}  // namespace

std::string findings_json(std::span<const Finding> findings) {
  Json json = Json::array();
  for (const Finding& finding : findings) {
    json.push_back({{"file", finding.place.file},
                    {"line", finding.place.line},
                    {"column", finding.place.column},
                    {"severity", name_of(finding.severity)},
                    {"code", finding.code},
                    {"message", finding.message}});
    if (finding.pair) json.back()["pair"] = pair_json(*finding.pair);
  }
  return dumped(json);
}

std::string path_json(const Level& level, const NavigationMesh& mesh, const Path& path,
                      const std::string& reason) {
  Json json;
  json["outcome"] = name_of(path.outcome);
  json["length"] = rounded(path.length);
  json["points"] = Json::array();
  for (const Vector3d& p : path.points) json["points"].push_back(point(p));
  json["links"] = Json::array();
  for (const Path::Leg& leg : path.links) {
    const MeshLink& link = mesh.links()[leg.link];
    Json& entry = json["links"].emplace_back();
    entry["link"] = name_of(level, link);
    entry["from"] = point(link.from);
    entry["to"] = point(link.to);
  }
  json["reason"] = reason;
  return dumped(json);
}

}  // namespace gaze
