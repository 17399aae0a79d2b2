#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gaze/seen_area.hpp"
#include "sense/area_edges.hpp"
#include "sense/eye_walk.hpp"
#include "sense/look.hpp"
#include "sense/plan_regions.hpp"
#include "sense/sight_walk.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

/// Radians. A gap that is narrower counts as shut: where two solids touch, rounding leaves cracks.
constexpr double kNarrow = 1e-11;

bool is_narrow(const Vector2d& right, const Vector2d& left) {
  const double turn = cross(right, left);
  return !(turn > 0.0) || turn * turn <= kNarrow * kNarrow * dot(right, right) * dot(left, left);
}

}  // namespace

struct SeenAreaFinder::Data {
  /// The pieces that are slanted, for which the plan is not cut.
  struct SlantedPieces {
    std::vector<Index> pieces;
    Tree tree;

    explicit SlantedPieces(const World::Index& index) {
      std::vector<Box> boxes;
      for (Index i = 0; i < index.pieces.size(); ++i) {
        if (!index.stops(i, Stops::sight) || !index.pieces[i].is_slanted()) continue;
        pieces.push_back(i);
        const PieceShape shape(index, i);
        boxes.push_back(box_of(shape.prism()));
      }
      if (!boxes.empty()) tree = build_tree(boxes);
    }
  };

  /// What all copies of a finder share.
  struct Cut {
    World world;
    std::vector<PlanRegions> regions;  ///< Each for some heights.
    SlantedPieces slanted;

    Cut(const World& the_world, std::span<const double> heights)
        : world(the_world), slanted(index_of(world)) {
      for (const double height : heights) {
        if (at(height) == nullptr) regions.emplace_back(index_of(world), height);
      }
    }

    const PlanRegions* at(double height) const {
      const auto it = std::find_if(regions.begin(), regions.end(),
                                   [&](const PlanRegions& one) { return one.is_alike_at(height); });
      return it == regions.end() ? nullptr : &*it;
    }
  };

  std::shared_ptr<const Cut> cut;
  SeenArea area;
  Outlook outlook{0.0};
  std::vector<Outlook::Border> stretches;  ///< Anticlockwise.
  std::vector<SightGap> gaps;              ///< About the eye, anticlockwise.
  std::vector<SightGap> some;              ///< Scratch: those between two directions.
  SightWalk walk;
  std::vector<Index> around;  ///< The triangles that hold the eye.
};

namespace {

/// One look round.
class Look {
 public:
  Look(SeenAreaFinder::Data& data, const PlanRegions& regions, const World& world,
       const Vector2d& eye)
      : data_(data),
        regions_(regions),
        world_(world),
        eye_(eye),
        range2_(data.area.range * data.area.range) {
    data_.stretches.clear();
    data_.gaps.clear();
  }

  /// @return False if the eye is in a solid, or so near to one that rounding may have put it there.
  bool begin() {
    const FinePoint eye = to_fine(eye_);
    for (const Index t : data_.around) {
      if (is_in_a_solid(t) || is_at_a_side(t)) return false;
      for (unsigned i = 0; i < 3; ++i) {
        const unsigned k = (i + 1) % 3;
        if (side_of(regions_.corner(t, i), regions_.corner(t, k), eye) == 0) continue;
        const Vector2d right = regions_.place(t, i) - eye_;
        const Vector2d left = regions_.place(t, k) - eye_;
        data_.gaps.push_back({regions_.beyond(t, i), right, left});
      }
    }
    std::sort(data_.gaps.begin(), data_.gaps.end(), [](const SightGap& a, const SightGap& b) {
      return turn_key(a.right) < turn_key(b.right);
    });
    return true;
  }

  void look_all_round() {
    look_through(data_.gaps);
    // The last stretch may go on with what the first one begins with.
    if (data_.stretches.size() > 1 && first_edge_ == last_edge_) {
      data_.stretches.erase(data_.stretches.begin());
    }
  }

