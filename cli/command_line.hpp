#pragma once

#include <iosfwd>
#include <string>
#include <vector>

namespace gaze::cli {

/// Exit statuses of the command.
enum Status { done = 0, check_failed = 1, unusable = 2, ended_early = 130 };

/// Where a call prints: what a program reads, and everything else.
struct Streams {
  std::ostream& out;
  std::ostream& err;
  std::size_t columns = 0;  ///< Of the terminal that `out` is; 0: it is none.
};

/// Runs the whole command.
/// @param arguments  Those after the program's name.
/// @return The exit status.
int command(const std::vector<std::string>& arguments, const Streams& streams);

}  // namespace gaze::cli
