#pragma once

#include <filesystem>
#include <stdexcept>
#include <string_view>

namespace gaze::cli {

/// Something that cannot be written; what() says what and why.
class OutputError : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

/// Has SIGINT, SIGTERM, SIGHUP and SIGPIPE end the program at once, with the status 128 + signal,
/// and take unfinished files away.
void end_cleanly_by_signals();

/// A file that appears whole or not at all: it is written under a temporary name beside its own,
/// and renamed by `finish`. Without that it leaves nothing behind. Links to the file are followed.
/// A file that is read-only is not replaced. Throws OutputError.
class OutputFile {
 public:
  explicit OutputFile(const std::filesystem::path& file);
  ~OutputFile();
  OutputFile(const OutputFile&) = delete;
  OutputFile& operator=(const OutputFile&) = delete;

  void write(std::string_view bytes);
  void finish();

 private:
  [[noreturn]] void fail(int error_number) const;
  void open_temporary();
  void forget();

  std::filesystem::path file_;
  std::filesystem::path temporary_;
  int descriptor_ = -1;
};

/// Writes a whole file in one go.
void write_file(const std::filesystem::path& file, std::string_view bytes);

}  // namespace gaze::cli
