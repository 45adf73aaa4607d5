// A character at a level with what it wears, carries and has bought.
#pragma once

#include "model/armoury.h"
#include "outfit/derive.h"
#include "outfit/load.h"

#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

struct Outfit {
    CharacterId character;
    int level = 1;
    std::vector<WornItem> worn; ///< in the order of the slots
    std::vector<PackedItem> pack;
    std::vector<UseRule> uses;
    std::vector<BoughtUpgrade> upgrades;
    std::vector<Swap> swaps;
    std::vector<ActionId> actions = {}; ///< all that it does, the first first; empty: as M61 has it
    /// By set: pieces that count, whatever is worn; empty: those that are.
    std::vector<int> held_pieces = {};
};

/// A loadout at a level, with what its items come with (`contains`) in the pack.
[[nodiscard]] Outfit outfit_of(const Armoury& armoury, const Loadout& loadout, int level);

/// Puts what worn and packed items come with into the pack; each thing packed once.
void add_contents(const Armoury& armoury, Outfit& outfit);
/// Adds units of an item to a pack, to what is there of it already.
void add_to_pack(std::vector<PackedItem>& pack, ItemId item, std::int64_t count, const Span& span);

/// Calls visit(worn item) for each, host before what its sockets hold.
template <class Visit>
void for_each_worn(const std::vector<WornItem>& worn, const Visit& visit) {
    for (const WornItem& one : worn) {
        visit(one);
        for_each_worn(one.socketed, visit);
    }
}

/// What somebody can do: actions of worn gear, then the character's own. What two rings give is
/// there twice, and each cools down by itself.
[[nodiscard]] std::vector<ActionId> actions_had(const Armoury& armoury, CharacterId character,
                                                const std::vector<WornItem>& worn);
/// What an outfit does, the first first (M61): of what it can do what it names, or all.
[[nodiscard]] std::vector<ActionId> actions_done(const Armoury& armoury, const Outfit& outfit);

/// A bearer of an outfit and how it counts.
struct Borne {
    const Bearer* bearer;
    std::string_view kind; ///< "character", "upgrade", "item", "affix", "affixes", "growth",
                           ///< "tier", "set"
    double add_factor = 1; ///< of its `add` amounts (a tier's stat_factor, M44)
    int levels = 1;        ///< times it counts (an upgrade's levels)
    std::shared_ptr<const Modifiers> rolled = nullptr; ///< of one whose numbers were drawn

    [[nodiscard]] const Modifiers& modifiers() const {
        return rolled ? *rolled : bearer->modifiers;
    }
};

/// Everything that changes stats, in the fixed order: the character's own, upgrades by id, worn
/// items by id each followed by its tier, set steps by set and count. Load bands and effects come
/// after, where they apply.
[[nodiscard]] std::vector<Borne> bearers_of(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] StatSums sums_of(const Armoury& armoury, const std::vector<Borne>& bearers);
[[nodiscard]] StatSums worn_sums(const Armoury& armoury, const Outfit& outfit);

/// How many different pieces of each set are worn or socketed (M43), by set.
[[nodiscard]] std::vector<int> set_pieces(const Armoury& armoury, const Outfit& outfit);

/// The value of all that is worn and packed, in the armoury's own unit.
[[nodiscard]] double value_of(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] Thousandths worn_weight(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] Thousandths pack_weight(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] std::int64_t pack_stacks(const Armoury& armoury, const Outfit& outfit);
/// Stacks that the bag holds with what worn gear grants; `unlimited` where it has no end.
[[nodiscard]] std::int64_t bag_size(const Armoury& armoury, const Outfit& outfit);
/// What worn gear adds to the carry capacity.
[[nodiscard]] Thousandths granted_capacity(const Armoury& armoury, const Outfit& outfit);

/// The value of every stat under a load band (no_band: under none).
[[nodiscard]] std::vector<double> outfit_stats(Deriver& deriver, const Outfit& outfit, int band);
/// The value of every stat with nothing worn, upgrades included: what `needs.stats` is held
/// against, so that the order of wearing can't matter (M41).
[[nodiscard]] std::vector<double> naked_stats(Deriver& deriver, const Outfit& outfit);

/// The same for each character at the last level with every upgrade bought, of those that take
/// points each as far as all points go; by character.
[[nodiscard]] std::vector<std::vector<double>> last_naked_stats(Deriver& deriver);

/// The load with the stats that the outfit has without any band (M50).
[[nodiscard]] Load outfit_load(Deriver& deriver, const Outfit& outfit);

} // namespace panoplon
