#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "drawing/palette.hpp"
#include "gaze/tools/chart.hpp"
#include "gaze/tools/figures.hpp"
#include "level/numbers.hpp"
#include "show/canvas.hpp"

/// Figures over values that were varied: lines, and maps.
namespace gaze {
namespace {

constexpr double kLeftMargin = 104.0;
constexpr double kRightMargin = 36.0;
constexpr double kTopMargin = 58.0;
constexpr double kBottomMargin = 62.0;
constexpr double kSmall = 11.5;

/// The numbers that a figure comes to, and how they are shown.
struct Scale {
  double low = std::numeric_limits<double>::infinity();
  double high = -low;
  bool is_none = false;  ///< There is no number.
  bool is_one = false;   ///< There is but one, or none.

  void add(double value) {
    low = std::min(low, value);
    high = std::max(high, value);
  }
  // One number alone lies in the middle.
  void widen() {
    is_none = !(low <= high);
    if (is_none) low = high = 0.0;
    is_one = low == high;
    const double more = is_one ? std::max(1.0, std::abs(low)) * 0.5 : 0.0;
    low -= more;
    high += more;
  }
  double share(double value) const { return (value - low) / (high - low); }
};

void cross_out(Canvas& canvas, const Rectangle& area) {
  canvas.line({area.x + 3.0, area.y + 3.0},
              {area.x + area.width - 3.0, area.y + area.height - 3.0});
  canvas.line({area.x + 3.0, area.y + area.height - 3.0},
              {area.x + area.width - 3.0, area.y + 3.0});
  canvas.stroke(kFaintInk, 1.0);
}

void text_centred(Canvas& canvas, const Vector2d& baseline, const std::string& text,
                  const Colour& colour = kInk) {
  canvas.text(baseline - Vector2d{canvas.text_width(text) / 2.0, 0.0}, text, colour);
}

// Every value, or as many as have room, the first and the last among them.
std::size_t label_step(std::size_t count, double room, double each) {
  const double fits = std::max(1.0, std::floor(room / each));
  return static_cast<std::size_t>(std::ceil(static_cast<double>(count) / fits));
}

/// One panel a figure, one above the other: the median as a line, the middle half as a band.
class LinePainter {
 public:
  LinePainter(Canvas& canvas, const Variation& variation)
      : canvas_(canvas), variation_(variation), axis_(variation.axes[0]) {}

  void paint() {
    const auto count = static_cast<double>(variation_.figures.size());
    const double height = (canvas_.height() - kTopMargin - kBottomMargin) / count;
    for (std::size_t f = 0; f < variation_.figures.size(); ++f) {
      const double top = kTopMargin + height * static_cast<double>(f);
      paint_panel(f, {kLeftMargin, top + 24.0, canvas_.width() - kLeftMargin - kRightMargin,
                      height - 40.0});
    }
    paint_values();
  }

 private:
  // Numbers at their places, words evenly.
  double x_of(std::size_t value) const {
    const double width = canvas_.width() - kLeftMargin - kRightMargin;
    const auto last = static_cast<double>(axis_.values.size() - 1);
    if (axis_.values.size() == 1) return kLeftMargin + width / 2.0;
    if (axis_.numbers.empty()) return kLeftMargin + width * static_cast<double>(value) / last;
    const double low = axis_.numbers.front();
    return kLeftMargin + width * (axis_.numbers[value] - low) / (axis_.numbers.back() - low);
  }
  double x_of_number(double number) const {
    const double low = axis_.numbers.front();
    const double width = canvas_.width() - kLeftMargin - kRightMargin;
    return kLeftMargin + width * (number - low) / (axis_.numbers.back() - low);
  }

  void paint_panel(std::size_t f, const Rectangle& area) {
    const Figure& figure = variation_.figures[f];
    std::vector<Spread> spreads;
    Scale scale;
    for (const VaryPoint& point : variation_.points) {
      spreads.push_back(spread_of(point.values[f]));
      if (spreads.back().some == 0) continue;
      scale.add(spreads.back().low);
      scale.add(spreads.back().high);
      scale.add(spreads.back().median);
    }
    scale.widen();
    const bool has_jumps = std::any_of(variation_.jumps.begin(), variation_.jumps.end(),
                                       [&](const Jump& jump) { return jump.figure == f; });
    const double used = has_jumps ? 0.68 : 0.88;  // the rest is for their labels
    const auto y_of = [&](double value) {
      return area.y + area.height * (1.0 - 0.06 - used * scale.share(value));
    };
    canvas_.fill_rectangle(area, kPlate.with_opacity(0.5));
    if (!scale.is_none) paint_scale(figure, scale, area, y_of);
    paint_band(spreads, y_of);
    paint_median(f, spreads, y_of);
    paint_none(spreads, area);
    paint_jumps(f, area);
    canvas_.font(13.0, true);
    canvas_.text({area.x, area.y - 8.0}, figure.name, kInk);
    const double after = area.x + canvas_.text_width(figure.name) + 14.0;
    canvas_.font(kSmall);
    canvas_.text({after, area.y - 8.0}, describe(figure), kFaintInk.with_opacity(0.75));
  }

