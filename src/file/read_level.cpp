#include <fmt/format.h>

#include <map>

#include "file/field_reader.hpp"
#include "level/spelling.hpp"
#include "values/whole.hpp"

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
    read_zones(context_, top_, names_, level_);
    read_links(context_, top_, names_, level_);
    read_starts(context_, top_, names_, level_);
    read_round(context_, top_, level_);
    read_bounds(context_, top_, names_, level_);
    read_figures(context_, top_, names_, level_);
    read_expectations(context_, top_, names_, level_);
    top_.finish();
    level_.origins = std::move(context_.origins);
    check_whole();
    return std::move(level_);
  }

 private:
  void read_basics() {
    top_.whole("format");
    level_.place = {file_, 1, 1};
    level_.name = top_.text("name", std::filesystem::path(file_).stem().string());
    for (const Key& key : kLevelKeys.keys) top_.find(std::string(key.name));
    const Scope scope{names_, level_.plane, nullptr, nullptr};
    FieldReader basics(context_, top_.table(), "", kLevelKeys, scope);
    fields(basics, level_);
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
      Material material;
      material.name = entry->key;
      const Scope scope{names_, level_.plane, nullptr, nullptr};
      FieldReader(context_, entry->value, "material." + entry->key, kMaterialKeys, scope)
          .read(material);
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
      for (const Node& item : reader.items("hostile", LevelLimits::list_items)) {
        team.hostile.push_back(reader.reference(item, names_.teams, "team"));
      }
      reader.finish();
      level_.teams.push_back(team);
    }
  }

  void read_kinds() {
    named_tables("kind");  // reports what is no kind at all
    const Node* kinds = top_.table().find("kind");
    if (kinds != nullptr && kinds->entries.size() > LevelLimits::list_items) {
      top_.fault(kinds->place, fmt::format("{} kinds; at most {} are allowed",
                                           kinds->entries.size(), LevelLimits::list_items));
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
    for (const Node& table : top_.items(key, LevelLimits::solids)) {
      if (table.type != Node::Type::table) {
        top_.fault(table.place, fmt::format("{} is {}; [[{}]] is needed", key, found(table), key));
        continue;
      }
      auto solid = read_solid(context_, table, form, names_, level_.plane);
      if (solid) level_.solids.push_back(std::move(*solid));
    }
    if (level_.solids.size() > LevelLimits::solids) {
      top_.fault(level_.solids.back().place,
                 fmt::format("more than {} solids; that many are allowed", LevelLimits::solids));
    }
  }

  void read_meshes() {
    for (const Node& table : top_.items("mesh", LevelLimits::list_items)) {
      if (!is_table(top_, table, "mesh")) continue;
      const auto solid = read_mesh(context_, table, names_, level_.plane);
      if (solid) level_.solids.push_back(*solid);
    }
  }

  // What holds for the level as a whole; what has been left out comes last.
  void check_whole() {
    for (Fault& fault : faults_of_whole(level_)) context_.faults.add(fault.place, fault.message);
    if (context_.faults.empty()) complete(level_);
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
