#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/face.hpp"
#include "gaze/feeling.hpp"
#include "gaze/sight.hpp"

/// Looking for many pairs at once, in Gaze's own world or in the host's.
namespace GAZE_FACE gaze {

/// What stops a line of sight in a host's own world, if anything does.
struct RayHit {
  bool is_hit = false;
  Vector3d place{0.0, 0.0, 0.0};
  std::string name;      ///< For people; may be empty.
  std::uint64_t id = 0;  ///< The host's own, of what stops it.
};

/// A host's own world, in the place of Gaze's: it answers lines of sight, a whole batch in one
/// call. What lets sight through, and whether bodies count, is for the host to say; a line that
/// starts at an eye should not be stopped by the looker's own body.
class RaySource {
 public:
  virtual ~RaySource() = default;

  /// Where each segment is first stopped; `hits` has as many places as there are segments.
  virtual void first_hits(std::span<const Segment> segments, std::span<RayHit> hits) const = 0;
};

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

}  // namespace gaze
