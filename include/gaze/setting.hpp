#pragma once

#include <string>

#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// A value changed for one reading: "kind.pruner.sight.range" and "6". The value is TOML; text may
/// go without quotes.
struct Setting {
  std::string path;
  std::string value;
  std::string said_as = "--set " + path;  ///< Of faults with it: their place.
};

}  // namespace gaze
GAZE_PUBLIC_END
