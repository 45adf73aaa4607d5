// Changing what is worn and carried: nothing is lost on the way (M41a, M54).
#pragma once

#include "outfit/refusals.h"

#include <string>
#include <vector>

namespace panoplon {

/// What a change came to. Refused: the outfit is as it was. Done: `notes` say where things went.
struct ChangeOutcome {
    std::vector<Refusal> refused;
    std::vector<std::string> notes;
    std::int64_t left = 0; ///< units of a find that did not fit

    [[nodiscard]] bool done() const { return refused.empty(); }
};

/// Puts an item on: one from the pack where there is one, else a new one, with what it comes with.
/// What is in its way (its own slot's last place when none is free, what it takes besides, others
/// of its unique group) goes to the pack, with what it has in its sockets. Refused when that makes
/// anything impossible that was not so before.
[[nodiscard]] ChangeOutcome put_on(Deriver& deriver, Outfit& outfit, ItemId item, Drawn drawn = {});

/// Takes the last of an item off, into the pack; what its sockets hold too. Refused when the pack
/// has no room, also because the item gave that room itself.
[[nodiscard]] ChangeOutcome take_off(Deriver& deriver, Outfit& outfit, ItemId item);

/// Takes up to `count` units up: stacks that are begun are topped up first, then new ones (M54).
/// `left` is what did not fit into the bag, its own stacks, or under the limit of weight.
[[nodiscard]] ChangeOutcome take_up(Deriver& deriver, Outfit& outfit, ItemId item,
                                    std::int64_t count);

} // namespace panoplon
