#pragma once

#include <gtest/gtest.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <string>

namespace gaze::testing {

/// A test with a folder of its own, gone afterwards.
class InTemporaryFolder : public ::testing::Test {
 protected:
  void SetUp() override { std::filesystem::create_directories(folder); }
  void TearDown() override { std::filesystem::remove_all(folder); }

  std::filesystem::path write(const std::string& name, const std::string& text) const {
    std::ofstream(folder / name) << text;
    return folder / name;
  }

  const std::filesystem::path folder =
      std::filesystem::temp_directory_path() / ("gaze-test-" + std::to_string(::getpid()));
};

}  // namespace gaze::testing
