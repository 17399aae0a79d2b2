#pragma once

#include <cstddef>
#include <filesystem>
#include <string>

namespace gaze {

/// The bytes of a file, or the reason why it cannot be read.
struct FileText {
  std::string bytes;
  std::string fault;  ///< Such as "is not a regular file"; empty if the file was read.
  bool is_missing = false;
};

/// Reads all bytes of a regular file. Refuses pipes, devices and folders without waiting for them.
/// Follows links.
/// @param most  Largest size that is read, bytes.
[[nodiscard]] FileText read_regular_file(const std::filesystem::path& file, std::size_t most);

/// Reads the first `bytes` bytes of a regular file of any size.
[[nodiscard]] FileText read_start_of_file(const std::filesystem::path& file, std::size_t bytes);

}  // namespace gaze
