// The builders of single kinds; used by build.cpp only.
#pragma once

#include "armoury/record.h"

namespace panoplon {

// What formulas may see, by where they stand.
[[nodiscard]] Scope stats_only(const Building& building); ///< own stats and the level
[[nodiscard]] Scope self_only(const Building& building);  ///< and own pools, and the clock
[[nodiscard]] Scope level_only();

/// What every bearer has.
void build_bearer(const Record& record, Bearer& bearer);
[[nodiscard]] Only build_only(const Record& record);
[[nodiscard]] std::vector<PackedItem> build_counts(const Record& record, std::string_view key);

// build_gear.cpp
void build_tier(const Record& record, Tier& tier);
void build_slot(const Record& record, Slot& slot);
void build_set(const Record& record, ItemSet& set);
void build_affix(const Record& record, Affix& affix);
void build_pattern(const Record& record, Pattern& pattern);
void build_item(const Record& record, Item& item);
void build_effect(const Record& record, Effect& effect);
void build_upgrade(const Record& record, Upgrade& upgrade);

// build_fighters.cpp
void build_action(const Record& record, Action& action);
void build_character(const Record& record, Character& character);
void build_foe(const Record& record, Foe& foe);
void build_loadout(const Record& record, Loadout& loadout);
void build_encounter(const Record& record, Encounter& encounter);
void build_drops(const Record& record, Drops& drops);
void build_journey(const Record& record, Journey& journey);

} // namespace panoplon
