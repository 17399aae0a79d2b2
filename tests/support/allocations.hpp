#pragma once

#include <cstddef>

namespace gaze::testing {

/// How often the program has asked the heap for memory so far.
[[nodiscard]] std::size_t allocations();

}  // namespace gaze::testing
