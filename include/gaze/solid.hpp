#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/senses.hpp"
#include "gaze/time.hpp"

/// What levels are built of: materials, and the solids made of them.
GAZE_PUBLIC_BEGIN
namespace gaze {

struct Material {
  std::string name;
  StopSet stops;
  double muffles = 1.0;  ///< Share of a noise's reach lost in passing, if it stops sound; [0, 1].
};

/// How a door opens and closes. While open it is not there.
struct Door {
  std::vector<std::string> opens_for;  ///< Agents, teams, kinds or tags; empty: anybody.
  double opens_within = 1.2;           ///< Metres in the plan from the leaf to the feet.
  Duration closes_after = Duration::from_seconds(2.0);  ///< Once nobody is so near.
};

using Triangle = std::array<Vector3d, 3>;

/// A wall (a path of some thickness) or a block (a filled outline), rising from `base` by `height`.
/// In an upright level it is endless across the plane, and base and height do not count. In the
/// others also what there is to walk on: a floor (an outline whose upper side lies at base +
/// thickness), a ramp, or stairs, which bodies climb as a ramp. A mesh is a shell of triangles, 2
/// cm thick, hollow inside.
struct Solid {
  enum class Form { wall, block, floor, ramp, stairs, door, mesh };
  std::string id;
  Form form = Form::block;
  std::uint32_t material = 0;       ///< Index in Level::materials.
  std::vector<Vector2d> points;     ///< Path of a wall (2 or more), outline of a block (3 or more).
  double thickness = 0.2;           ///< Metres, above 0; of walls, floors, ramps and stairs.
  std::optional<double> base;       ///< Metres; else the ground, on which floors lie flush.
  double height = 2.5;              ///< Metres, above 0.
  Vector3d from{0.0, 0.0, 0.0};     ///< Of ramps and stairs: the middle of one end's upper side.
  Vector3d to{0.0, 0.0, 0.0};       ///< The same of the other end; apart from it in the plan.
  double width = 1.0;               ///< Of ramps and stairs: metres, above 0.
  int steps = 1;                    ///< Of stairs, 1 to 1000.
  std::vector<Triangle> triangles;  ///< Of a mesh, where they stand; anticlockwise from outside.
  std::uint32_t left_out = 0;       ///< Of its file's triangles, those without an area.
  double health = 0.0;              ///< Of what breaks, points; 0: it does not.
  bool can_go = false;              ///< Of walls and blocks: a host may take it away.
  Door door;                        ///< Of doors, whose path is the leaf when shut.
  Place place;
};

/// True for what is there to be walked on, rather than to be in the way.
[[nodiscard]] constexpr bool is_walkway(Solid::Form form) {
  return form == Solid::Form::floor || form == Solid::Form::ramp || form == Solid::Form::stairs;
}

/// True for what may go while a level is played: doors, what breaks, and what says so.
[[nodiscard]] inline bool can_go_away(const Solid& solid) {
  return solid.form == Solid::Form::door || solid.health > 0.0 || solid.can_go;
}

}  // namespace gaze
GAZE_PUBLIC_END
