#pragma once

#include <memory>

#include "gaze/tools/figures.hpp"

namespace gaze {

/// Takes one figure from a run.
class Measuring {
 public:
  virtual ~Measuring() = default;
  virtual void add(const Simulation& simulation) = 0;
  [[nodiscard]] virtual FigureValue value() const = 0;
};

[[nodiscard]] std::unique_ptr<Measuring> measuring(const Figure& figure, const Level& level);

}  // namespace gaze
