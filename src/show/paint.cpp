#include "show/paint.hpp"

#include <algorithm>
#include <cmath>
#include <span>

#include "drawing/palette.hpp"
#include "geometry/plan_grid.hpp"

namespace gaze {
namespace {

void paint_grid(Canvas& canvas, const MapView& view) {
  double step = 1.0;
  while (step * view.scale < 24.0) step *= step == 2.0 || step == 20.0 ? 2.5 : 2.0;
  const double right = view.low.x() + view.frame.width / view.scale;
  const double top = view.low.y() + view.frame.height / view.scale;
  for (double x = std::ceil(view.low.x() / step) * step; x <= right; x += step) {
    canvas.line(view({x, view.low.y()}), view({x, top}));
  }
  for (double y = std::ceil(view.low.y() / step) * step; y <= top; y += step) {
    canvas.line(view({view.low.x(), y}), view({right, y}));
  }
  canvas.stroke(kGridInk, 1.0);
}

void paint_ground(Canvas& canvas, double height, const MapView& view) {
  const double y = view({0.0, height}).y();
  const double bottom = view.frame.y + view.frame.height;
  canvas.fill_rectangle({view.frame.x, y, view.frame.width, bottom - y}, kPlate);
  canvas.line({view.frame.x, y}, {view.frame.x + view.frame.width, y});
  canvas.stroke(kInk, 2.0);
}

// Seen from the side, nothing is seen in the ground, and no blast goes into it.
void clip_to_air(Canvas& canvas, const Scene& scene, const MapView& view) {
  if (!scene.is_upright || !scene.ground_height) return;
  const double bottom = view({0.0, *scene.ground_height}).y();
  cairo_rectangle(canvas.raw(), view.frame.x, view.frame.y, view.frame.width,
                  bottom - view.frame.y);
  cairo_clip(canvas.raw());
}

bool ends_at_ground(Meaning meaning) {
  return meaning == Meaning::seen_calm || meaning == Meaning::seen_alert ||
         meaning == Meaning::field || meaning == Meaning::blast || meaning == Meaning::blast_clear;
}

// An arrow runs up what rises.
void paint_arrow_up(Canvas& canvas, const Vector2d& low, const Vector2d& high,
                    const Colour& colour) {
  const Vector2d way = high - low;
  const Vector2d tip = low + way * 0.86;
  const Vector2d back = way * (9.0 / std::sqrt(way.squaredNorm()));
  const Vector2d side{-back.y() * 0.6, back.x() * 0.6};
  canvas.line(low + way * 0.14, tip);
  canvas.line(tip, tip - back + side);
  canvas.line(tip, tip - back - side);
  canvas.stroke(colour, 1.8);
}

// Marks of one meaning that follow each other and are about the same are one stroke.
bool go_together(const Mark& a, const Mark& b) {
  return a.meaning == b.meaning && a.form == b.form && a.solid && a.solid == b.solid;
}

/// Paints the marks of a map, each in the way of its meaning.
class MarkPainter {
 public:
  MarkPainter(Canvas& canvas, const Scene& scene, const MapView& view)
      : canvas_(canvas), scene_(scene), view_(view) {}

  void paint_all() {
    const std::vector<Mark>& marks = scene_.marks;
    for (std::size_t i = 0; i < marks.size() && marks[i].form != Mark::Form::text;) {
      std::size_t end = i + 1;
      while (end < marks.size() && go_together(marks[i], marks[end])) ++end;
      cairo_save(canvas_.raw());
      if (ends_at_ground(marks[i].meaning)) clip_to_air(canvas_, scene_, view_);
      cairo_new_path(canvas_.raw());
      paint({marks.data() + i, end - i});
      cairo_restore(canvas_.raw());
      i = end;
    }
  }

 private:
  std::vector<Vector2d> points(const Mark& mark) const {
    std::vector<Vector2d> on_sheet;
    for (const Vector2d& p : mark.points) on_sheet.push_back(view_(p));
    return on_sheet;
  }
  double size(double metres) const { return metres * view_.scale; }

  void trace(std::span<const Mark> marks) {
    for (const Mark& mark : marks) {
      if (mark.form == Mark::Form::area) {
        canvas_.polygon(points(mark));
      } else {
        canvas_.line(view_(mark.points[0]), view_(mark.points[1]));
      }
    }
  }

