#include <algorithm>
#include <cmath>

#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "level/whom.hpp"

/// What agents have and can do nothing with: foes that they never look for, attacks that hurt
/// nobody, friends that are not there, legs that take no step.
namespace gaze {
namespace {

using Severity = Finding::Severity;

bool has_mind(const Level& level, const Kind& kind) {
  return any_agent(level, [&](const Agent& agent, const Kind& its) {
    return &its == &kind && agent.driver == Driver::mind;
  });
}

/// Looks at one kind that is in play.
class Powerless {
 public:
  Powerless(Bench& bench, const Kind& kind)
      : bench_(bench),
        level_(bench.level()),
        kind_(kind),
        has_mind_(has_mind(level_, kind)),
        foes_(bench.foes_in_play(kind)) {}

  void judge() {
    judge_team();
    judge_turning();
    judge_choice();
    judge_tell();
    judge_time();
    judge_legs();
    judge_idle();
    for (const Attack& attack : kind_.attacks) {
      judge_damage(attack);
      judge_least_range(attack);
      judge_length(attack);
      judge_grace(attack);
    }
  }

 private:
  void say(const char* code, const std::string& key, std::string message) {
    bench_.say(Severity::warning, code, bench_.place_of(kind_, key), std::move(message));
  }

  void judge_team() {
    const bool perceives = kind_.sight || kind_.nearness || !kind_.feelers.empty();
    const bool acts = !kind_.attacks.empty() || leads_to(kind_, Mode::chase);
    if (kind_.team != kNoTeam || level_.teams.empty()) return;
    const auto touches =
        std::find_if(kind_.attacks.begin(), kind_.attacks.end(),
                     [](const Attack& attack) { return attack.how == Attack::How::touch; });
    const bool is_blind = has_mind_ && perceives && acts;
    if (!is_blind && touches == kind_.attacks.end()) return;
    say("without-team", is_blind ? "sight" : "attack." + touches->name + ".how",
        worded("{} has no team: it is hostile to nobody and {} nobody; [kind.{}] team = \"{}\" "
               "would be one",
               kind_.name, is_blind ? "notices" : "hurts", kind_.name, level_.teams.front().name));
  }

  bool is_aimed_ahead(const Attack& attack) const {
    if (attack.how == Attack::How::strike) return attack.arc.degrees() < 360.0;
    return attack.how == Attack::How::beam ||
           (attack.how == Attack::How::shot && attack.aim != Attack::Aim::ahead);
  }

  // Without [move] it stays as it was placed. An attack that it would have to turn for is made only
  // at those in front of it.
  void judge_turning() {
    const bool turns = kind_.move->turn_rate.degrees() > 0.0;
    const bool is_meant = level_.origin("kind." + kind_.name + ".move.turn_rate").has_value();
    if (turns || is_meant || kind_.move->gait != Gait::fixed || !has_mind_ || foes_.empty()) return;
    const auto aimed = std::find_if(kind_.attacks.begin(), kind_.attacks.end(),
                                    [&](const Attack& one) { return is_aimed_ahead(one); });
    if (aimed == kind_.attacks.end()) return;
    say("never-turns", "attack." + aimed->name + ".how",
        worded("{} does not turn, and '{}' is made only at those in front of it; [kind.{}.move] "
               "gait = \"fixed\" lets it turn",
               kind_.name, aimed->name, kind_.name));
  }

  bool may_hold(const Kind& foe, const std::string& tag) const {
    const auto has = [&](const std::vector<std::string>& tags) {
      return std::find(tags.begin(), tags.end(), tag) != tags.end();
    };
    return has(foe.tags) || std::any_of(level_.zones.begin(), level_.zones.end(),
                                        [&](const Zone& zone) { return has(zone.grants); });
  }

  bool wants(const Kind& foe) const {
    const Choose& choose = kind_.choose;
    const auto any = [](const std::vector<std::string>& names, auto&& fits) {
      return names.empty() || std::any_of(names.begin(), names.end(), fits);
    };
    return any(choose.teams,
               [&](const std::string& name) { return level_.teams[foe.team].name == name; }) &&
           any(choose.kinds,
               [&](const std::string& name) {
                 return is_of_kind(level_, bench_.bases(), foe, name);
               }) &&
           any(choose.tags, [&](const std::string& tag) { return may_hold(foe, tag); });
  }

  void judge_choice() {
    const bool any =
        std::any_of(foes_.begin(), foes_.end(), [&](const Kind* foe) { return wants(*foe); });
    if (foes_.empty() || any) return;
    say("looks-for-nobody", "choose",
        worded("{} is hostile to {}, but [kind.{}.choose] leaves out all that are there: it "
               "notices nobody",
               kind_.name, foes_.front()->name, kind_.name));
  }

  void judge_tell() {
    if (!kind_.tell) return;
    std::size_t friends = 0;
    for (const Agent& agent : level_.agents) friends += level_.kind_of(agent).team == kind_.team;
    if (friends > 1) return;
    say("tells-nobody", "tell",
        worded("{} tells what it notices, but nobody else is of its team", kind_.name));
  }

