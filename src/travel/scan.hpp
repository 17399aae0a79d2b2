#pragma once

#include "gaze/senses.hpp"

namespace gaze {

/// Where a scanning head looks after so many seconds: degrees anticlockwise from the facing of its
/// body. It is a function of time alone, so that it is the same at any rate of steps. A sweep
/// begins straight ahead and goes left first; rounds go left; a list begins at its first heading.
[[nodiscard]] double scan_degrees(const Scan& scan, double seconds);

}  // namespace gaze
