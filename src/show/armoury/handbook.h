// What there is to explain without an armoury: keys, kinds, doubts, verdicts, rules, words,
// commands. Each comes from the one table or page that says it.
#pragma once

#include "armoury/keys.h"
#include "armoury/read.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// A command, as far as explaining goes.
struct CommandSummary {
    std::string name, summary, example;
};

struct Handbook {
    std::string_view words;                   ///< docs/words.md
    std::string_view rules;                   ///< docs/model.md
    std::string_view cookbook;                ///< docs/cookbook.md
    std::vector<const ReadArmoury*> examples; ///< armouries that use every key: the demo's
    std::vector<CommandSummary> commands;
};

/// One explanation; a word may have several.
struct Explanation {
    std::string
        what; ///< "key of item", "doubt", "rule", "word", "command", "kind", "verdict", "cookbook"
    std::string title;                                      ///< `use.cooldown`, `M51`
    std::vector<std::pair<std::string, std::string>> lines; ///< label and text
};

/// What a key is, what it may be and what it is when it is left out.
[[nodiscard]] Explanation explain_key(const Handbook& handbook, const KeyRow& row);
/// Everything that a word, a key (its path, with or without its kind), or a rule's number names.
[[nodiscard]] std::vector<Explanation> explain(const Handbook& handbook, const std::string& word);
/// All that can be explained, by what it is: for the overview and for "did you mean".
[[nodiscard]] std::vector<std::pair<std::string, std::vector<std::string>>>
explainable(const Handbook& handbook);

} // namespace panoplon
