#include "gaze/picture.hpp"

#include "show/paint.hpp"

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
  const Scene scene = make_scene(simulation, trails);
  Canvas canvas(options);
  const Sheet sheet = lay_out(canvas, scene);
  paint_map(canvas, scene, sheet.view);
  paint_captions(canvas, scene, sheet);
  paint_legend(canvas, scene, sheet.legend);
  return canvas.finish();
}

}  // namespace gaze
