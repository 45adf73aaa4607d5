// A tuned number: the sentence, the table, what a change upsets, the figure.
#pragma once

#include "judge/tune/tune_all.h"
#include "show/document.h"

namespace panoplon {

/// `upset`: the armoury as it stands against the change; none where that was not asked for.
/// `patch`: empty where none was. `at`: looked at in place of the proposal.
[[nodiscard]] Document show_tuning(const Armoury& armoury, const Tuning& tuning,
                                   const std::optional<double>& at,
                                   const std::optional<Comparison>& upset,
                                   const std::string& patch);

/// The changes that make everything fair, one number each.
[[nodiscard]] Document show_tune_all(const Armoury& armoury, const TuneAll& all,
                                     const std::string& patch);

/// What the number should be, in one sentence.
[[nodiscard]] std::string tuning_sentence(const Armoury& armoury, const Tuning& tuning);

/// Shortfall, grip and picks over the value, with the verdicts as a strip.
[[nodiscard]] Figure tuning_figure(const Armoury& armoury, const Tuning& tuning);

} // namespace panoplon
