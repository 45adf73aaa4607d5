// What a thing of an armoury can do, and what it can't and why not, in sentences.
#pragma once

#include "armoury/read.h"

#include <string>
#include <vector>

namespace panoplon {

struct Abilities {
    std::vector<std::string> can, cannot;
};

/// `unused`: no other definition names it.
[[nodiscard]] Abilities abilities_of(const ReadArmoury& read, const RawDefinition& definition,
                                     bool unused);

} // namespace panoplon
