#include "study/measures.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/signed_turn.hpp"
#include "level/whom.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

/// Whom a name of a figure means.
class Meant {
 public:
  Meant(const Level& level, const std::string& name) {
    const std::span<const std::string> names{&name, name.empty() ? 0U : 1U};
    whom_ = Whom(level, names, tag_names(level));
  }

  bool is_anybody() const { return whom_.is_empty(); }
  bool means(const Simulation::State& state, Index who) const {
    return is_anybody() || whom_.means(state.somebody(who));
  }
  bool means(const Simulation::State& state, const std::optional<AgentId>& who) const {
    return is_anybody() || (who && means(state, who->index));
  }

 private:
  Whom whom_;
};

/// The time that counts, in ticks.
struct Stretch {
  double from = 0.0;
  double to = std::numeric_limits<double>::infinity();

  Stretch(const Figure& figure, int ticks_per_second) {
    if (figure.from) from = figure.from->seconds() * ticks_per_second;
    if (figure.to) to = figure.to->seconds() * ticks_per_second;
  }
  // A time that is given in decimals may lie beside its tick by rounding.
  bool holds(std::int64_t tick) const {
    constexpr double kRounding = 1e-6;  // ticks
    const auto at = static_cast<double>(tick);
    return at >= from - kRounding && at <= to + kRounding;
  }
};

struct Pick {
  Happening what;
  Meant by;
  Meant of;

  Pick(const Level& level, Happening event, const std::string& by_name, const std::string& of_name)
      : what(event), by(level, by_name), of(level, of_name) {}
  bool means(const Simulation::State& state, const Event& event) const {
    return event.what == what && by.means(state, event.agent) && of.means(state, event.other);
  }
};

double carried(const Event& event, Carried what) {
  switch (what) {
    case Carried::damage:
      return event.damage;
    case Carried::health:
      return event.health;
    case Carried::distance:
      return event.distance;
    case Carried::angle:
      return event.angle_deg;
    default:
      return event.score;
  }
}

/// The first, the last, the number or a sum of events.
class OfEvents {
 public:
  OfEvents(const Figure& figure, const Level& level)
      : figure_(figure),
        pick_(level,
              *(figure.first  ? figure.first
                : figure.last ? figure.last
                : figure.sum  ? figure.event
                              : figure.count),
              figure.by, figure.of),
        rate_(level.ticks_per_second) {}

  void add(const Simulation& simulation, const Stretch& stretch) {
    const Simulation::State& state = state_of(simulation);
    for (const Event& event : simulation.events()) {
      if (!stretch.holds(event.tick) || !pick_.means(state, event)) continue;
      if (figure_.first && !events_.empty()) return;
      if (figure_.last) events_.clear();
      events_.push_back(event);
    }
  }

  FigureValue value() const {
    FigureValue value;
    value.events = events_;
    if (figure_.count) {
      value.value = static_cast<double>(events_.size());
    } else if (figure_.sum) {
      double sum = 0.0;
      for (const Event& event : events_) sum += carried(event, *figure_.sum);
      value.value = sum;
    } else if (!events_.empty()) {
      value.value = static_cast<double>(events_.front().tick) / rate_;
    }
    return value;
  }

 private:
  Figure figure_;
  Pick pick_;
  double rate_;
  std::vector<Event> events_;
};

/// The time from one event to another.
class Between {
 public:
  Between(const Figure& figure, const Level& level)
      : first_(level, figure.between[0].event, figure.between[0].by, figure.between[0].of),
        then_(level, figure.between[1].event, figure.between[1].by, figure.between[1].of),
        rate_(level.ticks_per_second) {}

  // Events of one tick are at the same time, whatever their order.
  void add(const Simulation& simulation, const Stretch& stretch) {
    if (end_) return;
    const Simulation::State& state = state_of(simulation);
    const auto find = [&](const Pick& pick, std::int64_t from) -> std::optional<Event> {
      for (const Event& event : simulation.events()) {
        if (event.tick >= from && stretch.holds(event.tick) && pick.means(state, event)) {
          return event;
        }
      }
      return std::nullopt;
    };
    if (!begin_) begin_ = find(first_, 0);
    if (begin_) end_ = find(then_, begin_->tick);
  }

