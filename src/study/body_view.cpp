#include "study/body_view.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

constexpr double kTurn = 360.0;  // degrees

using Points = std::vector<Vector2d>;

// How many degrees of an arc a chord may span.
double most_degrees(double radius) {
  return std::sqrt(8.0 * kArcError / std::max(radius, kArcError)) * 180.0 / 3.14159265358979323846;
}

// Points of an arc about a place, from a direction on: both ends, and enough between them.
void add_arc(Points& points, const Vector2d& middle, double radius, double from, double span) {
  const int pieces = std::max(3, static_cast<int>(std::ceil(span / most_degrees(radius))));
  for (int i = 0; i <= pieces; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(from + span * i / pieces));
    points.emplace_back(middle + Vector2d{way.cosine, way.sine} * radius);
  }
}

Outlines disc(const Vector2d& middle, double radius) {
  if (!(radius > 0.0)) return {};
  Points points;
  add_arc(points, middle, radius, 0.0, kTurn);
  points.pop_back();
  return {points};
}

Outlines less(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctDifference, one, other);
}
Outlines both(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctIntersection, one, other);
}
Outlines either(const Outlines& one, const Outlines& other) {
  return combined(ClipperLib::ctUnion, one, other);
}

/// The part of the plan that lies in range and in the field of view, for a body whose middle is at
/// one height.
class Field {
 public:
  Field(Plane plane, const Looker& looker, const FreeFloor& floor)
      : plane_(plane),
        looker_(looker),
        floor_(floor),
        eye_(eye_of(plane, looker)),
        at_(plan_part(plane, eye_)),
        rise_(floor.floor_height + floor.height / 2.0 - eye_.z()),
        reach_(reach(range_of(looker)) + length_of(Vector2d(at_ - plan_part(plane, looker.feet)))) {
  }

  /// Metres from the eye in the plan, within which all of it lies.
  double farthest() const { return reach_; }

  Outlines outlines() const {
    const Vector2d feet = plan_part(plane_, looker_.feet);
    const Outlines in_range = disc(feet, reach(range_of(looker_)));
    const double ring = looker_.sight.near_ring > 0.0 ? reach(looker_.sight.near_ring) : 0.0;
    return both(in_range, either(in_angles(), disc(feet, ring)));
  }

 private:
  // In space a range counts all three axes: what it leaves in the plan.
  double reach(double range) const {
    const double measured =
        looker_.sight.measure == Measure::surface ? range + floor_.radius : range;
    if (plane_ != Plane::space) return measured;
    const double down = floor_.floor_height - looker_.feet.z();
    return measured > std::abs(down) ? std::sqrt(measured * measured - down * down) : 0.0;
  }

  Outlines in_angles() const {
    const Sight& sight = looker_.sight;
    if (plane_ == Plane::space && !sight.vertical_field_of_view) return in_cone();
    Outlines field = sector(sight.field_of_view.half().degrees());
    if (sight.vertical_field_of_view) field = between_heights(field, *sight.vertical_field_of_view);
    return field;
  }

  double heading() const {
    return std::atan2(looker_.facing.y(), looker_.facing.x()) * 180.0 / M_PI;
  }

  Outlines sector(double half) const {
    if (half >= kTurn / 2.0) return disc(at_, reach_);
    Points points{at_};
    add_arc(points, at_, reach_, heading() - half, 2.0 * half);
    return {points};
  }

  // The middle lies `rise` above the eye, so that a distance is seen under atan(rise / distance).
  Outlines between_heights(const Outlines& field, Angle vertical) const {
    const double low = looker_.sight.tilt.degrees() - vertical.half().degrees();
    const double high = looker_.sight.tilt.degrees() + vertical.half().degrees();
    if (rise_ == 0.0) return low <= 0.0 && high >= 0.0 ? field : Outlines{};
    // Nearer it is seen under steeper angles: from the limit on the side of the rise.
    const double steep = rise_ > 0.0 ? high : -low;
    const double flat = rise_ > 0.0 ? low : -high;
    const double height = std::abs(rise_);
    const auto distance = [&](double degrees) {
      const SineCosine angle = sine_cosine(Angle::from_degrees(degrees));
      return height * angle.cosine / angle.sine;
    };
    if (steep <= 0.0 || flat >= 90.0) return {};
    const double begins = steep >= 90.0 ? 0.0 : distance(steep);
    Outlines result = less(field, disc(at_, std::min(begins, 2.0 * reach_)));
    if (flat > 0.0) result = both(result, disc(at_, std::min(distance(flat), 2.0 * reach_)));
    return result;
  }

  Outlines in_cone() const {
    const double half = looker_.sight.field_of_view.half().degrees();
    if (half >= kTurn / 2.0) return disc(at_, reach_);
    if (rise_ == 0.0) {
      const PlanField field = plan_field(plane_, looker_);
      return field.half ? sector(field.half->degrees()) : Outlines{};
    }
    if (half <= 90.0) return cone(1.0, half);
    return less(disc(at_, reach_), cone(-1.0, 180.0 - half));
  }

