#pragma once

#include <map>
#include <string>
#include <vector>

#include "file/table.hpp"

namespace gaze {

/// Numbers that several keys share.
inline constexpr Allowed kCoordinate{-ReadLimits::coordinate, ReadLimits::coordinate, "m"};
inline constexpr Allowed kSize{0.0, 1000.0, "m", true};
inline constexpr Allowed kOffset{-1000.0, 1000.0, "m"};
inline constexpr Allowed kSeconds{0.0, 86'400.0, "s"};

/// Names defined so far, by what they name.
struct Names {
  std::vector<std::string> materials;
  std::vector<std::string> teams;
  std::vector<std::string> kinds;
};

/// Reads the values of a kind from a table in which `like` has been resolved.
[[nodiscard]] Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
                             const std::string& path, const Names& names);

/// The keys of an agent that are its own; all others are values of its kind.
[[nodiscard]] const std::vector<std::string>& agent_keys();
/// The keys that an agent may change of its kind.
[[nodiscard]] const std::vector<std::string>& kind_keys();

[[nodiscard]] std::optional<Solid> read_solid(ReadContext& context, const Node& table,
                                              Solid::Form form, const Names& names, Plane plane,
                                              double ground_height);

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
