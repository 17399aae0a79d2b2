#include "sense/plan_regions.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>

#include "geometry/cut_plan.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

constexpr unsigned next(unsigned i) {
  return i == 2 ? 0 : i + 1;
}

}  // namespace

/// Makes the regions of a plan.
class PlanCutter {
 public:
  PlanCutter(const World::Index& index, double height, PlanRegions& regions)
      : index_(index), height_(height), regions_(regions) {}

  void cut() {
    for (Index i = 0; i < index_.pieces.size(); ++i) {
      if (!may_stand(i)) continue;
      note_heights(index_.pieces[i].heights);
      if (stands(i)) add_outline(i);
    }
    if (points_.empty()) return;
    constexpr auto kMargin = static_cast<std::int64_t>(kFinePerMetre);  // a metre
    const auto plan = cut_plan<FinePoint>(points_, lines_, kMargin);
    const TriangulationOf<FinePoint>& triangulation = plan.triangulation;
    regions_.low_ = triangulation.points()[0];  // the corners of the rectangle come first
    regions_.high_ = triangulation.points()[2];
    find_places(plan);
    find_regions(triangulation);
    put_in_order(triangulation);
    list_entries(triangulation);
    list_sides(triangulation);
    lay_grid();
  }

 private:
  bool may_stand(Index piece) const {
    return index_.stops(piece, Stops::sight) && !index_.pieces[piece].is_slanted();
  }
  bool stands(Index piece) const {
    const Piece& its = index_.pieces[piece];
    return may_stand(piece) && its.heights.low <= height_ && height_ <= its.heights.high;
  }

  void note_heights(const PieceHeights& piece) {
    if (piece.high < height_) return raise(piece.high, false);
    if (piece.low > height_) return lower(piece.low, false);
    raise(piece.low, true);
    lower(piece.high, true);
  }
  void raise(double height, bool holds) {
    PlanRegions::Heights& alike = regions_.alike_;
    if (height < alike.low || (height == alike.low && holds)) return;
    alike.low = height;
    alike.has_low = holds;
  }
  void lower(double height, bool holds) {
    PlanRegions::Heights& alike = regions_.alike_;
    if (height > alike.high || (height == alike.high && holds)) return;
    alike.high = height;
    alike.has_high = holds;
  }

  void add_outline(Index piece) {
    const Piece& its = index_.pieces[piece];
    const auto first = static_cast<Index>(points_.size());
    for (Index k = 0; k < its.edge_count; ++k) {
      const PrismEdge& edge = index_.edges[its.first_edge + k];
      places_.push_back({edge.x, edge.y});
      points_.push_back(to_fine(places_.back()));
      lines_.emplace_back(first + k, first + (k + 1) % its.edge_count);
    }
  }

  // Corners of pieces lie where they lie, and not on the lattice.
  void find_places(const CutPlan<FinePoint>& plan) {
    for (const FinePoint& point : plan.triangulation.points()) {
      place_of_.push_back(from_lattice(point));
    }
    for (std::size_t i = 0; i < places_.size(); ++i) place_of_[plan.vertex[i]] = places_[i];
  }

  // Regions among the same pieces have one number.
  void find_regions(const TriangulationOf<FinePoint>& triangulation) {
    std::map<std::vector<Index>, Index> known{{{}, 0}};
    regions_.first_piece_ = {0, 0};
    region_of_ = Regions(triangulation).classes([&](const Vector2d& middle) {
      const auto [at, is_new] =
          known.try_emplace(pieces_at(middle), static_cast<Index>(known.size()));
      if (is_new) {
        regions_.pieces_.insert(regions_.pieces_.end(), at->first.begin(), at->first.end());
        regions_.first_piece_.push_back(static_cast<Index>(regions_.pieces_.size()));
      }
      return at->second;
    });
  }

  std::vector<Index> pieces_at(const Vector2d& p) const {
    std::vector<Index> pieces;
    const PlanPoint place{p, height_};
    walk_any(index_.tree, Walker({place, place}, {0.0, 0.0, 0.0}), [&](Index piece) {
      if (!stands(piece)) return false;
      const PieceShape shape(index_, piece);
      const auto& edges = shape.prism().edges;
      const bool is_in = std::all_of(edges.begin(), edges.end(), [&](const PrismEdge& edge) {
        return edge.side(p.x(), p.y()) > 0.0;
      });
      if (is_in) pieces.push_back(piece);
      return false;
    });
    std::sort(pieces.begin(), pieces.end());
    return pieces;
  }

