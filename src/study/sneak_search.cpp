#include <algorithm>
#include <unordered_set>

#include "study/sneak.hpp"

/// The searches over places and moments.
namespace gaze {
namespace {

constexpr std::uint32_t kNever = 0xFFFFFFFF;

std::uint64_t key_of(std::uint32_t moment, std::uint32_t spot) {
  return std::uint64_t{moment} << 32U | spot;
}

/// What the watchers perceive at one moment, by place; laid out so that it is looked up at once.
struct Seen {
  std::vector<std::uint8_t> any;  ///< By place: somebody does.
  std::vector<float> gain;        ///< By place and watcher.
  std::vector<std::uint8_t> whole;
  std::vector<std::uint32_t> touched;  ///< Places to be wiped.

  void fill(const Perception& perception, std::size_t moment, std::size_t spots) {
    const std::size_t watchers = perception.lists.size();
    if (any.empty()) {
      any.assign(spots, 0);
      gain.assign(spots * watchers, 0.0F);
      whole.assign(spots * watchers, 0);
    }
    for (const std::uint32_t spot : touched) {
      any[spot] = 0;
      std::fill_n(gain.begin() + static_cast<std::ptrdiff_t>(spot * watchers), watchers, 0.0F);
    }
    touched.clear();
    for (std::size_t w = 0; w < watchers; ++w) {
      for (const Glimpse& one : *perception.lists[w][moment]) {
        if (any[one.spot] == 0) touched.push_back(one.spot);
        any[one.spot] = 1;
        gain[one.spot * watchers + w] = one.gain;
        whole[one.spot * watchers + w] = one.is_whole ? 1 : 0;
      }
    }
  }
};

/// Where it can be at one moment, and what evidence there is of it then.
struct Layer {
  enum State : std::uint8_t { away, clean, known };  ///< Known: somebody has evidence.
  std::vector<std::uint8_t> state;
  std::vector<float> evidence;  ///< By place and watcher, where it is known.

  void begin(std::size_t spots, std::size_t watchers) {
    state.assign(spots, away);
    if (evidence.empty()) evidence.assign(spots * watchers, 0.0F);
  }
};

/// Evidence of all watchers on one way.
class Trail {
 public:
  Trail(const std::vector<Watcher>& watchers) : watchers_(watchers), values_(watchers.size()) {}

  void take(const Layer& layer, std::uint32_t spot) {
    is_clean_ = layer.state[spot] == Layer::clean;
    const std::size_t count = values_.size();
    if (is_clean_) {
      std::fill(values_.begin(), values_.end(), 0.0F);
    } else {
      std::copy_n(layer.evidence.begin() + static_cast<std::ptrdiff_t>(spot * count), count,
                  values_.begin());
    }
  }

  // A moment goes by in one of two places: what either of them shows counts.
  // @return False if somebody notices.
  bool pass(const Seen& seen, std::uint32_t one, std::uint32_t other) {
    if (is_clean_ && seen.any[one] == 0 && seen.any[other] == 0) return true;
    is_clean_ = true;
    const std::size_t count = values_.size();
    for (std::size_t w = 0; w < count; ++w) {
      const float gain = std::max(seen.gain[one * count + w], seen.gain[other * count + w]);
      float& value = values_[w];
      value =
          gain > 0.0F ? value + gain : std::max(0.0F, value - static_cast<float>(watchers_[w].ebb));
      if (value >= kNoticed) return false;
      is_clean_ &= value == 0.0F;
    }
    return true;
  }

  bool is_clean() const { return is_clean_; }
  float most() const { return *std::max_element(values_.begin(), values_.end()); }
  const std::vector<float>& values() const { return values_; }

 private:
  static constexpr float kNoticed = 0.97F;  // play gathers by steps: a little is kept in hand

  const std::vector<Watcher>& watchers_;
  std::vector<float> values_;
  bool is_clean_ = true;
};

/// How it came to a place: from which of its neighbours (8: it waited), in so many moments.
struct Move {
  std::uint8_t direction = 8;
  std::uint8_t places = 0;
  std::uint8_t moments = 1;
};

/// The search that goes only where it can be sure to get along, through the middles of places.
class Strict {
 public:
  Strict(const SneakGrid& grid, const Perception& perception, const std::vector<Watcher>& watchers,
         std::size_t moments, std::span<const Step> shut)
      : grid_(grid),
        perception_(perception),
        watchers_(watchers),
        moments_(moments),
        trail_(watchers) {
    for (const Step& step : shut) shut_.insert(key_of(step.moment, step.spot));
    moves_.push_back({8, 0, 1});
    for (std::uint8_t d = 0; d < 8; d = static_cast<std::uint8_t>(d + 2))
      moves_.push_back({d, 1, 1});
    for (std::uint8_t d = 1; d < 8; d = static_cast<std::uint8_t>(d + 2)) {
      moves_.push_back({d, 1, 2});  // the diagonal of one place takes 1.41 moments
      moves_.push_back({d, 2, 3});  // that of two takes 2.83
    }
  }

