#include <fmt/format.h>

#include <algorithm>

#include "file/field_reader.hpp"

namespace gaze {
namespace {

// An agent has keys of its own, and those of its kind.
const KeyTable& agent_and_kind_keys() {
  static const std::vector<Key> kKeys = [] {
    std::vector<Key> keys{kAgentKeys.keys.begin(), kAgentKeys.keys.end()};
    keys.insert(keys.end(), kKindKeys.keys.begin(), kKindKeys.keys.end());
    return keys;
  }();
  static const KeyTable kTable{kAgentKeys.name, kAgentKeys.title, "", "", kKeys, kKindKeys.parts};
  return kTable;
}

/// How many copies there are, and how far apart; none: just the agent itself.
struct Copies {
  int count = 0;
  Vector3d apart{0.0, 0.0, 0.0};
};

Copies read_copies(ReadContext& context, FieldReader& reader, const Node& table, Plane plane) {
  Copies copies;
  reader.may_be("copies", copies.count);
  const Node* count = table.find("copies");
  const Node* apart = table.find("apart");
  if (apart != nullptr) reader.point("apart", copies.apart);
  if (plane == Plane::ground) copies.apart.z() = 0.0;  // a way, and not a place on the ground
  if ((count == nullptr) != (apart == nullptr)) {
    context.faults.add(
        (count != nullptr ? count : apart)->place,
        "copies and apart are given together: how many, and how far from one to the next");
  }
  return copies;
}

// Moves a copy to its place. What was given for this copy alone, as `is_set` says, stays as it was
// given.
template <typename IsSet>
void shift_copy(Agent& copy, const Copies& copies, int number, IsSet&& is_set) {
  const Vector3d shift = copies.apart * static_cast<double>(number - 1);
  copy.id = fmt::format("{}-{}", copy.id, number);
  if (!is_set("at")) copy.position += shift;
  if (!is_set("patrol")) {
    for (Vector3d& point : copy.patrol) point += shift;
  }
  if (!is_set("script")) {
    for (ScriptStep& step : copy.script) step.place += shift;
  }
}

/// Reads agents one after the other; kinds that they change become kinds of their own.
class AgentReader {
 public:
  AgentReader(ReadContext& context, Level& level, const Names& names,
              const std::vector<Node::Entry>& kinds, const CopySettings& settings)
      : context_(context), level_(level), names_(names), kinds_(kinds), settings_(settings) {}

  void read(const Node& table) {
    const Node* id = table.find("id");
    const bool is_named = id != nullptr && id->type == Node::Type::text;
    const std::string path = is_named ? "agent." + id->text : "agent";
    if (table.type != Node::Type::table) {
      context_.faults.add(table.place, fmt::format("agent is {}; a table is needed", found(table)));
      return;
    }
    const Scope scope = this->scope();
    FieldReader reader(context_, table, path, agent_and_kind_keys(), scope);
    const Copies copies = read_copies(context_, reader, table, level_.plane);
    const Agent agent = read_one(reader, table, path);
    if (copies.count == 0) return place(agent);
    for (int number = 1; number <= copies.count; ++number) {
      const auto own = settings_.find(fmt::format("{}-{}", agent.id, number));
      if (own == settings_.end()) {
        Agent copy = agent;
        shift_copy(copy, copies, number, [](std::string_view) { return false; });
        place(std::move(copy));
      } else {
        place(changed_copy(table, copies, number, own->first, own->second));
      }
      if (level_.agents.size() > LevelLimits::agents) return;
    }
  }

 private:
  Scope scope() const {
    return {names_, level_.plane, nullptr, nullptr, level_.ground_height.value_or(0.0)};
  }