  FigureValue value() const {
    FigureValue value;
    if (begin_) value.events.push_back(*begin_);
    if (!end_) return value;
    value.events.push_back(*end_);
    value.value = static_cast<double>(end_->tick - begin_->tick) / rate_;
    return value;
  }

 private:
  Pick first_;
  Pick then_;
  double rate_;
  std::optional<Event> begin_;
  std::optional<Event> end_;
};

bool has_two_sides(Quantity quantity) {
  return quantity <= Quantity::evidence;
}

bool is_of_the_living(Quantity quantity) {
  return quantity != Quantity::health && quantity != Quantity::score;
}

double angle_between(const Simulation& simulation, const Simulation::State& state, Index who,
                     Index other) {
  if (state.kind(who).sight) {
    return measure(state.plane(), simulation.looker(state.id_of(who)),
                   simulation.looked(state.id_of(other)))
        .angle_deg;
  }
  const Vector2d way = plan_part(state.plane(), state.bodies.position[other]) -
                       plan_part(state.plane(), state.bodies.position[who]);
  const Vector2d& facing = state.bodies.head[who];
  return std::abs(signed_turn(facing, way));
}

double seen_by(const Simulation& simulation, const Simulation::State& state, Index who,
               const Meant& of) {
  int count = 0;
  for (Index looker = 0; looker < state.agent_count(); ++looker) {
    if (!state.is_in_game(looker) || !of.means(state, looker)) continue;
    count += simulation.sees(state.id_of(looker), state.id_of(who)) ? 1 : 0;
  }
  return count;
}

double of_one(const Simulation& simulation, const Simulation::State& state, Quantity quantity,
              Index who, const Meant& of) {
  switch (quantity) {
    case Quantity::health:
      return state.lives.health[who];
    case Quantity::speed:
      return length_of(state.bodies.last_move[who]) * state.level().ticks_per_second;
    case Quantity::score:
      return state.score[who];
    default:
      return seen_by(simulation, state, who, of);
  }
}

double of_two(const Simulation& simulation, const Simulation::State& state, Quantity quantity,
              Index who, Index other) {
  switch (quantity) {
    case Quantity::distance:
      return length_of(Vector3d(state.bodies.position[other] - state.bodies.position[who]));
    case Quantity::angle:
      return angle_between(simulation, state, who, other);
    case Quantity::visible:
      return simulation.look(state.id_of(who), state.id_of(other)).line.visible;
    default:
      return simulation.look(state.id_of(who), state.id_of(other)).gathered;
  }
}

/// The least, the most, the mean, the first or the last of what is measured.
class OfQuantity {
 public:
  OfQuantity(const Figure& figure, const Level& level)
      : by_(level, figure.by),
        of_(level, figure.of),
        is_least_(figure.least),
        is_most_(figure.most),
        is_start_(figure.start),
        is_end_(figure.end),
        quantity_(*(figure.least   ? figure.least
                    : figure.most  ? figure.most
                    : figure.mean  ? figure.mean
                    : figure.start ? figure.start
                                   : figure.end)) {}

  void add(const Simulation& simulation, const Stretch& stretch) {
    if (!stretch.holds(simulation.tick()) || (is_start_ && samples_ > 0)) return;
    const Simulation::State& state = state_of(simulation);
    double sum = 0.0;
    int count = 0;
    each(simulation, state, [&](double value, Index who, std::optional<Index> other) {
      sum += value;
      ++count;
      const bool is_new = (is_least_ && !(value >= extreme_)) ||
                          (is_most_ && !(value <= extreme_)) || is_end_ || is_start_;
      if (is_new) {
        extreme_ = value;
        at_ = FigureValue{};
        at_.tick = simulation.tick();
        at_.by = state.id_of(who);
        if (other) at_.of = state.id_of(*other);
      }
    });
    if (count == 0) return;
    if (is_end_) sum_ = 0.0;
    samples_ = is_end_ ? 1 : samples_ + 1;
    sum_ += sum / count;
  }

  FigureValue value() const {
    FigureValue value = at_;
    if (samples_ == 0) return value;
    value.value = is_least_ || is_most_ ? extreme_ : sum_ / static_cast<double>(samples_);
    return value;
  }

