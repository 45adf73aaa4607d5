// What of an outfit can't be worn or carried, with every reason (M40-M42, M52, M53).
#pragma once

#include "outfit/outfit.h"

#include <string>
#include <vector>

namespace panoplon {

/// What is refused and every reason why (M42).
struct Refusal {
    std::string thing; ///< id of an item, or `pack`, `load`, `upgrade.ID`, `stat.ID`
    std::vector<std::string> reasons;
};

/// In the order in which things first come up; empty: the outfit can be worn.
[[nodiscard]] std::vector<Refusal> refusals(Deriver& deriver, const Outfit& outfit);

/// All of them one after the other: "reed_coat: needs level 3; pack: …". Empty for none.
[[nodiscard]] std::string reasons_in_a_line(const std::vector<Refusal>& refused);

/// What an encounter asks for that the outfit has not, and allies who can't wear what they should
/// at its level; each as a reason.
[[nodiscard]] std::vector<std::string> missing_for(Deriver& deriver, const Outfit& outfit,
                                                   const Encounter& encounter);

} // namespace panoplon
