#pragma once

#include <optional>
#include <vector>

#include "gaze/level.hpp"

/// Distances at which one kind notices another by sight, straight ahead on an open floor.
namespace gaze {

class Noticing {
 public:
  /// @param kind  Has sight.
  Noticing(const Level& level, const Kind& kind, const Kind& foe);

  /// Largest distance between both centres, metres, at which a target that stands still is noticed.
  /// Nothing if it is never noticed.
  [[nodiscard]] std::optional<double> standing() const;

  /// Metres between the middles of both when somebody is noticed who comes straight up at full
  /// speed, until their bodies touch. Nothing: it never is, or it does not move.
  [[nodiscard]] std::optional<double> moving(double dimness) const;

 private:
  /// Distances between the centres, metres.
  struct Stretch {
    double near = 0.0;
    double far = 0.0;
  };

  void find_stretches(const Level& level);
  [[nodiscard]] double area_of_share(double distance) const;
  [[nodiscard]] double distance_of(double area) const;
  [[nodiscard]] double contact() const;

  const Kind& kind_;
  const Kind& foe_;
  double surface_ = 0.0;            ///< Between the two measures, metres.
  bool stops_ = false;              ///< Whether their bodies stop each other.
  std::vector<Stretch> stretches_;  ///< Where it is in the field of view, the farthest first.
};

}  // namespace gaze
