#include "output/show_card.h"

#include "base/text.h"
#include "model/budget.h"
#include "outfit/needs.h"
#include "outfit/outfit.h"
#include "output/text_table.h"
#include "output/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

/// Who can wear or use it at the last level.
std::vector<std::string> wearers(const Armoury& armoury, const Item& item) {
    std::vector<std::string> ids;
    if (!item.worn() && !item.use) return ids;
    Deriver deriver(armoury);
    for (std::size_t c = 0; c < armoury.characters.size(); ++c) {
        const int level = armoury.levels.last;
        const auto naked = naked_stats(deriver, {CharacterId(c), level, {}, {}, {}, {}, {}});
        const bool may_use = !item.use || is_among(armoury, item.use->only, CharacterId(c));
        if (may_use && meets_needs(armoury, item, CharacterId(c), level, naked))
            ids.push_back(armoury.characters[c].id);
    }
    return ids;
}

std::string stack_words(std::int64_t stack) {
    return stack == unlimited ? "unlimited" : std::to_string(stack);
}

std::string use_words(const Armoury& armoury, const Use& use) {
    std::vector<std::string> parts;
    for (const auto& [pool, amount] : use.restore)
        parts.push_back(fmt::format("restores {} {}", rounded(amount), armoury.at(pool).id));
    if (use.effect.given())
        parts.push_back(fmt::format("gives {} {}", armoury.at(use.effect).id,
                                    use.duration == never
                                        ? std::string("for always")
                                        : fmt::format("for {}", rounded(to_units(use.duration)))));
    if (use.cooldown > 0)
        parts.push_back(
            fmt::format("cooldown {}{}", rounded(to_units(use.cooldown)),
                        use.group.empty() ? "" : fmt::format(" (group {})", use.group)));
    if (use.takes > 0) parts.push_back(fmt::format("takes {}", rounded(to_units(use.takes))));
    return join(parts, ", ");
}

Json modifier_json(const Armoury& armoury, const Item& item) {
    const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
    Json list = Json::array();
    const auto put = [&](const Modifiers& modifiers, const std::string& bearer, double factor) {
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (const Amount& amount : modifiers.of(change))
                list.push_back(
                    {{"bearer", bearer},
                     {"kind", change_names[static_cast<int>(change)]},
                     {"stat", armoury.at(amount.stat).id},
                     {"amount", change == Change::add ? amount.amount * factor : amount.amount}});
    };
    put(item.modifiers, "item." + item.id, tier ? tier->stat_factor : 1);
    if (tier) put(tier->modifiers, "tier." + tier->id, 1);
    return list;
}

Json card_json(const Armoury& armoury, const Item& item, const PaperVerdict& paper) {
    const double stack = item.stack == unlimited ? 0 : static_cast<double>(item.stack);
    Json card = {{"id", item.id},
                 {"name", item.name},
                 {"tier", item.tier.given() ? Json(armoury.at(item.tier).id) : Json(nullptr)},
                 {"slot", item.slot.given() ? Json(armoury.at(item.slot).id) : Json(nullptr)},
                 {"level", item.level},
                 {"weight", to_weight(item.weight)},
                 {"value", item.value},
                 {"stack", item.stack == unlimited ? Json("unlimited") : Json(item.stack)}};
    card["stack_weight"] =
        item.stack == unlimited ? Json(nullptr) : Json(to_weight(item.weight * item.stack));
    card["stack_value"] = item.stack == unlimited ? Json(nullptr) : Json(item.value * stack);
    const auto budget = BudgetMeter(armoury)(item);
    card["budget"] = budget ? Json({{"spent", budget->spent},
                                    {"allowed", budget->allowed},
                                    {"share", budget->share()}})
                            : Json(nullptr);
    card["modifiers"] = modifier_json(armoury, item);
    card["wearable_by"] = wearers(armoury, item);
    card["outclassed_by"] = ids_of(armoury, paper.outclassed_by);
    card["twins"] = ids_of(armoury, paper.twins);
    return card;
}

