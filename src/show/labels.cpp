#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "drawing/palette.hpp"
#include "level/numbers.hpp"
#include "show/paint.hpp"

namespace gaze {
namespace {

/// Finds room for texts beside what they name, without covering each other.
class LabelPlacer {
 public:
  explicit LabelPlacer(const Rectangle& frame) : frame_(frame) {}

  void keep_free(const Rectangle& area) { taken_.push_back(area); }

  // The first free place around a point, `away` pixels from it, for lines of text.
  // @return Its top left corner, or nothing if all are taken.
  std::optional<Vector2d> place(const Vector2d& point, double away, double width, double height) {
    const std::array<Vector2d, 8> places{
        Vector2d{away, -height / 2},        {-away - width, -height / 2},
        {-width / 2, -away - height},       {-width / 2, away},
        {away * 0.7, -away * 0.7 - height}, {-away * 0.7 - width, -away * 0.7 - height},
        {away * 0.7, away * 0.7},           {-away * 0.7 - width, away * 0.7}};
    for (const Vector2d& offset : places) {
      const Rectangle area{point.x() + offset.x(), point.y() + offset.y(), width, height};
      if (!is_free(area)) continue;
      taken_.push_back(area);
      return Vector2d{area.x, area.y};
    }
    return std::nullopt;
  }

  // The first free place farther off, for what is named with a line to it.
  std::optional<Vector2d> place_apart(const Vector2d& point, double away, double width,
                                      double height) {
    constexpr int kDirections = 16;
    for (const double farther : {20.0, 45.0, 75.0, 110.0}) {
      for (int i = 0; i < kDirections; ++i) {
        const SineCosine way = sine_cosine(Angle::from_degrees(i * 360.0 / kDirections));
        const Vector2d middle = point + Vector2d{way.cosine * (away + farther + width / 2.0),
                                                 way.sine * (away + farther + height / 2.0)};
        if (take_centred(middle, width, height)) {
          return Vector2d{middle.x() - width / 2.0, middle.y() - height / 2.0};
        }
      }
    }
    return std::nullopt;
  }

  bool take_centred(const Vector2d& middle, double width, double height) {
    const Rectangle area{middle.x() - width / 2, middle.y() - height / 2, width, height};
    if (!is_free(area)) return false;
    taken_.push_back(area);
    return true;
  }

 private:
  bool is_free(const Rectangle& area) const {
    const bool inside = area.x >= frame_.x && area.y >= frame_.y &&
                        area.x + area.width <= frame_.x + frame_.width &&
                        area.y + area.height <= frame_.y + frame_.height;
    return inside && std::none_of(taken_.begin(), taken_.end(),
                                  [&](const Rectangle& other) { return other.overlaps(area); });
  }

