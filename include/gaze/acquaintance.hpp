#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/change.hpp"
#include "gaze/feeling.hpp"
#include "gaze/hearing.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

/// What one agent of a simulation knows of another by all its senses, as values.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// One feeler's answer now.
struct FeelerAnswer {
  std::string name;
  Feeler::Finds finds = Feeler::Finds::hostile;
  double length = 0.0;
  Felt felt;              ///< `body` counts agents.
  bool is_yes = false;    ///< It finds what it looks for.
  bool is_other = false;  ///< What it meets first is the agent in question.
};

struct NearnessAnswer {
  double value = 0.0;  ///< Metres along its axes.
  double limit = 0.0;
  bool pass = false;
};

/// The last noise that the other made, as the listener would hear it where it stands now.
struct NoiseAnswer {
  std::string name;
  double reach = 0.0;  ///< In the open, to an acuity of 1.
  HearingVerdict verdict;
};

/// A contact with a target that repeatedly crosses the limit of a sense. The contact ends some time
/// after the last perception, not at every crossing.
struct HeldContact {
  double unperceived = 0.0;  ///< Seconds since the last perception; 0: perceived now.
  double limit = 0.0;        ///< Seconds after which the contact ends, 0.5 to 8.
};

struct Acquaintance {
  Awareness awareness = Awareness::unaware;
  std::optional<Sense> by;              ///< Once it noticed: the sense that leads, or led.
  std::optional<HeldContact> held;      ///< Only of noticed targets.
  std::optional<Vector3d> last_place;   ///< Of the other's feet.
  Vector3d last_motion{0.0, 0.0, 0.0};  ///< Metres a second, when last perceived.
  std::vector<FeelerAnswer> feelers;
  std::optional<NearnessAnswer> nearness;
  bool has_touch = false;
  std::optional<Side> touched;       ///< On which of its sides the other touches it.
  std::optional<NoiseAnswer> noise;  ///< If it has hearing and the other made one.
};

/// Throws UsageError for ids that do not exist.
[[nodiscard]] Acquaintance acquaintance(const Simulation& simulation, AgentId agent, AgentId other);

/// What the feelers of an agent say now, in the order of its kind. Throws UsageError for an unknown
/// id.
[[nodiscard]] std::vector<FeelerAnswer> feelers(const Simulation& simulation, AgentId agent);

/// What would turn whether one sees another now. Nothing if it has no sight, or does not look for
/// it at all. Throws UsageError for an unknown id.
[[nodiscard]] std::optional<Remedy> remedy(const Simulation& simulation, AgentId agent,
                                           AgentId other);

/// One line for a feeler: what it meets and whether that is what it looks for.
[[nodiscard]] std::string explain(const FeelerAnswer& answer, const Simulation& simulation);

}  // namespace gaze
GAZE_PUBLIC_END
