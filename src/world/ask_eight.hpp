#pragma once

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/plan.hpp"
#include "world/ray_grid.hpp"

#if defined(__x86_64__)
#include <immintrin.h>

/// How eight pieces at once are asked about a segment, in float.
namespace gaze {

/// The plan of a segment as pieces are asked about it.
struct Question {
  float way_x, way_y;  ///< From its start to its end.
  float length2;       ///< Squared.
  float inverse;       ///< Of that, or 0.
  float margin;        ///< For rounding, square metres.
  double share;        ///< To which share of the segment it is known where something is.
  /// Where it begins, seen from the middle of a cell: how far off the line through that middle, and
  /// how far along it, times the length of the segment.
  float off, along;

  Question(double x, double y, double cells) {
    const double square = x * x + y * y;
    const double most = std::abs(x) + std::abs(y) + cells;
    const double rounding = kRounding * most * most;
    way_x = static_cast<float>(x);
    way_y = static_cast<float>(y);
    length2 = static_cast<float>(square);
    inverse = length2 > 0.0F ? 1.0F / length2 : 0.0F;
    margin = static_cast<float>(rounding);
    share = square > 0.0 ? std::min(1.0, 2.0 * rounding / square) : 1.0;
  }

  static constexpr double kRounding = 1.0 / (1 << 20);  ///< Of some eight operations in float.
};

/// How a segment rises.
struct Rise {
  float start, way;
  float margin;  ///< For rounding, metres.

  Rise() = default;
  Rise(const PlanSegment& segment, const Question& question, double cells) {
    const double rise = segment.to.across - segment.from.across;
    const double heights = std::abs(segment.from.across) + std::abs(rise) + cells;
    start = static_cast<float>(segment.from.across);
    way = static_cast<float>(rise);
    margin = static_cast<float>(16.0 * Question::kRounding * heights +
                                1.0001 * question.share * std::abs(rise));
  }
};

/// How eight pieces lie to a segment in the plan.
struct InPlan {
  __m256 is_met;       ///< All bits, or none.
  __m256 first, last;  ///< The shares of the segment between which it may be in the piece.
  __m256 surely;       ///< Above 0: it surely is, if it is at the height of the piece.
};

/// Of eight pieces, by bit, those that a segment may meet, and those that it does meet if four
/// corners and two heights are all of them.
struct Met {
  unsigned perhaps = 0;
  unsigned surely = 0;
};

// A segment meets a piece if that has corners on both sides of its line, not all before its start
// nor beyond its end. None is missed: there is more room than rounding takes. It meets it surely if
// as much is left over, and all corners lie between start and end. False if it meets none.
__attribute__((target("avx2,fma"), always_inline)) inline bool ask_plan(const RayGrid::Block& block,
                                                                        const Question& question,
                                                                        InPlan& plan) {
  const __m256 way_x = _mm256_broadcast_ss(&question.way_x);
  const __m256 way_y = _mm256_broadcast_ss(&question.way_y);
  const __m256 start_off = _mm256_broadcast_ss(&question.off);
  const __m256 start_along = _mm256_broadcast_ss(&question.along);
  __m256 off[RayGrid::kCorners];
  __m256 along[RayGrid::kCorners];
  for (std::size_t k = 0; k < RayGrid::kCorners; ++k) {
    const __m256 x = _mm256_load_ps(block.x[k].data());
    const __m256 y = _mm256_load_ps(block.y[k].data());
    off[k] = _mm256_fmsub_ps(way_x, y, _mm256_fmadd_ps(way_y, x, start_off));
    along[k] = _mm256_fmadd_ps(way_x, x, _mm256_fmsub_ps(way_y, y, start_along));
  }
  const __m256 zero = _mm256_setzero_ps();
  const __m256 right = _mm256_min_ps(_mm256_min_ps(off[0], off[1]), _mm256_min_ps(off[2], off[3]));
  const __m256 left = _mm256_max_ps(_mm256_max_ps(off[0], off[1]), _mm256_max_ps(off[2], off[3]));
  const __m256 nearest =
      _mm256_min_ps(_mm256_min_ps(along[0], along[1]), _mm256_min_ps(along[2], along[3]));
  const __m256 farthest =
      _mm256_max_ps(_mm256_max_ps(along[0], along[1]), _mm256_max_ps(along[2], along[3]));
  const __m256 length2 = _mm256_broadcast_ss(&question.length2);
  const __m256 margin = _mm256_broadcast_ss(&question.margin);
  const __m256 begins = _mm256_max_ps(nearest, zero);
  const __m256 ends = _mm256_min_ps(farthest, length2);
  // What has to be at least 0, but for the margin.
  const __m256 straddles = _mm256_min_ps(left, _mm256_sub_ps(zero, right));
  const __m256 meets = _mm256_min_ps(straddles, _mm256_sub_ps(ends, begins));
  plan.is_met = _mm256_cmp_ps(_mm256_add_ps(meets, margin), zero, _CMP_GE_OQ);
  if (_mm256_testz_ps(plan.is_met, plan.is_met) != 0) return false;
  const __m256 inverse = _mm256_broadcast_ss(&question.inverse);
  plan.first = _mm256_mul_ps(_mm256_min_ps(begins, length2), inverse);
  plan.last = _mm256_mul_ps(_mm256_max_ps(ends, zero), inverse);
  const __m256 between = _mm256_min_ps(nearest, _mm256_sub_ps(length2, farthest));
  plan.surely = _mm256_sub_ps(_mm256_min_ps(straddles, between), margin);
  return true;
}

// The same with height: it must not pass over or under the piece.
__attribute__((target("avx2,fma"), always_inline)) inline Met ask_height(
    const RayGrid::Block& block, const InPlan& plan, const Rise& rise) {
  const __m256 start = _mm256_broadcast_ss(&rise.start);
  const __m256 way = _mm256_broadcast_ss(&rise.way);
  const __m256 margin = _mm256_broadcast_ss(&rise.margin);
  const __m256 one = _mm256_fmadd_ps(plan.first, way, start);
  const __m256 other = _mm256_fmadd_ps(plan.last, way, start);
  const __m256 lowest = _mm256_min_ps(one, other);
  const __m256 highest = _mm256_max_ps(one, other);
  const __m256 high = _mm256_load_ps(block.high.data());
  const __m256 low = _mm256_load_ps(block.low.data());
  const __m256 zero = _mm256_setzero_ps();
  const __m256 height = _mm256_min_ps(_mm256_sub_ps(high, lowest), _mm256_sub_ps(highest, low));
  const __m256 is_met = _mm256_cmp_ps(_mm256_add_ps(height, margin), zero, _CMP_GE_OQ);
  Met met;
  met.perhaps = static_cast<unsigned>(_mm256_movemask_ps(_mm256_and_ps(plan.is_met, is_met)));
  if (met.perhaps == 0) return met;
  const __m256 within = _mm256_min_ps(_mm256_sub_ps(high, highest), _mm256_sub_ps(lowest, low));
  const __m256 left_over = _mm256_min_ps(plan.surely, _mm256_sub_ps(within, margin));
  met.surely = block.is_whole & static_cast<unsigned>(
                                    _mm256_movemask_ps(_mm256_cmp_ps(left_over, zero, _CMP_GT_OQ)));
  return met;
}

}  // namespace gaze
#endif
