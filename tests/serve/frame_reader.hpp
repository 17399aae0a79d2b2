#pragma once

#include <cstdint>
#include <stdexcept>
#include <string>
#include <vector>

#include "gaze/drawing.hpp"

namespace gaze::testing {

/// Reads frames by their description in docs/page-protocol.md, to hold them against what was drawn.
class FrameReader {
 public:
  explicit FrameReader(const std::string& bytes) : bytes_(bytes) {}

  unsigned byte() {
    if (at_ == bytes_.size()) throw std::runtime_error("ends too soon");
    return static_cast<unsigned char>(bytes_[at_++]);
  }
  std::uint64_t number() {
    std::uint64_t value = 0;
    for (unsigned shift = 0;; shift += 7) {
      const unsigned one = byte();
      value |= std::uint64_t{one & 0x7FU} << shift;
      if (one < 0x80) return value;
    }
  }
  std::int64_t signed_number() {
    const std::uint64_t value = number();
    const auto half = static_cast<std::int64_t>(value / 2);
    return value % 2 == 0 ? half : -half - 1;
  }
  std::string text() {
    const std::size_t size = number();
    at_ += size;
    return bytes_.substr(at_ - size, size);
  }
  bool is_at_end() const { return at_ == bytes_.size(); }

 private:
  const std::string& bytes_;
  std::size_t at_ = 0;
};

struct FrameMark {
  unsigned form = 0;
  unsigned layer = 0;
  unsigned meaning = 0;
  std::uint64_t number = 0;
  std::uint64_t who = 0;
  std::uint64_t solid = 0;
  unsigned share = 0;
  std::uint64_t radius = 0;
  std::int64_t height = 0;
  std::vector<std::pair<std::int64_t, std::int64_t>> points;
  std::string text;
};

struct ReadFrame {
  unsigned of = 0;
  std::uint64_t tick = 0;
  std::vector<FrameMark> marks;
};

inline ReadFrame read_frame(const std::string& bytes) {
  FrameReader from(bytes);
  ReadFrame frame;
  frame.of = from.byte();
  frame.tick = from.number();
  std::int64_t x = 0;
  std::int64_t y = 0;
  for (std::uint64_t left = from.number(); left > 0; --left) {
    FrameMark& mark = frame.marks.emplace_back();
    const unsigned head = from.byte();
    mark.form = head & 3U;
    mark.layer = head >> 2U;
    mark.meaning = from.byte();
    mark.number = from.number();
    mark.who = from.number();
    mark.solid = from.number();
    mark.share = from.byte();
    mark.radius = from.number();
    mark.height = from.signed_number();
    for (std::uint64_t points = from.number(); points > 0; --points) {
      x += from.signed_number();
      y += from.signed_number();
      mark.points.emplace_back(x, y);
    }
    if (mark.form == 3) mark.text = from.text();
  }
  if (!from.is_at_end()) throw std::runtime_error("goes on beyond its marks");
  return frame;
}

}  // namespace gaze::testing
