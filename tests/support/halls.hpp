#pragma once

#include <cmath>
#include <cstdint>
#include <vector>

#include "scenes.hpp"
#include "support/levels.hpp"

/// Random halls full of solids that lie to each other in every way that a level can hold.
namespace gaze::testing {

/// How the solids of a random level lie to each other.
enum class Sort { anyhow, in_steps, touching, slabs, thin };

inline Solid turned_box(scenes::Random& random, const Vector2d& at, double width, double depth) {
  const double angle = random.between(0.0, 6.283);
  const Vector2d along{std::cos(angle), std::sin(angle)};
  const Vector2d across{-along.y(), along.x()};
  Solid solid;
  solid.form = Solid::Form::block;
  solid.height = 2.5;
  solid.points = {at, at + along * width, at + along * width + across * depth, at + across * depth};
  return solid;
}

/// Solids in a hall of 8 m with a wall around it.
inline Level hall_of(Sort sort, std::uint64_t seed) {
  scenes::Random random(seed * 977 + static_cast<std::uint64_t>(sort));
  const auto stepped = [&](double low, double high, double step) {
    return std::floor(random.between(low, high) / step) * step;
  };
  std::vector<Solid> solids;
  solids.push_back(box({-0.5, -0.5}, {8.5, 0.0}));
  solids.push_back(box({-0.5, 8.0}, {8.5, 8.5}));
  solids.push_back(box({-0.5, -0.5}, {0.0, 8.5}));
  solids.push_back(box({8.0, -0.5}, {8.5, 8.5}));
  for (int i = 0; i < 9; ++i) {
    const Vector2d at{random.between(0.0, 7.0), random.between(0.0, 7.0)};
    if (sort == Sort::anyhow) {
      solids.push_back(turned_box(random, at, random.between(0.3, 3.0), random.between(0.2, 1.0)));
    } else if (sort == Sort::thin) {
      solids.push_back(turned_box(random, at, random.between(0.5, 4.0), 0.01));
    } else {
      const double step = sort == Sort::touching ? 1.0 : 0.2;
      const Vector2d low{stepped(0.0, 7.0, step), stepped(0.0, 7.0, step)};
      const bool lies = random.between(0.0, 1.0) < 0.5;
      const double length =
          sort == Sort::slabs ? stepped(1.0, 5.0, 0.2) : stepped(0.4, 2.2, step) + step;
      const double depth = sort == Sort::slabs ? 0.2 : stepped(0.4, 1.4, step) + step;
      solids.push_back(box(low, low + (lies ? Vector2d{length, depth} : Vector2d{depth, length})));
    }
  }
  return level_of(solids);
}

}  // namespace gaze::testing
