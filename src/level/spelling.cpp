#include "level/spelling.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <numeric>

namespace gaze {
namespace {

char lower(char c) {
  return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
}

bool is_letter_of_a_name(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' ||
         c == '-';
}

std::size_t distance(std::string_view a, std::string_view b) {
  std::vector<std::size_t> row(b.size() + 1);
  std::iota(row.begin(), row.end(), std::size_t{0});
  for (std::size_t i = 0; i < a.size(); ++i) {
    std::size_t diagonal = row[0];
    row[0] = i + 1;
    for (std::size_t j = 0; j < b.size(); ++j) {
      const std::size_t changed = diagonal + (lower(a[i]) == lower(b[j]) ? 0 : 1);
      diagonal = row[j + 1];
      row[j + 1] = std::min({changed, row[j] + 1, row[j + 1] + 1});
    }
  }
  return row.back();
}

/// What others call a key.
struct OtherWord {
  std::string_view written;
  std::string_view name;
};
constexpr std::array<OtherWord, 32> kOtherWords{{
    {"fov", "field_of_view"},
    {"view_angle", "field_of_view"},
    {"angle", "field_of_view"},
    {"cone", "field_of_view"},
    {"distance", "range"},
    {"reach", "range"},
    {"view_distance", "range"},
    {"hp", "health"},
    {"life", "health"},
    {"hit_points", "health"},
    {"dmg", "damage"},
    {"hurt", "damage"},
    {"velocity", "speed"},
    {"move_speed", "speed"},
    {"position", "at"},
    {"pos", "at"},
    {"place", "at"},
    {"rotation", "facing"},
    {"direction", "facing"},
    {"heading", "facing"},
    {"rate", "cooldown"},
    {"interval", "cooldown"},
    {"reload_time", "reload"},
    {"waypoints", "patrol"},
    {"route", "patrol"},
    {"memory", "remember"},
    {"forget", "remember"},
    {"delay", "after"},
    {"points", "outline"},
    {"polygon", "outline"},
    {"inherits", "like"},
    {"type", "kind"},
}};

bool is_word_of(std::string_view word, std::string_view name) {
  const std::size_t at = name.find(word);
  if (word.size() < 3 || at == std::string_view::npos) return false;
  const bool begins = at == 0 || name[at - 1] == '_' || name[at - 1] == '-';
  const std::size_t end = at + word.size();
  return begins && (end == name.size() || name[end] == '_' || name[end] == '-');
}

std::string_view known_by_another_word(std::string_view written,
                                       std::span<const std::string> names) {
  for (const OtherWord& word : kOtherWords) {
    if (word.written != written) continue;
    const auto it = std::find(names.begin(), names.end(), word.name);
    if (it != names.end()) return *it;
  }
  return {};
}

}  // namespace

std::string_view nearest_name(std::string_view written, std::span<const std::string> names) {
  constexpr std::size_t kLongest = 100;
  if (written.size() > kLongest) return {};
  std::string known(written);
  std::transform(known.begin(), known.end(), known.begin(), lower);
  for (const std::string& name : names) {
    if (name.size() == known.size() && distance(name, known) == 0) return name;
  }
  if (const auto name = known_by_another_word(known, names); !name.empty()) return name;
  for (const std::string& name : names) {
    if (is_word_of(known, name)) return name;
  }
  std::string_view best;
  std::size_t best_distance = std::max<std::size_t>(2, written.size() / 3) + 1;
  for (const std::string& name : names) {
    if (name.size() > kLongest) continue;
    const std::size_t candidate = distance(written, name);
    if (candidate < best_distance) {
      best = name;
      best_distance = candidate;
    }
  }
  return best;
}

std::string suggestion(std::string_view written, std::span<const std::string> names) {
  const std::string_view nearest = nearest_name(written, names);
  return nearest.empty() ? std::string() : fmt::format("; did you mean '{}'?", nearest);
}

bool differ_by_case(std::string_view a, std::string_view b) {
  return a != b && a.size() == b.size() && distance(a, b) == 0;
}

std::string on_one_line(std::string_view text) {
  std::string line;
  for (const char letter : text) {
    const auto code = static_cast<unsigned char>(letter);
    line += code < 0x20 || code == 0x7F ? fmt::format("\\x{:02X}", code) : std::string(1, letter);
  }
  return line;
}

bool is_name(std::string_view text) {
  return !text.empty() && std::all_of(text.begin(), text.end(), is_letter_of_a_name);
}

std::string wrapped(std::string_view line, std::size_t columns, std::size_t indent) {
  if (columns <= indent + 1) return std::string(line);
  std::string text;
  std::size_t room = columns;
  while (line.size() > room) {
    std::size_t end = line.rfind(' ', room);
    if (end == std::string_view::npos || end == 0) end = line.find(' ', room);
    if (end == std::string_view::npos) break;
    text.append(line.substr(0, end)).append("\n").append(indent, ' ');
    line.remove_prefix(end + 1);
    room = columns - indent;
  }
  return text.append(line);
}

}  // namespace gaze
