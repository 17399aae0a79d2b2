#include <fmt/format.h>

#include "drawing/palette.hpp"
#include "gaze/tools/picture.hpp"
#include "show/paint.hpp"

/// Two runs in one picture.
namespace gaze {
namespace {

// Played to the moment, or to the end of the run if that is sooner.
Scene scene_at(const Level& level, double seconds, const std::string& name) {
  Simulation game(level);
  Trails trails(game);
  trails.add(game);
  const std::int64_t last = std::min(nearest_tick(seconds, level.ticks_per_second),
                                     nearest_tick(level.seconds, level.ticks_per_second));
  while (game.tick() < last) {
    game.step();
    trails.add(game);
  }
  Scene scene = make_scene(game, trails);
  scene.title = name;
  return scene;
}

void paint_run(Canvas& canvas, const Scene& scene, const Rectangle& area) {
  canvas.begin_part(area);
  const Sheet sheet = lay_out(canvas, scene, false);
  paint_map(canvas, scene, sheet.view);
  paint_captions(canvas, scene, sheet);
  canvas.end_part();
}

}  // namespace

// One above the other where the level is wide, else side by side; one legend serves both.
std::string draw_both(const Level& one, const Level& other, double seconds,
                      const std::array<std::string, 2>& names, const PictureOptions& options) {
  Canvas canvas(options);
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  const Scene first = scene_at(one, seconds, names[0]);
  const Scene second = scene_at(other, seconds, names[1]);
  const double width = canvas.width() - kLegendWidth;
  const double height = canvas.height();
  const Vector2d size = first.high - first.low;
  const bool is_wide = size.x() * height > size.y() * width;
  const Rectangle part{0.0, 0.0, is_wide ? width : width / 2.0, is_wide ? height / 2.0 : height};
  paint_run(canvas, first, part);
  paint_run(canvas, second,
            {is_wide ? 0.0 : part.width, is_wide ? part.height : 0.0, part.width, part.height});
  if (is_wide) {
    canvas.line({0.0, part.height}, {width, part.height});
  } else {
    canvas.line({part.width, 0.0}, {part.width, height});
  }
  canvas.stroke(kFaintInk, 1.0);
  paint_legend(canvas, first, {width, 0.0, kLegendWidth, height});
  return canvas.finish();
}

}  // namespace gaze
