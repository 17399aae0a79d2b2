#include "growth_plot.hpp"

#include <algorithm>
#include <cmath>

#include "show/canvas.hpp"

namespace gaze {
namespace {

constexpr double kRoomForNames = 170.0;  // right of each plot
constexpr double kDecades = 10.0;        // up, from 0.01 us
constexpr double kLowest = -2.0;

const std::vector<std::string> kTimes{"10 ns", "100 ns", "1 us", "10 us", "100 us", "1 ms",
                                      "10 ms", "100 ms", "1 s",  "10 s",  "100 s"};

class PlotPainter {
 public:
  PlotPainter(Canvas& canvas, const GrowthPlot& plot, const Rectangle& area)
      : canvas_(canvas), plot_(plot), area_(area) {
    for (const Growth& line : plot.lines) {
      low_ = std::min(low_, std::log10(line.measures.front().size));
      high_ = std::max(high_, std::log10(line.measures.back().size));
    }
  }

  void paint() {
    canvas_.fill_rectangle(area_, kPlate.with_opacity(0.5));
    paint_scales();
    paint_linear();
    std::vector<double> taken;
    for (std::size_t i = 0; i < plot_.lines.size(); ++i) paint_line(i, taken);
  }

 private:
  Vector2d at(double size_log, double time_log) const {
    return {area_.x + area_.width * (size_log - low_) / (high_ - low_),
            area_.y + area_.height * (1.0 - (time_log - kLowest) / kDecades)};
  }
  Vector2d at(const Timing& measure) const {
    return at(std::log10(measure.size), std::log10(measure.microseconds));
  }

  void paint_scales() {
    canvas_.font(12.0);
    for (std::size_t i = 0; i < kTimes.size(); ++i) {
      const double time = kLowest + static_cast<double>(i);
      canvas_.line(at(low_, time), at(high_, time));
      canvas_.text(at(low_, time) + Vector2d{-canvas_.text_width(kTimes[i]) - 8.0, 4.0}, kTimes[i],
                   kInk);
    }
    for (double size = low_; size < high_ + 0.5; size += 1.0) {
      canvas_.line(at(size, kLowest), at(size, kLowest + kDecades));
      const std::string text = std::to_string(std::lround(std::pow(10.0, size)));
      canvas_.text(at(size, kLowest) + Vector2d{-canvas_.text_width(text) / 2.0, 18.0}, text, kInk);
    }
    canvas_.stroke(kGridInk, 1.0);
    canvas_.font(14.0, true);
    canvas_.text({area_.x, area_.y - 12.0}, "time over " + plot_.over, kInk);
  }

  // Ten times the size, ten times the time.
  void paint_linear() {
    for (double start = kLowest - (high_ - low_); start < kLowest + kDecades; start += 1.0) {
      const double from = std::max(start, kLowest);
      const double to = std::min(start + high_ - low_, kLowest + kDecades);
      canvas_.line(at(low_ + from - start, from), at(low_ + to - start, to));
    }
    canvas_.stroke(kFaintInk.with_opacity(0.18), 1.0, {3.0, 4.0});
  }

  void paint_line(std::size_t number, std::vector<double>& taken) {
    const Growth& line = plot_.lines[number];
    const Colour& colour = kMaterials[number % kMaterials.size()];
    for (std::size_t i = 1; i < line.measures.size(); ++i) {
      canvas_.line(at(line.measures[i - 1]), at(line.measures[i]));
    }
    canvas_.stroke(colour, 2.2);
    for (const Timing& measure : line.measures) {
      canvas_.disc(at(measure), 3.4);
      canvas_.set(colour);
      cairo_fill(canvas_.raw());
    }
    canvas_.font(12.5, true);
    Vector2d name = at(line.measures.back()) + Vector2d{10.0, 4.0};
    const auto is_near = [&](double other) { return std::abs(other - name.y()) < 15.0; };
    while (std::any_of(taken.begin(), taken.end(), is_near)) name.y() += 1.0;
    taken.push_back(name.y());
    canvas_.text(name, line.what, colour);
  }

  Canvas& canvas_;
  const GrowthPlot& plot_;
  Rectangle area_;
  double low_ = 1e9;
  double high_ = -1e9;
};

}  // namespace

std::string draw_growth(const std::vector<GrowthPlot>& plots) {
  Canvas canvas({PictureFormat::png, 1280, 800});
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  const double each = canvas.width() / static_cast<double>(plots.size());
  for (std::size_t i = 0; i < plots.size(); ++i) {
    const double left = each * static_cast<double>(i) + 68.0;
    PlotPainter(canvas, plots[i], {left, 60.0, each - 68.0 - kRoomForNames, 680.0}).paint();
  }
  canvas.font(12.0);
  canvas.text({68.0, 784.0}, "Dotted: ten times the size, ten times the time.", kInk);
  return canvas.finish();
}

}  // namespace gaze
