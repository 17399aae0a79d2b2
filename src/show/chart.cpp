#include "gaze/tools/chart.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "drawing/palette.hpp"
#include "level/numbers.hpp"
#include "show/canvas.hpp"

namespace gaze {
namespace {

constexpr std::array kLineColours{kShot, kAlert, kCalm};

/// Lays a chart out on a sheet.
class ChartPainter {
 public:
  ChartPainter(Canvas& canvas, const Chart& chart) : canvas_(canvas), chart_(chart) {
    start_ = chart.times.empty() ? 0.0 : chart.times.front();
    end_ = chart.times.empty() ? 1.0 : std::max(chart.times.back(), start_ + 1e-9);
  }

  void paint() {
    canvas_.fill_rectangle({0.0, 0.0, canvas_.width(), canvas_.height()}, kPaper);
    canvas_.font(17.0, true);
    canvas_.text({kLeft, 27.0}, chart_.title, kInk);
    const double bottom = canvas_.height() - 96.0;
    const double each =
        (bottom - kTop) / static_cast<double>(std::max<std::size_t>(1, chart_.panels.size()));
    for (std::size_t i = 0; i < chart_.panels.size(); ++i) {
      const double top = kTop + each * static_cast<double>(i);
      paint_panel(chart_.panels[i], {kLeft, top + 22.0, width(), each - 34.0});
    }
    paint_bands(bottom);
    paint_times(bottom);
    paint_marks(bottom);
  }

 private:
  static constexpr double kLeft = 84.0;
  static constexpr double kRight = 24.0;
  static constexpr double kTop = 76.0;

  double width() const { return canvas_.width() - kLeft - kRight; }
  double x_of(double seconds) const {
    return kLeft + (seconds - start_) / (end_ - start_) * width();
  }

  void paint_panel(const ChartPanel& panel, const Rectangle& area) {
    canvas_.fill_rectangle(area, kPlate.with_opacity(0.5));
    hatch_failures(panel, area);
    const auto y_of = [&](double value) {
      const double share = (value - panel.low) / (panel.high - panel.low);
      return area.y + area.height * (1.0 - std::clamp(share, 0.0, 1.0));
    };
    canvas_.font(11.5);
    for (const double share : {0.0, 0.5, 1.0}) {
      const double value = panel.low + (panel.high - panel.low) * share;
      canvas_.line({area.x, y_of(value)}, {area.x + area.width, y_of(value)});
      const std::string text = number_text(value);
      canvas_.text({area.x - canvas_.text_width(text) - 8.0, y_of(value) + 4.0}, text, kInk);
    }
    canvas_.stroke(kGridInk, 1.0);
    canvas_.font(13.0, true);
    canvas_.text({area.x, area.y - 7.0}, panel.label, kInk);
    double key_x = area.x + canvas_.text_width(panel.label) + 24.0;
    for (std::size_t i = 0; i < panel.lines.size(); ++i) {
      paint_line(panel.lines[i], i, y_of);
      key_x = paint_key(panel.lines[i], i, {key_x, area.y - 11.0});
    }
  }

  // Hatched, so that it does not rest on colour where a limit is broken.
  void hatch_failures(const ChartPanel& panel, const Rectangle& area) {
    for (std::size_t i = 0; i < panel.passes.size() && i + 1 < chart_.times.size(); ++i) {
      if (panel.passes[i]) continue;
      std::size_t last = i;
      while (last + 1 < chart_.times.size() && !panel.passes[last]) ++last;
      hatch(x_of(chart_.times[i]), x_of(chart_.times[last]), area);
      i = last;
    }
  }

  void hatch(double from, double to, const Rectangle& area) {
    cairo_t* raw = canvas_.raw();
    cairo_save(raw);
    cairo_rectangle(raw, from, area.y, to - from, area.height);
    cairo_clip(raw);
    for (double x = area.x - area.height; x < to; x += 9.0) {
      if (x + area.height < from) continue;
      canvas_.line({x, area.y + area.height}, {x + area.height, area.y});
    }
    canvas_.stroke(kStopped.with_opacity(0.35), 1.0);
    cairo_restore(raw);
  }

