#include <array>

#include "study/sneak_layers.hpp"

/// The search that tells whether any way can lead there unnoticed.
namespace gaze {
namespace {

/// Goes wherever it may be possible: into any neighbour of a place in one moment.
class Loose {
 public:
  Loose(const SneakFloor& floor, Perception& perception, const std::vector<Watcher>& watchers,
        std::size_t moments, SneakEffort& effort)
      : floor_(floor),
        perception_(perception),
        watchers_(watchers),
        moments_(moments),
        effort_(effort),
        near_(floor) {}

  SneakSearch find(std::uint32_t start, std::uint32_t goal) {
    SneakSearch search;
    search.reached.assign(floor_.count(), 0);
    for (std::uint32_t k = 0; k < moments_; ++k) {
      if (!effort_.goes_on(k, moments_)) {
        search.is_whole = false;
        return search;
      }
      SneakLayer& now = layers_[k % 2];
      now.begin(floor_);
      k == 0 ? begin(now, start) : spread(k, layers_[(k + 1) % 2], now);
      now.finish();
      for (std::uint32_t spot = 0; spot < floor_.count(); ++spot) {
        if (now.state[spot] != SneakLayer::away) search.reached[spot] = 1;
      }
      if (now.state[goal] != SneakLayer::away) search.way = {{k, goal}};
      if (now.is_empty || !search.way.empty()) return search;
    }
    return search;
  }

 private:
  void begin(SneakLayer& now, std::uint32_t start) {
    perception_.look(0, near_.only(start), seen_);
    std::vector<float> values(watchers_.size());
    enter(now, start, nullptr, {}, values);
  }

  void spread(std::uint32_t k, const SneakLayer& from, SneakLayer& into) {
    const std::array layers{&from};
    const auto near = near_.around(layers, 1, effort_);
    perception_.look(k, near, seen_);
    effort_.for_rows(floor_, [&](int row) {
      std::vector<std::uint32_t> about;
      std::vector<float> values(watchers_.size());
      for (std::uint32_t spot = floor_.first_of_row(row); spot < floor_.first_of_row(row + 1);
           ++spot) {
        if (near[floor_.square(spot)] == 0) continue;
        about.clear();
        floor_.for_near(spot, [&](std::uint32_t other) {
          if (from.state[other] != SneakLayer::away) about.push_back(other);
        });
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
      const auto known = from->of(floor_, other, count);
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
    stays_clean ? into.set_clean(spot) : into.set_known(floor_, spot, values);
  }

  static constexpr float kSure = 1.001F;  // floats are added up: a little more than enough

  const SneakFloor& floor_;
  Perception& perception_;
  const std::vector<Watcher>& watchers_;
  std::size_t moments_;
  SneakEffort& effort_;
  SneakNear near_;
  Seen seen_;
  std::array<SneakLayer, 2> layers_;
};

}  // namespace

SneakSearch search_loosely(const SneakFloor& floor, Perception& perception,
                           const std::vector<Watcher>& watchers, std::size_t moments,
                           std::uint32_t start, std::uint32_t goal, SneakEffort& effort) {
  return Loose(floor, perception, watchers, moments, effort).find(start, goal);
}

}  // namespace gaze
