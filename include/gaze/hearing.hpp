#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/event.hpp"
#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/world.hpp"

/// Hearing, asked of a world alone.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Who listens.
struct Listener {
  Vector3d feet{0.0, 0.0, 0.0};
  double ear_height = 1.5;  ///< Metres above the feet.
  Hearing hearing;
};

/// Whether a noise is heard, and by how much. It is heard if `distance` is not above either of the
/// two limits.
struct HearingVerdict {
  bool hears = false;
  double distance =
      0.0;  ///< Metres from the noise to the feet: x and y; upright: x and z; space: all.
  double range = 0.0;               ///< Of the listener.
  double open_reach = 0.0;          ///< Of the noise, times the acuity.
  double reach = 0.0;               ///< The same, less what walls take.
  double let_through = 1.0;         ///< Share that the walls in between leave of it.
  std::vector<SolidId> muffled_by;  ///< Those walls, each once.
  /// The shortest way through the open, if that is asked for, the straight way is not heard and
  /// there is one as short as the limits; along it nothing is muffled.
  std::optional<double> around;
};

/// Sound goes from the noise to the ear in a straight line and through solids: each that stops
/// sound takes its material's share of the reach (`muffles`), a bent one once. With
/// `around_corners` it also goes by the shortest way past the corners of these, in the plan at the
/// height of the ear.
[[nodiscard]] HearingVerdict listen(const World& world, const Level& level,
                                    const Listener& listener, const Noise& noise);

/// The answer alone for one noise and many listeners: 1 or 0 for each. Equal lengths.
void listen(const World& world, const Level& level, std::span<const Listener> listeners,
            const Noise& noise, std::span<std::uint8_t> hears);

/// One line that says whether and why, with the numbers.
[[nodiscard]] std::string explain(const HearingVerdict& verdict, const Level& level);

}  // namespace gaze
GAZE_PUBLIC_END