  // Looks go from neighbour to neighbour: so those that are near in space are put near in memory.
  void put_in_order(const TriangulationOf<FinePoint>& triangulation) {
    const auto& points = triangulation.points();
    std::vector<FinePoint> middles;
    middles.reserve(triangulation.triangles().size());
    for (const auto& triangle : triangulation.triangles()) {
      const auto& [a, b, c] = triangle.corner;
      middles.push_back({(points[a].x + points[b].x + points[c].x) / 3,
                         (points[a].y + points[b].y + points[c].y) / 3});
    }
    order_ = in_order_of_space(std::span<const FinePoint>(middles));
    number_of_.resize(order_.size());
    for (Index i = 0; i < order_.size(); ++i) number_of_[order_[i]] = i;
  }

  void list_entries(const TriangulationOf<FinePoint>& triangulation) {
    const auto& triangles = triangulation.triangles();
    regions_.points_ = triangulation.points();
    for (const Index t : order_) {
      regions_.region_of_.push_back(region_of_[t]);
      for (unsigned i = 0; i < 3; ++i) {
        const Vector2d& opposite = place_of_[triangles[t].corner[next(next(i))]];
        const Index right = entry_over(triangles, t, next(i));
        const Index left = entry_over(triangles, t, next(next(i)));
        regions_.entries_.push_back({opposite.x(), opposite.y(), {left, right}, kNone});
        regions_.corners_.push_back(triangles[t].corner[i]);
      }
    }
    PlanRegions::Entry& out = regions_.entries_.emplace_back();
    out.side = PlanRegions::kRim;
    constexpr double kNowhere = std::numeric_limits<double>::quiet_NaN();
    const auto itself = static_cast<Index>(regions_.entries_.size());
    regions_.entries_.push_back({kNowhere, kNowhere, {itself, itself}, kNone});
  }

  template <typename Triangles>
  Index entry_over(const Triangles& triangles, Index t, unsigned edge) const {
    const Index other = triangles[t].beyond[edge];
    if (other == kNone) return static_cast<Index>(3 * triangles.size());
    const Index from = triangles[t].corner[next(edge)];  // there the edge runs the other way
    const auto& corner = triangles[other].corner;
    return 3 * number_of_[other] + (corner[0] == from ? 0U : corner[1] == from ? 1U : 2U);
  }

  // Where an edge leads into a piece it lies on one of the sides of that piece: on the one to which
  // its middle is nearest.
  void list_sides(const TriangulationOf<FinePoint>& triangulation) {
    const auto& triangles = triangulation.triangles();
    for (const Index t : order_) {
      for (unsigned i = 0; i < 3; ++i) {
        const Index from = triangles[t].beyond[i];
        if (from == kNone || region_of_[from] == region_of_[t]) continue;
        const Vector2d middle =
            (place_of_[triangles[t].corner[i]] + place_of_[triangles[t].corner[next(i)]]) / 2.0;
        add_sides(regions_.entries_[3 * number_of_[t] + i], region_of_[from], region_of_[t],
                  middle);
      }
    }
  }

  void add_sides(PlanRegions::Entry& entry, Index from, Index to, const Vector2d& middle) {
    const auto before = regions_.pieces_in(from);
    const std::size_t first = regions_.sides_.size();
    for (const Index piece : regions_.pieces_in(to)) {
      if (std::binary_search(before.begin(), before.end(), piece)) continue;
      const Index edge = side_near(piece, middle);
      regions_.sides_.push_back(
          {index_.edges[edge], edge, piece, index_.pieces[piece].solid, false});
    }
    if (regions_.sides_.size() == first) return;
    regions_.sides_.back().is_last = true;
    entry.side = static_cast<Index>(first);
  }