  template <typename YOf>
  void paint_scale(const Figure& figure, const Scale& scale, const Rectangle& area,
                   const YOf& y_of) {
    canvas_.font(kSmall);
    for (const double share : {0.0, 0.5, 1.0}) {
      if (scale.is_one && share != 0.5) continue;
      const double value = scale.low + (scale.high - scale.low) * share;
      canvas_.line({area.x, y_of(value)}, {area.x + area.width, y_of(value)});
      const std::string text = figure_text(figure, value);
      canvas_.text({area.x - canvas_.text_width(text) - 8.0, y_of(value) + 4.0}, text, kInk);
    }
    canvas_.stroke(kGridInk, 1.0);
  }

  // Over each stretch of neighbours that have a number.
  template <typename Visit>
  void each_stretch(const std::vector<Spread>& spreads, Visit&& visit) const {
    for (std::size_t i = 0; i < spreads.size(); ++i) {
      if (spreads[i].some == 0) continue;
      std::size_t last = i;
      while (last + 1 < spreads.size() && spreads[last + 1].some > 0) ++last;
      visit(i, last);
      i = last;
    }
  }

  template <typename YOf>
  void paint_band(const std::vector<Spread>& spreads, const YOf& y_of) {
    if (variation_.runs == 1) return;
    each_stretch(spreads, [&](std::size_t first, std::size_t last) {
      std::vector<Vector2d> corners;
      for (std::size_t i = first; i <= last; ++i) {
        corners.push_back({x_of(variation_.points[i].at[0]), y_of(spreads[i].low)});
      }
      for (std::size_t i = last + 1; i-- > first;) {
        corners.push_back({x_of(variation_.points[i].at[0]), y_of(spreads[i].high)});
      }
      canvas_.polygon(corners);
      canvas_.set(kCalm.with_opacity(0.30));
      cairo_fill(canvas_.raw());
    });
  }

  // Through both sides of each jump, so that it stands as steep as it is.
  template <typename YOf>
  void paint_median(std::size_t f, const std::vector<Spread>& spreads, const YOf& y_of) {
    each_stretch(spreads, [&](std::size_t first, std::size_t last) {
      for (std::size_t i = first; i < last; ++i) {
        Vector2d at{x_of(variation_.points[i].at[0]), y_of(spreads[i].median)};
        for (const Jump& jump : variation_.jumps) {
          const bool is_here = jump.figure == f && jump.before && jump.after &&
                               jump.from >= axis_.numbers[variation_.points[i].at[0]] &&
                               jump.to <= axis_.numbers[variation_.points[i + 1].at[0]];
          if (!is_here) continue;
          const Vector2d from{x_of_number(jump.from), y_of(*jump.before)};
          const Vector2d to{x_of_number(jump.to), y_of(*jump.after)};
          canvas_.line(at, from);
          canvas_.line(from, to);
          at = to;
        }
        canvas_.line(at, {x_of(variation_.points[i + 1].at[0]), y_of(spreads[i + 1].median)});
      }
    });
    canvas_.stroke(kInk, 2.0);
    for (std::size_t i = 0; i < spreads.size(); ++i) {
      if (spreads[i].some == 0) continue;
      canvas_.disc({x_of(variation_.points[i].at[0]), y_of(spreads[i].median)}, 3.2);
      canvas_.set(kInk);
      cairo_fill(canvas_.raw());
    }
  }

  // Where there was no number in any run there is a cross at the bottom, in some a ring.
  void paint_none(const std::vector<Spread>& spreads, const Rectangle& area) {
    bool any = false;
    for (std::size_t i = 0; i < spreads.size(); ++i) {
      if (spreads[i].some == spreads[i].runs) continue;
      any = true;
      const Vector2d at{x_of(variation_.points[i].at[0]), area.y + area.height - 9.0};
      if (spreads[i].some == 0) {
        cross_out(canvas_, {at.x() - 7.0, at.y() - 7.0, 14.0, 14.0});
      } else {
        canvas_.disc(at, 3.5);
        canvas_.stroke(kFaintInk, 1.4);
      }
    }
    if (!any) return;
    canvas_.font(10.5);
    const std::string text = "x none   o none in some runs";
    canvas_.rimmed_text({area.x + area.width - canvas_.text_width(text) - 6.0, area.y + 14.0}, text,
                        kInk);
  }

