// Dense, typed indices: definitions name one another by these, never by pointers.
#pragma once

#include <compare>
#include <cstddef>
#include <cstdint>

namespace panoplon {

/// The place of a definition in its armoury's list. A default-made id is `none`.
/// Ids of different kinds do not mix.
template <class Kind>
struct Id {
    std::int32_t value = -1;

    Id() = default;
    explicit Id(std::size_t index) : value(static_cast<std::int32_t>(index)) {}

    [[nodiscard]] bool given() const { return value >= 0; }
    [[nodiscard]] std::size_t index() const { return static_cast<std::size_t>(value); }
    auto operator<=>(const Id&) const = default;
};

} // namespace panoplon
