// docs/cookbook.md taken apart: what designers say, and how an armoury says it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

struct Recipe {
    std::string title;                 ///< in lower case, as it is asked for
    std::vector<std::string> synonyms; ///< what else it is called
    std::string text;                  ///< what stands below its heading
    std::string example;               ///< the lines of TOML; empty where it can't be said

    [[nodiscard]] bool is_called(std::string_view word) const;
};

/// Every `## Heading` with a line `Also: …` of synonyms, or none, and at most one example between
/// fences.
[[nodiscard]] std::vector<Recipe> recipes_of(std::string_view page);

} // namespace panoplon
