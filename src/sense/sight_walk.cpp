#include "sense/sight_walk.hpp"

#include <array>

#include "geometry/plan.hpp"

namespace gaze {

using Index = std::uint32_t;

/// Several parts are followed by turns: while one waits for its triangle, the others go on. Which
/// way each goes on cannot be predicted, and so it is looked up.
class SightWalk::Steps {
 public:
  Steps(SightWalk& walk, const PlanRegions& regions, const Eye& eye)
      : parts_(walk.parts_),
        waiting_(walk.waiting_),
        regions_(regions),
        entries_(regions.entries()),
        eye_(eye),
        place_{eye.place.x(), eye.place.y()},
        nowhere_(static_cast<Index>(entries_.size() - 1)) {
    for (Lane& lane : lanes_) lane.part = {Pair{0.0, 0.0}, Pair{0.0, 0.0}, nowhere_};
  }

  template <bool kHasRange>
  void take_all() {
    do {
      fill_lanes();
#pragma GCC unroll 6
      for (std::size_t i = 0; i < kLanes; ++i) take<kHasRange>(lanes_[i]);
    } while (used_ > 0 || !waiting_.empty());
  }

 private:
  static constexpr std::size_t kLanes = 6;

  struct Lane {
    Part part;
    Index number = 0;  ///< Among the parts.
  };

  void fill_lanes() {
    for (std::size_t i = 0; i < kLanes && used_ < kLanes && !waiting_.empty(); ++i) {
      if (lanes_[i].part.entry != nowhere_) continue;
      lanes_[i] = {parts_[waiting_.back()], waiting_.back()};
      waiting_.pop_back();
      ++used_;
    }
  }

  void end(Lane& lane, const PlanRegions::Side* side) {
    parts_[lane.number] = lane.part;
    parts_[lane.number].side = side;
    lane.part.entry = nowhere_;
    --used_;
  }

  // One step on.
  template <bool kHasRange>
  void take(Lane& lane) {
    const Pair a = lane.part.a;
    const Pair b = lane.part.b;
    const PlanRegions::Entry& entry = entries_[lane.part.entry];
    if (entry.side != kNone) {
      if (entry.side == PlanRegions::kRim) return end(lane, nullptr);
      if (const auto* side = side_there(entry.side)) return end(lane, side);
    }
    const Pair apex = Pair{entry.x, entry.y} - place_;
    if constexpr (kHasRange) {
      const double distance2 = apex[0] * apex[0] + apex[1] * apex[1];
      if (distance2 > eye_.range2 && is_out_of_range(lane.part.entry)) return end(lane, nullptr);
    }
    const Pair turns = Pair{apex[1], apex[1]} * a + Pair{apex[0], apex[0]} * b;
    const auto is_inside = turns > Pair{0.0, 0.0};  // of either end: all bits, or none
    lane.part.entry = entry.on[static_cast<std::size_t>(is_inside[0] & 1)];
    if ((is_inside[0] & is_inside[1]) == 0) return;
    const auto rest = static_cast<Index>(parts_.size());
    parts_.push_back(Part{Pair{apex[0], a[1]}, Pair{-apex[1], b[1]}, entry.on[PlanRegions::kLeft],
                          lane.part.next});
    waiting_.push_back(rest);
    lane.part.next = rest;
    lane.part.a = Pair{a[0], -apex[0]};
    lane.part.b = Pair{b[0], apex[1]};
  }

  // Of what lies on an edge, the first that has not gone.
  const PlanRegions::Side* side_there(Index number) const {
    for (const PlanRegions::Side* side = &regions_.side(number);; ++side) {
      if (stops(eye_.world, side->piece, Stops::sight)) return side;
      if (side->is_last) return nullptr;
    }
  }

  // True if the line of the edge lies beyond the range, and with it all that follows.
  bool is_out_of_range(Index entry) const {
    const Vector2d left = regions_.place(entry / 3, entry % 3) - eye_.place;
    const Vector2d right = regions_.place(entry / 3, (entry % 3 + 1) % 3) - eye_.place;
    const double turn = cross(right, left);
    return turn * turn >= eye_.range2 * dot(left - right, left - right);
  }

  std::vector<Part>& parts_;
  std::vector<Index>& waiting_;
  const PlanRegions& regions_;
  std::span<const PlanRegions::Entry> entries_;
  const Eye& eye_;
  Pair place_;
  Index nowhere_;  ///< An entry that leads to itself: nobody is in the lane.
  std::array<Lane, kLanes> lanes_;
  std::size_t used_ = 0;
};

std::span<const SightEnd> SightWalk::walk(const PlanRegions& regions, const Eye& eye,
                                          std::span<const SightGap> gaps) {
  parts_.clear();
  waiting_.clear();
  ends_.clear();
  for (const SightGap& gap : gaps) {
    const auto number = static_cast<Index>(parts_.size());
    waiting_.push_back(number);
    parts_.push_back(Part{Pair{gap.right.x(), -gap.left.x()}, Pair{-gap.right.y(), gap.left.y()},
                          gap.entry, number + 1});
  }
  if (gaps.empty()) return {};
  parts_.back().next = kNone;
  Steps steps(*this, regions, eye);
  if (regions.reaches_beyond(eye.place, eye.range2)) {
    steps.take_all<true>();
  } else {
    steps.take_all<false>();
  }
  for (Index i = 0; i != kNone; i = parts_[i].next) {
    const Part& part = parts_[i];
    ends_.push_back({{part.entry, {part.a[0], -part.b[0]}, {-part.a[1], part.b[1]}}, part.side});
  }
  return ends_;
}

}  // namespace gaze
