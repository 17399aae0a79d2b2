#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <optional>
#include <span>
#include <vector>

#include "gaze/world.hpp"
#include "geometry/plan.hpp"

namespace gaze {

/// Grows with the angle of a vector from +x, anticlockwise, from 0 to 4: where the vector meets the
/// diamond |x| + |y| = 1. Equal vectors have equal keys.
/// One division and no branches: which way a vector points cannot be predicted. Adding 0 makes +0
/// of -0, which would count as just below +x.
inline double turn_key(const Vector2d& v) noexcept {
  const double size = std::abs(v.x()) + std::abs(v.y());
  const double turned = 1.0 - v.x() / std::max(size, std::numeric_limits<double>::min());
  return 2.0 - std::copysign(2.0 - turned, v.y() + 0.0);
}

/// A vector that a list can move as bytes.
struct Direction {
  double x = 1.0;
  double y = 0.0;

  Direction() = default;
  explicit Direction(const Vector2d& v) : x(v.x()), y(v.y()) {}
  Vector2d vector() const { return {x, y}; }
};

inline double cross(const Direction& a, const Direction& b) {
  return a.x * b.y - a.y * b.x;
}

/// A side, or a part of one.
struct SidePart {
  Vector2d first{0.0, 0.0};
  Vector2d last{0.0, 0.0};
};

/// What of it is within a range of the origin; nothing if it only touches the circle.
[[nodiscard]] std::optional<SidePart> within(const SidePart& side, double range2);

/// How far one can see in each direction about the origin, up to a range: the nearest of straight
/// sides, kept as a list of borders by direction. Sides may be added in any order; those that are
/// near are best added first, for what they hide can then be left out.
class Outlook {
 public:
  static constexpr std::uint32_t kOpen = 0xFFFFFFFF;    ///< As far as the range.
  static constexpr std::uint32_t kClosed = 0xFFFFFFFE;  ///< Outside of the field of view.

  /// From this direction up to that of the next border the same side is nearest.
  struct Border {
    double key = 0.0;
    Direction direction;
    std::uint32_t side = kOpen;
  };

  struct Side {
    Direction from;  ///< Anticlockwise as seen from the origin.
    Direction along;
    double turn = 0.0;       ///< cross(from, along) > 0
    double farthest2 = 0.0;  ///< Squared distance of its farther end.
    SolidId solid;
  };

  explicit Outlook(double range);

  /// Begins anew.
  void clear(double range);

  /// A straight side whose stretch of directions somebody else finds out.
  std::uint32_t add_side(const Vector2d& first, const Vector2d& last, const Vector2d& along,
                         SolidId solid);

  /// Takes stretches over that have been found otherwise, anticlockwise all round, each up to the
  /// next; the last goes on to the first. Their keys are not looked at.
  void take_over(std::span<const Border> stretches);

  /// Nothing is seen anticlockwise from one direction to another.
  void close(const Vector2d& from, const Vector2d& to);

  /// A side that the origin sees from outside, as it runs in its solid: clockwise seen from here.
  void add(const Vector2d& from, const Vector2d& to, SolidId solid);

  /// True if everything between two keys that is at least so far away is hidden; the keys may wrap.
  bool hides(double from, double to, double distance2) const;

  const std::vector<Border>& borders() const { return borders_; }
  const Side& side(std::uint32_t index) const { return sides_[index]; }

  /// How many times a direction goes into the way to a side that it meets.
  double distance(std::uint32_t side, const Direction& direction) const {
    return sides_[side].turn / cross(direction, sides_[side].along);
  }

 private:
  void add_between(double from_key, const Direction& from, double to_key, const Direction& to,
                   std::uint32_t side);
  void replace(std::size_t first, std::size_t count);
  void compare(const Border& border, const Border& next, std::uint32_t side);
  void emit(double key, const Direction& direction, std::uint32_t side);
  std::size_t find(double key) const;
  bool hides_between(double from, double to, double distance2) const;
  double farthest2(std::uint32_t side) const;

  double range_;
  std::vector<Border> borders_;  ///< By key, from 0; the last lasts up to 4.
  std::vector<Border> fresh_;    ///< Scratch.
  std::vector<Side> sides_;
};

}  // namespace gaze
