#include "gaze/tools/compare.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <span>

#include "gaze/tools/figures.hpp"
#include "level/numbers.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

std::int64_t last_tick(const Level& level) {
  return nearest_tick(level.seconds, level.ticks_per_second);
}

/// One of the two runs.
struct ComparedRun {
  Simulation game;
  std::int64_t last = 0;
  Figures figures;
  std::map<std::string, std::vector<double>> events;  ///< Seconds at which those of a sort came.

  ComparedRun(const Level& level, std::span<const Figure> taken)
      : game(level), last(last_tick(game.level())), figures(game, taken) {
    figures.add(game);
  }

  bool goes_on() const { return game.tick() < last; }

  void step() {
    game.step();
    figures.add(game);
    for (const Event& event : game.events()) {
      const double seconds = static_cast<double>(event.tick) / game.level().ticks_per_second;
      events[sort_of(game, event)].push_back(seconds);
    }
  }
};

std::string_view knowledge_text(Awareness awareness) {
  switch (awareness) {
    case Awareness::unaware:
      return "is unaware of";
    case Awareness::gathering:
      return "has begun to see";
    case Awareness::noticed:
      return "has noticed";
    default:
      return "has lost";
  }
}

/// Finds what is not alike at one moment.
class Parted {
 public:
  Parted(const Simulation& one, const Simulation& other) : games_{&one, &other} {
    for (const AgentId agent : one.agents()) {
      if (const auto same = other.find_agent(one.id_of(agent))) pairs_.push_back({agent, *same});
    }
  }

  std::optional<RunFork> find() const {
    std::set<std::string> who;
    std::optional<RunFork> fork = of_knowledge(who);
    if (auto by_state = of_state(who); !fork) fork = std::move(by_state);
    if (fork) fork->others = who.size() - 1;
    if (!fork) fork = of_projectiles();
    if (!fork) fork = of_solids();
    if (fork) fork->seconds = games_[0]->seconds();
    return fork;
  }

 private:
  using Pair = std::array<AgentId, 2>;

  // Whoever knows something else of somebody: that is why it then does something else.
  std::optional<RunFork> of_knowledge(std::set<std::string>& who) const {
    std::optional<RunFork> first;
    for (const Pair& looker : pairs_) {
      for (const Pair& other : pairs_) {
        const Awareness one = games_[0]->awareness(looker[0], other[0]);
        const Awareness two = games_[1]->awareness(looker[1], other[1]);
        if (one == two) continue;
        who.insert(games_[0]->id_of(looker[0]));
        if (first) continue;
        first.emplace();
        first->who = games_[0]->id_of(looker[0]);
        first->of = games_[0]->id_of(other[0]);
        first->states = {fmt::format("{} {}", knowledge_text(one), first->of),
                         fmt::format("{} {}", knowledge_text(two), first->of)};
        for (std::size_t i = 0; i < 2; ++i) {
          first->verdicts[i] = explain(games_[i]->look(looker[i], other[i]));
        }
      }
    }
    return first;
  }

  std::optional<RunFork> of_state(std::set<std::string>& who) const {
    std::optional<RunFork> first;
    for (const Pair& pair : pairs_) {
      const AgentState one = games_[0]->state(pair[0]);
      const AgentState two = games_[1]->state(pair[1]);
      const bool is_alike =
          one.position == two.position && one.facing == two.facing && one.head == two.head &&
          one.health == two.health && one.mode == two.mode && one.is_alive == two.is_alive &&
          one.is_awake == two.is_awake && one.score == two.score && one.tags == two.tags &&
          one.pockets == two.pockets && target_of(0, one) == target_of(1, two) &&
          carrier_of(0, one) == carrier_of(1, two);
      if (is_alike) continue;
      who.insert(games_[0]->id_of(pair[0]));
      if (first) continue;
      first.emplace();
      first->who = games_[0]->id_of(pair[0]);
      first->states = {state_text(0, one, two), state_text(1, two, one)};
    }
    return first;
  }

  std::string target_of(std::size_t side, const AgentState& state) const {
    return state.target ? games_[side]->id_of(*state.target) : "";
  }

  std::string carrier_of(std::size_t side, const AgentState& state) const {
    return state.carrier ? games_[side]->id_of(*state.carrier) : "";
  }

