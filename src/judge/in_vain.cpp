#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "gaze/sight.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// What cannot come to anything as it is set: keys without effect, senses that nothing comes into,
/// views and ranges that are too short.
namespace gaze {
namespace {

using Severity = Finding::Severity;

/// A key that does something only under a condition.
struct Conditional {
  const char* key;
  bool has_effect;
  const char* why;  ///< It has none.
};

/// Looks at one kind that is in play.
class InVain {
 public:
  InVain(Bench& bench, const Kind& kind) : bench_(bench), level_(bench.level()), kind_(kind) {}

  void judge() {
    judge_keys();
    judge_feelers();
    judge_ahead();
    judge_drop();
  }

 private:
  void say(const char* code, const std::string& key, std::string message) {
    bench_.say(Severity::warning, code, bench_.place_of(kind_, key), std::move(message));
  }

  // True if a value was written for this kind itself, and not taken over from another.
  bool is_its_own(const std::string& key) const {
    if (!is_written(level_, kind_, key)) return false;
    const auto of = [&](const std::string& name) {
      return level_.origin(fmt::format("kind.{}.{}", name, key));
    };
    return kind_.like.empty() || of(kind_.name) != of(kind_.like);
  }

  void judge_keys() {
    const Move& move = *kind_.move;
    const bool goes = travels(move.gait);
    const bool is_side_on = level_.plane == Plane::upright;
    const bool has_cone = level_.plane == Plane::space;
    const bool has_height = kind_.sight && kind_.sight->vertical_field_of_view;
    const std::array<Conditional, 18> keys{{
        {"move.idle_speed", goes, "it goes nowhere: its gait does not travel"},
        {"move.speed", goes || move.speed == 0.0, "it goes nowhere: its gait does not travel"},
        {"move.hover_height", move.gait == Gait::hover, "its gait is not \"hover\""},
        {"move.climb_speed", move.gait == Gait::hover && !is_side_on && can_chase(kind_),
         move.gait != Gait::hover ? "its gait is not \"hover\""
         : is_side_on             ? "seen from the side it stays at its own height"
                                  : "nothing makes it chase"},
        {"move.hops_in_place", move.gait == Gait::hop && can_chase(kind_),
         move.gait != Gait::hop ? "its gait is not \"hop\"" : "nothing makes it chase"},
        {"hearing.forgets_on_way",
         leads_to(kind_, Mode::investigate) || leads_to(kind_, Mode::search),
         "nothing makes it investigate or search"},
        {"move.hop_rest", move.gait == Gait::hop || *move.hop_height > 0.0,
         "it does not hop: its gait is not \"hop\", and it has no hop_height"},
        {"move.flee_distance", leads_to(kind_, Mode::flee), "nothing makes it flee"},
        {"move.flee_to", leads_to(kind_, Mode::flee), "nothing makes it flee"},
        {"move.flee_from", leads_to(kind_, Mode::flee), "nothing makes it flee"},
        {"move.follow_distance", !move.follows.empty(), "it follows nobody (move.follows)"},
        {"move.follow_start", !move.follows.empty(), "it follows nobody (move.follows)"},
        {"move.search_radius", leads_to(kind_, Mode::search), "nothing makes it search"},
        {"move.keep_away", can_chase(kind_), "nothing makes it chase"},
        {"move.chase", can_chase(kind_), "nothing makes it chase"},
        {"move.quiet_reach", move.step_reach > 0.0 || move.quiet_reach == 0.0,
         "its steps make no noise (move.step_reach)"},
        {"sight.vertical_field_of_view", !is_side_on,
         "seen from the side the field of view itself is up and down"},
        {"sight.tilt", is_side_on || has_cone || has_height,
         "it sees all heights alike (sight.vertical_field_of_view is left out)"},
    }};
    for (const Conditional& one : keys) {
      if (one.has_effect || !is_its_own(one.key)) continue;
      say("key-without-effect", one.key,
          worded("kind.{}.{} has no effect: {}", kind_.name, one.key, one.why));
    }
    if (kind_.nearness && is_side_on && !(*kind_.nearness->axes)[0] &&
        !(*kind_.nearness->axes)[2]) {
      say("key-without-effect", "nearness.axes",
          worded("the nearness of {} counts y alone, and seen from the side all are at the "
                 "same y: whoever is there is near",
                 kind_.name));
    }
  }

  void judge_feelers() {
    for (const Rule& rule : kind_.when.rules) {
      if (rule.cause != Cause::feels) continue;
      for (const Feeler& feeler : kind_.feelers) {
        if (!rule.name.empty() && rule.name != feeler.name) continue;
        for (const Attack& attack : kind_.attacks) {
          if (attack.name == rule.reaction.attack) judge_feeler(feeler, attack);
        }
      }
    }
  }

  // Ranges count between middles, while the tip of a feeler touches the side of a body.
  void judge_feeler(const Feeler& feeler, const Attack& attack) {
    const bool has_range = attack.how == Attack::How::strike || attack.how == Attack::How::shot ||
                           attack.how == Attack::How::beam;
    const bool is_level = feeler.tilt.degrees() == 0.0;
    const double reach = feeler.from->x() + feeler.length;
    if (!has_range || !is_level || feeler.finds == Feeler::Finds::nothing) return;
    if (!(attack.range < reach)) return;
    say("attack-short-of-feeler", fmt::format("attack.{}.range", attack.name),
        worded("'{}' of {} reaches {} m, and the feeler '{}' that asks for it {} m: what "
               "it feels beyond that it does not attack",
               attack.name, kind_.name, attack.range, feeler.name, reach));
  }

