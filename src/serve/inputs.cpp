#include "serve/inputs.hpp"

#include <algorithm>
#include <set>

namespace gaze::serve {
namespace {

bool is_alike(const Steering& a, const Steering& b) {
  return a.way == b.way && a.aim == b.aim && a.is_plan_aim == b.is_plan_aim && a.fires == b.fires &&
         a.is_quiet == b.is_quiet && a.hops == b.hops;
}

bool can_be_steered(const Simulation& game, AgentId agent) {
  return game.level().agents[agent.index].driver != Driver::mind;
}

// The nearest that lies about: if that is too far off, why it cannot be taken is told.
std::optional<TrackDeed> taking(const Simulation& game, AgentId agent) {
  const Vector3d feet = game.state(agent).position;
  std::optional<TrackDeed> deed;
  double nearest = 0.0;
  for (const AgentId other : game.agents()) {
    const AgentState state = game.state(other);
    const bool is_thing = game.level().kind_of(game.level().agents[other.index]).thing.has_value();
    const double distance = (state.position - feet).squaredNorm();
    const bool lies_there = is_thing && state.is_alive && !state.carrier && state.is_there;
    if (!lies_there || (deed && distance >= nearest)) continue;
    nearest = distance;
    deed.emplace().name = game.id_of(other);
  }
  return deed;
}

// What it has in its hand, or else the first of what its pockets hold.
std::optional<TrackDeed> throwing(const Simulation& game, AgentId agent, const Vector3d& place) {
  const Level& level = game.level();
  TrackDeed deed;
  deed.what = TrackDeed::What::throw_;
  deed.place = place;
  for (const AgentId other : game.agents()) {
    if (game.state(other).carrier != agent) continue;
    deed.name = level.kind_of(level.agents[other.index]).name;
    return deed;
  }
  const std::vector<int> left = game.state(agent).pockets;
  const std::vector<Pocket>& pockets = level.kind_of(level.agents[agent.index]).carries;
  for (std::size_t i = 0; i < left.size() && i < pockets.size(); ++i) {
    if (left[i] == 0) continue;
    deed.name = level.kinds[pockets[i].kind].name;
    return deed;
  }
  return std::nullopt;
}

}  // namespace

std::optional<TrackDeed> meant(const Simulation& game, AgentId agent, const HandDeed& deed) {
  if (deed.what == HandDeed::What::take) return taking(game, agent);
  if (deed.what == HandDeed::What::throw_) return throwing(game, agent, deed.place);
  TrackDeed drop;
  drop.what = TrackDeed::What::drop;
  return drop;
}

void Inputs::add(Input input) {
  if (input.steering) {
    const auto before = steering(input.agent, input.tick);
    if (before && is_alike(*before, *input.steering)) return;
  }
  all_.push_back(std::move(input));
}

void Inputs::cut(std::int64_t tick) {
  std::erase_if(all_, [&](const Input& input) { return input.tick >= tick; });
}

std::optional<Steering> Inputs::steering(const std::string& agent, std::int64_t tick) const {
  for (auto it = all_.rbegin(); it != all_.rend(); ++it) {
    if (it->tick <= tick && it->agent == agent && !it->deed) return it->steering;
  }
  return std::nullopt;
}

// Who has been brought back to where it began is no longer steered, while the hand still holds its
// keys: so all are steered anew at each tick.
void Inputs::apply(Simulation& game) const {
  std::set<std::string> settled;
  for (auto it = all_.rbegin(); it != all_.rend(); ++it) {
    if (it->tick > game.tick() || it->deed || !settled.insert(it->agent).second) continue;
    const auto agent = game.find_agent(it->agent);
    if (!agent || !can_be_steered(game, *agent)) continue;
    if (it->steering) {
      Steering steering = *it->steering;
      add_deeds(game, *agent, it->agent, steering);
      game.steer(*agent, steering);
    } else {
      game.let_go(*agent);
    }
  }
}

void Inputs::add_deeds(const Simulation& game, AgentId agent, const std::string& id,
                       Steering& steering) const {
  const auto first =
      std::lower_bound(all_.begin(), all_.end(), game.tick(),
                       [](const Input& input, std::int64_t tick) { return input.tick < tick; });
  for (auto it = first; it != all_.end() && it->tick == game.tick(); ++it) {
    if (!it->deed || it->agent != id) continue;
    if (auto deed = meant(game, agent, *it->deed)) steering.deeds.push_back(std::move(*deed));
  }
}

}  // namespace gaze::serve