  template <typename YOf>
  void paint_line(const ChartLine& line, std::size_t number, const YOf& y_of) {
    bool is_begun = false;
    for (std::size_t i = 0; i < line.values.size(); ++i) {
      if (!std::isfinite(line.values[i])) {
        is_begun = false;
        continue;
      }
      const Vector2d p{x_of(chart_.times[i]), y_of(line.values[i])};
      is_begun ? cairo_line_to(canvas_.raw(), p.x(), p.y())
               : cairo_move_to(canvas_.raw(), p.x(), p.y());
      is_begun = true;
    }
    stroke(line, number);
  }

  void stroke(const ChartLine& line, std::size_t number) {
    if (line.is_limit) {
      canvas_.stroke(kStopped, 1.6, {6.0, 4.0});
    } else {
      canvas_.stroke(kLineColours[number % kLineColours.size()], 2.2,
                     number == 0 ? std::vector<double>{} : std::vector<double>{2.0, 3.0});
    }
  }

  double paint_key(const ChartLine& line, std::size_t number, const Vector2d& at) {
    canvas_.line(at, at + Vector2d{26.0, 0.0});
    stroke(line, number);
    canvas_.font(11.5);
    canvas_.text(at + Vector2d{32.0, 4.0}, line.label, kInk);
    return at.x() + 32.0 + canvas_.text_width(line.label) + 20.0;
  }

  void paint_bands(double bottom) {
    canvas_.font(11.5);
    for (std::size_t i = 0; i < chart_.bands.size(); ++i) {
      const ChartBand& band = chart_.bands[i];
      const double from = x_of(band.from);
      const double to = x_of(band.to);
      canvas_.fill_rectangle({from, bottom + 6.0, to - from, 22.0},
                             kCalm.with_opacity(i % 2 == 0 ? 0.30 : 0.14));
      canvas_.line({from, bottom + 6.0}, {from, bottom + 28.0});
      canvas_.stroke(kInk, 1.0);
      if (canvas_.text_width(band.label) + 8.0 > to - from) continue;
      canvas_.text({from + 5.0, bottom + 21.0}, band.label, kInk);
    }
    const std::string name = "mode";
    canvas_.text({kLeft - canvas_.text_width(name) - 8.0, bottom + 21.0}, name, kInk);
  }

  void paint_times(double bottom) {
    double step = 0.1;
    for (int i = 0; (end_ - start_) / step > 14.0; ++i) step *= i % 3 == 1 ? 2.5 : 2.0;
    canvas_.font(11.5);
    for (double t = std::ceil(start_ / step) * step; t <= end_ + 1e-9; t += step) {
      canvas_.line({x_of(t), bottom + 32.0}, {x_of(t), bottom + 38.0});
      const std::string text = number_text(t) + " s";
      canvas_.text({x_of(t) - canvas_.text_width(text) / 2.0, bottom + 52.0}, text, kInk);
    }
    canvas_.stroke(kInk, 1.0);
  }

  // Each label on the first of three rows that has room.
  void paint_marks(double bottom) {
    std::array<double, 3> taken{0.0, 0.0, 0.0};
    canvas_.font(11.0);
    for (const ChartMark& mark : chart_.marks) {
      const double x = x_of(mark.at);
      const double size = canvas_.text_width(mark.label);
      const double left = std::clamp(x - size / 2.0, 4.0, canvas_.width() - size - 4.0);
      const auto row =
          std::find_if(taken.begin(), taken.end(), [&](double end) { return end < left; });
      canvas_.line({x, kTop}, {x, bottom});
      canvas_.stroke(kInk.with_opacity(0.5), 1.0, {1.0, 3.0});
      if (row == taken.end()) continue;
      *row = left + size + 10.0;
      const double y = kTop - 4.0 - 13.0 * static_cast<double>(row - taken.begin());
      canvas_.rimmed_text({left, y}, mark.label, kInk);
    }
  }

  Canvas& canvas_;
  const Chart& chart_;
  double start_ = 0.0;
  double end_ = 1.0;
};

}  // namespace

std::string draw(const Chart& chart, const PictureOptions& options) {
  Canvas canvas(options);
  ChartPainter(canvas, chart).paint();
  return canvas.finish();
}

}  // namespace gaze
