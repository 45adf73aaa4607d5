#include "base/text.h"
#include "model/budget.h"
#include "show/armoury/item_words.h"
#include "show/armoury/show_list.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

std::vector<std::string> sort_keys() {
    return {"name", "slot", "tier", "level", "weight", "value", "spent"};
}

namespace {

double amount_of(const Item& item, StatId stat) {
    for (const Amount& amount : item.modifiers.add)
        if (amount.stat == stat) return amount.amount;
    return 0;
}

/// Sorts by a key: names and places upwards, the amount of a stat downwards.
void sort_items(const Armoury& armoury, const std::string& key, std::vector<const Item*>& items) {
    BudgetMeter meter(armoury);
    const StatId stat = find_id<StatKind>(armoury.stats, key);
    const auto number = [&](const Item& item) -> double {
        if (key == "slot") return item.slot.given() ? item.slot.value : 1e9;
        if (key == "tier") return item.tier.given() ? armoury.at(item.tier).rank : -1;
        if (key == "level") return item.level;
        if (key == "weight") return static_cast<double>(item.weight);
        if (key == "value") return item.value;
        if (key == "spent") return meter(item).value_or(BudgetUse{}).share();
        return stat.given() ? -amount_of(item, stat) : 0;
    };
    std::sort(items.begin(), items.end(),
              [](const Item* a, const Item* b) { return a->id < b->id; });
    if (key.empty()) return;
    std::stable_sort(items.begin(), items.end(), [&](const Item* a, const Item* b) {
        return key == "name" ? a->name < b->name : number(*a) < number(*b);
    });
}

std::vector<const Item*> chosen(const Armoury& armoury, const ListOptions& options) {
    std::vector<const Item*> items;
    for (const Item& item : armoury.items) {
        const auto holds = [](const auto& list, const auto& wanted) {
            return std::find(list.begin(), list.end(), wanted) != list.end();
        };
        if (options.tier.given() && item.tier != options.tier) continue;
        if (options.slot.given() && !holds(item.takes, options.slot)) continue;
        if (!options.levels.holds(item.level)) continue;
        if (!options.tag.empty() && !holds(item.tags, options.tag)) continue;
        items.push_back(&item);
    }
    sort_items(armoury, options.sort, items);
    return items;
}

std::string stats_words(const Armoury& armoury, const Item& item) {
    std::vector<std::string> parts;
    if (!item.modifiers.empty()) parts.push_back(modifiers_words(armoury, item.modifiers, 1));
    for (const AffixDraw& draw : item.affixes)
        parts.push_back(fmt::format("one of {} '{}'",
                                    counted(draw.affixes.size(), "affix", "affixes"), draw.id));
    for (const auto& [pool, amount] :
         item.use ? item.use->restore : std::vector<std::pair<PoolId, Quantity>>())
        parts.push_back(fmt::format("restores {} {}", amount_words(amount), armoury.at(pool).id));
    if (item.use && item.use->does.given())
        parts.push_back("does " + armoury.at(item.use->does).id);
    if (item.use && item.use->effect.given())
        parts.push_back("gives " + armoury.at(item.use->effect).id);
    return join(parts, ", ");
}

/// Tiers by rank.
std::vector<TierId> ranked_tiers(const Armoury& armoury) {
    std::vector<TierId> tiers;
    for (std::size_t i = 0; i < armoury.tiers.size(); ++i) tiers.emplace_back(i);
    std::sort(tiers.begin(), tiers.end(),
              [&](TierId a, TierId b) { return armoury.at(a).rank < armoury.at(b).rank; });
    return tiers;
}

/// How many items each tier has in each slot, as far as they were asked for; a dash where there is
/// none.
std::string grid_text(const Armoury& armoury, const std::vector<const Item*>& items,
                      const ListOptions& options, Json& json) {
    std::vector<TierId> tiers = ranked_tiers(armoury);
    if (options.tier.given()) tiers = {options.tier};
    std::vector<TextTable::Column> columns = {{"slot"}};
    for (const TierId tier : tiers) columns.push_back({armoury.at(tier).id, Align::right});
    columns.push_back({"all", Align::right});
    TextTable table(std::move(columns));
    std::vector<std::string> holes;
    for (std::size_t s = 0; s < armoury.slots.size(); ++s) {
        if (options.slot.given() && options.slot != SlotId(s)) continue;
        std::vector<std::string> row = {armoury.slots[s].id};
        std::ptrdiff_t all = 0;
        for (const TierId tier : tiers) {
            const auto count = std::count_if(items.begin(), items.end(), [&](const Item* item) {
                return item->slot == SlotId(s) && item->tier == tier;
            });
            all += count;
            row.push_back(count == 0 ? "—" : std::to_string(count));
            json[armoury.slots[s].id][armoury.at(tier).id] = count;
            if (count == 0)
                holes.push_back(fmt::format("{} {}", armoury.at(tier).id, armoury.slots[s].id));
        }
        row.push_back(std::to_string(all));
        table.row(std::move(row));
    }
    std::string text = table.text();
    if (!holes.empty())
        text += fmt::format("  {}: {}\n", counted(holes.size(), "hole"),
                            folded(join(holes, ", "), 90, 4));
    return text;
}

/// "1–4, 7": neighbours as one.
std::string runs_words(const std::vector<int>& numbers) {
    std::vector<std::string> runs;
    for (std::size_t i = 0; i < numbers.size();) {
        std::size_t end = i + 1;
        while (end < numbers.size() && numbers[end] == numbers[end - 1] + 1) ++end;
        runs.push_back(end - i == 1 ? std::to_string(numbers[i])
                                    : fmt::format("{}–{}", numbers[i], numbers[end - 1]));
        i = end;
    }
    return join(runs, ", ");
}

std::string by_level_text(const Armoury& armoury, const std::vector<const Item*>& items,
                          const ListOptions& options, Json& json) {
    std::vector<std::string> parts;
    std::vector<int> bare;
    const int first = std::max(armoury.levels.first, options.levels.first);
    const int last = std::min(armoury.levels.last, options.levels.last);
    for (int level = first; level <= last; ++level) {
        const auto count = std::count_if(items.begin(), items.end(),
                                         [&](const Item* item) { return item->level == level; });
        json[std::to_string(level)] = count;
        if (count > 0)
            parts.push_back(fmt::format("{} at {}", count, level));
        else
            bare.push_back(level);
    }
    std::string text = "By level: " + folded(parts.empty() ? "none" : join(parts, ", "), 88, 4);
    if (!bare.empty()) text += "\n  nothing new at " + folded(runs_words(bare), 80, 4);
    return text + "\n";
}

} // namespace

Document show_items(const ReadArmoury& read, const ListOptions& options) {
    const Armoury& armoury = read.armoury;
    const std::vector<const Item*> items = chosen(armoury, options);
    Document document;
    BudgetMeter meter(armoury);
    Table table{"list",
                {as::item("item", "item").json("id"), as::text("name"), as::text("slot", "slot"),
                 as::text("tier", "tier"), as::whole("level", "level"),
                 as::amount("weight", "weight", 3, 3), as::amount("value", "value", 2),
                 as::share("spent", "spent", 1), as::text("", "gives"), as::text("tags")}};
    table.nothing = "";
    for (const Item* item : items) {
        const auto budget = meter(*item);
        table.row({item->id, item->name, id_cell(armoury, item->slot), id_cell(armoury, item->tier),
                   item->level, to_weight(item->weight), item->value,
                   budget ? Cell(budget->share()) : Cell(), stats_words(armoury, *item),
                   item->tags});
    }
    document.json["items"] = rows_json(table);
    document.text = counted(items.size(), "item") + "\n";
    if (!items.empty()) document.text += terminal_text(table) + "\n";
    document.text += grid_text(armoury, items, options, document.json["grid"]) + "\n" +
                     by_level_text(armoury, items, options, document.json["by_level"]);
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