  SneakSearch find(std::uint32_t start, std::uint32_t goal) {
    SneakSearch search;
    const std::size_t spots = grid_.count();
    came_.reserve(moments_);
    for (std::uint32_t k = 0; k < moments_; ++k) {
      came_.emplace_back(spots, std::uint8_t{0});
      seen(k).fill(perception_, k, spots);
      layer(k).begin(spots, watchers_.size());
      if (k == 0) {
        begin(start);
      } else {
        fill(k);
      }
      if (layer(k).state[goal] != Layer::away) {
        search.way = traced(k, goal, start);
        return search;
      }
    }
    return search;
  }

 private:
  Seen& seen(std::uint32_t k) { return seen_[k % 4]; }
  Layer& layer(std::uint32_t k) { return layers_[k % 4]; }

  void begin(std::uint32_t start) {
    Layer& first = layer(0);
    first.state[start] = Layer::clean;
    trail_.take(first, start);
    if (!trail_.pass(seen(0), start, start)) {
      first.state[start] = Layer::away;
    } else {
      keep(first, start, 0);
    }
  }

  void keep(Layer& into, std::uint32_t spot, std::uint8_t move) {
    into.state[spot] = trail_.is_clean() ? Layer::clean : Layer::known;
    came_.back()[spot] = static_cast<std::uint8_t>(move + 1);
    if (trail_.is_clean()) return;
    std::copy(trail_.values().begin(), trail_.values().end(),
              into.evidence.begin() + static_cast<std::ptrdiff_t>(spot * watchers_.size()));
  }

  void fill(std::uint32_t k) {
    Layer& into = layer(k);
    std::uint32_t spot = 0;
    for (int row = 0; row < grid_.rows; ++row) {
      for (int column = 0; column < grid_.columns; ++column, ++spot) {
        if (grid_.stands[spot] == 0 || shut_.contains(key_of(k, spot))) continue;
        float best = 2.0F;
        for (std::uint8_t m = 0; m < moves_.size() && best > 0.0F; ++m) {
          if (!try_move(k, column, row, spot, moves_[m])) continue;
          const float most = trail_.is_clean() ? 0.0F : trail_.most();
          // Whoever waits moves only for something that is worth it.
          constexpr float kWorthIt = 0.05F;
          if (most >= (best < 2.0F ? best - kWorthIt : best)) continue;
          best = most;
          keep(into, spot, m);
        }
      }
    }
  }

  // Goes along a move that ends in a place; the trail holds what comes of it.
  bool try_move(std::uint32_t k, int column, int row, std::uint32_t spot, const Move& move) {
    if (move.moments > k) return false;
    if (move.direction == 8) {
      const Layer& from = layer(k - 1);
      if (from.state[spot] == Layer::away) return false;
      trail_.take(from, spot);
      return trail_.pass(seen(k), spot, spot);
    }
    const auto& step = kNeighbours[move.direction];
    std::array<std::uint32_t, 3> places{};  // from the first on
    for (int i = 0; i <= move.places; ++i) {
      const int x = column - step[0] * (move.places - i);
      const int y = row - step[1] * (move.places - i);
      if (x < 0 || y < 0 || x >= grid_.columns || y >= grid_.rows) return false;
      places[static_cast<std::size_t>(i)] = static_cast<std::uint32_t>(grid_.at(x, y));
    }
    const Layer& from = layer(k - move.moments);
    if (from.state[places[0]] == Layer::away) return false;
    for (int i = 0; i < move.places; ++i) {
      if ((grid_.joins[places[static_cast<std::size_t>(i)]] >> move.direction & 1U) == 0) {
        return false;
      }
    }
    trail_.take(from, places[0]);
    for (std::uint32_t i = 1; i <= move.moments; ++i) {
      // Between two places it is taken to be in both.
      const double along = static_cast<double>(i) * move.places / move.moments;
      const auto before = static_cast<std::size_t>(along);
      const std::size_t after =
          std::min<std::size_t>(before + (along > double(before) ? 1 : 0), move.places);
      const std::uint32_t moment = k - move.moments + i;
      const bool is_shut = shut_.contains(key_of(moment, places[before])) ||
                           shut_.contains(key_of(moment, places[after]));
      if (is_shut || !trail_.pass(seen(moment), places[before], places[after])) return false;
    }
    return true;
  }

  std::vector<Step> traced(std::uint32_t k, std::uint32_t spot, std::uint32_t start) const {
    std::vector<Step> way{{k, spot}};
    while (k > 0) {
      const Move& move = moves_[came_[k][spot] - 1U];
      if (move.direction != 8) {
        const auto& step = kNeighbours[move.direction];
        const int column = static_cast<int>(spot % std::uint32_t(grid_.columns));
        const int row = static_cast<int>(spot / std::uint32_t(grid_.columns));
        spot = static_cast<std::uint32_t>(
            grid_.at(column - step[0] * move.places, row - step[1] * move.places));
      }
      k -= move.moments;
      way.push_back({k, spot});
    }
    static_cast<void>(start);
    std::reverse(way.begin(), way.end());
    return way;
  }

