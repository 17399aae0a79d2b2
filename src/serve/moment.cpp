#include "serve/moment.hpp"

#include "gaze/drawing.hpp"
#include "serve/changes.hpp"
#include "serve/frame.hpp"

namespace gaze::serve {

std::string moment_frame(const Simulation& game, const TrailLog* trails) {
  constexpr double kTolerance = 0.02;  // metres: less than a pixel
  const Layers layers = Layer::senses | Layer::ways | Layers(Layer::harm) | Layers(Layer::agents);
  std::vector<Mark> marks = drawing(game, layers, kTolerance);
  if (trails != nullptr) add_trails(marks, game, *trails);
  return frame_bytes(FrameOf::moment, game.tick(), marks);
}

std::optional<std::string> GroundFrames::next(const Simulation& game) {
  std::vector<bool> gone;
  for (std::uint32_t i = 0; i < game.level().solids.size(); ++i) {
    gone.push_back(game.world().is_gone({i}));
  }
  if (is_told_ && gone == gone_) return std::nullopt;
  is_told_ = true;
  gone_ = std::move(gone);
  return frame_bytes(FrameOf::level, game.tick(), drawing(game, Layer::level));
}

}  // namespace gaze::serve