  void judge_time() {
    if (!kind_.sight) return;
    const double needed = least_notice_time(bench_, kind_);
    if (needed < level_.seconds) return;
    say("never-in-time", "sight.notice_time",
        worded("{} notices after {} s in view, and a run lasts {} s", kind_.name, needed,
               level_.seconds));
  }

  void judge_legs() {
    const bool is_to_go = can_chase(kind_) || kind_.wander || leads_to(kind_, Mode::flee) ||
                          any_agent(level_, [&](const Agent& agent, const Kind& its) {
                            return &its == &kind_ && agent.patrol.size() > 1;
                          });
    if (!travels(kind_.move->gait) || kind_.move->speed > 0.0 || !is_to_go || !has_mind_) return;
    say("legs-without-speed", "move.speed",
        worded("{} is to go about, but its speed is 0: it never takes a step", kind_.name));
  }

  void judge_idle() {
    if (kind_.when.idle != Mode::wander || kind_.wander) return;
    say("wanders-nowhere", "when.idle",
        worded("{} is to wander, but has no [kind.{}.wander]: it stands", kind_.name, kind_.name));
  }

  void judge_damage(const Attack& attack) {
    const bool does_more = attack.push > 0.0 || attack.leaves || attack.noise_reach > 0.0 ||
                           attack.fire_reach > 0.0 || attack.how == Attack::How::catch_;
    const bool hurts = std::any_of(foes_.begin(), foes_.end(), [&](const Kind* foe) {
      return attack.damage * share_taken(*foe, attack.damage_kind) > 0.0;
    });
    if (does_more || hurts || foes_.empty()) return;
    const std::string why = attack.damage > 0.0 ? worded("{} resists all of its {}",
                                                         foes_.front()->name, attack.damage_kind)
                                                : "its damage is 0";
    say("harms-nobody", "attack." + attack.name + ".damage",
        worded("'{}' of {} takes no health from anybody: {}", attack.name, kind_.name, why));
  }

  // A chaser may stop nearer to its target than an attack of its own may be made.
  void judge_least_range(const Attack& attack) {
    if (!can_chase(kind_) || !has_mind_ || kind_.move->keep_away >= attack.min_range) return;
    for (const Kind* foe : foes_) {
      const double stop = stop_distance(kind_, *foe);
      if (stop >= attack.min_range) continue;
      say("too-near-to-use", "attack." + attack.name + ".min_range",
          worded("{} comes up to {} m from {}, and '{}' is not made nearer than {} m: it stands "
                 "there and does not use it; a stop_distance above that would let it",
                 kind_.name, stop, foe->name, attack.name, attack.min_range));
      return;
    }
  }

  void judge_length(const Attack& attack) {
    const int shots = attack.how == Attack::How::shot ? attack.burst : 1;
    const double last = seconds_to_blow(attack, shots - 1) +
                        (attack.how == Attack::How::beam ? attack.hold.seconds() : 0.0);
    const double cooldown = attack.cooldown->seconds();
    if (last <= cooldown) return;
    say("outlasts-cooldown", "attack." + attack.name + ".cooldown",
        worded("'{}' of {} takes {} s from the pull to its end, and is pulled again after {} s: "
               "pulls overlap",
               attack.name, kind_.name, last, cooldown));
  }

  // Blows that follow each other so quickly that `grace` spares the victim from all but the first.
  void judge_grace(const Attack& attack) {
    constexpr double kMost = 2.0;  // times the cooldown
    if (!(attack.damage > 0.0) || foes_.empty()) return;
    const auto least = std::min_element(foes_.begin(), foes_.end(), [](auto* a, auto* b) {
      return a->grace.seconds() < b->grace.seconds();
    });
    const double grace = (*least)->grace.seconds();
    const double cooldown = attack.cooldown->seconds();
    if (grace < kMost * cooldown) return;
    const double wasted = std::ceil(grace / cooldown) - 1.0;
    say("blows-spared", "attack." + attack.name + ".cooldown",
        worded("{} is spared for {} s after each hit: of {} blows of '{}' of {}, {} s apart, {} "
               "do nothing",
               (*least)->name, grace, wasted + 1.0, attack.name, kind_.name, cooldown, wasted));
  }

  Bench& bench_;
  const Level& level_;
  const Kind& kind_;
  bool has_mind_;
  std::vector<const Kind*> foes_;  ///< In play.
};

void judge_patrols(Bench& bench) {
  const Level& level = bench.level();
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    const bool is_used = idle_mode(agent, kind) == Mode::patrol || leads_to(kind, Mode::patrol);
    if (agent.patrol.size() < 2 || agent.driver != Driver::mind || is_used) continue;
    bench.say(Severity::warning, "patrol-unused",
              level.origin(agent, "patrol").value_or(agent.place),
              worded("{} has {} points to patrol, but its idle mode is {} and nothing sends it on "
                     "patrol",
                     agent.id, agent.patrol.size(), name_of(idle_mode(agent, kind))));
  }
}

}  // namespace

void judge_powerless(Bench& bench) {
  for (const std::uint32_t index : bench.kinds_in_play()) {
    Powerless(bench, bench.level().kinds[index]).judge();
  }
  judge_patrols(bench);
}

}  // namespace gaze
