#include "armoury/bounds.h"
#include "armoury/build_kinds.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The most of each damage that has a range; of the others what they deal.
void build_ranges(const Record& record, Action& action) {
    const auto most =
        record.formulas_by<DamageId>("damage", "deals_up_to", record.building().scope());
    if (most.empty()) return;
    for (const auto& [type, formula] : action.deals) action.deals_up_to.push_back(formula);
    for (const auto& [type, formula] : most) {
        const auto at =
            std::find_if(action.deals.begin(), action.deals.end(),
                         [&, damage = type](const auto& deals) { return deals.first == damage; });
        if (at != action.deals.end())
            action.deals_up_to[static_cast<std::size_t>(at - action.deals.begin())] = formula;
        else
            record.building().sink.mistake(
                record.span("deals_up_to"),
                fmt::format("'deals_up_to' of '{}' has {}, which it does not deal", action.id,
                            record.building().names.all("damage")[type.index()]),
                "`deals` has the least of it");
    }
}

Summons build_summons(const Record& record, const Action& action) {
    Summons summons;
    summons.foe = record.reference<FoeId>("foe");
    summons.count = summons.most = record.whole("count");
    if (record.has("most")) summons.most = record.whole("most");
    summons.duration = record.timed("duration");
    if (summons.most < summons.count)
        record.building().sink.mistake(
            record.span("most"),
            fmt::format("'{}' calls {} at a time, of which only {} may stand", action.id,
                        summons.count, summons.most),
            "`most` is `count` at least");
    return summons;
}

void build_application(const Record& record, Action& action) {
    Application application;
    application.effect = record.reference<EffectId>("effect");
    application.chance = record.quantity("chance", record.building().scope());
    application.duration = record.timed("duration");
    application.to_self = record.choice("to") == 1;
    if (application.effect.given() && application.duration > 0)
        action.applies.push_back(std::move(application));
}

} // namespace

void build_action(const Record& record, Action& action) {
    const Scope both = record.building().scope();
    action.every = record.formula("every", self_only(record.building()));
    action.cooldown = record.time("cooldown");
    const Scope own = self_only(record.building());
    action.cost = record.quantities_by<PoolId>("pool", "cost", own);
    action.restores = record.quantities_by<PoolId>("pool", "restores", own);
    action.spends = build_counts(record, "spends");
    if (record.has("summons")) action.summons = build_summons(record.table("summons"), action);
    action.needs_worn = record.texts("needs_worn");
    action.weight = record.number("weight");
    if (record.has("hit")) action.hit = record.formula("hit", both);
    if (record.has("crit")) action.crit = record.formula("crit", both);
    if (record.has("crit_factor")) action.crit_factor = record.formula("crit_factor", both);
    action.deals = record.formulas_by<DamageId>("damage", "deals", both);
    build_ranges(record, action);
    action.drains = record.formulas_by<PoolId>("pool", "drains", both);
    action.targets = record.targets("targets");
    action.when = record.formula("when", both);
    if (action.every.given() && action.every.variables.empty() && Evaluator(action.every)({}) <= 0)
        record.building().sink.mistake(record.span("every"),
                                       fmt::format("'every' of '{}' is {}: time would stand still",
                                                   action.id, action.every.text),
                                       "an action takes more than 0 (M66)");
    if (record.has("applies")) build_application(record.table("applies"), action);
    for (const Record& also : record.tables("applies_also")) build_application(also, action);
}

namespace {

void build_fighter(const Record& record, Fighter& fighter) {
    build_bearer(record, fighter);
    fighter.base = record.amounts("base");
    fighter.growth = record.growths("growth");
    fighter.actions = record.references<ActionId>("actions");
}

} // namespace

void build_character(const Record& record, Character& character) {
    build_fighter(record, character);
    character.calling = record.text("calling");
    character.points = record.formula("points", level_only());
}

void build_foe(const Record& record, Foe& foe) {
    build_fighter(record, foe);
    foe.drops = record.reference<DropsId>("drops");
    foe.chooses_by_weight = record.choice("chooses") == 1;
}

