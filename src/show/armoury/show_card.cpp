#include "show/armoury/show_card.h"

#include "base/text.h"
#include "show/armoury/card_text.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::vector<std::string> wearers(const Armoury& armoury, const Appraisal& appraisal) {
    std::vector<std::string> ids;
    for (const Wearer& wearer : appraisal.wearers)
        if (wearer.first > 0) ids.push_back(armoury.at(wearer.character).id);
    return ids;
}

std::string stack_words(std::int64_t stack) {
    return stack == unlimited ? "unlimited" : std::to_string(stack);
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

template <class Value>
Json or_null(const std::optional<Value>& value) {
    return value ? Json(*value) : Json(nullptr);
}

Json wearers_json(const Armoury& armoury, const Appraisal& appraisal) {
    Json list = Json::array();
    for (const Wearer& wearer : appraisal.wearers)
        list.push_back({{"character", armoury.at(wearer.character).id},
                        {"first_level", wearer.first > 0 ? Json(wearer.first) : Json(nullptr)},
                        {"reasons", wearer.reasons},
                        {"power_bare", or_null(wearer.bare)},
                        {"power_worn", or_null(wearer.wearing)}});
    return list;
}

Json way_out_json(const Armoury& armoury, const Appraisal& appraisal) {
    if (!appraisal.way_out) return nullptr;
    const WayOut& way = *appraisal.way_out;
    return {{"stat", way.stat.given() ? Json(armoury.at(way.stat).id) : Json(nullptr)},
            {"now", way.now},
            {"then", way.then},
            {"cost", way.cost},
            {"weight_below", or_null(way.weight_below)}};
}

Json card_json(const Armoury& armoury, const Item& item, const PaperVerdict& paper,
               const Appraisal& appraisal) {
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
    const auto& budget = appraisal.budget;
    card["budget"] = budget ? Json({{"spent", budget->spent},
                                    {"allowed", budget->allowed},
                                    {"share", budget->share()}})
                            : Json(nullptr);
    card["points_per_weight"] = or_null(points_per(appraisal, to_weight(item.weight)));
    card["points_per_value"] = or_null(points_per(appraisal, item.value));
    card["modifiers"] = modifier_json(armoury, item);
    card["inherited"] = Json::object();
    for (const Inherited& key : item.inherited) card["inherited"][key.path] = key.pattern;
    card["wearable_by"] = wearers(armoury, appraisal);
    card["wearers"] = wearers_json(armoury, appraisal);
    card["rivals"] = ids_of(armoury, appraisal.rivals);
    card["outclassed_by"] = ids_of(armoury, paper.outclassed_by);
    card["way_out"] = way_out_json(armoury, appraisal);
    card["twins"] = ids_of(armoury, paper.twins);
    return card;
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
        const Appraisal appraisal = appraise(armoury, id, paper);
        document.text += card_text(armoury, item, on_paper, appraisal);
        document.json["items"].push_back(card_json(armoury, item, on_paper, appraisal));
        const auto& budget = appraisal.budget;
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
