#pragma once

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "gaze/event.hpp"

namespace gaze {

/// What became known to an agent since its mind last decided.
struct News {
  std::uint64_t fired = 0;  ///< Rules of its kind whose cause came up, by bit.
  std::uint64_t due = 0;    ///< Rules that had waited for their time.
  bool forgot = false;
};

/// A noise of this step.
struct MadeNoise {
  Noise noise;
  std::string_view name;
  std::optional<std::uint32_t> maker;
  std::int64_t tick = 0;
};

/// Another agent perceived by a sense other than sight, in this step.
struct Perceived {
  std::uint32_t who = 0;  ///< Perceives it.
  std::uint32_t other = 0;
  Sense sense = Sense::feeler;
  Moment remember = 0;
  Vector3d place{0.0, 0.0, 0.0};
  std::optional<std::uint32_t> teller;
};

/// What one stage tells the others: all append, the stage that makes use of it clears.
struct Told {
  std::vector<Event> events;
  std::vector<News> news;                            ///< By agent, for its mind.
  std::vector<MadeNoise> noises;                     ///< Made in this step, to be heard in it.
  std::vector<std::optional<MadeNoise>> last_noise;  ///< By maker.
  std::vector<Perceived> sudden;                     ///< Who was hurt, or told of somebody.

  // How events are put into their order.
  std::size_t sorted_events = 0;
  bool events_are_old = false;
  std::vector<std::uint64_t> event_keys;  ///< Scratch: their order.
  std::vector<Event> ordered_events;      ///< Scratch: the events in it.
};

}  // namespace gaze
