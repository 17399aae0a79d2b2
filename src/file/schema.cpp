#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "gaze/tools/level_keys.hpp"
#include "values/key_text.hpp"
#include "values/keys.hpp"

/// The keys as a JSON schema.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;
using Sort = Key::Sort;

Json reference_to(std::string_view name) {
  return {{"$ref", fmt::format("#/definitions/{}", name)}};
}

Json list_of(Json item) {
  return {{"type", "array"}, {"items", std::move(item)}};
}

Json list_of(Json item, std::size_t least, std::size_t most) {
  Json list = list_of(std::move(item));
  list["minItems"] = least;
  list["maxItems"] = most;
  return list;
}

Json any_of(std::initializer_list<Json> choices) {
  return {{"anyOf", Json(std::vector<Json>(choices))}};
}

Json number_in(const Allowed& allowed, std::string_view type) {
  Json number{{"type", type}};
  number[allowed.above_low ? "exclusiveMinimum" : "minimum"] = allowed.low;
  if (allowed.high < kWithoutEnd) number["maximum"] = allowed.high;
  return number;
}

Json one_word_of(const std::vector<std::string>& words) {
  return {{"enum", words}};
}

Json name() {
  return {{"type", "string"}, {"pattern", "^[A-Za-z0-9_-]+$"}};
}

Json point_of(std::size_t least, std::size_t most) {
  return list_of({{"type", "number"}}, least, most);
}

Json reaction() {
  return any_of({one_word_of(words_of(kReactionKeys.key("mode"))), reference_to("reaction")});
}

Json value_of(const Key& key) {
  switch (key.sort) {
    case Sort::number:
      return number_in(key.allowed, "number");
    case Sort::whole:
      return number_in(key.allowed, "integer");
    case Sort::truth:
      return {{"type", "boolean"}};
    case Sort::text:
      return {{"type", "string"}};
    case Sort::name:
      return name();
    case Sort::word:
      return one_word_of(words_of(key));
    case Sort::names:
      return list_of({{"type", "string"}});
    case Sort::words:
      return list_of(one_word_of(words_of(key)));
    case Sort::numbers:
      return list_of(number_in(key.allowed, "number"), key.count, key.count);
    case Sort::list:
      return list_of(number_in(key.allowed, "number"), 1, key.count);
    case Sort::point:
      return point_of(2, 3);
    case Sort::point3:
      return point_of(3, 3);
    case Sort::outline:
      return list_of(point_of(2, 2));
    case Sort::patrol:
      return list_of(any_of({point_of(2, 3), reference_to(kStopKeys.name)}));
    case Sort::script:
      return list_of(reference_to(kStepKeys.name));
    case Sort::reaction:
      return reaction();
    case Sort::reactions:
      return any_of({reaction(), {{"type", "object"}, {"additionalProperties", reaction()}}});
    case Sort::picks:
      return list_of(reference_to(kPickKeys.name), key.count, key.count);
    case Sort::track: {
      Json table{{"type", "object"}, {"additionalProperties", false}};
      table["properties"] = {{"file", {{"type", "string"}}}, {"agent", {{"type", "string"}}}};
      table["required"] = {"file"};
      return any_of({{{"type", "string"}}, std::move(table)});
    }
    case Sort::settings:
      return {{"type", "object"}};
    case Sort::amounts:
      return {{"type", "object"}, {"additionalProperties", number_in(key.allowed, "number")}};
  }
  return {};
}

Json described(const Key& key) {
  Json value = value_of(key);
  if (key.can_be_false) value = any_of({std::move(value), {{"const", false}}});
  value["description"] = fmt::format("{}: {}", type_text(key), key.meaning);
  if (key.left_out.number) value["default"] = *key.left_out.number;
  return value;
}

// Of kinds and agents no value is asked for: it may come from what they are like.
bool may_inherit(const KeyTable& table) {
  return table.name.starts_with("kind.NAME");
}

Json object_of(const KeyTable& table) {
  Json properties = Json::object();
  Json required = Json::array();
  for (const Key& key : table.keys) {
    properties[std::string(key.name)] = described(key);
    const bool is_asked = key.must_be_given() && !may_inherit(table);
    if (is_asked) required.push_back(key.name);
  }
  Json object{{"type", "object"}, {"additionalProperties", false}, {"properties", properties}};
  object["description"] = table.intro;
  if (!required.empty()) object["required"] = required;
  return object;
}

// "[kind.NAME.attack.ANY]" stands under names of its own, "[[wall]]" in a list, "[round]" once.
Json place_of(const KeyTable& table) {
  const Json one = reference_to(table.name);
  if (table.is_listed()) return list_of(one);
  if (table.name.ends_with(".NAME")) return {{"type", "object"}, {"additionalProperties", one}};
  if (!table.name.ends_with(".ANY")) return one;
  return {{"type", "object"}, {"additionalProperties", any_of({one, {{"const", false}}})}};
}

void add_parts(Json& object, const KeyTable& table) {
  for (const std::string& part : split(table.parts)) {
    const KeyTable* own = &table == &kLevelKeys ? table_of_level(part) : table_of_kind(part);
    object["properties"][part] = place_of(*own);
  }
}

}  // namespace

std::string level_schema() {
  Json definitions = Json::object();
  for (const KeyTable* table : all_key_tables()) {
    Json object = object_of(*table);
    add_parts(object, *table);
    definitions[std::string(table->name)] = std::move(object);
  }
  Json& agent = definitions[std::string(kAgentKeys.name)];
  const Json& kind = definitions[std::string(kKindKeys.name)];
  for (const auto& [key, value] : kind["properties"].items()) {
    if (key == "like") continue;
    agent["properties"][key] = value;
    agent["properties"][key].erase("default");  // it is that of its kind
  }
  Json schema = definitions[std::string(kLevelKeys.name)];
  definitions.erase(std::string(kLevelKeys.name));
  schema["$schema"] = "http://json-schema.org/draft-07/schema#";
  schema["title"] = "A level of Gaze";
  schema["definitions"] = std::move(definitions);
  return schema.dump(1) + "\n";
}

}  // namespace gaze
