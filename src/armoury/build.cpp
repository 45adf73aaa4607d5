#include "armoury/build.h"

#include "armoury/checker.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The keys that every definition with an id has.
void build_common(const Record& record, const RawDefinition& from, Definition& into) {
    into.id = from.id;
    into.name = record.has("name") ? record.text("name") : from.id;
    into.about = record.text("about");
    into.note = record.text("note");
    into.todo = record.text("todo");
    into.span = from.span;
}

Scope stats_only(const Building& building) {
    Scope scope = building.scope();
    scope.pools_allowed = scope.other_allowed = scope.clock_allowed = false;
    return scope;
}

Scope level_only() {
    return {{}, {}, false, false, false, false};
}

Scope self_only(const Building& building) {
    Scope scope = building.scope();
    scope.other_allowed = false;
    return scope;
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
    band.modifiers = record.modifiers();
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

void build_carry(const Record& record, const RawDefinition& from) {
    Carry& carry = record.building().armoury.carry;
    carry.capacity = record.formula("capacity", stats_only(record.building()));
    carry.bag = record.whole_or_unlimited("bag");
    carry.worn_factor = record.number("worn_factor");
    carry.limit = record.number("limit");
    carry.span = from.span;
    for (const Record& band : record.tables("band")) carry.bands.push_back(build_band(band));
    std::stable_sort(carry.bands.begin(), carry.bands.end(), [](const Band& a, const Band& b) {
        return a.edge != b.edge ? a.edge < b.edge : a.includes > b.includes;
    });
}

void build_yardstick(const Record& record, const RawDefinition&) {
    record.building().armoury.yardstick = record.reference<EncounterId>("encounter");
}

void build_audit(const Record& record, const RawDefinition&) {
    AuditRules& audit = record.building().armoury.audit;
    audit.window = record.whole("window");
    audit.grace = record.whole("grace");
    audit.step = record.whole("step");
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
    stat.value = record.formula("value", stats_only(record.building()));
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
}

void build_tier(const Record& record, Tier& tier) {
    tier.modifiers = record.modifiers();
    tier.rank = record.whole("rank");
    tier.mark = record.text("mark");
    tier.colour = static_cast<std::uint32_t>(parse_colour(record.text("colour")));
    tier.budget = record.number("budget");
    tier.stat_factor = record.number("stat_factor");
}

void build_slot(const Record& record, Slot& slot) {
    slot.count = record.whole("count");
}

Use build_use(const Record& record, const Item& item) {
    Use use;
    use.restore = record.numbers_by<PoolId>("pool", "restore");
    use.effect = record.reference<EffectId>("effect");
    use.duration = record.timed("duration");
    use.cooldown = record.time("cooldown");
    use.group = record.text("group");
    use.takes = record.time("takes");
    Sink& sink = record.building().sink;
    if (use.effect.given() && !record.has("duration"))
        sink.mistake(record.span("effect"),
                     fmt::format("the use of '{}' gives an effect without a duration", item.id),
                     "write duration = a time, or \"always\" for one that does not end (M22)");
    if (!use.effect.given() && record.has("duration"))
        sink.mistake(record.span("duration"),
                     fmt::format("the use of '{}' has a duration, but no effect", item.id));
    if (!use.effect.given() && use.restore.empty())
        sink.mistake(
            record.span(),
            fmt::format("the use of '{}' neither restores nor gives an effect", item.id),
            "use = { restore = { health = 120 } } or use = { effect = \"…\", duration = 20 }");
    return use;
}

void build_item(const Record& record, Item& item) {
    item.modifiers = record.modifiers();
    item.slot = record.reference<SlotId>("slot");
    item.tier = record.reference<TierId>("tier");
    item.level = record.whole("level");
    item.weight = to_thousandths(record.number("weight"));
    item.value = record.number("value");
    item.stack = record.whole_or_unlimited("stack");
    item.actions = record.references<ActionId>("actions");
    item.tags = record.texts("tags");
    if (record.has("use")) item.use = build_use(record.table("use"), item);
    if (item.use && item.worn())
        record.building().sink.mistake(
            record.span("use"),
            fmt::format("'{}' has a slot and a use: it is worn or it is used up", item.id));
}

void build_effect(const Record& record, Effect& effect) {
    effect.modifiers = record.modifiers();
    effect.per_time = record.numbers_by<PoolId>("pool", "per_time");
    effect.period = record.time("period");
    effect.again = static_cast<Again>(record.choice("again"));
    effect.pile_max = record.whole("pile_max");
}

void build_action(const Record& record, Action& action) {
    const Scope both = record.building().scope();
    action.every = record.formula("every", self_only(record.building()));
    action.cooldown = record.time("cooldown");
    action.cost = record.numbers_by<PoolId>("pool", "cost");
    action.deals = record.formulas_by<DamageId>("damage", "deals", both);
    action.drains = record.formulas_by<PoolId>("pool", "drains", both);
    action.targets = record.targets("targets");
    action.when = record.formula("when", both);
    if (action.every.given() && action.every.variables.empty() && Evaluator(action.every)({}) <= 0)
        record.building().sink.mistake(record.span("every"),
                                       fmt::format("'every' of '{}' is {}: time would stand still",
                                                   action.id, action.every.text),
                                       "an action takes more than 0 (M66)");
    if (!record.has("applies")) return;
    const Record applies = record.table("applies");
    Application application;
    application.effect = applies.reference<EffectId>("effect");
    application.chance = applies.number("chance");
    application.duration = applies.timed("duration");
    application.to_self = applies.choice("to") == 1;
    if (application.effect.given() && application.duration > 0) action.applies = application;
}

void build_fighter(const Record& record, Fighter& fighter) {
    fighter.modifiers = record.modifiers();
    fighter.base = record.amounts("base");
    fighter.growth = record.growths("growth");
    fighter.actions = record.references<ActionId>("actions");
}

void build_character(const Record& record, Character& character) {
    build_fighter(record, character);
    character.calling = record.text("calling");
}

void build_foe(const Record& record, Foe& foe) {
    build_fighter(record, foe);
}

void build_loadout(const Record& record, Loadout& loadout) {
    Building& building = record.building();
    loadout.character = record.reference<CharacterId>("character");
    loadout.levels = record.levels("levels", {1, 1000});
    if (const Node* worn = record.value("worn")) {
        for (const Entry& entry : worn->entries)
            for (const Node& item : entry.value.items)
                loadout.worn.push_back(
                    {SlotId(static_cast<std::size_t>(building.names.find("slot", entry.key))),
                     ItemId(static_cast<std::size_t>(building.names.find("item", item.text))),
                     item.span});
        std::stable_sort(loadout.worn.begin(), loadout.worn.end(),
                         [](const WornItem& a, const WornItem& b) { return a.slot < b.slot; });
    }
    if (const Node* pack = record.value("pack"))
        for (const Entry& entry : pack->entries)
            if (entry.value.number > 0)
                loadout.pack.push_back(
                    {ItemId(static_cast<std::size_t>(building.names.find("item", entry.key))),
                     static_cast<std::int64_t>(entry.value.number), entry.key_span});
    for (const Record& use : record.tables("use"))
        if (use.has("item"))
            loadout.uses.push_back({use.reference<ItemId>("item"),
                                    use.formula("when", self_only(building)), use.span()});
}

void build_encounter(const Record& record, Encounter& encounter) {
    encounter.levels = record.levels("levels", {1, 1000});
    encounter.foe_level = record.formula("foe_level", level_only());
    encounter.weight = record.number("weight");
    if (record.has("wanted_margin")) encounter.wanted_margin = record.two("wanted_margin");
    for (const Record& group : record.tables("foes"))
        if (group.has("foe"))
            encounter.foes.push_back(
                {group.reference<FoeId>("foe"), group.whole("count"), group.time("at")});
    if (record.has("foes") && record.value("foes")->items.empty())
        record.building().sink.mistake(
            record.span("foes"), fmt::format("nobody comes to the encounter '{}'", encounter.id));
    std::stable_sort(encounter.foes.begin(), encounter.foes.end(),
                     [](const FoeGroup& a, const FoeGroup& b) { return a.at < b.at; });
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

constexpr KindBuilder builders[] = {
    {"armoury", build_armoury, nullptr},
    {"combat", build_combat, nullptr},
    {"budget", build_budget, nullptr},
    {"carry", build_carry, nullptr},
    {"yardstick", build_yardstick, nullptr},
    {"audit", build_audit, nullptr},
    {"damage", build_one<DamageType, &Armoury::damages, build_damage>,
     make_room_for<DamageType, &Armoury::damages>},
    {"stat", build_one<Stat, &Armoury::stats, build_stat>, make_room_for<Stat, &Armoury::stats>},
    {"pool", build_one<Pool, &Armoury::pools, build_pool>, make_room_for<Pool, &Armoury::pools>},
    {"tier", build_one<Tier, &Armoury::tiers, build_tier>, make_room_for<Tier, &Armoury::tiers>},
    {"slot", build_one<Slot, &Armoury::slots, build_slot>, make_room_for<Slot, &Armoury::slots>},
    {"item", build_one<Item, &Armoury::items, build_item>, make_room_for<Item, &Armoury::items>},
    {"effect", build_one<Effect, &Armoury::effects, build_effect>,
     make_room_for<Effect, &Armoury::effects>},
    {"action", build_one<Action, &Armoury::actions, build_action>,
     make_room_for<Action, &Armoury::actions>},
    {"character", build_one<Character, &Armoury::characters, build_character>,
     make_room_for<Character, &Armoury::characters>},
    {"foe", build_one<Foe, &Armoury::foes, build_foe>, make_room_for<Foe, &Armoury::foes>},
    {"loadout", build_one<Loadout, &Armoury::loadouts, build_loadout>,
     make_room_for<Loadout, &Armoury::loadouts>},
    {"encounter", build_one<Encounter, &Armoury::encounters, build_encounter>,
     make_room_for<Encounter, &Armoury::encounters>},
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
