#include "file/value_text.hpp"

#include <algorithm>

namespace gaze {
namespace {

// Behind a text that begins with a quote: of one line or of several, with escapes or without.
std::size_t end_of_quoted(std::string_view text, std::size_t begin) {
  const char quote = text[begin];
  const bool has_lines = text.substr(begin, 3) == std::string(3, quote);
  const std::string end(has_lines ? 3 : 1, quote);
  for (std::size_t i = begin + end.size(); i < text.size(); ++i) {
    if (quote == '"' && text[i] == '\\') {
      ++i;
    } else if (text.substr(i, end.size()) == end) {
      i += end.size();
      // Up to two quotes more belong to a text of several lines.
      while (has_lines && i < text.size() && text[i] == quote) ++i;
      return i;
    }
  }
  return text.size();
}

std::size_t end_of_bracketed(std::string_view text, std::size_t begin) {
  int depth = 0;
  for (std::size_t i = begin; i < text.size();) {
    const char c = text[i];
    if (c == '"' || c == '\'') {
      i = end_of_quoted(text, i);
      continue;
    }
    if (c == '#') {
      i = std::min(text.find('\n', i), text.size());
      continue;
    }
    ++i;
    if (c == '[' || c == '{') ++depth;
    if ((c == ']' || c == '}') && --depth == 0) return i;
  }
  return text.size();
}

}  // namespace

std::size_t begin_of(std::string_view text) {
  return text.starts_with("\xEF\xBB\xBF") ? 3 : 0;
}

std::size_t offset_of(std::string_view text, const Place& place) {
  std::size_t at = begin_of(text);
  for (int line = 1; line < place.line; ++line) at = next_line(text, at);
  const auto goes_on = [&] { return at < text.size() && (text[at] & 0xC0) == 0x80; };
  for (int column = 1; column < place.column && at < text.size(); ++column) {
    ++at;
    while (goes_on()) ++at;
  }
  return at;
}

std::size_t end_of_value(std::string_view text, std::size_t begin) {
  if (begin >= text.size()) return text.size();
  const char first = text[begin];
  if (first == '"' || first == '\'') return end_of_quoted(text, begin);
  if (first == '[' || first == '{') return end_of_bracketed(text, begin);
  const std::size_t end = std::min(text.find_first_of(",]}#\r\n", begin), text.size());
  const std::size_t last = text.find_last_not_of(" \t", end - 1);
  return last + 1;
}

std::size_t next_line(std::string_view text, std::size_t offset) {
  const std::size_t end = text.find('\n', offset);
  return end == std::string_view::npos ? text.size() : end + 1;
}

bool is_first_on_line(std::string_view text, std::size_t offset) {
  while (offset > 0 && (text[offset - 1] == ' ' || text[offset - 1] == '\t')) --offset;
  return offset == 0 || text[offset - 1] == '\n';
}

}  // namespace gaze
