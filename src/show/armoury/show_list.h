// What there is in an armoury: any kind, sorted and filtered; items as a grid with its holes.
#pragma once

#include "armoury/read.h"
#include "show/document.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

struct ListOptions {
    TierId tier; ///< of items: only this one
    SlotId slot; ///< only what takes a place of it
    LevelRange levels{1, 1000};
    std::string tag;  ///< empty: any
    std::string sort; ///< one of sort_keys(), or the id of a stat; empty: as in the files
};

/// What items can be sorted by, besides stats.
[[nodiscard]] std::vector<std::string> sort_keys();

/// Every kind with how many there are.
[[nodiscard]] Document show_kinds(const ReadArmoury& read);
[[nodiscard]] Document show_items(const ReadArmoury& read, const ListOptions& options);
/// Any other kind, by its name in the table of kinds.
/// A kind of which there is one: its keys and what they say.
[[nodiscard]] Document show_single(const ReadArmoury& read, const std::string& kind);
[[nodiscard]] Document show_definitions(const ReadArmoury& read, const std::string& kind);

} // namespace panoplon