std::string card_text(const Armoury& armoury, const Item& item, const PaperVerdict& paper) {
    std::string text = fmt::format("{} ({})\n", printable(item.name), item.id);
    if (!item.about.empty()) text += "  " + folded(printable(item.about), 90, 2) + "\n";
    TextTable table({{""}, {""}});
    if (item.slot.given()) table.row({"slot", armoury.at(item.slot).id});
    if (item.tier.given()) {
        const Tier& tier = armoury.at(item.tier);
        table.row({"tier", fmt::format("{}{} (rank {})", tier.name,
                                       tier.mark.empty() ? "" : " " + tier.mark, tier.rank)});
    }
    table.row({"level", fmt::format("from {}", item.level)});
    const std::string of_stack =
        item.stack == unlimited ? "any number stack"
        : item.stack == 1
            ? "does not stack"
            : fmt::format("{} for a stack of {}", rounded(to_weight(item.weight * item.stack), 3),
                          item.stack);
    table.row({"weight", fmt::format("{}; {}", rounded(to_weight(item.weight), 3), of_stack)});
    table.row({"value", item.stack == unlimited || item.stack == 1
                            ? rounded(item.value)
                            : fmt::format("{}; {} for a stack", rounded(item.value),
                                          rounded(item.value * static_cast<double>(item.stack)))});
    if (const auto budget = BudgetMeter(armoury)(item))
        table.row({"budget", fmt::format("{} of {} points spent: {}", rounded(budget->spent, 1),
                                         rounded(budget->allowed, 1), percent(budget->share()))});
    const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
    const auto modifiers = [&](const Modifiers& list, const std::string& from, double factor) {
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (Amount amount : list.of(change)) {
                if (change == Change::add) amount.amount *= factor;
                table.row(
                    {from, change_words(change, amount.amount) + " " + armoury.at(amount.stat).id});
            }
    };
    modifiers(item.modifiers, "own", tier ? tier->stat_factor : 1);
    if (tier) modifiers(tier->modifiers, "by tier", 1);
    for (const ActionId action : item.actions) table.row({"action", armoury.at(action).id});
    if (item.use) table.row({"use", use_words(armoury, *item.use)});
    const std::vector<std::string> by = wearers(armoury, item);
    if (item.worn() || item.use)
        table.row({item.worn() ? "worn by" : "used by",
                   by.empty() ? fmt::format("nobody: it is for level {}, the armoury ends at {}",
                                            item.level, armoury.levels.last)
                              : join(by, ", ")});
    if (item.worn())
        table.row({"outclassed by", paper.outclassed_by.empty()
                                        ? "nothing on paper"
                                        : join(ids_of(armoury, paper.outclassed_by), ", ")});
    if (!paper.twins.empty()) table.row({"twins", join(ids_of(armoury, paper.twins), ", ")});
    if (!item.note.empty()) table.row({"note", printable(item.note)});
    return text + table.text();
}

} // namespace

Document show_cards(const Armoury& armoury, const std::vector<ItemId>& items,
                    const std::vector<PaperVerdict>& paper) {
    Document document;
    document.json["items"] = Json::array();
    CsvTable table{"card",
                   {"id", "name", "tier", "slot", "level", "weight", "value", "stack", "spent",
                    "allowed", "outclassed_by", "twins"},
                   {}};
    for (const ItemId id : items) {
        const Item& item = armoury.at(id);
        const PaperVerdict& on_paper = paper[id.index()];
        if (!document.text.empty()) document.text += "\n";
        document.text += card_text(armoury, item, on_paper);
        document.json["items"].push_back(card_json(armoury, item, on_paper));
        const auto budget = BudgetMeter(armoury)(item);
        table.rows.push_back(
            {item.id, item.name, item.tier.given() ? armoury.at(item.tier).id : "",
             item.slot.given() ? armoury.at(item.slot).id : "", std::to_string(item.level),
             rounded(to_weight(item.weight), 3), shortest(item.value), stack_words(item.stack),
             budget ? rounded(budget->spent, 3) : "", budget ? rounded(budget->allowed, 3) : "",
             join(ids_of(armoury, on_paper.outclassed_by), ";"),
             join(ids_of(armoury, on_paper.twins), ";")});
    }
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
