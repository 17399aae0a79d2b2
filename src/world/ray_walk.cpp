#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <limits>
#include <span>

#include "world/ask_eight.hpp"
#include "world/index.hpp"
#include "world/ray_grid.hpp"

/// How a segment goes through a grid of pieces.
namespace gaze {

bool can_clip_by_eight() noexcept {
#if defined(__x86_64__)
  return __builtin_cpu_supports("avx2") && __builtin_cpu_supports("fma");
#else
  return false;
#endif
}

#if defined(__x86_64__)
namespace {

/// A segment that is within the grid, from where the grid begins, metres.
struct GridWay {
  double from_x, from_y, to_x, to_y;
};

bool is_within(double place, double size) {
  return place >= 0.0 && place < size;
}

// Narrows the shares of a way along one axis to those from 0 to the size of the grid.
void clip(double from, double to, double size, double& start, double& end) {
  const double way = to - from;
  if (way == 0.0) {
    if (!(from >= 0.0 && from <= size)) end = -1.0;
    return;
  }
  const double one = -from / way;
  const double other = (size - from) / way;
  start = std::max(start, std::min(one, other));
  end = std::min(end, std::max(one, other));
}

// What of a segment that leaves the grid is within it, if anything is.
bool clip(GridWay& way, const RayGrid& grid) {
  double start = 0.0;
  double end = 1.0;
  clip(way.from_x, way.to_x, grid.width(), start, end);
  clip(way.from_y, way.to_y, grid.height(), start, end);
  if (!(start <= end)) return false;
  const auto at = [](double from, double to, double share, double size) {
    constexpr double kInside = 1.0 - 1e-12;
    return std::clamp(from + (to - from) * share, 0.0, size * kInside);
  };
  way = {at(way.from_x, way.to_x, start, grid.width()),
         at(way.from_y, way.to_y, start, grid.height()),
         at(way.from_x, way.to_x, end, grid.width()), at(way.from_y, way.to_y, end, grid.height())};
  return true;
}

/// From cell to cell along one axis: `next` is the share of the way at which a cell is left, `per`
/// what the next one takes. No branches, for none could be predicted. A way that stays in its cell
/// leaves it at no share below 1.
struct AxisWalk {
  std::int64_t first;
  std::int64_t last;
  double step;  ///< Metres.
  double next;
  double per;

  AxisWalk(double from, double to, const RayGrid& grid)
      : first(static_cast<std::int64_t>(from * grid.inverse_size)),
        last(static_cast<std::int64_t>(to * grid.inverse_size)) {
    const double way = to - from;
    const double inverse = 1.0 / way;
    const double edge = static_cast<double>(first) + 0.5 + std::copysign(0.5, way);
    step = std::copysign(grid.size, way);
    next = (edge * grid.size - from) * inverse;
    per = step * inverse;
  }
};

// What a segment may meet of a block, decided in double where float does not tell.
bool is_stopped_by(const World& world, const RayGrid::Block& block, Met met, const PlanSegment& way,
                   Stops what) {
  for (; met.perhaps != 0; met.perhaps &= met.perhaps - 1) {
    const auto lane = static_cast<std::size_t>(std::countr_zero(met.perhaps));
    const std::uint32_t piece = block.piece[lane];
    if (!stops(world, piece, what)) continue;
    if ((met.surely >> lane & 1U) != 0) return true;
    if (first_touch(index_of(world), piece, way)) return true;
  }
  return false;
}

/// One segment, which needs no lists.
class OneRay {
 public:
  OneRay(const World& world, std::span<const PlanSegment> ways, Stops what)
      : world_(world), way_(ways.front()), what_(what) {}

  void begin(const Question& question, double cells) { rise_ = Rise(way_, question, cells); }

  __attribute__((target("avx2,fma"), always_inline)) void ask(const RayGrid::Block& block,
                                                              const InPlan& plan) {
    const Met met = ask_height(block, plan, rise_);
    if (met.perhaps != 0) is_stopped_ = is_stopped_by(world_, block, met, way_, what_);
  }

  void ask_tree() { is_stopped_ = is_stopped_in_tree(world_, way_, what_); }

  bool are_all_stopped() const { return is_stopped_; }
  unsigned stopped() const { return is_stopped_ ? 1 : 0; }

 private:
  const World& world_;
  const PlanSegment& way_;
  Stops what_;
  Rise rise_;
  bool is_stopped_ = false;
};

/// Segments with one plan, whose ends are at different heights; those that nothing has stopped yet.
class ManyRays {
 public:
  ManyRays(const World& world, std::span<const PlanSegment> ways, Stops what)
      : world_(world), ways_(ways), what_(what), count_(ways.size()) {}

  void begin(const Question& question, double cells) {
    for (std::size_t i = 0; i < count_; ++i) {
      rises_[i] = Rise(ways_[i], question, cells);
      number_[i] = static_cast<unsigned>(i);
    }
  }

