#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <vector>

#include "values/whole.hpp"

/// What is left behind in a level, which must come to an end.
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
      if (pocket.kind >= level_.kinds.size()) continue;
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
    const auto each = static_cast<std::size_t>(std::max(0, times));
    sum = std::min(LevelLimits::agents + 1, sum + each * (1 + *own));
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

void check_leftovers(FaultList& faults, const Level& level) {
  if (!leaves_anything(level)) return;
  Leftovers leftovers(level);
  std::size_t sum = level.agents.size();
  for (const Agent& agent : level.agents) {
    if (agent.kind >= level.kinds.size() || agent.is_spare) continue;
    const auto own = leftovers.of(agent.kind);
    const std::string path = fmt::format("agent.{}.defeat.leaves", agent.id);
    if (!own) {
      return faults.add(path, agent.place,
                        fmt::format("'{}' leaves itself behind for ever, by what it leaves",
                                    level.kind_of(agent).name));
    }
    sum += *own;
    if (sum > LevelLimits::agents) {
      return faults.add(path, agent.place,
                        fmt::format("agents and what they leave behind may be more than {}; "
                                    "that many are allowed",
                                    LevelLimits::agents));
    }
  }
}

}  // namespace gaze
