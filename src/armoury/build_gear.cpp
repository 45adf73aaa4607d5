#include "armoury/build.h"
#include "armoury/build_kinds.h"

#include "armoury/checker.h"
#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <span>

namespace panoplon {

Only build_only(const Record& record) {
    return {record.texts("calling"), record.references<CharacterId>("character")};
}

std::vector<PackedItem> build_counts(const Record& record, std::string_view key) {
    std::vector<PackedItem> list;
    if (const Node* node = record.value(key))
        for (const Entry& entry : node->entries)
            if (entry.value.number > 0)
                list.push_back({record.named<ItemId>("item", entry.key),
                                static_cast<std::int64_t>(entry.value.number), entry.key_span});
    return list;
}

namespace {

std::vector<Trigger> build_triggers(const Record& record) {
    std::vector<Trigger> list;
    for (const Record& part : record.tables("trigger")) {
        Trigger trigger;
        trigger.effect = part.reference<EffectId>("effect");
        trigger.duration = part.timed("duration");
        if (!part.has("on") || !trigger.effect.given() || trigger.duration <= 0) continue;
        trigger.on = static_cast<TriggerEvent>(part.choice("on"));
        trigger.chance = part.quantity("chance", record.building().scope());
        trigger.cooldown = part.time("cooldown");
        trigger.to_self = part.choice("to") == 0;
        trigger.span = part.span();
        list.push_back(trigger);
    }
    return list;
}

} // namespace

void build_bearer(const Record& record, Bearer& bearer) {
    bearer.modifiers = record.modifiers();
    bearer.triggers = build_triggers(record);
}

void build_tier(const Record& record, Tier& tier) {
    build_bearer(record, tier);
    tier.rank = record.whole("rank");
    tier.mark = record.text("mark");
    tier.colour_given = record.has("colour") || record.has("ground");
    tier.ink.colour = static_cast<Colour>(parse_colour(record.text("colour")));
    if (record.has("ground"))
        tier.ink.ground = static_cast<Colour>(parse_colour(record.text("ground")));
    tier.budget = record.number("budget");
    tier.stat_factor = record.number("stat_factor");
    tier.drop_weight = record.number("drop_weight");
    tier.value_factor = record.number("value_factor");
}

void build_slot(const Record& record, Slot& slot) {
    slot.count = record.whole("count");
    slot.socket = record.truth("socket");
    slot.budget = record.number("budget");
    if (slot.socket && slot.count > 1)
        record.building().sink.mistake(
            record.span("count"),
            fmt::format("the socket '{}' has a count; an item has as many as it lists", slot.id),
            "as in sockets = [\"inlay\", \"inlay\"]");
}

void build_set(const Record& record, ItemSet& set) {
    for (const Record& part : record.tables("step")) {
        SetStep step;
        build_bearer(part, step);
        step.count = part.has("count") ? part.whole("count") : 1;
        step.id = fmt::format("{}.{}", set.id, step.count);
        step.name = fmt::format("{} ({})", set.name, step.count);
        step.span = part.span();
        set.steps.push_back(std::move(step));
    }
    std::stable_sort(set.steps.begin(), set.steps.end(),
                     [](const SetStep& a, const SetStep& b) { return a.count < b.count; });
    for (std::size_t i = 1; i < set.steps.size(); ++i)
        if (set.steps[i].count == set.steps[i - 1].count)
            record.building().sink.mistake(set.steps[i].span,
                                           fmt::format("the set '{}' has two steps for {} pieces",
                                                       set.id, set.steps[i].count));
}

void build_affix(const Record& record, Affix& affix) {
    affix.modifiers = record.modifiers();
    affix.tags = record.texts("tags");
    affix.weight = record.number("weight");
    affix.level = record.whole("level");
}

void build_pattern(const Record&, Pattern&) {}

namespace {

Use build_use(const Record& record, const Item& item) {
    Use use;
    const Scope both = record.building().scope();
    if (record.has("when")) use.when = record.formula("when", self_only(record.building()));
    use.restore = record.quantities_by<PoolId>("pool", "restore", both);
    use.removes.words = record.texts("removes");
    use.does = record.reference<ActionId>("does");
    use.effect = record.reference<EffectId>("effect");
    use.duration = record.timed("duration");
    use.cooldown = record.time("cooldown");
    use.group = record.text("group");
    use.takes = record.quantity("takes", self_only(record.building()));
    if (record.has("only")) use.only = build_only(record.table("only"));
    use.to_allies = record.choice("to") == 1;
    Sink& sink = record.building().sink;
    if (use.effect.given() && !record.wrote("duration"))
        sink.mistake(record.span("effect"),
                     fmt::format("the use of '{}' gives an effect without a duration", item.id),
                     "write duration = a time, or \"always\" for one that does not end (M22)");
    if (!record.wrote("effect") && record.has("duration"))
        sink.mistake(record.span("duration"),
                     fmt::format("the use of '{}' has a duration, but no effect", item.id));
    if (!record.wrote("effect") && !record.wrote("restore") && !record.wrote("removes") &&
        !record.wrote("does"))
        sink.mistake(
            record.span(),
            fmt::format("the use of '{}' restores nothing, gives no effect, ends none and does "
                        "nothing to anybody",
                        item.id),
            "use = { restore = { health = 120 } } or use = { effect = \"…\", duration = 20 }");
    return use;
}

Needs build_needs(const Record& record) {
    Needs needs;
    static_cast<Only&>(needs) = build_only(record);
    needs.level = record.whole("level");
    needs.stats = record.amounts("stats");
    return needs;
}

/// The places that an item takes: its own slot's and those it lists besides (M40).
std::vector<SlotId> build_takes(const Record& record, SlotId own) {
    std::vector<SlotId> takes = record.references<SlotId>("takes");
    if (!own.given()) return {};
    if (std::find(takes.begin(), takes.end(), own) == takes.end()) takes.push_back(own);
    std::sort(takes.begin(), takes.end());
    return takes;
}

/// Lists what came from patterns; true when something that counts is the item's own.
bool trace(const Node& table, const std::string& parent, std::vector<Inherited>& into) {
    bool own = false;
    for (const Entry& entry : table.entries) {
        if (!entry.value.given()) continue;
        const std::string path = parent.empty() ? entry.key : parent + "." + entry.key;
        const bool says_little =
            parent.empty() && (entry.key == "like" ||
                               std::any_of(common_rows().begin(), common_rows().end(),
                                           [&](const KeyRow& row) { return row.path == path; }));
        if (entry.value.kind == Node::Kind::table)
            own = trace(entry.value, path, into) || own;
        else if (!entry.from.empty())
            into.push_back({path, entry.from});
        else
            own = own || !says_little;
    }
    return own;
}

void check_item(const Record& record, const Item& item) {
    const auto mistake = [&](const char* key, std::string message, std::string hint = {}) {
        record.building().sink.mistake(record.span(key), std::move(message), std::move(hint));
    };
    if (item.use && item.worn())
        mistake("use",
                fmt::format("'{}' has a slot and a use: it is worn or it is used up", item.id));
    for (const char* key : {"takes", "sockets", "set", "unique", "grants", "trigger", "affixes",
                            "grows", "draw_time", "lasts", "cursed"})
        if (record.has(key) && !record.wrote("slot"))
            mistake(key, fmt::format("'{}' has '{}' but no slot: it is never worn", item.id, key),
                    "give it slot = \"…\"");
    for (const std::string& word : item.accept) {
        const std::span<const char* const> words(acceptable_verdicts);
        if (std::find(words.begin(), words.end(), word) != words.end()) continue;
        const std::vector<std::string> names(words.begin(), words.end());
        const auto near = nearest_name(word, names);
        mistake("accept", fmt::format("'{}' is no verdict that can be accepted", word),
                near ? fmt::format("did you mean '{}'?", *near) : join(names, ", "));
    }
}

} // namespace

namespace {

/// What is drawn for each find; until then its middle stands among what the item adds. Which end is
/// the worse, the stats tell once they are built: find_worse_rolls().
void build_rolls(const Record& record, Item& item) {
    for (const Amount& other : record.amounts("add_up_to")) {
        std::vector<Amount>& added = item.modifiers.add;
        auto at = std::find_if(added.begin(), added.end(),
                               [&](const Amount& one) { return one.stat == other.stat; });
        if (at == added.end()) {
            added.push_back({other.stat, 0});
            std::sort(added.begin(), added.end(),
                      [](const Amount& a, const Amount& b) { return a.stat < b.stat; });
            at = std::find_if(added.begin(), added.end(),
                              [&](const Amount& one) { return one.stat == other.stat; });
        }
        const auto [low, high] = std::minmax(at->amount, other.amount);
        if (low == high) continue;
        const bool whole = low == std::floor(low) && high == std::floor(high);
        item.rolls.push_back({other.stat, low, high, whole ? 1.0 : 0.0});
        at->amount = (low + high) / 2;
    }
}

void build_growth(const Record& record, Item& item) {
    item.grows.kills = record.whole("kills");
    item.grows.most = record.whole("most");
    Bearer& gives = item.grows.gives;
    gives.id = item.id;
    gives.modifiers.add = record.amounts("add");
    gives.modifiers.percent = record.amounts("percent");
    if (!record.wrote("add") && !record.wrote("percent"))
        record.building().sink.mistake(
            record.span(), fmt::format("'{}' grows by nothing", item.id),
            "as in grows = { kills = 10, most = 5, add = { attack = 1 } }");
}

} // namespace

void build_item(const Record& record, Item& item) {
    build_bearer(record, item);
    build_rolls(record, item);
    for (const std::string& word : record.texts("affixes")) {
        AffixDraw draw;
        draw.id = draw.name = word;
        draw.span = record.span("affixes");
        item.affixes.push_back(std::move(draw));
    }
    item.pattern = record.reference<PatternId>("like");
    if (item.pattern.given()) item.adds_to_pattern = trace(record.node(), "", item.inherited);
    item.slot = record.reference<SlotId>("slot");
    item.takes = build_takes(record, item.slot);
    item.sockets = record.references<SlotId>("sockets");
    if (record.has("needs")) item.needs = build_needs(record.table("needs"));
    item.unique = record.text("unique");
    item.set = record.reference<SetId>("set");
    item.tier = record.reference<TierId>("tier");
    item.level = record.whole("level");
    if (record.has("budget_level")) item.budget_level = record.whole("budget_level");
    item.weight = to_thousandths(record.number("weight"));
    item.value = record.number("value");
    item.stack = record.whole_or_unlimited("stack");
    item.max_stacks = record.whole_or_unlimited("max_stacks");
    item.contains = build_counts(record, "contains");
    if (record.has("grants")) {
        const Record grants = record.table("grants");
        item.grants = {static_cast<std::int64_t>(grants.number("bag")),
                       to_thousandths(grants.number("capacity"))};
    }
    if (record.has("grows")) build_growth(record.table("grows"), item);
    if (record.has("lasts")) item.lasts = record.whole("lasts");
    item.cursed = record.truth("cursed");
    item.draw_time = record.time("draw_time");
    item.source = static_cast<Source>(record.choice("source"));
    item.actions = record.references<ActionId>("actions");
    item.tags = record.texts("tags");
    item.accept = record.texts("accept");
    if (record.has("use")) item.use = build_use(record.table("use"), item);
    check_item(record, item);
}

void build_effect(const Record& record, Effect& effect) {
    build_bearer(record, effect);
    effect.tags = record.texts("tags");
    effect.per_time = record.quantities_by<PoolId>("pool", "per_time", record.building().scope());
    effect.removes.words = record.texts("removes");
    effect.immune.words = record.texts("immune");
    for (const std::string& stopped : record.texts("stops"))
        (stopped == "actions" ? effect.stops_actions : effect.stops_uses) = true;
    if (record.has("then")) {
        const Record then = record.table("then");
        effect.then = {then.reference<EffectId>("effect"), then.timed("duration")};
    }
    effect.period = record.time("period");
    effect.again = static_cast<Again>(record.choice("again"));
    effect.pile_max = record.whole("pile_max");
    effect.restore_factor = record.number("restore_factor");
    effect.ward = record.truth("ward");
    effect.taunts = record.truth("taunts");
    if (record.has("absorbs"))
        effect.absorbs = record.formula("absorbs", self_only(record.building()));
}

void build_upgrade(const Record& record, Upgrade& upgrade) {
    build_bearer(record, upgrade);
    upgrade.max = record.whole("max");
    upgrade.points = record.whole("points");
    Scope scope = level_only();
    scope.bought_allowed = true;
    upgrade.cost = record.formula("cost", scope);
}

} // namespace panoplon
