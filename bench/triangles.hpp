#pragma once

#include <embree3/rtcore.h>

#include "gaze/gaze.hpp"

namespace gaze {

/// The solids of a level as triangles in Debian's general ray-tracing kernel library, asked one ray
/// at a time: the yardstick for the tree.
class TriangleKernel {
 public:
  explicit TriangleKernel(const World& world);
  ~TriangleKernel();
  TriangleKernel(const TriangleKernel&) = delete;
  TriangleKernel& operator=(const TriangleKernel&) = delete;

  bool is_clear(const Segment& segment) const {
    const Vector3d way = segment.to - segment.from;
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    RTCRay ray{};
    ray.org_x = static_cast<float>(segment.from.x());
    ray.org_y = static_cast<float>(segment.from.y());
    ray.org_z = static_cast<float>(segment.from.z());
    ray.dir_x = static_cast<float>(way.x());
    ray.dir_y = static_cast<float>(way.y());
    ray.dir_z = static_cast<float>(way.z());
    ray.tfar = 1.0F;
    ray.mask = 0xFFFFFFFFU;
    rtcOccluded1(scene_, &context, &ray);
    return ray.tfar >= 0.0F;
  }

 private:
  RTCDevice device_;
  RTCScene scene_;
};

}  // namespace gaze
