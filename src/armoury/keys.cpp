#include "armoury/keys.h"

#include <algorithm>

namespace panoplon {

namespace {

constexpr KindRow kinds[] = {
    {"armoury", true, "the armoury itself: its name, its clock, its levels"},
    {"combat", true, "how a fight is reckoned"},
    {"budget", true, "what a level allows an item's stats to cost"},
    {"carry", true, "what can be carried, and what carrying costs"},
    {"yardstick", true, "the standard encounter that power is measured against"},
    {"audit", true, "thresholds of the verdicts"},
    {"damage", false, "a type of damage"},
    {"stat", false, "a named number of an actor"},
    {"pool", false, "an amount that is spent and restored during a fight"},
    {"tier", false, "a rarity"},
    {"slot", false, "a place to wear an item"},
    {"item", false, "worn gear, a consumable, or plain cargo"},
    {"effect", false, "a timed state on an actor"},
    {"action", false, "what an actor does with its time in a fight"},
    {"character", false, "a fighter that grows with level"},
    {"foe", false, "an opponent"},
    {"loadout", false, "a character's worn items, pack and use rules"},
    {"encounter", false, "who comes, when, against whom"},
};

constexpr double huge = 1e12;
constexpr bool must = true;
constexpr bool may = false;

using T = Type;

// A row a key.
// clang-format off
// kind, path, type, names, low, high, unit, fallback, required, meaning
constexpr KeyRow keys[] = {
    {"armoury", "format", T::whole, "", 1, 1, "", "", must, "version of the file format: 1"},
    {"armoury", "name", T::text, "", 0, 0, "", "", must, "name of the armoury, as titles show it"},
    {"armoury", "clock", T::choice, "seconds|rounds", 0, 0, "", "seconds", may, "unit of every time in the armoury"},
    {"armoury", "levels", T::levels, "", 1, 1000, "level", "", must, "first and last level that characters have"},

    {"combat", "health", T::reference, "pool", 0, 0, "", "", must, "the pool whose end is the actor's end"},
    {"combat", "hit", T::formula, "", 0, 0, "chance", "1", may, "chance that a blow hits; clamped to 0..1 (M63)"},
    {"combat", "crit", T::formula, "", 0, 0, "chance", "0", may, "chance that a hit is critical; clamped to 0..1"},
    {"combat", "crit_factor", T::formula, "", 0, 0, "factor", "1.5", may, "what a critical hit multiplies the raw amount by"},
    {"combat", "spread", T::number, "", 0, 1, "share", "0", may, "± share of a blow's amount, uniform"},
    {"combat", "order", T::formula, "", 0, 0, "", "0", may, "who goes first at one instant: the higher (M60)"},
    {"combat", "time_limit", T::number, "", 1e-6, 1e6, "time", "180", may, "a fight covers [0, time_limit); then the character has not won (M65)"},
    {"combat", "event_limit", T::whole, "", 100, 1e8, "events", "100000", may, "more events than this end a fight with an error (M66)"},

    {"budget", "points", T::formula, "", 0, 0, "points", "", must, "points that an item of a level may spend; a formula of `level`"},
    {"budget", "tolerance", T::number, "", 0, 10, "share", "0.15", may, "how far from its budget an item may be before `check` doubts it"},

    {"carry", "capacity", T::formula, "", 0, 0, "weight", "", must, "what a character can carry; a formula of its stats"},
    {"carry", "bag", T::unlimited_whole, "", 0, 1e6, "stacks", "unlimited", may, "stacks that a pack may hold (M53)"},
    {"carry", "worn_factor", T::number, "", 0, 10, "factor", "1", may, "what worn weight counts, against carried weight"},
    {"carry", "limit", T::number, "", 0, 1e6, "load", "1000000", may, "load above which nothing more can be carried (M52)"},
    {"carry", "band", T::tables, "", 0, 0, "", "", may, "what a load does: the highest band that applies, applies"},
    {"carry", "band.name", T::text, "", 0, 0, "", "", must, "name of the band"},
    {"carry", "band.from", T::number, "", 0, 1e6, "load", "", may, "applies when load ≥ this (M51); or `above`"},
    {"carry", "band.above", T::number, "", 0, 1e6, "load", "", may, "applies when load > this (M51); or `from`"},
    {"carry", "band.add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats"},
    {"carry", "band.percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points, summed with all others (M1)"},
    {"carry", "band.times", T::amounts, "", 0, huge, "factor", "", may, "factors"},

    {"yardstick", "encounter", T::reference, "encounter", 0, 0, "", "", must, "the encounter that power is the margin against; it should not grow with level"},

    {"audit", "window", T::whole, "", 1, 1000, "levels", "5", may, "levels that an item is judged at, from the first it can be worn at (M81b)"},
    {"audit", "grace", T::whole, "", 0, 1000, "levels", "1", may, "how much older a rival may be"},
    {"audit", "step", T::whole, "", 1, 1000, "levels", "1", may, "judge every so many levels (M80)"},
    {"audit", "dominant", T::table, "", 0, 0, "", "", may, "what makes an item dominant (M83)"},
    {"audit", "dominant.share", T::number, "", 0, 1, "share", "0.8", may, "share of picks from which it is"},
    {"audit", "dominant.grip", T::number, "", 0, 1e6, "share", "0.2", may, "mean grip from which it is"},
    {"audit", "useless", T::table, "", 0, 0, "", "", may, "what makes an item useless (M83)"},
    {"audit", "useless.shortfall", T::number, "", 0, 1e6, "share", "0.5", may, "shortfall in every context from which it is"},

    {"damage", "mitigated", T::formula, "", 0, 0, "points", "amount", may, "what is left of `amount` after the target's defences; less than 0 counts as 0"},

    {"stat", "better", T::choice, "higher|lower|neither", 0, 0, "", "higher", may, "which way is better (M5)"},
    {"stat", "min", T::number, "", -huge, huge, "", "0", may, "the value is never below"},
    {"stat", "max", T::number, "", -huge, huge, "", "1000000000", may, "the value is never above"},
    {"stat", "cost", T::number, "", 0, huge, "budget points a point", "0", may, "what a point of it costs of an item's budget"},
    {"stat", "round", T::choice, "none|down|nearest", 0, 0, "", "none", may, "how its value is rounded (M1)"},
    {"stat", "value", T::formula, "", 0, 0, "", "", may, "a derived stat: a formula of the actor's other stats (M3)"},

    {"pool", "max", T::reference, "stat", 0, 0, "", "", must, "the stat that is its ceiling"},
    {"pool", "regen", T::formula, "", 0, 0, "points a unit of time", "", may, "what returns by itself"},
    {"pool", "period", T::number, "", 1e-3, 1e6, "time", "1", may, "regen falls at multiples of it (M21)"},
    {"pool", "start", T::number, "", 0, 1, "share", "1", may, "how full it starts (M10)"},
    {"pool", "on_ceiling", T::choice, "keep|share", 0, 0, "", "keep", may, "what a rising ceiling leaves as it was: the amount, or its share (M11)"},

    {"tier", "rank", T::whole, "", 0, 1000, "", "", must, "the higher, the rarer; no two alike"},
    {"tier", "mark", T::text, "", 0, 0, "", "", may, "tells the tier without colour"},
    {"tier", "colour", T::colour, "", 0, 0, "", "#777777", may, "its colour"},
    {"tier", "budget", T::number, "", 0, 1e6, "factor", "1", may, "× the level's budget"},
    {"tier", "stat_factor", T::number, "", 0, 1e6, "factor", "1", may, "× the item's own `add` amounts (M44)"},
    {"tier", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats by every item of the tier"},
    {"tier", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points by every item of the tier"},
    {"tier", "times", T::amounts, "", 0, huge, "factor", "", may, "factors by every item of the tier"},

    {"slot", "count", T::whole, "", 1, 20, "places", "1", may, "items that it holds"},

    {"item", "slot", T::reference, "slot", 0, 0, "", "", may, "where it is worn"},
    {"item", "tier", T::reference, "tier", 0, 0, "", "", may, "its rarity"},
    {"item", "level", T::whole, "", 1, 1000, "level", "1", may, "worn from this level on (M41)"},
    {"item", "weight", T::number, "", 0, 1e6, "weight", "0", may, "of one, in whole thousandths (M50)"},
    {"item", "value", T::number, "", 0, huge, "coin", "0", may, "of one"},
    {"item", "stack", T::unlimited_whole, "", 1, 1e9, "units", "1", may, "units in one stack of a pack (M53)"},
    {"item", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats"},
    {"item", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points, summed with all others (M1)"},
    {"item", "times", T::amounts, "", 0, huge, "factor", "", may, "factors"},
    {"item", "actions", T::references, "action", 0, 0, "", "", may, "actions that wearing it gives; they stand before the character's own (M61)"},
    {"item", "tags", T::texts, "", 0, 0, "", "", may, "free words to group items by"},
    {"item", "use", T::table, "", 0, 0, "", "", may, "makes it a consumable"},
    {"item", "use.restore", T::pool_amounts, "", 0, huge, "points", "", may, "what it gives back to pools"},
    {"item", "use.effect", T::reference, "effect", 0, 0, "", "", may, "the effect that it gives the user"},
    {"item", "use.duration", T::timed, "", 0, 1e6, "time", "", may, "how long the effect lasts, or \"always\" (M22)"},
    {"item", "use.cooldown", T::time, "", 0, 1e6, "time", "0", may, "time before it can be used again (M30)"},
    {"item", "use.group", T::id_name, "", 0, 0, "", "", may, "items of one group cool down together"},
    {"item", "use.takes", T::time, "", 0, 1e6, "time", "0", may, "no action in that time (M32)"},

    {"effect", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats while it lasts"},
    {"effect", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points while it lasts"},
    {"effect", "times", T::amounts, "", 0, huge, "factor", "", may, "factors while it lasts"},
    {"effect", "per_time", T::pool_amounts, "", -huge, huge, "points a unit of time", "", may, "what it gives to pools, or takes from them, in steps of `period` (M21)"},
    {"effect", "period", T::number, "", 1e-3, 1e6, "time", "1", may, "step of `per_time`"},
    {"effect", "again", T::choice, "refresh|extend|pile|keep", 0, 0, "", "refresh", may, "what a second application does (M20)"},
    {"effect", "pile_max", T::whole, "", 1, 1000, "copies", "1", may, "copies that `pile` allows; past it the oldest ends"},

    {"action", "every", T::formula, "", 0, 0, "time", "", must, "time that it takes until the next (M61)"},
    {"action", "cooldown", T::time, "", 0, 1e6, "time", "0", may, "time before it can be done again"},
    {"action", "cost", T::pool_amounts, "", 0, huge, "points", "", may, "what it takes from the actor's pools; not done when it can't be paid (M10)"},
    {"action", "deals", T::damage_formulas, "", 0, 0, "points", "", may, "raw damage by type (M62)"},
    {"action", "drains", T::pool_formulas, "", 0, 0, "share", "", may, "share of what the target lost that the actor's pool gains"},
    {"action", "targets", T::targets, "", 1, 1000, "", "front", may, "whom it strikes: front, all, or the first so many"},
    {"action", "when", T::formula, "", 0, 0, "truth", "", may, "done only when this holds"},
    {"action", "applies", T::table, "", 0, 0, "", "", may, "an effect that a hit lays on somebody"},
    {"action", "applies.effect", T::reference, "effect", 0, 0, "", "", must, "the effect"},
    {"action", "applies.chance", T::number, "", 0, 1, "chance", "1", may, "chance that a hit lays it"},
    {"action", "applies.duration", T::timed, "", 0, 1e6, "time", "", must, "how long it lasts, or \"always\""},
    {"action", "applies.to", T::choice, "other|self", 0, 0, "", "other", may, "on whom"},

    {"character", "calling", T::id_name, "", 0, 0, "", "", may, "its class or role"},
    {"character", "base", T::amounts, "", -huge, huge, "points", "", must, "stats at the first level"},
    {"character", "growth", T::growths, "", -huge, huge, "points a level", "", may, "what each level above the first adds; or a formula of `level`"},
    {"character", "actions", T::references, "action", 0, 0, "", "", must, "what it does: the first that is ready (M61)"},
    {"character", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats"},
    {"character", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points on stats"},
    {"character", "times", T::amounts, "", 0, huge, "factor", "", may, "factors on stats"},

    {"foe", "base", T::amounts, "", -huge, huge, "points", "", must, "stats at the first level"},
    {"foe", "growth", T::growths, "", -huge, huge, "points a level", "", may, "what each level above the first adds; or a formula of `level`"},
    {"foe", "actions", T::references, "action", 0, 0, "", "", may, "what it does: the first that is ready"},
    {"foe", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats"},
    {"foe", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points on stats"},
    {"foe", "times", T::amounts, "", 0, huge, "factor", "", may, "factors on stats"},

    {"loadout", "character", T::reference, "character", 0, 0, "", "", must, "who wears it"},
    {"loadout", "levels", T::levels, "", 1, 1000, "level", "", may, "levels it is meant for; all when left out"},
    {"loadout", "worn", T::worn, "", 0, 0, "", "", may, "items by slot"},
    {"loadout", "pack", T::pack, "item", 0, 1e6, "units", "", may, "items carried and how many"},
    {"loadout", "use", T::tables, "", 0, 0, "", "", may, "when a consumable is used; in place of what it does by itself (M33)"},
    {"loadout", "use.item", T::reference, "item", 0, 0, "", "", must, "which"},
    {"loadout", "use.when", T::formula, "", 0, 0, "truth", "1", may, "used only when this holds"},

    {"encounter", "levels", T::levels, "", 1, 1000, "level", "", may, "levels it is met at; all when left out"},
    {"encounter", "foe_level", T::formula, "", 0, 0, "level", "", may, "level of the foes; that of the character when left out"},
    {"encounter", "foes", T::tables, "", 0, 0, "", "", must, "who comes"},
    {"encounter", "foes.foe", T::reference, "foe", 0, 0, "", "", must, "which foe"},
    {"encounter", "foes.count", T::whole, "", 1, 1000, "foes", "1", may, "how many"},
    {"encounter", "foes.at", T::time, "", 0, 1e6, "time", "0", may, "when they arrive"},
    {"encounter", "weight", T::number, "", 0, 1e6, "", "1", may, "how much it counts in audits; 0 leaves it out"},
    {"encounter", "wanted_margin", T::pair, "", 0, 64, "margin", "", may, "the corridor that the designer aims for"},
};

// clang-format on

/// Keys that every definition with an id has.
constexpr KeyRow common_keys[] = {
    {"", "name", T::text, "", 0, 0, "", "", may, "name for people; the id when left out"},
    {"", "about", T::text, "", 0, 0, "", "", may, "a sentence about it"},
    {"", "note", T::text, "", 0, 0, "", "", may, "why it is so"},
    {"", "todo", T::text, "", 0, 0, "", "", may, "what is left to decide; listed by `check`"},
};

bool takes_suffix(Type type) {
    switch (type) {
    case T::amounts:
    case T::growths:
    case T::pool_amounts:
    case T::pool_formulas:
    case T::damage_formulas:
    case T::pack: return true;
    default: return false;
    }
}

} // namespace

const char* type_words(Type type) {
    switch (type) {
    case T::text: return "a text";
    case T::texts: return "a list of texts";
    case T::id_name: return "a name";
    case T::number: return "a number";
    case T::whole: return "a whole number";
    case T::unlimited_whole: return "a whole number or \"unlimited\"";
    case T::time: return "a time, 0 or more";
    case T::timed: return "a time above 0, or \"always\"";
    case T::choice: return "one of a few words";
    case T::colour: return "a colour like \"#7d8597\"";
    case T::formula: return "a formula or a number";
    case T::reference: return "an id";
    case T::references: return "a list of ids";
    case T::amounts: return "a table of stats and numbers";
    case T::growths: return "a table of stats and numbers or formulas";
    case T::pool_amounts: return "a table of pools and numbers";
    case T::pool_formulas: return "a table of pools and formulas";
    case T::damage_formulas: return "a table of damage types and formulas";
    case T::levels: return "two levels, [first, last]";
    case T::pair: return "two numbers, [low, high]";
    case T::targets: return "\"front\", \"all\" or a whole number";
    case T::worn: return "a table of slots and items";
    case T::pack: return "a table of items and counts";
    case T::table: return "a table";
    case T::tables: return "a list of tables";
    }
    return "a value";
}

std::span<const KindRow> kind_rows() {
    return kinds;
}
std::span<const KeyRow> key_rows() {
    return keys;
}

const KindRow* find_kind(std::string_view name) {
    const auto at = std::find_if(std::begin(kinds), std::end(kinds),
                                 [&](const KindRow& row) { return row.name == name; });
    return at == std::end(kinds) ? nullptr : at;
}

const KeyRow* find_key(std::string_view kind, std::string_view path) {
    for (const KeyRow& row : keys)
        if (row.kind == kind && row.path == path) return &row;
    const KindRow* of = find_kind(kind);
    if (!of || of->single) return nullptr;
    for (const KeyRow& row : common_keys)
        if (row.path == path) return &row;
    return nullptr;
}

bool directly_under(std::string_view path, std::string_view parent) {
    if (parent.empty()) return path.find('.') == std::string_view::npos;
    return path.size() > parent.size() + 1 && path.starts_with(parent) &&
           path[parent.size()] == '.' &&
           path.find('.', parent.size() + 1) == std::string_view::npos;
}

std::string_view last_part(std::string_view path) {
    return path.substr(path.rfind('.') + 1);
}

std::vector<std::string> keys_under(std::string_view kind, std::string_view parent) {
    std::vector<std::string> names;
    const auto gather = [&](const KeyRow& row) {
        if (!directly_under(row.path, parent)) return;
        names.emplace_back(last_part(row.path));
    };
    for (const KeyRow& row : keys)
        if (row.kind == kind) gather(row);
    const KindRow* of = find_kind(kind);
    if (of && !of->single)
        for (const KeyRow& row : common_keys) gather(row);
    return names;
}

std::vector<std::string> kind_names() {
    std::vector<std::string> names;
    for (const KindRow& row : kinds) names.emplace_back(row.name);
    return names;
}

std::optional<LocatedKey> locate_key(std::string_view kind, const std::string& path) {
    if (const KeyRow* row = find_key(kind, path)) return LocatedKey{row, {}};
    const std::size_t dot = path.rfind('.');
    if (dot == std::string::npos) return std::nullopt;
    const KeyRow* row = find_key(kind, path.substr(0, dot));
    if (!row || !takes_suffix(row->type)) return std::nullopt;
    return LocatedKey{row, path.substr(dot + 1)};
}

} // namespace panoplon
