#include <algorithm>
#include <limits>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// How kinds fare against each other: who defeats whom in which time, what it costs to run away,
/// and who comes up with whom.
namespace gaze {
namespace {

constexpr double kForEver = std::numeric_limits<double>::infinity();

/// How a foe fares if everything that an attack deals hits it, from the first pull on.
struct Outcome {
  std::optional<double> seconds;  ///< Until it is defeated; nothing if that never comes.
  double lost = 0.0;              ///< Health until then.
  bool is_healed = false;         ///< The foe regains all health before each further attack.
};

double damage_against(const Attack& attack, const Kind& foe) {
  return attack.damage * share_taken(foe, attack.damage_kind);
}

/// The health of a foe between blows.
class Wounds {
 public:
  explicit Wounds(const Kind& foe) : foe_(foe), health_(foe.health) {}

  // @return Whether it is defeated.
  bool hurt(double seconds, double damage) {
    const double healing = std::max(0.0, seconds - hurt_at_ - foe_.heals_after.seconds());
    health_ = std::min(foe_.health, health_ + foe_.heals * healing);
    has_healed_ = health_ == foe_.health;
    hurt_at_ = seconds;
    health_ -= damage;
    return health_ <= 0.0;
  }
  // True if its health was full before the last hit.
  bool has_healed() const { return has_healed_; }
  double lost() const { return std::min(foe_.health, foe_.health - health_); }

 private:
  const Kind& foe_;
  double health_;
  double hurt_at_ = 0.0;
  bool has_healed_ = false;
};

// Pulls up to a time of so many seconds.
Outcome outcome_of(const Attack& attack, const Kind& foe, double until) {
  constexpr int kMostPulls = 1'000'000;
  const double damage = damage_against(attack, foe);
  const int shots = attack.how == Attack::How::shot ? attack.burst : 1;
  Outcome outcome;
  Wounds wounds(foe);
  double pulled = 0.0;
  double spared_until = -1.0;
  int left = attack.ammunition;
  for (int pull = 0; pull < kMostPulls && pulled <= until; ++pull) {
    double last = pulled;
    const int count = left == 0 ? shots : std::min(shots, left);
    for (int shot = 0; shot < count; ++shot) {
      last = pulled + seconds_to_blow(attack, shot);
      if (last < spared_until) continue;
      spared_until = last + foe.grace.seconds();
      const bool is_defeated = wounds.hurt(last, damage);
      outcome.lost = std::max(outcome.lost, wounds.lost());
      if (!is_defeated) continue;
      outcome.seconds = last + (attack.how == Attack::How::beam ? attack.hold.seconds() : 0.0);
      return outcome;
    }
    // Without ammunition to run out of, all further attacks are the same.
    if (left == 0 && pull > 0 && shots == 1 && wounds.has_healed()) {
      outcome.is_healed = true;
      return outcome;
    }
    pulled += attack.cooldown->seconds();
    if (left == 0) continue;
    left -= count;
    if (left > 0) continue;
    if (!attack.reload) return outcome;
    left = attack.ammunition;
    pulled = std::max(pulled, last + attack.reload->seconds());
  }
  outcome.is_healed = foe.heals > 0.0;  // neither empty nor fatal after very many attacks
  return outcome;
}

/// One kind against another.
class Pair {
 public:
  Pair(const Level& level, const Kind& kind, const Kind& foe)
      : level_(level), kind_(kind), foe_(foe) {}

  PairFigures figures() const {
    return {kind_.name, foe_.name, foe_.health, harms(), running_away(), gain()};
  }

 private:
  std::vector<PairFigures::Harm> harms() const {
    std::vector<PairFigures::Harm> harms;
    for (const Attack& attack : kind_.attacks) {
      if (!(damage_against(attack, foe_) > 0.0)) continue;
      const Outcome outcome = outcome_of(attack, foe_, kForEver);
      harms.push_back({attack.name, outcome.lost, outcome.seconds, nearest(), reach_at(attack),
                       outcome.is_healed});
    }
    return harms;
  }

  double nearest() const { return nearest_in_chase(kind_, foe_); }