 private:
  // Each of whom it is, or each pair of them.
  template <typename Visit>
  void each(const Simulation& simulation, const Simulation::State& state, Visit&& visit) const {
    const auto counts = [&](Index who) {
      return state.is_in_game(who) && (!is_of_the_living(quantity_) || state.lives.alive[who] != 0);
    };
    for (Index who = 0; who < state.agent_count(); ++who) {
      if (!counts(who) || !by_.means(state, who)) continue;
      if (!has_two_sides(quantity_)) {
        visit(of_one(simulation, state, quantity_, who, of_), who, std::nullopt);
        continue;
      }
      for (Index other = 0; other < state.agent_count(); ++other) {
        if (other == who || !counts(other) || !of_.means(state, other)) continue;
        visit(of_two(simulation, state, quantity_, who, other), who, other);
      }
    }
  }

  Meant by_;
  Meant of_;
  bool is_least_;
  bool is_most_;
  bool is_start_;
  bool is_end_;
  Quantity quantity_;
  double extreme_ = std::numeric_limits<double>::quiet_NaN();
  FigureValue at_;
  double sum_ = 0.0;
  std::int64_t samples_ = 0;
};

/// The share of the time in which somebody is in a situation.
class OfSituation {
 public:
  OfSituation(const Figure& figure, const Level& level)
      : by_(level, figure.by), of_(level, figure.of), what_(*figure.share) {}

  void add(const Simulation& simulation, const Stretch& stretch) {
    if (!stretch.holds(simulation.tick())) return;
    const Simulation::State& state = state_of(simulation);
    bool counts = false;
    bool is_so = false;
    for (Index who = 0; who < state.agent_count() && !is_so; ++who) {
      if (!state.is_in_game(who) || state.lives.alive[who] == 0 || !by_.means(state, who)) continue;
      counts = true;
      std::optional<AgentId> because;
      is_so = is_in_it(simulation, state, who, because);
      if (is_so && so_ == 0) first_ = {{}, {}, simulation.tick(), state.id_of(who), because};
    }
    samples_ += counts ? 1 : 0;
    so_ += is_so ? 1 : 0;
  }

  FigureValue value() const {
    FigureValue value = first_;
    if (samples_ > 0) value.value = static_cast<double>(so_) / static_cast<double>(samples_);
    return value;
  }

 private:
  // Whether it is so, and because of whom if that is somebody.
  bool is_in_it(const Simulation& simulation, const Simulation::State& state, Index who,
                std::optional<AgentId>& because) const {
    if (what_ > Situation::noticed) {
      return name_of(state.minds.mode[who]) == kSituationNames[static_cast<std::size_t>(what_)];
    }
    because = perceived_by(simulation, state, who);
    return because.has_value() == (what_ != Situation::unseen);
  }

  std::optional<AgentId> perceived_by(const Simulation& simulation, const Simulation::State& state,
                                      Index who) const {
    for (Index looker = 0; looker < state.agent_count(); ++looker) {
      if (looker == who || !state.is_in_game(looker) || !of_.means(state, looker)) continue;
      const AgentId one = state.id_of(looker);
      const AgentId other = state.id_of(who);
      const bool is_so = what_ == Situation::noticed
                             ? simulation.awareness(one, other) == Awareness::noticed
                             : simulation.sees(one, other);
      if (is_so) return one;
    }
    return std::nullopt;
  }

  Meant by_;
  Meant of_;
  Situation what_;
  FigureValue first_;  ///< When it was so first, and of whom.
  std::int64_t samples_ = 0;
  std::int64_t so_ = 0;
};

/// A measure within the time that counts.
template <typename Of>
class Timed : public Measuring {
 public:
  Timed(const Figure& figure, const Level& level)
      : of_(figure, level), stretch_(figure, level.ticks_per_second) {}
  void add(const Simulation& simulation) override { of_.add(simulation, stretch_); }
  FigureValue value() const override { return of_.value(); }

 private:
  Of of_;
  Stretch stretch_;
};

}  // namespace

std::unique_ptr<Measuring> measuring(const Figure& figure, const Level& level) {
  if (figure.first || figure.last || figure.count || figure.sum) {
    return std::make_unique<Timed<OfEvents>>(figure, level);
  }
  if (!figure.between.empty()) return std::make_unique<Timed<Between>>(figure, level);
  if (figure.share) return std::make_unique<Timed<OfSituation>>(figure, level);
  return std::make_unique<Timed<OfQuantity>>(figure, level);
}

}  // namespace gaze
