#include <fmt/format.h>

#include <algorithm>

#include "geometry/plan.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "navigation/obstacles.hpp"

/// Tracks that cannot have been played as they stand.
namespace gaze {
namespace {

using Severity = Finding::Severity;

class TrackJudge {
 public:
  TrackJudge(Bench& bench, const Agent& agent) : bench_(bench), agent_(agent) {}

  void judge() {
    judge_gaps();
    judge_speeds();
    judge_places();
  }

 private:
  Place place_of(const TrackPoint& point) const {
    if (agent_.track->file.empty()) return agent_.place;
    return {agent_.track->file, static_cast<int>(point.line), 1};
  }

  // What is far longer than the time between most points, and than somebody stands still for.
  void judge_gaps() {
    constexpr double kTimesAsLong = 10.0;
    constexpr double kLeast = 0.5;  // seconds
    const auto& points = agent_.track->points;
    std::vector<double> steps;
    for (std::size_t i = 1; i < points.size(); ++i) {
      steps.push_back(points[i].seconds - points[i - 1].seconds);
    }
    if (steps.size() < 3) return;
    std::nth_element(steps.begin(), steps.begin() + steps.size() / 2, steps.end());
    const double usual = steps[steps.size() / 2];
    const double most = std::max(kLeast, kTimesAsLong * usual);
    tell("track-gap", [&](std::size_t i) -> std::string {
      const double step = points[i].seconds - points[i - 1].seconds;
      if (step <= most || points[i].place == points[i - 1].place) return "";
      return worded(
          "the track of {} has nothing for {} s before this line, where most lines are "
          "{} s apart: it is taken to have gone straight",
          agent_.id, step, usual);
    });
  }

  // Speeds are level, and so are those that are told, but of what flies freely.
  void judge_speeds() {
    double fastest = 0.0;
    for (const Kind& kind : bench_.level().kinds) {
      if (kind.move) fastest = std::max(fastest, kind.move->speed);
    }
    const std::optional<Move>& move = bench_.level().kind_of(agent_).move;
    const bool flies = bench_.level().plane == Plane::upright && move && move->gait == Gait::hover;
    const auto& points = agent_.track->points;
    tell("track-jump", [&](std::size_t i) -> std::string {
      constexpr double kRounding = 1.001;
      const Vector3d step = points[i].place - points[i - 1].place;
      const double way = flies ? length_of(step) : level_length(step);
      const double speed = way / (points[i].seconds - points[i - 1].seconds);
      if (fastest == 0.0 || speed <= fastest * kRounding) return "";
      return worded(
          "the track of {} goes {} m in {} s up to this line: {} m/s, and the fastest "
          "kind goes {} m/s",
          agent_.id, way, points[i].seconds - points[i - 1].seconds, speed, fastest);
    });
  }

  void judge_places() {
    const Kind& kind = bench_.level().kind_of(agent_);
    const BodySize body = body_size(bench_.level(), agent_);
    const auto& points = agent_.track->points;
    tell(
        "track-in-solid",
        [&](std::size_t i) -> std::string {
          constexpr double kTouch = 1e-3;  // metres: beside a solid is not in it
          const auto solid = bench_.world().first_overlap(
              body_at(body, points[i].place, kind.radius - kTouch), Stops::bodies);
          if (!solid) return "";
          return fmt::format("the track of {} is in {} at {} s, at {}", agent_.id,
                             bench_.level().solids[solid->index].id, number_text(points[i].seconds),
                             place_text(bench_.level().plane, points[i].place));
        },
        0);
  }

  // The first of each sort with its line, and how many there are.
  template <typename What>
  void tell(const char* code, What&& what, std::size_t from = 1) {
    const auto& points = agent_.track->points;
    std::string first;
    std::size_t at = 0;
    int more = -1;
    for (std::size_t i = from; i < points.size(); ++i) {
      std::string text = what(i);
      if (text.empty()) continue;
      if (more++ < 0) {
        first = std::move(text);
        at = i;
      }
    }
    if (more < 0) return;
    if (more > 0) first += fmt::format("; and {} more", more);
    bench_.say(Severity::warning, code, place_of(points[at]), first);
  }

  Bench& bench_;
  const Agent& agent_;
};

}  // namespace

void judge_tracks(Bench& bench) {
  for (const Agent& agent : bench.level().agents) {
    if (agent.track) TrackJudge(bench, agent).judge();
  }
}

}  // namespace gaze
