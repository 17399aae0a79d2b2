#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

#include "geometry/plan.hpp"
#include "study/sneak.hpp"

/// The places on which a body may be.
namespace gaze {
namespace {

void include(Vector2d& low, Vector2d& high, const Vector3d& p) {
  low = low.cwiseMin(Vector2d{p.x(), p.y()});
  high = high.cwiseMax(Vector2d{p.x(), p.y()});
}

// The outermost corners of the mesh are those of the floor's edge; the next ones are of something
// that stands on it.
void include_what_stands(const NavigationMesh& mesh, SneakExtent& extent, SneakExtent& floor) {
  std::vector<double> xs;
  std::vector<double> ys;
  for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
    for (const Vector3d& corner : mesh.polygon(i).corners) {
      xs.push_back(corner.x());
      ys.push_back(corner.y());
    }
  }
  if (xs.empty()) return;
  std::sort(xs.begin(), xs.end());
  std::sort(ys.begin(), ys.end());
  floor = {{xs.front(), ys.front()}, {xs.back(), ys.back()}};
  const auto inner = [](const std::vector<double>& sorted) {
    const auto first = std::upper_bound(sorted.begin(), sorted.end(), sorted.front() + 1e-3);
    const auto last = std::lower_bound(sorted.begin(), sorted.end(), sorted.back() - 1e-3);
    return first < last ? std::pair(*first, *(last - 1)) : std::pair(sorted.front(), sorted.back());
  };
  const auto [x_low, x_high] = inner(xs);
  const auto [y_low, y_high] = inner(ys);
  include(extent.low, extent.high, {x_low, y_low, 0.0});
  include(extent.low, extent.high, {x_high, y_high, 0.0});
}

// What is only near the mesh would touch a solid; but whoever begins so begins there.
std::optional<MeshPlace> place_just_at(const NavigationMesh& mesh, const Vector3d& middle,
                                       const Vector3d& start) {
  constexpr double kRounding = 1e-9;  // metres
  const auto found = mesh.find(middle);
  if (!found) return std::nullopt;
  const double off = level_distance(Plane::ground, found->place, middle);
  const bool is_start = level_distance(Plane::ground, start, middle) < kRounding;
  return off < kRounding || is_start ? found : std::nullopt;
}

/// The part of a polygon of the mesh that may be in a square.
struct Piece {
  std::uint32_t square = 0;
  double low = 0.0;  ///< Heights of the floor.
  double high = 0.0;
};

/// A polygon of the mesh, cut into squares.
class Slicing {
 public:
  Slicing(const SneakFloor& floor, const std::vector<Vector3d>& corners, std::vector<Piece>& pieces)
      : floor_(floor), corners_(corners), pieces_(pieces), half_(floor.size / 2.0 + kNear) {
    for (const Vector3d& corner : corners) {
      low_ = std::min(low_, corner.z());
      high_ = std::max(high_, corner.z());
    }
    // The slope by the corner that lies farthest off the first side.
    double widest = 0.0;
    const Vector3d side = corners[1] - corners[0];
    for (const Vector3d& corner : corners) {
      const Vector3d normal = side.cross(Vector3d(corner - corners[0]));
      if (std::abs(normal.z()) <= widest) continue;
      widest = std::abs(normal.z());
      slope_ = Vector2d{-normal.x(), -normal.y()} / normal.z();
    }
  }

  void slice() {
    double bottom = corners_[0].y();
    double top = bottom;
    for (const Vector3d& corner : corners_) {
      bottom = std::min(bottom, corner.y());
      top = std::max(top, corner.y());
    }
    const auto [first, last] =
        between(bottom - half_ - floor_.low.y(), top + half_ - floor_.low.y(), floor_.rows);
    for (int row = first; row <= last; ++row) slice_row(row);
  }

 private:
  static constexpr double kNear = NavigationMesh::kNearMesh;

  // The first and the last of the squares whose middles lie between two ends, `count` in all.
  std::pair<int, int> between(double low, double high, int count) const {
    const double first = std::ceil(std::clamp(low / floor_.size, 0.0, 1e7));
    const double last = std::floor(std::clamp(high / floor_.size, -1.0, count - 1.0));
    return {static_cast<int>(first), static_cast<int>(last)};
  }

