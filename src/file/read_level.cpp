#include <fmt/format.h>

#include <map>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

/// Reads the parts of a level in the order in which they name each other.
class LevelReader {
 public:
  LevelReader(ReadContext& context, const Node& root, const std::string& file,
              const CopySettings& settings)
      : context_(context), top_(context, root, "", kLevelKeys), file_(file), settings_(settings) {}

  Level read() {
    read_basics();
    read_materials();
    read_teams();
    read_kinds();
    read_solids("wall", Solid::Form::wall);
    read_solids("block", Solid::Form::block);
    read_solids("floor", Solid::Form::floor);
    read_solids("ramp", Solid::Form::ramp);
    read_solids("stairs", Solid::Form::stairs);
    read_solids("door", Solid::Form::door);
    read_meshes();
    read_agents(context_, top_, level_, names_, kinds_, settings_);
    read_zones(context_, top_, level_);
    read_links(context_, top_, level_);
    read_starts(context_, top_, level_);
    read_round(context_, top_, level_);
    read_bounds(context_, top_, level_);
    put_to_sleep(level_);
    top_.finish();
    check_ids();
    level_.origins = std::move(context_.origins);
    set_hop_speeds(context_, level_);
    set_paces(context_, level_);
    check_references(context_, level_);
    check_leftovers(context_, level_);
    return std::move(level_);
  }

 private:
  void read_basics() {
    top_.whole("format");
    level_.place = {file_, 1, 1};
    level_.name = top_.text("name", std::filesystem::path(file_).stem().string());
    const auto plane = top_.word("plane");
    level_.plane = static_cast<Plane>(plane.value_or(0));
    level_.ticks_per_second = static_cast<int>(top_.whole("ticks_per_second"));
    level_.seconds = top_.number("seconds");
    level_.seed = static_cast<std::uint64_t>(top_.whole("seed"));
    level_.gravity = top_.number("gravity");
    const Node* ground = top_.table().find("ground_height");
    if (ground != nullptr && ground->type == Node::Type::boolean && !ground->boolean) {
      top_.find("ground_height");
      level_.ground_height.reset();
    } else {
      level_.ground_height = top_.number("ground_height");
    }
    for (const std::string& name : top_.names("include")) static_cast<void>(name);
  }

  // The named tables of one sort, each with a name that can be a name.
  std::vector<const Node::Entry*> named_tables(const std::string& key) {
    std::vector<const Node::Entry*> tables;
    const Node* node = top_.find(key);
    if (node == nullptr) return tables;
    if (node->type != Node::Type::table) {
      top_.fault(node->place, fmt::format("{} is {}; [{}.NAME] is needed", key, found(*node), key));
      return tables;
    }
    for (const Node::Entry& entry : node->entries) {
      if (!is_name(entry.key)) {
        top_.fault(entry.place,
                   fmt::format("{} '{}' is no name; letters, digits, _ and - are allowed", key,
                               entry.key));
      } else if (entry.value.type != Node::Type::table) {
        top_.fault(entry.value.place, fmt::format("{}.{} is {}; a table is needed", key, entry.key,
                                                  found(entry.value)));
      } else {
        tables.push_back(&entry);
      }
    }
    return tables;
  }

  void read_materials() {
    for (const Node::Entry* entry : named_tables("material")) {
      TableReader reader(context_, entry->value, "material." + entry->key, kMaterialKeys);
      Material material;
      material.name = entry->key;
      reader.need("stops", "a list");
      for (const std::size_t thing : reader.words("stops", "thing to stop called")) {
        material.stops.set(thing);
      }
      material.muffles = reader.number("muffles");
      reader.finish();
      if (material.name == "brick") {
        level_.materials.front() = material;
      } else {
        level_.materials.push_back(material);
      }
    }
    for (const Material& material : level_.materials) names_.materials.push_back(material.name);
  }

  void read_teams() {
    const auto tables = named_tables("team");
    for (const Node::Entry* entry : tables) names_.teams.push_back(entry->key);
    for (const Node::Entry* entry : tables) {
      TableReader reader(context_, entry->value, "team." + entry->key, kTeamKeys);
      Team team{entry->key, {}, entry->value.place};
      for (const Node& item : reader.items("hostile", ReadLimits::list_items)) {
        team.hostile.push_back(reader.reference(item, names_.teams, "team"));
      }
      reader.finish();
      level_.teams.push_back(team);
    }
  }