  // An attack that is fired straight ahead is not aimed: it waits until the target is about there.
  void judge_ahead() {
    constexpr double kNarrow = 20.0;  // degrees
    const Move& move = *kind_.move;
    const bool turns = move.turn_rate.degrees() > 0.0 &&
                       move.turn_limits[0] < move.turn_limits[1] && move.face != Face::keep &&
                       move.face != Face::travel;
    for (const Attack& attack : kind_.attacks) {
      const bool flies = attack.how == Attack::How::shot || attack.how == Attack::How::beam;
      const double tolerance = attack.aim_tolerance.degrees();
      const bool waits = attack.name != kind_.defeat.attack && !attack.locks_on;
      if (!flies || !waits || attack.aim != Attack::Aim::ahead) continue;
      const double aside = std::abs(attack.toward.degrees());
      if (aside <= tolerance && (turns || tolerance > kNarrow)) continue;
      const std::string where = aside > tolerance
                                    ? worded("{} degrees off its facing", aside)
                                    : std::string("ahead, and it does not turn to anybody");
      say("held-by-tolerance", fmt::format("attack.{}.aim_tolerance", attack.name),
          worded("'{}' of {} goes {}, but is made only while its target is within {} "
                 "degrees of its facing: it is held back from all others; "
                 "aim_tolerance = 180 lets it go at whomever it notices",
                 attack.name, kind_.name, where, tolerance));
    }
  }

  void judge_drop() {
    if (kind_.move->gait != Gait::drop) return;
    const bool is_released =
        std::any_of(kind_.when.rules.begin(), kind_.when.rules.end(),
                    [](const Rule& rule) { return rule.reaction.mode.has_value(); });
    if (!is_released) {
      say("drop-never", "move.gait",
          worded("{} hangs until it goes into another mode, and nothing in [kind.{}.when] "
                 "makes it: near = \"chase\" would, with a [kind.{}.nearness]",
                 kind_.name, kind_.name, kind_.name));
    }
    if (level_.plane == Plane::ground && *kind_.move->drop_height == 0.0) {
      say("drop-never", "move.drop_height",
          worded("{} hangs at 0 m: it has nowhere to fall", kind_.name));
    }
  }

  Bench& bench_;
  const Level& level_;
  const Kind& kind_;
};

// In a ground level feet stay at their own heights.
void judge_nearness(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  const auto& nearness = kind.nearness;
  if (!nearness || !(*nearness->axes)[2] || level.plane != Plane::ground) return;
  const double own = altitude_of(level, kind, agent.position);
  double least = std::numeric_limits<double>::infinity();
  for (const Agent& other : level.agents) {
    const Kind& its = level.kind_of(other);
    if (!is_hostile(level, kind.team, its.team)) continue;
    least = std::min(least, std::abs(altitude_of(level, its, other.position) - own));
  }
  if (!std::isfinite(least) || least <= nearness->range) return;
  bench.say(Severity::warning, "nearness-out-of-reach",
            level.origin(agent, "nearness.range").value_or(agent.place),
            worded("{} is {} m above or below all whom it looks for, and its nearness counts "
                   "that: nobody comes within {} m; axes = \"xy\" would leave it out",
                   agent.id, least, nearness->range));
}

// The eye may look over something low that the muzzle does not clear. This is tried straight ahead
// of what is fixed: half way to the end of its range, and at the end.
void judge_muzzle(Bench& bench, const Agent& agent) {
  const Level& level = bench.level();
  const Kind& kind = level.kind_of(agent);
  if (kind.move->gait != Gait::fixed || !kind.sight || level.plane == Plane::upright) return;
  const SineCosine way = sine_cosine(agent.facing);
  const Vector3d feet{agent.position.x(), agent.position.y(),
                      altitude_of(level, kind, agent.position)};
  const Looker looker{feet, {way.cosine, way.sine}, *kind.sight, false};
  const Vector3d eye = eye_of(level.plane, looker);
  for (const Attack& attack : kind.attacks) {
    const bool flies_straight = (attack.how == Attack::How::shot && *attack.gravity_share == 0.0) ||
                                attack.how == Attack::How::beam;
    if (!flies_straight) continue;
    Looker muzzle = looker;
    muzzle.sight.eye = *attack.muzzle;
    const Vector3d from = eye_of(level.plane, muzzle);
    std::optional<SolidId> before;
    bool is_behind = true;
    for (const double share : {0.5, 1.0}) {
      const double range = std::min(attack.range, kind.sight->range) * share;
      const Vector3d to = feet + Vector3d{way.cosine * range, way.sine * range, 0.85};
      const auto touch = bench.world().first_touch(Segment{from, to}, Stops::shots);
      is_behind &= touch.has_value() && bench.world().is_clear(Segment{eye, to}, Stops::sight);
      if (touch) before = touch->solid;
    }
    if (!is_behind || !before) continue;
    const Solid& solid = level.solids[before->index];
    bench.say(
        Severity::warning, "muzzle-behind-cover",
        level.origin(agent, fmt::format("attack.{}.muzzle", attack.name)).value_or(agent.place),
        worded("{} looks over {} from {} m up, and '{}' leaves from {} m up: "
               "straight ahead it sees whom it cannot hit; the top of {} is at {} m",
               agent.id, solid.id, eye.z(), attack.name, from.z(), solid.id,
               *solid.base + solid.height));
  }
}

}  // namespace

void judge_in_vain(Bench& bench) {
  for (const std::uint32_t index : bench.kinds_in_play()) {
    InVain(bench, bench.level().kinds[index]).judge();
  }
  for (const Agent& agent : bench.level().agents) {
    judge_nearness(bench, agent);
    judge_muzzle(bench, agent);
  }
}

}  // namespace gaze
