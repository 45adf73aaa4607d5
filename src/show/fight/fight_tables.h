// Where the numbers of a fight come from: damage by action, type and source, restoration by
// source, the waste ledger (M91), what a player notices (M92).
#pragma once

#include "show/fight/show_fight.h"

namespace panoplon {

/// Adds them to a document of many trials, as text, JSON and tables.
void show_fight_tables(const Armoury& armoury, const FightAnswer& answer, Document& document);

/// The waste ledger (M91).
void show_waste(const Armoury& armoury, const FightAnswer& answer, Document& document);

/// What a kind of source is called in files.
[[nodiscard]] const char* kind_word(Origin::Kind kind);

/// What a source gave of a pool, in a mean trial.
struct GivenRow {
    Origin::Kind kind = Origin::Kind::regen;
    std::string source, pool;
    double restored = 0, wasted = 0;
    [[nodiscard]] double wasted_share() const { return wasted / (restored + wasted); }
};
[[nodiscard]] std::vector<GivenRow> given_rows(const Armoury& armoury, const FightAnswer& answer);

/// The sentence that a fight comes to.
[[nodiscard]] std::string fight_sentence(const Armoury& armoury, const FightAnswer& answer);

} // namespace panoplon
