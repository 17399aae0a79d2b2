#pragma once

#include <cstdint>
#include <utility>
#include <vector>

#include "agents/crowd.hpp"
#include "agents/few.hpp"
#include "agents/scratch.hpp"
#include "agents/told.hpp"
#include "agents/touches.hpp"
#include "gaze/feeling.hpp"
#include "gaze/hearing.hpp"

namespace gaze {

/// The clearest noise of one name that a hearer heard in this step.
struct Heard {
  std::size_t noise = 0;  ///< Its number among the noises of the step.
  double distance = 0.0;
};

/// What a friend has told and what has not arrived yet.
struct Alarm {
  std::uint32_t to = 0;
  std::uint32_t from = 0;
  std::uint32_t about = 0;
  Moment due = 0;
  Moment remember = 0;
  Vector3d place{0.0, 0.0, 0.0};
};

/// A target that a nearness sense with `once` has perceived.
struct MetOnce {
  std::uint32_t other = 0;
};

/// A contact that was lost not long ago.
struct Lost {
  std::uint32_t other = 0;
  Moment at = 0;
  Moment held_for = 0;  ///< As of the contact.
};

/// What only senses know: their memory from step to step, and the memory that they work in.
struct Senses {
  Few<std::vector<MetOnce>> met_once;        ///< For each agent, in file order of the targets.
  Few<std::vector<Lost>> lost;               ///< For each agent, in no order.
  Few<std::vector<std::uint32_t>> zones_of;  ///< Those it is in, in order.
  std::vector<char> zone_spent;              ///< By zone.
  Touches touches;
  std::vector<Alarm> alarms;
  Scratch<Crowd> crowd{8.0};

  Scratch<std::vector<Perceived>> perceived;  ///< Of one agent.
  /// Sorted pairs of a target and an index in `perceived`.
  Scratch<std::vector<std::pair<std::uint32_t, std::uint32_t>>> by_target;
  Scratch<std::vector<std::uint32_t>> candidates;
  Scratch<std::vector<std::uint32_t>> zones;  ///< That one agent is in.
  Scratch<std::vector<Cylinder>> bodies;
  Scratch<std::vector<Heard>> heard;  ///< By one hearer.
  Scratch<HearingVerdict> hearing;
};

}  // namespace gaze
