#pragma once

#include <string>
#include <utility>
#include <vector>

#include "gaze/level.hpp"

namespace gaze {

/// Collects what is wrong with a level, each with the place of the value: where it was written, or
/// its path if it was written in no file.
class FaultList {
 public:
  explicit FaultList(const Level& level) : level_(level) {}

  /// @param written  Where the part was written that holds the value.
  void add(const std::string& path, const Place& written, std::string message) {
    add_at(level_.origin(path).value_or(written), path, std::move(message));
  }
  /// The same for what stands at that very place, whatever else has the same path.
  void add_at(Place place, const std::string& path, std::string message) {
    if (place.file.empty()) place.file = path;
    faults_.push_back({std::move(place), std::move(message)});
  }

  bool empty() const { return faults_.empty(); }
  std::vector<Fault> take() { return std::move(faults_); }

 private:
  const Level& level_;
  std::vector<Fault> faults_;
};

}  // namespace gaze
