#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

/// What points of a script mean, and the kinds that it may name.
struct Plan {
  Plane plane = Plane::ground;
  double ground_height = 0.0;
  const Names* names = nullptr;
};

void read_go(TableReader& reader, const Node& go, const Plan& plan, ScriptStep& step) {
  step.speed = reader.optional_number("speed");
  const auto place = read_point(reader, go, reader.path_of("go"), plan.plane, plan.ground_height);
  if (place) step.place = *place;
}

void read_noise(TableReader& reader, ScriptStep& step) {
  step.noise = reader.needed_name("noise");
  step.reach = reader.needed_number("reach");
}

void read_throw(TableReader& reader, const Node& kind, const Plan& plan, ScriptStep& step) {
  step.kind = reader.reference(kind, plan.names->kinds, "kind");
  const Node* to = reader.need("to", "a place");
  if (to == nullptr) return;
  const auto place = read_point(reader, *to, reader.path_of("to"), plan.plane, plan.ground_height);
  if (place) step.place = *place;
}

void read_aim(TableReader& reader, const Node& aim, const Plan& plan, ScriptStep& step) {
  const auto place = read_point(reader, aim, reader.path_of("aim"), plan.plane, plan.ground_height);
  if (place) step.place = *place;
  step.duration = reader.duration("fire");
  if (reader.find("attack") != nullptr) step.name = reader.needed_name("attack");
}

void read_true(TableReader& reader, const std::string& key, const Node& node) {
  if (node.type == Node::Type::boolean && node.boolean) return;
  reader.fault(node.place,
               fmt::format("{} is {}; true is allowed", reader.path_of(key), found(node)));
}

// Which of the words it holds, or what it holds instead.
std::optional<ScriptStep> fault_of_step(TableReader& reader, const Node& node,
                                        const std::string& path,
                                        const std::vector<std::string>& words) {
  std::vector<std::string> held;
  std::vector<std::string> keys;
  for (const Node::Entry& entry : node.entries) {
    keys.push_back("'" + entry.key + "'");
    const bool is_word = std::find(words.begin(), words.end(), entry.key) != words.end();
    if (is_word) held.push_back("'" + entry.key + "'");
  }
  std::string hint;
  for (const Node::Entry& entry : node.entries) {
    if (hint.empty()) hint = suggestion(entry.key, words);
  }
  const std::vector<std::string>& told = held.empty() ? keys : held;
  reader.fault(node.place,
               fmt::format("{} holds {}; exactly one is allowed of: {}{}", path,
                           told.empty() ? "nothing" : fmt::format("{}", fmt::join(told, " and ")),
                           fmt::join(words, ", "), held.empty() ? hint : ""));
  return std::nullopt;
}

std::optional<ScriptStep> read_step(ReadContext& context, const Node& node, const std::string& path,
                                    const Plan& plan) {
  static const std::vector<std::string> kWords{"go",     "wait", "face",  "noise", "quiet", "hop",
                                               "repeat", "take", "throw", "drop",  "aim"};
  TableReader reader(context, node, path, kStepKeys);
  if (!is_table(reader, node, path)) return std::nullopt;
  ScriptStep step;
  step.written = node.place;
  int given = 0;
  for (std::size_t i = 0; i < kWords.size(); ++i) {
    if (reader.find(kWords[i]) == nullptr) continue;
    step.what = static_cast<ScriptStep::What>(i);
    ++given;
  }
  if (given != 1) {
    return fault_of_step(reader, node, path, kWords);
  }
  const Node* first = node.find(kWords[static_cast<std::size_t>(step.what)]);
  if (first == nullptr) return step;
  using What = ScriptStep::What;
  if (step.what == What::go) read_go(reader, *first, plan, step);
  if (step.what == What::wait) step.duration = reader.duration("wait", 0.0);
  if (step.what == What::face) {
    step.facing = Angle::from_degrees(reader.number("face", 0.0));
  }
  if (step.what == What::noise) read_noise(reader, step);
  if (step.what == What::quiet) step.quiet = reader.truth("quiet", true);
  if (step.what == What::repeat) read_true(reader, "repeat", *first);
  if (step.what == What::hop) read_true(reader, "hop", *first);
  if (step.what == What::take) step.name = reader.needed_name("take");
  if (step.what == What::throw_) read_throw(reader, *first, plan, step);
  if (step.what == What::drop) read_true(reader, "drop", *first);
  if (step.what == What::aim) read_aim(reader, *first, plan, step);
  reader.finish();
  return step;
}

std::vector<ScriptStep> read_script(ReadContext& context, TableReader& reader, const Plan& plan) {
  std::vector<ScriptStep> script;
  const std::vector<Node>& items = reader.items("script", ReadLimits::list_items);
  for (std::size_t i = 0; i < items.size(); ++i) {
    const std::string path = fmt::format("{}[{}]", reader.path_of("script"), i + 1);
    const auto step = read_step(context, items[i], path, plan);
    if (!step) continue;
    if (step->what == ScriptStep::What::repeat && i + 1 < items.size()) {
      reader.fault(items[i].place, path + " repeats; the steps after it would never be played");
    }
    script.push_back(*step);
  }
  return script;
}

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

Driver read_driver(TableReader& reader, bool has_script) {
  const auto word = reader.word("driver");
  if (word) return static_cast<Driver>(*word);
  return has_script ? Driver::script : Driver::mind;
}

