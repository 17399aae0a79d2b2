#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "file/field_reader.hpp"

/// When a round ends, and where a level ends.
namespace gaze {

void read_round(ReadContext& context, TableReader& top, Level& level) {
  const Node* table = top.find("round");
  if (table == nullptr || !is_table(top, *table, "round")) return;
  TableReader reader(context, *table, "round", kRoundKeys);
  Round& round = level.round;
  round.place = table->place;
  std::vector<std::string> words{"caught"};
  for (const Team& team : level.teams) words.push_back(team.name + " out");
  reader.need("ends", "a list");
  for (const Node& item : reader.items("ends", LevelLimits::list_items)) {
    const auto word = std::find(words.begin(), words.end(), item.text);
    if (item.type != Node::Type::text || word == words.end()) {
      reader.fault(item.place, fmt::format("round.ends holds {}; allowed: \"{}\"", found(item),
                                           fmt::join(words, "\", \"")));
    } else if (word == words.begin()) {
      round.ends_when_caught = true;
    } else {
      round.ends_without.push_back(static_cast<std::uint32_t>(word - words.begin() - 1));
    }
  }
  round.resets = reader.truth("resets");
  reader.finish();
}

void read_bounds(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  const Node* table = top.find("bounds");
  if (table == nullptr || !is_table(top, *table, "bounds")) return;
  Bounds bounds;
  bounds.place = table->place;
  const Scope scope{names, level.plane, nullptr, nullptr};
  FieldReader(context, *table, "bounds", kBoundsKeys, scope).read(bounds);
  level.bounds = std::move(bounds);
}

}  // namespace gaze
