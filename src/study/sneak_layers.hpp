#pragma once

#include <algorithm>
#include <vector>

#include "study/sneak.hpp"

/// What both searches over places and moments go by.
namespace gaze {

/// Where it can be at one moment, and what evidence there is of it then. Rows of the grid are
/// written apart from each other, so that many threads can.
struct SneakLayer {
  enum State : std::uint8_t { away, clean, known };  ///< Known: somebody has evidence.
  std::vector<std::uint8_t> state;
  std::vector<std::uint32_t> at;             ///< By place: where its evidence begins in its row's.
  std::vector<std::vector<float>> evidence;  ///< By row of the grid: of known places, by watcher.
  bool is_empty = true;

  void begin(const SneakGrid& grid) {
    state.assign(grid.count(), away);
    at.resize(grid.count());
    evidence.resize(static_cast<std::size_t>(grid.rows));
    for (auto& row : evidence) row.clear();
  }
  std::span<const float> of(const SneakGrid& grid, std::uint32_t spot, std::size_t count) const {
    return std::span(evidence[spot / std::uint32_t(grid.columns)]).subspan(at[spot], count);
  }
  void set_clean(std::uint32_t spot) { state[spot] = clean; }
  void set_known(const SneakGrid& grid, std::uint32_t spot, std::span<const float> values) {
    std::vector<float>& row = evidence[spot / std::uint32_t(grid.columns)];
    if (state[spot] != known) {
      at[spot] = static_cast<std::uint32_t>(row.size());
      row.resize(row.size() + values.size());
    }
    state[spot] = known;
    std::copy(values.begin(), values.end(), row.begin() + at[spot]);
  }
  void finish() {
    is_empty = std::all_of(state.begin(), state.end(), [](auto one) { return one == away; });
  }
};

/// Marks what is so few places away from where it can be.
class SneakNear {
 public:
  explicit SneakNear(const SneakGrid& grid) : grid_(grid), wide_(grid.count()) {
    near_.resize(grid.count());
  }

  void begin() { std::fill(wide_.begin(), wide_.end(), std::uint8_t{0}); }
  void add(const SneakLayer& layer, int around) {
    if (layer.state.empty() || layer.is_empty) return;
    for (int row = 0; row < grid_.rows; ++row) {
      std::size_t spot = grid_.at(0, row);
      for (int column = 0; column < grid_.columns; ++column, ++spot) {
        if (layer.state[spot] == SneakLayer::away) continue;
        const int last = std::min(grid_.columns - 1, column + around);
        for (int x = std::max(0, column - around); x <= last; ++x) wide_[grid_.at(x, row)] = 1;
      }
    }
  }
  std::span<const std::uint8_t> marked(int around) {
    std::fill(near_.begin(), near_.end(), std::uint8_t{0});
    for (int row = 0; row < grid_.rows; ++row) {
      const int last = std::min(grid_.rows - 1, row + around);
      for (int y = std::max(0, row - around); y <= last; ++y) {
        const std::uint8_t* from = &wide_[grid_.at(0, row)];
        std::uint8_t* to = &near_[grid_.at(0, y)];
        for (int x = 0; x < grid_.columns; ++x) to[x] |= from[x];
      }
    }
    return near_;
  }

 private:
  const SneakGrid& grid_;
  std::vector<std::uint8_t> wide_;
  std::vector<std::uint8_t> near_;
};

}  // namespace gaze
