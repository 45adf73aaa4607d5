// An armoury as it stands in an editor, and what the words of its files name.
#pragma once

#include "armoury/names.h"
#include "armoury/read.h"
#include "editor/marks.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// A definition, by its kind and id.
struct Thing {
    std::string kind, id;
    auto operator<=>(const Thing&) const = default;
};

struct Edited {
    ReadArmoury read;
    TableNames headers;
    Names ids; ///< of every file, those of a file with a mistake too
};

/// Reads an armoury: the files of the folder, and in their place what is open and not saved. A
/// Failure (Cause::file) when the folder can't be read.
[[nodiscard]] Result<Edited> read_edited(const std::string& folder, const OpenTexts& open);
/// The same of texts that are there.
[[nodiscard]] Edited edited_of(Sources sources, Sink sink);

[[nodiscard]] std::vector<Mark> marks_of(const Edited& edited, std::int32_t file);
/// The word of a file that a place, in bytes, is in, or at an end of.
[[nodiscard]] std::optional<Mark> mark_at(const Edited& edited, std::int32_t file,
                                          std::size_t place);

/// The row of the key that a mark is, or whose value it is; null where there is none.
[[nodiscard]] const KeyRow* row_of(const Mark& mark);
/// The kind of thing that a word in this place names; empty where it names none. A formula names
/// several (things_in()).
[[nodiscard]] std::string kind_named(const Mark& mark);
/// Whether it is the text of a formula, or could be.
[[nodiscard]] bool holds_formula(const Mark& mark);

/// Where a thing is named.
struct Mention {
    Thing thing;
    TextRange range;
    bool defines = false; ///< its definition begins here
    bool by_name = false; ///< by its name, not its id
};

/// What a word names: things of the armoury that are there.
[[nodiscard]] std::vector<Mention> mentions_in(const Edited& edited, const Mark& mark);
/// What is named at a place; none where nothing is.
[[nodiscard]] std::optional<Mention> mention_at(const Edited& edited, std::int32_t file,
                                                std::size_t place);
/// Wherever a thing is named, by file and place; where it is defined once more as it goes on
/// (`[item.reed_coat.use]`), too.
[[nodiscard]] std::vector<Mention> mentions_of(const Edited& edited, const Thing& thing);
/// Where its definition begins; none where it has none that could be read.
[[nodiscard]] std::optional<TextRange> definition_of(const Edited& edited, const Thing& thing);

} // namespace panoplon