  const SneakGrid& grid_;
  const Perception& perception_;
  const std::vector<Watcher>& watchers_;
  std::size_t moments_;
  Trail trail_;
  std::vector<Move> moves_;
  std::unordered_set<std::uint64_t> shut_;
  std::array<Seen, 4> seen_;
  std::array<Layer, 4> layers_;
  std::vector<std::vector<std::uint8_t>> came_;  ///< By moment and place: the move, from 1 on.
};

/// The search that goes wherever it may be possible: into any neighbour of a place in one moment.
class Loose {
 public:
  Loose(const SneakGrid& grid, const Perception& perception, const std::vector<Watcher>& watchers,
        std::size_t moments)
      : grid_(grid), perception_(perception), watchers_(watchers), moments_(moments) {}

  SneakSearch find(std::uint32_t start, std::uint32_t goal) {
    SneakSearch search;
    const std::size_t spots = grid_.count();
    search.reached.assign(spots, 0);
    search.last.assign(spots, kNever);
    for (std::uint32_t k = 0; k < moments_; ++k) {
      Layer& now = layers_[k % 2];
      seen_.fill(perception_, k, spots);
      now.begin(spots, watchers_.size());
      if (k == 0) {
        enter(now, start, nullptr, {});
      } else {
        spread(layers_[(k + 1) % 2], now);
      }
      bool any = false;
      for (std::uint32_t spot = 0; spot < spots; ++spot) {
        if (now.state[spot] == Layer::away) continue;
        any = true;
        search.reached[spot] = 1;
        search.last[spot] = k;
      }
      if (now.state[goal] != Layer::away) search.way = {{k, goal}};
      if (!any || !search.way.empty()) return search;
    }
    return search;
  }

 private:
  void spread(const Layer& from, Layer& into) {
    std::vector<std::uint32_t> about;
    for (int row = 0; row < grid_.rows; ++row) {
      for (int column = 0; column < grid_.columns; ++column) {
        const auto spot = static_cast<std::uint32_t>(grid_.at(column, row));
        if (grid_.any[spot] == 0) continue;
        about.clear();
        for (int y = std::max(0, row - 1); y <= std::min(grid_.rows - 1, row + 1); ++y) {
          for (int x = std::max(0, column - 1); x <= std::min(grid_.columns - 1, column + 1); ++x) {
            const auto other = static_cast<std::uint32_t>(grid_.at(x, y));
            if (from.state[other] != Layer::away) about.push_back(other);
          }
        }
        if (!about.empty()) enter(into, spot, &from, about);
      }
    }
  }

  // The least evidence that each watcher can have for itself.
  void enter(Layer& into, std::uint32_t spot, const Layer* from,
             std::span<const std::uint32_t> about) {
    const bool is_clean =
        from == nullptr || std::any_of(about.begin(), about.end(), [&](std::uint32_t other) {
          return from->state[other] == Layer::clean;
        });
    if (is_clean && seen_.any[spot] == 0) {
      into.state[spot] = Layer::clean;
      return;
    }
    const std::size_t count = watchers_.size();
    bool stays_clean = true;
    for (std::size_t w = 0; w < count; ++w) {
      float least = is_clean ? 0.0F : 2.0F;
      for (const std::uint32_t other : about) {
        const bool knows = from->state[other] == Layer::known;
        least = std::min(least, knows ? from->evidence[other * count + w] : 0.0F);
      }
      const float gain = seen_.gain[spot * count + w];
      const bool is_whole = gain > 0.0F && seen_.whole[spot * count + w] != 0;
      if (!is_whole) least = std::max(0.0F, least - static_cast<float>(watchers_[w].ebb));
      least += gain;
      if (least >= kSure) return;  // it is noticed
      stays_clean &= least == 0.0F;
      into.evidence[spot * count + w] = least;
    }
    into.state[spot] = stays_clean ? Layer::clean : Layer::known;
  }

  static constexpr float kSure = 1.001F;  // floats are added up: a little more than enough

  const SneakGrid& grid_;
  const Perception& perception_;
  const std::vector<Watcher>& watchers_;
  std::size_t moments_;
  Seen seen_;
  std::array<Layer, 2> layers_;
};

}  // namespace

SneakSearch search_strictly(const SneakGrid& grid, const Perception& perception,
                            const std::vector<Watcher>& watchers, std::size_t moments,
                            std::uint32_t start, std::uint32_t goal, std::span<const Step> shut) {
  return Strict(grid, perception, watchers, moments, shut).find(start, goal);
}

SneakSearch search_loosely(const SneakGrid& grid, const Perception& perception,
                           const std::vector<Watcher>& watchers, std::size_t moments,
                           std::uint32_t start, std::uint32_t goal) {
  return Loose(grid, perception, watchers, moments).find(start, goal);
}

}  // namespace gaze
