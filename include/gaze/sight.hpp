#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/world.hpp"

/// Sight, asked of a world alone: range, field of view and line of sight, each with its numbers.
namespace gaze {

/// Who looks. The facing is a unit vector in the plan of the plane ([x, y]; upright [x, z]).
struct Looker {
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};
  Sight sight;
  bool has_noticed = false;  ///< Its range limit is then `keep_range`.
};

/// Who is looked at.
struct Looked {
  Vector3d feet{0.0, 0.0, 0.0};
  double height = 1.7;
  std::span<const double> body_points;  ///< Shares of the height; none: it cannot be seen.
};

struct RangeTest {
  double value =
      0.0;  ///< Metres, between the feet: in x and y; upright: x and z; space: all three.
  double limit = 0.0;
  bool pass = false;  ///< On the limit is inside.
};

struct FieldTest {
  double value_deg = 0.0;  ///< Between the facing and the line from the eye to the other's middle.
  double limit_deg = 0.0;  ///< Half the field of view.
  bool pass = false;
};

struct LineTest {
  double visible = 0.0;  ///< Share of the body points that a ray from the eye reaches.
  double limit = 0.0;    ///< It passes above this.
  bool pass = false;
  int points = 0;                      ///< How many rays there were.
  std::string blocked_by;              ///< Id of a solid; empty if nothing is in the way.
  Vector3d blocked_at{0.0, 0.0, 0.0};  ///< Where that ray stops.
};

/// What one agent can tell of another by sight, and why. All three tests are always made.
struct Verdict {
  std::string looker;
  std::string other;
  bool sees = false;  ///< All three pass, and nothing in `hindrance`.
  RangeTest range;
  FieldTest field;
  LineTest line;
  bool has_sight = true;  ///< False: there are no tests.
  std::string hindrance;  ///< Why it does not look for the other at all; mostly empty.
};

/// Makes all three tests and keeps their numbers. Solids are named as in the level.
[[nodiscard]] Verdict look(const World& world, const Level& level, const Looker& looker,
                           const Looked& other);

/// The same answer as `look(...).sees`, cheapest test first and as few rays as it takes.
/// Does not throw or allocate.
[[nodiscard]] bool can_see(const World& world, const Looker& looker, const Looked& other) noexcept;

/// Distance and angle as in the verdict, without the line of sight.
struct Sighting {
  double distance = 0.0;
  double angle_deg = 0.0;
};
[[nodiscard]] Sighting measure(const World& world, const Looker& looker,
                               const Looked& other) noexcept;

/// One line that says whether and why, with the numbers.
[[nodiscard]] std::string explain(const Verdict& verdict);

/// The eye of a looker.
[[nodiscard]] Vector3d eye_of(const Looker& looker) noexcept;

/// The rays of the line of sight, from the eye to each body point, and where each one stops.
struct SightRay {
  Segment segment;
  std::optional<Touch> touch;
};
[[nodiscard]] std::vector<SightRay> sight_rays(const World& world, const Looker& looker,
                                               const Looked& other);

}  // namespace gaze
