#include "file/regular_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>
#include <utility>

namespace gaze {
namespace {

/// An open file, closed in the end.
class Opened {
 public:
  // Opening a pipe that nobody writes to would wait for ever without O_NONBLOCK.
  explicit Opened(const std::filesystem::path& file)
      : descriptor_(open(file.c_str(), O_RDONLY | O_NONBLOCK | O_NOCTTY | O_CLOEXEC)) {}
  ~Opened() {
    if (descriptor_ >= 0) close(descriptor_);
  }
  Opened(const Opened&) = delete;
  Opened& operator=(const Opened&) = delete;

  int descriptor() const { return descriptor_; }

 private:
  int descriptor_;
};

bool leads_nowhere(int error_number) {
  return error_number == ENOENT || error_number == ENOTDIR || error_number == ELOOP;
}

std::string in_words(int error_number) {
  if (leads_nowhere(error_number)) return "is not there";
  return fmt::format("cannot be read: {}", std::strerror(error_number));
}

// What is wrong with an open file. What is asked is the file itself and not its name, which may
// have become another's meanwhile.
std::string fault_of(const Opened& file) {
  struct stat status {};
  if (file.descriptor() < 0 || fstat(file.descriptor(), &status) != 0) return in_words(errno);
  if (S_ISDIR(status.st_mode)) return "is a folder, not a file";
  return S_ISREG(status.st_mode) ? "" : "is not a regular file";
}

// Reads up to so many bytes. @return What is wrong.
std::string read_up_to(const Opened& file, std::size_t most, std::string& bytes) {
  std::array<char, 65536> part;
  while (bytes.size() < most) {
    const std::size_t wanted = std::min(part.size(), most - bytes.size());
    const ssize_t count = read(file.descriptor(), part.data(), wanted);
    if (count < 0 && errno == EINTR) continue;
    if (count < 0) return in_words(errno);
    if (count == 0) break;
    bytes.append(part.data(), static_cast<std::size_t>(count));
  }
  return "";
}

}  // namespace

FileText read_regular_file(const std::filesystem::path& path, std::size_t most) {
  const Opened file(path);
  FileText text;
  text.is_missing = file.descriptor() < 0 && leads_nowhere(errno);
  text.fault = fault_of(file);
  if (!text.fault.empty()) return text;
  struct stat status {};
  const bool has_size = fstat(file.descriptor(), &status) == 0;
  const auto size = has_size ? static_cast<std::size_t>(status.st_size) : 0;
  if (size <= most) text.fault = read_up_to(file, most + 1, text.bytes);
  const std::size_t length = std::max(size, text.bytes.size());
  if (text.fault.empty() && length > most) {
    text.fault = fmt::format("has {} bytes; at most {} are allowed", length, most);
  }
  if (!text.fault.empty()) text.bytes.clear();
  return text;
}

FileText read_start_of_file(const std::filesystem::path& path, std::size_t bytes) {
  const Opened file(path);
  FileText text;
  text.fault = fault_of(file);
  if (text.fault.empty()) text.fault = read_up_to(file, bytes, text.bytes);
  return text;
}

}  // namespace gaze
