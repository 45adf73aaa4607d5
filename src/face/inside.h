// What an armoury of the library holds. For the files of this folder.
#pragma once

#include "armoury/read.h"
#include "panoplon/armoury.h"

#include <stdexcept>
#include <string>

namespace panoplon::core {

struct Armoury::Inside {
    ReadArmoury read;
};

/// That of a usable armoury; else throws.
[[nodiscard]] inline const panoplon::Armoury& usable(const Armoury& armoury) {
    if (!armoury.usable()) throw std::invalid_argument("the armoury has mistakes");
    return armoury.inside().read.armoury;
}

/// An id that the armoury has; else throws.
template <class IdType, class List>
[[nodiscard]] IdType known(const char* kind, const List& list, const std::string& id) {
    for (std::size_t i = 0; i < list.size(); ++i)
        if (list[i].id == id) return IdType(i);
    throw std::invalid_argument("unknown " + std::string(kind) + " '" + id + "'");
}

/// A level that the armoury has; else throws.
[[nodiscard]] inline int known_level(const panoplon::Armoury& armoury, int level) {
    if (!armoury.levels.holds(level))
        throw std::invalid_argument("the armoury has no level " + std::to_string(level));
    return level;
}

} // namespace panoplon::core