  void read_kinds() {
    named_tables("kind");  // reports what is no kind at all
    const Node* kinds = top_.table().find("kind");
    if (kinds != nullptr && kinds->entries.size() > ReadLimits::list_items) {
      top_.fault(kinds->place, fmt::format("{} kinds; at most {} are allowed",
                                           kinds->entries.size(), ReadLimits::list_items));
      return;
    }
    kinds_ = resolve_kinds(top_.table(), context_.faults);
    for (const Node::Entry& entry : kinds_) names_.kinds.push_back(entry.key);
    for (const Node::Entry& entry : kinds_) {
      ReadContext own;
      const std::string path = "kind." + entry.key;
      level_.kinds.push_back(read_kind(own, entry.value, entry.key, path, names_, level_.plane));
      context_.origins.merge(own.origins);
      context_.faults.add_inherited(std::move(own.faults), path);
    }
    level_.named_kinds = level_.kinds.size();
  }

  void read_solids(const std::string& key, Solid::Form form) {
    for (const Node& table : top_.items(key, ReadLimits::solids)) {
      if (table.type != Node::Type::table) {
        top_.fault(table.place, fmt::format("{} is {}; [[{}]] is needed", key, found(table), key));
        continue;
      }
      const auto solid = read_solid(context_, table, form, names_, level_.plane,
                                    level_.ground_height.value_or(0.0));
      if (solid) level_.solids.push_back(*solid);
    }
    if (level_.solids.size() > ReadLimits::solids) {
      top_.fault(level_.solids.back().place,
                 fmt::format("more than {} solids; that many are allowed", ReadLimits::solids));
    }
  }

  void read_meshes() {
    for (const Node& table : top_.items("mesh", ReadLimits::list_items)) {
      if (!is_table(top_, table, "mesh")) continue;
      const auto solid = read_mesh(context_, table, names_, level_.plane);
      if (solid) level_.solids.push_back(*solid);
    }
  }

  void check_ids() {
    std::map<std::string, Place> known;
    const auto check = [&](const std::string& id, const Place& place) {
      if (id.empty()) return;  // reported already
      const auto [it, is_new] = known.try_emplace(id, place);
      if (is_new) return;
      top_.fault(place, fmt::format("the id '{}' is taken by what stands at {}:{}:{}", id,
                                    it->second.file, it->second.line, it->second.column));
    };
    for (const Solid& solid : level_.solids) check(solid.id, solid.place);
    for (const Zone& zone : level_.zones) check(zone.id, zone.place);
    for (const Link& link : level_.links) check(link.id, link.place);
    for (const Start& start : level_.starts) check(start.id, start.place);
    for (const Agent& agent : level_.agents) check(agent.id, agent.place);
  }

  ReadContext& context_;
  TableReader top_;
  const std::string& file_;
  const CopySettings& settings_;
  Level level_;
  Names names_;
  std::vector<Node::Entry> kinds_;
};

Level read_text_level(ReadContext& context, std::string_view text, const std::string& name,
                      const std::vector<Setting>& settings) {
  auto root = parse_toml(text, name, context.faults);
  Level level;
  if (root) {
    include_files(*root, name, context.faults);
    const CopySettings copies = apply_settings(*root, settings, context.faults);
    level = LevelReader(context, *root, name, copies).read();
  }
  if (!context.faults.empty()) throw LevelError(context.faults.take());
  return level;
}

}  // namespace

Level read_level(const std::filesystem::path& file, const std::vector<Setting>& settings) {
  ReadContext context;
  const auto text = read_text(file, context.faults);
  if (!text) throw LevelError(context.faults.take());
  return read_text_level(context, *text, file.string(), settings);
}

Level read_level_text(std::string_view text, const std::string& name,
                      const std::vector<Setting>& settings) {
  ReadContext context;
  return read_text_level(context, text, name, settings);
}

}  // namespace gaze
