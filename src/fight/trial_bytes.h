// Sums over trials as bytes, for other ranks: what each is made up of.
#pragma once

#include "base/bytes.h"
#include "fight/paired.h"
#include "fight/trials.h"

namespace panoplon {

template <class Archive>
void serialize(Archive& archive, FightError& error) {
    archive(error.message, error.span);
}

template <class Archive>
void serialize(Archive& archive, Margin& margin) {
    archive(margin.value, margin.reach, margin.error);
}

template <class Archive>
void serialize(Archive& archive, Ledger& ledger) {
    archive(ledger.shape, ledger.events, ledger.overkill, ledger.dealt, ledger.taken,
            ledger.dealt_by_effect, ledger.taken_by_effect, ledger.dealt_by_action,
            ledger.taken_by_action, ledger.restored, ledger.wasted, ledger.given, ledger.uses,
            ledger.actions, ledger.foe_actions, ledger.effects);
}

template <class Archive>
void serialize(Archive& archive, TrialsSummary& summary) {
    archive(summary.trials, summary.partial, summary.won, summary.timed_out, summary.time,
            summary.dealt, summary.taken, summary.overkill, summary.events, summary.health_left,
            summary.foes_left, summary.times_won, summary.times_lost, summary.dealt_by_type,
            summary.taken_by_type, summary.restored, summary.wasted, summary.uptime, summary.sums,
            summary.error);
}

template <class Archive>
void serialize(Archive& archive, PairedTrials& pair) {
    archive(pair.first, pair.second, pair.differences, pair.first_margins, pair.second_margins,
            pair.bounded, pair.partial);
}

} // namespace panoplon
