// Who fights: actors with everything about them that a fight does not change.
#pragma once

#include "fight/result.h"
#include "outfit/derive.h"
#include "outfit/outfit.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

enum class Side { character, foes };

/// When a packed consumable is used. Without a formula it is the default rule of M33.
struct SetupRule {
    std::size_t packed = 0; ///< index into ActorSetup::pack
    Formula when;
    bool allowed = true; ///< the user is one of `only` (M32a)
};

/// A change to another loadout of the same character (M71). What that wears and this does not has
/// to be in the pack; otherwise `refused` says what is not.
struct SetupSwap {
    Ticks at = never; ///< or
    Formula when;
    Ticks takes = 0;        ///< with the draw_time of what is taken in hand
    std::size_t outfit = 0; ///< index into FightSetup::swap_outfits
    std::string name;       ///< of the loadout
    std::string refused;
    Span span;
};

/// Who is there only once an action calls it (M64a).
struct SetupCall {
    std::size_t by = 0; ///< index into FightSetup::actors
    ActionId action;
    Ticks stays = never;
};

/// One of a group of which a fight draws how many come (M65a).
struct SetupGroup {
    std::size_t index = 0; ///< of the group, in its encounter
    const FoeGroup* group = nullptr;
    int nth = 0; ///< of the group, from 0: it comes when more than that do
};

struct ActorSetup {
    Side side = Side::character;
    std::string name; ///< of this one: `fogling.2`
    std::string kind; ///< id of the character, the foe, or the ally's loadout
    int level = 1;
    std::vector<double> base; ///< by stat
    StatSums sums;            ///< own and worn modifiers, without band and effects
    std::vector<ActionId> actions;
    bool chooses_by_weight = false;
    std::vector<const Bearer*> triggers; ///< bearers that have any, in their order
    Ticks arrival = 0;                   ///< `never`: when it is called
    std::optional<SetupCall> called;
    std::optional<SetupGroup> uncertain;

    /// By pool, the share of its ceiling that it begins with; empty: as the pools say (M97b).
    std::vector<double> begins;

    // What only the character's side has.
    bool carries = false;
    Thousandths worn = 0;       ///< what worn items count
    double granted = 0;         ///< carry capacity that gear adds
    Thousandths pack_shift = 0; ///< of a swapped outfit: gear it has in the pack, against the first
    std::vector<PackedItem> pack;
    std::vector<SetupRule> rules;
    std::vector<SetupSwap> swaps;
};

struct FightSetup {
    std::vector<ActorSetup> actors;       ///< the character first, then as set_up_others() has it
    std::vector<ActorSetup> swap_outfits; ///< what the character can swap to, worn
    EncounterId encounter;
};

/// What the ledger of a fight of this character has room for.
[[nodiscard]] LedgerShape ledger_shape(const Armoury& armoury, const ActorSetup& character);

/// How many of a group come where a fight drew this in [0, 1) (M65a).
[[nodiscard]] int foes_that_come(const FoeGroup& group, double draw);

/// Level of an encounter's foes when the character has `level`: nearest whole number, at least 1.
[[nodiscard]] int foe_level(const Encounter& encounter, int level);

/// An outfit against an encounter. The outfit is legal (refusals() is empty).
[[nodiscard]] FightSetup set_up_fight(const Armoury& armoury, const Outfit& outfit,
                                      EncounterId encounter);
/// The halves of it, for those who change one and keep the other.
[[nodiscard]] ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit);
/// With base_stats() of the character at that level known already, and into what was another
/// character's before: its memory is used again.
void set_up_character(const Armoury& armoury, const Outfit& outfit, const std::vector<double>& base,
                      ActorSetup& into);
/// Allies and who may be called to their side, then foes and whom they may call. What the character
/// itself may call is there whatever it wears.
[[nodiscard]] std::vector<ActorSetup> set_up_others(const Armoury& armoury,
                                                    const Encounter& encounter, int level);

} // namespace panoplon
