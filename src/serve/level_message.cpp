#include "serve/level_message.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <nlohmann/json.hpp>
#include <sstream>

#include "drawing/palette.hpp"
#include "file/regular_file.hpp"
#include "gaze/acquaintance.hpp"
#include "gaze/drawing.hpp"
#include "gaze/going.hpp"
#include "gaze/level_file.hpp"
#include "gaze/tools/report.hpp"
#include "level/rounded.hpp"
#include "serve/json_text.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array kMeaningNames{
    "ground",        "bounds",        "zone",         "seen_calm",   "seen_alert",   "field",
    "walkway",       "walkway_rim",   "walkway_up",   "solid",       "solid_rim",    "solid_gone",
    "way",           "trail",         "blast",        "blast_clear", "track",        "hit",
    "nearness",      "noise",         "feeler_reach", "feeler",      "feeler_finds", "sight_clear",
    "sight_outside", "sight_stopped", "sight_beyond", "beam",        "body",         "body_out",
    "facing",        "target",        "shot"};
static_assert(kMeaningNames.size() == static_cast<std::size_t>(Meaning::shot) + 1);

std::string css(const Colour& colour) {
  const auto part = [](double value) { return static_cast<int>(std::lround(value * 255.0)); };
  return fmt::format("#{:02x}{:02x}{:02x}", part(colour.red), part(colour.green),
                     part(colour.blue));
}

Json palette_json() {
  Json json{{"paper", css(kPaper)}, {"plate", css(kPlate)}, {"ink", css(kInk)},
            {"calm", css(kCalm)},   {"alert", css(kAlert)}, {"stopped", css(kStopped)},
            {"shot", css(kShot)}};
  for (const Colour& colour : kMaterials) json["materials"].push_back(css(colour));
  for (const Colour& colour : kTeams) json["teams"].push_back(css(colour));
  return json;
}

Json agent_json(const Simulation& game, AgentId id) {
  const Level& level = game.level();
  const Agent& agent = level.agents[id.index];
  const Kind& kind = level.kind_of(agent);
  Json json{{"number", id.index}, {"id", agent.id}, {"kind", kind.name}};
  json["team"] = kind.team == kNoTeam ? Json(nullptr) : Json(kind.team);
  json["can_be_steered"] = agent.driver && *agent.driver != Driver::mind;
  json["is_thing"] = kind.thing.has_value();
  json["has_sight"] = kind.sight.has_value();
  json["hops"] = *kind.move->hop_height > 0.0;
  return json;
}

}  // namespace

std::string level_message(const Session& session) {
  const Simulation& game = session.game();
  const Level& level = game.level();
  Json json{{"tell", "level"},
            {"name", level.name},
            {"plane", name_of(level.plane)},
            {"ticks_per_second", level.ticks_per_second},
            {"length", rounded(level.seconds)},
            {"file", session.file().filename().string()},
            {"player", session.player()},
            {"palette", palette_json()},
            {"meanings", kMeaningNames}};
  json["teams"] = Json::array();
  for (const Team& team : level.teams) json["teams"].push_back(team.name);
  json["materials"] = Json::array();
  for (const Material& material : level.materials) {
    json["materials"].push_back({{"name", material.name}, {"stops_sight", material.stops.test(0)}});
  }
  json["agents"] = Json::array();
  for (const AgentId agent : game.agents()) json["agents"].push_back(agent_json(game, agent));
  return json_text(json);
}

std::string why_message(const Simulation& game, const std::string& agent,
                        const std::string& other) {
  const auto who = game.find_agent(agent);
  if (!who || !game.is_there(*who)) return {};
  const AgentState state = game.state(*who);
  Json json{{"tell", "why"}, {"tick", game.tick()}, {"agent", agent}, {"other", other}};
  json["mode"] = state.is_awake ? name_of(state.mode) : "asleep";
  json["health"] = rounded(state.health);
  if (state.target) json["target"] = game.id_of(*state.target);
  const auto whom = other.empty() ? std::nullopt : game.find_agent(other);
  if (!whom || !game.is_there(*whom) || whom == who) {
    json["going"] = going(game, *who).reason;
    return json_text(json);
  }
  json["account"] = account(game, *who, *whom);
  json["why"] = Json::parse(why_json(game, *who, *whom));
  const Awareness awareness = game.awareness(*who, *whom);
  constexpr const char* kAwareness[] = {"unaware", "gathering", "noticed", "remembers"};
  json["awareness"] = kAwareness[static_cast<std::size_t>(awareness)];
  if (const auto place = game.last_place(*who, *whom)) {
    json["last_place"] = {rounded(place->x()), rounded(place->y()), rounded(place->z())};
  }
  return json_text(json);
}

std::string place_text(const Session& session, Place place) {
  const std::filesystem::path file(place.file);
  if (file.parent_path() == session.file().parent_path()) place.file = file.filename().string();
  return text_of(place);
}

std::string line_of_file(const Place& place) {
  constexpr std::size_t kMost = 200;
  const FileText read = read_regular_file(place.file, ReadLimits::file_bytes);
  std::istringstream in(read.bytes);
  std::string line;
  for (int i = 0; i < place.line && std::getline(in, line); ++i) {
  }
  return in && place.line > 0 ? line.substr(0, kMost) : "";
}

}  // namespace gaze::serve