  /// Between two directions less than half a turn apart.
  void look_between(const Vector2d& right, const Vector2d& left) {
    const std::vector<SightGap>& gaps = data_.gaps;
    const auto start = std::find_if(gaps.begin(), gaps.end(), [&](const SightGap& gap) {
      return cross(gap.right, right) >= 0.0 && cross(right, gap.left) > 0.0;
    });
    const auto first = start == gaps.end() ? 0 : static_cast<std::size_t>(start - gaps.begin());
    data_.some.clear();
    for (std::size_t i = 0; i < gaps.size(); ++i) {
      SightGap gap = gaps[(first + i) % gaps.size()];
      if (i == 0) gap.right = right;
      if (!(cross(gap.right, left) > 0.0)) break;
      const bool is_last = !(cross(right, gap.left) > 0.0 && cross(gap.left, left) > 0.0);
      if (is_last) gap.left = left;
      data_.some.push_back(gap);
      if (is_last) break;
    }
    look_through(data_.some);
  }

  /// Nothing is seen from a direction on.
  void close(const Vector2d& direction) {
    data_.stretches.push_back({0.0, Direction(direction), Outlook::kClosed});
  }

 private:
  /// Instead of an edge: nothing yet, or as far as the range.
  static constexpr Index kNothing = kNone;
  static constexpr Index kOpen = kNone - 1;

  bool is_in_a_solid(Index triangle) const {
    const auto pieces = regions_.pieces_at(triangle);
    return std::any_of(pieces.begin(), pieces.end(),
                       [&](Index piece) { return stops(world_, piece, Stops::sight); });
  }

  bool is_at_a_side(Index triangle) const {
    constexpr double kAt = 4.0 / kFinePerMetre;  // metres
    for (unsigned i = 0; i < 3; ++i) {
      const Vector2d a = regions_.place(triangle, i) - eye_;
      const Vector2d b = regions_.place(triangle, (i + 1) % 3) - eye_;
      if (dot(a, a) <= kAt * kAt) return true;
      const Index side = regions_.entries()[regions_.beyond(triangle, i)].side;
      const double turn = cross(a, b);
      const bool is_near = turn * turn <= kAt * kAt * dot(b - a, b - a);
      if (is_near && side != kNone && side != PlanRegions::kRim) return true;
    }
    return false;
  }

  void look_through(std::span<const SightGap> gaps) {
    const SightWalk::Eye eye{world_, eye_, range2_};
    for (const SightEnd& end : data_.walk.walk(regions_, eye, gaps)) {
      if (end.side == nullptr) {
        add_open(end.gap.right);
      } else {
        see(*end.side, end.gap);
      }
    }
  }

  // A side fills the gap, as far as it is within the range.
  void see(const PlanRegions::Side& side, const SightGap& gap) {
    if (is_narrow(gap.right, gap.left)) return;
    const Vector2d last = Vector2d{side.edge.x, side.edge.y} - eye_;
    const Vector2d along{-side.edge.dx, -side.edge.dy};
    const Vector2d first = last - along;
    if (!(cross(first, along) > 0.0)) return;  // edge on: it hides no more than its neighbours
    const auto part = within({first, last}, range2_);
    // Only what the circle has cut is held against the gap: an end within it lies beyond the gap or
    // on its border, and rounding must open no crack between sides that touch.
    const bool is_cut = dot(first, first) > range2_;
    const bool is_cut_short = dot(last, last) > range2_;
    const bool is_in_gap = part && (!is_cut || cross(part->first, gap.left) > 0.0) &&
                           (!is_cut_short || cross(gap.right, part->last) > 0.0);
    if (!is_in_gap) return add_open(gap.right);
    const bool begins_later = is_cut && cross(gap.right, part->first) > 0.0;
    if (begins_later) add_open(gap.right);
    if (side.number != last_edge_) {
      add_stretch(begins_later ? part->first : gap.right, side.number,
                  data_.outlook.add_side(first, last, along, {side.solid}));
    }
    if (is_cut_short && cross(part->last, gap.left) > 0.0) add_open(part->last);
  }

