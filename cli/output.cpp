#include "output.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <csignal>
#include <cstring>
#include <utility>

namespace gaze::cli {
namespace {

/// The names of unfinished files, for the handler of signals: that may look at plain memory alone.
struct Unfinished {
  static constexpr std::size_t kMost = 8;
  static constexpr std::size_t kLongest = 4096;
  std::array<std::array<char, kLongest>, kMost> names{};  ///< Empty: unused.
};
Unfinished unfinished;

void note_unfinished(const std::string& name) {
  for (auto& slot : unfinished.names) {
    if (slot[0] != '\0' || name.size() >= slot.size()) continue;
    // The first letter last: until it stands there the slot counts as empty.
    std::memcpy(slot.data() + 1, name.data() + 1, name.size());
    slot[0] = name[0];
    return;
  }
}

void note_finished(const std::string& name) {
  for (auto& slot : unfinished.names) {
    if (name == slot.data()) slot[0] = '\0';
  }
}

extern "C" void end_by_signal(int signal) {
  for (const auto& slot : unfinished.names) {
    if (slot[0] != '\0') unlink(slot.data());
  }
  _exit(128 + signal);
}

// A link is followed, also one to what is not there yet.
std::filesystem::path followed(const std::filesystem::path& file) {
  std::error_code error;
  if (!std::filesystem::is_symlink(file, error)) return file;
  std::filesystem::path target = std::filesystem::read_symlink(file, error);
  if (error) return file;
  if (target.is_relative()) target = file.parent_path() / target;
  const auto whole = std::filesystem::weakly_canonical(target, error);
  return error ? target : whole;
}

/// Blocks signals during its lifetime.
class WithoutSignals {
 public:
  WithoutSignals() {
    sigset_t all;
    sigfillset(&all);
    pthread_sigmask(SIG_SETMASK, &all, &before_);
  }
  ~WithoutSignals() { pthread_sigmask(SIG_SETMASK, &before_, nullptr); }
  WithoutSignals(const WithoutSignals&) = delete;
  WithoutSignals& operator=(const WithoutSignals&) = delete;

 private:
  sigset_t before_{};
};

// Returns whether a file must not be replaced. The permissions count for the superuser too, who
// could write every file.
bool is_read_only(const std::filesystem::path& file) {
  struct stat status {};
  if (stat(file.c_str(), &status) != 0) return false;
  constexpr mode_t kAnybodyWrites = S_IWUSR | S_IWGRP | S_IWOTH;
  return (status.st_mode & kAnybodyWrites) == 0 || access(file.c_str(), W_OK) != 0;
}

}  // namespace

void end_cleanly_by_signals() {
  struct sigaction action {};
  action.sa_handler = end_by_signal;
  sigemptyset(&action.sa_mask);
  for (const int signal : {SIGINT, SIGTERM, SIGHUP, SIGPIPE}) sigaction(signal, &action, nullptr);
}

OutputFile::OutputFile(const std::filesystem::path& file) : file_(followed(file)) {
  std::error_code error;
  const auto status = std::filesystem::status(file_, error);
  if (std::filesystem::is_directory(status)) fail(EISDIR);
  if (std::filesystem::exists(status) && !std::filesystem::is_regular_file(status)) {
    throw OutputError(
        fmt::format("{} cannot be written: it is not a regular file", file_.string()));
  }
  if (file_.filename().empty()) fail(EISDIR);
  if (is_read_only(file_)) fail(EACCES);
  open_temporary();
  // What is written over stays readable to the same people.
  struct stat before {};
  if (stat(file_.c_str(), &before) == 0) fchmod(descriptor_, before.st_mode & 07777U);
}

// Creates the temporary file. Tries another name if a file or a link has the name already.
void OutputFile::open_temporary() {
  constexpr int kMostNames = 100;
  static int number = 0;
  int reason = EEXIST;
  for (int tries = 0; tries < kMostNames && reason == EEXIST; ++tries) {
    // Short, for a name may be as long as names can be.
    temporary_ = file_.parent_path() / fmt::format(".gaze-{}-{}", getpid(), number++);
    const WithoutSignals quiet;  // else a signal here would leave the file behind
    descriptor_ =
        open(temporary_.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0644);
    if (descriptor_ >= 0) return note_unfinished(temporary_.string());
    reason = errno;
  }
  temporary_.clear();
  fail(reason);
}

OutputFile::~OutputFile() {
  if (descriptor_ >= 0) close(descriptor_);
  if (temporary_.empty()) return;
  unlink(temporary_.c_str());
  forget();
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
  forget();
}

void OutputFile::forget() {
  note_finished(temporary_.string());
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
