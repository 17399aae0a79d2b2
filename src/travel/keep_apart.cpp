#include "travel/keep_apart.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

/// By which share of its wanted velocity an agent gives way to the right.
constexpr double kToTheRight = 0.15;

/// Square metres a square second. Lines at so small an angle to each other count as parallel.
constexpr double kParallel = 1e-10;

}  // namespace

Vector2d KeepApart::choose(const Pace& pace, std::span<const Neighbour> neighbours,
                           double seconds) {
  lines_.clear();
  for (const Neighbour& neighbour : neighbours) {
    lines_.push_back(line_for(pace, neighbour, seconds));
  }
  const bool is_free = std::all_of(lines_.begin(), lines_.end(), [&](const Line& line) {
    return cross(line.along, line.point - pace.wanted) <= 0.0;
  });
  if (is_free) return pace.wanted;
  // Two who meet head on would both stop. So who gives way does so a little to the right.
  const Vector2d aside{pace.wanted.y() * kToTheRight, -pace.wanted.x() * kToTheRight};
  const Vector2d wanted = pace.wanted + aside;
  Vector2d result = wanted;
  const std::size_t done = best(wanted, pace.most, false, result);
  if (done < lines_.size()) least_bad(done, pace.most, result);
  return result;
}

// The cone of relative velocities that lead to a touch within the horizon, cut off by a disc; the
// line touches its rim where the relative velocity is nearest to it.
KeepApart::Line KeepApart::line_for(const Pace& pace, const Neighbour& neighbour, double seconds) {
  const Vector2d& offset = neighbour.offset;
  const Vector2d relative = pace.velocity - neighbour.velocity;
  const double distance2 = dot(offset, offset);
  const double gap2 = neighbour.gap * neighbour.gap;
  const bool is_apart = distance2 > gap2;
  const double horizon = is_apart ? kKeepApartHorizon : seconds;
  const Vector2d from_disc = relative - offset / horizon;
  const double from_disc2 = dot(from_disc, from_disc);
  const double toward = dot(from_disc, offset);
  Line line;
  Vector2d change{0.0, 0.0};
  if (!is_apart || (toward < 0.0 && toward * toward > gap2 * from_disc2)) {
    const double length = std::sqrt(from_disc2);
    // Bodies in the very same place go apart along x.
    const Vector2d out = length > 0.0 ? Vector2d(from_disc / length) : Vector2d{1.0, 0.0};
    line.along = {out.y(), -out.x()};
    change = out * (neighbour.gap / horizon - length);
  } else {
    const double leg = std::sqrt(distance2 - gap2);
    const double gap = neighbour.gap;
    const bool is_left = cross(offset, from_disc) > 0.0;
    line.along =
        is_left ? Vector2d{offset.x() * leg - offset.y() * gap, offset.x() * gap + offset.y() * leg}
                : Vector2d{-(offset.x() * leg + offset.y() * gap),
                           -(offset.y() * leg - offset.x() * gap)};
    line.along /= distance2;
    change = line.along * dot(relative, line.along) - relative;
  }
  line.point = pace.velocity + change * neighbour.share;
  return line;
}

// The best velocity on one line that the lines before it allow.
bool KeepApart::along_line(std::size_t number, const Vector2d& wanted, double most,
                           bool only_direction, Vector2d& result) const {
  const Line& line = lines_[number];
  const double middle = dot(line.point, line.along);
  const double root2 = middle * middle + most * most - dot(line.point, line.point);
  if (root2 < 0.0) return false;
  double low = -middle - std::sqrt(root2);
  double high = -middle + std::sqrt(root2);
  for (std::size_t i = 0; i < number; ++i) {
    const double across = cross(line.along, lines_[i].along);
    const double side = cross(lines_[i].along, line.point - lines_[i].point);
    if (std::abs(across) <= kParallel) {
      if (side < 0.0) return false;
      continue;
    }
    const double share = side / across;
    if (across > 0.0) {
      high = std::min(high, share);
    } else {
      low = std::max(low, share);
    }
    if (low > high) return false;
  }
  double share = 0.0;
  if (only_direction) {
    share = dot(wanted, line.along) > 0.0 ? high : low;
  } else {
    share = std::clamp(dot(line.along, wanted - line.point), low, high);
  }
  result = line.point + line.along * share;
  return true;
}

/// @return The first line that cannot be kept, or how many there are.
std::size_t KeepApart::best(const Vector2d& wanted, double most, bool only_direction,
                            Vector2d& result) const {
  const double length = length_of(wanted);
  if (only_direction) {
    result = wanted * most;
  } else {
    result = length > most ? Vector2d(wanted * (most / length)) : wanted;
  }
  for (std::size_t i = 0; i < lines_.size(); ++i) {
    if (cross(lines_[i].along, lines_[i].point - result) <= 0.0) continue;
    const Vector2d before = result;
    if (!along_line(i, wanted, most, only_direction, result)) {
      result = before;
      return i;
    }
  }
  return lines_.size();
}

// When not all lines can be kept, as little of each as possible is given up. Each line so far,
// together with the one that cannot be kept, makes a new line that is equally far from both.
void KeepApart::least_bad(std::size_t first_bad, double most, Vector2d& result) {
  all_ = lines_;
  double distance = 0.0;
  for (std::size_t i = first_bad; i < all_.size(); ++i) {
    const Line& line = all_[i];
    if (cross(line.along, line.point - result) <= distance) continue;
    lines_.clear();
    for (std::size_t j = 0; j < i; ++j) {
      Line between;
      const double across = cross(line.along, all_[j].along);
      if (std::abs(across) <= kParallel) {
        if (dot(line.along, all_[j].along) > 0.0) continue;
        between.point = (line.point + all_[j].point) / 2.0;
      } else {
        const double share = cross(all_[j].along, line.point - all_[j].point) / across;
        between.point = line.point + line.along * share;
      }
      between.along = all_[j].along - line.along;
      const double length = length_of(between.along);
      if (length == 0.0) continue;
      between.along /= length;
      lines_.push_back(between);
    }
    const Vector2d before = result;
    if (best({-line.along.y(), line.along.x()}, most, true, result) < lines_.size()) {
      result = before;
    }
    distance = cross(line.along, line.point - result);
  }
}

}  // namespace gaze
