#pragma once

#include <algorithm>
#include <vector>

#include "study/sneak.hpp"

/// What both searches over places and moments go by.
namespace gaze {

/// Where it can be at one moment, and what evidence there is of it then. Rows of the floor are
/// written apart from each other, so that many threads can.
struct SneakLayer {
  enum State : std::uint8_t { away, clean, known };  ///< Known: somebody has evidence.
  std::vector<std::uint8_t> state;
  std::vector<std::uint32_t> at;             ///< By place: where its evidence begins in its row's.
  std::vector<std::vector<float>> evidence;  ///< By row of the floor: of known places, by watcher.
  bool is_empty = true;

  void begin(const SneakFloor& floor) {
    state.assign(floor.count(), away);
    at.resize(floor.count());
    evidence.resize(static_cast<std::size_t>(floor.rows));
    for (auto& row : evidence) row.clear();
  }
  std::span<const float> of(const SneakFloor& floor, std::uint32_t spot, std::size_t count) const {
    return std::span(evidence[static_cast<std::size_t>(floor.row[spot])]).subspan(at[spot], count);
  }
  void set_clean(std::uint32_t spot) { state[spot] = clean; }
  void set_known(const SneakFloor& floor, std::uint32_t spot, std::span<const float> values) {
    std::vector<float>& row = evidence[static_cast<std::size_t>(floor.row[spot])];
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

/// Marks the squares that are so few squares away from where it can be.
class SneakNear {
 public:
  explicit SneakNear(const SneakFloor& floor)
      : floor_(floor), wide_(floor.squares()), near_(floor.squares()) {}

  /// @param layers  In one of which it can be there.
  std::span<const std::uint8_t> around(std::span<const SneakLayer* const> layers, int squares,
                                       SneakEffort& effort) {
    effort.for_rows(floor_, [&](int row) { widen(layers, squares, row); });
    effort.for_rows(floor_, [&](int row) { gather(squares, row); });
    return near_;
  }
  /// The square of one place alone.
  std::span<const std::uint8_t> only(std::uint32_t spot) {
    std::fill(near_.begin(), near_.end(), std::uint8_t{0});
    near_[floor_.square(spot)] = 1;
    return near_;
  }

 private:
  void widen(std::span<const SneakLayer* const> layers, int squares, int row) {
    std::uint8_t* wide = &wide_[floor_.at(0, row)];
    std::fill_n(wide, floor_.columns, std::uint8_t{0});
    const std::uint32_t end = floor_.first_of_row(row + 1);
    for (std::uint32_t spot = floor_.first_of_row(row); spot < end; ++spot) {
      const bool is_there = std::any_of(layers.begin(), layers.end(), [&](const SneakLayer* layer) {
        return layer->state[spot] != SneakLayer::away;
      });
      if (!is_there) continue;
      const int last = std::min(floor_.columns - 1, floor_.column[spot] + squares);
      for (int x = std::max(0, floor_.column[spot] - squares); x <= last; ++x) wide[x] = 1;
    }
  }
  void gather(int squares, int row) {
    std::uint8_t* to = &near_[floor_.at(0, row)];
    std::fill_n(to, floor_.columns, std::uint8_t{0});
    const int last = std::min(floor_.rows - 1, row + squares);
    for (int y = std::max(0, row - squares); y <= last; ++y) {
      const std::uint8_t* from = &wide_[floor_.at(0, y)];
      for (int x = 0; x < floor_.columns; ++x) to[x] |= from[x];
    }
  }

  const SneakFloor& floor_;
  std::vector<std::uint8_t> wide_;
  std::vector<std::uint8_t> near_;
};

}  // namespace gaze
