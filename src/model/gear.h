// What is worn, used and carried: tiers, slots, sets, items, effects, upgrades.
#pragma once

#include "base/colour.h"
#include "formula/quantity.h"
#include "model/bearer.h"
#include "model/drawn.h"

#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

struct Tier : Bearer {
    int rank = 0;
    std::string mark;
    Ink ink; ///< of its name and mark
    bool colour_given = false;
    double budget = 1;       ///< × the level's budget
    double stat_factor = 1;  ///< × the item's own `add` amounts (M44)
    double drop_weight = 1;  ///< against the other tiers'
    double value_factor = 1; ///< × the value of its items
};

struct Slot : Definition {
    int count = 1;       ///< places it has
    bool socket = false; ///< a place on items, not on characters (M40)
    double budget = 1;   ///< × the level's budget of an item in it
};

struct SetStep : Bearer {
    int count = 1; ///< different pieces worn from which it applies
};

struct ItemSet : Definition {
    std::vector<SetStep> steps; ///< by rising count
};

/// Who may do something; an empty list lets everybody.
struct Only {
    std::vector<std::string> callings;
    std::vector<CharacterId> characters;
};

/// What wearing an item (or using a consumable) asks of a character (M41).
struct Needs : Only {
    int level = 1;
    std::vector<Amount> stats; ///< at least, with nothing worn
};

/// Room that a worn item gives.
struct Grants {
    std::int64_t bag = 0;
    Thousandths capacity = 0;
};

enum class Source { none, drop, shop, start, craft, quest };
inline constexpr const char* source_names[] = {"none", "drop", "shop", "start", "craft", "quest"};

/// The word for all effects that the other side has applied.
inline constexpr const char* hostile_word = "hostile";

/// Effects that are meant together: by their ids, by tags of theirs, or by `hostile_word`.
struct EffectGroup {
    std::vector<std::string> words; ///< as they are written
    std::vector<EffectId> effects;  ///< whom the words mean, sorted
    bool hostile = false;

    [[nodiscard]] bool given() const { return !words.empty(); }
    [[nodiscard]] bool has(EffectId effect, bool is_hostile) const;
};

/// What using a consumable does (M30–M33).
struct Use {
    Formula when; ///< it is used while this holds; empty: by default
    std::vector<std::pair<PoolId, Quantity>> restore; ///< of who uses it and who gets it
    EffectGroup removes;
    ActionId does;      ///< to the other side, at once; none: nothing
    EffectId effect;    ///< none: only restores
    Ticks duration = 0; ///< of the effect; `never` for always
    Ticks cooldown = 0;
    std::string group;      ///< items of one group cool down together; empty: its own
    Quantity takes;         ///< units; no action in that time (M32)
    Only only;              ///< who may use it (M32a)
    bool to_allies = false; ///< everyone of the user's side gets it (M32a)
};

struct PackedItem {
    ItemId item;
    std::int64_t count = 0;
    Span span;
};

/// What an item may accept of an audit (M83).
inline constexpr const char* acceptable_verdicts[] = {
    "dominant", "burden", "useless", "outclassed", "idle", "weak", "unreachable", "overstays"};

/// What an item gives the more, the more foes are felled with it on (M97e).
struct ItemGrowth {
    int kills = 0; ///< for each time; 0: it never grows
    int most = 0;  ///< times
    Bearer gives;  ///< each time

    [[nodiscard]] int times(int felled) const {
        return kills == 0 ? 0 : felled / kills < most ? felled / kills : most;
    }
    [[nodiscard]] bool as(const ItemGrowth& other) const {
        return kills == other.kills && most == other.most &&
               gives.modifiers == other.gives.modifiers;
    }
};

/// A key of an item that came from a pattern.
struct Inherited {
    std::string path; ///< as `add.guard`
    std::string pattern;
};