  // The convex part of the level of the middle that lies in a cone about the axis or its opposite:
  // by the rays of the cone that meet the level within reach, and the rim of the reach inside the
  // cone.
  Outlines cone(double sign, double half) const {
    const SineCosine tilt = sine_cosine(looker_.sight.tilt);
    const SineCosine width = sine_cosine(Angle::from_degrees(half));
    const Vector3d ahead{looker_.facing.x(), looker_.facing.y(), 0.0};
    const Vector3d axis = sign * (ahead * tilt.cosine + Vector3d{0.0, 0.0, tilt.sine});
    const Vector3d aside{-looker_.facing.y(), looker_.facing.x(), 0.0};
    const Vector3d up = ahead * -tilt.sine + Vector3d{0.0, 0.0, tilt.cosine};
    const int pieces = static_cast<int>(std::ceil(kTurn / most_degrees(reach_))) * 4;
    Points points;
    for (int i = 0; i < pieces; ++i) {
      const SineCosine turn = sine_cosine(Angle::from_degrees(kTurn * i / pieces));
      const Vector3d ray =
          axis * width.cosine + (aside * turn.cosine + up * turn.sine) * width.sine;
      const double times = rise_ / ray.z();
      const Vector2d off{ray.x() * times, ray.y() * times};
      if (times > 0.0 && std::isfinite(times) && length_of(off) <= reach_)
        points.push_back(at_ + off);
      const Vector2d rim{turn.cosine * reach_, turn.sine * reach_};
      const Vector3d to_rim{rim.x(), rim.y(), rise_};
      if (dot3(to_rim, axis) >= width.cosine * length_of(to_rim)) points.push_back(at_ + rim);
    }
    // Where the rim of the reach leaves the cone: at an angle about the heading of the axis.
    const double along = length_of(Vector2d{axis.x(), axis.y()}) * reach_;
    const double needed =
        width.cosine * std::sqrt(reach_ * reach_ + rise_ * rise_) - axis.z() * rise_;
    if (along > 0.0 && std::abs(needed) <= along) {
      const double cosine = needed / along;
      const double sine = std::sqrt(1.0 - cosine * cosine);
      const Vector2d forward = Vector2d{axis.x(), axis.y()} * (reach_ * reach_ / along);
      const Vector2d left{-forward.y(), forward.x()};
      points.push_back(at_ + forward * cosine + left * sine);
      points.push_back(at_ + forward * cosine - left * sine);
    }
    const Vector3d below{0.0, 0.0, rise_};
    if (dot3(below, axis) >= width.cosine * std::abs(rise_)) points.push_back(at_);
    if (points.size() < 3) return {};
    return {convex_hull(std::move(points))};
  }

  Plane plane_;
  const Looker& looker_;
  const FreeFloor& floor_;
  Vector3d eye_;
  Vector2d at_;
  double rise_ = 0.0;
  double reach_ = 0.0;
};

/// The corners of a piece.
std::vector<Vector3d> corners_of(const Prism& prism) {
  constexpr double kFar = 1e5;  // metres: farther than any level
  std::vector<Vector3d> corners;
  for (const PrismEdge& edge : prism.edges) {
    const Vector2d at{edge.x, edge.y};
    corners.emplace_back(edge.x, edge.y, std::clamp(prism.low_at(at), -kFar, kFar));
    corners.emplace_back(edge.x, edge.y, std::clamp(prism.high_at(at), -kFar, kFar));
  }
  return corners;
}

// The corners of the part of a convex body between two heights, and some points inside it.
std::vector<Vector3d> between(const std::vector<Vector3d>& corners, double low, double high) {
  std::vector<Vector3d> part;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vector3d& a = corners[i];
    if (a.z() >= low && a.z() <= high) part.push_back(a);
    for (std::size_t k = i + 1; k < corners.size(); ++k) {
      const Vector3d& b = corners[k];
      for (const double height : {low, high}) {
        if ((a.z() < height) == (b.z() < height) || a.z() == b.z()) continue;
        part.push_back(a + (b - a) * ((height - a.z()) / (b.z() - a.z())));
      }
    }
  }
  return part;
}

// Clips a convex polygon to a square with this centre and half side (Sutherland and
// Hodgman, 1974).
Points within_box(Points points, const Vector2d& middle, double half) {
  for (const int axis : {0, 1}) {
    for (const double sign : {-1.0, 1.0}) {
      const auto out = [&](const Vector2d& p) { return sign * (p[axis] - middle[axis]) - half; };
      Points kept;
      for (std::size_t i = 0; i < points.size(); ++i) {
        const Vector2d& a = points[i];
        const Vector2d& b = points[(i + 1) % points.size()];
        if (out(a) <= 0.0) kept.push_back(a);
        if ((out(a) < 0.0 && out(b) > 0.0) || (out(a) > 0.0 && out(b) < 0.0)) {
          kept.push_back(a + (b - a) * (out(a) / (out(a) - out(b))));
        }
      }
      points = std::move(kept);
    }
  }
  return points;
}

