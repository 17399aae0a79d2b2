#include "gaze/seen_area.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>

#include "geometry/slanted.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"
#include "sense/outlook.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

/// Sides of a box in the plan, as seen from the eye.
struct EyeBox {
  double left = 0.0;
  double right = 0.0;
  double bottom = 0.0;
  double top = 0.0;

  double distance2() const {
    const double x = std::max(std::max(left, -right), 0.0);
    const double y = std::max(std::max(bottom, -top), 0.0);
    return x * x + y * y;
  }
};

/// Adds what one eye sees of a world to its outlook: near boxes first, and none that is hidden by
/// what has been added before.
class EyeWalk {
 public:
  EyeWalk(const World& world, const PlanPoint& eye, double range, Stops what, Outlook& outlook)
      : world_(world),
        index_(index_of(world)),
        eye_(eye),
        range2_(range * range),
        what_(what),
        outlook_(outlook),
        around_({eye, eye}, {range, range, 0.0}) {}

  /// @return False if the eye is in or on a solid that stops sight.
  bool walk() {
    if (index_.tree.nodes.empty()) return true;
    stack_[size_++] = {0, 0.0, 0.0, 4.0};
    while (size_ > 0 && !is_inside_) {
      const Entry entry = stack_[--size_];
      if (outlook_.hides(entry.from, entry.to, entry.distance2)) continue;
      if ((entry.child & Tree::kItemBit) != 0) {
        add_piece(entry.child & ~Tree::kItemBit);
      } else {
        push_children(index_.tree.nodes[entry.child]);
      }
    }
    return !is_inside_;
  }

 private:
  struct Entry {
    std::uint32_t child;
    double distance2;
    double from;  // turn keys that it lies between
    double to;
  };

  void push_children(const Tree::Node& node) {
    const std::size_t bottom = size_;
    unsigned mask = index_.tree.touch(node, around_.query(), enter_.data());
    for (; mask != 0; mask &= mask - 1) {
      const auto slot = static_cast<std::size_t>(std::countr_zero(mask));
      const auto side = [&](std::size_t which) { return double(node.sides[which][slot]); };
      const EyeBox box{side(0) - eye_.plan.x(), side(3) - eye_.plan.x(), side(1) - eye_.plan.y(),
                       side(4) - eye_.plan.y()};
      const double distance2 = box.distance2();
      if (!(distance2 <= range2_)) continue;
      Entry entry{node.child[slot], distance2, 0.0, 4.0};
      if (distance2 > 0.0) set_keys(box, entry);
      std::size_t at = size_++;
      for (; at > bottom && stack_[at - 1].distance2 < distance2; --at) stack_[at] = stack_[at - 1];
      stack_[at] = entry;
    }
  }

  // The two corners that bound a box as seen from outside, and a little more for rounding.
  static void set_keys(const EyeBox& box, Entry& entry) {
    constexpr double kSlack = 1e-12;
    const bool is_right = box.left > 0.0;
    const bool is_left = box.right < 0.0;
    const bool is_above = box.bottom > 0.0;
    const bool is_below = box.top < 0.0;
    // Clockwise end and anticlockwise end of its silhouette.
    const Vector2d first{is_above || (is_left && !is_below) ? box.right : box.left,
                         is_left || (is_below && !is_right) ? box.top : box.bottom};
    const Vector2d last{is_below || (is_left && !is_above) ? box.right : box.left,
                        is_right || (is_below && !is_left) ? box.top : box.bottom};
    entry.from = std::max(0.0, turn_key(first) - kSlack);
    entry.to = std::min(4.0, turn_key(last) + kSlack);
  }

  void add_piece(std::uint32_t piece) {
    if (!stops(world_, piece, what_)) return;
    const Slice slice(index_.prism(piece), eye_.across, eye_.across);
    if (slice.is_empty()) return;
    const Prism prism = slice.prism();
    const Vector2d& eye = eye_.plan;
    const std::size_t count = prism.edges.size();
    bool inside = true;
    for (std::size_t first = 0; first < count; first += 64) {
      const std::size_t most = std::min<std::size_t>(64, count - first);
      std::uint64_t facing = 0;  // which face the eye: gathered first, for that is unpredictable
      for (std::size_t i = 0; i < most; ++i) {
        const bool faces = prism.edges[first + i].side(eye.x(), eye.y()) < 0.0;
        facing |= static_cast<std::uint64_t>(faces) << i;
      }
      inside = inside && facing == 0;
      for (; facing != 0; facing &= facing - 1) {
        const std::size_t i = first + static_cast<std::size_t>(std::countr_zero(facing));
        const PrismEdge& edge = prism.edges[i];
        const PrismEdge& next = prism.edges[i + 1 < count ? i + 1 : 0];
        outlook_.add(Vector2d{edge.x, edge.y} - eye, Vector2d{next.x, next.y} - eye,
                     {index_.pieces[piece].solid});
      }
    }
    is_inside_ |= inside;
  }

