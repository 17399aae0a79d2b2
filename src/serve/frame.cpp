#include "serve/frame.hpp"

#include <algorithm>
#include <cmath>

namespace gaze::serve {
namespace {

constexpr double kInAMetre = 1000.0;

/// Writes numbers as few bytes: seven bits each, the lowest first.
class FrameWriter {
 public:
  explicit FrameWriter(std::string& bytes) : bytes_(bytes) {}

  void byte(unsigned value) { bytes_.push_back(static_cast<char>(value)); }
  void number(std::uint64_t value) {
    while (value >= 0x80) {
      byte(static_cast<unsigned>(value & 0x7F) | 0x80U);
      value >>= 7U;
    }
    byte(static_cast<unsigned>(value));
  }
  // Those below 0 lie between the others: 0, -1, 1, -2, 2.
  void signed_number(std::int64_t value) {
    number((static_cast<std::uint64_t>(value) << 1U) ^ static_cast<std::uint64_t>(value >> 63));
  }
  void point(const Vector2d& p) {
    const std::int64_t x = std::llround(p.x() * kInAMetre);
    const std::int64_t y = std::llround(p.y() * kInAMetre);
    signed_number(x - x_);
    signed_number(y - y_);
    x_ = x;
    y_ = y;
  }
  void text(std::string_view text) {
    number(text.size());
    bytes_.append(text);
  }

 private:
  std::string& bytes_;
  std::int64_t x_ = 0;
  std::int64_t y_ = 0;
};

template <typename Id>
std::uint64_t one_more(const std::optional<Id>& id) {
  return id ? std::uint64_t{id->index} + 1 : 0;
}

void write(FrameWriter& to, const Mark& mark) {
  to.byte(static_cast<unsigned>(mark.form) | static_cast<unsigned>(mark.layer) << 2U);
  to.byte(static_cast<unsigned>(mark.meaning));
  to.number(mark.number == kNoTeam ? 0 : std::uint64_t{mark.number} + 1);
  to.number(one_more(mark.who));
  to.number(one_more(mark.solid));
  to.byte(static_cast<unsigned>(std::lround(std::clamp(mark.share, 0.0, 1.0) * 255.0)));
  to.number(static_cast<std::uint64_t>(std::llround(mark.radius * kInAMetre)));
  to.signed_number(std::llround(mark.height * kInAMetre));
  to.number(mark.points.size());
  for (const Vector2d& p : mark.points) to.point(p);
  if (mark.form == Mark::Form::text) to.text(mark.text);
}

}  // namespace

std::string frame_bytes(FrameOf what, std::int64_t tick, std::span<const Mark> marks) {
  std::string bytes;
  FrameWriter to(bytes);
  to.byte(static_cast<unsigned>(what));
  to.number(static_cast<std::uint64_t>(tick));
  to.number(marks.size());
  for (const Mark& mark : marks) write(to, mark);
  return bytes;
}

}  // namespace gaze::serve
