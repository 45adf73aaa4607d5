// Words that several outputs share.
#pragma once

#include "outfit/outfit.h"
#include "show/table.h"

#include <string>
#include <vector>

namespace panoplon {

[[nodiscard]] std::vector<std::string> ids_of(const Armoury& armoury,
                                              const std::vector<ItemId>& items);

/// What an outfit does, the first first, and what of it that it could do it leaves out; nothing
/// where that is what everybody does (M61).
[[nodiscard]] std::string actions_words(const Armoury& armoury, const Outfit& outfit);
/// The ids of what it does, the first first.
[[nodiscard]] std::vector<std::string> actions_done_ids(const Armoury& armoury,
                                                        const Outfit& outfit);

/// The id of what is named; nothing where nothing is.
template <class Kind>
[[nodiscard]] Cell id_cell(const Armoury& armoury, Id<Kind> id) {
    return id.given() ? Cell(armoury.at(id).id) : Cell();
}
/// The same, in the tier's colour.
[[nodiscard]] Cell tier_cell(const Armoury& armoury, TierId tier);

/// "+14", "-2 %", "× 0.95": how much a modifier of a kind (add, percent, times) changes.
[[nodiscard]] std::string change_words(Change change, double amount);

/// Levels of upgrades, by id.
[[nodiscard]] Json points_json(const Armoury& armoury, const Outfit& outfit);

} // namespace panoplon