  __attribute__((target("avx2,fma"), always_inline)) void ask(const RayGrid::Block& block,
                                                              const InPlan& plan) {
    for (std::size_t i = 0; i < count_;) {
      const Met met = ask_height(block, plan, rises_[i]);
      const bool is_stopped =
          met.perhaps != 0 && is_stopped_by(world_, block, met, ways_[number_[i]], what_);
      if (is_stopped) {
        stop(i);
      } else {
        ++i;
      }
    }
  }

  // Where it is crowded.
  void ask_tree() {
    for (std::size_t i = 0; i < count_;) {
      if (is_stopped_in_tree(world_, ways_[number_[i]], what_)) {
        stop(i);
      } else {
        ++i;
      }
    }
  }

  bool are_all_stopped() const { return count_ == 0; }
  /// By bit.
  unsigned stopped() const { return stopped_; }

 private:
  void stop(std::size_t i) {
    stopped_ |= 1U << number_[i];
    --count_;
    number_[i] = number_[count_];
    rises_[i] = rises_[count_];
  }

  const World& world_;
  std::span<const PlanSegment> ways_;
  Stops what_;
  std::size_t count_;
  unsigned stopped_ = 0;
  std::array<Rise, kMostHeights> rises_;
  std::array<unsigned, kMostHeights> number_;
};

template <typename Rays>
__attribute__((target("avx2,fma"))) unsigned walk_cells(const World& world,
                                                        std::span<const PlanSegment> ways,
                                                        Stops what) {
  const PlanSegment& way = ways.front();
  const RayGrid& grid = index_of(world).grid;
  const GridWay whole{way.from.plan.x() - grid.low.x(), way.from.plan.y() - grid.low.y(),
                      way.to.plan.x() - grid.low.x(), way.to.plan.y() - grid.low.y()};
  GridWay in = whole;
  const double width = grid.width();
  const double height = grid.height();
  const bool is_inside = is_within(in.from_x, width) && is_within(in.from_y, height) &&
                         is_within(in.to_x, width) && is_within(in.to_y, height);
  if (!is_inside && !clip(in, grid)) return 0;
  AxisWalk x(in.from_x, in.to_x, grid);
  AxisWalk y(in.from_y, in.to_y, grid);
  const double along_x = whole.to_x - whole.from_x;
  const double along_y = whole.to_y - whole.from_y;
  const double cells = grid.size + grid.farthest;
  Question question(along_x, along_y, cells);
  Rays rays(world, ways, what);
  rays.begin(question, cells);
  // Where the segment begins, seen from the middle of the cell.
  const double start_x = whole.from_x - (static_cast<double>(x.first) + 0.5) * grid.size;
  const double start_y = whole.from_y - (static_cast<double>(y.first) + 0.5) * grid.size;
  double off = along_x * start_y - along_y * start_x;
  double along = along_x * start_x + along_y * start_y;
  const RayGrid::Cell* cell = &grid.cell(x.first, y.first);
  // How that changes from row to row, and from one column to the next.
  struct Step {
    double per, off, along;
    std::ptrdiff_t cells;
  };
  const std::array<Step, 2> steps{
      Step{y.per, -along_x * y.step, -along_y * y.step,
           y.step > 0.0 ? grid.columns : -grid.columns},
      Step{x.per, along_y * x.step, -along_x * x.step, x.step > 0.0 ? 1 : -1}};
  std::array<double, 2> next{y.next, x.next};
  for (std::int64_t left = std::abs(x.last - x.first) + std::abs(y.last - y.first);; --left) {
    if (cell->count > RayGrid::kMostBlocks) {
      rays.ask_tree();
      return rays.stopped();
    }
    question.off = static_cast<float>(off);
    question.along = static_cast<float>(along);
    for (std::uint32_t i = 0; i < cell->count; ++i) {
      const RayGrid::Block& block = grid.blocks[cell->first + i];
      InPlan plan;
      if (!ask_plan(block, question, plan)) continue;
      rays.ask(block, plan);
      if (rays.are_all_stopped()) return rays.stopped();
    }
    if (left == 0) return rays.stopped();
    const std::size_t axis = next[1] < next[0] ? 1 : 0;
    const Step& step = steps[axis];
    next[axis] += step.per;
    off += step.off;
    along += step.along;
    cell += step.cells;
  }
}

}  // namespace
#endif

unsigned stopped_in_grid(const World& world, std::span<const PlanSegment> ways,
                         Stops what) noexcept {
#if defined(__x86_64__)
  return ways.size() == 1 ? walk_cells<OneRay>(world, ways, what)
                          : walk_cells<ManyRays>(world, ways, what);
#else
  unsigned stopped = 0;
  for (std::size_t i = 0; i < ways.size(); ++i) {
    if (is_stopped_in_tree(world, ways[i], what)) stopped |= 1U << i;
  }
  return stopped;
#endif
}

}  // namespace gaze
