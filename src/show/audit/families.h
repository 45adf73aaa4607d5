// Verdicts of one cause, told once.
#pragma once

#include "judge/audit/audit.h"

#include <string>
#include <vector>

namespace panoplon {

/// Items that have the same verdict for the same reason; or one alone.
struct Family {
    std::vector<const ItemVerdict*> members;
    std::string cause; ///< "of the pattern charm"; empty where it is one alone
};

/// In the order of their first members. Of one cause is what gives the same stats that no fight
/// reads, is out of reach for the same reason, is outclassed by the same item; what is a twin; what
/// is of one pattern, or of one set.
[[nodiscard]] std::vector<Family> families_of(const Armoury& armoury,
                                              const std::vector<ItemVerdict>& verdicts);

/// "a, b, c and 9 more".
[[nodiscard]] std::string names_of(const Armoury& armoury, const Family& family);

} // namespace panoplon
