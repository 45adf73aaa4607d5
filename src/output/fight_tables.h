// Where the numbers of a fight come from: damage by action, type and source, restoration by
// source, the waste ledger (M91), what a player notices (M92).
#pragma once

#include "output/show_fight.h"

namespace panoplon {

/// Adds them to a document of many trials, as text, JSON and tables.
void show_fight_tables(const Armoury& armoury, const FightReport& report, Document& document);

/// The sentence that a fight comes to.
[[nodiscard]] std::string fight_sentence(const Armoury& armoury, const FightReport& report);

} // namespace panoplon
