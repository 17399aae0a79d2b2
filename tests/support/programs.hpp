#pragma once

#include <filesystem>
#include <string>

namespace gaze::testing {

/// Path of a program that was built beside this test program: "gaze", "examples/first_look". No
/// path is compiled in, so that tests are compiled once and linked to several builds.
inline std::string program(const std::string& name) {
  const auto tests = std::filesystem::read_symlink("/proc/self/exe");
  return (tests.parent_path().parent_path() / name).string();
}

}  // namespace gaze::testing
