#include "gaze/error.hpp"

#include <fmt/format.h>

#include "level/spelling.hpp"

namespace gaze {

std::string text_of(const Place& place) {
  if (place.line == 0) return place.file;
  return fmt::format("{}:{}:{}", place.file, place.line, place.column);
}

std::string Fault::text() const {
  const bool is_said = place.line == 0 && message.starts_with(place.file);
  return on_one_line(is_said ? "error: " + message
                             : fmt::format("{}: error: {}", text_of(place), message));
}

LevelError::LevelError(std::vector<Fault> faults)
    : std::runtime_error(faults.empty() ? "unreadable level" : faults.front().text()),
      faults_(std::move(faults)) {}

}  // namespace gaze