struct Item : Bearer {
    PatternId pattern; ///< that it is like, or none
    std::vector<Inherited> inherited;
    bool adds_to_pattern = true; ///< false: every key that counts is its pattern's
    SlotId slot;                 ///< none: not worn
    std::vector<SlotId> takes;   ///< every place it takes, its own slot among them; sorted (M40)
    std::vector<SlotId> sockets; ///< one a socket
    TierId tier;                 ///< none: no rarity
    int level = 1;               ///< worn from this level on (M41)
    int budget_level = 0;        ///< whose budget it has; 0: its own
    Needs needs;
    std::string unique; ///< at most one of such a group is worn; empty: none
    SetId set;
    Grants grants;
    Thousandths weight = 0;
    double value = 0;
    std::int64_t stack = 1; ///< units in a stack, or `unlimited` (M53)
    std::int64_t max_stacks = unlimited;
    std::vector<PackedItem> contains; ///< what comes with each unit of it
    ItemGrowth grows;
    int lasts = 0;       ///< fights on journeys; 0: for ever (M97d)
    bool cursed = false; ///< M41b
    Ticks draw_time = 0; ///< to take it in hand in a swap
    Source source = Source::none;
    std::optional<Use> use;
    std::vector<ActionId> actions; ///< stand before the character's own (M61)
    std::vector<std::string> tags;
    std::vector<std::string> accept; ///< verdicts that are meant; of acceptable_verdicts
    std::vector<Roll> rolls;         ///< `modifiers` has the middle of each
    std::vector<AffixDraw> affixes;  ///< `modifiers` has nothing of them
    bool spent = false;              ///< some action takes it from the pack (M61b)

    [[nodiscard]] bool worn() const { return slot.given(); }
    /// No two finds of it need be alike.
    [[nodiscard]] bool draws() const { return !rolls.empty() || !affixes.empty(); }
    /// Null where it rolls none of a stat.
    [[nodiscard]] const Roll* roll_of(StatId stat) const {
        for (const Roll& roll : rolls)
            if (roll.stat == stat) return &roll;
        return nullptr;
    }
    /// It goes in a fight, by being used or spent: a consumable.
    [[nodiscard]] bool consumed() const { return use.has_value() || spent; }
    /// Who may use it, or spend it.
    [[nodiscard]] const Only& only() const { return use ? use->only : needs; }
    /// With what it cools down; empty: with nothing.
    [[nodiscard]] const std::string& group() const {
        static const std::string none;
        return use ? use->group : none;
    }
    /// The lowest level of a character that can wear or use it.
    [[nodiscard]] int wear_level() const { return level > needs.level ? level : needs.level; }
    [[nodiscard]] int level_of_budget() const { return budget_level > 0 ? budget_level : level; }
};

/// A template that items are like; what it gives stands in the items.
struct Pattern : Definition {};

enum class Again { refresh, extend, pile, keep }; ///< M20

/// What follows an effect that ends by itself.
struct Aftermath {
    EffectId effect; ///< none: nothing
    Ticks duration = 0;
};

struct Effect : Bearer {
    std::vector<std::string> tags;
    /// Per unit of time, of who has it and who applied it; negative takes away.
    std::vector<std::pair<PoolId, Quantity>> per_time;
    Ticks period = 1e6;
    Again again = Again::refresh;
    int pile_max = 1;
    double restore_factor = 1; ///< × all that is restored to who has it (M23)
    bool ward = false;
    bool taunts = false; ///< blows go to who has it first (M23b)
    Formula absorbs;     ///< empty: nothing
    EffectGroup removes; ///< from who gets it, as it begins
    EffectGroup immune;  ///< what does not take hold of who has it
    bool stops_actions = false, stops_uses = false;
    Aftermath then;
};

/// A permanent improvement; its modifiers count once a level bought.
struct Upgrade : Bearer {
    int max = 1;
    int points = 0; ///< that a level takes; 0: it is bought with coin
    Formula cost;   ///< of the next level, of `bought`
};

} // namespace panoplon
