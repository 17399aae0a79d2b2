#include <fmt/format.h>

#include <exception>
#include <iostream>

#include "commands.hpp"
#include "output.hpp"

/// The demo as a program of its own: scripts/demo builds it in half the time of the whole command.
///   gaze_demo [FOLDER]
int main(int argc, char** argv) {
  gaze::cli::end_cleanly_by_signals();
  gaze::cli::DemoOptions options;
  options.command = "scripts/gaze";
  if (argc > 1) options.output = argv[1];
  try {
    return gaze::cli::demo(options, {std::cout, std::cerr});
  } catch (const std::exception& error) {
    std::cerr << fmt::format("gaze_demo: error: {}\n", error.what());
    return gaze::cli::unusable;
  }
}
