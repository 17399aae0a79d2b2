#include <algorithm>
#include <cmath>

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

bool is_near(const NavigationMesh& mesh, const Vector3d& middle, double size) {
  const auto nearest = mesh.nearest(middle);
  const double reach = size * 0.7072 + NavigationMesh::kNearMesh;
  return nearest &&
         std::hypot(nearest->place.x() - middle.x(), nearest->place.y() - middle.y()) <= reach;
}

void join(SneakGrid& grid, const NavigationMesh& mesh,
          const std::vector<std::optional<MeshPlace>>& places, int column, int row) {
  const std::size_t i = grid.at(column, row);
  for (std::size_t d = 0; d < 8 && grid.stands[i] != 0; ++d) {
    const int x = column + kNeighbours[d][0];
    const int y = row + kNeighbours[d][1];
    if (x < 0 || y < 0 || x >= grid.columns || y >= grid.rows) continue;
    const std::size_t other = grid.at(x, y);
    if (grid.stands[other] != 0 && mesh.is_free(*places[i], *places[other])) {
      grid.joins[i] = static_cast<std::uint8_t>(grid.joins[i] | 1U << d);
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

SneakGrid sneak_grid(const NavigationMesh& mesh, const Vector3d& start, const SneakExtent& extent,
                     double size, SneakEffort& effort) {
  const auto& [low, high] = extent;
  SneakGrid grid;
  grid.size = size;
  const double left = std::ceil((start.x() - low.x()) / size);
  const double below = std::ceil((start.y() - low.y()) / size);
  grid.low = {start.x() - left * size, start.y() - below * size};
  grid.columns = static_cast<int>(left + std::ceil((high.x() - start.x()) / size)) + 1;
  grid.rows = static_cast<int>(below + std::ceil((high.y() - start.y()) / size)) + 1;
  const std::size_t count = grid.count();
  grid.height.assign(count, static_cast<float>(start.z()));
  grid.stands.assign(count, 0);
  grid.joins.assign(count, 0);
  grid.any.assign(count, 0);
  const auto home = mesh.find(start);
  std::vector<std::optional<MeshPlace>> places(count);
  effort.for_rows(grid.rows, grid.columns, [&](int row) {
    for (int column = 0; column < grid.columns; ++column) {
      const std::size_t i = grid.at(column, row);
      const Vector3d middle = grid.place(i);
      places[i] = place_just_at(mesh, middle, start);
      const bool is_there =
          places[i] && home && mesh.is_reachable(mesh.island_of(*home), mesh.island_of(*places[i]));
      if (!is_there) places[i].reset();
      grid.stands[i] = is_there ? 1 : 0;
      if (is_there) grid.height[i] = static_cast<float>(places[i]->place.z());
      grid.any[i] = is_there || is_near(mesh, middle, grid.size) ? 1 : 0;
    }
  });
  effort.for_rows(grid.rows, grid.columns, [&](int row) {
    for (int column = 0; column < grid.columns; ++column) {
      join(grid, mesh, places, column, row);
    }
  });
  return grid;
}

}  // namespace gaze
