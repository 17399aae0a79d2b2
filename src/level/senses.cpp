#include "gaze/senses.hpp"

namespace gaze {

std::string_view name_of(Sense sense) {
  constexpr std::array<std::string_view, 7> kNames{"sight", "touch", "feeler", "nearness",
                                                   "hurt",  "told",  "hearing"};
  return kNames[static_cast<std::size_t>(sense)];
}

}  // namespace gaze