  std::optional<RunFork> of_projectiles() const {
    const std::array all{games_[0]->projectiles(), games_[1]->projectiles()};
    const std::size_t count = std::max(all[0].size(), all[1].size());
    for (std::size_t i = 0; i < count; ++i) {
      const auto at = [&](std::size_t side) {
        return i < all[side].size() ? &all[side][i] : nullptr;
      };
      const Projectile* one = at(0);
      const Projectile* two = at(1);
      const bool is_alike = one && two && one->position == two->position &&
                            one->velocity == two->velocity && one->attack == two->attack &&
                            games_[0]->id_of(one->shooter) == games_[1]->id_of(two->shooter);
      if (is_alike) continue;
      RunFork fork;
      const std::size_t side = one ? 0 : 1;
      fork.who = fmt::format("a projectile of {}", games_[side]->id_of(at(side)->shooter));
      for (std::size_t k = 0; k < 2; ++k) {
        fork.states[k] = at(k) == nullptr ? std::string("is not in flight")
                                          : projectile_text(games_[k]->level().plane, *at(k));
      }
      return fork;
    }
    return std::nullopt;
  }

  static std::string projectile_text(Plane plane, const Projectile& one) {
    return fmt::format("is at {}, at {:.3f} m/s", place_text(plane, one.position),
                       one.velocity.norm());
  }

  // Solids of one name that are gone, or have lost health, in one run and not in the other.
  std::optional<RunFork> of_solids() const {
    std::map<std::string, Index> known;
    const auto& others = games_[1]->level().solids;
    for (Index i = 0; i < others.size(); ++i) known.emplace(others[i].id, i);
    const auto& own = games_[0]->level().solids;
    for (Index i = 0; i < own.size(); ++i) {
      const auto same = known.find(own[i].id);
      if (same == known.end()) continue;
      const std::array states{solid_text(0, i), solid_text(1, same->second)};
      if (states[0] == states[1]) continue;
      RunFork fork;
      fork.who = own[i].id;
      fork.states = states;
      return fork;
    }
    return std::nullopt;
  }

  std::string solid_text(std::size_t side, Index solid) const {
    if (games_[side]->world().is_gone({solid})) return "is open or gone";
    const std::vector<double>& health = state_of(*games_[side]).fights.solid_health;
    const bool breaks = solid < health.size() && games_[side]->level().solids[solid].health > 0.0;
    return breaks ? fmt::format("is there, with {} health", health[solid]) : "is there";
  }

  // The text of one side, with so many digits that it differs from that of the other.
  template <typename Text>
  static std::string enough_digits(int least, Text&& text) {
    constexpr int kAllDigits = 17;
    int digits = least;
    while (digits < kAllDigits && text(true, digits) == text(false, digits)) ++digits;
    return text(true, digits);
  }

  std::string place_with(int digits, const Vector3d& p) const {
    const Plane plane = games_[0]->level().plane;
    if (plane == Plane::space) {
      return fmt::format("[{:.{}f}, {:.{}f}, {:.{}f}]", p.x(), digits, p.y(), digits, p.z(),
                         digits);
    }
    return fmt::format("[{:.{}f}, {:.{}f}]", p.x(), digits, plane == Plane::upright ? p.z() : p.y(),
                       digits);
  }

  // What differs of it, and no more.
  std::string state_text(std::size_t side, const AgentState& own, const AgentState& other) const {
    std::string text;
    const auto add = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
    if (own.mode != other.mode) add(fmt::format("mode {}", name_of(own.mode)));
    if (own.health != other.health) add(fmt::format("{} health", number_text(own.health)));
    if (target_of(side, own) != target_of(1 - side, other)) {
      add("target " + (own.target ? target_of(side, own) : std::string("nobody")));
    }
    if (own.is_awake != other.is_awake) add(own.is_awake ? "awake" : "asleep");
    if (own.score != other.score) add(fmt::format("score {}", own.score));
    if (own.tags != other.tags) add(fmt::format("tags {}", fmt::join(own.tags, " ")));
    if (own.pockets != other.pockets) add(fmt::format("{} carried", fmt::join(own.pockets, " ")));
    if (carrier_of(side, own) != carrier_of(1 - side, other)) {
      add(own.carrier ? "carried by " + carrier_of(side, own) : std::string("not carried"));
    }
    if (own.position != other.position) {
      add("at " + enough_digits(4, [&](bool is_own, int digits) {
            return place_with(digits, is_own ? own.position : other.position);
          }));
    }
    if (own.facing != other.facing || own.head != other.head) {
      add("looks along " + enough_digits(3, [&](bool is_own, int digits) {
            const double degrees = angle_of((is_own ? own : other).head).degrees();
            return fmt::format("{:.{}f} degrees", degrees, digits);
          }));
    }
    return text.empty() ? "is as before" : text;
  }

