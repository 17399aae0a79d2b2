#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"

/// What can stand in a level file, for editors, for people and for the command line. All of it
/// comes from the list of keys that the reader goes by.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// A JSON schema (draft 7) of level files as JSON, for editors that check and complete TOML by one.
/// It knows every key, type and range; that names exist, outlines are simple and the like is for
/// `read_level` to say. Values of a kind may come from another that it is like: none of them is
/// asked for.
[[nodiscard]] std::string level_schema();

/// All tables and keys as Markdown: a list of contents, then each table with its keys, what else
/// there is to know of them, and an example. The examples one after the other are one level.
[[nodiscard]] std::string level_reference();

/// The examples of the reference, one after the other.
[[nodiscard]] std::string level_example();

/// How the path of a setting may go on ("kind.pru", "kind.pruner.sight."), as whole paths in the
/// order of the reference; those that lead on end in a dot.
[[nodiscard]] std::vector<std::string> complete_path(const Level& level, std::string_view text);

}  // namespace gaze
GAZE_PUBLIC_END
