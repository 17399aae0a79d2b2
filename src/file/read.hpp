#pragma once

#include <map>
#include <string>
#include <vector>

#include "file/keys.hpp"
#include "file/ranges.hpp"
#include "file/table.hpp"

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

/// The parts of that: every sense, and what it does about what it perceives.
void read_senses(ReadContext& context, TableReader& reader, Kind& kind, const Names& names,
                 Plane plane);
[[nodiscard]] When read_when(ReadContext& context, const Node& table, const std::string& path,
                             const Kind& kind, const Names& names);

/// How it harms, what it carries, and what its defeat brings; attacks first.
void read_attacks(ReadContext& context, TableReader& reader, Kind& kind, const Names& names);
void read_things(ReadContext& context, TableReader& reader, Kind& kind, const Names& names);
void read_defeat(ReadContext& context, TableReader& reader, Kind& kind, const Names& names);

[[nodiscard]] Move read_move(ReadContext& context, const Node& table, const std::string& path,
                             double height, Plane plane);
[[nodiscard]] Wander read_wander(ReadContext& context, const Node& table, const std::string& path);

/// [forward, left, up]; the fallback if it is left out or wrong.
[[nodiscard]] Vector3d read_offset(TableReader& reader, const std::string& key,
                                   const Vector3d& fallback);
[[nodiscard]] SideSet read_sides(TableReader& reader);
[[nodiscard]] std::vector<std::string> read_tags(TableReader& reader, const std::string& key);

/// True if the node is a table; a fault if it is not.
bool is_table(TableReader& reader, const Node& node, const std::string& path);

/// Zones, which name agents; to be read after these.
void read_zones(ReadContext& context, TableReader& top, Level& level);

/// Links and start places.
void read_links(ReadContext& context, TableReader& top, Level& level);
void read_starts(ReadContext& context, TableReader& top, Level& level);

/// Puts agents to sleep that something wakes, until that happens.
void put_to_sleep(Level& level);

/// Gives those kinds their speeds that hop.
void set_hop_speeds(ReadContext& context, Level& level);
/// Gives those kinds their speeds whose pace is a share of another's.
void set_paces(ReadContext& context, Level& level);

/// When a round ends, and faults for kinds that leave each other behind for ever.
void read_round(ReadContext& context, TableReader& top, Level& level);
void read_bounds(ReadContext& context, TableReader& top, Level& level);
void check_leftovers(ReadContext& context, const Level& level);

/// Faults for agents and tags that kinds in play name and nobody has.
void check_references(ReadContext& context, const Level& level);

/// The keys that an agent may change of its kind.
[[nodiscard]] const std::vector<std::string>& kind_keys();

/// Plan points of `key`, which must be there; none if any is wrong.
[[nodiscard]] std::vector<Vector2d> read_plan_points(TableReader& reader, const std::string& key,
                                                     std::size_t most);
/// A point of three numbers that must be there; none, with a fault, if it is wrong.
[[nodiscard]] std::optional<Vector3d> read_point3(TableReader& reader, const std::string& key);
/// False with a fault if the points are no simple outline.
bool check_outline(TableReader& reader, const std::vector<Vector2d>& points);

[[nodiscard]] std::optional<Solid> read_solid(ReadContext& context, const Node& table,
                                              Solid::Form form, const Names& names, Plane plane,
                                              double ground_height);

/// A mesh from a file beside that of the level.
[[nodiscard]] std::optional<Solid> read_mesh(ReadContext& context, const Node& table,
                                             const Names& names, Plane plane);

/// A point of the plane: two numbers, in space three; in ground levels it lies on the ground.
[[nodiscard]] std::optional<Vector3d> read_point(TableReader& reader, const Node& node,
                                                 const std::string& path, Plane plane,
                                                 double ground_height);

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
