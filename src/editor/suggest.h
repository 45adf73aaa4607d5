// What could stand at a place of a file that is being written.
#pragma once

#include "editor/edited.h"

namespace panoplon {

struct Suggestion {
    enum class What { kind, key, thing, word, variable };
    What what = What::word;
    std::string label;   ///< what it is called
    std::string text;    ///< that is written: with quotes where it needs them
    std::string detail;  ///< a few words: a type, a name
    std::string meaning; ///< a sentence or two; may be empty
};

struct Suggestions {
    TextRange range; ///< of the word that is there, which a suggestion takes the place of
    std::vector<Suggestion> list;
};

/// Kinds in a header, keys that a definition does not have yet, ids and words where they are
/// wanted, names in formulas, headers of tables; empty where anything may stand. Found by writing a
/// letter there and seeing what it is.
[[nodiscard]] Suggestions suggestions_at(const Edited& edited, std::int32_t file,
                                         std::size_t place);

} // namespace panoplon