  // The west and east end of what lies between two parallels.
  void slice_row(int row) {
    const double y = floor_.low.y() + row * floor_.size;
    double west = std::numeric_limits<double>::infinity();
    double east = -west;
    const auto take = [&](double x) {
      west = std::min(west, x);
      east = std::max(east, x);
    };
    for (std::size_t i = 0; i < corners_.size(); ++i) {
      const Vector3d& a = corners_[i];
      const Vector3d& b = corners_[(i + 1) % corners_.size()];
      if (std::abs(a.y() - y) <= half_) take(a.x());
      for (const double edge : {y - half_, y + half_}) {
        if ((a.y() < edge) != (b.y() < edge)) {
          take(a.x() + (b.x() - a.x()) * (edge - a.y()) / (b.y() - a.y()));
        }
      }
    }
    if (!(west <= east)) return;
    const auto [first, last] =
        between(west - half_ - floor_.low.x(), east + half_ - floor_.low.x(), floor_.columns);
    for (int column = first; column <= last; ++column) add(column, row);
  }

  void add(int column, int row) {
    const Vector2d middle{floor_.low.x() + column * floor_.size,
                          floor_.low.y() + row * floor_.size};
    const Vector2d off = middle - Vector2d{corners_[0].x(), corners_[0].y()};
    const double height = corners_[0].z() + slope_.dot(off);
    const double more = (std::abs(slope_.x()) + std::abs(slope_.y())) * half_;
    pieces_.push_back({static_cast<std::uint32_t>(floor_.at(column, row)),
                       std::clamp(height - more, low_, high_),
                       std::clamp(height + more, low_, high_)});
  }

  const SneakFloor& floor_;
  const std::vector<Vector3d>& corners_;
  std::vector<Piece>& pieces_;
  double half_;
  double low_ = std::numeric_limits<double>::infinity();
  double high_ = -std::numeric_limits<double>::infinity();
  Vector2d slope_{0.0, 0.0};
};

std::vector<Piece> pieces_of(const SneakFloor& floor, const NavigationMesh& mesh,
                             const MeshPlace& home) {
  std::vector<Piece> pieces;
  for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
    const MeshPolygon polygon = mesh.polygon(i);
    if (!mesh.is_reachable(mesh.island_of(home), polygon.island)) continue;
    Slicing(floor, polygon.corners, pieces).slice();
  }
  std::sort(pieces.begin(), pieces.end(), [](const Piece& a, const Piece& b) {
    return std::tie(a.square, a.low, a.high) < std::tie(b.square, b.low, b.high);
  });
  return pieces;
}

// What lies closer together than a step is one place.
void add_places(SneakFloor& floor, const std::vector<Piece>& pieces, double step_height) {
  std::uint32_t next = 0;
  for (std::size_t i = 0; i < pieces.size();) {
    Piece whole = pieces[i];
    for (++i; i < pieces.size() && pieces[i].square == whole.square &&
              pieces[i].low <= whole.high + step_height;
         ++i) {
      whole.high = std::max(whole.high, pieces[i].high);
    }
    for (; next <= whole.square; ++next) {
      floor.first.push_back(static_cast<std::uint32_t>(floor.count()));
    }
    floor.column.push_back(static_cast<int>(whole.square) % floor.columns);
    floor.row.push_back(static_cast<int>(whole.square) / floor.columns);
    floor.height.push_back((whole.low + whole.high) / 2.0);
    floor.spread.push_back((whole.high - whole.low) / 2.0);
  }
  floor.first.resize(floor.squares() + 1, static_cast<std::uint32_t>(floor.count()));
}

// Where a body stands in the middle, the place is as high as that.
void stand(SneakFloor& floor, const NavigationMesh& mesh, std::uint32_t spot,
           const Vector3d& start) {
  constexpr double kRounding = 1e-6;  // metres
  Vector3d middle = floor.place(spot);
  middle.z() += floor.spread[spot];
  const auto found = place_just_at(mesh, middle, start);
  const double off = found ? std::abs(found->place.z() - floor.height[spot]) : 0.0;
  if (!found || off > floor.spread[spot] + kRounding) return;
  floor.stands[spot] = found;
  floor.height[spot] = found->place.z();
  floor.spread[spot] += off;
}

