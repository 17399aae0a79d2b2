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

/// A file, open for reading.
class OpenFile {
 public:
  // Without O_NONBLOCK, opening a pipe waits until another program writes to it.
  explicit OpenFile(const std::filesystem::path& file)
      : descriptor_(open(file.c_str(), O_RDONLY | O_NONBLOCK | O_NOCTTY | O_CLOEXEC)) {
    const bool has_status = descriptor_ >= 0 && fstat(descriptor_, &status_) == 0;
    error_ = has_status ? 0 : errno;
  }
  ~OpenFile() {
    if (descriptor_ >= 0) close(descriptor_);
  }
  OpenFile(const OpenFile&) = delete;
  OpenFile& operator=(const OpenFile&) = delete;

  int descriptor() const { return descriptor_; }
  int error() const { return error_; }  ///< 0 if it was opened.
  mode_t mode() const { return status_.st_mode; }
  std::size_t size() const { return static_cast<std::size_t>(status_.st_size); }  ///< Bytes.

 private:
  int descriptor_;
  int error_ = 0;
  struct stat status_ {};
};

bool leads_nowhere(int error_number) {
  return error_number == ENOENT || error_number == ENOTDIR || error_number == ELOOP;
}

std::string in_words(int error_number) {
  if (leads_nowhere(error_number)) return "is not there";
  return fmt::format("cannot be read: {}", std::strerror(error_number));
}

// Tests the open file and not its name, because another file may get that name at any time.
// @return What is wrong with it.
std::string fault_of(const OpenFile& file) {
  if (file.error() != 0) return in_words(file.error());
  if (S_ISDIR(file.mode())) return "is a folder, not a file";
  return S_ISREG(file.mode()) ? "" : "is not a regular file";
}

// Reads at most `most` bytes. @return What is wrong.
std::string read_up_to(const OpenFile& file, std::size_t most, std::string& bytes) {
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
  const OpenFile file(path);
  FileText text;
  text.is_missing = leads_nowhere(file.error());
  text.fault = fault_of(file);
  if (!text.fault.empty()) return text;
  // One byte more, because a file may grow while it is read.
  if (file.size() <= most) text.fault = read_up_to(file, most + 1, text.bytes);
  const std::size_t length = std::max(file.size(), text.bytes.size());
  if (text.fault.empty() && length > most) {
    text.fault = fmt::format("has {} bytes; at most {} are allowed", length, most);
  }
  if (!text.fault.empty()) text.bytes.clear();
  return text;
}

FileText read_start_of_file(const std::filesystem::path& path, std::size_t bytes) {
  const OpenFile file(path);
  FileText text;
  text.fault = fault_of(file);
  if (text.fault.empty()) text.fault = read_up_to(file, bytes, text.bytes);
  return text;
}

}  // namespace gaze
