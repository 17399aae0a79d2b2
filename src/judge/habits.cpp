#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"

/// What people set that then does nothing, or far too much.
namespace gaze {
namespace {

using Severity = Finding::Severity;

/// Looks at one kind that is in play.
class Habits {
 public:
  Habits(Bench& bench, const Kind& kind) : bench_(bench), level_(bench.level()), kind_(kind) {}

  void judge() {
    judge_idle_watchers();
    judge_modes();
    judge_memory();
    judge_blows();
    judge_sides();
    judge_resistance();
    judge_touching();
    judge_company();
  }

 private:
  void say(const char* code, const std::string& key, std::string message) {
    bench_.say(Severity::warning, code, bench_.place_of(kind_, key), std::move(message));
  }

  bool decides_for_itself() const {
    return any_agent(level_, [&](const Agent& agent, const Kind& kind) {
      return &kind == &kind_ && agent.driver == Driver::mind;
    });
  }

  bool has_foes() const {
    return any_agent(level_, [&](const Agent&, const Kind& other) {
      return is_hostile(level_, kind_.team, other.team);
    });
  }

  // A kind that notices somebody should do something about it.
  void judge_idle_watchers() {
    const bool perceives = kind_.sight || kind_.nearness || kind_.touch || kind_.hearing;
    const bool acts = !kind_.when.rules.empty() || !kind_.attacks.empty() || kind_.tell;
    if (!perceives || acts || !travels(kind_.move->gait) || !is_written(level_, kind_, "move"))
      return;
    if (!decides_for_itself() || !has_foes()) return;
    say("notices-in-vain", "move",
        worded("{} notices and can move, but nothing makes it do anything about it: "
               "[kind.{}.when] sees = \"chase\" would",
               kind_.name, kind_.name));
  }

  void judge_modes() {
    if (travels(kind_.move->gait) || kind_.move->gait == Gait::drop) return;
    for (const Mode mode : {Mode::chase, Mode::investigate, Mode::search, Mode::flee}) {
      if (!leads_to(kind_, mode)) continue;
      const std::string why = is_written(level_, kind_, "move")
                                  ? "its gait is fixed"
                                  : worded("it has no [kind.{}.move]", kind_.name);
      say("mode-without-legs", "move.gait",
          worded("{} goes into the mode {}, but {}: it stays where it is and only turns",
                 kind_.name, name_of(mode), why));
      return;
    }
  }

  void judge_memory() {
    if (!kind_.sight || kind_.sight->remember.nanoseconds > 0 || !has_cover(level_)) {
      return;
    }
    if (!can_chase(kind_) || leads_to(kind_, Mode::search) || !decides_for_itself()) return;
    bench_.say(Severity::note, "forgets-at-once", bench_.place_of(kind_, "sight.remember"),
               worded("{} chases whom it sees and remembers it for 0 s: it gives up at the first "
                      "corner; sight.remember = 2 would let it go on round it",
                      kind_.name));
  }

  void judge_blows() {
    constexpr double kMostBlows = 10.0;  // a second
    for (const Attack& attack : kind_.attacks) {
      const double rate = 1.0 / attack.cooldown->seconds();
      if (!(attack.damage > 0.0) || !(rate > kMostBlows)) continue;
      say("blows-pour", fmt::format("attack.{}.cooldown", attack.name),
          worded("'{}' of {} has a cooldown of {} s: {} blows and {} points a second", attack.name,
                 kind_.name, attack.cooldown->seconds(), rate, rate * attack.damage));
    }
  }

  void judge_sides() {
    if (kind_.touch && kind_.touch->sides.none()) {
      say("touch-without-sides", "touch.sides",
          worded("the touch of {} names no sides: it never feels anything", kind_.name));
    }
    for (const Attack& attack : kind_.attacks) {
      if (attack.how != Attack::How::touch || attack.sides.any()) continue;
      say("touch-without-sides", fmt::format("attack.{}.sides", attack.name),
          worded("'{}' of {} names no sides: it never hurts anybody", attack.name, kind_.name));
    }
  }

  void judge_resistance() {
    std::set<std::string> kinds;
    for (const Kind& other : level_.kinds) {
      for (const Attack& attack : other.attacks) kinds.insert(attack.damage_kind);
      if (other.thing) kinds.insert(other.thing->flight.damage_kind);
    }
    kinds.erase("");
    const std::vector<std::string> names(kinds.begin(), kinds.end());
    for (const auto& [name, share] : kind_.resist) {
      if (kinds.contains(name)) continue;
      say("resists-nothing", fmt::format("resist.{}", name),
          worded("{} resists '{}', a kind of damage that no attack does{}", kind_.name, name,
                 suggestion(name, names)));
    }
  }

  // What works by touching has to come near enough to touch.
  void judge_touching() {
    if (!can_chase(kind_)) return;
    for (const Attack& attack : kind_.attacks) {
      const bool needs_touch = attack.how == Attack::How::touch ||
                               (attack.how == Attack::How::catch_ && attack.range == 0.0);
      if (!needs_touch) continue;
      for (const Agent& agent : level_.agents) {
        const Kind& other = level_.kind_of(agent);
        const double stop = stop_distance(kind_, other);
        if (!is_hostile(level_, kind_.team, other.team) || stop <= kind_.radius + other.radius) {
          continue;
        }
        say("stops-before-touching", "move.stop_distance",
            worded("{} stops {} m from {}, but '{}' works by touching, at {} m: it stands "
                   "before it and does nothing",
                   kind_.name, stop, other.name, attack.name, kind_.radius + other.radius));
        return;
      }
    }
  }

