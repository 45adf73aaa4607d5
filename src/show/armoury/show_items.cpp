#include "base/text.h"
#include "model/budget.h"
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
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : item.modifiers.of(change))
            parts.push_back(change_words(change, amount.amount) + " " + armoury.at(amount.stat).id);
    for (const auto& [pool, amount] :
         item.use ? item.use->restore : std::vector<std::pair<PoolId, double>>())
        parts.push_back(fmt::format("restores {} {}", rounded(amount), armoury.at(pool).id));
    if (item.use && item.use->effect.given())
        parts.push_back("gives " + armoury.at(item.use->effect).id);
    return join(parts, ", ");
}

std::string id_of(const Armoury& armoury, TierId tier) {
    return tier.given() ? armoury.at(tier).id : "";
}
std::string id_of(const Armoury& armoury, SlotId slot) {
    return slot.given() ? armoury.at(slot).id : "";
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
    TextTable table({{"item"},
                     {"slot"},
                     {"tier"},
                     {"level", Align::right},
                     {"weight", Align::right},
                     {"value", Align::right},
                     {"spent", Align::right},
                     {"gives"}});
    CsvTable csv{
        "list", {"item", "name", "slot", "tier", "level", "weight", "value", "spent", "tags"}, {}};
    document.json["items"] = Json::array();
    for (const Item* item : items) {
        const auto budget = meter(*item);
        table.row({item->id, id_of(armoury, item->slot), id_of(armoury, item->tier),
                   std::to_string(item->level), rounded(to_weight(item->weight), 3),
                   rounded(item->value), budget ? percent(budget->share()) : "",
                   stats_words(armoury, *item)});
        csv.rows.push_back({item->id, item->name, id_of(armoury, item->slot),
                            id_of(armoury, item->tier), std::to_string(item->level),
                            rounded(to_weight(item->weight), 3), shortest(item->value),
                            budget ? shortest(budget->share()) : "", join(item->tags, ";")});
        document.json["items"].push_back(
            {{"id", item->id},
             {"name", item->name},
             {"slot", item->slot.given() ? Json(armoury.at(item->slot).id) : Json(nullptr)},
             {"tier", item->tier.given() ? Json(armoury.at(item->tier).id) : Json(nullptr)},
             {"level", item->level},
             {"weight", to_weight(item->weight)},
             {"value", item->value},
             {"spent", budget ? Json(budget->share()) : Json(nullptr)},
             {"tags", item->tags}});
    }
    document.text = counted(items.size(), "item") + "\n";
    if (!items.empty()) document.text += table.text() + "\n";
    document.text += grid_text(armoury, items, options, document.json["grid"]) + "\n" +
                     by_level_text(armoury, items, options, document.json["by_level"]);
    document.tables.push_back(std::move(csv));
    return document;
}

} // namespace panoplon
