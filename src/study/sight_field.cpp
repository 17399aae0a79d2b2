#include "study/sight_field.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"

namespace gaze {

namespace {

// Returns the feet of a body with its centre at a point. In side view the centre is above the feet.
Vector2d feet_for(Plane plane, const Vector3d& middle, double height) {
  const Vector2d at = plan_part(plane, middle);
  return plane == Plane::upright ? Vector2d{at.x(), at.y() - height / 2.0} : at;
}

}  // namespace

SightField::SightField(Plane plane, const Looker& looker, const FreeFloor& floor)
    : plane_(plane),
      looker_(looker),
      floor_(floor),
      eye_(eye_of(plane, looker)),
      at_(feet_for(plane, eye_, floor.height)),
      rise_(floor.floor_height + floor.height / 2.0 - eye_.z()),
      reach_(horizontal(range_of(looker)) +
             length_of(Vector2d(at_ - plan_part(plane, looker.feet)))) {}

Outlines SightField::outlines() const {
  const Vector2d feet = plan_part(plane_, looker_.feet);
  const double ring = looker_.sight.near_ring > 0.0 ? horizontal(looker_.sight.near_ring) : 0.0;
  return common(disc(feet, horizontal(range_of(looker_))), united(in_angles(), disc(feet, ring)));
}

// In space a range is measured along all three axes. Returns its horizontal part.
double SightField::horizontal(double range) const {
  const double measured = looker_.sight.measure == Measure::surface ? range + floor_.radius : range;
  if (plane_ != Plane::space) return measured;
  const double down = floor_.floor_height - looker_.feet.z();
  return measured > std::abs(down) ? std::sqrt(measured * measured - down * down) : 0.0;
}

Outlines SightField::in_angles() const {
  const Sight& sight = looker_.sight;
  if (plane_ == Plane::space && !sight.vertical_field_of_view) return in_cone();
  Outlines field = sector(sight.field_of_view.half().degrees());
  const bool has_heights = sight.vertical_field_of_view && plane_ != Plane::upright;
  if (has_heights) field = between_heights(field, *sight.vertical_field_of_view);
  return field;
}

double SightField::heading() const {
  const Vector2d middle =
      plane_ == Plane::upright ? plan_field(plane_, looker_).middle : looker_.facing;
  return std::atan2(middle.y(), middle.x()) * 180.0 / M_PI;
}

Outlines SightField::sector(double half) const {
  if (half >= 180.0) return disc(at_, reach_);
  Outline points = arc(at_, reach_, heading() - half, 2.0 * half);
  points.push_back(at_);
  return {points};
}

// At a distance d the centre of the body is seen under the angle atan(rise / d). A nearer body is
// seen under a steeper angle.
Outlines SightField::between_heights(const Outlines& field, Angle vertical) const {
  const double low = looker_.sight.tilt.degrees() - vertical.half().degrees();
  const double high = looker_.sight.tilt.degrees() + vertical.half().degrees();
  if (rise_ == 0.0) return low <= 0.0 && high >= 0.0 ? field : Outlines{};
  const double steep = rise_ > 0.0 ? high : -low;
  const double flat = rise_ > 0.0 ? low : -high;
  if (steep <= 0.0 || flat >= 90.0) return {};
  const auto distance = [&](double degrees) {
    const SineCosine angle = sine_cosine(Angle::from_degrees(degrees));
    return std::min(std::abs(rise_) * angle.cosine / angle.sine, 2.0 * reach_);
  };
  Outlines result = steep >= 90.0 ? field : without(field, disc(at_, distance(steep)));
  if (flat > 0.0) result = common(result, disc(at_, distance(flat)));
  return result;
}

Outlines SightField::in_cone() const {
  const double half = looker_.sight.field_of_view.half().degrees();
  if (half >= 180.0) return disc(at_, reach_);
  if (rise_ == 0.0) {
    const PlanField field = plan_field(plane_, looker_);
    return field.half ? sector(field.half->degrees()) : Outlines{};
  }
  if (half <= 90.0) return cone(1.0, half);
  return without(disc(at_, reach_), cone(-1.0, 180.0 - half));
}

// The section of a cone of at most a half space with the height of the body's centre. It is convex.
// Its boundary consists of the points where rays of the cone reach that height, and of an arc at
// `reach`. `sign` -1 is the opposite cone.
Outlines SightField::cone(double sign, double half) const {
  const SineCosine tilt = sine_cosine(looker_.sight.tilt);
  const SineCosine width = sine_cosine(Angle::from_degrees(half));
  const Vector3d ahead{looker_.facing.x(), looker_.facing.y(), 0.0};
  const Vector3d axis = sign * (ahead * tilt.cosine + Vector3d{0.0, 0.0, tilt.sine});
  const Vector3d left{-looker_.facing.y(), looker_.facing.x(), 0.0};
  const Vector3d up = ahead * -tilt.sine + Vector3d{0.0, 0.0, tilt.cosine};
  const auto is_inside = [&](const Vector3d& to) {
    return dot3(to, axis) >= width.cosine * length_of(to);
  };
  const int pieces = static_cast<int>(std::ceil(360.0 / chord_degrees(reach_))) * 4;
  Outline points;
  for (int i = 0; i < pieces; ++i) {
    const SineCosine turn = sine_cosine(Angle::from_degrees(360.0 * i / pieces));
    const Vector3d ray = axis * width.cosine + (left * turn.cosine + up * turn.sine) * width.sine;
    const double times = rise_ / ray.z();
    const Vector2d off{ray.x() * times, ray.y() * times};
    if (times > 0.0 && length_of(off) <= reach_) points.push_back(at_ + off);
    const Vector2d far{turn.cosine * reach_, turn.sine * reach_};
    if (is_inside({far.x(), far.y(), rise_})) points.push_back(at_ + far);
  }
  add_corners(points, axis, width.cosine);
  if (is_inside({0.0, 0.0, rise_})) points.push_back(at_);
  if (points.size() < 3) return {};
  return {convex_hull(std::move(points))};
}

// The two points of the circle at `reach` where the cone ends: at an angle about the heading of the
// axis.
void SightField::add_corners(Outline& points, const Vector3d& axis, double cosine) const {
  const Vector2d heading{axis.x(), axis.y()};
  const double length = length_of(heading);
  const double along =
      (cosine * std::sqrt(reach_ * reach_ + rise_ * rise_) - axis.z() * rise_) / (length * reach_);
  if (!(std::abs(along) <= 1.0)) return;  // also if the axis is vertical
  const Vector2d forward = heading * (reach_ / length);
  const Vector2d left{-forward.y(), forward.x()};
  const double aside = std::sqrt(1.0 - along * along);
  points.push_back(at_ + forward * along + left * aside);
  points.push_back(at_ + forward * along - left * aside);
}

}  // namespace gaze
