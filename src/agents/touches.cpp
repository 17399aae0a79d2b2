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
  const std::vector<Touching>* known = touching_[who];
  if (known == nullptr) return side;
  for (const Touching& one : *known) {
    if (one.other == other) return one.side;
  }
  return side;
}

std::optional<Side> Touches::note(const Everyone& all, std::uint32_t who, std::uint32_t other) {
  const auto side = this->side(all, who, other);
  if (!side) return side;
  std::vector<Touching>& known = touching_.get(who);
  const bool is_new = std::none_of(known.begin(), known.end(),
                                   [&](const Touching& one) { return one.other == other; });
  if (is_new) known.push_back({other, *side});
  return side;
}

void Touches::forget_gone(const Everyone& all, std::uint32_t who) {
  std::vector<Touching>* known = touching_[who];
  if (known == nullptr) return;
  std::erase_if(*known, [&](const Touching& one) {
    return !all.lives.alive[one.other] || !side(all, who, one.other);
  });
}

}  // namespace gaze
