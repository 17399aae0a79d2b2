#pragma once

#include <string>

#include "serve/session.hpp"

namespace gaze::serve {

/// What a page needs to know of a level once: names, teams, materials, who can be steered, colours.
[[nodiscard]] std::string level_message(const Session& session);

/// What one agent knows of another now, each number beside its limit; without another, what it is
/// about. Empty for agents that there are not.
[[nodiscard]] std::string why_message(const Simulation& game, const std::string& agent,
                                      const std::string& other);

/// "garden_kinds.toml:12:9": files beside the level by their names alone.
[[nodiscard]] std::string place_text(const Session& session, Place place);

/// The text of the line of a file at a place; empty if it cannot be read.
[[nodiscard]] std::string line_of_file(const Place& place);

}  // namespace gaze::serve
