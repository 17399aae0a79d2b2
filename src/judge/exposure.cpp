#include <algorithm>
#include <cmath>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// Views that nobody is in for as long as noticing takes: of a head that sweeps, and of one that
/// somebody runs across.
namespace gaze {
namespace {

// The evidence that is gathered in one pass is gone before the next pass.
bool has_to_be_at_once(const Kind& kind) {
  return kind.sight && kind.sight->ebb_time.nanoseconds == 0;
}

// A place is in view for as long as the field takes to pass it.
void judge_pass(Bench& bench, const Kind& kind) {
  if (!kind.scan || kind.scan->style == Scan::Style::list) return;
  const double pass = kind.sight->field_of_view.degrees() / kind.scan->rate.degrees();
  const double needed = least_notice_time(bench, kind);
  if (pass >= needed) return;
  bench.say(Finding::Severity::warning, "pass-too-short", bench.place_of(kind, "sight.notice_time"),
            worded("the scan of {} has a place in view for {} s a pass, and noticing takes {} s: "
                   "it notices nobody in passing; a rate of {} degrees a second would do, or an "
                   "ebb_time",
                   kind.name, pass, needed, kind.sight->field_of_view.degrees() / needed));
}

// For how long somebody is in view who runs straight across it where it is widest, from the first
// part of the body to the last.
double width_of_view(const Kind& kind, const Kind& foe) {
  const double half = std::min(kind.sight->field_of_view.degrees() / 2.0, 90.0);
  return 2.0 * (kind.sight->range * sine_cosine(Angle::from_degrees(half)).sine + foe.radius);
}

// Returns the longest time that an enemy needs to cross a width, seconds. A hopper rests after each
// hop, also at both ends.
double seconds_across(const Kind& foe, double width) {
  const Move& move = *foe.move;
  if (move.gait != Gait::hop) return width / move.speed;
  const double hops = std::floor(width / *move.hop_length) + 1.0;
  return hops * *move.hop_length / move.speed + move.hop_rest->seconds();
}

// Only lookers that stay as they are count. One that turns or moves may keep somebody in view.
void judge_crossing(Bench& bench, const Kind& kind, const Kind& foe) {
  if (kind.scan || travels(kind.move->gait) || !travels(foe.move->gait)) return;
  const double speed = foe.move->speed;
  const double needed = kind.sight->notice_time.seconds() / std::max(foe.visibility, 1e-9);
  const double width = width_of_view(kind, foe);
  const double step = 1.0 / bench.level().ticks_per_second;
  if (!(speed > 0.0)) return;
  const double seconds = seconds_across(foe, width);
  if (seconds + step >= needed) return;
  bench.say(Finding::Severity::warning, "crossed-too-fast",
            bench.place_of(kind, "sight.notice_time"),
            worded("{} at {} m/s crosses the view of {} in {} s even where it is widest, and "
                   "noticing takes {} s: whoever runs across is never noticed; a notice_time below "
                   "{} s would do, or an ebb_time",
                   foe.name, speed, kind.name, seconds, needed,
                   seconds * std::max(foe.visibility, 1e-9)));
}

}  // namespace

double least_notice_time(const Bench& bench, const Kind& kind) {
  double most = 0.0;
  for (const Kind* foe : bench.foes_in_play(kind)) {
    most = std::max({most, foe->visibility, *foe->still_visibility});
  }
  return kind.sight->notice_time.seconds() / (most > 0.0 ? most : 1.0);
}

void judge_exposure(Bench& bench) {
  const Level& level = bench.level();
  const auto& in_play = bench.kinds_in_play();
  for (const std::uint32_t index : in_play) {
    const Kind& kind = level.kinds[index];
    if (!has_to_be_at_once(kind)) continue;
    judge_pass(bench, kind);
    for (const std::uint32_t other : in_play) {
      const Kind& foe = level.kinds[other];
      if (is_hostile(level, kind.team, foe.team)) judge_crossing(bench, kind, foe);
    }
  }
}

}  // namespace gaze
