#pragma once

#include <span>
#include <vector>

#include "gaze/geometry.hpp"

namespace gaze {

/// Seconds. Velocities are chosen so that nobody is touched for so long.
constexpr double kKeepApartHorizon = 0.4;

/// Another body near one that moves.
struct Neighbour {
  Vector2d offset{0.0, 0.0};    ///< From the one to the other, metres.
  Vector2d velocity{0.0, 0.0};  ///< Metres a second.
  double gap = 0.0;             ///< The sum of both radii, metres.
  double share = 0.5;  ///< Of the giving way that falls to the one: 1 if the other does not.
};

struct Pace {
  Vector2d wanted{0.0, 0.0};    ///< Velocity, metres a second.
  Vector2d velocity{0.0, 0.0};  ///< That of the last step.
  double most = 0.0;            ///< Speed, metres a second.
};

/// The velocity that is nearest to the wanted one and touches no neighbour for a while, provided
/// that the neighbours do their share. If there is none, it is the velocity that comes least near.
/// Each neighbour allows a half plane of velocities (van den Berg, Guy, Lin and Manocha,
/// "Reciprocal n-body collision avoidance", 2011).
class KeepApart {
 public:
  KeepApart() {
    lines_.reserve(kUsualLines);
    all_.reserve(kUsualLines);
  }

  /// @param seconds  Of one step, above 0.
  Vector2d choose(const Pace& pace, std::span<const Neighbour> neighbours, double seconds);

 private:
  /// Velocities to the left of a line are allowed.
  struct Line {
    Vector2d point{0.0, 0.0};
    Vector2d along{1.0, 0.0};
  };

  static Line line_for(const Pace& pace, const Neighbour& neighbour, double seconds);
  bool along_line(std::size_t number, const Vector2d& wanted, double most, bool only_direction,
                  Vector2d& result) const;
  std::size_t best(const Vector2d& wanted, double most, bool only_direction,
                   Vector2d& result) const;
  void least_bad(std::size_t first_bad, double most, Vector2d& result);

  static constexpr std::size_t kUsualLines = 32;
  std::vector<Line> lines_;
  std::vector<Line> all_;  ///< Scratch.
};

}  // namespace gaze
