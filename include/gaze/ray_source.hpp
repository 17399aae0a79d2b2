#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/feeling.hpp"
#include "gaze/hearing.hpp"
#include "gaze/host_world.hpp"
#include "gaze/public.hpp"
#include "gaze/seen_area.hpp"
#include "gaze/sight.hpp"

/// Looking for many pairs at once, in Gaze's own world or in the host's.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// The compact answer about one pair.
struct QuickVerdict {
  bool sees = false;
  double visible = 0.0;    ///< Share of the body points; 0 where range or field failed already.
  double distance = 0.0;   ///< As the range is measured.
  double angle_deg = 0.0;  ///< As the field of view is.
};

/// The memory in which a batch works. Keep it from one batch to the next, and they allocate
/// nothing.
struct LookScratch {
  std::vector<Segment> segments;
  std::vector<std::uint32_t> pairs;  ///< Of which pair each segment is.
  std::vector<std::uint8_t> clear;
  std::vector<RayHit> hits;
};

/// Looker i looks at other i: the same `sees` as `look` one by one. Equal lengths, 0 allowed;
/// others throw UsageError, as they do in every batch. Lines of sight are asked for those in range
/// and field alone.
void look(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
          LookScratch& scratch, std::span<QuickVerdict> sighted);

/// Each looker looks at each other: the answer for looker i and other j goes to place i times the
/// number of others, plus j.
void look_all(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
              LookScratch& scratch, std::span<QuickVerdict> sighted);
/// The same in a host's world, with one virtual call for all lines of sight.
void look_all(const RaySource& world, Plane plane, std::span<const Looker> lookers,
              std::span<const LookedAt> others, LookScratch& scratch,
              std::span<QuickVerdict> sighted);

/// Whether looker i sees other i, and no more: 1 for yes. As quick as `can_see` one by one.
void can_see(const World& world, std::span<const Looker> lookers, std::span<const LookedAt> others,
             std::span<std::uint8_t> sees);

/// Whether each looker sees each other. The answer for looker i and other j goes to place i times
/// the number of others, plus j.
void can_see_all(const World& world, std::span<const Looker> lookers,
                 std::span<const LookedAt> others, std::span<std::uint8_t> sees);
/// The same in a host's world, with one virtual call for all lines of sight.
void can_see_all(const RaySource& world, Plane plane, std::span<const Looker> lookers,
                 std::span<const LookedAt> others, LookScratch& scratch,
                 std::span<std::uint8_t> sees);

/// `look` for many pairs in a host's world, with one virtual call for all lines of sight.
void look(const RaySource& world, Plane plane, std::span<const Looker> lookers,
          std::span<const LookedAt> others, LookScratch& scratch, std::span<QuickVerdict> sighted);

/// One pair in a host's world, with all tests and their numbers.
[[nodiscard]] Verdict look(const RaySource& world, Plane plane, const Looker& looker,
                           const LookedAt& other);

/// What a feeler meets first in a host's world.
struct HostFelt {
  std::optional<double> distance;  ///< Metres along it; none: nothing is there.
  RayHit hit;
};

/// Feelers in a host's world, as rays without thickness, all in one virtual call; what counts as
/// being in the way is for the host to say. Equal lengths.
void feel(const RaySource& world, Plane plane, std::span<const FeelerQuestion> questions,
          LookScratch& scratch, std::span<HostFelt> felt);

/// What is heard in a host's world: as in Gaze's, by the straight way alone.
[[nodiscard]] HearingVerdict listen(const RaySource& world, Plane plane, const Listener& listener,
                                    const Noise& noise);

/// What a looker can see in a host's world, by so many rays in one virtual call: between two of
/// them the edge is taken to be straight, or the arc at the range. Rays from 3 on, else UsageError.
[[nodiscard]] SeenArea seen_area(const RaySource& world, Plane plane, const Looker& looker,
                                 int rays = 360);

}  // namespace gaze
GAZE_PUBLIC_END
