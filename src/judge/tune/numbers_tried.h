// The numbers that an item could be mended by, each tried by itself.
#pragma once

#include "judge/tune/tuning.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// The numbers that bear most on an item: its own by what they cost of a budget, those of the
/// effect that its use gives and of the steps of its set, its weight, what others in its slot have.
/// The words that find_number() takes.
[[nodiscard]] std::vector<std::string> numbers_of(const Armoury& armoury, ItemId item,
                                                  std::size_t most_own);

/// So many numbers of an item are tried, and of these so many modifiers of its own.
struct HowMany {
    std::size_t numbers, own;
    bool to_show; ///< the range of each is found, and every value of the smallest change searched
};
inline constexpr HowMany few_numbers = {4, 2, false}, every_number = {12, 8, true};

/// Of numbers_of() the first; none where numbers are not what judges the item.
struct NumbersTried {
    std::vector<Tuning> tried;
    /// The one whose change is the smallest against what it is, of those that make the item fair;
    /// none where it is fair, or none does.
    std::optional<std::size_t> smallest;
    /// Of a dominant item all its rivals, where each spends less than its budget by more than the
    /// tolerance: they may be what has to change.
    std::vector<ItemId> poor_rivals;
};

/// What something would be without the number that it is tuned by, where that is not its own but
/// of its set or of the effect that it gives; none where it was not looked at.
[[nodiscard]] std::optional<Verdict> verdict_without(const Tuning& tuning);

/// `present` is what `judge` said of the item as it stands. Progress counts numbers.
[[nodiscard]] NumbersTried try_numbers(const ReadArmoury& read, const WhatIfs& what_ifs,
                                       ItemJudge& judge, const JudgedItem& present,
                                       HowMany how_many, const Watch& watch = {});

} // namespace panoplon
