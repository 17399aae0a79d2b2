#pragma once

#include <map>
#include <string>
#include <vector>

#include "file/table.hpp"
#include "values/keys.hpp"
#include "values/ranges.hpp"

namespace gaze {

/// Names defined so far, by what they name.
struct Names {
  std::vector<std::string> materials;
  std::vector<std::string> teams;
  std::vector<std::string> kinds;
};

/// Reads the values of a kind from a table in which `like` has been resolved.
[[nodiscard]] Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
                             const std::string& path, const Names& names, Plane plane);

/// What it does about what it perceives.
struct Scope;
[[nodiscard]] When read_when(ReadContext& context, const Node& table, const std::string& path,
                             const Scope& scope);

/// True if the node is a table; a fault if it is not.
bool is_table(TableReader& reader, const Node& node, const std::string& path);

/// Zones name agents and are read after these.
void read_zones(ReadContext& context, TableReader& top, const Names& names, Level& level);
void read_links(ReadContext& context, TableReader& top, const Names& names, Level& level);
void read_starts(ReadContext& context, TableReader& top, const Names& names, Level& level);
void read_round(ReadContext& context, TableReader& top, Level& level);
void read_bounds(ReadContext& context, TableReader& top, const Names& names, Level& level);
void read_figures(ReadContext& context, TableReader& top, const Names& names, Level& level);
void read_expectations(ReadContext& context, TableReader& top, const Names& names, Level& level);

/// The keys that an agent may change of its kind.
[[nodiscard]] const std::vector<std::string>& kind_keys();

[[nodiscard]] std::optional<Solid> read_solid(ReadContext& context, const Node& table,
                                              Solid::Form form, const Names& names, Plane plane);

/// "wall.hedge", or "wall" alone without an id.
[[nodiscard]] std::string path_by_id(const Node& table, std::string_view what);

/// A mesh from a file beside that of the level.
[[nodiscard]] std::optional<Solid> read_mesh(ReadContext& context, const Node& table,
                                             const Names& names, Plane plane);

/// Settings for single copies of an agent, by the copy's id: key paths and values.
using CopySettings = std::map<std::string, std::vector<std::pair<std::string, Node>>>;

/// Puts the settings into the tree of a file. What belongs to one copy of an agent is returned.
[[nodiscard]] CopySettings apply_settings(Node& root, const std::vector<Setting>& settings,
                                          Faults& faults);

/// Writes a value below a table by its key path "a.b.c".
void put_at(Node& table, std::string_view path, const Node& value);

/// Adds teams, materials and kinds of the included files to the tree.
void include_files(Node& root, const std::string& file, Faults& faults);

/// The table of each kind with what it is `like` merged in; in the order of the file.
[[nodiscard]] std::vector<Node::Entry> resolve_kinds(const Node& root, Faults& faults);

/// Everything about placed agents.
void read_agents(ReadContext& context, TableReader& top, Level& level, const Names& names,
                 const std::vector<Node::Entry>& kinds, const CopySettings& settings);

}  // namespace gaze
