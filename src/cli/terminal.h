// What a terminal can show: its width, and colours.
#pragma once

#include "cli/command.h"

#include <string>

namespace panoplon {

/// Whether standard output is to have colours: --colour, or on a terminal without NO_COLOR. A usage
/// failure for another word.
[[nodiscard]] Result<bool> wants_colour(const Invocation& invocation);

/// Columns of the terminal on standard output: COLUMNS, or what the terminal says; 0 for none,
/// where lines may be of any length.
[[nodiscard]] std::size_t terminal_width();

/// Verdicts that ask for a hand, refusals and doubts stand out; the words are the same.
[[nodiscard]] std::string coloured(const std::string& text);

} // namespace panoplon
