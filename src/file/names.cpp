#include "file/names.hpp"

#include <fmt/format.h>

#include <algorithm>
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

}  // namespace

std::string_view nearest_name(std::string_view written, std::span<const std::string> names) {
  constexpr std::size_t kLongest = 100;
  if (written.size() > kLongest) return {};
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

bool is_name(std::string_view text) {
  return !text.empty() && std::all_of(text.begin(), text.end(), is_letter_of_a_name);
}

}  // namespace gaze