  void add_open(const Vector2d& from) {
    if (last_edge_ != kOpen) add_stretch(from, kOpen, Outlook::kOpen);
  }

  void add_stretch(const Vector2d& from, Index edge, Index side) {
    data_.stretches.push_back({0.0, Direction(from), side});
    if (first_edge_ == kNothing) first_edge_ = edge;
    last_edge_ = edge;
  }

  SeenAreaFinder::Data& data_;
  const PlanRegions& regions_;
  const World& world_;
  Vector2d eye_;
  double range2_;
  Index first_edge_ = kNothing;
  Index last_edge_ = kNothing;
};

// Adds what is slanted. False if the eye is in it.
bool add_slanted(SeenAreaFinder::Data& data, const World& world, const PlanPoint& eye) {
  const auto& slanted = data.cut->slanted;
  data.outlook.take_over(data.stretches);
  return EyeWalk(world, slanted.tree, slanted.pieces, eye, data.area.range, Stops::sight,
                 data.outlook)
      .walk();
}

}  // namespace

SeenAreaFinder::SeenAreaFinder(const World& world, std::span<const double> eye_heights)
    : data_(std::make_unique<Data>()) {
  for (const double height : eye_heights) {
    if (std::isfinite(height)) continue;
    throw UsageError(fmt::format("an eye is {} m high; a finite height is allowed", height));
  }
  data_->cut = std::make_shared<const Data::Cut>(world.whole(), eye_heights);
}
SeenAreaFinder::SeenAreaFinder(const SeenAreaFinder& other)
    : data_(std::make_unique<Data>(*other.data_)) {}
SeenAreaFinder::SeenAreaFinder(SeenAreaFinder&& other) noexcept = default;
SeenAreaFinder& SeenAreaFinder::operator=(const SeenAreaFinder& other) {
  if (this != &other) data_ = std::make_unique<Data>(*other.data_);
  return *this;
}
SeenAreaFinder& SeenAreaFinder::operator=(SeenAreaFinder&& other) noexcept = default;
SeenAreaFinder::~SeenAreaFinder() = default;

const SeenArea& SeenAreaFinder::find(const World& now, const Looker& looker) {
  Data& data = *data_;
  if (&index_of(now) != &index_of(data.cut->world)) {
    throw UsageError("the world is not the one for which the finder of seen areas was made");
  }
  const PlanPoint eye = to_plan(now.plane(), eye_of(now.plane(), looker));
  SeenArea& area = data.area;
  area.eye = eye.plan;
  area.range = range_of(looker);
  area.edges.clear();
  const PlanField field = plan_field(now.plane(), looker);
  if (!field.half) return area;
  const PlanRegions* regions = data.cut->at(eye.across);
  data.around.clear();
  constexpr double kFar = 1e6;  // metres: nothing stands there, and the lattice has an end
  const bool may_be_in =
      regions != nullptr && regions->is_made() && eye.plan.cwiseAbs().maxCoeff() < kFar;
  if (may_be_in) regions->find_all(to_fine(eye.plan), data.around);
  if (data.around.empty()) return area = seen_area(now, looker);
  data.outlook.clear(area.range);
  Look look(data, *regions, now, eye.plan);
  if (!look.begin()) return area = seen_area(now, looker);  // which decides that in double
  if (field.half->degrees() < 180.0) {
    const FieldSides sides = field_sides(field.middle, *field.half);
    look.look_between(sides.start, field.middle);
    look.look_between(field.middle, sides.end);
    look.close(sides.end);
  } else {
    look.look_all_round();
  }
  if (data.cut->slanted.pieces.empty()) {
    make_edges(data.stretches, data.outlook, area);
  } else if (add_slanted(data, now, eye)) {
    make_edges(data.outlook.borders(), data.outlook, area);
  }
  return area;
}

}  // namespace gaze
