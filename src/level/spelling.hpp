#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace gaze {

/// The name most likely meant by what was written: the same but for case, else another word for it
/// (`fov` for field_of_view), else one of whose words it is (`stop` for stop_distance), else the
/// one with the fewest changed letters (Levenshtein, 1966) if these are few. Empty if none is
/// alike.
[[nodiscard]] std::string_view nearest_name(std::string_view written,
                                            std::span<const std::string> names);

/// "; did you mean 'range'?" or nothing.
[[nodiscard]] std::string suggestion(std::string_view written, std::span<const std::string> names);

/// True for two names that are the same but for upper and lower case, and not the same.
[[nodiscard]] bool differ_by_case(std::string_view a, std::string_view b);

/// The text with its control characters written out, as \x0A: whatever it holds is one line.
[[nodiscard]] std::string on_one_line(std::string_view text);

/// A line broken between words so that no part is longer than so many columns, if a word is not;
/// from the second part on after so many blanks. 0 columns, or too few for the blanks: as it is.
[[nodiscard]] std::string wrapped(std::string_view line, std::size_t columns, std::size_t indent);

/// True for [A-Za-z0-9_-]+.
[[nodiscard]] bool is_name(std::string_view text);

}  // namespace gaze
