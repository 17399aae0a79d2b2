#pragma once

#include <span>

#include "gaze/seen_area.hpp"
#include "sense/field.hpp"
#include "sense/outlook.hpp"

namespace gaze {

/// The directions in which a field of view begins and ends, anticlockwise.
struct FieldSides {
  Vector2d start;
  Vector2d end;
};

[[nodiscard]] inline FieldSides field_sides(const Vector2d& middle, Angle half_field) {
  const SineCosine half = sine_cosine(half_field);
  return {turned(middle, {-half.sine, half.cosine}), turned(middle, half)};
}

/// Turns borders into the edges of an area whose eye and range are known, from the first direction
/// of the field of view on.
void make_edges(std::span<const Outlook::Border> borders, const Outlook& outlook, SeenArea& area);

}  // namespace gaze
