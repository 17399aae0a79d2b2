#include "gaze/track.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

Angle between(const Angle& from, const Angle& to, double share) {
  const double turn = std::remainder(to.degrees() - from.degrees(), 360.0);  // the short way
  return Angle::from_degrees(from.degrees() + turn * share);
}

}  // namespace

TrackPose pose_at(const Track& track, double seconds) {
  const auto& points = track.points;
  const auto next =
      std::upper_bound(points.begin(), points.end(), seconds,
                       [](double time, const TrackPoint& point) { return time < point.seconds; });
  if (next == points.begin()) return {next->place, next->facing, nullptr};
  const TrackPoint& last = *(next - 1);
  TrackPose pose{last.place, last.facing, &last};
  if (next == points.end() || seconds == last.seconds) return pose;
  const double share = (seconds - last.seconds) / (next->seconds - last.seconds);
  pose.place = last.place + (next->place - last.place) * share;
  if (last.facing && next->facing) pose.facing = between(*last.facing, *next->facing, share);
  return pose;
}

}  // namespace gaze
