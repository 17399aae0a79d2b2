#pragma once

#include <string>
#include <vector>

namespace gaze {

struct Timing {
  double size = 0.0;
  double microseconds = 0.0;
};

/// One line of a plot.
struct Growth {
  std::string what;
  std::vector<Timing> measures;  ///< By size, ascending.
};

struct GrowthPlot {
  std::string over;  ///< What is counted along x.
  std::vector<Growth> lines;
};

/// Plots of time against size side by side, both by powers of ten: what grows as fast as its size
/// runs along the faint lines. @return The bytes of a PNG of 1280 x 800.
[[nodiscard]] std::string draw_growth(const std::vector<GrowthPlot>& plots);

}  // namespace gaze
