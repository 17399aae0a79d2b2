#pragma once

#include <fmt/format.h>

#include <cstddef>

#include "gaze/error.hpp"

namespace gaze {

/// Throws UsageError unless a batch has as many of one as of the other: questions and places for
/// their answers.
inline void need_as_many(std::size_t questions, std::size_t others) {
  if (questions == others) return;
  throw UsageError(
      fmt::format("a batch of {} and {}; as many of both are needed", questions, others));
}

}  // namespace gaze