namespace {

/// Items by slot, each with what its sockets hold; in the order of the slots.
std::vector<WornItem> build_worn(const Record& record, const std::vector<Entry>& slots) {
    std::vector<WornItem> list;
    for (const Entry& entry : slots) {
        if (is_key_of_worn(entry.key)) continue;
        for (const Node& worn : entry.value.items) {
            // Which draws its affixes are of is found when items are built: link().
            const Record one(record.building(), "loadout", worn, "worn");
            list.push_back({record.named<SlotId>("slot", entry.key),
                            record.named<ItemId>("item", worn.find("item")->text),
                            worn.find("item")->span,
                            build_worn(record, worn.entries),
                            {one.amounts("rolled"), one.references<AffixId>("affixes")},
                            one.whole("felled")});
        }
    }
    std::stable_sort(list.begin(), list.end(),
                     [](const WornItem& a, const WornItem& b) { return a.slot < b.slot; });
    return list;
}

std::vector<Swap> build_swaps(const Record& record) {
    std::vector<Swap> list;
    for (const Record& part : record.tables("swap")) {
        Swap swap;
        swap.to = part.reference<LoadoutId>("to");
        if (part.has("at")) swap.at = part.time("at");
        swap.when = part.formula("when", self_only(record.building()));
        swap.takes = part.time("takes");
        swap.span = part.span();
        if (part.has("at") == part.has("when"))
            record.building().sink.mistake(part.span(),
                                           fmt::format("a swap has {} 'at' {} 'when'",
                                                       part.has("at") ? "both" : "neither",
                                                       part.has("at") ? "and" : "nor"),
                                           "at = 30 swaps at that time, when = \"…\" as soon as "
                                           "that holds (M71)");
        if (swap.to.given()) list.push_back(std::move(swap));
    }
    return list;
}

} // namespace

void build_loadout(const Record& record, Loadout& loadout) {
    Building& building = record.building();
    loadout.character = record.reference<CharacterId>("character");
    loadout.levels = record.levels("levels", {1, 1000});
    if (const Node* worn = record.value("worn")) loadout.worn = build_worn(record, worn->entries);
    loadout.pack = build_counts(record, "pack");
    for (const Record& use : record.tables("use"))
        if (use.has("item"))
            loadout.uses.push_back({use.reference<ItemId>("item"),
                                    use.formula("when", self_only(building)), use.span()});
    for (const auto& [key, list] :
         {std::pair("upgrades", &loadout.upgrades), std::pair("points", &loadout.points)})
        if (const Node* upgrades = record.value(key))
            for (const Entry& entry : upgrades->entries)
                list->push_back({record.named<UpgradeId>("upgrade", entry.key),
                                 static_cast<int>(entry.value.number), entry.key_span});
    loadout.swaps = build_swaps(record);
    loadout.actions = record.references<ActionId>("actions");
    if (record.has("actions") && record.value("actions")->items.empty())
        building.sink.mistake(record.span("actions"),
                              fmt::format("'{}' does nothing at all", loadout.id),
                              "leave `actions` out, and those of worn gear come first (M61)");
}

namespace {

FoeGroup build_group(const Record& record, const Encounter& encounter) {
    FoeGroup group{record.reference<FoeId>("foe"), record.whole("count"), record.whole("count"),
                   record.time("at")};
    if (record.has("up_to")) group.most = record.whole("up_to");
    if (group.most < group.count)
        record.building().sink.mistake(
            record.span("up_to"),
            fmt::format("of a group of '{}' at least {} and at most {} come", encounter.id,
                        group.count, group.most),
            "`up_to` is `count` at least");
    return group;
}

} // namespace

