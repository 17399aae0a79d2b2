#include <fmt/format.h>

#include "gaze/tools/picture.hpp"
#include "show/paint.hpp"
#include "show/palette.hpp"

/// Two runs in one picture.
namespace gaze {
namespace {

// Plays to the moment, or to the end of the run if that is sooner.
void paint_run(Canvas& canvas, const Level& level, double seconds, const std::string& name) {
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
  const Sheet sheet = lay_out(canvas, scene);
  paint_map(canvas, scene, sheet.view);
  paint_captions(canvas, scene, sheet);
  paint_legend(canvas, scene, sheet.legend);
}

}  // namespace

std::string draw_both(const Level& one, const Level& other, double seconds,
                      const std::array<std::string, 2>& names, const PictureOptions& options) {
  Canvas canvas(options);
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  const double half = canvas.width() / 2.0;
  const double height = canvas.height();
  canvas.begin_part({0.0, 0.0, half, height});
  paint_run(canvas, one, seconds, names[0]);
  canvas.end_part();
  canvas.begin_part({half, 0.0, half, height});
  paint_run(canvas, other, seconds, names[1]);
  canvas.end_part();
  canvas.line({half, 12.0}, {half, height - 12.0});
  canvas.stroke(kFaintInk, 1.0);
  return canvas.finish();
}

}  // namespace gaze
