#include "sense/outlook.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

constexpr double kFullTurn = 4.0;

// Sides that meet at a corner are equally far there, but for rounding: relative.
constexpr double kMeeting = 1e-12;

const Vector2d kAlongX{1.0, 0.0};

}  // namespace

double turn_key(const Vector2d& v) noexcept {
  const double x = v.x();
  const double y = v.y();
  if (y >= 0.0) return x >= 0.0 ? (x + y > 0.0 ? y / (x + y) : 0.0) : 1.0 - x / (y - x);
  return x < 0.0 ? 2.0 - y / (-x - y) : 3.0 + x / (x - y);
}

Outlook::Outlook(double range) : range_(range) {
  borders_.reserve(128);
  fresh_.reserve(32);
  sides_.reserve(128);
  borders_.push_back({});
}

void Outlook::close(const Vector2d& from, const Vector2d& to) {
  const double a = turn_key(from);
  const double b = turn_key(to);
  if (a == b) return;
  if (a < b) {
    borders_ = {{0.0, kAlongX, kOpen}, {a, from, kClosed}, {b, to, kOpen}};
  } else {
    borders_ = {{0.0, kAlongX, kClosed}, {b, to, kOpen}, {a, from, kClosed}};
  }
  if (borders_[1].key == 0.0) borders_.erase(borders_.begin());
}

// The part of it within the range, which sides that reach beyond it are cut to.
void Outlook::add(const Vector2d& from, const Vector2d& to, SolidId solid) {
  Vector2d first = to;
  Vector2d last = from;
  const double most = range_ * range_;
  const double first2 = dot(first, first);
  const double last2 = dot(last, last);
  const Vector2d along = last - first;
  if (first2 > most || last2 > most) {
    const double a = dot(along, along);
    const double half_b = dot(first, along);
    const double root = half_b * half_b - a * (first2 - most);
    if (!(root > 0.0)) return;
    const double spread = std::sqrt(root);
    const double enter = (-half_b - spread) / a;
    const double leave = (-half_b + spread) / a;
    if (!(enter < 1.0 && leave > 0.0)) return;
    const Vector2d start = first;
    if (first2 > most) first = start + along * enter;
    if (last2 > most) last = start + along * leave;
  }
  const double turn = cross(first, along);
  if (!(turn > 0.0)) return;  // seen edge on: it hides nothing that its neighbours do not
  const auto index = static_cast<std::uint32_t>(sides_.size());
  sides_.push_back({first, along, turn, std::max(dot(first, first), dot(last, last)), solid});
  const double a = turn_key(first);
  const double b = turn_key(last);
  if (a <= b) {
    add_between(a, first, b, last, index);
  } else {
    add_between(a, first, kFullTurn, kAlongX, index);
    add_between(0.0, kAlongX, b, last, index);
  }
}

std::size_t Outlook::find(double key) const {
  std::size_t low = 0;
  std::size_t count = borders_.size();
  while (count > 1) {  // the last border whose key is not greater
    const std::size_t half = count / 2;
    low = borders_[low + half].key <= key ? low + half : low;
    count -= half;
  }
  return low;
}

void Outlook::emit(double key, const Vector2d& direction, std::uint32_t side) {
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
  const auto lead = [&](const Vector2d& direction) {
    const double own = distance(side, direction);
    const double other = distance(border.side, direction);
    return std::abs(own - other) <= kMeeting * other ? 0.0 : other - own;
  };
  const double at_start = lead(border.direction);
  const double at_end = lead(next.direction);
  if (at_start <= 0.0 && at_end <= 0.0) return emit(border.key, border.direction, border.side);
  if (at_start >= 0.0 && at_end >= 0.0) return emit(border.key, border.direction, side);
  const Side& one = sides_[side];
  const Side& other = sides_[border.side];
  const double share = cross(other.from - one.from, other.along) / cross(one.along, other.along);
  const Vector2d crossing = one.from + one.along * share;
  const double key = std::clamp(turn_key(crossing), border.key, next.key);
  emit(border.key, border.direction, at_start > 0.0 ? side : border.side);
  emit(key, crossing, at_start > 0.0 ? border.side : side);
}

void Outlook::add_between(double from_key, const Vector2d& from, double to_key, const Vector2d& to,
                          std::uint32_t side) {
  if (!(from_key < to_key)) return;
  const std::size_t first = find(from_key);
  std::size_t at = first;
  fresh_.clear();
  if (borders_[first].key < from_key) fresh_.push_back(borders_[first]);
  bool is_changed = false;
  for (; at < borders_.size() && borders_[at].key < to_key; ++at) {
    Border border = borders_[at];
    if (border.key < from_key) {
      border.key = from_key;
      border.direction = from;
    }
    const bool is_last = at + 1 == borders_.size();
    const double next_key = is_last ? kFullTurn : borders_[at + 1].key;
    Border next{next_key, is_last ? kAlongX : borders_[at + 1].direction, kOpen};
    if (next_key > to_key) next = {to_key, to, kOpen};
    compare(border, next, side);
    is_changed |=
        fresh_.back().side == side || (fresh_.size() > 1 && fresh_[fresh_.size() - 2].side == side);
    if (next_key > to_key) {
      emit(to_key, to, borders_[at].side);
      ++at;
      break;
    }
  }
  if (!is_changed) return;
  // What follows may go on with the side that the fresh ones end with.
  if (at < borders_.size() && borders_[at].side == fresh_.back().side) ++at;
  const std::size_t old = at - first;
  const auto place = borders_.begin() + static_cast<std::ptrdiff_t>(first);
  if (fresh_.size() <= old) {
    std::copy(fresh_.begin(), fresh_.end(), place);
    borders_.erase(place + static_cast<std::ptrdiff_t>(fresh_.size()),
                   place + static_cast<std::ptrdiff_t>(old));
  } else {
    const auto middle = fresh_.begin() + static_cast<std::ptrdiff_t>(old);
    std::copy(fresh_.begin(), middle, place);
    borders_.insert(place + static_cast<std::ptrdiff_t>(old), middle, fresh_.end());
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
