#include "armoury/build.h"

#include "armoury/build_kinds.h"
#include "armoury/checker.h"
#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

Scope stats_only(const Building& building) {
    Scope scope = building.scope();
    scope.pools_allowed = scope.other_allowed = scope.clock_allowed = false;
    return scope;
}

Scope level_only() {
    return {{}, {}, {}, false, false, false, false};
}

Scope self_only(const Building& building) {
    Scope scope = building.scope();
    scope.other_allowed = false;
    return scope;
}

namespace {

void build_common(const Record& record, const RawDefinition& from, Definition& into) {
    into.id = from.id;
    into.name = record.has("name") ? record.text("name") : from.id;
    into.about = record.text("about");
    into.note = record.text("note");
    into.todo = record.text("todo");
    into.allow = record.texts("allow");
    into.span = from.span;
}

void build_armoury(const Record& record, const RawDefinition&) {
    Armoury& armoury = record.building().armoury;
    armoury.name = record.text("name");
    armoury.clock = static_cast<Clock>(record.choice("clock"));
    armoury.levels = record.levels("levels", {0, 0});
}

void build_combat(const Record& record, const RawDefinition& from) {
    CombatRules& combat = record.building().armoury.combat;
    const Scope both = record.building().scope();
    combat.health = record.reference<PoolId>("health");
    combat.hit = record.formula("hit", both);
    combat.crit = record.formula("crit", both);
    combat.crit_factor = record.formula("crit_factor", both);
    combat.order = record.formula("order", self_only(record.building()));
    if (record.has("lives")) combat.lives = record.formula("lives", stats_only(record.building()));
    combat.crit_after_mitigation = record.choice("crit_on") == 1;
    if (record.has("returned")) combat.returned = record.formula("returned", both);
    combat.revive_share = record.number("revive_share");
    combat.spread = record.number("spread");
    combat.time_limit = record.time("time_limit");
    combat.event_limit = static_cast<std::int64_t>(record.number("event_limit"));
    combat.span = from.span;
}

void build_budget(const Record& record, const RawDefinition& from) {
    Budget& budget = record.building().armoury.budget;
    budget.points = record.formula("points", level_only());
    budget.tolerance = record.number("tolerance");
    budget.span = from.span;
}

Band build_band(const Record& record) {
    Band band;
    band.id = band.name = record.text("name");
    band.span = record.span();
    build_bearer(record, band);
    band.includes = record.has("from");
    band.edge = record.number(band.includes ? "from" : "above");
    if (record.has("from") == record.has("above"))
        record.building().sink.mistake(
            record.span(),
            fmt::format("the band '{}' has {} 'from' {} 'above'", band.name,
                        band.includes ? "both" : "neither", band.includes ? "and" : "nor"),
            "from = 1.0 applies at a load of exactly 1, above = 1.0 does not (M51)");
    return band;
}

/// M51a: a band for each step, with its share of what the whole ramp changes.
void build_ramp(const Record& record, const Band& whole, std::vector<Band>& into) {
    const double way = record.number("to") - whole.edge;
    constexpr double hair = 1e-9;
    constexpr double most_steps = 1000;
    const double steps = std::ceil(way / record.number("step") - hair);
    if (way <= 0 || steps > most_steps) {
        record.building().sink.mistake(
            record.span("to"),
            way <= 0 ? fmt::format("the ramp '{}' ends at {}, before it begins at {}", whole.name,
                                   shortest(record.number("to")), shortest(whole.edge))
                     : fmt::format("the ramp '{}' has {:.0f} steps", whole.name, steps),
            way <= 0 ? "`to` is the load at which all of it applies"
                     : "a thousand at most: give it a larger `step`");
        return;
    }
    for (int k = 1; k <= static_cast<int>(steps); ++k) {
        const double share = k / steps;
        Band band = whole;
        band.edge = whole.edge + way * share;
        band.id = band.name = fmt::format("{} {:.0f} %", whole.name, share * 100);
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (Amount& amount : band.modifiers.of(change))
                amount.amount = change == Change::times ? 1 + (amount.amount - 1) * share
                                                        : amount.amount * share;
        into.push_back(std::move(band));
    }
}

void build_carry(const Record& record, const RawDefinition& from) {
    Carry& carry = record.building().armoury.carry;
    carry.capacity = record.formula("capacity", stats_only(record.building()));
    carry.bag = record.whole_or_unlimited("bag");
    carry.worn_factor = record.number("worn_factor");
    carry.limit = record.number("limit");
    carry.span = from.span;
    for (const Record& part : record.tables("band")) {
        const Band band = build_band(part);
        if (part.has("to"))
            build_ramp(part, band, carry.bands);
        else
            carry.bands.push_back(band);
        if (part.has("step") && !part.has("to"))
            record.building().sink.mistake(
                part.span("step"), fmt::format("the band '{}' has a step and no end", band.name),
                "`to` makes a ramp of it (M51a)");
    }
    std::stable_sort(carry.bands.begin(), carry.bands.end(), [](const Band& a, const Band& b) {
        return a.edge != b.edge ? a.edge < b.edge : a.includes > b.includes;
    });
}

void build_yardstick(const Record& record, const RawDefinition&) {
    Armoury& armoury = record.building().armoury;
    armoury.yardstick = record.reference<EncounterId>("encounter");
    armoury.wanted_low = record.formula("wanted_low", level_only());
    armoury.wanted_high = record.formula("wanted_high", level_only());
    for (const auto& [key, other] :
         {std::pair("wanted_low", "wanted_high"), std::pair("wanted_high", "wanted_low")})
        if (record.has(key) && !record.has(other))
            record.building().sink.mistake(
                record.span(key),
                fmt::format("{} is there and {} is not: a corridor has two sides", key, other));
}

void build_audit(const Record& record, const RawDefinition&) {
    AuditRules& audit = record.building().armoury.audit;
    audit.window = record.whole("window");
    audit.grace = record.whole("grace");
    audit.step = record.whole("step");
    audit.among = static_cast<Among>(record.choice("among"));
    if (record.has("dominant")) {
        const Record dominant = record.table("dominant");
        audit.dominant_share = dominant.number("share");
        audit.dominant_grip = dominant.number("grip");
    }
    if (record.has("useless"))
        audit.useless_shortfall = record.table("useless").number("shortfall");
}

void build_damage(const Record& record, DamageType& damage) {
    Scope scope = record.building().scope();
    scope.amount_allowed = true;
    damage.mitigated = record.formula("mitigated", scope);
}

void build_stat(const Record& record, Stat& stat) {
    stat.better = static_cast<Better>(record.choice("better"));
    stat.min = record.number("min");
    stat.max = record.number("max");
    stat.cost = record.number("cost");
    stat.rounding = static_cast<Rounding>(record.choice("round"));
    stat.step = record.number("step");
    stat.value = record.formula("value", stats_only(record.building()));
    stat.outside_fights = record.choice("use") == 1;
    if (stat.min > stat.max)
        record.building().sink.mistake(
            record.span("min"), fmt::format("the stat '{}' has its min above its max", stat.id));
}

void build_pool(const Record& record, Pool& pool) {
    pool.max = record.reference<StatId>("max");
    pool.regen = record.formula("regen", self_only(record.building()));
    pool.period = record.time("period");
    pool.start = record.number("start");
    pool.keep_share = record.choice("on_ceiling") == 1;
    if (record.has("shields"))
        pool.shields = record.formula("shields", self_only(record.building()));
}

/// Builds one definition of a kind that has many.
template <class Item, std::vector<Item> Armoury::*list, void (*build)(const Record&, Item&)>
void build_one(const Record& record, const RawDefinition& from) {
    const int index = record.building().names.find(from.kind, from.id);
    Item& item = (record.building().armoury.*list)[static_cast<std::size_t>(index)];
    build_common(record, from, item);
    build(record, item);
}

template <class Item, std::vector<Item> Armoury::*list>
void make_room_for(Armoury& armoury, std::size_t count) {
    (armoury.*list).resize(count);
}

struct KindBuilder {
    std::string_view kind;
    void (*build)(const Record&, const RawDefinition&);
    void (*make_room)(Armoury&, std::size_t); ///< null for a kind of which there is one
};

template <class Item, std::vector<Item> Armoury::*list, void (*build)(const Record&, Item&)>
constexpr KindBuilder many(std::string_view kind) {
    return {kind, build_one<Item, list, build>, make_room_for<Item, list>};
}

constexpr KindBuilder builders[] = {
    {"armoury", build_armoury, nullptr},
    {"combat", build_combat, nullptr},
    {"budget", build_budget, nullptr},
    {"carry", build_carry, nullptr},
    {"yardstick", build_yardstick, nullptr},
    {"audit", build_audit, nullptr},
    many<DamageType, &Armoury::damages, build_damage>("damage"),
    many<Stat, &Armoury::stats, build_stat>("stat"),
    many<Pool, &Armoury::pools, build_pool>("pool"),
    many<Tier, &Armoury::tiers, build_tier>("tier"),
    many<Slot, &Armoury::slots, build_slot>("slot"),
    many<ItemSet, &Armoury::sets, build_set>("set"),
    many<Affix, &Armoury::affixes, build_affix>("affix"),
    many<Pattern, &Armoury::patterns, build_pattern>("pattern"),
    many<Item, &Armoury::items, build_item>("item"),
    many<Effect, &Armoury::effects, build_effect>("effect"),
    many<Upgrade, &Armoury::upgrades, build_upgrade>("upgrade"),
    many<Action, &Armoury::actions, build_action>("action"),
    many<Character, &Armoury::characters, build_character>("character"),
    many<Foe, &Armoury::foes, build_foe>("foe"),
    many<Loadout, &Armoury::loadouts, build_loadout>("loadout"),
    many<Encounter, &Armoury::encounters, build_encounter>("encounter"),
    many<Drops, &Armoury::drops, build_drops>("drops"),
    many<Journey, &Armoury::journeys, build_journey>("journey"),
};

} // namespace

void build_definition(Building& building, const RawDefinition& definition) {
    for (const KindBuilder& builder : builders)
        if (builder.kind == definition.kind)
            builder.build(Record(building, definition.kind, definition.body), definition);
}

void make_room(Building& building) {
    for (const KindBuilder& builder : builders)
        if (builder.make_room)
            builder.make_room(building.armoury, building.names.all(builder.kind).size());
}

} // namespace panoplon
