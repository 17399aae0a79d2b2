#include <algorithm>
#include <cmath>

#include "show/paint.hpp"
#include "show/palette.hpp"

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

// A track: as wide as what flew there, with a cross where it met something.
void paint_track(Canvas& canvas, const TrackShape& track, const MapView& view) {
  cairo_t* raw = canvas.raw();
  cairo_new_path(raw);
  for (const Vector2d& point : track.points) {
    const Vector2d at = view(point);
    cairo_line_to(raw, at.x(), at.y());
  }
  cairo_save(raw);
  cairo_set_line_join(raw, CAIRO_LINE_JOIN_ROUND);
  cairo_path_t* path = cairo_copy_path(raw);
  canvas.stroke(kShot.with_opacity(0.18), std::max(4.0, 2.0 * track.radius * view.scale));
  cairo_append_path(raw, path);
  cairo_path_destroy(path);
  canvas.stroke(kShot.with_opacity(0.7), 1.0);
  cairo_restore(raw);
  for (const Vector2d& hit : track.hits) paint_hit(canvas, view(hit));
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

// A blast: its disc is hatched, and the part that nothing shields is filled.
void paint_blast(Canvas& canvas, const BlastShape& blast, const MapView& view) {
  const Vector2d middle = view(blast.clear.eye);
  const double radius = blast.clear.range * view.scale;
  canvas.disc(middle, radius);
  fill_shadow(canvas, middle, radius);
  if (!blast.clear.edges.empty()) {
    area_path(canvas, blast.clear, false, view);
    canvas.set(kPaper);
    cairo_fill_preserve(canvas.raw());
    canvas.set(kStopped.with_opacity(0.25));
    cairo_fill_preserve(canvas.raw());
    canvas.stroke(kStopped, 1.6);
  }
  canvas.disc(middle, radius);
  canvas.stroke(kStopped, 1.8, {1.0, 3.0});
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
