// Keys of TOML with more parts than anything in an armoury has.
#pragma once

#include <optional>
#include <string_view>

namespace panoplon {

/// The byte at which a dotted key passes `deepest_key` parts; none where none does. Found in the
/// text, before a parser makes a table of every part, one in the other. A text that is no TOML may
/// be read wrongly from its first fault on, which the parser does not come past.
[[nodiscard]] std::optional<std::size_t> find_deep_key(std::string_view toml);

} // namespace panoplon