// One way round alone, and the way back with it.
void join(SneakFloor& floor, const NavigationMesh& mesh, std::uint32_t spot, std::size_t way) {
  constexpr double kRounding = 1e-6;  // metres
  const int x = floor.column[spot] + kNeighbours[way][0];
  const int y = floor.row[spot] + kNeighbours[way][1];
  if (x < 0 || y < 0 || x >= floor.columns || y >= floor.rows) return;
  const std::size_t square = floor.at(x, y);
  for (std::uint32_t other = floor.first[square]; other < floor.first[square + 1]; ++other) {
    if (!floor.stands[other]) continue;
    const Vector3d& to = floor.stands[other]->place;
    const auto end = mesh.straight_on(*floor.stands[spot], to);
    if (end && std::abs(end->place.z() - to.z()) < kRounding) {
      floor.joins[spot][way] = other;
      floor.joins[other][(way + 4) % 8] = spot;
    }
  }
}

}  // namespace

SneakExtent extent_of(const NavigationMesh& mesh, const Level& level,
                      const std::vector<Watcher>& watchers, const Sneaker& sneaker,
                      const Vector3d& start, const Vector3d& goal) {
  SneakExtent extent{{start.x(), start.y()}, {start.x(), start.y()}};
  include(extent.low, extent.high, goal);
  SneakExtent floor = extent;
  include_what_stands(mesh, extent, floor);
  for (const Watcher& watcher : watchers) {
    const double reach = reach_of(watcher, level, sneaker);
    for (const WatcherAt& at : watcher.at) {
      if (!at.is_up) continue;
      include(extent.low, extent.high, at.looker.feet + Vector3d{reach, reach, 0.0});
      include(extent.low, extent.high, at.looker.feet - Vector3d{reach, reach, 0.0});
    }
  }
  // A little more, so that the edge of the box is free to walk along.
  const Vector2d around = Vector2d::Constant(2.0 + 2.0 * sneaker.kind.radius);
  extent.low = (extent.low - around).cwiseMax(floor.low);
  extent.high = (extent.high + around).cwiseMin(floor.high);
  include(extent.low, extent.high, start);
  include(extent.low, extent.high, goal);
  return extent;
}

SneakFloor sneak_floor(const NavigationMesh& mesh, const Vector3d& start, const SneakExtent& extent,
                       double size, SneakEffort& effort) {
  const auto& [low, high] = extent;
  SneakFloor floor;
  floor.size = size;
  const double left = std::ceil((start.x() - low.x()) / size);
  const double below = std::ceil((start.y() - low.y()) / size);
  floor.low = {start.x() - left * size, start.y() - below * size};
  floor.columns = static_cast<int>(left + std::ceil((high.x() - start.x()) / size)) + 1;
  floor.rows = static_cast<int>(below + std::ceil((high.y() - start.y()) / size)) + 1;
  // Within its radius a body meets nothing that is a step higher than where it stands.
  const BodySize& body = mesh.body();
  floor.climb = body.step_height * (std::floor(size / body.radius) + 2.0);
  add_places(floor, pieces_of(floor, mesh, *mesh.find(start)), body.step_height);
  const std::size_t count = floor.count();
  floor.stands.resize(count);
  floor.spread_about.assign(count, 0.0);
  floor.joins.resize(count);
  for (auto& joins : floor.joins) joins.fill(kNoSpot);
  const auto for_all_of_row = [&](int row, const auto& each) {
    const std::uint32_t end = floor.first_of_row(row + 1);
    for (std::uint32_t spot = floor.first_of_row(row); spot < end; ++spot) each(spot);
  };
  effort.for_rows(floor, [&](int row) {
    for_all_of_row(row, [&](std::uint32_t spot) { stand(floor, mesh, spot, start); });
  });
  // A way to the north writes into the row above: every direction for itself.
  for (const std::size_t way : {0U, 1U, 2U, 3U}) {
    effort.for_rows(floor, [&](int row) {
      for_all_of_row(row, [&](std::uint32_t spot) {
        if (floor.stands[spot]) join(floor, mesh, spot, way);
      });
    });
  }
  effort.for_rows(floor, [&](int row) {
    for_all_of_row(row, [&](std::uint32_t spot) {
      double& about = floor.spread_about[spot];
      floor.for_near(spot, [&](std::uint32_t other) {
        about = std::max(about,
                         std::abs(floor.height[other] - floor.height[spot]) + floor.spread[other]);
      });
    });
  });
  return floor;
}

}  // namespace gaze
