#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/event.hpp"
#include "gaze/figure.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// What a figure came to in a run.
struct FigureValue {
  std::optional<double> value;  ///< In the unit of the figure; nothing: none, it did not occur.
  std::vector<Event> events;  ///< Those that made it, in the order in which they came; of sums and
                              ///< counts all. Valid as long as the simulation or a copy of it.
  /// When a least or most was reached first, a start or an end was taken, or what there is a share
  /// of was so first.
  std::optional<std::int64_t> tick;
  std::optional<AgentId> by;  ///< Of whom that was,
  std::optional<AgentId> of;  ///< and to whom, or by whom.
};

/// Takes figures from a run. To be shown each of its ticks, from the first on that counts.
class Figures {
 public:
  /// Throws UsageError for a figure that `validate` would refuse.
  Figures(const Simulation& simulation, std::span<const Figure> figures);
  Figures(Figures&&) noexcept;
  Figures& operator=(Figures&&) noexcept;
  ~Figures();

  void add(const Simulation& simulation);

  /// In the order of the figures.
  [[nodiscard]] std::vector<FigureValue> values() const;

  struct Measures;

 private:
  std::unique_ptr<Measures> measures_;
};

/// The figure of a name, of the level's or its players'. Throws UsageError, with the nearest right
/// name, if there is none.
[[nodiscard]] Figure figure_called(const Level& level, const std::string& name);

/// "4.28 s", "none", "0.31". With `limits`, the number has as many digits as it takes to compare
/// with each of them as the value itself does: 24.9996 beside the limit 25 is not printed as "25".
[[nodiscard]] std::string figure_text(const Figure& figure, const std::optional<double>& value,
                                      std::span<const double> limits = {});

/// What a figure is, in a few words: "when pruner first notices collector".
[[nodiscard]] std::string describe(const Figure& figure);

}  // namespace gaze
GAZE_PUBLIC_END
