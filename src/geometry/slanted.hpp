#pragma once

#include <array>
#include <limits>
#include <optional>
#include <span>

#include "geometry/prism.hpp"

/// The questions of prism.hpp for prisms with slopes: ramps, and triangles of meshes. Their
/// outlines have at most `kMostSlantedEdges` edges; bodies that meet them are discs.
namespace gaze {

constexpr std::size_t kMostSlantedEdges = 8;

/// What of a prism lies between two heights, or at one, seen in the plan. It holds its edges, or
/// those of the prism itself where that has no slopes.
class Slice {
 public:
  Slice(const Prism& prism, double from, double to) noexcept;

  bool is_empty() const { return is_empty_; }
  /// Endless up and down. Valid as long as the slice and the prism are.
  Prism prism() const {
    return {is_whole_ ? whole_ : std::span<const PrismEdge>(edges_.data(), count_), -kEndless,
            kEndless, nullptr};
  }

 private:
  static constexpr double kEndless = std::numeric_limits<double>::infinity();
  std::array<PrismEdge, kMostSlantedEdges + 2> edges_;
  std::size_t count_ = 0;
  std::span<const PrismEdge> whole_;
  bool is_whole_ = false;
  bool is_empty_ = false;
};

[[nodiscard]] std::optional<double> first_touch_slanted(const Prism& prism, const PlanSegment& path,
                                                        double radius) noexcept;
[[nodiscard]] PlanPoint offset_from_slanted(const Prism& prism, const PlanPoint& p) noexcept;
[[nodiscard]] bool overlaps_slanted(const Prism& prism, const PlanBody& body) noexcept;
[[nodiscard]] std::optional<PlanContact> first_entry_slanted(const Prism& prism,
                                                             const PlanBody& body,
                                                             const PlanPoint& motion) noexcept;

}  // namespace gaze
