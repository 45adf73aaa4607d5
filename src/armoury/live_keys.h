// Which keys of a definition count, and which are there to no effect.
#pragma once

#include "armoury/node.h"
#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

struct KeyState {
    std::string path;    ///< as `use.cooldown`, `trigger.2.on`
    std::string value;   ///< as text, for a person
    std::string pattern; ///< it comes from, or empty
    std::string ignored; ///< why it does nothing here; empty: it counts
    Span span;
};

/// Every key that a checked definition has, in its order.
[[nodiscard]] std::vector<KeyState> key_states(const Armoury& armoury,
                                               const RawDefinition& definition);

} // namespace panoplon
