// The one number that is tuned for an item: which key it is, what it is now, and what else it may
// be.
#pragma once

#include "armoury/patch.h"
#include "armoury/read.h"
#include "base/result.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

struct TunedNumber {
    ItemId item; ///< that is judged
    std::string
        kind;        ///< of the definition that has the number: `item`, or another that bears on it
    std::string id;  ///< likewise; empty for a kind of which there is one
    std::string key; ///< within that, as `add.guard` or `use.cooldown`
    std::string unit; ///< as the table of keys has it; may be empty
    double now = 0;   ///< what counts now: its own, its pattern's, or what an absent key means
    bool given = false;
    bool whole = false;         ///< only whole numbers are allowed
    double least = 0, most = 0; ///< allowed

    /// The key with what has it, where that is not the item: `effect.stormy.percent.attack`.
    [[nodiscard]] std::string name() const;
    /// The what-if that gives it a value.
    [[nodiscard]] std::string what_if(double value) const;
    [[nodiscard]] NumberChange change(double value) const { return {kind, id, key, value}; }
};

/// `word` is a stat's id, a key of items with a number, or a whole path to the number of another
/// definition (`set.choir.step.1.percent.attack`). A stat stands for the one modifier of it that
/// the item has, for `add` where it has none; where it has several, the word is refused.
[[nodiscard]] Result<TunedNumber> find_number(const ReadArmoury& read, ItemId item,
                                              const std::string& word);

/// Values from nothing to absurd, by rising value, the present one among them.
[[nodiscard]] std::vector<double> values_to_try(const Armoury& armoury, const TunedNumber& number);
/// How finely a value is worth telling: the stat's own step of what is added to it; 1 for whole
/// numbers, else 1, 2 or 5 times a power of ten, at most a hundredth of its size.
[[nodiscard]] double resolution(const Armoury& armoury, const TunedNumber& number);
/// The stat's own step, of a number that is added to it.
[[nodiscard]] std::optional<double> step_of_stat(const Armoury& armoury, const TunedNumber& number);
/// Whether every item that has this modifier has a whole number of it; two at least.
[[nodiscard]] bool is_whole_everywhere(const Armoury& armoury, const TunedNumber& number);
/// The nearest multiple of a step, as it is written shortly.
[[nodiscard]] double on_grid(double value, double step);

} // namespace panoplon
