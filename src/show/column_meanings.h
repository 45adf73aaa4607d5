// What columns of files mean, in a sentence: for whoever reads them on a page.
#pragma once

#include <string>
#include <string_view>

namespace panoplon {

/// Of a column by its key, in a table by its name; empty where the key says it all.
[[nodiscard]] std::string meaning_of_column(std::string_view table, std::string_view key);

} // namespace panoplon