// Points, or tables of a point and what is done there: { at = POINT, wait = S, look = DEGREES }.
void read_patrol(ReadContext& context, TableReader& reader, const Plan& plan, Agent& agent) {
  for (const Node& item : reader.items("patrol", ReadLimits::list_items)) {
    const std::string path = "a point of " + reader.path_of("patrol");
    PatrolStop stop;
    std::optional<Vector3d> point;
    if (item.type == Node::Type::table) {
      TableReader table(context, item, path, kStopKeys);
      const Node* at = table.need("at", "a point");
      if (at != nullptr) point = read_point(table, *at, path, plan.plane, plan.ground_height);
      stop.wait = table.duration("wait");
      if (table.find("look") != nullptr) {
        stop.look = Angle::from_degrees(table.number("look", 0.0));
      }
      table.finish();
    } else {
      point = read_point(reader, item, path, plan.plane, plan.ground_height);
    }
    if (!point) continue;
    agent.patrol.push_back(*point);
    agent.stops.push_back(stop);
  }
}

/// How many copies there are, and how far apart; none: just the agent itself.
struct Copies {
  std::int64_t count = 0;
  Vector3d apart{0.0, 0.0, 0.0};
};

Copies read_copies(TableReader& reader, Plane plane) {
  Copies copies;
  const Node* count = reader.find("copies");
  if (count != nullptr) copies.count = reader.whole("copies");
  const Node* apart = reader.find("apart");
  if ((count == nullptr) != (apart == nullptr)) {
    reader.fault((count != nullptr ? count : apart)->place,
                 "copies and apart are given together: how many, and how far from one to the next");
  }
  if (apart != nullptr) {
    const auto step = read_point(reader, *apart, reader.path_of("apart"), plane, 0.0);
    if (step) copies.apart = *step;
  }
  return copies;
}

// Moves a copy to its place. What was given for this copy alone, as `is_set` says, stays as it was
// given.
template <typename IsSet>
void shift_copy(Agent& copy, const Copies& copies, std::int64_t number, IsSet&& is_set) {
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
    TableReader reader(context_, table, path, agent_and_kind_keys());
    Copies copies = read_copies(reader, level_.plane);
    const Agent agent = read_one(reader, table, path);
    if (copies.count == 0) return place(agent);
    for (std::int64_t number = 1; number <= copies.count; ++number) {
      const auto own = settings_.find(fmt::format("{}-{}", agent.id, number));
      if (own == settings_.end()) {
        Agent copy = agent;
        shift_copy(copy, copies, number, [](std::string_view) { return false; });
        place(std::move(copy));
      } else {
        place(changed_copy(table, copies, number, own->first, own->second));
      }
      if (level_.agents.size() > ReadLimits::agents) return;
    }
  }

 private:
  Agent read_one(TableReader& reader, const Node& table, const std::string& path) {
    const Plan plan{level_.plane, level_.ground_height.value_or(0.0), &names_};
    Agent agent;
    agent.place = table.place;
    agent.id = reader.needed_name("id");
    agent.kind = reader.reference("kind", names_.kinds, "kind");
    if (const Node* at = reader.need("at", "a place")) {
      const auto point =
          read_point(reader, *at, reader.path_of("at"), plan.plane, plan.ground_height);
      if (point) agent.position = *point;
    }
    agent.facing = reader.degrees("facing");
    read_patrol(context_, reader, plan, agent);
    agent.patrol_style = reader.word_as<PatrolStyle>("patrol_style");
    agent.script = read_script(context_, reader, plan);
    agent.driver = read_driver(reader, table.find("script") != nullptr);
    agent.is_asleep = reader.truth("asleep");
    agent.kind = own_kind(table, path, agent.kind);
    for (const std::string& key : kind_keys()) reader.find(key);
    context_.origins[path] = table.place;
    reader.finish();
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

  Agent changed_copy(const Node& table, const Copies& copies, std::int64_t number,
                     const std::string& id,
                     const std::vector<std::pair<std::string, Node>>& changes) {
    Node changed = table;
    for (const auto& [key_path, value] : changes) put_at(changed, key_path, value);
    const std::string path = "agent." + id;
    TableReader reader(context_, changed, path, agent_and_kind_keys());
    reader.find("copies");
    reader.find("apart");
    Agent copy = read_one(reader, changed, path);
    shift_copy(copy, copies, number, [&](std::string_view key) {
      return std::any_of(changes.begin(), changes.end(), [&](const auto& change) {
        return change.first.substr(0, change.first.find_first_of(".[")) == key;
      });
    });
    return copy;
  }

  void place(Agent agent) {
    if (agent.position.cwiseAbs().maxCoeff() > ReadLimits::coordinate) {
      // Only the first such copy is told; it stands for all that follow.
      if (is_beyond_) return;
      is_beyond_ = true;
      context_.faults.add(
          agent.place, fmt::format("{} comes to lie farther than {} m out; no place may", agent.id,
                                   ReadLimits::coordinate));
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
  for (const Node& table : top.items("agent", ReadLimits::agents)) {
    reader.read(table);
    if (level.agents.size() > ReadLimits::agents) {
      context.faults.add(table.place, fmt::format("more than {} agents; that many are allowed",
                                                  ReadLimits::agents));
      return;
    }
  }
}

}  // namespace gaze