  Rectangle frame_;
  std::vector<Rectangle> taken_;
};

double half_size(const Mark& words, const MapView& view) {
  return std::max(6.0, words.radius * view.scale);
}

std::vector<std::string> lines_of(const std::string& text) {
  std::vector<std::string> lines;
  for (std::size_t at = 0; at <= text.size();) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    lines.push_back(text.substr(at, end - at));
    at = end + 1;
  }
  return lines;
}

// A line from what is named to the nearest point of its label.
void line_to(Canvas& canvas, const Vector2d& place, const Rectangle& label) {
  const Vector2d nearest{std::clamp(place.x(), label.x, label.x + label.width),
                         std::clamp(place.y(), label.y, label.y + label.height)};
  canvas.line(place, nearest);
  canvas.stroke(kInk.with_opacity(0.6), 0.9);
}

void label_agent(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  const std::vector<std::string> lines = lines_of(words.text);
  canvas.font(13.0, true);
  double width = canvas.text_width(lines[0]);
  canvas.font(12.0);
  for (std::size_t i = 1; i < lines.size(); ++i) {
    width = std::max(width, canvas.text_width(lines[i]));
  }
  width += 4.0;
  const double height = 3.0 + 14.0 * double(lines.size());
  const Vector2d place = view(words.points[0]);
  const double away = half_size(words, view) + 12.0;
  auto corner = placer.place(place, away, width, height);
  if (!corner) {
    corner = placer.place_apart(place, away, width, height);
    if (!corner) return;
    line_to(canvas, place, {corner->x(), corner->y(), width, height});
  }
  canvas.font(13.0, true);
  canvas.rimmed_text(*corner + Vector2d{2.0, 12.0}, lines[0], team_colour(words.number));
  canvas.font(12.0);
  for (std::size_t i = 1; i < lines.size(); ++i) {
    canvas.rimmed_text(*corner + Vector2d{2.0, 13.0 + 14.0 * double(i)}, lines[i], kInk);
  }
}

void label_line(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  canvas.font(11.5);
  const double width = canvas.text_width(words.text) + 4.0;
  const Vector2d from = view(words.points[0]);
  const Vector2d to = view(words.points[1]);
  if ((to - from).norm() < 70.0) return;
  for (const double share : {0.5, 0.4, 0.6, 0.3, 0.7}) {
    const auto corner = placer.place(from + (to - from) * share, 6.0, width, 14.0);
    if (!corner) continue;
    canvas.rimmed_text(*corner + Vector2d{2.0, 11.0}, words.text, kInk);
    return;
  }
}

void label_solid(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  canvas.font(11.0);
  const double width = canvas.text_width(words.text) + 4.0;
  const Vector2d middle = view(words.points[0]);
  if (2.0 * words.radius * view.scale > 20.0) {
    if (!placer.take_centred(middle, width, 14.0)) return;
    canvas.rimmed_text(middle + Vector2d{2.0 - width / 2, 4.0}, words.text, kInk);
    return;
  }
  auto corner = placer.place(middle, 10.0, width, 14.0);
  if (!corner) {
    corner = placer.place_apart(middle, 10.0, width, 14.0);
    if (!corner) return;
    line_to(canvas, middle, {corner->x(), corner->y(), width, 14.0});
  }
  canvas.rimmed_text(*corner + Vector2d{2.0, 11.0}, words.text, kInk);
}

void label_zone(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  canvas.font(11.0);
  const double width = canvas.text_width(words.text) + 4.0;
  const Vector2d middle = view(words.points[0]);
  if (!placer.take_centred(middle, width, 14.0)) return;
  canvas.rimmed_text(middle + Vector2d{2.0 - width / 2, 4.0}, words.text, kInk);
}

// Puts the label of a ring at its upper right, or wherever there is room.
void label_ring(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  canvas.font(11.0);
  const double width = canvas.text_width(words.text) + 4.0;
  const auto corner = placer.place(view(words.points[0]), 9.0, width, 14.0);
  if (corner) canvas.rimmed_text(*corner + Vector2d{2.0, 11.0}, words.text, kShot);
}

void label(Canvas& canvas, LabelPlacer& placer, const Mark& words, const MapView& view) {
  switch (words.meaning) {
    case Meaning::body:
      return label_agent(canvas, placer, words, view);
    case Meaning::noise:
    case Meaning::blast:
      return label_ring(canvas, placer, words, view);
    case Meaning::zone:
      return label_zone(canvas, placer, words, view);
    case Meaning::solid:
    case Meaning::walkway:
      return label_solid(canvas, placer, words, view);
    default:
      return label_line(canvas, placer, words, view);
  }
}

}  // namespace

void paint_labels(Canvas& canvas, const Scene& scene, const MapView& view) {
  LabelPlacer placer(view.frame);
  placer.keep_free({view.frame.x, view.frame.y + view.frame.height - 44.0, 240.0, 44.0});
  std::vector<const Mark*> texts;
  for (const Mark& mark : scene.marks) {
    if (mark.form == Mark::Form::text) texts.push_back(&mark);
  }
  for (const Mark* words : texts) {
    if (words->meaning != Meaning::body) continue;
    const Vector2d middle = view(words->points[0]);
    const double half = half_size(*words, view) + 3.0;
    placer.keep_free({middle.x() - half, middle.y() - half, 2 * half, 2 * half});
  }
  for (const Mark* words : texts) label(canvas, placer, *words, view);
}

void paint_scale_bar(Canvas& canvas, const MapView& view) {
  double metres = 1.0;
  while (metres * view.scale < 80.0) {
    const double leading = metres / std::pow(10.0, std::floor(std::log10(metres) + 1e-9));
    metres *= leading > 1.5 && leading < 3.0 ? 2.5 : 2.0;
  }
  while (metres * view.scale > 220.0) metres /= 2.0;
  const double length = metres * view.scale;
  const Vector2d start{view.frame.x + 16.0, view.frame.y + view.frame.height - 18.0};
  for (int part = 0; part < 4; ++part) {
    const Rectangle bar{start.x() + length * part / 4, start.y() - 5.0, length / 4, 5.0};
    canvas.fill_rectangle(bar, part % 2 == 0 ? kInk : kPaper);
  }
  cairo_rectangle(canvas.raw(), start.x(), start.y() - 5.0, length, 5.0);
  canvas.stroke(kInk, 1.0);
  canvas.font(12.0);
  canvas.rimmed_text(start + Vector2d{length + 8.0, 1.0}, worded("{} m", metres), kInk);
}

}  // namespace gaze
