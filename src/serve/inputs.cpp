#include "serve/inputs.hpp"

#include <algorithm>
#include <iterator>

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

const Inputs::Steered* Inputs::last(const Hand& hand, std::int64_t tick) {
  const auto after =
      std::upper_bound(hand.steered.begin(), hand.steered.end(), tick,
                       [](std::int64_t at, const Steered& one) { return at < one.tick; });
  return after == hand.steered.begin() ? nullptr : &*std::prev(after);
}

void Inputs::add(const Input& input) {
  Hand& hand = hands_[input.agent];
  if (input.deed) {
    hand.done.push_back({input.tick, *input.deed});
    return;
  }
  const Steered* before = last(hand, input.tick);
  const bool is_as_before = input.steering && before != nullptr && before->steering &&
                            is_alike(*before->steering, *input.steering);
  if (!is_as_before) hand.steered.push_back({input.tick, input.steering});
}

void Inputs::cut(std::int64_t tick) {
  const auto is_later = [&](const auto& one) { return one.tick >= tick; };
  for (auto& [agent, hand] : hands_) {
    std::erase_if(hand.steered, is_later);
    std::erase_if(hand.done, is_later);
  }
  std::erase_if(hands_, [](const auto& one) {
    return one.second.steered.empty() && one.second.done.empty();
  });
}

Inputs Inputs::at_rate(int before, int now) const {
  Inputs scaled = *this;
  const auto scale = [&](std::int64_t& tick) { tick = (2 * tick * now + before) / (2 * before); };
  for (auto& [agent, hand] : scaled.hands_) {
    for (Steered& one : hand.steered) scale(one.tick);
    for (Done& one : hand.done) scale(one.tick);
  }
  return scaled;
}

std::optional<Steering> Inputs::steering(const std::string& agent, std::int64_t tick) const {
  const auto hand = hands_.find(agent);
  const Steered* found = hand == hands_.end() ? nullptr : last(hand->second, tick);
  return found == nullptr ? std::nullopt : found->steering;
}

// Who has been brought back to where it began is no longer steered, while the hand still holds its
// keys: so all are steered anew at each tick.
void Inputs::apply(Simulation& game) const {
  for (const auto& [id, hand] : hands_) {
    const auto agent = game.find_agent(id);
    const Steered* now = last(hand, game.tick());
    if (!agent || now == nullptr || !can_be_steered(game, *agent)) continue;
    if (!now->steering) {
      game.let_go(*agent);
      continue;
    }
    Steering steering = *now->steering;
    const auto first =
        std::lower_bound(hand.done.begin(), hand.done.end(), game.tick(),
                         [](const Done& done, std::int64_t tick) { return done.tick < tick; });
    for (auto it = first; it != hand.done.end() && it->tick == game.tick(); ++it) {
      if (auto deed = meant(game, *agent, it->deed)) steering.deeds.push_back(std::move(*deed));
    }
    game.steer(*agent, steering);
  }
}

}  // namespace gaze::serve
