#pragma once

#include <span>
#include <string>
#include <vector>

#include "gaze/drawing.hpp"

namespace gaze::serve {

/// What the shapes of a frame are.
enum class FrameOf : std::uint8_t {
  level = 1,    ///< What stands still: solids, zones, bounds.
  moment = 2,   ///< All that moves, at a tick.
  ghost = 3,    ///< Where all were at that tick in the play before.
  overlay = 4,  ///< What is laid over the level: a mesh, or what attacks reach.
};

/// Shapes as bytes, for the page: docs/page-protocol.md has their form. Lengths are rounded to
/// millimetres.
[[nodiscard]] std::string frame_bytes(FrameOf what, std::int64_t tick, std::span<const Mark> marks);

}  // namespace gaze::serve
