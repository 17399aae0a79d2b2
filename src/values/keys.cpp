#include "values/keys.hpp"

#include <array>

namespace gaze {
namespace {

constexpr std::string_view kOfKinds = "kind.NAME.";

}  // namespace

std::span<const KeyTable* const> all_key_tables() {
  static const std::array kAll{
      &kLevelKeys,  &kTeamKeys,  &kMaterialKeys, &kWallKeys,    &kBlockKeys,    &kDoorKeys,
      &kFloorKeys,  &kRampKeys,  &kStairsKeys,   &kMeshKeys,    &kLinkKeys,     &kKindKeys,
      &kSightKeys,  &kScanKeys,  &kHeadKeys,     &kHearingKeys, &kFeelerKeys,   &kNearnessKeys,
      &kTouchKeys,  &kHurtKeys,  &kTellKeys,     &kChooseKeys,  &kMoveKeys,     &kWanderKeys,
      &kAttackKeys, &kThingKeys, &kDefeatKeys,   &kWhenKeys,    &kReactionKeys, &kAgentKeys,
      &kStopKeys,   &kStepKeys,  &kZoneKeys,     &kStartKeys,   &kRoundKeys,    &kBoundsKeys,
      &kFigureKeys, &kPickKeys,  &kExpectKeys};
  return kAll;
}

const KeyTable* table_of_level(std::string_view name) {
  for (const KeyTable* table : all_key_tables()) {
    const std::string_view own = table->name;
    if (own == name && (table->title.starts_with("["))) return table;
    if (own.ends_with(".NAME") && own.substr(0, own.find('.')) == name) return table;
  }
  return nullptr;
}

const KeyTable& table_of(Solid::Form form) {
  static constexpr std::array kTables{&kWallKeys,   &kBlockKeys, &kFloorKeys, &kRampKeys,
                                      &kStairsKeys, &kDoorKeys,  &kMeshKeys};
  return *kTables[static_cast<std::size_t>(form)];
}

const KeyTable* table_of_kind(std::string_view name) {
  for (const KeyTable* table : all_key_tables()) {
    if (!table->name.starts_with(kOfKinds)) continue;
    const std::string_view own = table->name.substr(kOfKinds.size());
    if (own.substr(0, own.find('.')) == name) return table;
  }
  return nullptr;
}

}  // namespace gaze
