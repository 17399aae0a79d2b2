#include "gaze/tools/compare.hpp"

#include <fmt/format.h>

#include "level/figures.hpp"

namespace gaze {

std::string sort_of(const Simulation& game, const Event& event) {
  const bool is_target = event.what == Event::What::target;
  std::string text = fmt::format("{} {}", game.id_of(event.agent),
                                 is_target ? std::string_view("acts on") : name_of(event.what));
  if (event.other) text += (is_suffered(event.what) ? " by " : " ") + game.id_of(*event.other);
  if (event.what == Event::What::mode) {
    text += fmt::format(" from {} to {}", name_of(event.from), name_of(event.to));
  }
  if (!event.attack.empty()) text += fmt::format(" with {}", event.attack);
  if (!event.noise.empty()) text += fmt::format(" {}", event.noise);
  if (event.zone) text += " " + game.level().zones[*event.zone].id;
  return text;
}

}  // namespace gaze
