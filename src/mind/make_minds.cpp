#include "mind/make_minds.hpp"

#include <algorithm>

namespace gaze {

void add_agents(Minds& minds, const Fixed& fixed, Moment now) {
  const std::vector<Agent>& agents = fixed.level->agents;
  const std::size_t count = agents.size();
  for (std::size_t who = minds.mode.size(); who < count; ++who) {
    minds.awake.push_back(!agents[who].is_asleep);
    minds.mode.push_back(agents[who].is_spare ? Mode::out : fixed.idle[who]);
  }
  minds.mode_since.resize(count, now);
  minds.target.resize(count);
  minds.has_target.resize(count);
  minds.urged.resize(count);
  minds.lasted.resize(count);
}

Minds make_minds(const Fixed& fixed, Moment now) {
  Minds minds;
  add_agents(minds, fixed, now);
  return minds;
}

void clear_mind(Minds& minds, std::uint32_t who) {
  minds.target[who].reset();
  minds.has_target[who] = 0;
  minds.urged[who] = 0;
  std::erase_if(minds.pending, [&](const Pending& one) { return one.who == who; });
}

void reset(Minds& minds, std::uint32_t who) {
  clear_mind(minds, who);
  minds.awake[who] = 1;
  minds.lasted[who] = 0;
}

}  // namespace gaze
