#include "gaze/seen_area.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "sense/field.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

/// A side of a solid that faces the eye, seen from there.
struct Side {
  Vector2d from;
  Vector2d to;
  SolidId solid;
};

/// A direction in which the edge of the seen area may change.
struct Turn {
  double angle_deg;  ///< From the start of the field of view, anticlockwise.
  Vector2d direction;
};

struct Sides {
  std::vector<Side> sides;
  bool eye_is_inside = false;
};

double squared_distance_to_eye(const Side& side) {
  const Vector2d along = side.to - side.from;
  const double share = std::clamp(-dot(side.from, along) / dot(along, along), 0.0, 1.0);
  const Vector2d nearest = side.from + along * share;
  return dot(nearest, nearest);
}

void add_front_sides(Sides& found, const Prism& prism, SolidId solid, const Vector2d& eye,
                     double range) {
  bool inside = true;
  for (const PrismEdge& edge : prism.edges) {
    if (edge.side(eye.x(), eye.y()) >= 0.0) continue;
    inside = false;
    const Vector2d from = Vector2d{edge.x, edge.y} - eye;
    const Side side{from, from + Vector2d{edge.dx, edge.dy}, solid};
    if (squared_distance_to_eye(side) < range * range) found.sides.push_back(side);
  }
  found.eye_is_inside |= inside;
}

Sides sides_in_range(const World& world, const PlanPoint& eye, double range) {
  const World::Index& index = world.index();
  Sides found;
  walk_any(index.tree, Walker({eye, eye}, {range, range, 0.0}), [&](std::uint32_t piece) {
    const Prism prism = index.prism(piece);
    if (index.stops(piece, Stops::sight) && prism.low <= eye.across && eye.across <= prism.high) {
      add_front_sides(found, prism, {index.pieces[piece].solid}, eye.plan, range);
    }
    return false;
  });
  return found;
}

/// Collects the turns within a field of view.
class Turns {
 public:
  Turns(const Vector2d& facing, Angle field) : field_deg_(field.degrees()) {
    const SineCosine half = sine_cosine(field.half());
    start_ = {facing.x() * half.cosine + facing.y() * half.sine,
              facing.y() * half.cosine - facing.x() * half.sine};
    const Vector2d end{facing.x() * half.cosine - facing.y() * half.sine,
                       facing.y() * half.cosine + facing.x() * half.sine};
    turns_ = {{0.0, start_}, {field_deg_, end}};
  }

  void add(const Vector2d& direction) {
    const double angle = angle_of({dot(start_, direction), cross(start_, direction)}).degrees();
    if (angle < field_deg_) turns_.push_back({angle, direction});
  }

  std::vector<Turn> sorted() && {
    std::sort(turns_.begin(), turns_.end(),
              [](const Turn& a, const Turn& b) { return a.angle_deg < b.angle_deg; });
    return std::move(turns_);
  }

  Angle start() const { return angle_of(start_); }

 private:
  double field_deg_;
  Vector2d start_;
  std::vector<Turn> turns_;
};

void add_range_crossings(Turns& turns, const Side& side, double range) {
  const Vector2d along = side.to - side.from;
  const double a = dot(along, along);
  const double half_b = dot(side.from, along);
  const double c = dot(side.from, side.from) - range * range;
  const double root = half_b * half_b - a * c;
  if (!(root > 0.0)) return;
  for (const double sign : {-1.0, 1.0}) {
    const double share = (-half_b + sign * std::sqrt(root)) / a;
    if (share > 0.0 && share < 1.0) turns.add(side.from + along * share);
  }
}

void add_crossing(Turns& turns, const Side& one, const Side& other) {
  const Vector2d along = one.to - one.from;
  const Vector2d across = other.to - other.from;
  const double parallel = cross(along, across);
  if (parallel == 0.0) return;
  const Vector2d between = other.from - one.from;
  const double share = cross(between, across) / parallel;
  const double other_share = cross(between, along) / parallel;
  if (share >= 0.0 && share <= 1.0 && other_share >= 0.0 && other_share <= 1.0) {
    turns.add(one.from + along * share);
  }
}

// How often `direction` goes into the way to the line of a side, which it is known to cross.
double distance_along(const Side& side, const Vector2d& direction) {
  const Vector2d along = side.to - side.from;
  return cross(side.from, along) / cross(direction, along);
}

bool crosses(const Side& side, const Vector2d& direction) {
  // The side faces the eye with its outside, so that seen from there it runs clockwise.
  return cross(direction, side.from) > 0.0 && cross(direction, side.to) < 0.0;
}

