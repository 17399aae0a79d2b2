#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "gaze/time.hpp"

namespace gaze {

/// Where a body is while it is not in play.
enum class Presence : std::uint8_t {
  here,     ///< In play, or defeated where it lies.
  away,     ///< Not there yet.
  carried,  ///< A thing in somebody's hand.
  thrown,   ///< A thing in flight.
};

/// Who is there, and how well, by agent. Combat writes it.
struct Lives {
  std::vector<double> health;
  std::vector<char> alive;
  std::vector<Presence> presence;
  std::vector<std::uint32_t> carrier;                     ///< Of what is carried.
  std::vector<Moment> hurt_at;                            ///< When it was hurt last.
  std::vector<std::optional<std::uint32_t>> defeated_by;  ///< The last time that it was.
  std::vector<Moment> returns_at;                         ///< kNeverReady: not at all.
};

}  // namespace gaze
