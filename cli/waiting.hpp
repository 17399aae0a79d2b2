#pragma once

#include <condition_variable>
#include <mutex>
#include <ostream>
#include <thread>

namespace gaze::cli {

/// Writes to a stream what the program is doing, during the lifetime of this object. Writes first
/// after 2 s, then each time that the time has doubled, and at least once per minute. No other
/// thread may write to the stream during that time.
class Waiting {
 public:
  /// @param what  A string literal, as in "preparing the level".
  Waiting(std::ostream& stream, const char* what);

 private:
  void tell(const std::stop_token& stop);

  std::ostream& stream_;
  const char* what_;
  std::mutex mutex_;
  std::condition_variable_any ended_;
  std::jthread thread_;  ///< The last member: it uses the others.
};

}  // namespace gaze::cli
