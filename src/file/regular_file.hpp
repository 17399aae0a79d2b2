#pragma once

#include <cstddef>
#include <filesystem>
#include <string>

namespace gaze {

/// What a file holds, or why it cannot be read.
struct FileText {
  std::string bytes;
  std::string fault;  ///< Empty: it was read. "is not a regular file".
  bool is_missing = false;
};

/// Reads a regular file whole. Pipes, devices and folders are refused without waiting for them,
/// also if a link leads to them.
/// @param most  Bytes; a longer file is refused, also one that grows meanwhile.
[[nodiscard]] FileText read_regular_file(const std::filesystem::path& file, std::size_t most);

/// Reads no more than the first bytes of a regular file, however long it is.
[[nodiscard]] FileText read_start_of_file(const std::filesystem::path& file, std::size_t bytes);

}  // namespace gaze
