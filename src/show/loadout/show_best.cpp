#include "show/loadout/show_best.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string short_margin(const Margin& margin) {
    if (margin.reach == Reach::above) return "over 64";
    if (margin.reach == Reach::below) return "under 1/64";
    return rounded(margin.value, 3);
}

std::string units_words(const Armoury& armoury, const std::vector<PackedItem>& items) {
    std::vector<std::string> words;
    for (const PackedItem& one : items)
        words.push_back(one.count == 1
                            ? armoury.at(one.item).id
                            : fmt::format("{} × {}", one.count, armoury.at(one.item).id));
    return join(words, ", ");
}

std::string proof_words(const BestOfContext& best) {
    if (best.proven && !best.bound)
        return fmt::format("proven: all {} were tried",
                           counted(static_cast<std::size_t>(best.candidates), "outfit"));
    const std::string outfits =
        std::isfinite(best.candidates) ? fmt::format("{:.1e}", best.candidates) : "endlessly many";
    if (best.proven) return fmt::format("proven: of {} outfits none is better on paper", outfits);
    if (!best.bound)
        return fmt::format("not proven: there are {} outfits, too many to try them all", outfits);
    return fmt::format("not proven: of {} outfits none exceeds {} on paper, {} more", outfits,
                       rounded(*best.bound, 3), percent(*best.bound / best.margin.value - 1));
}

std::string asked_words(const Armoury& armoury, const Limits& limits) {
    std::vector<std::string> parts;
    for (const Tier& tier : armoury.tiers)
        if (tier.rank == limits.highest_rank)
            parts.push_back(fmt::format("tier {} and below", tier.id));
    if (!limits.with.empty()) parts.push_back("with " + join(ids_of(armoury, limits.with), ", "));
    if (!limits.without.empty())
        parts.push_back("without " + join(ids_of(armoury, limits.without), ", "));
    if (limits.value) parts.push_back(fmt::format("value up to {}", rounded(*limits.value)));
    return parts.empty() ? "" : " (" + join(parts, "; ") + ")";
}

std::string load_words(const Armoury& armoury, const BestOfContext& best) {
    if (!armoury.carry.capacity.given()) return "";
    const Band* band = armoury.carry.band(best.load.band);
    return fmt::format("load {}{}, ", percent(best.load.share),
                       band ? fmt::format(" ({})", band->name) : "");
}

/// Slot by slot what is worn, with what sockets hold.
void worn_rows(const Armoury& armoury, const std::vector<WornItem>& worn, std::size_t depth,
               TextTable& table) {
    for (const WornItem& one : worn) {
        table.row({std::string(2 * depth, ' ') + armoury.at(one.slot).id, armoury.at(one.item).id});
        worn_rows(armoury, one.socketed, depth + 1, table);
    }
}

std::string context_text(const Armoury& armoury, const Limits& limits, const BestOfContext& best) {
    const Context& context = best.context;
    std::string text =
        fmt::format("{} at level {} against {}{}: ", armoury.at(context.character).id,
                    context.level, armoury.at(context.encounter).id, asked_words(armoury, limits));
    if (!best.any) return text + "no outfit: " + best.reason + "\n";
    text += fmt::format("margin {}, by even luck\n{}value {}; {}\n", short_margin(best.margin),
                        load_words(armoury, best), rounded(best.value), proof_words(best));
    TextTable worn({{"slot"}, {"best"}});
    worn_rows(armoury, best.outfit.worn, 0, worn);
    for (const PackedItem& packed : best.outfit.pack)
        worn.row({"pack", units_words(armoury, {packed})});
    text += "\n" + worn.text();
    TextTable rivals({{"without"}, {"margin", Align::right}, {"lost", Align::right}, {"instead"}});
    for (const Rival& rival : best.rivals)
        rivals.row({armoury.at(rival.item).id, rival.any ? rounded(rival.margin, 3) : "—",
                    rival.any ? percent(1 - rival.margin / best.margin.value) : "—",
                    rival.any ? units_words(armoury, rival.instead) : "nothing legal"});
    if (!rivals.empty()) text += "\nIts rivals: the best without each thing\n" + rivals.text();
    return text;
}

Json worn_json(const Armoury& armoury, const Outfit& outfit) {
    Json worn = Json::object();
    for_each_worn(outfit.worn, [&](const WornItem& item) {
        worn[armoury.at(item.slot).id].push_back(armoury.at(item.item).id);
    });
    return worn;
}

Json pack_json(const Armoury& armoury, const std::vector<PackedItem>& items) {
    Json pack = Json::object();
    for (const PackedItem& packed : items) pack[armoury.at(packed.item).id] = packed.count;
    return pack;
}

Json context_json(const Armoury& armoury, const BestOfContext& best) {
    Json json = {{"character", armoury.at(best.context.character).id},
                 {"level", best.context.level},
                 {"encounter", armoury.at(best.context.encounter).id},
                 {"margin", best.any ? Json(best.margin.value) : Json()},
                 {"proven", best.proven},
                 {"bound", best.bound ? Json(*best.bound) : Json()}};
    if (!best.any) {
        json["reason"] = best.reason;
        return json;
    }
    json["worn"] = worn_json(armoury, best.outfit);
    json["pack"] = pack_json(armoury, best.outfit.pack);
    json["value"] = best.value;
    if (armoury.carry.capacity.given()) json["load_share"] = best.load.share;
    json["rivals"] = Json::array();
    for (const Rival& rival : best.rivals)
        json["rivals"].push_back(
            {{"without", armoury.at(rival.item).id},
             {"margin", rival.any ? Json(rival.margin) : Json()},
             {"loss", rival.any ? Json(1 - rival.margin / best.margin.value) : Json()},
             {"instead", pack_json(armoury, rival.instead)},
             {"worn", worn_json(armoury, rival.outfit)},
             {"pack", pack_json(armoury, rival.outfit.pack)}});
    return json;
}

CsvTable best_table(const Armoury& armoury, const BestResult& result) {
    CsvTable table{"best",
                   {"character", "level", "encounter", "margin", "proven", "bound", "value",
                    "without", "margin_without", "instead"},
                   {}};
    for (const BestOfContext& best : result.contexts)
        for (const Rival& rival : best.rivals)
            table.rows.push_back(
                {armoury.at(best.context.character).id, std::to_string(best.context.level),
                 armoury.at(best.context.encounter).id, rounded(best.margin.value, 5),
                 best.proven ? "true" : "false", best.bound ? rounded(*best.bound, 5) : "",
                 rounded(best.value), armoury.at(rival.item).id,
                 rival.any ? rounded(rival.margin, 5) : "", units_words(armoury, rival.instead)});
    return table;
}

} // namespace

Document show_best(const Armoury& armoury, const BestOptions& options, const BestResult& result) {
    Document document;
    document.partial = result.partial;
    document.json["contexts"] = Json::array();
    for (const BestOfContext& best : result.contexts) {
        if (!document.text.empty()) document.text += "\n";
        document.text += context_text(armoury, options.limits, best);
        document.json["contexts"].push_back(context_json(armoury, best));
    }
    document.tables.push_back(best_table(armoury, result));
    return document;
}

} // namespace panoplon
