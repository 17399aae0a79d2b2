#pragma once

#include <cstdint>
#include <limits>
#include <span>
#include <vector>

#include "navigation/bucket_queue.hpp"
#include "navigation/corner_fan.hpp"
#include "navigation/fan.hpp"
#include "navigation/mesh.hpp"
#include "navigation/standing.hpp"

namespace gaze {

/// A way in the plan, with a mark for each leg that is a crossing.
struct WayInPlan {
  struct Leg {
    std::uint32_t to_point = 0;  ///< It ends there, and begins at the point before.
    std::uint32_t crossing = 0;
  };
  std::vector<MeshPoint> points;
  std::vector<Leg> crossings;
};

/// Makes a way cheaper: where it crosses the rim of an area, the place of crossing is moved along
/// the rim to where the way costs least, between the turns before and after it.
void shift_crossings(const NavigationMesh::Data& mesh, WayInPlan& way);

/// A place in the plan, with the face that holds it.
struct PlaceInPlan {
  MeshPoint at;
  std::uint32_t face = kNone;
};

/// The search for the shortest ways in the plan from one place to others. It goes on from the most
/// promising place first (Hart, Nilsson and Raphael, 1968): from the start through the gaps that
/// are seen from there, and then from corner to corner of the turn graph. The rest of a way is at
/// least as long as the straight line to the box around all goals; if there is one goal, the box is
/// the goal itself.
class PathSearch {
 public:
  /// @param goals     At least one.
  /// @param shut      By patch of the mesh: nobody can go there now.
  /// @param standing  Legs that they bar are not taken.
  void find(const NavigationMesh::Data& mesh, const PlaceInPlan& from,
            std::span<const PlaceInPlan> goals, std::span<const char> shut,
            const Standing* standing = nullptr);

  std::size_t looked_at() const { return looked_at_; }

  /// True if the search has found a way to a goal.
  bool has_found(std::size_t goal) const;

  /// The way to a goal: the start, each turn, both ends of each crossing, and the goal. May be
  /// asked only if the search has found a way there.
  void trace(std::size_t goal, WayInPlan& way) const;

 private:
  struct Goal {
    MeshPoint at;
    std::uint32_t face = kNone;
    std::uint32_t last = kNone;  ///< The last turn before it, or none.
    double length = 0.0;         ///< Of the best way to it so far.
    bool is_done = false;        ///< No shorter one can come.
  };

  void begin(const NavigationMesh::Data& mesh, const PlaceInPlan& from,
             std::span<const PlaceInPlan> goals);
  void finish_goals();
  void note_longest();
  /// The best way to a turn that has been found so far. It is valid only where the stamp is that of
  /// the present search.
  struct Reached {
    double length = 0.0;
    std::uint32_t from = kNone;  ///< The turn before, or kNone: the start.
    std::uint32_t stamp : 31 = 0;
    std::uint32_t is_left : 1 = 0;  ///< The crossing or corner that it leads to has noted this way.
  };
  static constexpr std::uint32_t kGapBit = 0x80000000U;

  void open_start(std::uint32_t face);
  void look_into(std::uint32_t gap);
  void leave(std::uint32_t number);
  void leave_turn(std::uint32_t turn_number);
  void leave_crossing(std::uint32_t number);
  std::span<const std::uint32_t> seen_from(std::uint32_t turn_number);
  std::span<const std::uint32_t> seen_beyond(std::uint32_t crossing);
  void go_on(std::span<const std::uint32_t> seen, std::uint32_t from, const MeshPoint& at,
             double cost);
  void see_crossing(std::uint32_t crossing);
  void reach_goal(Goal& goal, double length, std::uint32_t from);
  double ahead(const MeshPoint& p) const;
  void add_gap(const Gap& gap);
  void see(std::uint32_t corner);
  void reach(std::uint32_t number, double length, std::uint32_t from);
  void reach_at(std::uint32_t number, const MeshPoint& at, double length, std::uint32_t from);
  void push(double at_least, std::uint32_t item);
  double at_least(const Gap& gap) const;
  double shortest_by(const Gap& gap) const;
  bool sees(std::uint32_t turn_number, const Goal& goal) const;

  const NavigationMesh::Data* mesh_ = nullptr;
  MeshPoint start_;
  std::vector<Goal> goals_;
  MeshPoint low_;  ///< Of the box around all goals.
  MeshPoint high_;
  bool is_shut(const Crossing& crossing) const {
    return shut_[mesh_->faces[crossing.to_face].patch] != 0;
  }

  bool is_barred(const MeshPoint& from, const MeshPoint& to, Standing::Ends ends) const {
    return standing_ != nullptr && standing_->bars(from, to, ends);
  }

  std::span<const char> shut_;
  const Standing* standing_ = nullptr;
  std::vector<Gap> gaps_;
  std::vector<std::uint32_t> about_;  ///< Scratch: the faces that hold the start.
  CornerFan fan_;                     ///< For corners that are not linked.
  BucketQueue queue_;  ///< Turns, and gaps with kGapBit set, by the least length of a way by them.
  std::vector<Reached> reached_;  ///< By turn.
  std::uint32_t stamp_ = 0;
  std::uint32_t turn_count_ = 0;
  double start_cost_ = 1.0;  ///< Of a metre at the start.
  double length_ = 0.0;      ///< Of the longest of the best ways so far; ways beyond do not matter.
  std::size_t looked_at_ = 0;
};

}  // namespace gaze
