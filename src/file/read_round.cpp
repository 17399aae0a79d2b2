#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "file/read.hpp"
#include "level/spelling.hpp"

/// When a round ends, where a level ends, and what is left behind.
namespace gaze {
namespace {

/// How many agents one kind may leave behind in all: those of its own, and what these leave.
class Leftovers {
 public:
  explicit Leftovers(const Level& level) : level_(level), counts_(level.kinds.size(), kUnknown) {}

  /// Nothing if the kind leaves itself behind, by whatever way.
  std::optional<std::size_t> of(std::uint32_t kind) {
    if (kind >= counts_.size()) return 0;
    std::size_t& count = counts_[kind];
    if (count == kOpen) return std::nullopt;
    if (count != kUnknown) return count;
    count = kOpen;
    const Kind& values = level_.kinds[kind];
    std::size_t sum = 0;
    if (!add(values.defeat.leaves, 1, sum)) return std::nullopt;
    for (const Attack& attack : values.attacks) {
      if (!add(attack.leaves, attack.keeps, sum)) return std::nullopt;
    }
    if (values.thing && !add(values.thing->flight.leaves, values.thing->flight.keeps, sum)) {
      return std::nullopt;
    }
    for (const Pocket& pocket : values.carries) {
      const auto& thing = level_.kinds[pocket.kind].thing;
      if (thing && !add(thing->flight.leaves, thing->flight.keeps, sum)) return std::nullopt;
    }
    counts_[kind] = sum;
    return sum;
  }

 private:
  static constexpr std::size_t kUnknown = static_cast<std::size_t>(-1);
  static constexpr std::size_t kOpen = kUnknown - 1;

  bool add(const std::optional<std::uint32_t>& leaves, int times, std::size_t& sum) {
    if (!leaves) return true;
    const auto own = of(*leaves);
    if (!own) return false;
    sum = std::min(ReadLimits::agents + 1, sum + static_cast<std::size_t>(times) * (1 + *own));
    return true;
  }

  const Level& level_;
  std::vector<std::size_t> counts_;
};

bool leaves_anything(const Level& level) {
  return std::any_of(level.kinds.begin(), level.kinds.end(), [](const Kind& kind) {
    return kind.defeat.leaves || (kind.thing && kind.thing->flight.leaves) ||
           std::any_of(kind.attacks.begin(), kind.attacks.end(),
                       [](const Attack& attack) { return attack.leaves.has_value(); });
  });
}

}  // namespace

void read_round(ReadContext& context, TableReader& top, Level& level) {
  const Node* table = top.find("round");
  if (table == nullptr || !is_table(top, *table, "round")) return;
  TableReader reader(context, *table, "round", kRoundKeys);
  Round& round = level.round;
  round.place = table->place;
  std::vector<std::string> words{"caught"};
  for (const Team& team : level.teams) words.push_back(team.name + " out");
  reader.need("ends", "a list");
  for (const Node& item : reader.items("ends", ReadLimits::list_items)) {
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

void read_bounds(ReadContext& context, TableReader& top, Level& level) {
  const Node* table = top.find("bounds");
  if (table == nullptr || !is_table(top, *table, "bounds")) return;
  TableReader reader(context, *table, "bounds", kBoundsKeys);
  Bounds bounds;
  bounds.place = table->place;
  bool is_sound = true;
  if (const Node* outline = table->find("outline")) {
    bounds.outline = read_plan_points(reader, "outline", ReadLimits::outline_points);
    is_sound = bounds.outline.size() == outline->items.size() &&
               outline->type == Node::Type::array && check_outline(reader, bounds.outline);
  }
  bounds.low = reader.optional_number("low");
  bounds.high = reader.optional_number("high");
  bounds.puts_back = reader.word("leaving") == std::size_t{1};
  reader.finish();
  if (table->find("outline") == nullptr && table->find("low") == nullptr &&
      table->find("high") == nullptr) {
    reader.fault(table->place, "bounds has no outline, no low and no high; one of them is needed");
  }
  if (bounds.low && bounds.high && !(*bounds.low < *bounds.high)) {
    reader.fault(table->find("high")->place,
                 fmt::format("bounds.high is {}; above the low of {} m is allowed", *bounds.high,
                             *bounds.low));
  }
  if (is_sound) level.bounds = std::move(bounds);
}

void check_leftovers(ReadContext& context, const Level& level) {
  if (!leaves_anything(level)) return;
  Leftovers leftovers(level);
  std::size_t sum = level.agents.size();
  for (const Agent& agent : level.agents) {
    const auto own = leftovers.of(agent.kind);
    const Place place = level.origin(agent, "defeat.leaves").value_or(agent.place);
    if (!own) {
      context.faults.add(place, fmt::format("'{}' leaves itself behind for ever, by what it leaves",
                                            level.kind_of(agent).name));
      return;
    }
    sum += *own;
    if (sum > ReadLimits::agents) {
      context.faults.add(place,
                         fmt::format("agents and what they leave behind may be more than {}; "
                                     "that many are allowed",
                                     ReadLimits::agents));
      return;
    }
  }
}

}  // namespace gaze
