#pragma once

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "agents/contact.hpp"
#include "agents/few.hpp"

namespace gaze {

/// A place that an agent knows of without knowing who is there: it heard something.
struct Clue {
  Vector3d place{0.0, 0.0, 0.0};
  std::string_view noise;
  Moment since = 0;
  Moment forget_at = 0;
  double distance = 0.0;
};

/// What all agents know, and what others can know of them, by agent. Senses write it.
struct Knowledge {
  std::vector<std::vector<Contact>> contacts;  ///< In file order of the others.
  Few<Clue> clue;
  std::vector<std::uint32_t> feelers;  ///< Those that now say yes, by bit.
  std::vector<char> is_still;          ///< It has not moved in this step.
  std::vector<double> dimness;         ///< Where it stands.
  std::vector<std::uint64_t> tags;     ///< Held now, by bit.
};

}  // namespace gaze
