#include "gaze/picture.hpp"

#include "show/paint.hpp"
#include "show/palette.hpp"

namespace gaze {

Trails::Trails(const Simulation& simulation) : positions_(simulation.agent_count()) {}

void Trails::add(const Simulation& simulation) {
  for (std::uint32_t i = 0; i < positions_.size(); ++i) {
    const Vector3d position = simulation.state({i}).position;
    // Standing still leaves no trail, however long.
    if (positions_[i].empty() || positions_[i].back() != position)
      positions_[i].push_back(position);
  }
}

std::string draw(const Simulation& simulation, const Trails& trails,
                 const PictureOptions& options) {
  constexpr double kTitle = 44.0;
  constexpr double kLegend = 268.0;
  const Scene scene = make_scene(simulation, trails);
  Canvas canvas(options);
  canvas.fill_rectangle({0.0, 0.0, canvas.width(), canvas.height()}, kPaper);
  const MapView view =
      fit(scene, {0.0, kTitle, canvas.width() - kLegend, canvas.height() - kTitle});
  paint_map(canvas, scene, view);
  paint_labels(canvas, scene, view);
  paint_scale_bar(canvas, view);
  paint_legend(canvas, scene, {canvas.width() - kLegend, 0.0, kLegend, canvas.height()});
  paint_title(canvas, scene, {0.0, 0.0, canvas.width() - kLegend, kTitle});
  return canvas.finish();
}

}  // namespace gaze
