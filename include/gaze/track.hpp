#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"

/// What somebody really played, to be played again.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Something that is done at once.
struct TrackDeed {
  enum class What : std::uint8_t { take, throw_, drop, noise };
  What what = What::take;
  std::string name;               ///< Of the agent to take, of the kind to throw, of the noise.
  Vector3d place{0.0, 0.0, 0.0};  ///< To throw to.
  double reach = 0.0;             ///< Of a noise, metres, above 0.
  /// Position of the feet as it is done; none: that of the track at this time. Who sets out in the
  /// same step has done it before.
  std::optional<Vector3d> from;
};

/// Where it is at a moment, and what it does from then on.
struct TrackPoint {
  double seconds = 0.0;  ///< Above that of the point before.
  Vector3d place{0.0, 0.0, 0.0};
  std::optional<Angle> facing;  ///< None: along its way.
  double fires =
      0.0;  ///< For that share of the step in which its time comes, [0, 1]; 1: on and on.
  std::vector<std::string> attacks;  ///< That it fires; empty: all.
  std::optional<Vector3d> aim;       ///< None: straight ahead.
  bool is_plan_aim = false;          ///< The aim has no height.
  bool is_quiet = false;
  std::vector<TrackDeed> deeds;  ///< What it does just then.
  std::uint32_t line = 0;        ///< Of its file.
};

/// The way of one agent: straight between points, and still before the first and after the last.
struct Track {
  std::string file;
  std::vector<TrackPoint> points;  ///< At least one.
};

/// Where somebody on a track is.
struct TrackPose {
  Vector3d place{0.0, 0.0, 0.0};
  std::optional<Angle> facing;
  const TrackPoint* at = nullptr;  ///< The last point that has come; none before the first.
};
[[nodiscard]] TrackPose pose_at(const Track& track, double seconds);

}  // namespace gaze
GAZE_PUBLIC_END
