#include "gaze/picture.hpp"
namespace gaze {
Trails::Trails(const Simulation& simulation) : positions_(simulation.agent_count()) {}
void Trails::add(const Simulation& simulation) {
  for (std::uint32_t i = 0; i < positions_.size(); ++i) {
    positions_[i].push_back(simulation.state({i}).position);
  }
}
std::string draw(const Simulation&, const Trails&, const PictureOptions&) { return {}; }
}  // namespace gaze
