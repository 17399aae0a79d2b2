#include "navigation/bounded.hpp"

#include <array>

#include "geometry/dilation.hpp"
#include "geometry/plan_grid.hpp"
#include "navigation/walkable.hpp"
#include "world/bounds.hpp"

namespace gaze {
namespace {

/// Meaning of the two coordinates of a surface.
enum class PlanOf {
  floor,      ///< x and y; the height follows from them.
  ledge,      ///< x, and the depth of a strip; the height follows from x.
  side_view,  ///< x and z: the air of a level in side view.
};

PlanOf plan_of(const Level& level, bool hovers) {
  if (level.plane != Plane::upright) return PlanOf::floor;
  return hovers ? PlanOf::side_view : PlanOf::ledge;
}

/// Collects obstacles along the boundary.
class Rim {
 public:
  Rim(PlanOf plan, const Surface& surface)
      : plan_(plan), height_(surface.height), box_(box_of(surface)) {}

  void add_edge(const Vector2d& a, const Vector2d& b) {
    if (plan_ == PlanOf::ledge) {
      add_crossing(a.x(), a.y() - height_.at(a.x(), 0.0), b.x(), b.y() - height_.at(b.x(), 0.0));
    } else {
      add_line(a, b);
    }
  }

  // Adds the line on which the surface reaches a height. A horizontal surface has no such line.
  void add_height(double height) {
    const Vector2d middle = (box_.low + box_.high) / 2.0;
    const Vector2d reach = box_.high - box_.low;
    if (plan_ == PlanOf::side_view) {
      add_line({box_.low.x() - 1.0, height}, {box_.high.x() + 1.0, height});
    } else if (plan_ == PlanOf::ledge) {
      add_crossing(box_.low.x(), height_.at(box_.low) - height, box_.high.x(),
                   height_.at(box_.high) - height);
    } else if (!height_.is_level()) {
      const Vector2d up{height_.along_x, height_.along_y};
      const Vector2d nearest = middle + up * ((height - height_.at(middle)) / dot(up, up));
      const Vector2d along = Vector2d{-up.y(), up.x()} * (length_of(reach) / length_of(up));
      add_line(nearest - along, nearest + along);
    }
  }

  std::vector<Hindrance> take() { return std::move(rim_); }

 private:
  void add_line(const Vector2d& a, const Vector2d& b) {
    const PlanBox box = box_around(std::array{a, b});
    const Vector2d skin{kSkin, kSkin};
    const Vector2d low = box.low - skin;
    const Vector2d high = box.high + skin;
    if (a == b || low.x() > box_.high.x() || low.y() > box_.high.y() || high.x() < box_.low.x() ||
        high.y() < box_.low.y()) {
      return;
    }
    rim_.push_back({dilated(std::array{a, b}, kSkin, kSkin), Hindrance::kStays});
  }

  // Adds the point where a ledge crosses an edge, from the heights of the ledge above the edge at
  // two x. A ledge on the edge crosses it at both ends.
  void add_crossing(double from, double above_from, double to, double above_to) {
    if (above_from == 0.0) add_strip(from);
    if (above_to == 0.0) add_strip(to);
    if ((above_from < 0.0 && above_to > 0.0) || (above_from > 0.0 && above_to < 0.0)) {
      add_strip(from + (to - from) * (above_from / (above_from - above_to)));
    }
  }

  void add_strip(double x) {
    if (x + kSkin < box_.low.x() || x - kSkin > box_.high.x()) return;
    const double front = box_.low.y() - 1.0;
    const double back = box_.high.y() + 1.0;
    rim_.push_back({{{x - kSkin, front}, {x + kSkin, front}, {x + kSkin, back}, {x - kSkin, back}},
                    Hindrance::kStays});
  }

  PlanOf plan_;
  const HeightPlane& height_;
  PlanBox box_;
  std::vector<Hindrance> rim_;
};

}  // namespace

std::vector<Hindrance> rim_of_bounds(const Level& level, bool hovers, const Surface& surface) {
  if (!level.bounds) return {};
  Rim rim(plan_of(level, hovers), surface);
  const std::vector<Vector2d>& outline = level.bounds->outline;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    rim.add_edge(outline[i], outline[(i + 1) % outline.size()]);
  }
  if (level.bounds->low) rim.add_height(*level.bounds->low);
  if (level.bounds->high) rim.add_height(*level.bounds->high);
  return rim.take();
}

bool is_within_bounds(const Level& level, bool hovers, const Surface& surface, const Vector2d& p) {
  if (!level.bounds) return true;
  Vector3d place{p.x(), p.y(), surface.height.at(p)};
  switch (plan_of(level, hovers)) {
    case PlanOf::floor:
      break;
    case PlanOf::ledge:
      place.y() = 0.0;
      break;
    case PlanOf::side_view:
      place = {p.x(), 0.0, p.y()};
      break;
  }
  return is_within(level.plane, *level.bounds, place);
}

}  // namespace gaze
