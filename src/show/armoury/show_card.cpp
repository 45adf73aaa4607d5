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
    for (const AffixDraw& draw : item.affixes)
        put(draw.modifiers, "affixes." + draw.id, tier ? tier->stat_factor : 1);
    if (tier) put(tier->modifiers, "tier." + tier->id, 1);
    return list;
}

/// By draw, how often each affix is drawn.
Json affixes_json(const Armoury& armoury, const Item& item) {
    Json list = Json::array();
    for (const AffixDraw& draw : item.affixes)
        for (std::size_t a = 0; a < draw.affixes.size(); ++a)
            list.push_back({{"of", draw.id},
                            {"affix", armoury.at(draw.affixes[a]).id},
                            {"share", draw.shares[a]}});
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
                        {"power_worn", or_null(wearer.wearing)},
                        {"power_worst_rolled", or_null(wearer.worst_rolled)},
                        {"power_best_rolled", or_null(wearer.best_rolled)}});
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

Table cards_table() {
    return {"card",
            {as::item("id"),
             as::text("name"),
             as::text("tier"),
             as::text("slot"),
             as::whole("level"),
             as::number("weight", 3),
             as::number("value", in_full),
             as::text("stack"),
             as::json("stack_weight"),
             as::json("stack_value"),
             as::json("budget"),
             as::number("spent", 3).json(""),
             as::number("allowed", 3).json(""),
             as::json("points_per_weight"),
             as::json("points_per_value"),
             as::json("modifiers"),
             as::json("affixes"),
             as::json("inherited"),
             as::json("wearable_by"),
             as::json("wearers"),
             as::json("rivals"),
             as::text("outclassed_by"),
             as::json("way_out"),
             as::text("twins")}};
}

std::vector<Cell> card_cells(const Armoury& armoury, const Item& item, const PaperVerdict& paper,
                             const Appraisal& appraisal) {
    const bool stacks = item.stack != unlimited;
    const auto& budget = appraisal.budget;
    Json inherited = Json::object();
    for (const Inherited& key : item.inherited) inherited[key.path] = key.pattern;
    return {item.id,
            item.name,
            id_cell(armoury, item.tier),
            id_cell(armoury, item.slot),
            item.level,
            to_weight(item.weight),
            item.value,
            stacks ? Cell(item.stack) : Cell("unlimited"),
            stacks ? Cell(to_weight(item.weight * item.stack)) : Cell(),
            stacks ? Cell(item.value * static_cast<double>(item.stack)) : Cell(),
            budget ? Cell::of({{"spent", budget->spent},
                               {"allowed", budget->allowed},
                               {"share", budget->share()}})
                   : Cell(),
            budget ? Cell(budget->spent) : Cell(),
            budget ? Cell(budget->allowed) : Cell(),
            points_per(appraisal, to_weight(item.weight)),
            points_per(appraisal, item.value),
            Cell::of(modifier_json(armoury, item)),
            Cell::of(affixes_json(armoury, item)),
            Cell::of(std::move(inherited)),
            wearers(armoury, appraisal),
            Cell::of(wearers_json(armoury, appraisal)),
            ids_of(armoury, appraisal.rivals),
            ids_of(armoury, paper.outclassed_by),
            Cell::of(way_out_json(armoury, appraisal)),
            ids_of(armoury, paper.twins)};
}

} // namespace

Document show_cards(const Armoury& armoury, const std::vector<ItemId>& items,
                    const std::vector<PaperVerdict>& paper) {
    Document document;
    Table table = cards_table();
    for (const ItemId id : items) {
        const Item& item = armoury.at(id);
        const PaperVerdict& on_paper = paper[id.index()];
        if (!document.text.empty()) document.text += "\n";
        const Appraisal appraisal = appraise(armoury, id, paper);
        document.text += card_text(armoury, item, on_paper, appraisal);
        table.row(card_cells(armoury, item, on_paper, appraisal));
    }
    document.json["items"] = rows_json(table);
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
