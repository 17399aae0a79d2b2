#include "waiting.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>

namespace gaze::cli {

Waiting::Waiting(std::ostream& stream, const char* what)
    : stream_(stream), what_(what), thread_([this](const std::stop_token& stop) { tell(stop); }) {}

void Waiting::tell(const std::stop_token& stop) {
  using std::chrono::seconds;
  std::unique_lock lock(mutex_);
  seconds passed{0};
  for (seconds next{2};; next = std::min(2 * passed, passed + seconds(60))) {
    const bool is_ended =
        ended_.wait_for(lock, stop, next - passed, [&] { return stop.stop_requested(); });
    if (is_ended || stop.stop_requested()) return;
    passed = next;
    stream_ << fmt::format("{}: {} s so far\n", what_, passed.count()) << std::flush;
  }
}

}  // namespace gaze::cli
