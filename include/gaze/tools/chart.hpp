#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/tools/picture.hpp"
#include "gaze/tools/vary.hpp"

/// Plots of numbers over time.
GAZE_PUBLIC_BEGIN
namespace gaze {

struct ChartLine {
  std::string label;
  std::vector<double> values;  ///< One for each time.
  bool is_limit = false;       ///< Drawn as what others are held against: dashed.
};

struct ChartPanel {
  std::string label;  ///< With its unit.
  double low = 0.0;
  double high = 1.0;
  std::vector<ChartLine> lines;
  std::vector<bool> passes;  ///< By time: where it fails the panel is hatched. May be empty.
};

/// A stretch of time with a name: a mode.
struct ChartBand {
  double from = 0.0;
  double to = 0.0;
  std::string label;
};

struct ChartMark {
  double at = 0.0;
  std::string label;
};

struct Chart {
  std::string title;
  std::vector<double> times;  ///< Seconds, in order.
  std::vector<ChartPanel> panels;
  std::vector<ChartBand> bands;
  std::vector<ChartMark> marks;
};

/// Figures over a value that was varied, a panel for each: the median, and a band for the middle
/// half of the runs; or over two values a map for each, dark for much, with the numbers in it where
/// there is room. What is none is crossed out. @return As below.
[[nodiscard]] std::string draw(const Variation& variation, const PictureOptions& options = {});

/// Panels one above the other over one axis of time, bands below, marks through all.
/// @return The bytes of a PNG or SVG file. Throws std::runtime_error if Cairo fails.
[[nodiscard]] std::string draw(const Chart& chart, const PictureOptions& options = {});

}  // namespace gaze
GAZE_PUBLIC_END
