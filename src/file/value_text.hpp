#pragma once

#include <cstddef>
#include <string_view>

#include "gaze/error.hpp"

/// Where things stand in the text of a TOML file.
namespace gaze {

/// The first byte behind the mark of the byte order, if there is one.
[[nodiscard]] std::size_t begin_of(std::string_view text);

/// The byte at a place. Columns count letters, which may have several bytes.
[[nodiscard]] std::size_t offset_of(std::string_view text, const Place& place);

/// The byte behind a value that begins at one: of a text behind its quotes, of a list or an inline
/// table behind its bracket. The text is known to be TOML.
[[nodiscard]] std::size_t end_of_value(std::string_view text, std::size_t begin);

/// The first byte of the line after the one in which a byte lies.
[[nodiscard]] std::size_t next_line(std::string_view text, std::size_t offset);

/// True if nothing but blanks comes before a byte on its line.
[[nodiscard]] bool is_first_on_line(std::string_view text, std::size_t offset);

}  // namespace gaze
