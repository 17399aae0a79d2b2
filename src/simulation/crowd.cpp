#include "simulation/crowd.hpp"

#include <bit>

namespace gaze {

void Crowd::rebuild(Plane plane, std::span<const Vector3d> places, std::span<const char> marked) {
  plane_ = plane;
  const std::size_t buckets = std::bit_ceil(places.size() + 1);
  mask_ = buckets - 1;
  start_.assign(buckets + 1, 0);
  std::size_t count = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (!marked[i]) continue;
    ++start_[bucket_of(cell_of(places[i])) + 1];
    ++count;
  }
  for (std::size_t i = 1; i < start_.size(); ++i) start_[i] += start_[i - 1];
  order_.resize(count);
  cells_.resize(count);
  // Backwards, so that each bucket's end becomes its start and agents stay in order.
  for (std::size_t i = places.size(); i-- > 0;) {
    if (!marked[i]) continue;
    const Cell cell = cell_of(places[i]);
    const std::uint32_t at = --start_[bucket_of(cell) + 1];
    order_[at] = static_cast<std::uint32_t>(i);
    cells_[at] = cell;
  }
  start_.erase(start_.begin());  // what ended at a bucket's count now begins there
  start_.push_back(static_cast<std::uint32_t>(count));
}

}  // namespace gaze
