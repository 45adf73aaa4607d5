// The bytes of a table as UTF-8 text, whatever a spreadsheet saved them as.
#pragma once

#include <cstddef>
#include <optional>
#include <string>

namespace panoplon {

struct DecodedText {
    std::string text;                    ///< UTF-8, without a byte-order mark
    std::string was;                     ///< "UTF-16" or "Windows-1252"; empty: UTF-8
    std::optional<std::size_t> bad_byte; ///< that no encoding explains; then there is no text
};

/// By its byte-order mark; else UTF-8 where it is well-formed; else UTF-16 where every other byte
/// of its beginning is 0; else Windows-1252, unless other bytes show that it was meant as UTF-8.
[[nodiscard]] DecodedText decode_table(const std::string& bytes);

} // namespace panoplon
