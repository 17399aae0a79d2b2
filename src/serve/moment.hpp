#pragma once

#include <optional>
#include <string>
#include <vector>

#include "serve/run.hpp"

/// What is drawn of a game, as frames.
namespace gaze::serve {

/// All that moves, at the current tick.
/// @param trails  Where all have been; may be missing.
[[nodiscard]] std::string moment_frame(const Simulation& game, const TrailLog* trails);

/// What stands still, whenever it is not as it was: doors open, things break.
class GroundFrames {
 public:
  [[nodiscard]] std::optional<std::string> next(const Simulation& game);
  void forget() { is_told_ = false; }

 private:
  bool is_told_ = false;
  std::vector<bool> gone_;
};

}  // namespace gaze::serve
