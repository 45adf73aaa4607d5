// The table of doubts: what is legal but surely not meant. `allow` names these; a new doubt is a
// row here and a function in judge/doubts*.cpp.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

struct DoubtRow {
    std::string_view name;
    std::string_view meaning;
    std::string_view remedy;
};

[[nodiscard]] std::span<const DoubtRow> doubt_rows();
[[nodiscard]] const DoubtRow* find_doubt_row(std::string_view name);
[[nodiscard]] std::vector<std::string> doubt_names();

} // namespace panoplon
