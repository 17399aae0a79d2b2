#include <fmt/format.h>

#include <exception>
#include <iostream>

#include "commands.hpp"
#include "output.hpp"

/// The demo as a program of its own. scripts/demo builds it faster than the whole command, and runs
/// it in the folder of the sources.
int main() {
  gaze::cli::end_cleanly_by_signals();
  gaze::cli::DemoOptions options;
  options.command = "scripts/gaze";
  try {
    return gaze::cli::demo(options, {std::cout, std::cerr});
  } catch (const std::exception& error) {
    std::cerr << fmt::format("gaze_demo: error: {}\n", error.what());
    return gaze::cli::unusable;
  }
}
