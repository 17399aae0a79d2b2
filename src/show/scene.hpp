#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/drawing.hpp"
#include "gaze/tools/picture.hpp"

/// What a picture shows: the marks of a drawing, and what a sheet of paper says about them.
namespace gaze {

struct Scene {
  std::string title;
  std::string moment;
  bool is_upright = false;
  std::optional<double> ground_height;
  Vector2d low{0.0, 0.0};  ///< What is to be shown at least.
  Vector2d high{0.0, 0.0};
  std::vector<std::string> materials;  ///< "brick: sight, bodies, shots, sound", by index.
  std::vector<bool> stops_sight;       ///< By material.
  std::vector<bool> material_in_use;
  std::vector<std::string> teams;
  std::vector<Mark> marks;  ///< In the order in which they are drawn.

  bool has(Meaning meaning) const;
};

/// The scene with the chosen layers, and with trails and tracks where there are any.
[[nodiscard]] Scene make_scene(const Simulation& simulation, const Trails& trails,
                               Layers layers = Layers::all());

}  // namespace gaze
