#pragma once

#include <algorithm>
#include <vector>

#include "gaze/path.hpp"
#include "navigation/path_search.hpp"

namespace gaze {

/// The faces over which one leg of a way leads.
struct Walked {
  struct Step {
    std::uint32_t face = 0;
    std::uint32_t through = kNone;  ///< The edge by which it was entered.
  };
  std::vector<Step> steps;

  void begin(std::size_t faces) {
    steps.clear();
    if (entered_.size() < faces) entered_.resize(faces);
    if (++leg_ == 0) {
      std::fill(entered_.begin(), entered_.end(), 0U);
      leg_ = 1;
    }
  }
  void enter(std::uint32_t face, std::uint32_t through) {
    entered_[face] = leg_;
    steps.push_back({face, through});
  }
  bool has_entered(std::uint32_t face) const { return entered_[face] == leg_; }

 private:
  std::vector<std::uint32_t> entered_;  ///< By face: the last leg that did so.
  std::uint32_t leg_ = 0;
};

/// Adds a point to a path, unless the path ends there already.
void add_point(std::vector<Vector3d>& points, const Vector3d& p);

/// Gives the points of a way in the plan their heights: those of the surfaces over which it leads,
/// beginning in a face.
void lift_way(const NavigationMesh::Data& mesh, std::uint32_t face, Walked& walked, Path& path,
              const WayInPlan& way);

}  // namespace gaze