/// What solids hide from an eye at the level of one body point.
class Shadows {
 public:
  Shadows(const World& world, const Vector3d& eye, double reach)
      : eye_(eye), at_(eye.x(), eye.y()), reach_(reach) {
    const World::Index& index = index_of(world);
    for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
      if (!stops(world, piece, Stops::sight)) continue;
      const PieceShape shape(index, piece);
      if (!is_near(shape.prism())) continue;
      pieces_.push_back(corners_of(shape.prism()));
      is_inside_ |= holds_eye(shape.prism());
    }
  }

  bool is_blind() const { return is_inside_; }

  Outlines at(double level) const {
    Outlines shadows;
    for (const auto& corners : pieces_) {
      Points shadow = shadow_of(corners, level);
      if (shadow.size() >= 3) shadows.push_back(std::move(shadow));
    }
    return combined(ClipperLib::ctUnion, shadows, {});
  }

 private:
  bool is_near(const Prism& prism) const {
    Vector2d low = Vector2d::Constant(std::numeric_limits<double>::infinity());
    Vector2d high = -low;
    for (const PrismEdge& edge : prism.edges) {
      low = low.cwiseMin(Vector2d{edge.x, edge.y});
      high = high.cwiseMax(Vector2d{edge.x, edge.y});
    }
    const Vector2d nearest = at_.cwiseMax(low).cwiseMin(high);
    return (nearest - at_).squaredNorm() <= reach_ * reach_;
  }

  bool holds_eye(const Prism& prism) const {
    Points outline;
    for (const PrismEdge& edge : prism.edges) outline.emplace_back(edge.x, edge.y);
    return contains(outline, at_) && prism.low_at(at_) <= eye_.z() &&
           prism.high_at(at_) >= eye_.z();
  }

  // A point at height z is thrown to the level as far from the eye as (eye - level) / (eye - z)
  // times its distance.
  Points shadow_of(const std::vector<Vector3d>& corners, double level) const {
    constexpr double kFar = 1e6;  // times as far as it is
    const double down = eye_.z() - level;
    constexpr double kLevel = 1e-9;  // metres: the eye looks level
    Points thrown;
    if (std::abs(down) <= kLevel) {
      for (const Vector3d& p : between(corners, eye_.z(), eye_.z())) {
        const Vector2d off = Vector2d{p.x(), p.y()} - at_;
        thrown.push_back(at_ + off);
        thrown.push_back(at_ + off * kFar);
      }
    } else {
      const double nearly = eye_.z() - down / kFar;
      for (const Vector3d& p : between(corners, std::min(level, nearly), std::max(level, nearly))) {
        const Vector2d off = Vector2d{p.x(), p.y()} - at_;
        thrown.push_back(at_ + off * (down / (eye_.z() - p.z())));
      }
    }
    if (thrown.size() < 3) return {};
    return within_box(convex_hull(std::move(thrown)), at_, 2.0 * reach_ + 1.0);
  }

  Vector3d eye_;
  Vector2d at_;
  double reach_;
  std::vector<std::vector<Vector3d>> pieces_;
  bool is_inside_ = false;
};

// Where at least so many of the points are in sight: of k points, one more than of those before it.
Outlines clear_of(const World& world, const Vector3d& eye, double reach, const FreeFloor& floor,
                  double share) {
  const Shadows shadows(world, eye, reach);
  if (shadows.is_blind() || floor.body_points.empty()) return {};
  const auto count = static_cast<double>(floor.body_points.size());
  std::size_t needed = 1;
  while (static_cast<double>(needed) / count < share) ++needed;
  const Outlines whole = disc({eye.x(), eye.y()}, reach + kArcError);
  std::vector<Outlines> seen(needed + 1);
  seen[0] = whole;
  for (const double point : floor.body_points) {
    const Outlines clear = less(whole, shadows.at(floor.floor_height + point * floor.height));
    for (std::size_t k = needed; k > 0; --k) {
      seen[k] = either(seen[k], k == 1 ? clear : both(seen[k - 1], clear));
    }
  }
  return seen[needed];
}

std::vector<bool> gone_of(const Simulation& game) {
  std::vector<bool> gone;
  const std::vector<Solid>& solids = game.level().solids;
  for (std::uint32_t i = 0; i < solids.size(); ++i) {
    if (can_go_away(solids[i])) gone.push_back(game.world().is_gone({i}));
  }
  return gone;
}

}  // namespace

Outlines body_view(const Simulation& game, const Looker& looker, const FreeFloor& floor,
                   ClearView& known) {
  const Plane plane = game.level().plane;
  const Field field(plane, looker, floor);
  const Vector3d eye = eye_of(plane, looker);
  std::vector<bool> gone = gone_of(game);
  const std::size_t solids = game.level().solids.size();
  const bool is_known = known.eye == eye && known.reach == field.farthest() &&
                        known.solids == solids && known.gone == gone;
  if (!is_known) {
    known.solids = solids;
    known.clear =
        clear_of(game.world(), eye, field.farthest(), floor, looker.sight.visible_at_least);
    known.eye = eye;
    known.reach = field.farthest();
    known.gone = std::move(gone);
  }
  return both(field.outlines(), known.clear);
}

}  // namespace gaze
