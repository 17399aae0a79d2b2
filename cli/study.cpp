#include "study.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <cmath>
#include <csignal>
#include <iostream>

#include "play.hpp"

namespace gaze::cli {
namespace {

volatile std::sig_atomic_t is_ended = 0;

// The second time at once: the run that is being played may be a long one.
void note_end(int) {
  if (is_ended != 0) _exit(128 + SIGINT);
  is_ended = 1;
}

double now() {
  return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

// "12 s", "3 min 20 s".
std::string duration_text(double seconds) {
  const auto whole = std::lround(seconds);
  if (whole < 60) return fmt::format("{} s", whole);
  return fmt::format("{} min {} s", whole / 60, whole % 60);
}

}  // namespace

Studying::Studying(const Streams& streams, const char* what)
    : streams_(streams), what_(what), begun_(now()), shown_(begun_) {
  is_ended = 0;
  struct sigaction action {};
  action.sa_handler = note_end;
  sigemptyset(&action.sa_mask);
  sigaction(SIGINT, &action, &before_);
  options_.goes_on = [this](std::size_t done, std::size_t all) { return goes_on(done, all); };
}

Studying::~Studying() {
  sigaction(SIGINT, &before_, nullptr);
  if (has_line_) streams_.err << "\r\x1b[K" << std::flush;
}

bool Studying::goes_on(std::size_t done, std::size_t all) {
  const double time = now();
  if (done < done_) begun_ = time;  // a new search has begun, with smaller squares
  done_ = done;
  all_ = all;
  const bool is_terminal = &streams_.err == &std::cerr && isatty(STDERR_FILENO) != 0;
  if (is_terminal && time > shown_ + 0.5) {
    shown_ = time;
    has_line_ = true;
    streams_.err << fmt::format("\r{} of {} {}", done, all, what_);
    if (done > 0) {
      const double each = (time - begun_) / static_cast<double>(done);
      const double left = each * static_cast<double>(all - done);
      streams_.err << fmt::format(", {} left", duration_text(left));
    }
    streams_.err << "\x1b[K" << std::flush;
  }
  return is_ended == 0;
}

bool Studying::was_ended() {
  if (is_ended == 0 || done_ == all_) return false;
  if (has_line_) streams_.err << "\r\x1b[K";
  has_line_ = false;
  streams_.err << fmt::format("ended after {} of {} {}\n", done_, all_, what_);
  return true;
}

LevelSource source_of(const LevelOptions& options) {
  return [options](const std::vector<Setting>& more) {
    std::vector<Setting> settings = settings_of(options);
    settings.insert(settings.end(), more.begin(), more.end());
    return read_level(options.file, settings);
  };
}

}  // namespace gaze::cli
