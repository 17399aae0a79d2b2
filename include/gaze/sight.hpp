#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/world.hpp"

/// Sight, asked of a world alone: range, field of view and line of sight, each with its numbers.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Who looks. The facing is a unit vector in the plan of the plane ([x, y]; upright [x, z]).
struct Looker {
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};  ///< Of the head.
  Sight sight;
  bool has_noticed = false;  ///< Its range limit is then `keep_range`.
  double height =
      kUsualHeight;  ///< Metres; of this its eye is 0.9 up if its sight does not say where.
};

/// Who is looked at.
struct LookedAt {
  Vector3d feet{0.0, 0.0, 0.0};
  double height = kUsualHeight;
  std::span<const double> body_points;  ///< Shares of the height; none: it cannot be seen.
  double radius = 0.0;                  ///< Metres; for distances to its surface.
  double visibility = 1.0;              ///< As it is now: still or moving.
  double dimness = 0.0;                 ///< Of where it stands, [0, 1].
};

struct RangeTest {
  /// Metres between the feet: in x and y, in upright levels in x and z, in space levels in all
  /// three. If the sight measures to the surface, the radius of the other is taken off, down to 0.
  double value = 0.0;
  double limit = 0.0;
  bool pass = false;  ///< On the limit is inside.
};

struct FieldTest {
  double value_deg = 0.0;  ///< From the middle of the view to the other's middle, at the eye.
  double limit_deg = 0.0;  ///< Half the field of view.
  bool pass = false;
  bool is_near = false;  ///< It passes within the near ring, whatever the angle.
};

struct LineTest {
  double visible = 0.0;  ///< Share of the body points that a ray from the eye reaches.
  double limit = 0.0;    ///< It passes from this share on, and above 0.
  bool pass = false;
  int points = 0;                      ///< How many rays there were.
  std::string blocked_by;              ///< Id of a solid; empty if nothing is in the way.
  std::uint64_t blocked_by_id = 0;     ///< In a host's world: its own.
  Vector3d blocked_at{0.0, 0.0, 0.0};  ///< Where that ray stops.
};

/// How fast evidence of another grows, by its parts: each 1 where nothing slows it.
struct EvidenceRate {
  double visibility = 1.0;  ///< Of the other, moving or still.
  double visible = 1.0;     ///< Share of its body points.
  double fade = 1.0;        ///< By distance: from 1 at `fade_from` to 0 at the limit.
  double light = 1.0;       ///< 1 - dimness.

  double rate() const { return visibility * visible * fade * light; }  ///< Of 1 / notice_time.
};

/// What one agent can tell of another by sight, and why. All tests are always made.
struct Verdict {
  std::string looker;
  std::string other;
  bool sees = false;  ///< All pass, and nothing in `hindrance`.
  RangeTest range;
  FieldTest field;
  std::optional<FieldTest> vertical;  ///< If the sight has a vertical field of view.
  LineTest line;
  EvidenceRate evidence;
  double gathered = 0.0;  ///< Evidence so far, [0, 1]; noticed at 1. Simulations know it.
  bool has_sight = true;  ///< False: there are no tests.
  std::string hindrance;  ///< Why it does not look for the other at all; mostly empty.
};

/// Makes all tests and keeps their numbers. Solids are named as in the level.
[[nodiscard]] Verdict look(const World& world, const Level& level, const Looker& looker,
                           const LookedAt& other);

/// The same answer as `look(...).sees`, cheapest test first; rays to one body are asked together.
/// Does not throw or allocate.
[[nodiscard]] bool can_see(const World& world, const Looker& looker,
                           const LookedAt& other) noexcept;

/// How fast evidence grows of somebody who is seen now, as in the verdict. Asks about every body
/// point.
[[nodiscard]] double evidence_rate(const World& world, const Looker& looker,
                                   const LookedAt& other) noexcept;

/// Distance and angle as in the verdict, without the line of sight.
struct DistanceAndAngle {
  double distance = 0.0;
  double angle_deg = 0.0;
};
[[nodiscard]] DistanceAndAngle measure(Plane plane, const Looker& looker,
                                       const LookedAt& other) noexcept;

/// One line that says whether and why, with the numbers.
[[nodiscard]] std::string explain(const Verdict& verdict);

/// The eye of a looker.
[[nodiscard]] Vector3d eye_of(Plane plane, const Looker& looker) noexcept;

/// The rays of the line of sight, from the eye to each body point, and where each one stops.
struct SightRay {
  Segment segment;
  std::optional<Touch> touch;
};
[[nodiscard]] std::vector<SightRay> sight_rays(const World& world, const Looker& looker,
                                               const LookedAt& other);

}  // namespace gaze
GAZE_PUBLIC_END
