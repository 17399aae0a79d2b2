#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <span>
#include <vector>

#include "gaze/geometry.hpp"

namespace gaze {

/// Finds agents that are near to a place. They are kept in a uniform grid over two axes of the box
/// around them. The cells of a row follow each other in memory, and so do the agents in them, so
/// that those who are near are found row by row.
class Crowd {
 public:
  /// @param cell_size  Metres: about a usual reach. Cells are larger where agents are few for the
  ///                   space between them.
  explicit Crowd(double cell_size) : cell_size_(cell_size) {}

  /// Indexes those that are marked. Allocates only when it grows.
  /// @param height  In side view, agents within `reach` plus this difference in height count as
  /// near,
  ///                metres.
  void rebuild(Plane plane, std::span<const Vector3d> places, std::span<const char> marked,
               double height = 0.0);

  /// Calls visit(i, squared distance along the two axes) for each agent that is within reach along
  /// both, and perhaps for some that are not; each once, in no order.
  template <typename Visit>
  void near(const Vector3d& place, double reach, Visit&& visit) const {
    near_shrinking(
        place, [reach] { return reach; }, visit);
  }

  /// The same for a reach that may shrink while those who are near are looked at, the rows next to
  /// the place first.
  template <typename Reach, typename Visit>
  void near_shrinking(const Vector3d& place, Reach&& reach, Visit&& visit) const {
    if (order_.empty()) return;
    const Flat from = flat(place);
    const std::size_t own = index_of(from.b - low_.b, rows_);
    visit_row(own, from, reach(), visit);
    // To both sides by turns, so that the reach shrinks to what is near on either.
    bool goes_up = true;
    bool goes_down = true;
    for (std::size_t step = 1; goes_up || goes_down; ++step) {
      goes_up = goes_up && own + step <= index_of(from.b + reach() + height_ - low_.b, rows_);
      if (goes_up) visit_row(own + step, from, reach(), visit);
      goes_down = goes_down && own >= step + index_of(from.b - reach() - height_ - low_.b, rows_);
      if (goes_down) visit_row(own - step, from, reach(), visit);
    }
  }

 private:
  struct Flat {
    double a = 0.0;
    double b = 0.0;
  };

  Flat flat(const Vector3d& p) const { return {p.x(), plane_ == Plane::upright ? p.z() : p.y()}; }

  // Rounds down and clamps to the cells. Returns 0 for NaN.
  std::size_t index_of(double offset, std::size_t count) const {
    if (!(offset > 0.0)) return 0;
    return static_cast<std::size_t>(std::min(offset / cell_, static_cast<double>(count - 1)));
  }
  std::size_t cell_of(const Flat& place) const {
    return index_of(place.b - low_.b, rows_) * columns_ + index_of(place.a - low_.a, columns_);
  }

  template <typename Visit>
  void visit_row(std::size_t row, const Flat& from, double reach, Visit&& visit) const {
    const std::size_t first = row * columns_;
    const std::uint32_t end = start_[first + index_of(from.a + reach - low_.a, columns_) + 1];
    std::uint32_t at = start_[first + index_of(from.a - reach - low_.a, columns_)];
    for (; at < end; ++at) {
      const double a = places_[at].a - from.a;
      const double b = places_[at].b - from.b;
      visit(order_[at], a * a + b * b);
    }
  }

  void lay_out(std::span<const Vector3d> places, std::span<const char> marked);

  double cell_size_;
  Plane plane_ = Plane::ground;
  double height_ = 0.0;
  Flat low_;
  double cell_ = 1.0;
  std::size_t columns_ = 0;
  std::size_t rows_ = 0;
  std::vector<std::uint32_t> start_;    ///< By cell; one more than there are.
  std::vector<std::uint32_t> order_;    ///< Agents by cell.
  std::vector<Flat> places_;            ///< Where these agents are.
  std::vector<std::uint32_t> cell_of_;  ///< Scratch: by agent.
};

}  // namespace gaze
