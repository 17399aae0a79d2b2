#include <algorithm>
#include <cmath>

#include "drawing/palette.hpp"
#include "show/paint.hpp"

/// Shots, their tracks and hits, beams and blasts.
namespace gaze {

void paint_shot(Canvas& canvas, const Vector2d& place, const Vector2d& direction, double radius) {
  const double length = std::sqrt(direction.squaredNorm());
  if (length > 0.0) {
    canvas.line(place - direction * (22.0 / length), place);
    canvas.stroke(kShot, 2.0);
  }
  canvas.disc(place, std::max(radius, 3.5));
  canvas.set(kShot);
  cairo_fill(canvas.raw());
}

// A beam: two lines as far apart as it is thick, and a star where it falls.
void paint_beam(Canvas& canvas, const Vector2d& from, const Vector2d& to, double thickness) {
  canvas.line(from, to);
  canvas.stroke(kShot.with_opacity(0.25), std::max(thickness, 6.0));
  canvas.line(from, to);
  canvas.stroke(kShot, 1.6);
  for (const Vector2d& ray : {Vector2d{7, 0}, Vector2d{0, 7}, Vector2d{5, 5}, Vector2d{5, -5}}) {
    canvas.line(to - ray, to + ray);
    canvas.stroke(kShot, 1.4);
  }
}

// A track: as wide as what flew there.
void paint_track(Canvas& canvas, const std::vector<Vector2d>& points, double thickness) {
  cairo_t* raw = canvas.raw();
  cairo_set_line_join(raw, CAIRO_LINE_JOIN_ROUND);
  const auto trace = [&] {
    for (const Vector2d& point : points) cairo_line_to(raw, point.x(), point.y());
  };
  trace();
  canvas.stroke(kShot.with_opacity(0.18), std::max(4.0, thickness));
  trace();
  canvas.stroke(kShot.with_opacity(0.7), 1.0);
}

void paint_hit(Canvas& canvas, const Vector2d& place) {
  for (const Vector2d& arm : {Vector2d{4.5, 4.5}, Vector2d{4.5, -4.5}}) {
    canvas.line(place - arm, place + arm);
  }
  canvas.stroke(kPaper, 4.0);
  for (const Vector2d& arm : {Vector2d{4.5, 4.5}, Vector2d{4.5, -4.5}}) {
    canvas.line(place - arm, place + arm);
  }
  canvas.stroke(kShot, 1.8);
}

void paint_blast(Canvas& canvas, const Vector2d& middle, double radius) {
  canvas.disc(middle, radius);
  fill_shadow(canvas, middle, radius);
  canvas.disc(middle, radius);
  canvas.stroke(kStopped, 1.8, {1.0, 3.0});
}

void paint_blast_clear(Canvas& canvas) {
  canvas.set(kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.set(kStopped.with_opacity(0.25));
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(kStopped, 1.6);
}

void fill_shadow(Canvas& canvas, const Vector2d& middle, double radius) {
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  canvas.set(kInk.with_opacity(0.06));
  cairo_fill_preserve(raw);
  cairo_clip(raw);
  constexpr double kSpacing = 6.0;
  for (double at = -2.0 * radius; at < 2.0 * radius; at += kSpacing) {
    canvas.line(middle + Vector2d{at - radius, radius}, middle + Vector2d{at + radius, -radius});
  }
  canvas.stroke(kInk.with_opacity(0.35), 0.8);
  cairo_restore(raw);
}

}  // namespace gaze
