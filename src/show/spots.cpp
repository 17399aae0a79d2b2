#include <fmt/format.h>

#include <algorithm>

#include "drawing/palette.hpp"
#include "show/paint.hpp"

namespace gaze {
namespace {

constexpr int kClasses = 5;  // seen by 0, 1, 2, 3, and more

int class_of(const SpotPicture& spots, std::size_t spot) {
  return std::min<int>(spots.seen_by[spot], kClasses - 1);
}

/// Fills the current path in the manner of a class: more lines for more lookers.
void fill_class(Canvas& canvas, int which, const Rectangle& area) {
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  const double strength = 0.10 + 0.13 * which;
  canvas.set(which == 0 ? kStopped.with_opacity(0.10) : kAlert.with_opacity(strength));
  cairo_fill_preserve(raw);
  cairo_clip(raw);
  const double tall = area.height;
  const double right = area.x + area.width;
  const auto slanted = [&](double spacing, bool rising) {
    for (double x = area.x - tall; x < right; x += spacing) {
      canvas.line({x, rising ? area.y + tall : area.y},
                  {x + tall, rising ? area.y : area.y + tall});
    }
  };
  if (which == 0) slanted(11.0, false);
  if (which >= 2) slanted(16.0 / which, true);
  if (which >= 4) slanted(5.0, false);
  canvas.stroke(which == 0 ? kStopped.with_opacity(0.55) : kInk.with_opacity(0.28), 0.8);
  cairo_restore(raw);
}

// Runs of spots of one class in a row, as one rectangle each.
void class_path(Canvas& canvas, const SpotPicture& spots, const MapView& view, int which) {
  const SpotGrid& grid = spots.grid;
  for (int row = 0; row < grid.rows; ++row) {
    for (int column = 0; column < grid.columns; ++column) {
      const auto is_it = [&](int at) {
        const std::size_t spot = grid.index(at, row);
        return spots.is_free[spot] != 0 && class_of(spots, spot) == which;
      };
      if (!is_it(column)) continue;
      int end = column;
      while (end < grid.columns && is_it(end)) ++end;
      const Vector2d low = view(grid.low + Vector2d{column * grid.size, row * grid.size});
      const double size = grid.size * view.scale;
      cairo_rectangle(canvas.raw(), low.x(), low.y() - size, size * (end - column), size);
      column = end;
    }
  }
}

// By how many a place is seen if all spots about it are seen by as many.
void paint_numbers(Canvas& canvas, const SpotPicture& spots, const Scene& scene,
                   const MapView& view) {
  // Agents, and what is written beside them, take their room first.
  const auto is_taken = [&](const Vector2d& at) {
    return std::any_of(scene.marks.begin(), scene.marks.end(), [&](const Mark& mark) {
      if (mark.form != Mark::Form::text || mark.meaning != Meaning::body) return false;
      const Vector2d way = view(mark.points[0]) - at;
      return std::abs(way.x()) < 130.0 && std::abs(way.y()) < 30.0;
    });
  };
  const SpotGrid& grid = spots.grid;
  const int about = std::max(1, static_cast<int>(14.0 / (grid.size * view.scale)));
  const int apart = std::max(3, static_cast<int>(74.0 / (grid.size * view.scale)));
  canvas.font(12.0, true);
  for (int row = apart / 2; row < grid.rows; row += apart) {
    for (int column = apart / 2; column < grid.columns; column += apart) {
      const auto same = [&](int c, int r) {
        if (c < 0 || r < 0 || c >= grid.columns || r >= grid.rows) return false;
        return spots.is_free[grid.index(c, r)] != 0 &&
               spots.seen_by[grid.index(c, r)] == spots.seen_by[grid.index(column, row)];
      };
      bool is_even = true;
      for (int c = -about; c <= about; ++c) {
        for (int r = -about; r <= about; ++r) is_even = is_even && same(column + c, row + r);
      }
      if (!is_even) continue;
      const std::size_t spot = grid.index(column, row);
      if (spots.seen_by[spot] == 0) continue;  // its colour says so
      std::string text = fmt::format("{}", spots.seen_by[spot]);
      if (!spots.seen_time.empty()) {
        text += fmt::format(" · {:.0f} %", spots.seen_time[spot] * 100.0);
      }
      const Vector2d at = view(grid.middle(column, row));
      if (is_taken(at)) continue;
      canvas.rimmed_text(at + Vector2d{-canvas.text_width(text) / 2, 4.0}, text, kInk);
    }
  }
}

void paint_spots(Canvas& canvas, const SpotPicture& spots, const MapView& view) {
  for (int which = 0; which < kClasses; ++which) {
    class_path(canvas, spots, view, which);
    fill_class(canvas, which, view.frame);
  }
}

void paint_spot_legend(Canvas& canvas, const SpotPicture& spots, const Rectangle& frame) {
  canvas.fill_rectangle(frame, kPlate);
  double y = frame.y + 16.0;
  canvas.font(12.5, true);
  canvas.text({frame.x + 14.0, y + 12.0}, spots.heading, kInk);
  y += 26.0;
  const int classes = std::min(kClasses, static_cast<int>(spots.classes.size()));
  for (int which = 0; which < classes; ++which) {
    const Rectangle swatch{frame.x + 14.0, y, 34.0, 16.0};
    cairo_rectangle(canvas.raw(), swatch.x, swatch.y, swatch.width, swatch.height);
    fill_class(canvas, which, swatch);
    cairo_rectangle(canvas.raw(), swatch.x, swatch.y, swatch.width, swatch.height);
    canvas.stroke(kInk, 1.0);
    canvas.font(11.5);
    canvas.text({frame.x + 58.0, y + 12.0}, spots.classes[static_cast<std::size_t>(which)], kInk);
    y += 24.0;
  }
  if (!spots.seen_time.empty()) {
    canvas.text({frame.x + 14.0, y + 14.0}, "2 · 43 %: by two, for 43 % of the run", kInk);
    y += 24.0;
  }
  y += 10.0;
  for (const std::string& line : spots.numbers) {
    if (y > frame.y + frame.height - 20.0) return;
    canvas.text({frame.x + 14.0, y + 12.0}, line, kInk);
    y += 17.0;
  }
}

}  // namespace

std::string draw(const Simulation& simulation, const SpotPicture& spots,
                 const PictureOptions& options) {
  Scene scene = make_scene(simulation, Trails(simulation), Layer::level | Layer::agents);
  if (!spots.seen_time.empty()) scene.moment = "over the run";
  Canvas canvas(options);
  const Sheet sheet = lay_out(canvas, scene);
  paint_spots(canvas, spots, sheet.view);
  paint_map(canvas, scene, sheet.view);
  paint_numbers(canvas, spots, scene, sheet.view);
  paint_captions(canvas, scene, sheet);
  paint_spot_legend(canvas, spots, sheet.legend);
  return canvas.finish();
}

}  // namespace gaze
