// Numbers as people and spreadsheets write them in cells: `+3`, `2,5`, `1.200,50`, `5 %`.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>

namespace panoplon {

/// What a cell says of a number.
struct CellNumber {
    std::optional<double> value;
    bool percentage = false; ///< it has a `%`; the value is what stands before it
    /// What it could be as well as `value`, where a sign may separate decimals or thousands.
    std::optional<double> other;
};

/// `decimal_commas`: the table has numbers with them, so that a point before three digits may
/// separate thousands.
[[nodiscard]] CellNumber number_of_cell(std::string_view text, bool decimal_commas);

/// A number whose comma separates decimals for certain: `2,5`, `0,125`, not `1,200`.
[[nodiscard]] bool is_decimal_comma(std::string_view text);

/// A decimal as the program itself writes it.
[[nodiscard]] std::optional<double> plain_number(std::string_view text);

} // namespace panoplon