  void paint(std::span<const Mark> marks) {
    switch (marks[0].layer) {
      case Layer::level:
        return paint_level(marks);
      case Layer::senses:
        return paint_sense(marks[0]);
      case Layer::ways:
        return marks[0].meaning == Meaning::way
                   ? paint_way(canvas_, marks[0].number, points(marks[0]))
                   : paint_trail(canvas_, marks[0].number, points(marks[0]));
      case Layer::harm:
        return paint_harm(marks[0]);
      case Layer::agents:
        return paint_agent(marks[0]);
    }
  }

  // What is walked on is pale.
  void paint_level(std::span<const Mark> marks) {
    const Mark& first = marks[0];
    const Colour colour = material_colour(first.number);
    if (first.meaning == Meaning::ground) return paint_ground(canvas_, first.points[0].y(), view_);
    if (first.meaning == Meaning::walkway_up) {
      return paint_arrow_up(canvas_, view_(first.points[0]), view_(first.points[1]), colour);
    }
    trace(marks);
    switch (first.meaning) {
      case Meaning::bounds:
        return paint_bounds(canvas_);
      case Meaning::zone:
        canvas_.set(kInk.with_opacity(0.04 + 0.16 * first.share));
        cairo_fill_preserve(canvas_.raw());
        return canvas_.stroke(kInk.with_opacity(0.55), 1.0, {3.0, 3.0});
      case Meaning::walkway:
        canvas_.set(colour.with_opacity(0.10));
        cairo_fill_preserve(canvas_.raw());
        return canvas_.stroke(colour.with_opacity(0.5), 0.8);
      case Meaning::walkway_rim:
        return canvas_.stroke(colour, 1.4, {9.0, 2.5});
      case Meaning::solid:
        return fill_as_material(canvas_, first.number, scene_.stops_sight[first.number]);
      case Meaning::solid_rim:
        return canvas_.stroke(colour, 1.4);
      default:
        return canvas_.stroke(colour.with_opacity(0.6), 1.0, {2.0, 3.0});
    }
  }

  void paint_sense(const Mark& mark) {
    const std::vector<Vector2d> at = points(mark);
    switch (mark.meaning) {
      case Meaning::seen_calm:
      case Meaning::seen_alert:
        canvas_.polygon(at);
        return paint_seen_edge(canvas_, mark.meaning == Meaning::seen_alert);
      case Meaning::field:
        canvas_.polygon(at);
        return paint_field_edge(canvas_);
      case Meaning::nearness:
      case Meaning::noise:
        return paint_ring(canvas_, mark.meaning, at[0], size(mark.radius));
      case Meaning::feeler_reach:
        return paint_feeler_reach(canvas_, at[0], at[1], size(2.0 * mark.radius), mark.share > 0.0);
      case Meaning::feeler:
      case Meaning::feeler_finds:
        return paint_feeler(canvas_, at[0], at[1], mark.meaning == Meaning::feeler_finds);
      default:
        return paint_sight_line(canvas_, mark.meaning, at[0], at[1]);
    }
  }

  void paint_harm(const Mark& mark) {
    const std::vector<Vector2d> at = points(mark);
    switch (mark.meaning) {
      case Meaning::blast:
        return paint_blast(canvas_, at[0], size(mark.radius));
      case Meaning::blast_clear:
        canvas_.polygon(at);
        return paint_blast_clear(canvas_);
      case Meaning::track:
        return paint_track(canvas_, at, size(2.0 * mark.radius));
      case Meaning::hit:
        return paint_hit(canvas_, at[0]);
      case Meaning::beam:
        return paint_beam(canvas_, at[0], at[1], size(2.0 * mark.radius));
      default:
        return paint_shot(canvas_, at[0], at[0] - at[1], size(mark.radius));
    }
  }

  void paint_agent(const Mark& mark) {
    constexpr double kLeast = 6.0;  // pixels
    const std::vector<Vector2d> at = points(mark);
    constexpr double kBeyond = 0.2;  // metres: so far the drawing has tips and rings beyond bodies
    if (mark.meaning == Meaning::facing) {
      const Vector2d way = at[1] - at[0];
      const double length = std::sqrt(way.squaredNorm());
      return paint_nose(canvas_, at[0], way / length, std::max(kLeast, length - size(kBeyond)));
    }
    if (mark.meaning == Meaning::target) {
      canvas_.disc(at[0], std::max(kLeast, size(mark.radius - kBeyond)) + 4.0);
      return canvas_.stroke(kAlert, 2.0);
    }
    const double radius = std::max(kLeast, size(mark.radius));
    const Vector2d corner{radius, radius};
    const PlanBox box =
        mark.form == Mark::Form::circle ? PlanBox{at[0] - corner, at[0] + corner} : box_around(at);
    const Vector2d middle = (box.low + box.high) / 2.0;
    const Vector2d half = ((box.high - box.low) / 2.0).cwiseMax(Vector2d{kLeast, kLeast});
    paint_body(canvas_, mark.number, middle - half, middle + half, mark.meaning == Meaning::body);
  }

