// What an armoury says, as numbers: what has not changed has the same number as before.
#pragma once

#include "armoury/read.h"

#include <cstdint>
#include <vector>

namespace panoplon {

/// Of keys that count: names, notes and the like change nothing.
struct Content {
    std::uint64_t rules = 0;          ///< of all but these and what items are found by
    std::vector<std::uint64_t> items; ///< by item, with what comes from its pattern
    std::vector<std::uint64_t> characters, loadouts, encounters;
};
[[nodiscard]] Content content_of(const ReadArmoury& read);

/// One definition before and after.
struct DefinitionChange {
    enum class What { added, removed, changed };
    struct Key {
        std::string path;          ///< as `add.guard`
        std::string before, after; ///< as TOML has them; empty: not given
    };

    std::string kind, id;
    What what = What::changed;
    std::vector<Key> keys; ///< of what changed
};
inline constexpr const char* definition_change_names[] = {"added", "removed", "changed"};

/// Definitions that differ, kind by kind: first those of `before` in its order, then new ones.
[[nodiscard]] std::vector<DefinitionChange> differences(const ReadArmoury& before,
                                                        const ReadArmoury& after);

} // namespace panoplon