  Index side_near(Index piece, const Vector2d& p) const {
    const Piece& its = index_.pieces[piece];
    Index nearest = its.first_edge;
    double least = std::numeric_limits<double>::infinity();
    for (Index e = its.first_edge; e < its.first_edge + its.edge_count; ++e) {
      const PrismEdge& edge = index_.edges[e];
      const double off =
          std::abs(edge.side(p.x(), p.y())) / std::sqrt(edge.dx * edge.dx + edge.dy * edge.dy);
      if (off >= least) continue;
      least = off;
      nearest = e;
    }
    return nearest;
  }

  // About two triangles a cell.
  void lay_grid() {
    const auto width = static_cast<double>(regions_.high_.x - regions_.low_.x);
    const auto height = static_cast<double>(regions_.high_.y - regions_.low_.y);
    const double cells = static_cast<double>(region_of_.size()) / 2.0 + 1.0;
    regions_.cell_ = static_cast<std::int64_t>(std::max(
                         {std::sqrt(width / cells * height), width / cells, height / cells})) +
                     1;
    regions_.columns_ = (regions_.high_.x - regions_.low_.x) / regions_.cell_ + 1;
    regions_.rows_ = (regions_.high_.y - regions_.low_.y) / regions_.cell_ + 1;
    regions_.near_.assign(static_cast<std::size_t>(regions_.columns_ * regions_.rows_), 0);
    Index before = 0;
    for (std::int64_t row = 0; row < regions_.rows_; ++row) {
      for (std::int64_t i = 0; i < regions_.columns_; ++i) {
        const std::int64_t column = row % 2 == 0 ? i : regions_.columns_ - 1 - i;
        const auto at = static_cast<std::size_t>(row * regions_.columns_ + column);
        regions_.near_[at] = before;
        const FinePoint middle{regions_.low_.x + column * regions_.cell_ + regions_.cell_ / 2,
                               regions_.low_.y + row * regions_.cell_ + regions_.cell_ / 2};
        const Index found = regions_.find(middle);
        if (found != kNone) regions_.near_[at] = before = found;
      }
    }
  }

  const World::Index& index_;
  double height_;
  PlanRegions& regions_;
  std::vector<Vector2d> places_;
  std::vector<FinePoint> points_;  ///< The same on the lattice.
  std::vector<LineEnds> lines_;
  std::vector<Vector2d> place_of_;  ///< By vertex.
  std::vector<Index> region_of_;    ///< By triangle.
  std::vector<Index> order_;        ///< The triangles, as they are kept,
  std::vector<Index> number_of_;    ///< and by triangle, where.
};

PlanRegions::PlanRegions(const World::Index& index, double height) {
  PlanCutter(index, height, *this).cut();
}

std::size_t PlanRegions::cell_at(const FinePoint& point) const {
  return static_cast<std::size_t>((point.y - low_.y) / cell_ * columns_ +
                                  (point.x - low_.x) / cell_);
}

// Walks towards the point; see Triangulation::locate.
std::uint32_t PlanRegions::find(const FinePoint& point) const {
  const bool is_in = low_.x < point.x && point.x < high_.x && low_.y < point.y && point.y < high_.y;
  if (!is_in) return kNone;
  Index t = near_[cell_at(point)];
  for (unsigned step = 0;; ++step) {
    Index onward = kNone;
    for (unsigned k = 0; k < 3 && onward == kNone; ++k) {
      const unsigned i = (k + step) % 3;
      if (side_of(corner(t, i), corner(t, next(i)), point) < 0) onward = beyond(t, i);
    }
    if (onward == kNone) return t;
    t = onward / 3;
  }
}

void PlanRegions::find_all(const FinePoint& point, std::vector<std::uint32_t>& triangles) const {
  triangles.clear();
  const Index first = find(point);
  if (first == kNone) return;
  triangles.push_back(first);
  // On an edge or a corner: round it, over the edges on which the point lies.
  for (std::size_t done = 0; done < triangles.size(); ++done) {
    const Index t = triangles[done];
    for (unsigned i = 0; i < 3; ++i) {
      if (side_of(corner(t, i), corner(t, next(i)), point) != 0) continue;
      const Index over = beyond(t, i);
      if (entries_[over].side == kRim) continue;
      const bool is_known =
          std::find(triangles.begin(), triangles.end(), over / 3) != triangles.end();
      if (!is_known) triangles.push_back(over / 3);
    }
  }
}

}  // namespace gaze
