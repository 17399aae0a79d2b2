#include "output.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <utility>

namespace gaze::cli {

OutputFile::OutputFile(std::filesystem::path file) : file_(std::move(file)) {
  std::error_code error;
  const auto status = std::filesystem::status(file_, error);
  if (std::filesystem::is_directory(status)) fail(EISDIR);
  if (std::filesystem::exists(status) && !std::filesystem::is_regular_file(status)) {
    throw OutputError(
        fmt::format("{} cannot be written: it is not a regular file", file_.string()));
  }
  if (file_.filename().empty()) fail(EISDIR);
  temporary_ = file_;
  temporary_ += fmt::format(".part-{}", getpid());
  descriptor_ = open(temporary_.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
  if (descriptor_ < 0) fail(errno);
}

OutputFile::~OutputFile() {
  if (descriptor_ >= 0) close(descriptor_);
  if (!temporary_.empty()) unlink(temporary_.c_str());
}

void OutputFile::write(std::string_view bytes) {
  while (!bytes.empty()) {
    const ssize_t count = ::write(descriptor_, bytes.data(), bytes.size());
    if (count < 0 && errno == EINTR) continue;
    if (count < 0) fail(errno);
    bytes.remove_prefix(static_cast<std::size_t>(count));
  }
}

void OutputFile::finish() {
  if (fsync(descriptor_) != 0 && errno != EINVAL) fail(errno);
  if (close(std::exchange(descriptor_, -1)) != 0) fail(errno);
  if (rename(temporary_.c_str(), file_.c_str()) != 0) fail(errno);
  temporary_.clear();
}

void OutputFile::fail(int error_number) const {
  throw OutputError(
      fmt::format("{} cannot be written: {}", file_.string(), std::strerror(error_number)));
}

void write_file(const std::filesystem::path& file, std::string_view bytes) {
  OutputFile output(file);
  output.write(bytes);
  output.finish();
}

}  // namespace gaze::cli
