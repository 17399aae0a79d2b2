#include "sense/outlook.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

constexpr double kFullTurn = 4.0;

// Sides that meet at a corner are equally far there, but for rounding: relative.
constexpr double kMeeting = 1e-12;

const Direction kAlongX;

}  // namespace

std::optional<SidePart> within(const SidePart& side, double range2) {
  const double first2 = dot(side.first, side.first);
  const double last2 = dot(side.last, side.last);
  if (first2 <= range2 && last2 <= range2) return side;
  const Vector2d along = side.last - side.first;
  const double a = dot(along, along);
  const double half_b = dot(side.first, along);
  const double root = half_b * half_b - a * (first2 - range2);
  if (!(root > 0.0)) return std::nullopt;
  const double spread = std::sqrt(root);
  const double enter = (-half_b - spread) / a;
  const double leave = (-half_b + spread) / a;
  if (!(enter < 1.0 && leave > 0.0)) return std::nullopt;
  SidePart part = side;
  if (first2 > range2) part.first = side.first + along * enter;
  if (last2 > range2) part.last = side.first + along * leave;
  return part;
}

Outlook::Outlook(double range) : range_(range) {
  borders_.reserve(128);
  fresh_.reserve(32);
  sides_.reserve(128);
  borders_.push_back({});
}

void Outlook::clear(double range) {
  range_ = range;
  borders_.assign(1, {});
  sides_.clear();
}

std::uint32_t Outlook::add_side(const Vector2d& first, const Vector2d& last, const Vector2d& along,
                                SolidId solid) {
  sides_.push_back({Direction(first), Direction(along), cross(first, along),
                    std::max(dot(first, first), dot(last, last)), solid});
  return static_cast<std::uint32_t>(sides_.size() - 1);
}

void Outlook::take_over(std::span<const Border> stretches) {
  borders_.assign(stretches.begin(), stretches.end());
  if (borders_.size() == 1) borders_[0].direction = kAlongX;  // all round, wherever it begins
  for (Border& border : borders_) border.key = turn_key(border.direction.vector());
  // The list begins at +x, and goes round once.
  const auto first =
      std::min_element(borders_.begin(), borders_.end(),
                       [](const Border& a, const Border& b) { return a.key < b.key; });
  std::rotate(borders_.begin(), first, borders_.end());
  for (std::size_t i = 1; i < borders_.size(); ++i) {
    borders_[i].key = std::max(borders_[i].key, borders_[i - 1].key);  // but for rounding
  }
  if (borders_[0].key > 0.0) {
    borders_.insert(borders_.begin(), Border{0.0, kAlongX, borders_.back().side});
  }
}

void Outlook::close(const Vector2d& from, const Vector2d& to) {
  const double a = turn_key(from);
  const double b = turn_key(to);
  if (a == b) return;
  if (a < b) {
    borders_ = {{0.0, kAlongX, kOpen}, {a, Direction(from), kClosed}, {b, Direction(to), kOpen}};
  } else {
    borders_ = {{0.0, kAlongX, kClosed}, {b, Direction(to), kOpen}, {a, Direction(from), kClosed}};
  }
  if (borders_[1].key == 0.0) borders_.erase(borders_.begin());
}

void Outlook::add(const Vector2d& from, const Vector2d& to, SolidId solid) {
  const auto part = within({to, from}, range_ * range_);
  if (!part) return;
  const auto& [first, last] = *part;
  const Vector2d along = from - to;
  if (!(cross(first, along) > 0.0)) return;  // edge on: it hides no more than its neighbours
  const std::uint32_t index = add_side(first, last, along, solid);
  const double a = turn_key(first);
  const double b = turn_key(last);
  if (a <= b) {
    add_between(a, Direction(first), b, Direction(last), index);
  } else if (a - b < kFullTurn / 2.0) {
    sides_.pop_back();  // seen edge on but for rounding: no side takes up more than half a turn
  } else {
    add_between(a, Direction(first), kFullTurn, kAlongX, index);
    add_between(0.0, kAlongX, b, Direction(last), index);
  }
}

std::size_t Outlook::find(double key) const {
  std::size_t low = 0;
  std::size_t count = borders_.size();
  while (count > 1) {  // the last border whose key is not greater
    const std::size_t half = count / 2;
    low += half * static_cast<std::size_t>(borders_[low + half].key <= key);
    count -= half;
  }
  return low;
}

