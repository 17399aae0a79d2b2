#pragma once

#include <array>
#include <bitset>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/time.hpp"

/// What a designer sets of an agent's senses. Plain values; offsets are [forward, left, up] in
/// metres from the feet, angles of senses are measured from the facing, anticlockwise. What may be
/// left out says what is taken then; `completed` puts it in.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// The four things that a material can stop.
enum class Stops : std::uint8_t { sight, bodies, shots, sound };
inline constexpr std::array kStopsNames{"sight", "bodies", "shots", "sound"};
using StopSet = std::bitset<4>;  ///< Indexed by Stops.

/// How one agent comes to know of another. Of several at once the first counts.
enum class Sense : std::uint8_t { sight, touch, feeler, nearness, hurt, told, hearing };
[[nodiscard]] std::string_view name_of(Sense sense);

/// Metres: how tall a body is of which nothing else is said.
constexpr double kUsualHeight = 1.7;
/// Where the eye is if nothing else is said: a share of the height of the body.
constexpr double kEyeShare = 0.9;

/// From where to where a distance to another agent is measured.
enum class Measure : std::uint8_t { centre, surface };

struct Sight {
  double range = 0.0;                ///< Metres, above 0.
  std::optional<double> keep_range;  ///< Metres, at least `range`; else the same.
  Angle field_of_view;               ///< Full opening angle, (0, 360].
  std::optional<Vector3d> eye;       ///< Offset, turns with the head; else 0.9 of the height up.
  Duration notice_time;              ///< Of full evidence before it counts.
  Duration remember;                 ///< After evidence ends.
  std::optional<Angle> vertical_field_of_view{};  ///< Full, (0, 180]; then the other is level.
  Angle tilt{};                   ///< Of the view's middle above the facing, [-90, 90].
  double near_ring = 0.0;         ///< Metres within which facing does not matter.
  double visible_at_least = 0.0;  ///< Share of the body points, [0, 1].
  Measure measure = Measure::centre;
  double fade_from = 1.0;  ///< Share of the range from which evidence thins, [0, 1].
  Duration ebb_time{};     ///< Full evidence takes so long to ebb away; 0: it goes at once.
};

/// A head that turns by itself, about the facing of its body.
struct Scan {
  enum class Style : std::uint8_t { sweep, round, list };
  Style style = Style::sweep;
  Angle rate;                   ///< A second, above 0.
  Angle arc;                    ///< Sweep: full, (0, 360].
  Duration pause;               ///< At each end, after each round, at each heading.
  std::vector<Angle> headings;  ///< List: from the facing of the body.
  bool goes_on =
      false;  ///< True: scans on while the agent has a target. Else the head turns to it.
};

/// A head that turns apart from the body.
struct Head {
  Angle turn_rate = Angle::from_degrees(180.0);  ///< A second.
  Angle low = Angle::from_degrees(-180.0);       ///< Limits about the facing of the body.
  Angle high = Angle::from_degrees(180.0);
};

struct Hearing {
  double range = 0.0;           ///< Metres, above 0.
  double acuity = 1.0;          ///< Multiplies the reach of a noise.
  bool around_corners = false;  ///< Also by the shortest way through the open.
  bool own = false;             ///< Hears its own noises.
  bool friends = false;         ///< Hears those of its team.
  /// Counts `remember` from the time of the noise. If false, the memory lasts at least until the
  /// agent arrives there.
  bool forgets_on_way = false;
  Duration remember{5'000'000'000};
};

/// A ray, or a ball rolled along one, in a fixed direction from the body.
struct Feeler {
  enum class Finds : std::uint8_t { hostile, anything, nothing };
  std::string name;
  std::optional<Vector3d> from;  ///< Offset of its start; else half the height up.
  Angle toward;                  ///< From the facing.
  Angle tilt;                    ///< Upwards, [-90, 90].
  double length = 0.0;           ///< Metres, above 0.
  double thickness = 0.0;        ///< Metres, the ball's diameter.
  Finds finds = Finds::hostile;
  Stops stopped_by = Stops::bodies;  ///< Solids that stop this are in its way.
  bool turns_with_head = false;      ///< Else with the body.
  Duration remember;
};

/// Plain distance: no facing, nothing in the way.
struct Nearness {
  double range = 0.0;                       ///< Metres, above 0.
  std::optional<std::array<bool, 3>> axes;  ///< Which of x, y, z count; else those of the plane.
  bool once = false;                        ///< Only the first time.
  Duration remember;
};

/// A side of a body, in its own frame.
enum class Side : std::uint8_t { front, back, left, right, top, bottom };
inline constexpr std::array kSideNames{"front", "back", "left", "right", "top", "bottom"};
using SideSet = std::bitset<6>;  ///< Indexed by Side.

struct TouchSense {
  SideSet sides{0b111111};
  Duration remember;
};

struct HurtSense {
  Duration remember{5'000'000'000};
};

/// Passes on to friends what it notices.
struct Tell {
  double range = 0.0;  ///< Metres, above 0.
  Duration delay;
  Duration remember{5'000'000'000};  ///< How long those told remember it.
};

/// Whom it looks for at all, and which of those noticed it acts on.
struct Choose {
  enum class By : std::uint8_t { nearest, first, weakest, clearest, hurt_me_last };
  By by = By::nearest;
  double stick = 0.0;              ///< Metres that another must be nearer by.
  std::vector<std::string> tags;   ///< Only those with one of these; empty: any.
  std::vector<std::string> kinds;  ///< Only these, and those like them; empty: any.
  std::vector<std::string> teams;  ///< Only these of the hostile ones; empty: any.
};

}  // namespace gaze
GAZE_PUBLIC_END
