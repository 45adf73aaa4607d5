// One number each for all that is dominant, useless or a burden, so that an audit finds none any
// more.
#pragma once

#include "base/stages.h"
#include "judge/tune/tuning.h"

#include <string>
#include <vector>

namespace panoplon {

struct TunedItem {
    ItemId item;
    Verdict before = Verdict::sound;
    TunedNumber number;
    double then = 0;                ///< what it is changed to
    Verdict after = Verdict::sound; ///< by the last audit
    std::string sentence;           ///< why this number and this value
};

struct TuneAll {
    std::vector<TunedItem> changes; ///< in the order in which they were found
    /// What no number that was tried makes fair, and which were tried.
    struct Unsolved {
        ItemId item;
        Verdict verdict;
        std::vector<std::string> tried;
    };
    std::vector<Unsolved> unsolved;
    AuditResult before, after; ///< whole audits, as it stands and with all changes
    int rounds = 0;            ///< of changes
    bool partial = false;
    /// Each change was left out in turn: without it something would be unfair again.
    bool irreducible = false;

    /// What is still dominant, useless or a burden.
    [[nodiscard]] std::vector<ItemVerdict> left() const;
    [[nodiscard]] std::vector<NumberChange> numbers() const;
};

/// Whether a verdict asks for another number.
[[nodiscard]] bool is_unfair(Verdict verdict);

/// For each unfair item the change of one number that is the smallest against what it is, of those
/// that make it fair; changes without which nothing is unfair either are taken back; then an audit
/// of all changes together, and the same again for what that finds. Between audits all is judged
/// from the outfits that the last one found.
[[nodiscard]] TuneAll tune_all(const WhatIfs& what_ifs, const ContextScope& scope, Memory& memory,
                               Stages& stages);

} // namespace panoplon
