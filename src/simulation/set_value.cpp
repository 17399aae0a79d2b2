#include <fmt/format.h>

#include <algorithm>
#include <string>
#include <vector>

#include "level/named_kind.hpp"
#include "level/spelling.hpp"
#include "level/whom.hpp"
#include "simulation/change.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "travel/travelling.hpp"
#include "values/numbers_of.hpp"

/// Values that are set while the level is played.
namespace gaze {
namespace {

using Index = std::uint32_t;

/// Whose value a path means, and which: "kind.pruner.sight.range".
struct ValuePath {
  std::string_view owner;  ///< "kind" or "agent"
  std::string_view name;
  std::string_view rest;
};

ValuePath parts_of(std::string_view path) {
  const std::size_t first = path.find('.');
  const std::size_t second = first == path.npos ? path.npos : path.find('.', first + 1);
  const std::string_view owner = path.substr(0, first);
  if (second == path.npos || (owner != "kind" && owner != "agent")) {
    throw UsageError(fmt::format(
        "'{}' leads to no value; kind.NAME.KEY and agent.ID.KEY do, as in a level file", path));
  }
  return {owner, path.substr(first + 1, second - first - 1), path.substr(second + 1)};
}

const NamedNumber& find(const std::vector<NamedNumber>& numbers, const ValuePath& path) {
  std::vector<std::string> known;
  for (const NamedNumber& one : numbers) {
    if (one.path == path.rest) return one;
    known.push_back(one.path);
  }
  throw UsageError(fmt::format("{}.{} has no number '{}'{}", path.owner, path.name, path.rest,
                               suggestion(path.rest, known)));
}

void need_settable(const NamedNumber& number, std::string_view path, double value) {
  if (number.path.ends_with("keeps")) {
    throw UsageError(fmt::format("'{}' stays as it was when the game began", path));
  }
  if (!number.can_be(value)) {
    throw UsageError(fmt::format("'{}' cannot be {}", path, value));
  }
}

// Where values were written is known of levels from files alone.
void note_origin(Level& level, const std::string& path) {
  if (!level.origins.empty()) level.origins[path] = Place{path, 0, 0};
}

std::string path_of(const Level& level, Index kind, std::string_view rest) {
  if (kind < level.named_kinds) return fmt::format("kind.{}.{}", level.kinds[kind].name, rest);
  const auto owner = std::find_if(level.agents.begin(), level.agents.end(),
                                  [&](const Agent& agent) { return agent.kind == kind; });
  return owner == level.agents.end() ? "" : fmt::format("agent.{}.{}", owner->id, rest);
}

// Sets it for a kind, and for all that are like it and had the same value there.
void set_for_kind(Level& level, std::vector<Kind>& kinds, Index kind, const ValuePath& path,
                  double value) {
  const auto before = find(numbers_of(kinds[kind]), path).get();
  const std::vector<Index> bases = bases_of(level);
  for (Index i = 0; i < kinds.size(); ++i) {
    const bool is_like = is_of_kind(level, bases, level.kinds[i], path.name);
    if (!is_like) continue;
    for (const NamedNumber& one : numbers_of(kinds[i])) {
      if (one.path != path.rest || (i != kind && one.get() != before)) continue;
      one.set(value);
      note_origin(level, path_of(level, i, path.rest));
    }
  }
}

// An agent whose values are those of its kind gets a kind of its own.
Index own_kind(Level& level, std::vector<Kind>& kinds, std::vector<Pool>& pools, Index who) {
  const Index kind = level.agents[who].kind;
  if (kind >= level.named_kinds) return kind;
  const auto own = static_cast<Index>(kinds.size());
  kinds.push_back(kinds[kind]);
  level.kinds.push_back(level.kinds[kind]);
  level.agents[who].kind = own;
  for (Pool& pool : pools) {
    if (pool.owner != who || pool.kind != kind) continue;
    pool.kind = own;
    if (pool.attack && pool.attack->kind == kind) pool.attack->kind = own;
  }
  return own;
}

// Bodies may have got another size, and less health.
void follow_on(Simulation::State& state) {
  Travelling travelling(state);
  for (Index who = 0; who < state.agent_count(); ++who) {
    find_mesh(travelling, who);
    state.lives.health[who] = std::min(state.lives.health[who], state.kind(who).health);
  }
  add_meshes(state.meshes, state.fixed, state.world, 0, state.agent_count());
}

}  // namespace

void Simulation::set_value(std::string_view path, double value) {
  const ValuePath parts = parts_of(path);
  auto next = std::make_shared<Level>(level());
  std::vector<Kind> kinds = *state_->fixed.written;
  std::vector<Pool> pools = state_->fixed.pools;
  if (parts.owner == "kind") {
    const Index kind = kind_called(*next, parts.name);
    need_settable(find(numbers_of(kinds[kind]), parts), path, value);
    set_for_kind(*next, kinds, kind, parts, value);
  } else {
    const Index who = state_->index_of(agent(parts.name));
    need_settable(find(numbers_of(kinds[next->agents[who].kind]), parts), path, value);
    const Index kind = own_kind(*next, kinds, pools, who);
    find(numbers_of(kinds[kind]), parts).set(value);
    note_origin(*next, std::string(path));
  }
  next->kinds = kinds;
  need_no_fault(validate(*next));
  complete(*next);
  go_on_with(state_, std::move(next), std::make_shared<const std::vector<Kind>>(std::move(kinds)),
             std::move(pools));
  follow_on(*state_);
}

double Simulation::value(std::string_view path) const {
  const ValuePath parts = parts_of(path);
  const Index kind = parts.owner == "kind"
                         ? kind_called(level(), parts.name)
                         : level().agents[state_->index_of(agent(parts.name))].kind;
  Kind copy = level().kinds[kind];
  const auto value = find(numbers_of(copy), parts).get();
  if (!value) throw UsageError(fmt::format("'{}' is left out", path));
  return *value;
}

}  // namespace gaze
