#pragma once

#include <sstream>
#include <string>
#include <vector>

#include "command_line.hpp"

namespace gaze::testing {

/// What a call of the command gave back.
struct Answer {
  int status;
  std::string out;
  std::string err;
};

/// Calls the command in this process.
inline Answer gaze_call(const std::vector<std::string>& arguments) {
  std::ostringstream out;
  std::ostringstream err;
  const int status = cli::command(arguments, {out, err});
  return {status, out.str(), err.str()};
}

}  // namespace gaze::testing