  std::array<const Simulation*, 2> games_;
  std::vector<Pair> pairs_;
};

std::vector<std::string> missing(const Level& from, const Level& in) {
  std::set<std::string> known;
  for (const Agent& agent : from.agents) known.insert(agent.id);
  std::vector<std::string> ids;
  for (const Agent& agent : in.agents) {
    if (!agent.is_spare && !known.contains(agent.id)) ids.push_back(agent.id);
  }
  return ids;
}

// A figure that means something else in the other level is not the same.
std::vector<Figure> common_figures(const Level& one, const Level& other) {
  std::map<std::string, std::string> known;
  for (const Figure& figure : all_figures(other)) known[figure.name] = describe(figure);
  std::vector<Figure> figures;
  for (Figure& figure : all_figures(one)) {
    const auto same = known.find(figure.name);
    if (same != known.end() && same->second == describe(figure)) {
      figures.push_back(std::move(figure));
    }
  }
  return figures;
}

using EventTimes = std::map<std::string, std::vector<double>>;

std::span<const double> times_of(const EventTimes& events, const std::string& sort) {
  const auto at = events.find(sort);
  return at == events.end() ? std::span<const double>{} : at->second;
}

// At other tick rates the same events come a fraction of a tick sooner or later: there only their
// number counts.
std::optional<EventDifference> difference_of(const std::string& sort, std::span<const double> one,
                                             std::span<const double> other, bool by_tick) {
  const auto count = [](std::span<const double> times) { return static_cast<int>(times.size()); };
  EventDifference difference{sort, {count(one), count(other)}, {0.0, 0.0}};
  std::size_t at = 0;
  if (one.size() == other.size()) {
    if (!by_tick) return std::nullopt;
    while (at < one.size() && one[at] == other[at]) ++at;
    if (at == one.size()) return std::nullopt;
  }
  if (at < one.size()) difference.first[0] = one[at];
  if (at < other.size()) difference.first[1] = other[at];
  return difference;
}

std::vector<EventDifference> differing_events(const ComparedRun& one, const ComparedRun& other,
                                              bool by_tick) {
  std::vector<EventDifference> differences;
  std::set<std::string> sorts;
  for (const ComparedRun* side : {&one, &other}) {
    for (const auto& [sort, value] : side->events) sorts.insert(sort);
  }
  for (const std::string& sort : sorts) {
    const auto difference =
        difference_of(sort, times_of(one.events, sort), times_of(other.events, sort), by_tick);
    if (difference) differences.push_back(*difference);
  }
  const auto begin = [](const EventDifference& one_sort) {
    if (one_sort.count[0] == 0) return one_sort.first[1];
    if (one_sort.count[1] == 0) return one_sort.first[0];
    return std::min(one_sort.first[0], one_sort.first[1]);
  };
  std::stable_sort(
      differences.begin(), differences.end(),
      [&](const EventDifference& a, const EventDifference& b) { return begin(a) < begin(b); });
  return differences;
}

}  // namespace

Comparison compare(const Level& one, const Level& other) {
  Comparison result;
  result.only_in_one = missing(other, one);
  result.only_in_other = missing(one, other);
  result.figures = common_figures(one, other);
  ComparedRun first(one, result.figures);
  ComparedRun second(other, result.figures);
  const bool is_in_step = one.ticks_per_second == other.ticks_per_second;
  result.is_compared_by_tick = is_in_step;
  const auto look = [&] {
    if (is_in_step && !result.fork) result.fork = Parted(first.game, second.game).find();
  };
  look();
  while (first.goes_on() || second.goes_on()) {
    const bool both = first.goes_on() && second.goes_on();
    if (first.goes_on()) first.step();
    if (second.goes_on()) second.step();
    if (both) look();
  }
  const auto one_values = first.figures.values();
  const auto other_values = second.figures.values();
  for (std::size_t i = 0; i < result.figures.size(); ++i) {
    result.values.push_back({one_values[i].value, other_values[i].value});
  }
  result.events = differing_events(first, second, is_in_step);
  const bool has_same_agents = result.only_in_one.empty() && result.only_in_other.empty();
  result.differs_inside =
      is_in_step && !result.fork && has_same_agents && first.game.digest() != second.game.digest();
  return result;
}

}  // namespace gaze
