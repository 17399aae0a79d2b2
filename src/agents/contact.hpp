#pragma once

#include <cstdint>

#include "gaze/geometry.hpp"
#include "gaze/senses.hpp"
#include "gaze/time.hpp"

namespace gaze {

/// What one agent knows of another. If there is no contact, it is unaware of the other.
struct Contact {
  enum class State : std::uint8_t { gathering, noticed, remembered };
  std::uint32_t other = 0;
  State state = State::gathering;
  Sense by = Sense::sight;  ///< What it was noticed by; while noticed, the leading sense.
  bool is_seen = false;     ///< Sight counts: its evidence is full and goes on.
  bool is_near = false;     ///< By the nearness sense, at the last look.
  bool is_touched = false;  ///< By the touch sense, at the last look.
  Moment gathered = 0;      ///< Moments of full evidence by sight, up to the notice time.
  double rate = 0.0;        ///< At which that grew at the last look.
  Moment since = 0;         ///< Noticed: when. Remembered: when evidence ended.
  Moment remember = 0;      ///< For how long, by the sense that leads.
  Moment forget_at = 0;     ///< Remembered.
  Moment perceived_at = 0;  ///< Noticed targets: time of the last perception.
  Moment held_for = 0;      ///< Noticed targets: least time from then to the loss.
  Moment hurt_at = -1;      ///< When it last hurt this one.
  Vector3d last_place{0.0, 0.0, 0.0};   ///< Of the other's feet when last perceived.
  Vector3d last_motion{0.0, 0.0, 0.0};  ///< How it moved then, metres a step.
};

/// How quickly sight notices and forgets.
struct NoticeLimits {
  Moment notice_time = 0;
  Moment ebb_time = 0;  ///< Full evidence takes so long to go; 0: at once.
  Moment remember = 0;
};

}  // namespace gaze
