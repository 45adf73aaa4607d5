// Where the table is in a sheet as people keep it: which row holds the headers, which kind of thing
// the rows are, and which column tells them apart.
#pragma once

#include "armoury/files.h"

#include <optional>
#include <string>
#include <string_view>

namespace panoplon {

/// What a sheet's name says of its rows: `items.csv`, or a sheet `Items`, holds items. None where
/// it is no kind that has tables.
[[nodiscard]] std::optional<std::string> kind_of_name(std::string_view name);

/// What names the things in a file: its own name without folders and ending; of a sheet the
/// sheet's, or that of its workbook where the sheet's is no kind.
[[nodiscard]] std::string_view table_name(std::string_view path);

/// A header or a word of a cell, however it is written: ` Max Health ` is `max_health`.
[[nodiscard]] std::string plain_word(std::string_view text);

/// The id that a name gives: `Fool's cap` is `fools_cap`, `Épée` is `epee`. None where no letter or
/// digit of it can stand in an id.
[[nodiscard]] std::optional<std::string> id_from_name(std::string_view name);

/// Whether a row could be the headers of a table: it begins with a kind or, where the sheet's name
/// is one, has a column `id` or `name`.
[[nodiscard]] bool has_headers(const std::vector<std::string>& row, std::string_view name);

/// The table among the rows of a sheet. Empty rows are left out, what stands above the headers, and
/// rows and columns that begin with `#`. Where no column holds ids they are made from names, and
/// that is noted. A mistake, and none, where no row could hold the headers.
[[nodiscard]] std::optional<RawTable> lay_out_table(std::vector<std::vector<RawTable::Cell>> rows,
                                                    std::string_view name, Sink& sink);

} // namespace panoplon
