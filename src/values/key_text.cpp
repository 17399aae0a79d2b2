#include "values/key_text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <cmath>

namespace gaze {
namespace {

using Sort = Key::Sort;

// 86400 is "86,400"; what is not whole has as many places as it needs.
std::string number_in_words(double value) {
  if (value != std::floor(value)) return fmt::format("{:g}", value);
  const std::string digits = fmt::format("{:.0f}", std::abs(value));
  std::string text = value < 0.0 ? "-" : "";
  for (std::size_t i = 0; i < digits.size(); ++i) {
    const bool begins_three = i > 0 && (digits.size() - i) % 3 == 0;
    if (begins_three && digits.size() > 4) text += ',';
    text += digits[i];
  }
  return text;
}

std::string range_text(const Allowed& allowed) {
  const std::string from = (allowed.above_low ? "above " : "") + number_in_words(allowed.low);
  const std::string unit = allowed.unit.empty() ? "" : fmt::format(" {}", allowed.unit);
  if (allowed.high >= kWithoutEnd) return from + " and up" + unit;
  if (allowed.low == allowed.high) return number_in_words(allowed.low);
  return fmt::format("{} to {}{}", from, number_in_words(allowed.high), unit);
}

std::string words_text(const Key& key) {
  return fmt::format("`\"{}\"`", fmt::join(words_of(key), "\"`, `\""));
}

std::string plain_type_text(const Key& key) {
  switch (key.sort) {
    case Sort::number:
      return range_text(key.allowed);
    case Sort::whole:
      return "whole, " + range_text(key.allowed);
    case Sort::truth:
      return "true, false";
    case Sort::text:
      return "text";
    case Sort::name:
      return "name";
    case Sort::word:
      return words_text(key);
    case Sort::names:
      return "list of names";
    case Sort::words:
      return "list of " + words_text(key);
    case Sort::numbers:
      return fmt::format("{} numbers, {}", key.count, range_text(key.allowed));
    case Sort::list:
      return fmt::format("up to {} numbers, {}", key.count, range_text(key.allowed));
    case Sort::point:
      return "point";
    case Sort::point3:
      return "[x, y, z]";
    case Sort::outline:
      return "points";
    case Sort::patrol:
      return "list of points";
    case Sort::script:
      return "list of steps";
    case Sort::reaction:
      return "reaction";
    case Sort::reactions:
      return fmt::format("reactions by {}", key.words);
    case Sort::picks:
      return fmt::format("list of {} events", key.count);
    case Sort::track:
      return "file name, or table";
    case Sort::settings:
      return "table of paths and values";
    case Sort::amounts:
      return "table of numbers, " + range_text(key.allowed);
  }
  return {};
}

}  // namespace

std::string type_text(const Key& key) {
  return plain_type_text(key) + (key.can_be_false ? ", or false" : "");
}

std::string left_out_text(const Key& key) {
  if (key.left_out.number) return number_in_words(*key.left_out.number);
  const std::string words(key.left_out.words);
  return index_of_word(key, words) ? fmt::format("`\"{}\"`", words) : words;
}

}  // namespace gaze
