#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

/// What there is to draw of a running game, as plain shapes: for a host that draws it over its own
/// picture, and the source of Gaze's own.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// What belongs together and may be left out together.
enum class Layer : std::uint8_t {
  level,   ///< Solids, zones, bounds.
  senses,  ///< What is seen, lines of sight, feelers, nearness, noises.
  ways,    ///< Where agents are going.
  harm,    ///< Shots, beams, blasts.
  agents,  ///< Bodies, and where they face.
};

/// A choice of layers.
class Layers {
 public:
  constexpr Layers() = default;
  constexpr Layers(Layer layer) : bits_(1U << static_cast<unsigned>(layer)) {}
  static constexpr Layers all() { return Layers(0b11111U); }

  constexpr Layers operator|(Layers other) const { return Layers(bits_ | other.bits_); }
  constexpr bool has(Layer layer) const { return (bits_ & Layers(layer).bits_) != 0; }

 private:
  constexpr explicit Layers(unsigned bits) : bits_(bits) {}
  unsigned bits_ = 0;
};

[[nodiscard]] constexpr Layers operator|(Layer a, Layer b) {
  return Layers(a) | Layers(b);
}

/// What a shape stands for. In the order in which they are drawn, each over those before it.
enum class Meaning : std::uint8_t {
  ground,         ///< A line: of levels seen from the side, the floor.
  bounds,         ///< An area: where the level ends.
  zone,           ///< An area; `share` is how dim it is.
  seen_calm,      ///< An area: what somebody sees who has noticed nobody.
  seen_alert,     ///< An area: the same of somebody who has.
  field,          ///< An area: what it would see with nothing in the way.
  walkway,        ///< Areas: a floor, a ramp or stairs.
  walkway_rim,    ///< Lines about it.
  walkway_up,     ///< A line from its low end to its high one.
  solid,          ///< Areas: its convex pieces.
  solid_rim,      ///< Lines about it.
  solid_gone,     ///< Lines: the rim of a door that is open, of what is broken or gone.
  way,            ///< A line: from an agent to where it is going.
  trail,          ///< A line: where it has been. `drawing` knows of none; pictures add them.
  blast,          ///< A circle: how far a blast of the last half second reached.
  blast_clear,    ///< An area: what of it nothing shields.
  track,          ///< A line: where a shot has flown. Pictures add them, as well as hits.
  hit,            ///< A circle without size: what it met there.
  nearness,       ///< A circle: of a nearness sense.
  noise,          ///< A circle: how far a noise of the last half second carried in the open.
  feeler_reach,   ///< A line: the whole feeler.
  feeler,         ///< A line: up to what it meets, which is not what it looks for.
  feeler_finds,   ///< A line: up to what it looks for.
  sight_clear,    ///< A line: a looker sees somebody.
  sight_outside,  ///< A line: nothing is in the way, but it is outside of its field of view.
  sight_stopped,  ///< A line: up to what is in the way.
  sight_beyond,   ///< A line: from there to who would be seen.
  beam,           ///< A line: a beam that is on, up to what it meets.
  body,           ///< A circle, seen from the side an area; `share` is its health.
  body_out,       ///< The same of one that is defeated.
  facing,         ///< A line: from its middle to a little before its body.
  target,         ///< A circle: it acts on somebody.
  shot,           ///< A circle with two points: where it is, and where it was a step before.
};

/// One shape. Points are of the plan, metres: x and y, in upright levels x and z.
struct Mark {
  enum class Form : std::uint8_t { line, area, circle, text };
  Form form = Form::line;
  Layer layer = Layer::level;
  Meaning meaning = Meaning::ground;  ///< Of a text: of what it names.
  std::vector<Vector2d> points;       ///< Of a line 2 or more, of an area 3 or more, once round.
  double height = 0.0;                ///< Metres: the z at which it lies; 0 in upright levels.
  double radius =
      0.0;             ///< Metres: of a circle; half a line's width; the room about a text's point.
  double share = 0.0;  ///< [0, 1]; what of, its meaning says.
  std::uint32_t number = 0;      ///< Of an agent its team, or kNoTeam; of a solid its material.
  std::optional<AgentId> who;    ///< Whom it is about.
  std::optional<SolidId> solid;  ///< What it is about.
  std::string text;              ///< UTF-8; lines end in "\n" but for the last.
};

/// All that the chosen layers show at the current tick, in the order in which it is drawn; texts
/// come last. Arcs are cut into lines that are nowhere farther off than the tolerance, metres; from
/// 1e-4 to 10, else UsageError.
[[nodiscard]] std::vector<Mark> drawing(const Simulation& simulation, Layers layers = Layers::all(),
                                        double tolerance = 0.01);

}  // namespace gaze
GAZE_PUBLIC_END
