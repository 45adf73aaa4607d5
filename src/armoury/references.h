// Who names whom in an armoury: for `explain` and for lists of who gives what.
#pragma once

#include "armoury/node.h"

#include <string>
#include <utility>
#include <vector>

namespace panoplon {

/// One definition names another under a key.
struct Reference {
    std::string from; ///< `item.reed_coat`, or `carry` for a kind of which there is one
    std::string path; ///< key, as `use.effect`; places in lists are left out
    std::string to;   ///< `effect.honeyed`
    Span span;
};

/// Every reference of checked definitions, in their order: ids, stats and pools in tables and in
/// formulas, items worn and packed.
[[nodiscard]] std::vector<Reference> find_references(const std::vector<RawDefinition>& definitions);

/// Who names a thing, in their order, each with the keys that it does so under.
using Users = std::vector<std::pair<std::string, std::vector<std::string>>>;
[[nodiscard]] Users users_of(const std::vector<Reference>& references, const std::string& name);

/// `item.reed_coat`, or `carry`.
[[nodiscard]] std::string full_name(const RawDefinition& definition);

} // namespace panoplon
