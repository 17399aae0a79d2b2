#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"

namespace gaze {

/// Something about a level that its designer should know before it is played.
struct Finding {
  enum class Severity {
    error,    ///< It will not do what it is there for.
    warning,  ///< Some of it will never matter, or will look wrong.
    note,     ///< How play will go; nothing is wrong.
  };
  Severity severity = Severity::note;
  std::string code;     ///< A short name for this sort of finding, as in docs/findings.md.
  std::string message;  ///< One line: what will happen in play, with the numbers.
  Place place;          ///< Of the value that decides it, else of the thing itself.
};

/// Judges a level without playing it. Errors first, then warnings, then notes; deterministic.
[[nodiscard]] std::vector<Finding> judge(const Level& level);

/// True if any finding is an error or a warning.
[[nodiscard]] bool has_fault(const std::vector<Finding>& findings);

[[nodiscard]] std::string_view name_of(Finding::Severity severity);

}  // namespace gaze
