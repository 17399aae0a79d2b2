#include <fmt/format.h>

#include <algorithm>
#include <iterator>
#include <utility>

#include "drawing/marks.hpp"
#include "geometry/plan_grid.hpp"
#include "geometry/polygon.hpp"
#include "geometry/prism.hpp"
#include "level/numbers.hpp"
#include "world/index.hpp"

/// The level itself: solids, zones, bounds and the floor.
namespace gaze {
namespace {

using Edge = std::pair<Vector2d, Vector2d>;

std::vector<Edge> edges_of(const std::vector<Polygon>& pieces) {
  std::vector<Edge> edges;
  for (const Polygon& piece : pieces) {
    for (std::size_t i = 0; i < piece.size(); ++i) {
      edges.emplace_back(piece[i], piece[(i + 1) % piece.size()]);
    }
  }
  return edges;
}

// The sides that no two pieces share. Neighbours run along a shared side in opposite directions.
std::vector<Edge> rim_of(const std::vector<Polygon>& pieces) {
  const std::vector<Edge> edges = edges_of(pieces);
  std::vector<Edge> rim;
  std::copy_if(edges.begin(), edges.end(), std::back_inserter(rim), [&](const Edge& edge) {
    return std::find(edges.begin(), edges.end(), Edge{edge.second, edge.first}) == edges.end();
  });
  return rim;
}

std::string label_of(const Level& level, const Solid& solid) {
  if (level.plane == Plane::upright) return solid.id;
  switch (solid.form) {
    case Solid::Form::floor:
      return worded("{}, top at {} m", solid.id, *solid.base + solid.height);
    case Solid::Form::ramp:
    case Solid::Form::stairs:
      return worded("{}, {} to {} m", solid.id, std::min(solid.from.z(), solid.to.z()),
                    std::max(solid.from.z(), solid.to.z()));
    default:
      if (solid.base == level.ground_height.value_or(0.0)) {
        return worded("{} {} m", solid.id, solid.height);
      }
      return worded("{}, {} to {} m", solid.id, *solid.base, *solid.base + solid.height);
  }
}

std::string_view word_for_gone(const Solid& solid) {
  if (solid.form == Solid::Form::door) return " (open)";
  return solid.health > 0.0 ? " (broken)" : " (gone)";
}

Vector2d middle_of(const Polygon& polygon) {
  Vector2d middle{0.0, 0.0};
  for (const Vector2d& corner : polygon) middle += corner / double(polygon.size());
  return middle;
}

/// The marks of one solid, given its convex pieces.
class SolidMarks {
 public:
  SolidMarks(MarkList& list, std::uint32_t number, const std::vector<Polygon>& pieces)
      : list_(list), id_{number}, solid_(list.level.solids[number]), pieces_(pieces) {}

  void add() const {
    const bool is_gone = list_.simulation.world().is_gone(id_);
    const bool is_flat = is_walkway(solid_.form);
    if (!is_gone) {
      for (const Polygon& piece : pieces_) {
        note(list_.add(Mark::Form::area, Layer::level, is_flat ? Meaning::walkway : Meaning::solid,
                       piece, height()));
      }
    }
    for (const auto& [from, to] : rim_of(pieces_)) {
      const Meaning meaning = is_gone   ? Meaning::solid_gone
                              : is_flat ? Meaning::walkway_rim
                                        : Meaning::solid_rim;
      note(list_.add(Mark::Form::line, Layer::level, meaning, {from, to}, height()));
    }
    if (solid_.form == Solid::Form::ramp || solid_.form == Solid::Form::stairs) add_way_up();
    add_label(is_gone, is_flat);
  }

 private:
  void note(Mark& mark) const {
    mark.solid = id_;
    mark.number = solid_.material;
  }

  double height() const {
    return list_.level.plane == Plane::upright ? 0.0 : base_of(list_.level, solid_);
  }

  void add_way_up() const {
    const bool rises = solid_.from.z() < solid_.to.z();
    note(list_.add(
        Mark::Form::line, Layer::level, Meaning::walkway_up,
        {list_.plan(rises ? solid_.from : solid_.to), list_.plan(rises ? solid_.to : solid_.from)},
        height()));
  }

  // A wall may be bent: the middle of its middle stretch lies on it.
  void add_label(bool is_gone, bool is_flat) const {
    std::string text = label_of(list_.level, solid_);
    if (is_gone) text += word_for_gone(solid_);
    PlanBox box = box_around(pieces_[0]);
    for (const Polygon& piece : pieces_) {
      const PlanBox its = box_around(piece);
      box = {box.low.cwiseMin(its.low), box.high.cwiseMax(its.high)};
    }
    Mark& mark =
        list_.add_text(Layer::level, is_flat ? Meaning::walkway : Meaning::solid,
                       {middle_of(pieces_[pieces_.size() / 2])}, height(), std::move(text));
    note(mark);
    mark.radius = (box.high - box.low).minCoeff() / 2.0;
  }

  MarkList& list_;
  SolidId id_;
  const Solid& solid_;
  const std::vector<Polygon>& pieces_;
};

void mark_solids(MarkList& list) {
  const World::Index& index = index_of(list.simulation.world());
  std::vector<std::vector<Polygon>> pieces(list.level.solids.size());
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    Polygon polygon;
    const PieceShape shape(index, piece);
    for (const PrismEdge& edge : shape.prism().edges) polygon.emplace_back(edge.x, edge.y);
    pieces[index.pieces[piece].solid].push_back(std::move(polygon));
  }
  for (std::uint32_t i = 0; i < pieces.size(); ++i) {
    if (!pieces[i].empty()) SolidMarks(list, i, pieces[i]).add();
  }
}

void mark_zones(MarkList& list) {
  for (const Zone& zone : list.level.zones) {
    const double height = list.level.plane == Plane::upright ? 0.0 : base_of(list.level, zone);
    list.add(Mark::Form::area, Layer::level, Meaning::zone, zone.outline, height).share =
        zone.dimness;
    list.add_text(Layer::level, Meaning::zone, {middle_of(zone.outline)}, height,
                  zone.dimness > 0.0 ? worded("{}, dim {}", zone.id, zone.dimness) : zone.id);
  }
}

// It has no end; the line is as long as all that stands on it, and more.
void mark_ground(MarkList& list) {
  if (list.level.plane != Plane::upright || !list.level.ground_height) return;
  constexpr double kBeyond = 50.0;  // metres
  double low = 0.0;
  double high = 0.0;
  for (const Mark& mark : list.marks) {
    for (const Vector2d& p : mark.points) {
      low = std::min(low, p.x());
      high = std::max(high, p.x());
    }
  }
  const double z = *list.level.ground_height;
  list.add(Mark::Form::line, Layer::level, Meaning::ground,
           {{low - kBeyond, z}, {high + kBeyond, z}}, 0.0);
}

}  // namespace

void mark_level(MarkList& list) {
  if (list.level.bounds && !list.level.bounds->outline.empty()) {
    list.add(Mark::Form::area, Layer::level, Meaning::bounds, list.level.bounds->outline, 0.0);
  }
  mark_solids(list);
  mark_zones(list);
  mark_ground(list);
}

}  // namespace gaze
