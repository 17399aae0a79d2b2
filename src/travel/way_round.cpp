#include <algorithm>

#include "navigation/standing.hpp"
#include "travel/find_way.hpp"

/// Keeps account of those round whom a way leads, because they stand where there is no room to get
/// past.
namespace gaze {

std::span<const Cylinder> avoided_by(Travelling& state, std::uint32_t who) {
  state.ways.avoided.clear();
  if (const LeadsRound* round = state.ways.leads_round[who]) {
    for (const InTheWay& one : round->those()) state.ways.avoided.push_back(state.body(one.who));
  }
  return state.ways.avoided;
}

bool forget_avoided(Travelling& state, std::uint32_t who) {
  LeadsRound* round = state.ways.leads_round[who];
  if (round == nullptr) return false;
  const auto end = round->all.begin() + round->count;
  const auto left = std::remove_if(round->all.begin(), end, [&](const InTheWay& one) {
    return !state.lives.alive[one.who] || state.bodies.seen_position[one.who] != one.at;
  });
  const bool are_all_there = left == end;
  round->count = static_cast<std::uint32_t>(left - round->all.begin());
  if (round->count == 0) state.ways.leads_round.reset(who);
  return !are_all_there;
}

// True if an agent touches them, or stands in a line behind them.
void avoid(Travelling& state, std::uint32_t who) {
  constexpr double kBeside = 0.1;  // metres
  const auto target = state.target_agent(who);
  const auto add = [&](std::uint32_t other) {
    if (other == target) return;
    LeadsRound& round = state.ways.leads_round.get(who);
    const auto end = round.all.begin() + round.count;
    const bool is_known =
        std::any_of(round.all.begin(), end, [&](const InTheWay& one) { return one.who == other; });
    if (is_known) return;
    if (round.count == LeadsRound::kMost) {
      std::shift_left(round.all.begin(), end, 1);
      --round.count;
    }
    round.all[round.count++] = {other, state.bodies.seen_position[other]};
  };
  const Vector3d& own = state.bodies.position[who];
  const double reach = state.fixed.radius[who] + kBeside;
  state.ways.walkers.near(
      own, reach + state.fixed.widest, [&](std::uint32_t other, double distance2) {
        const double most = reach + state.fixed.radius[other];
        if (other == who || distance2 > most * most || !state.are_solid(who, other)) return;
        if (!state.ways.is_on_way[other] && state.ways.pace_length[other] == 0.0) add(other);
      });
  const InLine& line = state.ways.line[who];
  if (line.place != InLine::kNone && state.lives.alive[line.head]) add(line.head);
}

bool stand_in_the_way(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  if (state.ways.leads_round[who] == nullptr) return false;
  const NavigationMesh& mesh = mesh_for(state, who);
  const NavigationMesh::Data& data = data_of(mesh);
  return Standing(mesh, avoided_by(state, who))
      .bars(data.plan(state.bodies.position[who]), data.plan(goal), {true, true});
}

}  // namespace gaze