  // Those whom a kind follows or mirrors have to be in the level.
  void judge_company() {
    if (kind_.when.idle == Mode::follow && kind_.move->follows.empty()) {
      say("follows-nobody", "when.idle",
          worded("{} is to follow, but move.follows names nobody", kind_.name));
    }
    const bool mirrors =
        std::any_of(kind_.attacks.begin(), kind_.attacks.end(),
                    [](const Attack& attack) { return attack.aim == Attack::Aim::mirror; });
    if (!mirrors && kind_.when.idle != Mode::mirror) return;
    const bool has_leader = any_agent(level_, [&](const Agent& agent, const Kind& other) {
      return agent.driver != Driver::mind && other.team == kind_.team && &other != &kind_;
    });
    if (has_leader) return;
    say("mirrors-nobody", mirrors ? "attack" : "when.idle",
        worded("{} does as a driven friend does, but no agent of its team is driven by a script "
               "or the program",
               kind_.name));
  }

  Bench& bench_;
  const Level& level_;
  const Kind& kind_;
};

void judge_agents(Bench& bench) {
  const Level& level = bench.level();
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    const bool reacts =
        std::any_of(kind.when.rules.begin(), kind.when.rules.end(),
                    [](const Rule& rule) { return rule.reaction.mode.has_value(); });
    if (agent.driver != Driver::mind && reacts) {
      bench.say(Severity::warning, "driven-never-reacts", agent.place,
                worded("{} is driven by {}, and reactions of {} do not apply: it will never go "
                       "into a mode by itself",
                       agent.id,
                       agent.driver == Driver::script  ? "its script"
                       : agent.driver == Driver::track ? "its track"
                                                       : "the program",
                       kind.name));
    }
    const bool is_sent_there = leads_to(kind, Mode::patrol);
    if (agent.driver == Driver::mind && agent.patrol.size() == 1 && !is_sent_there) {
      bench.say(Severity::warning, "patrol-of-one-point",
                level.origin(agent, "patrol").value_or(agent.place),
                worded("the patrol of {} has one point: it takes two to go to and fro, so it "
                       "stays at its post",
                       agent.id));
    }
    const auto goes =
        std::find_if(agent.script.begin(), agent.script.end(),
                     [](const ScriptStep& step) { return step.what == ScriptStep::What::go; });
    if (goes != agent.script.end() && !travels(kind.move->gait)) {
      bench.say(Severity::warning, "script-without-legs", goes->written,
                worded("{} is to go, but {}: it stays where it is; [kind.{}.move] speed = 2 "
                       "would let it",
                       agent.id,
                       is_written(level, kind, "move") ? "its gait does not travel"
                                                       : worded("{} has no [move]", kind.name),
                       kind.name));
    }
    for (const ScriptStep& step : agent.script) {
      const bool fires = step.what == ScriptStep::What::aim && step.duration.nanoseconds > 0;
      if (!fires || !kind.attacks.empty()) continue;
      bench.say(Severity::warning, "fires-nothing", step.written,
                worded("{} is to fire, but a {} has no attack", agent.id, kind.name));
      break;
    }
  }
}

// Hostility goes one way: whoever is hostile to nobody notices and attacks nobody.
void judge_hostility(Bench& bench) {
  const Level& level = bench.level();
  for (std::uint32_t team = 0; team < level.teams.size(); ++team) {
    if (!level.teams[team].hostile.empty()) continue;
    const auto armed =
        std::find_if(level.agents.begin(), level.agents.end(), [&](const Agent& agent) {
          const Kind& kind = level.kind_of(agent);
          const bool fires = std::any_of(
              agent.script.begin(), agent.script.end(),
              [](const ScriptStep& step) { return step.what == ScriptStep::What::aim; });
          return kind.team == team && !kind.attacks.empty() &&
                 (fires || (agent.driver == Driver::mind && kind.sight));
        });
    if (armed == level.agents.end()) continue;
    bench.say(
        Severity::warning, "hostile-to-nobody", level.teams[team].place,
        worded("{} are hostile to nobody, though {} of them attacks: it {}; hostility goes "
               "one way",
               level.teams[team].name, armed->id,
               armed->driver == Driver::mind ? "will notice nobody" : "hits and hurts nobody"));
  }
}

void judge_round(Bench& bench) {
  const Level& level = bench.level();
  if (!level.round.ends_when_caught) return;
  const bool catches = std::any_of(
      level.agents.begin(), level.agents.end(),
      [&](const Agent& agent) { return has_attack(level.kind_of(agent), Attack::How::catch_); });
  if (catches) return;
  bench.say(Severity::warning, "nobody-catches", level.round.place,
            "the round ends when somebody is caught, but no agent has an attack that catches");
}

void judge_breakables(Bench& bench) {
  const Level& level = bench.level();
  for (const Solid& solid : level.solids) {
    const Material& material = level.materials[solid.material];
    if (!(solid.health > 0.0)) continue;
    if (material.stops.test(static_cast<std::size_t>(Stops::shots))) continue;
    bench.say(Severity::warning, "breaks-for-no-shot", solid.place,
              worded("{} breaks, but {} lets shots pass: nothing but a blast wears it down",
                     solid.id, material.name));
  }
}

}  // namespace

void judge_habits(Bench& bench) {
  for (const std::uint32_t index : bench.kinds_in_play()) {
    Habits(bench, bench.level().kinds[index]).judge();
  }
  judge_agents(bench);
  judge_hostility(bench);
  judge_round(bench);
  judge_breakables(bench);
}

}  // namespace gaze
