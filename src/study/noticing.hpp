#pragma once

#include <optional>
#include <vector>

#include "gaze/level.hpp"

/// From how far one kind notices another by sight, on an open floor, straight ahead of it.
namespace gaze {

class Noticing {
 public:
  /// @param kind  Has sight.
  Noticing(const Level& level, const Kind& kind, const Kind& foe);

  /// Metres between the middles of both: how far somebody who stands still may be and is noticed
  /// sooner or later. Nothing: it never is.
  [[nodiscard]] std::optional<double> standing() const;

  /// Metres between the middles of both when somebody is noticed who comes straight up at full
  /// speed, until their bodies touch. Nothing: it never is, or it does not move.
  [[nodiscard]] std::optional<double> moving(double dimness) const;

 private:
  /// Metres between the middles.
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
