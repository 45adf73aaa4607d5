// The rows of the format: every kind of definition and every key. A new key is a row here.
#include "armoury/keys.h"

namespace panoplon {

namespace {

constexpr KindRow kinds[] = {
    {"armoury", true, "", "the armoury itself: its name, its clock, its levels"},
    {"combat", true, "", "how a fight is reckoned"},
    {"budget", true, "", "what a level allows an item's stats to cost"},
    {"carry", true, "", "what can be carried, and what carrying costs"},
    {"yardstick", true, "", "the standard encounter that power is measured against"},
    {"audit", true, "", "thresholds of the verdicts"},
    {"damage", false, "", "a type of damage"},
    {"stat", false, "", "a named number of an actor"},
    {"pool", false, "", "an amount that is spent and restored during a fight"},
    {"tier", false, "", "a rarity"},
    {"slot", false, "", "a place to wear an item, or a socket on items"},
    {"set", false, "", "items that together give steps of bonuses"},
    {"pattern", false, "item", "a template that items are `like`; never itself an item"},
    {"item", false, "", "worn gear, a consumable, or plain cargo"},
    {"effect", false, "", "a timed state on an actor"},
    {"upgrade", false, "", "a permanent improvement of a character, bought in levels"},
    {"action", false, "", "what an actor does with its time in a fight"},
    {"character", false, "", "a fighter that grows with level"},
    {"foe", false, "", "an opponent"},
    {"loadout", false, "", "a character's worn items, pack, upgrades and use rules"},
    {"encounter", false, "", "who comes, when, against whom"},
    {"drops", false, "", "what a win finds"},
    {"journey", false, "", "a character's progress through stages"},
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
    {"armoury", "ignore", T::texts, "", 0, 0, "", "", may, "headers of columns that are left out of every table"},

    {"combat", "health", T::reference, "pool", 0, 0, "", "", must, "the pool whose end is the actor's end"},
    {"combat", "hit", T::formula, "", 0, 0, "chance", "1", may, "chance that a blow hits; clamped to 0..1 (M63)"},
    {"combat", "crit", T::formula, "", 0, 0, "chance", "0", may, "chance that a hit is critical; clamped to 0..1"},
    {"combat", "crit_factor", T::formula, "", 0, 0, "factor", "1.5", may, "what a critical hit multiplies an amount by"},
    {"combat", "crit_on", T::choice, "raw|mitigated", 0, 0, "", "raw", may, "which amount a critical hit multiplies: what is dealt, or what is left of it (M62)"},
    {"combat", "returned", T::formula, "", 0, 0, "share", "", may, "share of what a blow took that comes back to who struck; a formula of who was struck (`self`) and who struck (M62a)"},
    {"combat", "spread", T::number, "", 0, 1, "share", "0", may, "± share of a blow's amount, uniform"},
    {"combat", "order", T::formula, "", 0, 0, "", "0", may, "who goes first at one instant: the higher (M60)"},
    {"combat", "lives", T::formula, "", 0, 0, "lives", "0", may, "lives that an actor can lose before it is felled; a formula of its stats, rounded down (M64)"},
    {"combat", "revive_share", T::number, "", 0.001, 1, "share", "1", may, "share of its ceiling that health returns to when a life is lost (M64)"},
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
    {"carry", "band.to", T::number, "", 0, 1e6, "load", "", may, "a ramp: what the band changes grows evenly from nothing at its beginning to all of it at this load (M51a)"},
    {"carry", "band.step", T::number, "", 1e-4, 1e6, "load", "0.05", may, "steps of load in which a ramp grows"},
    {"carry", "band", T::bearer, "", 0, 0, "", "", may, ""},

    {"yardstick", "encounter", T::reference, "encounter", 0, 0, "", "", must, "the encounter that power is the margin against; it should not grow with level"},
    {"yardstick", "wanted_low", T::formula, "", 0, 0, "level", "", may, "power that the designer wants at least at a level; with `wanted_high`"},
    {"yardstick", "wanted_high", T::formula, "", 0, 0, "level", "", may, "and at most"},

    {"audit", "window", T::whole, "", 1, 1000, "levels", "5", may, "levels that an item is judged at, at most, from the first it can be worn at (M81b)"},
    {"audit", "grace", T::whole, "", 0, 1000, "levels", "1", may, "how much older or newer a rival may be; what is newer by more is its successor (M81b)"},
    {"audit", "step", T::whole, "", 1, 1000, "levels", "1", may, "judge every so many levels (M80)"},
    {"audit", "among", T::choice, "tier|all", 0, 0, "", "tier", may, "what an item is judged among: what is of its tier and below, or everything (M81c)"},
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
    {"stat", "step", T::number, "", 0, huge, "", "0", may, "`tune` proposes multiples of it for what is added to the stat; 0: whole numbers where all that items add are whole, else a hundredth of their size"},
    {"stat", "use", T::choice, "in fights|outside fights", 0, 0, "", "in fights", may, "where it counts; what gives nothing but stats that count outside of fights is idle in an audit (M83)"},
    {"stat", "value", T::formula, "", 0, 0, "", "", may, "a derived stat: a formula of the actor's other stats (M3)"},

    {"pool", "max", T::reference, "stat", 0, 0, "", "", must, "the stat that is its ceiling"},
    {"pool", "regen", T::formula, "", 0, 0, "points a unit of time", "", may, "what returns by itself"},
    {"pool", "period", T::number, "", 1e-3, 1e6, "time", "1", may, "regen falls at multiples of it (M21)"},
    {"pool", "start", T::number, "", 0, 1, "share", "1", may, "how full it starts (M10)"},
    {"pool", "on_ceiling", T::choice, "keep|share", 0, 0, "", "keep", may, "what a rising ceiling leaves as it was: the amount, or its share (M11)"},
    {"pool", "shields", T::formula, "", 0, 0, "share", "0", may, "share of what blows and hostile effects would take from health that this pool loses instead, while it has any; a formula of who is struck (M23c)"},

    {"tier", "rank", T::whole, "", 0, 1000, "", "", must, "the higher, the rarer; no two alike"},
    {"tier", "mark", T::text, "", 0, 0, "", "", may, "tells the tier without colour"},
    {"tier", "colour", T::colour, "", 0, 0, "", "#777777", may, "its colour"},
    {"tier", "budget", T::number, "", 0, 1e6, "factor", "1", may, "× the level's budget"},
    {"tier", "stat_factor", T::number, "", 0, 1e6, "factor", "1", may, "× the item's own `add` amounts (M44)"},
    {"tier", "drop_weight", T::number, "", 0, 1e9, "weight", "1", may, "how often its items drop, against the other tiers'"},
    {"tier", "value_factor", T::number, "", 0, 1e6, "factor", "1", may, "× the value of its items"},
    {"tier", "", T::bearer, "", 0, 0, "", "", may, ""},

    {"slot", "count", T::whole, "", 1, 20, "places", "1", may, "items that it holds"},
    {"slot", "budget", T::number, "", 0, 1e6, "factor", "1", may, "× the level's budget, for each place that an item takes"},
    {"slot", "socket", T::truth, "", 0, 0, "", "false", may, "true: not a place on a character but on items that have it in `sockets` (M40)"},

    {"set", "step", T::tables, "", 0, 0, "", "", must, "what so many pieces give; every step up to the count applies (M43)"},
    {"set", "step.count", T::whole, "", 1, 1000, "pieces", "", must, "different pieces that are worn"},
    {"set", "step", T::bearer, "", 0, 0, "", "", may, ""},

    {"item", "like", T::reference, "pattern", 0, 0, "", "", may, "the pattern it is made after: a key that the item does not give is the pattern's, tables are merged key by key"},
    {"item", "slot", T::reference, "slot", 0, 0, "", "", may, "where it is worn"},
    {"item", "takes", T::references, "slot", 0, 0, "places", "", may, "slots that it takes; its own is always among them (M40)"},
    {"item", "sockets", T::references, "slot", 0, 0, "", "", may, "sockets that it has; each holds an item whose slot is that socket (M40)"},
    {"item", "tier", T::reference, "tier", 0, 0, "", "", may, "its rarity"},
    {"item", "level", T::whole, "", 1, 1000, "level", "1", may, "worn from this level on (M41)"},
    {"item", "budget_level", T::whole, "", 1, 1000, "level", "", may, "level whose budget it has; its own when left out"},
    {"item", "needs", T::table, "", 0, 0, "", "", may, "who can wear or use it (M41)"},
    {"item", "needs.level", T::whole, "", 1, 1000, "level", "1", may, "not below this level of the character, whatever the item's own"},
    {"item", "needs.calling", T::texts, "calling", 0, 0, "", "", may, "only these callings; any when empty"},
    {"item", "needs.character", T::references, "character", 0, 0, "", "", may, "only these characters; any when empty"},
    {"item", "needs.stats", T::amounts, "", -huge, huge, "points", "", may, "at least this much of a stat, with nothing worn (M41)"},
    {"item", "unique", T::id_name, "", 0, 0, "", "", may, "of all items of one such group at most one is worn (M41)"},
    {"item", "set", T::reference, "set", 0, 0, "", "", may, "the set that it is a piece of (M43)"},
    {"item", "weight", T::number, "", 0, 1e6, "weight", "0", may, "of one, in whole thousandths (M50)"},
    {"item", "value", T::number, "", 0, huge, "coin", "0", may, "of one"},
    {"item", "stack", T::unlimited_whole, "", 1, 1e9, "units", "1", may, "units in one stack of a pack (M53)"},
    {"item", "max_stacks", T::unlimited_whole, "", 1, 1e9, "stacks", "unlimited", may, "stacks of it that a pack may hold (M53)"},
    {"item", "contains", T::counts, "item", 0, 1e6, "units", "", may, "what it comes with: these are in the pack of who wears or carries it"},
    {"item", "grants", T::table, "", 0, 0, "", "", may, "room that wearing it gives"},
    {"item", "grants.bag", T::whole, "", 0, 1e6, "stacks", "0", may, "stacks more that the bag holds (M53)"},
    {"item", "grants.capacity", T::number, "", -1e6, 1e6, "weight", "0", may, "more that can be carried (M50)"},
    {"item", "", T::bearer, "", 0, 0, "", "", may, ""},
    {"item", "add_up_to", T::amounts, "", -huge, huge, "points", "", may, "the other end of what it adds: each find draws between `add` and this; else it counts with the middle (M44a)"},
    {"item", "actions", T::references, "action", 0, 0, "", "", may, "actions that wearing it gives; they stand before the character's own (M61)"},
    {"item", "lasts", T::whole, "", 1, 1e6, "fights", "", may, "fights that it is worn in until it breaks, on journeys (M97d)"},
    {"item", "cursed", T::truth, "", 0, 0, "", "false", may, "true: once it is on it can't be taken off (M41b)"},
    {"item", "draw_time", T::time, "", 0, 1e6, "time", "0", may, "time to take it in hand when a loadout is swapped to (M71)"},
    {"item", "source", T::choice, "none|drop|shop|start|craft|quest", 0, 0, "", "none", may, "how it is had; `none` is not said"},
    {"item", "tags", T::texts, "", 0, 0, "", "", may, "free words to group items by"},
    {"item", "accept", T::texts, "", 0, 0, "", "", may, "verdicts that are meant: dominant, burden, useless, outclassed, idle, weak, unreachable, overstays; why stands in `note` (M83)"},
    {"item", "use", T::table, "", 0, 0, "", "", may, "makes it a consumable"},
    {"item", "use.when", T::formula, "", 0, 0, "truth", "", may, "it is used while this holds, where no loadout has a rule for it (M33)"},
    {"item", "use.restore", T::pool_quantities, "", 0, huge, "points", "", may, "what it gives back to pools; a formula of who uses it (`self`) and who gets it (`other`)"},
    {"item", "use.removes", T::texts, "effect or tag", 0, 0, "", "", may, "effects that it ends: their ids, their tags, or `hostile` for all that the other side applied (M24)"},
    {"item", "use.does", T::reference, "action", 0, 0, "", "", may, "an action that using it does at once: its blows, without its cost, time and cooldown (M32b)"},
    {"item", "use.effect", T::reference, "effect", 0, 0, "", "", may, "the effect that it gives the user"},
    {"item", "use.duration", T::timed, "", 0, 1e6, "time", "", may, "how long the effect lasts, or \"always\" (M22)"},
    {"item", "use.cooldown", T::time, "", 0, 1e6, "time", "0", may, "time before it can be used again (M30)"},
    {"item", "use.group", T::id_name, "", 0, 0, "", "", may, "items of one group cool down together"},
    {"item", "use.takes", T::quantity, "", 0, 1e6, "time", "0", may, "no action in that time (M32); a formula of who uses it"},
    {"item", "use.only", T::table, "", 0, 0, "", "", may, "who may use it (M32a)"},
    {"item", "use.only.calling", T::texts, "calling", 0, 0, "", "", may, "only these callings; any when empty"},
    {"item", "use.only.character", T::references, "character", 0, 0, "", "", may, "only these characters; any when empty"},
    {"item", "use.to", T::choice, "self|allies", 0, 0, "", "self", may, "who gets what it gives: the user, or everyone of its side (M32a)"},

    {"effect", "tags", T::texts, "", 0, 0, "", "", may, "free words to remove effects by, or to be immune to them"},
    {"effect", "per_time", T::pool_quantities, "", -huge, huge, "points a unit of time", "", may, "what it gives to pools, or takes from them, in steps of `period` (M21); a formula of who has it (`self`) and who applied it (`other`), reckoned as it begins"},
    {"effect", "period", T::number, "", 1e-3, 1e6, "time", "1", may, "step of `per_time`"},
    {"effect", "again", T::choice, "refresh|extend|pile|keep", 0, 0, "", "refresh", may, "what a second application does (M20)"},
    {"effect", "pile_max", T::whole, "", 1, 1000, "copies", "1", may, "copies that `pile` allows; past it the oldest ends"},
    {"effect", "restore_factor", T::number, "", 0, 1e6, "factor", "1", may, "× everything that is restored to who has it (M23)"},
    {"effect", "ward", T::truth, "", 0, 0, "", "false", may, "true: no blow, no tick of a hostile effect and no new hostile effect takes hold (M23)"},
    {"effect", "taunts", T::truth, "", 0, 0, "", "false", may, "true: blows of the other side go to who has it before they go to others (M23b)"},
    {"effect", "absorbs", T::formula, "", 0, 0, "points", "0", may, "damage that it takes in place of health; a formula of who has it (M23)"},
    {"effect", "removes", T::texts, "effect or tag", 0, 0, "", "", may, "effects that end as it begins: ids, tags, or `hostile` (M24)"},
    {"effect", "immune", T::texts, "effect or tag", 0, 0, "", "", may, "effects that do not take hold of who has it: ids, tags, or `hostile` (M24)"},
    {"effect", "stops", T::texts, "thing to stop", 0, 0, "", "", may, "what who has it does not do: `actions`, `uses` (M25)"},
    {"effect", "then", T::table, "", 0, 0, "", "", may, "what follows when it ends by itself (M26)"},
    {"effect", "then.effect", T::reference, "effect", 0, 0, "", "", must, "the effect"},
    {"effect", "then.duration", T::timed, "", 0, 1e6, "time", "", must, "how long it lasts, or \"always\""},
    {"effect", "", T::bearer, "", 0, 0, "", "", may, ""},

    {"upgrade", "max", T::whole, "", 1, 10000, "levels", "1", may, "levels that can be bought"},
    {"upgrade", "points", T::whole, "", 0, 1000, "points", "0", may, "points of the character that a level takes; then it is not bought with coin (M45)"},
    {"upgrade", "cost", T::formula, "", 0, 0, "coin", "0", may, "of the next level; a formula of `bought`"},
    {"upgrade", "", T::bearer, "", 0, 0, "", "", may, ""},

    {"action", "every", T::formula, "", 0, 0, "time", "", must, "time that it takes until the next (M61)"},
    {"action", "cooldown", T::time, "", 0, 1e6, "time", "0", may, "time before it can be done again"},
    {"action", "cost", T::pool_quantities, "", 0, huge, "points", "", may, "what it takes from the actor's pools; not done when it can't be paid (M10)"},
    {"action", "restores", T::pool_quantities, "", 0, huge, "points", "", may, "what doing it gives to the actor's own pools, once it is paid (M62)"},
    {"action", "spends", T::counts, "item", 1, 1e6, "units", "", may, "what doing it takes from the pack, as ammunition; not done without it; foes have no end of it (M61b)"},
    {"action", "summons", T::table, "", 0, 0, "", "", may, "whom it calls to the actor's side (M64a)"},
    {"action", "summons.foe", T::reference, "foe", 0, 0, "", "", must, "what comes, at the actor's level"},
    {"action", "summons.count", T::whole, "", 1, 100, "", "1", may, "how many come at a time"},
    {"action", "summons.most", T::whole, "", 1, 100, "", "", may, "how many of them may stand at a time; as many as come when left out"},
    {"action", "summons.duration", T::timed, "", 0, 1e6, "time", "always", may, "how long each stays, or \"always\""},
    {"action", "needs_worn", T::texts, "tag", 0, 0, "", "", may, "done only by who wears something with each of these tags; foes need nothing (M61)"},
    {"action", "weight", T::number, "", 0, 1e6, "", "1", may, "how often a foe that chooses by weight does it, against its others (M61a)"},
    {"action", "hit", T::formula, "", 0, 0, "chance", "", may, "chance that its blow hits, in place of the armoury's"},
    {"action", "crit", T::formula, "", 0, 0, "chance", "", may, "chance that its hit is critical, in place of the armoury's"},
    {"action", "crit_factor", T::formula, "", 0, 0, "factor", "", may, "what its critical hit multiplies an amount by, in place of the armoury's"},
    {"action", "deals", T::damage_formulas, "", 0, 0, "points", "", may, "raw damage by type (M62)"},
    {"action", "deals_up_to", T::damage_formulas, "", 0, 0, "points", "", may, "the most of it: raw damage is then drawn evenly from `deals` to this, in place of the armoury's spread"},
    {"action", "drains", T::pool_formulas, "", 0, 0, "share", "", may, "share of what the target lost that the actor's pool gains"},
    {"action", "targets", T::targets, "", 1, 1000, "", "front", may, "whom it strikes: front, all, or the first so many"},
    {"action", "when", T::formula, "", 0, 0, "truth", "", may, "done only when this holds"},
    {"action", "applies", T::table, "", 0, 0, "", "", may, "an effect that a hit lays on somebody"},
    {"action", "applies.effect", T::reference, "effect", 0, 0, "", "", must, "the effect"},
    {"action", "applies.chance", T::quantity, "", 0, 1, "chance", "1", may, "chance that a hit lays it; a formula of who strikes (`self`) and whom it hits (`other`)"},
    {"action", "applies.duration", T::timed, "", 0, 1e6, "time", "", must, "how long it lasts, or \"always\""},
    {"action", "applies.to", T::choice, "other|self", 0, 0, "", "other", may, "on whom"},

    {"action", "applies_also", T::tables, "", 0, 0, "", "", may, "further effects that a hit lays, each with a chance of its own"},
    {"action", "applies_also.effect", T::reference, "effect", 0, 0, "", "", must, "the effect"},
    {"action", "applies_also.chance", T::quantity, "", 0, 1, "chance", "1", may, "chance that a hit lays it"},
    {"action", "applies_also.duration", T::timed, "", 0, 1e6, "time", "", must, "how long it lasts, or \"always\""},
    {"action", "applies_also.to", T::choice, "other|self", 0, 0, "", "other", may, "on whom"},

    {"character", "calling", T::id_name, "", 0, 0, "", "", may, "its class or role"},
    {"character", "points", T::formula, "", 0, 0, "points", "", may, "points that it has to spend by a level, all levels together; a formula of `level` (M45)"},
    {"character", "base", T::amounts, "", -huge, huge, "points", "", must, "stats at the first level"},
    {"character", "growth", T::growths, "", -huge, huge, "points a level", "", may, "what each level above the first adds; or a formula of `level`"},
    {"character", "actions", T::references, "action", 0, 0, "", "", must, "what it does: the first that is ready (M61)"},
    {"character", "", T::bearer, "", 0, 0, "", "", may, ""},

    {"foe", "base", T::amounts, "", -huge, huge, "points", "", must, "stats at the first level"},
    {"foe", "growth", T::growths, "", -huge, huge, "points a level", "", may, "what each level above the first adds; or a formula of `level`"},
    {"foe", "actions", T::references, "action", 0, 0, "", "", may, "what it does: the first that is ready"},
    {"foe", "drops", T::reference, "drops", 0, 0, "", "", may, "what each of it leaves when a fight of a journey is won, besides the stage's (M97a)"},
    {"foe", "chooses", T::choice, "first|by weight", 0, 0, "", "first", may, "what it does of what is ready: the first on its list, or one by their weights (M61a)"},
    {"foe", "", T::bearer, "", 0, 0, "", "", may, ""},

    {"loadout", "character", T::reference, "character", 0, 0, "", "", must, "who wears it"},
    {"loadout", "levels", T::levels, "", 1, 1000, "level", "", may, "levels it is meant for; all when left out"},
    {"loadout", "worn", T::worn, "", 0, 0, "", "", may, "items by slot: an id, a list of them, or { item = …, SOCKET = [ … ] } with what its sockets hold"},
    {"loadout", "pack", T::counts, "item", 0, 1e6, "units", "", may, "items carried and how many"},
    {"loadout", "use", T::tables, "", 0, 0, "", "", may, "when a consumable is used; in place of what it does by itself (M33)"},
    {"loadout", "use.item", T::reference, "item", 0, 0, "", "", must, "which"},
    {"loadout", "use.when", T::formula, "", 0, 0, "truth", "1", may, "used only when this holds"},
    {"loadout", "actions", T::references, "action", 0, 0, "", "", may, "all that it does, in this order: actions of its character and of what it wears; when left out those of worn gear come first (M61)"},
    {"loadout", "upgrades", T::counts, "upgrade", 0, 1e6, "levels", "", may, "upgrades that the character has bought, in levels"},
    {"loadout", "points", T::counts, "upgrade", 0, 1e6, "parts", "", may, "how its points are spent at each level: upgrades that take points, each with its part (M45)"},
    {"loadout", "swap", T::tables, "", 0, 0, "", "", may, "changes to another loadout of the same character in a fight (M71)"},
    {"loadout", "swap.to", T::reference, "loadout", 0, 0, "", "", must, "which"},
    {"loadout", "swap.at", T::time, "", 0, 1e6, "time", "", may, "at this time; or `when`"},
    {"loadout", "swap.when", T::formula, "", 0, 0, "truth", "", may, "as soon as this holds; or `at`"},
    {"loadout", "swap.takes", T::time, "", 0, 1e6, "time", "0", may, "no action in that time, besides the draw_time of what is taken in hand"},

    {"encounter", "levels", T::levels, "", 1, 1000, "level", "", may, "levels it is met at; all when left out"},
    {"encounter", "foe_level", T::formula, "", 0, 0, "level", "", may, "level of the foes; that of the character when left out"},
    {"encounter", "foes", T::tables, "", 0, 0, "", "", must, "who comes"},
    {"encounter", "foes.foe", T::reference, "foe", 0, 0, "", "", must, "which foe"},
    {"encounter", "foes.count", T::whole, "", 0, 1000, "foes", "1", may, "how many; with `up_to` at least so many"},
    {"encounter", "foes.up_to", T::whole, "", 1, 1000, "foes", "", may, "at most so many: each fight draws how many come; even luck takes the middle (M65a)"},
    {"encounter", "foes.at", T::time, "", 0, 1e6, "time", "0", may, "when they arrive"},
    {"encounter", "allies", T::references, "loadout", 0, 0, "", "", may, "loadouts whose characters fight beside"},
    {"encounter", "requires", T::table, "", 0, 0, "", "", may, "what has to be there, or the encounter is not fought"},
    {"encounter", "requires.worn", T::references, "item", 0, 0, "", "", may, "items that are worn; carried is not worn"},
    {"encounter", "requires.carried", T::references, "item", 0, 0, "", "", may, "items that are worn or packed"},
    {"encounter", "weight", T::number, "", 0, 1e6, "", "1", may, "how much it counts in audits; 0 leaves it out"},
    {"encounter", "wanted_margin", T::pair, "", 0, 64, "margin", "", may, "the corridor that the designer aims for"},

    {"drops", "rolls", T::number, "", 0, 1000, "finds", "1", may, "mean finds of a win"},
    {"drops", "items", T::wanted_items, "item", 0, 0, "", "", must, "what can be found: a list of items, or a table of what they have in common"},
    {"drops", "items.tags", T::texts, "tag", 0, 0, "", "", may, "items with any of these tags; all when left out"},
    {"drops", "items.level_band", T::whole, "", 0, 1000, "levels", "1000", may, "items whose level is within so many of the finder's"},
    {"drops", "weights", T::counts, "item", 0, 1e6, "weight", "", may, "how often each is found, against the others; 1 when left out; given, it stands in place of the tiers' `drop_weight` (M97a)"},
    {"drops", "luck", T::formula, "", 0, 0, "", "0", may, "shifts weight towards the higher tiers; a formula of the finder's stats"},
    {"drops", "count", T::counts, "item", 1, 1e6, "units", "", may, "how many of an item one find is; 1 when left out (M54)"},

    {"journey", "character", T::reference, "character", 0, 0, "", "", must, "who goes"},
    {"journey", "start", T::reference, "loadout", 0, 0, "", "", must, "what it sets out with"},
    {"journey", "policy", T::choice, "best|first|tier", 0, 0, "", "best", may, "what it puts on: the best for the next fight, what came first, or the higher tier"},
    {"journey", "coin", T::number, "", 0, huge, "coin", "0", may, "coin at the start"},
    {"journey", "carries_over", T::references, "pool", 0, 0, "", "", may, "pools that a fight begins with as the one before left them; full after one that is lost, and after a rest (M97b)"},
    {"journey", "stage", T::tables, "", 0, 0, "", "", must, "the way, from first to last"},
    {"journey", "stage.encounter", T::reference, "encounter", 0, 0, "", "", must, "what is fought"},
    {"journey", "stage.wins", T::whole, "", 1, 10000, "wins", "1", may, "wins that the stage takes"},
    {"journey", "stage.tries", T::whole, "", 1, 100000, "fights", "100", may, "fights after which the journey ends here, unless it has won enough"},
    {"journey", "stage.drops", T::reference, "drops", 0, 0, "", "", may, "what a win finds"},
    {"journey", "stage.coin", T::number, "", 0, huge, "coin", "0", may, "coin that a win gives"},
    {"journey", "stage.rest", T::truth, "", 0, 0, "", "false", may, "true: pools that carry over are full at its beginning (M97b)"},
    {"journey", "stage.gives", T::counts, "item", 1, 1e6, "units", "", may, "what the stage gives at its end, as a reward (M97a)"},
    {"journey", "stage.gains", T::counts, "upgrade", 1, 1000, "levels", "", may, "levels of upgrades that the stage gives at its end"},
    {"journey", "stage.stock", T::counts, "item", 1, 1e6, "units", "", may, "what a shop before the stage sells, for value and coin (M97c)"},
    {"journey", "stage.price", T::number, "", 0, 1e6, "factor", "1", may, "× the value of what it sells"},
    {"journey", "stage.pays", T::number, "", 0, 1e6, "share", "0", may, "share of its value that the shop pays for gear that was found and is not worn"},
    {"journey", "stage.mends", T::number, "", 0, 1e6, "share", "0", may, "share of its value that mending a thing from worn out to whole costs; 0: nothing is mended (M97d)"},
    {"journey", "stage.level_gain", T::whole, "", 0, 1000, "levels", "0", may, "levels that the stage gives at its end"},
};

// What every bearer has; a row of Type::bearer says where it stands.
constexpr KeyRow bearer[] = {
    {"", "add", T::amounts, "", -huge, huge, "points", "", may, "points added to stats"},
    {"", "percent", T::amounts, "", -huge, huge, "percent points", "", may, "percent points, summed with all others (M1)"},
    {"", "times", T::amounts, "", 0, huge, "factor", "", may, "factors"},
    {"", "trigger", T::tables, "", 0, 0, "", "", may, "when something happens, apply an effect"},
    {"", "trigger.on", T::choice, "start|hit|crit|hurt|kill|use|life_lost", 0, 0, "", "", must, "what happens to who bears it: the fight starts, its blow hits or crits, it is hurt, it fells, it uses a consumable, it loses a life"},
    {"", "trigger.effect", T::reference, "effect", 0, 0, "", "", must, "the effect"},
    {"", "trigger.duration", T::timed, "", 0, 1e6, "time", "", must, "how long it lasts, or \"always\" (M22)"},
    {"", "trigger.chance", T::quantity, "", 0, 1, "chance", "1", may, "chance that it fires (M63); a formula of who bears it (`self`) and the other in the event (`other`)"},
    {"", "trigger.cooldown", T::time, "", 0, 1e6, "time", "0", may, "time before it can fire again"},
    {"", "trigger.to", T::choice, "self|other", 0, 0, "", "self", may, "on whom: who bears it, or the other in the event"},
};

// What every definition with an id has.
constexpr KeyRow common[] = {
    {"", "name", T::text, "", 0, 0, "", "", may, "name for people; the id when left out"},
    {"", "about", T::text, "", 0, 0, "", "", may, "a sentence about it"},
    {"", "note", T::text, "", 0, 0, "", "", may, "why it is so; shown on its card and in reports"},
    {"", "todo", T::text, "", 0, 0, "", "", may, "what is left to decide; listed by `check`"},
    {"", "allow", T::texts, "doubt", 0, 0, "", "", may, "doubts that are meant here and not told; why stands in `note`"},
};
// clang-format on

} // namespace

std::span<const KindRow> kind_rows() {
    return kinds;
}
std::span<const KeyRow> written_rows() {
    return keys;
}
std::span<const KeyRow> bearer_rows() {
    return bearer;
}
std::span<const KeyRow> common_rows() {
    return common;
}

} // namespace panoplon