void build_encounter(const Record& record, Encounter& encounter) {
    encounter.levels = record.levels("levels", {1, 1000});
    encounter.foe_level = record.formula("foe_level", level_only());
    encounter.weight = record.number("weight");
    if (record.has("wanted_margin")) encounter.wanted_margin = record.two("wanted_margin");
    for (const Record& group : record.tables("foes"))
        if (group.has("foe")) encounter.foes.push_back(build_group(group, encounter));
    std::size_t foes = 0;
    for (const FoeGroup& group : encounter.foes)
        foes += static_cast<std::size_t>(std::max(group.count, group.most));
    if (foes > most_foes)
        record.building().sink.mistake(
            record.span("foes"), fmt::format("{} foes come to the encounter '{}'; at most {} may",
                                             foes, encounter.id, most_foes));
    if (!encounter.foes.empty() &&
        std::all_of(encounter.foes.begin(), encounter.foes.end(),
                    [](const FoeGroup& group) { return group.count == 0; }))
        record.building().sink.mistake(
            record.span("foes"),
            fmt::format("it may be that nobody comes to the encounter '{}'", encounter.id),
            "one group of foes has count = 1 or more");
    if (record.has("foes") && record.value("foes")->items.empty())
        record.building().sink.mistake(
            record.span("foes"), fmt::format("nobody comes to the encounter '{}'", encounter.id));
    std::stable_sort(encounter.foes.begin(), encounter.foes.end(),
                     [](const FoeGroup& a, const FoeGroup& b) { return a.at < b.at; });
    encounter.allies = record.references<LoadoutId>("allies");
    if (!record.has("requires")) return;
    const Record required = record.table("requires");
    encounter.requires_worn = required.references<ItemId>("worn");
    encounter.requires_carried = required.references<ItemId>("carried");
}

void build_drops(const Record& record, Drops& drops) {
    drops.rolls = record.number("rolls");
    drops.luck = record.formula("luck", stats_only(record.building()));
    drops.counts = build_counts(record, "count");
    drops.weights = build_counts(record, "weights");
    const Node* items = record.value("items");
    if (!items) return;
    if (items->kind == Node::Kind::list) {
        drops.items = record.references<ItemId>("items");
        if (items->items.empty())
            record.building().sink.mistake(record.span("items"),
                                           fmt::format("'{}' drops nothing", drops.id));
        return;
    }
    const Record wanted = record.table("items");
    drops.tags = wanted.texts("tags");
    drops.level_band = wanted.whole("level_band");
}

namespace {

std::vector<std::pair<UpgradeId, int>> build_gains(const Record& record) {
    std::vector<std::pair<UpgradeId, int>> list;
    if (const Node* gains = record.value("gains"))
        for (const Entry& entry : gains->entries)
            list.emplace_back(record.named<UpgradeId>("upgrade", entry.key),
                              static_cast<int>(entry.value.number));
    return list;
}

} // namespace

void build_journey(const Record& record, Journey& journey) {
    journey.character = record.reference<CharacterId>("character");
    journey.start = record.reference<LoadoutId>("start");
    journey.policy = static_cast<Policy>(record.choice("policy"));
    journey.coin = record.number("coin");
    journey.carries_over = record.references<PoolId>("carries_over");
    for (const Record& part : record.tables("stage")) {
        Stage stage;
        stage.encounter = part.reference<EncounterId>("encounter");
        stage.wins = part.whole("wins");
        stage.tries = part.whole("tries");
        stage.drops = part.reference<DropsId>("drops");
        stage.coin = part.number("coin");
        stage.level_gain = part.whole("level_gain");
        stage.rest = part.truth("rest");
        stage.gives = build_counts(part, "gives");
        stage.gains = build_gains(part);
        stage.shop = {build_counts(part, "stock"), part.number("price"), part.number("pays"),
                      part.number("mends")};
        stage.span = part.span();
        if (stage.encounter.given()) journey.stages.push_back(stage);
    }
    if (record.has("stage") && record.value("stage")->items.empty())
        record.building().sink.mistake(record.span("stage"),
                                       fmt::format("the journey '{}' goes nowhere", journey.id));
}

} // namespace panoplon
