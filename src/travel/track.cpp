#include <algorithm>
#include <cmath>
#include <limits>

#include "travel/course.hpp"
#include "travel/modes.hpp"
#include "travel/travelling.hpp"

/// How an agent follows a track.
namespace gaze {
namespace {

constexpr Moment kNeverEnds = std::numeric_limits<Moment>::max();

std::uint64_t bits_of(const Kind& kind, const std::vector<std::string>& names) {
  if (names.empty()) return ~std::uint64_t{0};
  std::uint64_t bits = 0;
  for (std::size_t i = 0; i < kind.attacks.size(); ++i) {
    const bool is_named =
        std::find(names.begin(), names.end(), kind.attacks[i].name) != names.end();
    if (is_named) bits |= std::uint64_t{1} << i;
  }
  return bits;
}

template <typename List>
std::uint32_t number_of_name(const List& list, const std::string& name) {
  const auto at = std::find_if(list.begin(), list.end(), [&](const auto& one) {
    if constexpr (requires { one.id; }) {
      return one.id == name;
    } else {
      return one.name == name;
    }
  });
  return static_cast<std::uint32_t>(at - list.begin());
}

NoiseName noise_called(const Travelling& state, const std::string& name) {
  const auto& known = state.fixed.links.noises;
  const auto at = std::find(known.begin(), known.end(), name);
  return {*at, static_cast<std::uint32_t>(at - known.begin())};
}

}  // namespace

void do_deed(Travelling& state, std::uint32_t who, const TrackDeed& deed) {
  const Vector3d feet = deed.from.value_or(state.bodies.position[who]);
  if (deed.what == TrackDeed::What::noise) {
    return make_noise_by_will(state, who, noise_called(state, deed.name), deed.reach, feet);
  }
  HandWish wish;
  wish.who = who;
  wish.feet = feet;
  wish.place = deed.place;
  if (deed.what == TrackDeed::What::take) {
    wish.thing = number_of_name(state.level().agents, deed.name);
  } else if (deed.what == TrackDeed::What::throw_) {
    wish.what = HandWish::What::throw_;
    wish.thing = number_of_name(state.level().kinds, deed.name);
  } else {
    wish.what = HandWish::What::drop;
  }
  wish_by_hand(state, wish);
}

namespace {

double seconds_at(const Travelling& state, std::int64_t tick) {
  return static_cast<double>(tick) / state.level().ticks_per_second;
}

}  // namespace

void follow_track(Travelling& state, std::uint32_t who) {
  const Track& track = *state.agent(who).track;
  const double now = seconds_at(state, state.clock.tick);
  const TrackPose pose = pose_at(track, now);
  state.bodies.position[who] = pose.place;
  if (pose.at == nullptr) return;
  state.ways.quiet[who] = pose.at->is_quiet ? 1 : 0;
  const bool has_ended = pose.at == &track.points.back() && pose.at->seconds < now;
  Trigger& trigger = state.bodies.trigger.get(who);
  trigger.aim = pose.at->aim;
  trigger.is_plan = pose.at->is_plan_aim;
  trigger.attacks = bits_of(state.kind(who), pose.at->attacks);
  trigger.fires = pose.at->fires > 0.0 && !has_ended;
  trigger.until = kNeverEnds;
  if (pose.at->fires < 1.0) {
    trigger.fires &= pose.at->seconds > seconds_at(state, state.clock.tick - 1);
    trigger.until = state.step_start() + std::llround(pose.at->fires * kMomentsPerTick);
  }
  // The deeds of a point are done in the step in which its time comes.
  const double before = seconds_at(state, state.clock.tick - 1);
  const auto first =
      std::upper_bound(track.points.begin(), track.points.end(), before,
                       [](double time, const TrackPoint& point) { return time < point.seconds; });
  for (auto it = first; it <= track.points.begin() + (pose.at - track.points.data()); ++it) {
    for (const TrackDeed& deed : it->deeds) do_deed(state, who, deed);
  }
}

void face_along_track(Travelling& state, std::uint32_t who) {
  const Track& track = *state.agent(who).track;
  const TrackPose pose = pose_at(track, seconds_at(state, state.clock.tick));
  Bodies& bodies = state.bodies;
  if (pose.facing) {
    const SineCosine way = sine_cosine(*pose.facing);
    bodies.facing[who] = {way.cosine, way.sine};
    return;
  }
  const Vector2d way = plan_part(state.plane(), bodies.position[who] - bodies.previous[who]);
  const double length = length_of(way);
  if (length > 0.0) bodies.facing[who] = way / length;
}

}  // namespace gaze
