// What a word of a file is, for whoever points at it.
#pragma once

#include "editor/edited.h"
#include "judge/paper/paper.h"
#include "show/armoury/handbook.h"

#include <map>
#include <string>

namespace panoplon {

/// What an audit said of an item.
struct ToldVerdict {
    std::string verdict; ///< its name
    std::string sentence;
    std::uint64_t content = 0; ///< of the item then (content_of())
};

/// What the last whole audit of an armoury said.
struct ToldAudit {
    std::string time;                         ///< as people write it; empty: there was none
    std::map<std::string, ToldVerdict> items; ///< by id
};

/// An armoury without a mistake, as it was when it last had none: what cards are made from.
struct SoundArmoury {
    ReadArmoury read;
    std::vector<PaperVerdict> paper;     ///< compare_on_paper()
    std::vector<std::uint64_t> contents; ///< by item (content_of())
};

/// In Markdown: of an item its card in five lines, the last of them its last verdict; of another
/// thing what it is and does; of a key or a kind what it means; of a word of `allow` or `accept`
/// that doubt or verdict. Empty where there is nothing to tell. `sound` may be null.
[[nodiscard]] std::string hover_text(const Edited& edited, const SoundArmoury* sound,
                                     const ToldAudit& told, const Handbook& handbook,
                                     std::int32_t file, std::size_t place);

} // namespace panoplon
