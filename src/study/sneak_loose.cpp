#include "study/sneak_layers.hpp"

/// The search that tells whether any way can lead there unnoticed.
namespace gaze {
namespace {

/// Goes wherever it may be possible: into any neighbour of a place in one moment.
class Loose {
 public:
  Loose(const SneakGrid& grid, Perception& perception, const std::vector<Watcher>& watchers,
        std::size_t moments, SneakEffort& effort)
      : grid_(grid),
        perception_(perception),
        watchers_(watchers),
        moments_(moments),
        effort_(effort),
        near_(grid) {}

  SneakSearch find(std::uint32_t start, std::uint32_t goal) {
    SneakSearch search;
    search.reached.assign(grid_.count(), 0);
    for (std::uint32_t k = 0; k < moments_; ++k) {
      if (!effort_.goes_on(k, moments_)) {
        search.is_whole = false;
        return search;
      }
      SneakLayer& now = layers_[k % 2];
      now.begin(grid_);
      k == 0 ? begin(now, start) : spread(k, layers_[(k + 1) % 2], now);
      now.finish();
      for (std::uint32_t spot = 0; spot < grid_.count(); ++spot) {
        if (now.state[spot] != SneakLayer::away) search.reached[spot] = 1;
      }
      if (now.state[goal] != SneakLayer::away) search.way = {{k, goal}};
      if (now.is_empty || !search.way.empty()) return search;
    }
    return search;
  }

 private:
  void begin(SneakLayer& now, std::uint32_t start) {
    std::vector<std::uint8_t> there(grid_.count(), 0);
    there[start] = 1;
    perception_.look(0, there, seen_);
    std::vector<float> values(watchers_.size());
    enter(now, start, nullptr, {}, values);
  }

  void spread(std::uint32_t k, const SneakLayer& from, SneakLayer& into) {
    near_.begin();
    near_.add(from, 1);
    const auto near = near_.marked(1);
    perception_.look(k, near, seen_);
    effort_.for_rows(grid_.rows, grid_.columns, [&](int row) {
      std::vector<std::uint32_t> about;
      std::vector<float> values(watchers_.size());
      for (int column = 0; column < grid_.columns; ++column) {
        const auto spot = static_cast<std::uint32_t>(grid_.at(column, row));
        if (near[spot] == 0 || grid_.any[spot] == 0) continue;
        about.clear();
        for (int y = std::max(0, row - 1); y <= std::min(grid_.rows - 1, row + 1); ++y) {
          for (int x = std::max(0, column - 1); x <= std::min(grid_.columns - 1, column + 1); ++x) {
            const auto other = static_cast<std::uint32_t>(grid_.at(x, y));
            if (from.state[other] != SneakLayer::away) about.push_back(other);
          }
        }
        if (!about.empty()) enter(into, spot, &from, about, values);
      }
    });
  }

  // The least evidence that each watcher can have for itself.
  void enter(SneakLayer& into, std::uint32_t spot, const SneakLayer* from,
             std::span<const std::uint32_t> about, std::vector<float>& values) const {
    const bool is_clean =
        from == nullptr || std::any_of(about.begin(), about.end(), [&](std::uint32_t other) {
          return from->state[other] == SneakLayer::clean;
        });
    if (is_clean && seen_.row[spot] == 0) return into.set_clean(spot);
    const std::size_t count = watchers_.size();
    std::fill(values.begin(), values.end(), is_clean ? 0.0F : 2.0F);
    for (const std::uint32_t other : about) {
      if (is_clean) break;
      const auto known = from->of(grid_, other, count);
      for (std::size_t w = 0; w < count; ++w) values[w] = std::min(values[w], known[w]);
    }
    bool stays_clean = true;
    for (std::size_t w = 0; w < count; ++w) {
      const std::size_t at = seen_.row[spot] == 0 ? 0 : (seen_.row[spot] - 1U) * count + w;
      const float gain = seen_.row[spot] == 0 ? 0.0F : seen_.gain[at];
      const bool is_whole = gain > 0.0F && seen_.whole[at] != 0;
      if (!is_whole) values[w] = std::max(0.0F, values[w] - static_cast<float>(watchers_[w].ebb));
      values[w] += gain;
      if (values[w] >= kSure) return;  // it is noticed
      stays_clean &= values[w] == 0.0F;
    }
    stays_clean ? into.set_clean(spot) : into.set_known(grid_, spot, values);
  }

  static constexpr float kSure = 1.001F;  // floats are added up: a little more than enough

  const SneakGrid& grid_;
  Perception& perception_;
  const std::vector<Watcher>& watchers_;
  std::size_t moments_;
  SneakEffort& effort_;
  SneakNear near_;
  Seen seen_;
  std::array<SneakLayer, 2> layers_;
};

}  // namespace

SneakSearch search_loosely(const SneakGrid& grid, Perception& perception,
                           const std::vector<Watcher>& watchers, std::size_t moments,
                           std::uint32_t start, std::uint32_t goal, SneakEffort& effort) {
  return Loose(grid, perception, watchers, moments, effort).find(start, goal);
}

}  // namespace gaze
