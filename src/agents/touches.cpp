#include "agents/touches.hpp"

#include <algorithm>

#include "agents/everyone.hpp"
#include "gaze/sides.hpp"

namespace gaze {

std::optional<Side> Touches::side(const Everyone& all, std::uint32_t who,
                                  std::uint32_t other) const {
  const auto side =
      touched_side(all.plane(), all.body(who), all.bodies.facing[who], all.body(other),
                   all.bodies.previous[who], all.bodies.previous[other]);
  if (!side) return side;
  for (const Touching& one : touching_[who]) {
    if (one.other == other) return one.side;
  }
  return side;
}

std::optional<Side> Touches::note(const Everyone& all, std::uint32_t who, std::uint32_t other) {
  const auto side = this->side(all, who, other);
  std::vector<Touching>& known = touching_[who];
  const bool is_new = std::none_of(known.begin(), known.end(),
                                   [&](const Touching& one) { return one.other == other; });
  if (side && is_new) known.push_back({other, *side});
  return side;
}

void Touches::forget_gone(const Everyone& all, std::uint32_t who) {
  std::erase_if(touching_[who], [&](const Touching& one) {
    return !all.lives.alive[one.other] || !side(all, who, one.other);
  });
}

}  // namespace gaze