  Canvas& canvas_;
  const Scene& scene_;
  const MapView& view_;
};

MapView fit(const Scene& scene, const Rectangle& frame) {
  constexpr double kMargin = 0.8;  // metres around what there is
  const Vector2d low = scene.low - Vector2d{kMargin, kMargin};
  const Vector2d size = scene.high - scene.low + 2.0 * Vector2d{kMargin, kMargin};
  MapView view;
  view.frame = frame;
  view.scale = std::min(frame.width / size.x(), frame.height / size.y());
  view.scale = std::min(view.scale, 120.0);
  const Vector2d spare = Vector2d{frame.width, frame.height} / view.scale - size;
  view.low = low - spare / 2.0;
  return view;
}

}  // namespace

Colour team_colour(std::uint32_t team) {
  return team == kNoTeam ? kInk : kTeams[team % kTeams.size()];
}

Colour material_colour(std::uint32_t material) {
  return kMaterials[material % kMaterials.size()];
}

void fill_as_material(Canvas& canvas, std::uint32_t material, bool stops_sight) {
  const Colour colour = material_colour(material);
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  canvas.set(colour.with_opacity(stops_sight ? 0.55 : 0.12));
  cairo_fill_preserve(raw);
  double x1 = 0.0, y1 = 0.0, x2 = 0.0, y2 = 0.0;
  cairo_path_extents(raw, &x1, &y1, &x2, &y2);
  cairo_clip(raw);
  const double spacing = 7.0;
  const double tall = y2 - y1;
  const auto style = material % 6;  // how the lines run
  for (double at = std::floor((x1 - tall) / spacing) * spacing; at < x2 + tall; at += spacing) {
    if (style == 0 || style == 3) canvas.line({at, y2}, {at + tall, y1});
    if (style == 1 || style == 3) canvas.line({at, y1}, {at + tall, y2});
    if (style == 4) canvas.line({at, y1}, {at, y2});
  }
  for (double at = std::floor(y1 / spacing) * spacing; at < y2 + spacing; at += spacing) {
    if (style == 5) canvas.line({x1, at}, {x2, at});
    for (double dot = std::floor(x1 / spacing) * spacing; style == 2 && dot < x2; dot += spacing) {
      canvas.disc({dot, at}, 1.2);
    }
  }
  canvas.stroke(colour, 1.0);
  cairo_restore(raw);
}

void paint_seen_edge(Canvas& canvas, bool is_alert) {
  const Colour colour = is_alert ? kAlert : kCalm;
  canvas.set(colour.with_opacity(is_alert ? 0.24 : 0.15));
  cairo_fill_preserve(canvas.raw());
  if (is_alert) {
    canvas.stroke(colour, 1.6);
  } else {
    canvas.stroke(colour, 1.1, {7.0, 3.0});
  }
}

void paint_field_edge(Canvas& canvas) {
  canvas.stroke(kFaintInk, 1.0, {1.5, 4.0});
}

void paint_feeler_reach(Canvas& canvas, const Vector2d& from, const Vector2d& to, double thickness,
                        bool finds) {
  canvas.line(from, to);
  canvas.stroke((finds ? kAlert : kCalm).with_opacity(0.25), std::max(3.0, thickness));
}

void paint_feeler(Canvas& canvas, const Vector2d& from, const Vector2d& to, bool finds) {
  const Colour colour = finds ? kAlert : kCalm;
  canvas.line(from, to);
  canvas.stroke(colour, finds ? 2.4 : 1.4);
  canvas.disc(to, finds ? 4.0 : 2.5);
  canvas.set(colour);
  cairo_fill(canvas.raw());
}

void paint_ring(Canvas& canvas, Meaning meaning, const Vector2d& middle, double radius) {
  canvas.disc(middle, radius);
  if (meaning == Meaning::nearness) return canvas.stroke(kCalm, 1.4, {2.0, 4.0});
  canvas.stroke(kShot.with_opacity(0.7), 1.6, {10.0, 4.0});
  canvas.disc(middle, 5.0);
  canvas.stroke(kShot, 1.4);
}

void paint_sight_line(Canvas& canvas, Meaning meaning, const Vector2d& from, const Vector2d& to) {
  canvas.line(from, to);
  switch (meaning) {
    case Meaning::sight_clear:
      return canvas.stroke(kAlert, 2.2);
    case Meaning::sight_outside:
      return canvas.stroke(kInk, 1.2, {8.0, 3.0, 2.0, 3.0});
    case Meaning::sight_beyond:
      return canvas.stroke(kStopped.with_opacity(0.6), 1.2, {1.0, 4.0});
    default:
      break;
  }
  canvas.stroke(kStopped, 1.6, {6.0, 3.0});
  for (const double side : {-1.0, 1.0}) {
    canvas.line(to - Vector2d{5.0, 5.0 * side}, to + Vector2d{5.0, 5.0 * side});
  }
  canvas.stroke(kStopped, 2.4);
}

void paint_body(Canvas& canvas, std::uint32_t team, const Vector2d& low, const Vector2d& high,
                bool is_alive) {
  const Vector2d middle = (low + high) / 2.0;
  const Vector2d half = (high - low) / 2.0;
  const bool is_tall = half.y() > 1.5 * half.x();
  if (is_tall || team % 4 == 2) {
    const double x = half.x();
    canvas.polygon({{low.x(), low.y()}, {middle.x() + x, low.y()}, high, {low.x(), high.y()}});
  } else if (team == kNoTeam || team % 4 == 0) {
    canvas.disc(middle, half.x());
  } else {
    canvas.polygon({middle - Vector2d{half.x() * 1.25, 0}, middle - Vector2d{0, half.y() * 1.25},
                    middle + Vector2d{half.x() * 1.25, 0}, middle + Vector2d{0, half.y() * 1.25}});
  }
  canvas.set(is_alive ? team_colour(team) : kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(is_alive ? kPaper : team_colour(team), 1.5);
  if (is_alive) return;
  canvas.line(low, high);
  canvas.line({low.x(), high.y()}, {high.x(), low.y()});
  canvas.stroke(team_colour(team), 2.0);
}

void paint_nose(Canvas& canvas, const Vector2d& middle, const Vector2d& facing, double reach) {
  const Vector2d side{-facing.y(), facing.x()};
  const Vector2d base = middle + facing * (reach * 0.1);
  canvas.polygon({base + side * (reach * 0.55), middle + facing * (reach + 7.0),
                  base - side * (reach * 0.55)});
  canvas.set(kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(kInk, 1.2);
}

void paint_bounds(Canvas& canvas) {
  canvas.stroke(kInk, 1.6, {14.0, 4.0, 2.0, 4.0, 2.0, 4.0});
}

void paint_trail(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points) {
  cairo_new_path(canvas.raw());
  for (const Vector2d& point : points) cairo_line_to(canvas.raw(), point.x(), point.y());
  canvas.stroke(team_colour(team).with_opacity(0.75), 1.8, {3.0, 3.0});
}

// A plain line to a ring at its end.
void paint_way(Canvas& canvas, std::uint32_t team, const std::vector<Vector2d>& points) {
  constexpr double kRing = 4.0;
  if (points.size() < 2) return;
  cairo_new_path(canvas.raw());
  for (const Vector2d& point : points) cairo_line_to(canvas.raw(), point.x(), point.y());
  canvas.stroke(team_colour(team).with_opacity(0.9), 1.2);
  canvas.disc(points.back(), kRing);
  canvas.set(kPaper);
  cairo_fill_preserve(canvas.raw());
  canvas.stroke(team_colour(team), 1.6);
}

void paint_map(Canvas& canvas, const Scene& scene, const MapView& view) {
  cairo_t* raw = canvas.raw();
  cairo_save(raw);
  cairo_rectangle(raw, view.frame.x, view.frame.y, view.frame.width, view.frame.height);
  cairo_clip(raw);
  paint_grid(canvas, view);
  MarkPainter(canvas, scene, view).paint_all();
  cairo_restore(raw);
}

Sheet lay_out(Canvas& canvas, const Scene& scene, bool has_legend) {
  constexpr double kTitle = 44.0;
  const double legend = has_legend ? kLegendWidth : 0.0;
  const double width = canvas.width() - legend;
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  return {{0.0, 0.0, width, kTitle},
          {width, 0.0, legend, canvas.height()},
          fit(scene, {0.0, kTitle, width, canvas.height() - kTitle})};
}

void paint_captions(Canvas& canvas, const Scene& scene, const Sheet& sheet) {
  paint_labels(canvas, scene, sheet.view);
  paint_scale_bar(canvas, sheet.view);
  paint_title(canvas, scene, sheet.title);
}

}  // namespace gaze
