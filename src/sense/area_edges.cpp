#include "sense/area_edges.hpp"

#include <algorithm>

namespace gaze {
namespace {

class EdgeMaker {
 public:
  EdgeMaker(std::span<const Outlook::Border> borders, const Outlook& outlook, SeenArea& area)
      : borders_(borders), outlook_(outlook), area_(area) {}

  void make() {
    const std::span<const Outlook::Border> borders = borders_;
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
    if (borders_.size() == 1) return start + 360.0;
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

  // Where a border meets a side. One that runs along its side, but for rounding, meets it at the
  // end to which it leads.
  Vector2d place(std::uint32_t number, const Direction& direction) const {
    const Vector2d way = direction.vector();
    if (number == Outlook::kOpen) return area_.eye + way * (area_.range / length_of(way));
    const Outlook::Side& side = outlook_.side(number);
    const Vector2d on = way * outlook_.distance(number, direction);
    constexpr double kBeyond = 1.0 + 1e-9;
    if (dot(on, on) <= side.farthest2 * kBeyond) return area_.eye + on;
    const Vector2d along = side.along.vector();
    const bool leads_on = dot(way, along) > 0.0;
    return area_.eye + (leads_on ? Vector2d(side.from.vector() + along) : side.from.vector());
  }

  std::span<const Outlook::Border> borders_;
  const Outlook& outlook_;
  SeenArea& area_;
  std::uint32_t last_side_ = Outlook::kClosed;
};

}  // namespace

void make_edges(std::span<const Outlook::Border> borders, const Outlook& outlook, SeenArea& area) {
  EdgeMaker(borders, outlook, area).make();
}

}  // namespace gaze
