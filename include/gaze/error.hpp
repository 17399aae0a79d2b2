#pragma once

#include <compare>
#include <stdexcept>
#include <string>
#include <vector>

#include "gaze/public.hpp"

/// What the library throws: `UsageError` for a call that cannot be meant, `LevelError` for a level
/// that cannot be played, `SaveError` for a save that cannot be restored.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Thrown by calls that name what does not exist, or that give a number which cannot be.
class UsageError : public std::invalid_argument {
 public:
  using std::invalid_argument::invalid_argument;
};

/// A save cannot be restored: it is damaged, or of another level or version.
class SaveError : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

/// Where a value was written. Lines and columns count from 1; 0 where it came from no file: then
/// `file` is the path of the value, or what gave it.
struct Place {
  std::string file;
  int line = 0;
  int column = 0;
  auto operator<=>(const Place&) const = default;
};

/// "garden.toml:3:7", or the name alone of what has no lines: an option of the command.
[[nodiscard]] std::string text_of(const Place& place);

/// One thing that is wrong with a level, and where.
struct Fault {
  Place place;
  std::string message;

  /// "FILE:LINE:COLUMN: error: MESSAGE"; without the place if that is a path the message begins
  /// with.
  std::string text() const;
};

/// A level cannot be read or played. Holds every fault that was found; `what()` is the first one's
/// text.
class LevelError : public std::runtime_error {
 public:
  explicit LevelError(std::vector<Fault> faults);
  const std::vector<Fault>& faults() const { return faults_; }

 private:
  std::vector<Fault> faults_;
};

}  // namespace gaze
GAZE_PUBLIC_END