  // How far off the other may be for an attack, between their middles. Nothing limits one without a
  // range but touching, which is when the bodies meet.
  double reach_at(const Attack& attack) const {
    const bool touches = attack.how == Attack::How::touch ||
                         (attack.how == Attack::How::catch_ && !(attack.range > 0.0));
    if (touches) return kind_.radius + foe_.radius;
    return attack.range > 0.0 ? attack.range : kForEver;
  }

  // A shot that is slower than its target never comes up with it.
  bool reaches_who_runs(const Attack& attack) const {
    const bool is_at_a_distance = attack.aim != Attack::Aim::mirror &&
                                  attack.how != Attack::How::touch &&
                                  attack.how != Attack::How::catch_;
    const bool comes_up = attack.how != Attack::How::shot || attack.speed > foe_.move->speed;
    return damage_against(attack, foe_) > 0.0 && is_at_a_distance && comes_up;
  }

  // How many seconds pass until the foe is out of the range of an attack; below 0 if it never is
  // within it.
  double seconds_in_reach(const Attack& attack) const {
    const double gap = attack.range - nearest();
    const double own = can_chase(kind_) ? kind_.move->speed : 0.0;
    if (gap < 0.0) return -1.0;
    return foe_.move->speed > own ? gap / (foe_.move->speed - own) : kForEver;
  }

  std::optional<PairFigures::RunningAway> running_away() const {
    if (foe_.move->gait != Gait::walk || !(foe_.move->speed > 0.0)) return std::nullopt;
    PairFigures::RunningAway sum{nearest(), 0.0, 0.0};
    bool any = false;
    double longest = 0.0;
    for (const Attack& attack : kind_.attacks) {
      const double seconds = reaches_who_runs(attack) ? seconds_in_reach(attack) : -1.0;
      if (seconds < 0.0) continue;
      any = true;
      longest = std::max(longest, seconds);
      sum.lost = std::min(foe_.health, sum.lost + outcome_of(attack, foe_, seconds).lost);
    }
    if (!any) return std::nullopt;
    sum.seconds = longest < kForEver ? std::optional(longest) : std::nullopt;
    return sum;
  }

  // The fastest that an agent of the other goes: by its script where it has one.
  double top_speed() const {
    double speed = 0.0;
    for (const Agent& agent : level_.agents) {
      if (&level_.kind_of(agent) != &foe_) continue;
      if (agent.driver != Driver::script) speed = std::max(speed, foe_.move->speed);
      for (const ScriptStep& step : agent.script) {
        if (step.what != ScriptStep::What::go) continue;
        speed = std::max(speed, step.speed.value_or(foe_.move->speed));
      }
    }
    return speed;
  }

  std::optional<double> gain() const {
    if (!can_chase(kind_) || !travels(foe_.move->gait)) return std::nullopt;
    const double speed = top_speed();
    return speed > 0.0 ? std::optional(speed - kind_.move->speed) : std::nullopt;
  }

  const Level& level_;
  const Kind& kind_;
  const Kind& foe_;
};

}  // namespace

double nearest_in_chase(const Kind& kind, const Kind& foe) {
  if (!can_chase(kind)) return kind.radius + foe.radius;
  return std::max(stop_distance(kind, foe), kind.move->keep_away);
}

PairFigures figures_of_pair(const Level& level, const Kind& kind, const Kind& foe) {
  return Pair(level, kind, foe).figures();
}

void judge_pairs(Bench& bench) {
  constexpr std::size_t kMostPairs = 10'000;
  const Level& level = bench.level();
  const auto& in_play = bench.kinds_in_play();
  std::size_t pairs = 0;
  for (const std::uint32_t index : in_play) {
    for (const std::uint32_t other : in_play) {
      const Kind& kind = level.kinds[index];
      if (!is_hostile(level, kind.team, level.kinds[other].team)) continue;
      if (++pairs > kMostPairs) continue;
      PairFigures figures = figures_of_pair(level, kind, level.kinds[other]);
      if (figures.harms.empty() && !figures.running_away && !figures.gain) continue;
      std::string text = describe(figures);
      bench.say(Finding::Severity::note, "pair", bench.place_of(kind, "attack"), std::move(text),
                std::move(figures));
    }
  }
  const std::size_t looked_at = std::min(pairs, kMostPairs);
  bench.say_left_out("how kinds fare was reckoned for", looked_at, "pairs of them",
                     pairs - looked_at);
}

}  // namespace gaze
