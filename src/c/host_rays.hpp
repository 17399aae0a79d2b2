#pragma once

#include <vector>

#include "c/calls.hpp"
#include "gaze/host_world.hpp"

namespace gaze::c {

/// A host's function as a world.
class HostRays : public RaySource {
 public:
  HostRays(gaze_rays rays, void* host) : rays_(rays), host_(host) {}

  void first_hits(std::span<const Segment> segments, std::span<RayHit> hits) const override {
    std::vector<gaze_segment> asked;
    asked.reserve(segments.size());
    for (const Segment& one : segments) {
      asked.push_back({vector_of(one.from), vector_of(one.to)});
    }
    std::vector<gaze_hit> told(segments.size());
    if (!asked.empty()) rays_(host_, asked.data(), told.data(), asked.size());
    for (std::size_t i = 0; i < hits.size(); ++i) {
      hits[i] = {told[i].is_hit != 0, vector_of(told[i].place), {}, told[i].id};
    }
  }

 private:
  gaze_rays rays_;
  void* host_;
};

}  // namespace gaze::c
