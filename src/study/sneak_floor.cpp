#include <algorithm>
#include <cmath>

#include "study/sneak.hpp"

/// The places on which a body may be.
namespace gaze {
namespace {

void include(Vector2d& low, Vector2d& high, const Vector3d& p) {
  low = low.cwiseMin(Vector2d{p.x(), p.y()});
  high = high.cwiseMax(Vector2d{p.x(), p.y()});
}

// All corners of the mesh that the start reaches, but no farther out than matters: beyond both ends
// and the solids between them an endless floor only leads away.
std::pair<Vector2d, Vector2d> extent(const NavigationMesh& mesh, const Vector3d& start,
                                     const Vector3d& goal) {
  constexpr double kRound = 8.0;  // metres about all that stands
  Vector2d low{start.x(), start.y()};
  Vector2d high = low;
  include(low, high, goal);
  std::vector<double> xs;
  std::vector<double> ys;
  for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
    for (const Vector3d& corner : mesh.polygon(i).corners) {
      xs.push_back(corner.x());
      ys.push_back(corner.y());
    }
  }
  std::sort(xs.begin(), xs.end());
  std::sort(ys.begin(), ys.end());
  // The outermost corners are those of the floor's edge; the next ones are of something on it.
  const auto inner = [](const std::vector<double>& sorted) {
    const auto first = std::upper_bound(sorted.begin(), sorted.end(), sorted.front() + 1e-3);
    const auto last = std::lower_bound(sorted.begin(), sorted.end(), sorted.back() - 1e-3);
    return first < last ? std::pair(*first, *(last - 1)) : std::pair(sorted.front(), sorted.back());
  };
  const auto [x_low, x_high] = inner(xs);
  const auto [y_low, y_high] = inner(ys);
  include(low, high,
          {std::max(x_low - kRound, xs.front()), std::max(y_low - kRound, ys.front()), 0});
  include(low, high,
          {std::min(x_high + kRound, xs.back()), std::min(y_high + kRound, ys.back()), 0});
  return {low, high};
}

}  // namespace

SneakGrid sneak_grid(const NavigationMesh& mesh, const Vector3d& start, const Vector3d& goal,
                     double size) {
  const auto [low, high] = extent(mesh, start, goal);
  SneakGrid grid;
  grid.size = size;
  const double left = std::ceil((start.x() - low.x()) / size);
  const double below = std::ceil((start.y() - low.y()) / size);
  grid.low = {start.x() - left * size, start.y() - below * size};
  grid.columns = static_cast<int>(left + std::ceil((high.x() - start.x()) / size)) + 1;
  grid.rows = static_cast<int>(below + std::ceil((high.y() - start.y()) / size)) + 1;
  const std::size_t count = grid.count();
  constexpr std::size_t kMostPlaces = 4'000'000;
  if (count > kMostPlaces)
    throw UsageError("the floor has too many places: a larger spot is needed");
  grid.height.assign(count, static_cast<float>(start.z()));
  grid.stands.assign(count, 0);
  grid.joins.assign(count, 0);
  grid.any.assign(count, 0);
  const auto home = mesh.find(start);
  std::vector<std::optional<MeshPlace>> places(count);
  for (std::size_t i = 0; i < count; ++i) {
    const Vector3d middle = grid.place(i);
    places[i] = mesh.find(middle);
    const bool is_there =
        places[i] && home && mesh.is_reachable(mesh.island_of(*home), mesh.island_of(*places[i]));
    if (!is_there) places[i].reset();
    grid.stands[i] = is_there ? 1 : 0;
    if (is_there) grid.height[i] = static_cast<float>(places[i]->place.z());
    const auto nearest = mesh.nearest(middle);
    const double reach = grid.size * 0.7072 + NavigationMesh::kNearMesh;
    const bool is_near = nearest && std::hypot(nearest->place.x() - middle.x(),
                                               nearest->place.y() - middle.y()) <= reach;
    grid.any[i] = is_there || is_near ? 1 : 0;
  }
  for (int row = 0; row < grid.rows; ++row) {
    for (int column = 0; column < grid.columns; ++column) {
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
  }
  return grid;
}

}  // namespace gaze
