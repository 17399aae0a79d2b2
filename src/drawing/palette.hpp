#pragma once

#include <array>

/// The colours of a botanist's plate: inks on warm paper. Each meaning also has a shape or a
/// pattern of its own, so that none rests on colour.
namespace gaze {

struct Colour {
  double red = 0.0;
  double green = 0.0;
  double blue = 0.0;
  double opacity = 1.0;

  Colour with_opacity(double value) const { return {red, green, blue, value}; }
};

inline constexpr Colour kPaper{0.973, 0.957, 0.918};
inline constexpr Colour kPlate{0.925, 0.898, 0.839};
inline constexpr Colour kInk{0.129, 0.157, 0.145};
inline constexpr Colour kFaintInk{0.129, 0.157, 0.145, 0.45};
inline constexpr Colour kGridInk{0.129, 0.157, 0.145, 0.07};
inline constexpr Colour kCalm{0.302, 0.541, 0.478};
inline constexpr Colour kAlert{0.808, 0.490, 0.106};
inline constexpr Colour kStopped{0.616, 0.176, 0.145};
inline constexpr Colour kShot{0.102, 0.318, 0.604};

/// By material, in turn; what stops sight is filled, what does not only hatched.
inline constexpr std::array<Colour, 6> kMaterials{
    Colour{0.486, 0.333, 0.275}, Colour{0.337, 0.561, 0.643}, Colour{0.267, 0.435, 0.231},
    Colour{0.553, 0.455, 0.204}, Colour{0.420, 0.380, 0.557}, Colour{0.373, 0.400, 0.396}};

/// By team, in turn.
inline constexpr std::array<Colour, 4> kTeams{
    Colour{0.208, 0.318, 0.263}, Colour{0.545, 0.180, 0.369}, Colour{0.651, 0.373, 0.086},
    Colour{0.200, 0.286, 0.478}};

}  // namespace gaze
