#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/tools/finding.hpp"
#include "gaze/tools/study.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// How one kind stands against another that it is for: what it notices, what it can do, and what
/// comes of it. All numbers but those of `played` follow from the values of both kinds
/// alone, exactly: on an open floor, without anything between them. Distances are between their
/// middles.
struct SheetRow {
  /// From how far it notices by sight; each is nothing if it never does.
  struct Notices {
    std::optional<double> standing;  ///< Who stands still, sooner or later.
    /// Who comes straight up to it at full speed, if it stands still and looks there.
    std::optional<double> moving;
    std::optional<double>
        in_dim_light;  ///< The same in the darkest zone of the level, if any dims.
  };
  /// How far it hears the other's steps.
  struct Hears {
    std::optional<double> walking;
    std::optional<double> quiet;
  };
  struct Reach {
    std::string attack;
    double metres = 0.0;  ///< From the middle of the one to the surface that it meets.
  };
  /// What came of it in a run of two minutes at most: the other stands still where it is reached.
  struct Played {
    double from = 0.0;               ///< Metres between their middles.
    std::optional<double> noticed;   ///< Seconds from the beginning; nothing: never.
    std::optional<double> defeated;  ///< Seconds from the first attack; nothing: never.
    double damage_rate = 0.0;        ///< Points a second, from the first attack to the last hurt.
  };

  std::string by;  ///< Names of kinds.
  std::string whom;
  Notices notices;
  Hears hears;
  std::optional<double> near;   ///< Its nearness sense, metres.
  std::optional<double> angle;  ///< Of its field of view, degrees.
  double stop = 0.0;            ///< How near it comes, metres: a chaser stops or keeps away there.
  bool foe_moves = false;       ///< False: `notices.moving` says nothing.
  std::vector<Reach> reaches;
  double speed = 0.0;  ///< Metres a second.
  /// Attacks one by one, what running away costs, and by how much the gap grows in a chase: below 0
  /// it catches up, above 0 it is outrun.
  PairFigures pair;
  Played played;
};

/// A row for each kind in play against each that it is hostile to, at most 2,000.
[[nodiscard]] std::vector<SheetRow> balance_sheet(const Level& level,
                                                  const StudyOptions& options = {});

}  // namespace gaze
GAZE_PUBLIC_END
