#pragma once

#include <cstdint>
#include <span>
#include <string>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/solid.hpp"

/// A host's own world, which Gaze asks by rays.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// What stops a ray in a host's own world, if anything does.
struct RayHit {
  bool is_hit = false;
  Vector3d place{0.0, 0.0, 0.0};
  std::string name;      ///< For people; may be empty.
  std::uint64_t id = 0;  ///< The host's own, of what stops it.
};

/// A host's own world, in the place of Gaze's or beside it: it answers rays, a whole batch in one
/// call. What lets something through, and whether bodies count, is for the host to say; a ray that
/// starts at an eye should not be stopped by the looker's own body. It must not throw where a
/// `Simulation` asks, and answer the same as long as it is the same.
class RaySource {
 public:
  virtual ~RaySource() = default;

  /// Where each line of sight is first stopped; `hits` has as many places as there are segments.
  virtual void first_hits(std::span<const Segment> segments, std::span<RayHit> hits) const = 0;

  /// The same for shots, feelers and sound: what stops sight stops them too, unless a host knows
  /// better.
  virtual void first_hits_of(Stops what, std::span<const Segment> segments,
                             std::span<RayHit> hits) const {
    static_cast<void>(what);
    first_hits(segments, hits);
  }

  /// Which share of a noise's reach gets through what is in its way, [0, 1].
  virtual double sound_through(const Segment& segment) const {
    RayHit hit;
    first_hits_of(Stops::sound, {&segment, 1}, {&hit, 1});
    return hit.is_hit ? 0.0 : 1.0;
  }
};

}  // namespace gaze
GAZE_PUBLIC_END
