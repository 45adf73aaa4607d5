// What a cell of a table says, by the type of its key; and back.
#pragma once

#include "armoury/cell_numbers.h"
#include "armoury/files.h"
#include "armoury/keys.h"
#include "diagnostic/diagnostic.h"

#include <optional>
#include <string>

namespace panoplon {

/// The value of a cell as its key wants it: a number however spreadsheets write it
/// (cell_numbers.h), a word in whatever case; nothing where the cell says that there is none
/// (`n/a`, `-`), or where a mistake says that it could be two numbers. What can't be read so stays
/// a text, which the check of types then refuses. `has_suffix`: the header names one of a table, as
/// `add.guard` does. `decimal_commas`: the table has numbers with them.
[[nodiscard]] Node cell_node(const RawTable::Cell& cell, const KeyRow& row, bool has_suffix,
                             bool decimal_commas, Sink& sink);

/// Whether cells of the type are lists, with semicolons between their parts.
[[nodiscard]] bool holds_list(Type type);

/// Whether cells of the type are numbers, or can be.
[[nodiscard]] bool holds_numbers(Type type, bool has_suffix);

/// A formula that is a number, or a text that is one, as one text: 2, 2.0 and "2.0" are "2".
void tidy_formula(Node& value);

/// The cell that reads back as this value; none where no cell does.
[[nodiscard]] std::optional<std::string> cell_text(const Node& value, const KeyRow& row,
                                                   bool has_suffix);

/// The cell as it stands in a file: quoted where it has to be (RFC 4180), and with a `'` before
/// what a spreadsheet would take for a formula: a text, other than a number, that begins with `=`,
/// `+`, `-` or `@`.
[[nodiscard]] std::string csv_cell(const std::string& text);

/// What a cell says: without the `'` that csv_cell() has put before it.
[[nodiscard]] std::string unguarded(const std::string& cell);

/// Equal in everything but places.
[[nodiscard]] bool same_value(const Node& a, const Node& b);

} // namespace panoplon
