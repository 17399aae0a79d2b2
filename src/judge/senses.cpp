#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <map>
#include <set>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

// Which sense a cause needs that the kind does not have. Empty if it has it, or if none is needed.
std::string missing_sense(const Kind& kind, Cause cause) {
  switch (cause) {
    case Cause::sees:
      return kind.sight ? "" : "sight";
    case Cause::touches:
      return kind.touch ? "" : "touch";
    case Cause::feels:
    case Cause::misses:
      return kind.feelers.empty() ? "feeler" : "";
    case Cause::near:
      return kind.nearness ? "" : "nearness";
    case Cause::hears:
      return kind.hearing ? "" : "hearing";
    default:
      return "";
  }
}

void judge_reactions(Bench& bench, const Kind& kind) {
  for (const Rule& rule : kind.when.rules) {
    const std::string sense = missing_sense(kind, rule.cause);
    if (sense.empty()) continue;
    const std::string key = fmt::format("when.{}", name_of(rule.cause));
    bench.say(Severity::warning, "reaction-without-sense", bench.place_of(kind, key),
              worded("{} reacts to what it {}, but has no [kind.{}.{}]: that never happens",
                     kind.name, name_of(rule.cause), kind.name, sense));
  }
}

void judge_choice(Bench& bench, const Kind& kind) {
  if (kind.choose.stick == 0.0 || kind.choose.by == Choose::By::nearest) return;
  bench.say(Severity::note, "stick-without-distance", bench.place_of(kind, "choose.stick"),
            worded("{} has a stick of {} m, which goes with by = \"nearest\" alone: as it is, "
                   "it changes for whoever is strictly better",
                   kind.name, kind.choose.stick));
}

// A head that turns past more than it sees from one step to the next may miss what it sweeps over.
void judge_scan(Bench& bench, const Kind& kind) {
  if (!kind.scan || !kind.sight) return;
  const double step = kind.scan->rate.degrees() / bench.level().ticks_per_second;
  const double field = kind.sight->field_of_view.degrees();
  if (step <= field) return;
  bench.say(Severity::warning, "scan-skips", bench.place_of(kind, "scan.rate"),
            worded("{} turns its head {} degrees a step and sees {} of them: it can sweep "
                   "over somebody and not look; {} steps a second or more would do",
                   kind.name, step, field, std::ceil(kind.scan->rate.degrees() / field)));
}

/// A walk through what leads to what without any time passing.
class Circles {
 public:
  void add(const std::string& from, const std::string& to) { next_[from].insert(to); }

  /// The first circle, by its stations; empty if there is none.
  std::vector<std::string> find() {
    for (const auto& [start, nexts] : next_) {
      trail_.clear();
      if (visit(start)) return trail_;
    }
    return {};
  }

 private:
  bool visit(const std::string& station) {
    const auto seen = std::find(trail_.begin(), trail_.end(), station);
    if (seen != trail_.end()) {
      trail_.erase(trail_.begin(), seen);
      trail_.push_back(station);
      return true;
    }
    if (!done_.insert(station).second) return false;
    trail_.push_back(station);
    for (const std::string& next : next_[station]) {
      if (visit(next)) return true;
    }
    trail_.pop_back();
    return false;
  }

  std::map<std::string, std::set<std::string>> next_;
  std::set<std::string> done_;
  std::vector<std::string> trail_;
};

void judge_mode_circle(Bench& bench, const Kind& kind) {
  Circles circles;
  for (const Rule& rule : kind.when.rules) {
    if (rule.cause != Cause::lasts || rule.reaction.after.nanoseconds > 0) continue;
    if (rule.reaction.mode) circles.add(rule.name, std::string(name_of(*rule.reaction.mode)));
  }
  const std::vector<std::string> circle = circles.find();
  if (circle.empty()) return;
  bench.say(Severity::error, "when-circle", bench.place_of(kind, "when.lasts"),
            fmt::format("{} goes from mode to mode for ever, once a step: {}; let one of them last",
                        kind.name, fmt::join(circle, " -> ")));
}

bool hears(const Kind& kind, const std::string& noise, const Rule& rule) {
  return rule.cause == Cause::hears && kind.hearing && (rule.name.empty() || rule.name == noise);
}

// Finds kinds that make a noise when they hear one, which makes another kind make the first noise
// again.
void judge_echoes(Bench& bench) {
  const Level& level = bench.level();
  std::set<std::string> noises;
  for (const std::uint32_t index : bench.kinds_in_play()) {
    for (const Rule& rule : level.kinds[index].when.rules) {
      if (!rule.reaction.noise.empty()) noises.insert(rule.reaction.noise);
    }
  }
  Circles circles;
  const Kind* one_of_them = nullptr;
  for (const std::uint32_t index : bench.kinds_in_play()) {
    const Kind& kind = level.kinds[index];
    for (const Rule& rule : kind.when.rules) {
      if (rule.reaction.noise.empty() || rule.reaction.after.nanoseconds > 0) continue;
      const bool hears_its_like = kind.hearing && (kind.hearing->own || kind.hearing->friends);
      for (const std::string& noise : noises) {
        if (!hears(kind, noise, rule) || (noise == rule.reaction.noise && !hears_its_like))
          continue;
        circles.add(noise, rule.reaction.noise);
        one_of_them = &kind;
      }
    }
  }
  const std::vector<std::string> circle = circles.find();
  if (circle.empty() || one_of_them == nullptr) return;
  bench.say(Severity::warning, "when-circle", bench.place_of(*one_of_them, "when.hears"),
            fmt::format("a noise that is heard leads to another for ever, one a step: {}; let one "
                        "of them come after some seconds, or not react to it",
                        fmt::join(circle, " -> ")));
}

void judge_sleepers(Bench& bench) {
  const Level& level = bench.level();
  std::set<std::string> woken;
  for (const Zone& zone : level.zones) {
    for (const std::uint32_t agent : zone.wakes) woken.insert(level.agents[agent].id);
  }
  for (const Kind& kind : level.kinds) {
    for (const Rule& rule : kind.when.rules) {
      woken.insert(rule.reaction.wakes.begin(), rule.reaction.wakes.end());
    }
  }
  for (const Agent& agent : level.agents) {
    if (!agent.is_asleep || woken.contains(agent.id)) continue;
    bench.say(Severity::note, "never-woken", agent.place,
              worded("{} sleeps, and no zone and no reaction wakes it: it will do nothing "
                     "unless the program does",
                     agent.id));
  }
}

}  // namespace

void judge_senses(Bench& bench) {
  for (const std::uint32_t index : bench.kinds_in_play()) {
    const Kind& kind = bench.level().kinds[index];
    judge_reactions(bench, kind);
    judge_scan(bench, kind);
    judge_choice(bench, kind);
    judge_mode_circle(bench, kind);
  }
  judge_echoes(bench);
  judge_sleepers(bench);
}

}  // namespace gaze
