#include "agents/crowd.hpp"

namespace gaze {

// About four cells an agent at the most.
void Crowd::lay_out(std::span<const Vector3d> places, std::span<const char> marked) {
  Flat high;
  std::size_t count = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (!marked[i]) continue;
    const Flat at = flat(places[i]);
    low_ = count == 0 ? at : Flat{std::min(low_.a, at.a), std::min(low_.b, at.b)};
    high = count == 0 ? at : Flat{std::max(high.a, at.a), std::max(high.b, at.b)};
    ++count;
  }
  order_.resize(count);
  places_.resize(count);
  if (count == 0) return;
  const double width = high.a - low_.a;
  const double depth = high.b - low_.b;
  const double most = 4.0 * static_cast<double>(count) + 64.0;
  constexpr double kWidest =
      1e15;  // metres; far larger than any level. Beyond it there is one cell.
  columns_ = rows_ = 1;
  cell_ = kWidest;
  if (!(std::max(width, depth) <= kWidest)) return;
  cell_ = std::max({cell_size_, std::sqrt(width * depth / most), std::max(width, depth) / most});
  columns_ = static_cast<std::size_t>(width / cell_) + 1;
  rows_ = static_cast<std::size_t>(depth / cell_) + 1;
}

void Crowd::rebuild(Plane plane, std::span<const Vector3d> places, std::span<const char> marked,
                    double height) {
  plane_ = plane;
  height_ = plane == Plane::upright ? height : 0.0;
  lay_out(places, marked);
  if (order_.empty()) return;
  start_.assign(columns_ * rows_ + 1, 0);
  cell_of_.resize(places.size());
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (!marked[i]) continue;
    cell_of_[i] = static_cast<std::uint32_t>(cell_of(flat(places[i])));
    ++start_[cell_of_[i]];
  }
  std::uint32_t end = 0;
  for (std::uint32_t& start : start_) start = end += start;
  // Backwards, so that the end of each cell becomes its start and agents stay in order.
  for (std::size_t i = places.size(); i-- > 0;) {
    if (!marked[i]) continue;
    const std::uint32_t to = --start_[cell_of_[i]];
    order_[to] = static_cast<std::uint32_t>(i);
    places_[to] = flat(places[i]);
  }
}

}  // namespace gaze
