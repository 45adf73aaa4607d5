// Mistakes and doubts, for people and for programs.
#pragma once

#include "armoury/read.h"
#include "show/document.h"

namespace panoplon {

/// Everything that `check` found. Mistakes and doubts stand in the text too.
[[nodiscard]] Document show_check(const ReadArmoury& read);
/// The mistakes alone, as every command prints them to standard error.
[[nodiscard]] std::string mistakes_text(const ReadArmoury& read);
/// A row for each: file, line, column, message, hint; of a doubt its kind and its thing too.
[[nodiscard]] Table diagnostics_table(const ReadArmoury& read, Severity severity);

} // namespace panoplon
