#pragma once

#include "gaze/solid.hpp"
#include "values/key.hpp"

/// The tables of a level file, each in the file that lists its keys.
namespace gaze {

// keys_level.cpp
extern const KeyTable kLevelKeys;
extern const KeyTable kTeamKeys;
extern const KeyTable kMaterialKeys;
extern const KeyTable kZoneKeys;
extern const KeyTable kStartKeys;
extern const KeyTable kRoundKeys;
extern const KeyTable kBoundsKeys;

// keys_figure.cpp
extern const KeyTable kFigureKeys;
extern const KeyTable kPickKeys;
extern const KeyTable kExpectKeys;

// keys_solid.cpp
extern const KeyTable kWallKeys;
extern const KeyTable kBlockKeys;
extern const KeyTable kDoorKeys;
extern const KeyTable kFloorKeys;
extern const KeyTable kRampKeys;
extern const KeyTable kStairsKeys;
extern const KeyTable kMeshKeys;
extern const KeyTable kLinkKeys;

// keys_kind.cpp
extern const KeyTable kKindKeys;
extern const KeyTable
    kSideFactorKeys;  ///< Of its key `side_factors`; not a table of the reference.
extern const KeyTable kMoveKeys;
extern const KeyTable kWanderKeys;

// keys_sense.cpp
extern const KeyTable kSightKeys;
extern const KeyTable kScanKeys;
extern const KeyTable kHeadKeys;
extern const KeyTable kHearingKeys;
extern const KeyTable kFeelerKeys;
extern const KeyTable kNearnessKeys;
extern const KeyTable kTouchKeys;
extern const KeyTable kHurtKeys;
extern const KeyTable kTellKeys;
extern const KeyTable kChooseKeys;

// keys_harm.cpp
extern const KeyTable kAttackKeys;
extern const KeyTable kThingKeys;
extern const KeyTable kDefeatKeys;

// keys_mind.cpp
extern const KeyTable kWhenKeys;
extern const KeyTable kReactionKeys;

// keys_agent.cpp
extern const KeyTable kAgentKeys;
extern const KeyTable kStopKeys;
extern const KeyTable kStepKeys;
extern const KeyTable kTrackKeys;  ///< Of its key `track`; not a table of the reference.

/// All of them, in the order of the reference.
[[nodiscard]] std::span<const KeyTable* const> all_key_tables();

/// The table that stands in a level under a name: "kind", "wall", "round"; nullptr if there is
/// none.
[[nodiscard]] const KeyTable* table_of_level(std::string_view name);
/// The table that stands in a kind under a name: "sight", "attack"; nullptr if there is none.
[[nodiscard]] const KeyTable* table_of_kind(std::string_view name);
/// The table of the solids of a form.
[[nodiscard]] const KeyTable& table_of(Solid::Form form);

}  // namespace gaze