  Agent read_one(FieldReader& reader, const Node& table, const std::string& path) {
    Agent agent;
    agent.place = table.place;
    fields(reader, agent);
    if (!agent.driver && agent.track) agent.driver = Driver::track;
    if (!agent.driver && table.find("script") != nullptr) agent.driver = Driver::script;
    if (agent.track) {
      const TrackPose begin = pose_at(*agent.track, 0.0);
      agent.position = begin.place;
      agent.facing = begin.facing.value_or(agent.facing);
    }
    agent.kind = own_kind(table, path, agent.kind);
    reader.know(kind_keys());
    context_.origins[path] = table.place;
    reader.finish(broken_rules(agent));
    return agent;
  }

  // Makes a kind of its own for an agent whose table changes values of its kind, by merging the two
  // tables.
  std::uint32_t own_kind(const Node& table, const std::string& path, std::uint32_t kind) {
    Node changes;
    changes.place = table.place;
    for (const Node::Entry& entry : table.entries) {
      const std::vector<std::string>& keys = kind_keys();
      if (std::find(keys.begin(), keys.end(), entry.key) != keys.end()) {
        changes.put(entry.key, entry.value, entry.place);
      }
    }
    if (changes.entries.empty() || kind >= level_.named_kinds) return kind;
    const Node merged = merge(kinds_[kind].value, changes);
    ReadContext own;  // its origins are those of the kind, but for what the agent changes
    level_.kinds.push_back(read_kind(own, merged, kinds_[kind].key, path, names_, level_.plane));
    level_.kinds.back().place = level_.kinds[kind].place;
    keep_origins(own, path, changes);
    context_.faults.add_inherited(std::move(own.faults), path);
    return static_cast<std::uint32_t>(level_.kinds.size() - 1);
  }

  void keep_origins(const ReadContext& own, const std::string& path, const Node& changes) {
    for (const auto& [key, place] : own.origins) {
      const Node* node = &changes;
      std::size_t start = path.size() + 1;
      while (node != nullptr && start <= key.size()) {
        const std::size_t end = std::min(key.find('.', start), key.size());
        node = node->find(key.substr(start, end - start));
        start = end + 1;
      }
      if (node != nullptr) context_.origins[key] = place;
    }
  }

  Agent changed_copy(const Node& table, const Copies& copies, int number, const std::string& id,
                     const std::vector<std::pair<std::string, Node>>& changes) {
    Node changed = table;
    for (const auto& [key_path, value] : changes) put_at(changed, key_path, value);
    const std::string path = "agent." + id;
    const Scope scope = this->scope();
    FieldReader reader(context_, changed, path, agent_and_kind_keys(), scope);
    reader.know({"copies", "apart"});
    Agent copy = read_one(reader, changed, path);
    shift_copy(copy, copies, number, [&](std::string_view key) {
      return std::any_of(changes.begin(), changes.end(), [&](const auto& change) {
        return change.first.substr(0, change.first.find_first_of(".[")) == key;
      });
    });
    return copy;
  }

  void place(Agent agent) {
    if (agent.position.cwiseAbs().maxCoeff() > LevelLimits::coordinate) {
      // Only the first such copy is told; it stands for all that follow.
      if (is_beyond_) return;
      is_beyond_ = true;
      context_.faults.add(
          agent.place, fmt::format("{} comes to lie farther than {} m out; no place may", agent.id,
                                   LevelLimits::coordinate));
    }
    level_.agents.push_back(std::move(agent));
  }

  ReadContext& context_;
  Level& level_;
  const Names& names_;
  const std::vector<Node::Entry>& kinds_;
  const CopySettings& settings_;
  bool is_beyond_ = false;
};

}  // namespace

void read_agents(ReadContext& context, TableReader& top, Level& level, const Names& names,
                 const std::vector<Node::Entry>& kinds, const CopySettings& settings) {
  AgentReader reader(context, level, names, kinds, settings);
  for (const Node& table : top.items("agent", LevelLimits::agents)) {
    reader.read(table);
    if (level.agents.size() > LevelLimits::agents) {
      context.faults.add(table.place, fmt::format("more than {} agents; that many are allowed",
                                                  LevelLimits::agents));
      return;
    }
  }
}

}  // namespace gaze
