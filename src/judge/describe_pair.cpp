#include <cmath>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {

std::string harm_text(const PairFigures::Harm& harm) {
  if (!harm.is_in_reach()) {
    return worded("{} does not reach: {} m of {} m", harm.attack, harm.reach, harm.from);
  }
  if (harm.is_healed) {
    return worded("{} never: the target loses {} points at most and regains them", harm.attack,
                  harm.dealt);
  }
  if (!harm.seconds) return worded("{} is empty after {}", harm.attack, harm.dealt);
  if (*harm.seconds == 0.0) return worded("{} at one blow", harm.attack);
  return worded("{} in {} s ({} points/s)", harm.attack, *harm.seconds, harm.dealt / *harm.seconds);
}

namespace {

std::string running_text(const PairFigures::RunningAway& away) {
  const std::string lost =
      worded("running straight away from {} m it loses {}", away.from, away.lost);
  if (!away.seconds) return lost + " and does not get out of reach";
  return worded("{} and is out of reach after {} s", lost, *away.seconds);
}

std::string gain_text(double gain) {
  if (gain == 0.0) return "chased straight away the gap stays as it is";
  return worded("chased straight away the gap {} by {} m each second",
                gain > 0.0 ? "grows" : "shrinks", std::abs(gain));
}

}  // namespace

std::string describe(const PairFigures& pair) {
  std::string text = worded("{} against {} of {} health", pair.by, pair.whom, pair.health);
  const char* joint = ": if all of it hits, ";
  for (const PairFigures::Harm& harm : pair.harms) {
    text += joint + harm_text(harm);
    joint = ", ";
  }
  joint = pair.harms.empty() ? ": " : "; ";
  if (pair.running_away) {
    text += joint + running_text(*pair.running_away);
    joint = "; ";
  }
  return pair.gain ? text + joint + gain_text(*pair.gain) : text;
}

}  // namespace gaze