void Outlook::emit(double key, const Direction& direction, std::uint32_t side) {
  if (!fresh_.empty() && fresh_.back().side == side) return;
  if (!fresh_.empty() && fresh_.back().key == key) {
    fresh_.back() = {key, direction, side};
    return;
  }
  fresh_.push_back({key, direction, side});
}

// Where both are met, which of them is nearer from the border on to the next.
void Outlook::compare(const Border& border, const Border& next, std::uint32_t side) {
  if (border.side == kOpen) return emit(border.key, border.direction, side);
  if (border.side == kClosed) return emit(border.key, border.direction, border.side);
  const auto lead = [&](const Direction& direction) {  // of which the sign counts
    const double own = sides_[side].turn * cross(direction, sides_[border.side].along);
    const double other = sides_[border.side].turn * cross(direction, sides_[side].along);
    return std::abs(other - own) <= kMeeting * std::abs(other) ? 0.0 : other - own;
  };
  const double at_start = lead(border.direction);
  const double at_end = lead(next.direction);
  if (at_start <= 0.0 && at_end <= 0.0) return emit(border.key, border.direction, border.side);
  if (at_start >= 0.0 && at_end >= 0.0) return emit(border.key, border.direction, side);
  const Side& one = sides_[side];
  const Side& other = sides_[border.side];
  const Vector2d between = other.from.vector() - one.from.vector();
  const double share = cross(between, other.along.vector()) / cross(one.along, other.along);
  const Direction crossing(one.from.vector() + one.along.vector() * share);
  const double key = std::clamp(turn_key(crossing.vector()), border.key, next.key);
  emit(border.key, border.direction, at_start > 0.0 ? side : border.side);
  emit(key, crossing, at_start > 0.0 ? border.side : side);
}

void Outlook::add_between(double from_key, const Direction& from, double to_key,
                          const Direction& to, std::uint32_t side) {
  if (!(from_key < to_key)) return;
  const std::size_t first = find(from_key);
  std::size_t at = first;
  fresh_.clear();
  Border border = borders_[first];
  if (border.key < from_key) {
    fresh_.push_back(border);
    border.key = from_key;
    border.direction = from;
  }
  Border next;
  do {
    const bool is_last = ++at == borders_.size();
    next = is_last ? Border{kFullTurn, kAlongX, kOpen} : borders_[at];
    if (next.key > to_key) {
      compare(border, {to_key, to, kOpen}, side);
      emit(to_key, to, border.side);
      break;
    }
    compare(border, next, side);
    border = next;
  } while (next.key < to_key);
  const bool is_changed = std::any_of(fresh_.begin(), fresh_.end(),
                                      [&](const Border& one) { return one.side == side; });
  if (!is_changed) return;
  // What follows may go on with the side that the fresh ones end with.
  if (at < borders_.size() && borders_[at].side == fresh_.back().side) ++at;
  replace(first, at - first);
}

void Outlook::replace(std::size_t first, std::size_t count) {
  const auto place = borders_.begin() + static_cast<std::ptrdiff_t>(first);
  const auto fresh = static_cast<std::ptrdiff_t>(fresh_.size());
  const auto old = static_cast<std::ptrdiff_t>(count);
  std::copy_n(fresh_.begin(), std::min(fresh, old), place);
  if (fresh < old) {
    borders_.erase(place + fresh, place + old);
  } else {
    borders_.insert(place + old, fresh_.begin() + old, fresh_.end());
  }
}

double Outlook::farthest2(std::uint32_t side) const {
  if (side == kOpen) return range_ * range_;
  return side == kClosed ? 0.0 : sides_[side].farthest2;
}

bool Outlook::hides_between(double from, double to, double distance2) const {
  for (std::size_t at = find(from); at < borders_.size() && borders_[at].key <= to; ++at) {
    if (farthest2(borders_[at].side) > distance2) return false;
  }
  return true;
}

bool Outlook::hides(double from, double to, double distance2) const {
  if (from <= to) return hides_between(from, to, distance2);
  return hides_between(from, kFullTurn, distance2) && hides_between(0.0, to, distance2);
}

}  // namespace gaze
