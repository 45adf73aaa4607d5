#include "show/armoury/cookbook.h"

#include "base/text.h"

#include <algorithm>

namespace panoplon {

namespace {

std::string in_lower_case(std::string_view text) {
    std::string lower(text);
    std::transform(lower.begin(), lower.end(), lower.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c + 32) : c; });
    return lower;
}

} // namespace

bool Recipe::is_called(std::string_view word) const {
    const std::string wanted = in_lower_case(word);
    return title == wanted || std::find(synonyms.begin(), synonyms.end(), wanted) != synonyms.end();
}

std::vector<Recipe> recipes_of(std::string_view page) {
    constexpr std::string_view heading = "## ", also = "Also: ", fence = "```";
    std::vector<Recipe> list;
    bool in_example = false;
    for (const std::string& line : split(page, '\n')) {
        if (!in_example && line.starts_with(heading)) {
            list.push_back({in_lower_case(line.substr(heading.size())), {}, {}, {}});
            continue;
        }
        if (list.empty()) continue;
        Recipe& recipe = list.back();
        if (line.starts_with(fence)) {
            in_example = !in_example;
        } else if (in_example) {
            recipe.example += line + "\n";
        } else if (line.starts_with(also)) {
            for (const std::string& word : split(line.substr(also.size()), ','))
                recipe.synonyms.push_back(in_lower_case(trim(word)));
        } else if (!line.empty() || !recipe.text.empty()) {
            recipe.text += line + "\n";
        }
    }
    for (Recipe& recipe : list) recipe.text = std::string(trim(recipe.text));
    return list;
}

} // namespace panoplon