  // All lines before the labels, so that none is drawn through another's label. Each label on the
  // first of three rows that has room.
  void paint_jumps(std::size_t f, const Rectangle& area) {
    const auto x_of = [&](const Jump& jump) { return x_of_number((jump.from + jump.to) / 2.0); };
    for (const Jump& jump : variation_.jumps) {
      if (jump.figure != f) continue;
      canvas_.line({x_of(jump), area.y}, {x_of(jump), area.y + area.height});
      canvas_.stroke(kStopped, 1.4, {6.0, 4.0});
    }
    canvas_.font(10.5);
    std::array<double, 3> taken{0.0, 0.0, 0.0};
    for (const Jump& jump : variation_.jumps) {
      if (jump.figure != f) continue;
      const double x = x_of(jump);
      const std::string text = fmt::format("{} to {}", jump.from, jump.to);
      const double width = canvas_.text_width(text);
      const bool is_far = x + width + 12.0 > area.x + area.width;
      const double left = is_far ? x - width - 5.0 : x + 5.0;
      const auto row =
          std::find_if(taken.begin(), taken.end(), [&](double end) { return end < left; });
      if (row == taken.end()) continue;
      *row = left + width + 8.0;
      const double y = area.y + 14.0 + 14.0 * static_cast<double>(row - taken.begin());
      canvas_.rimmed_text({left, y}, text, kStopped);
    }
  }

  void paint_values() {
    const double y = canvas_.height() - kBottomMargin + 2.0;
    canvas_.font(kSmall);
    double widest = 24.0;
    for (const std::string& value : axis_.values) {
      widest = std::max(widest, canvas_.text_width(value) + 14.0);
    }
    const double width = canvas_.width() - kLeftMargin - kRightMargin;
    const std::size_t step = label_step(axis_.values.size(), width, widest);
    for (std::size_t i = 0; i < axis_.values.size(); ++i) {
      canvas_.line({x_of(i), y - 12.0}, {x_of(i), y - 7.0});
      if (i % step == 0) text_centred(canvas_, {x_of(i), y + 6.0}, axis_.values[i]);
    }
    canvas_.stroke(kInk, 1.0);
    canvas_.font(13.0, true);
    text_centred(canvas_, {kLeftMargin + width / 2.0, y + 30.0}, axis_.path);
    canvas_.font(kSmall);
    std::string text =
        variation_.runs == 1
            ? ""
            : fmt::format("line: median of {} runs; band: the middle half", variation_.runs);
    if (!variation_.jumps.empty()) {
      text += fmt::format("{}dashed: it jumps between these values", text.empty() ? "" : "; ");
    }
    canvas_.text({kLeftMargin, y + 48.0}, text, kInk);
  }

  Canvas& canvas_;
  const Variation& variation_;
  const Axis& axis_;
};

/// A map a figure, side by side: darker for more, none crossed out.
class MapPainter {
 public:
  MapPainter(Canvas& canvas, const Variation& variation)
      : canvas_(canvas),
        variation_(variation),
        across_(variation.axes[1]),
        up_(variation.axes[0]) {}

  void paint() {
    const auto count = static_cast<double>(variation_.figures.size());
    const double each = canvas_.width() / count;
    for (std::size_t f = 0; f < variation_.figures.size(); ++f) {
      const double left = each * static_cast<double>(f) + kLeftMargin;
      paint_map(f, {left, kTopMargin + 40.0, each - kLeftMargin - kScale,
                    canvas_.height() - kTopMargin - kBottomMargin - 44.0});
    }
  }

 private:
  static constexpr double kScale = 118.0;  // room for the scale, pixels

  static Colour shade(double share) {
    const auto mix = [&](double paper, double ink) { return paper + (ink - paper) * share; };
    return {mix(0.98, 0.10), mix(0.96, 0.21), mix(0.90, 0.26)};
  }

  void paint_map(std::size_t f, const Rectangle& area) {
    const Figure& figure = variation_.figures[f];
    Scale scale;
    for (const VaryPoint& point : variation_.points) {
      const Spread spread = spread_of(point.values[f]);
      if (spread.some > 0) scale.add(spread.median);
    }
    scale.widen();
    for (const VaryPoint& point : variation_.points) {
      paint_cell(spread_of(point.values[f]), scale, cell_of(area, point));
    }
    canvas_.font(14.0, true);
    canvas_.text({area.x, area.y - 24.0}, figure.name, kInk);
    canvas_.font(kSmall);
    const std::string what =
        describe(figure) +
        (variation_.runs > 1 ? fmt::format(", median of {} runs", variation_.runs) : std::string());
    canvas_.text({area.x, area.y - 8.0}, what, kInk);
    paint_scale(figure, scale, area);
    paint_axes(area);
  }

