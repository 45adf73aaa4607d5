#include "show/loadout/show_best.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <cmath>
#include <fmt/format.h>
#include <map>

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

/// Where bounding came upon it, the margin that all other commands have.
std::string searched_words(const BestOfContext& best) {
    constexpr double same = 1e-4;
    return best.margin.value <= best.searched * (1 + same)
               ? ""
               : fmt::format("; found while bounding: the search, and with it every other command, "
                             "has {}",
                             rounded(best.searched, 3));
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

/// As a share of the best's margin; what lies within its roughness is none (M69b).
double loss_of(const Rival& rival, const BestOfContext& best) {
    const double loss = 1 - rival.margin / best.margin.value;
    return loss > best.roughness ? loss : 0;
}

/// What a rival has in the place of what it does without, and, in brackets, what else it has and
/// the best has not: things, and points spent otherwise.
std::string instead_words(const Armoury& armoury, const Rival& rival, const Outfit& best) {
    if (!rival.any) return "nothing legal";
    const Item& gone = armoury.at(rival.item);
    std::vector<PackedItem> in_place, elsewhere;
    for (const PackedItem& one : rival.instead) {
        const Item& item = armoury.at(one.item);
        const bool same = gone.worn() ? item.slot == gone.slot : !item.worn();
        (same ? in_place : elsewhere).push_back(one);
    }
    std::map<UpgradeId, int> more;
    for (const BoughtUpgrade& bought : rival.outfit.upgrades) more[bought.upgrade] += bought.levels;
    for (const BoughtUpgrade& bought : best.upgrades) more[bought.upgrade] -= bought.levels;
    std::vector<std::string> others;
    if (const std::string things = units_words(armoury, elsewhere); !things.empty())
        others.push_back(things);
    for (const auto& [upgrade, levels] : more)
        if (levels > 0)
            others.push_back(fmt::format("{} more of {}",
                                         counted(static_cast<std::size_t>(levels), "level"),
                                         armoury.at(upgrade).id));
    const std::string place = in_place.empty() ? "nothing" : units_words(armoury, in_place);
    return others.empty() ? place : fmt::format("{} (with {})", place, join(others, ", "));
}

/// What is best without each thing that the best has.
Table rivals_table(const Armoury& armoury, const BestOfContext& best) {
    Table table{"",
                {as::text("", "without").json("without"),
                 as::amount("", "margin", 3).json("margin"), as::share("", "lost", 1).json("loss"),
                 as::text("", "instead").json("instead"), as::json("worn"), as::json("pack"),
                 as::json("points")}};
    for (const Rival& rival : best.rivals)
        table.row({armoury.at(rival.item).id, rival.any ? Cell(rival.margin) : Cell(),
                   rival.any ? Cell(loss_of(rival, best)) : Cell(),
                   Cell::of(pack_json(armoury, rival.instead))
                       .said(instead_words(armoury, rival, best.outfit)),
                   Cell::of(worn_json(armoury, rival.outfit)),
                   Cell::of(pack_json(armoury, rival.outfit.pack)),
                   Cell::of(points_json(armoury, rival.outfit))});
    return table;
}

std::string context_text(const Armoury& armoury, const Limits& limits, const BestOfContext& best) {
    const Context& context = best.context;
    std::string text =
        fmt::format("{} at level {} against {}{}: ", armoury.at(context.character).id,
                    context.level, armoury.at(context.encounter).id, asked_words(armoury, limits));
    if (!best.any) return text + "no outfit: " + best.reason + "\n";
    text += fmt::format("margin {}, by even luck\n{}value {}; {}\n", short_margin(best.margin),
                        load_words(armoury, best), rounded(best.value),
                        proof_words(best) + searched_words(best));
    TextTable worn({{"slot"}, {"best"}});
    worn_rows(armoury, best.outfit.worn, 0, worn);
    for (const PackedItem& packed : best.outfit.pack)
        worn.row({"pack", units_words(armoury, {packed})});
    for (const BoughtUpgrade& bought : best.outfit.upgrades)
        worn.row({"points", fmt::format("{} × {}", bought.levels, armoury.at(bought.upgrade).id)});
    if (const std::string actions = actions_words(armoury, best.outfit); !actions.empty())
        worn.row({"actions", actions});
    text += "\n" + worn.text();
    const std::string rivals = terminal_text(rivals_table(armoury, best));
    if (!rivals.empty()) text += "\nIts rivals: the best without each thing\n" + rivals;
    return text;
}

Json context_json(const Armoury& armoury, const BestOfContext& best) {
    Json json = {{"character", armoury.at(best.context.character).id},
                 {"level", best.context.level},
                 {"encounter", armoury.at(best.context.encounter).id},
                 {"margin", best.any ? Json(best.margin.value) : Json()},
                 {"searched", best.any ? Json(best.searched) : Json()},
                 {"roughness", best.any ? Json(best.roughness) : Json()},
                 {"proven", best.proven},
                 {"bound", best.bound ? Json(*best.bound) : Json()}};
    if (!best.any) {
        json["reason"] = best.reason;
        return json;
    }
    json["worn"] = worn_json(armoury, best.outfit);
    json["pack"] = pack_json(armoury, best.outfit.pack);
    json["points"] = points_json(armoury, best.outfit);
    json["actions"] = actions_done_ids(armoury, best.outfit);
    json["value"] = best.value;
    if (armoury.carry.capacity.given()) json["load_share"] = best.load.share;
    json["rivals"] = rows_json(rivals_table(armoury, best));
    return json;
}

/// A row for each rival of each best.
Table best_table(const Armoury& armoury, const BestResult& result) {
    Table table{"best",
                {as::text("character"), as::whole("level"), as::text("encounter"),
                 as::number("margin", 5), as::text("proven"), as::number("bound", 5),
                 as::number("value", 2), as::item("without"), as::number("margin_without", 5),
                 as::text("instead")}};
    for (const BestOfContext& best : result.contexts)
        for (const Rival& rival : best.rivals)
            table.row({armoury.at(best.context.character).id, best.context.level,
                       armoury.at(best.context.encounter).id, best.margin.value, best.proven,
                       best.bound, best.value, armoury.at(rival.item).id,
                       rival.any ? Cell(rival.margin) : Cell(),
                       instead_words(armoury, rival, best.outfit)});
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
