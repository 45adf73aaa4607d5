// A tuned number: the sentence, the table, what a change upsets, the figure.
#pragma once

#include "judge/tune/numbers_tried.h"
#include "judge/tune/tune_all.h"
#include "show/document.h"

namespace panoplon {

/// `upset`: the armoury as it stands against the change; none where that was not asked for.
/// `patch`: empty where none was. `at`: looked at in place of the proposal.
[[nodiscard]] Document show_tuning(const Armoury& armoury, const Tuning& tuning,
                                   const std::optional<double>& at,
                                   const std::optional<Comparison>& upset,
                                   const std::string& patch);

/// Every number that was tried, with its fair range; then the one whose change is the smallest, as
/// show_tuning() has it, where there is one. `present`: what
/// the item is as it stands.
[[nodiscard]] Document show_numbers(const Armoury& armoury, const ItemVerdict& present,
                                    const NumbersTried& numbers,
                                    const std::optional<Comparison>& upset,
                                    const std::string& patch);

/// The changes that make everything fair, one number each.
[[nodiscard]] Document show_tune_all(const Armoury& armoury, const TuneAll& all,
                                     const std::string& patch);

/// A value of the number as it is told: "3 %", "0.4".
[[nodiscard]] std::string value_words(const TunedNumber& number, double value);

/// What the number should be, in one sentence.
[[nodiscard]] std::string tuning_sentence(const Armoury& armoury, const Tuning& tuning);

/// Shortfall, grip and picks over the value, with the verdicts as a strip.
[[nodiscard]] Figure tuning_figure(const Armoury& armoury, const Tuning& tuning);

} // namespace panoplon
