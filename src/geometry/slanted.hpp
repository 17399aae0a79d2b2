#pragma once

#include <optional>

#include "geometry/prism.hpp"

/// The questions of prism.hpp for prisms with slopes: ramps, and triangles of meshes. Their
/// outlines have at most `kMostSlantedEdges` edges; bodies that meet them are discs.
namespace gaze {

constexpr std::size_t kMostSlantedEdges = 8;

[[nodiscard]] std::optional<double> first_touch_slanted(const Prism& prism, const PlanSegment& path,
                                                        double radius) noexcept;
[[nodiscard]] bool overlaps_slanted(const Prism& prism, const PlanBody& body) noexcept;
[[nodiscard]] std::optional<PlanContact> first_entry_slanted(const Prism& prism,
                                                             const PlanBody& body,
                                                             const PlanPoint& motion) noexcept;

}  // namespace gaze