  const World& world_;
  const World::Index& index_;
  PlanPoint eye_;
  double range2_;
  Stops what_;
  Outlook& outlook_;
  Walker around_;
  std::array<float, Tree::kWidth> enter_{};
  std::array<Entry, kStackSize> stack_;
  std::size_t size_ = 0;
  bool is_inside_ = false;
};

/// The directions in which a field of view begins and ends, anticlockwise.
struct FieldSides {
  Vector2d start;
  Vector2d end;
};

FieldSides field_sides(const Vector2d& middle, Angle half_field) {
  const SineCosine half = sine_cosine(half_field);
  return {turned(middle, {-half.sine, half.cosine}), turned(middle, half)};
}

/// Turns borders into edges, from the first direction of the field of view on.
class EdgeMaker {
 public:
  EdgeMaker(const Outlook& outlook, SeenArea& area) : outlook_(outlook), area_(area) {}

  void make() {
    const std::vector<Outlook::Border>& borders = outlook_.borders();
    area_.edges.reserve(borders.size());
    std::size_t first = 0;  // after what is closed, if anything is
    for (std::size_t i = 0; i < borders.size(); ++i) {
      if (borders[i].side == Outlook::kClosed) first = (i + 1) % borders.size();
    }
    for (std::size_t i = 0; i < borders.size(); ++i) {
      add(borders[(first + i) % borders.size()], borders[(first + i + 1) % borders.size()]);
    }
  }

 private:
  void add(const Outlook::Border& border, const Outlook::Border& next) {
    if (border.side == Outlook::kClosed) return;
    SeenEdge edge;
    edge.at_range = border.side == Outlook::kOpen;
    if (edge.at_range) {
      edge.start = angle_of(border.direction.vector());
      edge.end = Angle::from_degrees(end_degrees(edge.start.degrees(), next.direction.vector()));
    }
    edge.from = place(border.side, border.direction);
    edge.to = place(border.side, next.direction);
    if (!edge.at_range) edge.solid = outlook_.side(border.side).solid;
    if (!area_.edges.empty() && goes_on(area_.edges.back(), edge, border.side)) return;
    area_.edges.push_back(edge);
    last_side_ = border.side;
  }

  // Not before the start, which rounding may make of a narrow stretch.
  double end_degrees(double start, const Vector2d& direction) const {
    constexpr double kRounding = 1e-9;
    if (outlook_.borders().size() == 1) return start + 360.0;
    double end = angle_of(direction).degrees();
    while (end < start - kRounding) end += 360.0;
    return std::max(start, end);
  }

  // Across +x, where the list of borders begins.
  bool goes_on(SeenEdge& last, const SeenEdge& edge, std::uint32_t side) const {
    if (side != last_side_) return false;
    last.to = edge.to;
    if (edge.at_range) {
      last.end =
          Angle::from_degrees(last.end.degrees() + edge.end.degrees() - edge.start.degrees());
    }
    return true;
  }

  Vector2d place(std::uint32_t side, const Direction& direction) const {
    const Vector2d way = direction.vector();
    const double times =
        side == Outlook::kOpen ? area_.range / length_of(way) : outlook_.distance(side, direction);
    return area_.eye + way * times;
  }

  const Outlook& outlook_;
  SeenArea& area_;
  std::uint32_t last_side_ = Outlook::kClosed;
};

}  // namespace

SeenArea seen_area(const World& world, const Looker& looker) {
  const PlanPoint eye = to_plan(world.plane(), eye_of(world.plane(), looker));
  SeenArea area;
  area.eye = eye.plan;
  area.range = range_of(looker);
  Outlook outlook(area.range);
  const PlanField field = plan_field(world.plane(), looker);
  if (!field.half) return area;
  if (field.half->degrees() < 180.0) {
    const FieldSides sides = field_sides(field.middle, *field.half);
    outlook.close(sides.end, sides.start);
  }
  if (EyeWalk(world, eye, area.range, Stops::sight, outlook).walk()) {
    EdgeMaker(outlook, area).make();
  }
  return area;
}

SeenArea clear_area(const World& world, const Vector3d& place, double radius, Stops what) {
  const PlanPoint eye = to_plan(world.plane(), place);
  SeenArea area;
  area.eye = eye.plan;
  area.range = radius;
  Outlook outlook(radius);
  if (EyeWalk(world, eye, radius, what, outlook).walk()) EdgeMaker(outlook, area).make();
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

namespace {

bool is_between(const SeenEdge& arc, double degrees) {
  while (degrees < arc.start.degrees()) degrees += 360.0;
  return degrees <= arc.end.degrees();
}

}  // namespace

bool SeenArea::contains(const Vector2d& point) const {
  const Vector2d way = point - eye;
  if (edges.empty() || dot(way, way) > range * range) return false;
  if (way == Vector2d{0.0, 0.0}) return true;
  const double degrees = angle_of(way).degrees();
  return std::any_of(edges.begin(), edges.end(), [&](const SeenEdge& edge) {
    if (edge.at_range) return is_between(edge, degrees);
    return cross(edge.from - eye, way) >= 0.0 && cross(way, edge.to - eye) >= 0.0 &&
           cross(edge.to - edge.from, point - edge.from) >= 0.0;
  });
}

}  // namespace gaze
