// A large armoury as real games have: some five hundred things that say every mechanic, made by a
// rule.
#pragma once

#include <string>

namespace panoplon::test {

/// The text of an armoury.toml. Two kinds of game: one of loot, whose numbers are rolled and whose
/// gear has weight and sets; and one of survival, whose gear wears out, spends ammunition and is
/// bought. Both have levels 1 to 20.
enum class Game { loot, survival };
[[nodiscard]] std::string generated_armoury(Game game);

} // namespace panoplon::test
