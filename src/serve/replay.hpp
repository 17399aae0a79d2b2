#pragma once

#include <string>

#include "serve/session.hpp"

namespace gaze::serve {

/// One file of HTML with the page and a whole play of the level in it: it needs no server and no
/// network. Plays the session to the end of the level.
[[nodiscard]] std::string replay_page(Session& session);

}  // namespace gaze::serve
