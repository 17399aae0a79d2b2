#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "agents/few.hpp"
#include "gaze/senses.hpp"

namespace gaze {

struct Everyone;

/// Who touches whom, and on which side. The side is the one on which they came to touch, for as
/// long as they go on touching. Each room that needs this keeps its own account.
class Touches {
 public:
  Touches() = default;

  /// On which of its sides one agent is touched by another, if it is touched.
  [[nodiscard]] std::optional<Side> side(const Everyone& all, std::uint32_t who,
                                         std::uint32_t other) const;
  /// The same, and it is remembered.
  std::optional<Side> note(const Everyone& all, std::uint32_t who, std::uint32_t other);
  /// Forgets those that no longer touch it.
  void forget_gone(const Everyone& all, std::uint32_t who);
  void resize(std::size_t agents) { touching_.resize(agents); }
  // Its memory is kept, for what comes back in the midst of a step.
  void reset(std::uint32_t who) {
    if (std::vector<Touching>* known = touching_[who]) known->clear();
  }

  struct Touching {
    std::uint32_t other = 0;
    Side side = Side::front;
  };

  /// For saves, and where agents go.
  Few<std::vector<Touching>>& all() { return touching_; }

 private:
  Few<std::vector<Touching>> touching_;  ///< Those that touch it.
};

}  // namespace gaze
