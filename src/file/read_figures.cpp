#include <fmt/format.h>

#include <algorithm>

#include "file/field_reader.hpp"
#include "level/spelling.hpp"

/// Figures and expectations.
namespace gaze {
void FieldReader::picks(const char* key, std::vector<EventPick>& picks) {
  const std::size_t count = reader_.key(key).count;
  const Node* node = reader_.find(key);
  if (node == nullptr) return;
  const std::vector<Node>& items = reader_.items(key, count);
  if (node->type == Node::Type::array && items.size() != count) {
    fault(key, fmt::format("has {} events; {} are needed", items.size(), count));
  }
  for (const Node& item : items) {
    const std::string path = fmt::format("{}[{}]", reader_.path_of(key), picks.size() + 1);
    EventPick pick;
    if (is_table(reader_, item, path)) {
      FieldReader(reader_.context(), item, path, kPickKeys, scope_).read(pick);
    }
    picks.push_back(pick);
  }
}

void FieldReader::settings(const char* key, std::map<std::string, std::string>& settings) {
  const Node* values = table(key);
  if (values == nullptr) return;
  for (const Node::Entry& entry : values->entries) {
    if (entry.value.type == Node::Type::table) {
      reader_.fault(entry.value.place,
                    fmt::format("{}.{} is a table; paths are put in quotes: \"{}.KEY\" = VALUE",
                                reader_.path_of(key), entry.key, entry.key));
    }
    settings[entry.key] = toml_of(entry.value);
  }
}

void read_figures(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  const Node* tables = top.find("figure");
  if (tables == nullptr || !is_table(top, *tables, "figure")) return;
  const Scope scope{names, level.plane, nullptr, nullptr};
  for (const Node::Entry& entry : tables->entries) {
    const std::string path = "figure." + entry.key;
    if (!is_name(entry.key)) {
      top.fault(entry.place, fmt::format("figure '{}' is no name; letters, digits, _ and - are "
                                         "allowed",
                                         entry.key));
      continue;
    }
    if (!is_table(top, entry.value, path)) continue;
    Figure figure;
    figure.name = entry.key;
    figure.place = entry.value.place;
    FieldReader(context, entry.value, path, kFigureKeys, scope).read(figure);
    level.figures.push_back(std::move(figure));
  }
}

void read_expectations(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  const Scope scope{names, level.plane, nullptr, nullptr};
  for (const Node& table : top.items("expect", LevelLimits::list_items)) {
    if (!is_table(top, table, "expect")) continue;
    Expectation expectation;
    expectation.place = table.place;
    FieldReader(context, table, path_by_id(table, "expect"), kExpectKeys, scope).read(expectation);
    level.expectations.push_back(std::move(expectation));
  }
}

}  // namespace gaze
