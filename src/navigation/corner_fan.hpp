#pragma once

#include <cstdint>
#include <vector>

#include "navigation/fan.hpp"

namespace gaze {

/// Finds what is seen from a corner along the ways that turn round it on one side: these leave
/// between the directions of the two edges that meet there. From the end of a crossing it looks all
/// round. It keeps nothing but scratch memory, and may serve any mesh.
class CornerFan {
 public:
  /// The turns that are seen from a corner, in ascending order. The span is valid until the next
  /// look.
  const std::vector<std::uint32_t>& look(const NavigationMesh::Data& mesh, std::uint32_t corner,
                                         Hand side);

  /// The same from the end of a crossing.
  const std::vector<std::uint32_t>& look_beyond(const NavigationMesh::Data& mesh,
                                                const Crossing& crossing);

  /// How far the last look from a corner reached, metres, rounded up: nothing farther away was
  /// seen.
  float reach() const { return rounded_reach(reach2_); }

  /// Through how many gaps it has looked so far, in all looks together.
  std::size_t gaps_looked_through() const { return gaps_looked_through_; }

 private:
  void begin(const NavigationMesh::Data& mesh, const MeshPoint& root);
  const std::vector<std::uint32_t>& look_on();
  template <typename Visit>
  void look_through(const Gap& gap, Visit&& visit);
  void look_edge_by_edge();
  void open(std::uint32_t edge);
  void open_face(std::uint32_t first, std::uint32_t last);
  bool clip(Gap& gap) const;
  void reach_over(std::uint32_t number, bool with_dead_ends = true);
  bool is_outside(const MeshPoint& p) const;
  void take(std::uint32_t corner);
  void take_crossing(std::uint32_t crossing);
  void take_crossings(std::uint32_t face);

  const NavigationMesh::Data* mesh_ = nullptr;
  MeshPoint root_;
  FanSides sides_;
  std::vector<Gap> gaps_;
  std::vector<std::vector<Gap>> waiting_;  ///< By edge.
  std::vector<std::uint32_t> about_;       ///< Scratch.
  std::vector<std::uint32_t> seen_;
  double reach2_ = 0.0;  ///< Squared.
  bool sees_all_ = false;
  std::size_t gaps_looked_through_ = 0;
};

}  // namespace gaze
