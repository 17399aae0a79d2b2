#pragma once

#include <string>
#include <vector>

#include "gaze/drawing.hpp"
#include "serve/run.hpp"

namespace gaze::serve {

/// What is otherwise than in the play before, up to where both have been played: a line for each
/// sort of event that comes at another time, more or less often, or no longer; and for figures.
[[nodiscard]] std::vector<std::string> changes(const Past& before, const Run& now);

/// Where all were at a tick of the play before.
[[nodiscard]] std::vector<Mark> ghost_marks(const Past& before, std::int64_t tick);

/// Where all have been in the last seconds.
void add_trails(std::vector<Mark>& marks, const Simulation& game, const TrailLog& trails);

}  // namespace gaze::serve
