#include <array>
#include <unordered_set>

#include "study/sneak_layers.hpp"

/// The search for a way that nobody notices, over the middles of places.
namespace gaze {
namespace {

std::uint64_t key_of(std::uint32_t moment, std::uint32_t spot) {
  return std::uint64_t{moment} << 32U | spot;
}

/// Evidence of all watchers on one way.
class Trail {
 public:
  Trail(const SneakFloor& floor, const std::vector<Watcher>& watchers)
      : floor_(floor), watchers_(watchers), values_(watchers.size()) {}

  void take(const SneakLayer& layer, std::uint32_t spot) {
    is_clean_ = layer.state[spot] == SneakLayer::clean;
    if (is_clean_) {
      std::fill(values_.begin(), values_.end(), 0.0F);
    } else {
      const auto known = layer.of(floor_, spot, values_.size());
      std::copy(known.begin(), known.end(), values_.begin());
    }
  }

  // A moment goes by in one of two places: what either of them shows counts.
  // @return False if somebody notices.
  bool pass(const Seen& seen, std::uint32_t one, std::uint32_t other) {
    if (is_clean_ && seen.row[one] == 0 && seen.row[other] == 0) return true;
    is_clean_ = true;
    for (std::size_t w = 0; w < values_.size(); ++w) {
      const float gain = std::max(gain_of(seen, one, w), gain_of(seen, other, w));
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

  float gain_of(const Seen& seen, std::uint32_t spot, std::size_t watcher) const {
    const std::uint32_t row = seen.row[spot];
    return row == 0 ? 0.0F : seen.gain[(row - 1U) * values_.size() + watcher];
  }

  const SneakFloor& floor_;
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
  Strict(const SneakFloor& floor, Perception& perception, const std::vector<Watcher>& watchers,
         std::size_t moments, std::span<const Step> shut, SneakEffort& effort)
      : floor_(floor),
        perception_(perception),
        watchers_(watchers),
        moments_(moments),
        effort_(effort),
        near_(floor) {
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
    came_.reserve(moments_);
    for (std::uint32_t k = 0; k < moments_; ++k) {
      if (!effort_.goes_on(k, moments_)) {
        search.is_whole = false;
        return search;
      }
      came_.emplace_back(floor_.count(), std::uint8_t{0});
      SneakLayer& now = layer(k);
      now.begin(floor_);
      k == 0 ? begin(start) : fill(k);
      now.finish();
      if (now.state[goal] != SneakLayer::away) {
        search.way = traced(k, goal);
        return search;
      }
      if (k >= 2 && now.is_empty && layer(k - 1).is_empty && layer(k - 2).is_empty) return search;
    }
    return search;
  }

 private:
  Seen& seen(std::uint32_t k) { return seen_[k % 4]; }
  const Seen& seen(std::uint32_t k) const { return seen_[k % 4]; }
  SneakLayer& layer(std::uint32_t k) { return layers_[k % 4]; }
  const SneakLayer& layer(std::uint32_t k) const { return layers_[k % 4]; }

  void begin(std::uint32_t start) {
    perception_.look(0, near_.only(start), seen(0));
    SneakLayer& first = layer(0);
    first.set_clean(start);
    Trail trail(floor_, watchers_);
    trail.take(first, start);
    if (!trail.pass(seen(0), start, start)) {
      first.state[start] = SneakLayer::away;
    } else {
      keep(first, start, 0, trail);
    }
  }

  void keep(SneakLayer& into, std::uint32_t spot, std::uint8_t move, const Trail& trail) {
    came_.back()[spot] = static_cast<std::uint8_t>(move + 1);
    if (trail.is_clean()) {
      into.set_clean(spot);
    } else {
      into.set_known(floor_, spot, trail.values());
    }
  }

  // A move goes over two places at most, and takes three moments at most.
  void fill(std::uint32_t k) {
    std::vector<const SneakLayer*> layers;
    for (std::uint32_t back = 1; back <= std::min(k, 3U); ++back)
      layers.push_back(&layer(k - back));
    const auto near = near_.around(layers, 2, effort_);
    perception_.look(k, near, seen(k));
    effort_.for_rows(floor_, [&](int row) {
      Trail trail(floor_, watchers_);
      for (std::uint32_t spot = floor_.first_of_row(row); spot < floor_.first_of_row(row + 1);
           ++spot) {
        if (near[floor_.square(spot)] == 0 || !floor_.stands[spot]) continue;
        if (!shut_.contains(key_of(k, spot))) fill(k, spot, trail);
      }
    });
  }

  void fill(std::uint32_t k, std::uint32_t spot, Trail& trail) {
    float best = 2.0F;
    for (std::uint8_t m = 0; m < moves_.size() && best > 0.0F; ++m) {
      if (!try_move(k, spot, moves_[m], trail)) continue;
      const float most = trail.is_clean() ? 0.0F : trail.most();
      // Whoever waits moves only for something that is worth it.
      constexpr float kWorthIt = 0.05F;
      if (most >= (best < 2.0F ? best - kWorthIt : best)) continue;
      best = most;
      keep(layer(k), spot, m, trail);
    }
  }

  // Goes along a move that ends in a place; the trail holds what comes of it.
  bool try_move(std::uint32_t k, std::uint32_t spot, const Move& move, Trail& trail) const {
    if (move.moments > k) return false;
    if (move.direction == 8) {
      const SneakLayer& from = layer(k - 1);
      if (from.state[spot] == SneakLayer::away) return false;
      trail.take(from, spot);
      return trail.pass(seen(k), spot, spot);
    }
    std::array<std::uint32_t, 3> places{};  // from the first on
    places[move.places] = spot;
    for (std::size_t i = move.places; i > 0; --i) {
      places[i - 1] = before(places[i], move);
      if (places[i - 1] == kNoSpot) return false;
    }
    const SneakLayer& from = layer(k - move.moments);
    if (from.state[places[0]] == SneakLayer::away) return false;
    trail.take(from, places[0]);
    for (std::uint32_t i = 1; i <= move.moments; ++i) {
      // Between two places it is taken to be in both.
      const double along = static_cast<double>(i) * move.places / move.moments;
      const auto before = static_cast<std::size_t>(along);
      const std::size_t after =
          std::min<std::size_t>(before + (along > double(before) ? 1 : 0), move.places);
      const std::uint32_t moment = k - move.moments + i;
      const bool is_shut = shut_.contains(key_of(moment, places[before])) ||
                           shut_.contains(key_of(moment, places[after]));
      if (is_shut || !trail.pass(seen(moment), places[before], places[after])) return false;
    }
    return true;
  }

  // From where a move in a direction comes to a place.
  std::uint32_t before(std::uint32_t spot, const Move& move) const {
    return floor_.joins[spot][(move.direction + 4U) % 8U];
  }

  std::vector<Step> traced(std::uint32_t k, std::uint32_t spot) const {
    std::vector<Step> way{{k, spot}};
    while (k > 0) {
      const Move& move = moves_[came_[k][spot] - 1U];
      for (int i = 0; i < move.places; ++i) spot = before(spot, move);
      k -= move.moments;
      way.push_back({k, spot});
    }
    std::reverse(way.begin(), way.end());
    return way;
  }

  const SneakFloor& floor_;
  Perception& perception_;
  const std::vector<Watcher>& watchers_;
  std::size_t moments_;
  SneakEffort& effort_;
  SneakNear near_;
  std::vector<Move> moves_;
  std::unordered_set<std::uint64_t> shut_;
  std::array<Seen, 4> seen_;
  std::array<SneakLayer, 4> layers_;
  std::vector<std::vector<std::uint8_t>> came_;  ///< By moment and place: the move, from 1 on.
};

}  // namespace

SneakSearch search_strictly(const SneakFloor& floor, Perception& perception,
                            const std::vector<Watcher>& watchers, std::size_t moments,
                            std::uint32_t start, std::uint32_t goal, std::span<const Step> shut,
                            SneakEffort& effort) {
  return Strict(floor, perception, watchers, moments, shut, effort).find(start, goal);
}

}  // namespace gaze
