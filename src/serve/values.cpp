#include "serve/values.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "level/rounded.hpp"
#include "serve/json_text.hpp"
#include "serve/level_message.hpp"
#include "values/key_text.hpp"
#include "values/keys.hpp"
#include "values/numbers_of.hpp"

namespace gaze::serve {
namespace {

using Json = nlohmann::ordered_json;

// "sight.range" is a key of the sights of kinds, "attack.shears.damage" one of attacks.
const Key* key_of(const std::string& path) {
  const std::size_t dot = path.find('.');
  if (dot == std::string::npos) return kKindKeys.find(path);
  const KeyTable* table = table_of_kind(path.substr(0, dot));
  if (table == nullptr) return nullptr;
  const std::size_t last = table->is_named() ? path.rfind('.') : dot;
  return table->find(path.substr(last + 1));
}

void add_key(Json& json, const Key& key) {
  json["meaning"] = key.meaning;
  if (!key.must_be_given()) json["left_out"] = left_out_text(key);
  json["is_truth"] = key.sort == Key::Sort::truth;
  json["is_whole"] = key.sort == Key::Sort::whole;
  if (key.sort == Key::Sort::truth) return;
  json["unit"] = key.allowed.unit;
  json["low"] = key.allowed.low;
  json["high"] = std::min(key.allowed.high, 1e12);
  json["above_low"] = key.allowed.above_low;
}

bool is_tried(const Session& session, const std::string& path) {
  const auto& tried = session.tried();
  return std::any_of(tried.begin(), tried.end(),
                     [&](const Setting& one) { return one.path == path; });
}

Json value_json(const Session& session, const std::string& owner, const NamedNumber& number) {
  const Level& level = session.game().level();
  const std::string path = owner + "." + number.path;
  Json json{{"path", path}, {"key", number.path}};
  json["value"] = rounded(*number.get());
  if (const Key* key = key_of(number.path)) add_key(json, *key);
  const auto place = level.origin(path);
  if (place && place->line > 0) json["set_at"] = place_text(session, *place);
  if (is_tried(session, path)) json["is_tried"] = true;
  return json;
}

Json values_of(const Session& session, const std::string& owner, Kind kind) {
  Json list = Json::array();
  for (const NamedNumber& number : numbers_of(kind)) {
    if (number.get()) list.push_back(value_json(session, owner, number));
  }
  return list;
}

}  // namespace

std::string values_message(const Session& session) {
  const Level& level = session.game().level();
  Json json{{"tell", "values"}};
  json["kinds"] = Json::object();
  for (std::size_t i = 0; i < level.named_kinds; ++i) {
    const Kind& kind = level.kinds[i];
    json["kinds"][kind.name] = values_of(session, "kind." + kind.name, kind);
  }
  json["agents"] = Json::object();
  for (const Agent& agent : level.agents) {
    if (agent.is_spare || agent.kind < level.named_kinds) continue;
    json["agents"][agent.id] = values_of(session, "agent." + agent.id, level.kind_of(agent));
  }
  json["tried"] = Json::array();
  for (const Setting& one : session.tried()) {
    json["tried"].push_back({{"path", one.path}, {"value", one.value}});
  }
  json["kept"] = session.kept();
  return json_text(json);
}

}  // namespace gaze::serve