Vector2d between(const Turn& one, const Turn& other) {
  const Vector2d a = one.direction / std::sqrt(dot(one.direction, one.direction));
  const Vector2d b = other.direction / std::sqrt(dot(other.direction, other.direction));
  if (other.angle_deg - one.angle_deg < 179.0) return a + b;
  const SineCosine half = sine_cosine(Angle::from_degrees((other.angle_deg - one.angle_deg) / 2));
  return {a.x() * half.cosine - a.y() * half.sine, a.y() * half.cosine + a.x() * half.sine};
}

Vector2d at_range(const Vector2d& direction, double range) {
  return direction * (range / std::sqrt(dot(direction, direction)));
}

const Side* nearest_side(const std::vector<Side>& sides, const Vector2d& direction, double range) {
  const Side* nearest = nullptr;
  double best = range / std::sqrt(dot(direction, direction));
  for (const Side& side : sides) {
    if (!crosses(side, direction)) continue;
    const double distance = distance_along(side, direction);
    if (distance < best) {
      best = distance;
      nearest = &side;
    }
  }
  return nearest;
}

SeenEdge make_edge(const SeenArea& area, const Turn& one, const Turn& other, const Side* side,
                   Angle start) {
  SeenEdge edge;
  edge.start = Angle::from_degrees(start.degrees() + one.angle_deg);
  edge.end = Angle::from_degrees(start.degrees() + other.angle_deg);
  edge.at_range = side == nullptr;
  if (side != nullptr) {
    edge.solid = side->solid;
    edge.from = area.eye + one.direction * distance_along(*side, one.direction);
    edge.to = area.eye + other.direction * distance_along(*side, other.direction);
  } else {
    edge.from = area.eye + at_range(one.direction, area.range);
    edge.to = area.eye + at_range(other.direction, area.range);
  }
  return edge;
}

std::vector<Turn> find_turns(const std::vector<Side>& sides, double range, Turns turns) {
  for (std::size_t i = 0; i < sides.size(); ++i) {
    turns.add(sides[i].from);
    turns.add(sides[i].to);
    add_range_crossings(turns, sides[i], range);
    for (std::size_t j = i + 1; j < sides.size(); ++j) add_crossing(turns, sides[i], sides[j]);
  }
  return std::move(turns).sorted();
}

}  // namespace

SeenArea seen_area(const World& world, const Looker& looker) {
  const PlanPoint eye = to_plan(world.plane(), eye_of(looker));
  SeenArea area;
  area.eye = eye.plan;
  area.range = looker.has_noticed ? looker.sight.keep_range : looker.sight.range;
  const Sides found = sides_in_range(world, eye, area.range);
  if (found.eye_is_inside) return area;
  const Turns empty(looker.facing, looker.sight.field_of_view);
  const std::vector<Turn> turns = find_turns(found.sides, area.range, empty);
  const Side* last = nullptr;
  for (std::size_t i = 0; i + 1 < turns.size(); ++i) {
    if (!(turns[i].angle_deg < turns[i + 1].angle_deg)) continue;
    const Side* side = nearest_side(found.sides, between(turns[i], turns[i + 1]), area.range);
    const SeenEdge edge = make_edge(area, turns[i], turns[i + 1], side, empty.start());
    if (!area.edges.empty() && side == last) {
      area.edges.back().to = edge.to;
      area.edges.back().end = edge.end;
    } else {
      area.edges.push_back(edge);
    }
    last = side;
  }
  return area;
}

double SeenArea::area() const {
  double sum = 0.0;
  for (const SeenEdge& edge : edges) {
    sum += edge.at_range ? range * range * (edge.end.radians() - edge.start.radians()) / 2.0
                         : cross(edge.from - eye, edge.to - eye) / 2.0;
  }
  return sum;
}

bool SeenArea::contains(const Vector2d& point) const {
  const Vector2d way = point - eye;
  if (edges.empty() || dot(way, way) > range * range) return false;
  if (way == Vector2d{0.0, 0.0}) return true;
  const double angle = angle_of(way).degrees();
  for (const SeenEdge& edge : edges) {
    double turned = angle;
    while (turned < edge.start.degrees()) turned += 360.0;
    if (turned > edge.end.degrees()) continue;
    if (edge.at_range || cross(edge.to - edge.from, point - edge.from) >= 0.0) return true;
  }
  return false;
}

}  // namespace gaze