  Rectangle cell_of(const Rectangle& area, const VaryPoint& point) const {
    const double width = area.width / static_cast<double>(across_.values.size());
    const double height = area.height / static_cast<double>(up_.values.size());
    const auto row = static_cast<double>(up_.values.size() - 1 - point.at[0]);
    return {area.x + width * static_cast<double>(point.at[1]), area.y + height * row, width,
            height};
  }

  void paint_cell(const Spread& spread, const Scale& scale, const Rectangle& cell) {
    if (spread.some == 0) {
      canvas_.fill_rectangle(cell, kPaper);
      return cross_out(canvas_, cell);
    }
    const double share = scale.share(spread.median);
    canvas_.fill_rectangle({cell.x, cell.y, cell.width + 0.5, cell.height + 0.5}, shade(share));
    canvas_.font(10.5);
    const std::string text = number_text(spread.median);
    if (canvas_.text_width(text) + 6.0 > cell.width || cell.height < 15.0) return;
    text_centred(canvas_, {cell.x + cell.width / 2.0, cell.y + cell.height / 2.0 + 4.0}, text,
                 share > 0.5 ? kPaper : kInk);
  }

  void paint_scale(const Figure& figure, const Scale& scale, const Rectangle& area) {
    constexpr int kSteps = 40;
    const Rectangle bar{area.x + area.width + 14.0, area.y, 16.0, area.height * 0.6};
    for (int i = 0; i < kSteps; ++i) {
      const double share = (i + 0.5) / kSteps;
      canvas_.fill_rectangle({bar.x, bar.y + bar.height * (1.0 - share) - bar.height / kSteps / 2.0,
                              bar.width, bar.height / kSteps + 0.5},
                             shade(share));
    }
    canvas_.font(kSmall);
    for (const double share : {0.0, 0.5, 1.0}) {
      const double value = scale.low + (scale.high - scale.low) * share;
      canvas_.text({bar.x + bar.width + 6.0, bar.y + bar.height * (1.0 - share) + 4.0},
                   figure_text(figure, value), kInk);
    }
    const Rectangle none{bar.x, bar.y + bar.height + 22.0, 16.0, 16.0};
    cross_out(canvas_, none);
    canvas_.text({none.x + 22.0, none.y + 12.0}, "none", kInk);
  }

  void paint_axes(const Rectangle& area) {
    canvas_.font(kSmall);
    double widest = 24.0;
    for (const std::string& value : across_.values) {
      widest = std::max(widest, canvas_.text_width(value) + 12.0);
    }
    const std::size_t step = label_step(across_.values.size(), area.width, widest);
    for (std::size_t i = 0; i < across_.values.size(); i += step) {
      const Rectangle cell = cell_of(area, {{0, i}, {}});
      text_centred(canvas_, {cell.x + cell.width / 2.0, area.y + area.height + 17.0},
                   across_.values[i]);
    }
    const std::size_t up_step = label_step(up_.values.size(), area.height, 15.0);
    for (std::size_t i = 0; i < up_.values.size(); i += up_step) {
      const Rectangle cell = cell_of(area, {{i, 0}, {}});
      const std::string& text = up_.values[i];
      canvas_.text({area.x - canvas_.text_width(text) - 7.0, cell.y + cell.height / 2.0 + 4.0},
                   text, kInk);
    }
    canvas_.font(12.0, true);
    text_centred(canvas_, {area.x + area.width / 2.0, area.y + area.height + 40.0}, across_.path);
    cairo_t* raw = canvas_.raw();
    cairo_save(raw);
    cairo_translate(raw, area.x - 66.0, area.y + area.height / 2.0);
    cairo_rotate(raw, -M_PI / 2.0);
    text_centred(canvas_, {0.0, 0.0}, up_.path);
    cairo_restore(raw);
  }

  Canvas& canvas_;
  const Variation& variation_;
  const Axis& across_;
  const Axis& up_;
};

}  // namespace

std::string draw(const Variation& variation, const PictureOptions& options) {
  Canvas canvas(options);
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  canvas.font(17.0, true);
  std::string title = "over " + variation.axes[0].path;
  if (variation.axes.size() == 2) title += " and " + variation.axes[1].path;
  canvas.text({24.0, 30.0}, "What figures come to " + title, kInk);
  if (variation.axes.size() == 1) {
    LinePainter(canvas, variation).paint();
  } else {
    MapPainter(canvas, variation).paint();
  }
  return canvas.finish();
}

}  // namespace gaze
