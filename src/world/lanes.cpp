#include "world/lanes.hpp"

#include <algorithm>

#if defined(__x86_64__)
#include <immintrin.h>
#endif

namespace gaze {
namespace {

#if defined(__x86_64__)
/// One side of each box: exact, see Tree::Node.
__attribute__((target("avx2"))) inline __m256 sides_of(const Tree::Node& node, std::size_t which,
                                                       std::size_t axis) {
  const __m128i steps = _mm_loadl_epi64(reinterpret_cast<const __m128i*>(node.sides[which].data()));
  const __m256 offset = _mm256_mul_ps(_mm256_cvtepi32_ps(_mm256_cvtepu8_epi32(steps)),
                                      _mm256_broadcast_ss(&node.step[axis]));
  return _mm256_add_ps(_mm256_broadcast_ss(&node.origin[axis]), offset);
}

__attribute__((target("avx2"))) inline __m256 shares(const __m256 sides, const float* start,
                                                     const float* inverse) {
  return _mm256_mul_ps(_mm256_sub_ps(sides, _mm256_broadcast_ss(start)),
                       _mm256_broadcast_ss(inverse));
}

// A box is entered at the latest of the three shares of entering, and left at the earliest of those
// of leaving. Written so that the three axes do not wait for each other.
__attribute__((target("avx2"))) unsigned touch_boxes_by_eight(const Tree::Node& node,
                                                              const BoxQuery& query,
                                                              float* enter) noexcept {
  const auto near = [&](std::size_t axis) __attribute__((target("avx2"))) {
    return shares(sides_of(node, query.near_side[axis], axis), &query.near[axis],
                  &query.inverse[axis]);
  };
  const auto far = [&](std::size_t axis) __attribute__((target("avx2"))) {
    return shares(sides_of(node, query.far_side[axis], axis), &query.far[axis],
                  &query.far_inverse[axis]);
  };
  const __m256 first =
      _mm256_max_ps(_mm256_max_ps(near(0), near(1)), _mm256_max_ps(near(2), _mm256_setzero_ps()));
  const __m256 last = _mm256_min_ps(_mm256_min_ps(far(0), far(1)),
                                    _mm256_min_ps(far(2), _mm256_broadcast_ss(&query.limit)));
  _mm256_storeu_ps(enter, first);
  return node.is_there &
         static_cast<unsigned>(_mm256_movemask_ps(_mm256_cmp_ps(first, last, _CMP_LE_OQ)));
}
#endif

}  // namespace

unsigned touch_boxes_plainly(const Tree::Node& node, const BoxQuery& query, float* enter) noexcept {
  unsigned mask = 0;
  for (std::size_t child = 0; child < Tree::kWidth; ++child) {
    float first = 0.0F;
    float last = query.limit;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      const float near_side = node.side(query.near_side[axis], child);
      const float far_side = node.side(query.far_side[axis], child);
      first = std::max(first, (near_side - query.near[axis]) * query.inverse[axis]);
      last = std::min(last, (far_side - query.far[axis]) * query.far_inverse[axis]);
    }
    enter[child] = first;
    mask |= (first <= last ? 1U : 0U) << child;
  }
  return mask & node.is_there;
}

TouchBoxes fastest_touch() noexcept {
#if defined(__x86_64__)
  if (__builtin_cpu_supports("avx2")) return touch_boxes_by_eight;
#endif
  return touch_boxes_plainly;
}

}  // namespace gaze
