#include "show/loadout/show_equip.h"
#include "outfit/points.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string band_name(const Armoury& armoury, int band) {
    const Band* applied = armoury.carry.band(band);
    return applied ? applied->name : "no band";
}

std::string edge_words(const Edge& edge) {
    return fmt::format("{} {}", edge.includes ? "from" : "above", percent(edge.load));
}

/// The place names of a worn item: `charm 2 of 2` where a slot has several.
std::string place_words(const Slot& slot, int number) {
    return slot.count == 1 ? slot.id : fmt::format("{} {} of {}", slot.id, number, slot.count);
}

/// The kind of a part that is a modifier.
std::optional<Change> change_of(const Part& part) {
    for (const Change change : {Change::add, Change::percent, Change::times})
        if (part.kind == change_names[static_cast<int>(change)]) return change;
    return std::nullopt;
}

std::string part_words(const Part& part) {
    const std::optional<Change> change = change_of(part);
    return fmt::format("{} {}",
                       change ? change_words(*change, part.amount) : rounded(part.amount, 4),
                       part.bearer);
}

std::string stats_text(const Armoury& armoury, const Sheet& sheet) {
    TextTable table({{"stat"}, {"value", Align::right}, {"made from"}});
    std::size_t left_out = 0;
    for (std::size_t i = 0; i < sheet.stats.size(); ++i) {
        if (sheet.stats[i].parts.empty() && sheet.stats[i].value == 0) {
            ++left_out;
            continue;
        }
        std::vector<std::string> parts;
        for (const Part& part : sheet.stats[i].parts) parts.push_back(part_words(part));
        const Stat& stat = armoury.stats[i];
        std::string made = parts.empty() ? "nothing gives any" : join(parts, ", ");
        if (sheet.stats[i].value == stat.max)
            made += fmt::format(" (its cap is {})", rounded(stat.max));
        if (stat.rounding != Rounding::none)
            made +=
                stat.rounding == Rounding::down ? " (rounded down)" : " (rounded to the nearest)";
        table.row({stat.id, rounded(sheet.stats[i].value, 3), made});
    }
    return table.text() + (left_out == 0
                               ? std::string()
                               : fmt::format("  {} more that nothing gives, and that are 0\n",
                                             counted(left_out, "stat")));
}

std::string tier_words(const Armoury& armoury, const Item& item) {
    if (!item.tier.given()) return "";
    const Tier& tier = armoury.at(item.tier);
    return fmt::format("{} {}", tier.name, tier.mark);
}

/// What counts of the find that a worn thing is.
Drawn find_of(const Armoury& armoury, const WornItem& worn) {
    const Item& item = armoury.at(worn.item);
    Drawn find;
    for (const Amount& rolled : worn.drawn.rolled)
        if (const Roll* roll = item.roll_of(rolled.stat))
            find.rolled.push_back({rolled.stat, roll->nearest(rolled.amount)});
    for (std::size_t d = 0; d < std::min(item.affixes.size(), worn.drawn.affixes.size()); ++d)
        if (worn.drawn.affixes[d].given()) find.affixes.push_back(worn.drawn.affixes[d]);
    return find;
}

/// An item's id, and what this one has of what finds differ in, in brackets.
std::string worn_words(const Armoury& armoury, const WornItem& worn) {
    const Drawn find = find_of(armoury, worn);
    std::vector<std::string> parts;
    for (const Amount& rolled : find.rolled)
        parts.push_back(
            fmt::format("{} {}", rounded(rolled.amount, 4), armoury.at(rolled.stat).id));
    for (const AffixId affix : find.affixes) parts.push_back(armoury.at(affix).name);
    if (const int times = armoury.at(worn.item).grows.times(worn.felled); times > 0)
        parts.push_back(fmt::format("grown {}", counted(static_cast<std::size_t>(times), "time")));
    const std::string& id = armoury.at(worn.item).id;
    return parts.empty() ? id : fmt::format("{} ({})", id, join(parts, ", "));
}

void worn_row(const Armoury& armoury, const std::string& place, const WornItem& worn,
              TextTable& table) {
    const Item& item = armoury.at(worn.item);
    table.row({place, worn_words(armoury, worn), tier_words(armoury, item),
               std::to_string(item.level), rounded(to_weight(item.weight), 3)});
    std::vector<WornItem> held = worn.socketed;
    for (const SlotId socket : item.sockets) {
        const std::string name = "  in " + armoury.at(socket).id;
        const auto at = std::find_if(held.begin(), held.end(),
                                     [&](const WornItem& w) { return w.slot == socket; });
        if (at == held.end()) {
            table.row({name, "—"});
        } else {
            worn_row(armoury, name, *at, table);
            held.erase(at);
        }
    }
    for (const WornItem& misplaced : held) worn_row(armoury, "  in no socket", misplaced, table);
}

/// What takes a place of a slot without being worn in it.
std::vector<std::string> takers(const Armoury& armoury, const Outfit& outfit, SlotId slot) {
    std::vector<std::string> ids;
    for (const WornItem& worn : outfit.worn)
        for (const SlotId taken : armoury.at(worn.item).takes)
            if (taken == slot && worn.slot != slot) ids.push_back(armoury.at(worn.item).id);
    return ids;
}

std::string worn_text(const Armoury& armoury, const Outfit& outfit) {
    TextTable table(
        {{"place"}, {"worn"}, {"tier"}, {"level", Align::right}, {"weight", Align::right}});
    for (std::size_t s = 0; s < armoury.slots.size(); ++s) {
        const Slot& slot = armoury.slots[s];
        int number = 0;
        for (const WornItem& worn : outfit.worn)
            if (worn.slot == SlotId(s)) worn_row(armoury, place_words(slot, ++number), worn, table);
        if (slot.socket) continue;
        for (const std::string& id : takers(armoury, outfit, SlotId(s)))
            table.row({place_words(slot, ++number), fmt::format("taken by {}", id)});
        for (; number < slot.count;) table.row({place_words(slot, ++number), "—"});
    }
    return table.text();
}

std::string upgrades_text(const Armoury& armoury, const Outfit& outfit) {
    std::string text;
    for (const BoughtUpgrade& bought : outfit.upgrades) {
        const Upgrade& upgrade = armoury.at(bought.upgrade);
        text += fmt::format("Upgrade: {}, {} of {}\n", upgrade.id, bought.levels,
                            counted(static_cast<std::size_t>(upgrade.max), "level"));
    }
    if (const int points = points_at(armoury, outfit.character, outfit.level); points > 0)
        text +=
            fmt::format("Points: {} of {} spent\n", points_spent(armoury, outfit.upgrades), points);
    return text;
}

std::string sets_text(const Armoury& armoury, const Sheet& sheet) {
    std::string text;
    for (const Sheet::SetStanding& standing : sheet.sets) {
        const ItemSet& set = armoury.at(standing.set);
        text += fmt::format(
            "Set: {}, {}: {}", set.id, counted(static_cast<std::size_t>(standing.pieces), "piece"),
            standing.reached == 0 ? "no step yet"
                                  : fmt::format("the step for {} applies", standing.reached));
        if (standing.next > 0)
            text += fmt::format("; the one for {} lacks {} of {}", standing.next,
                                standing.next - standing.pieces,
                                join(ids_of(armoury, standing.missing), ", "));
        text += "\n";
    }
    return text;
}

std::string pack_text(const Armoury& armoury, const Outfit& outfit) {
    TextTable table(
        {{"packed"}, {"count", Align::right}, {"stacks", Align::right}, {"weight", Align::right}});
    for (const PackedItem& packed : outfit.pack) {
        const Item& item = armoury.at(packed.item);
        table.row({item.id, std::to_string(packed.count),
                   std::to_string(stacks_of(item, packed.count)),
                   rounded(to_weight(item.weight * packed.count), 3)});
    }
    return table.empty() ? "  nothing packed\n" : table.text();
}

Json edge_json(const Armoury& armoury, const std::optional<Edge>& edge) {
    if (!edge) return nullptr;
    const Band* band = armoury.carry.band(edge->band);
    const Json beyond = edge->limit ? Json("limit") : band ? Json(band->name) : Json(nullptr);
    return {{"load", edge->load},
            {"kind", edge->includes ? "from" : "above"},
            {"weight_away", edge->weight_away},
            {"band", beyond}};
}

Json worn_json(const Armoury& armoury, const std::vector<WornItem>& worn) {
    Json list = Json::array();
    for (const WornItem& one : worn) {
        Json json = {{"place", armoury.at(one.slot).id},
                     {"item", armoury.at(one.item).id},
                     {"sockets", worn_json(armoury, one.socketed)}};
        const Drawn find = find_of(armoury, one);
        for (const Amount& rolled : find.rolled)
            json["rolled"][armoury.at(rolled.stat).id] = rolled.amount;
        for (const AffixId affix : find.affixes) json["affixes"].push_back(armoury.at(affix).id);
        if (one.felled > 0) json["felled"] = one.felled;
        list.push_back(std::move(json));
    }
    return list;
}

Json sets_json(const Armoury& armoury, const Sheet& sheet) {
    Json json = Json::object();
    for (const Sheet::SetStanding& standing : sheet.sets)
        json[armoury.at(standing.set).id] = {
            {"pieces", standing.pieces},
            {"step", standing.reached},
            {"next", standing.next == 0 ? Json(nullptr) : Json(standing.next)},
            {"missing", ids_of(armoury, standing.missing)}};
    return json;
}

} // namespace

std::string refusals_text(const std::vector<Refusal>& refused) {
    std::string text;
    for (const Refusal& refusal : refused) {
        text += fmt::format("  refused: {}\n", refusal.thing);
        for (const std::string& reason : refusal.reasons) text += fmt::format("    {}\n", reason);
    }
    return text;
}

std::string load_words(const Armoury& armoury, const Sheet& sheet) {
    const Load& load = sheet.load;
    if (!armoury.carry.capacity.given())
        return fmt::format("{} carried; the armoury weighs nothing ([carry] is absent)",
                           rounded(to_weight(load.carried), 3));
    std::string text =
        fmt::format("{} of {} carried: {}, {}", rounded(to_weight(load.carried), 3),
                    rounded(load.capacity, 3), percent(load.share), band_name(armoury, load.band));
    if (load.above) {
        const std::string name =
            load.above->limit ? "the limit" : band_name(armoury, load.above->band);
        const std::string more = load.above->weight_away == 0
                                     ? "anything" // on the edge, beyond which it begins
                                     : rounded(load.above->weight_away, 3);
        text += fmt::format("; {} more reaches {} ({})", more, name, edge_words(*load.above));
        std::vector<std::string> costs;
        for (const Sheet::Crossing& crossing : sheet.beyond_edge)
            costs.push_back(fmt::format("{} {} → {}", armoury.at(crossing.stat).id,
                                        rounded(crossing.now, 2), rounded(crossing.then, 2)));
        if (load.above->limit)
            text += ", beyond which nothing can be carried";
        else if (!costs.empty())
            text += ", which costs " + join(costs, ", ");
    }
    if (load.below)
        text += fmt::format("; {} less reaches its lower edge ({})",
                            load.below->weight_away == 0 ? "anything"
                                                         : rounded(load.below->weight_away, 3),
                            edge_words(*load.below));
    return text;
}

Document show_equip(const Armoury& armoury, const Loadout& loadout, const Outfit& outfit,
                    const Sheet& sheet, const std::vector<std::string>& notes) {
    Document document;
    const Character& character = armoury.at(outfit.character);
    document.text =
        fmt::format("{}: {} at level {}\n", loadout.id, printable(character.name), outfit.level);
    for (const std::string& note : notes) document.text += fmt::format("  {}\n", note);
    document.text += "\n" + worn_text(armoury, outfit) + "\n" + pack_text(armoury, outfit);
    document.text += fmt::format("\nLoad: {}\n", load_words(armoury, sheet));
    const std::string slots =
        sheet.bag == unlimited
            ? "no limit"
            : fmt::format("{}{}", sheet.bag,
                          sheet.bag > armoury.carry.bag
                              ? fmt::format(" (its own {}, gear gives {})", armoury.carry.bag,
                                            sheet.bag - armoury.carry.bag)
                              : "");
    document.text += fmt::format("Bag: {} of {}\n",
                                 counted(static_cast<std::size_t>(sheet.stacks), "stack"), slots);
    if (const std::string actions = actions_words(armoury, outfit); !actions.empty())
        document.text += fmt::format("Actions: {}\n", actions);
    document.text += sets_text(armoury, sheet) + upgrades_text(armoury, outfit) + "\n";
    document.text += stats_text(armoury, sheet);
    document.text +=
        sheet.refused.empty() ? "\nNothing is refused.\n" : "\n" + refusals_text(sheet.refused);

    Json& json = document.json;
    json["loadout"] = loadout.id;
    json["character"] = character.id;
    json["level"] = outfit.level;
    json["notes"] = notes;
    Table stats{"equip",
                {as::text("stat").json(""), as::number("value", in_full).json(""),
                 as::text("bearer"), as::text("kind"), as::number("amount", in_full)}};
    for (std::size_t i = 0; i < sheet.stats.size(); ++i) {
        const std::string& id = armoury.stats[i].id;
        Json& stat =
            json["stats"][id] = {{"value", sheet.stats[i].value}, {"parts", Json::array()}};
        for (const Part& part : sheet.stats[i].parts) {
            stats.row({id, sheet.stats[i].value, part.bearer, part.kind, part.amount});
            stat["parts"].push_back(row_json(stats, stats.rows.back()));
        }
    }
    json["load"] = {
        {"weight", to_weight(sheet.load.carried)},
        {"capacity", sheet.load.capacity},
        {"share", std::isfinite(sheet.load.share) ? Json(sheet.load.share) : Json(nullptr)},
        {"band",
         sheet.load.band == no_band ? Json(nullptr) : Json(band_name(armoury, sheet.load.band))},
        {"next_edge", edge_json(armoury, sheet.load.above)},
        {"last_edge", edge_json(armoury, sheet.load.below)}};
    json["bag"] = {{"stacks", sheet.stacks},
                   {"slots", sheet.bag == unlimited ? Json("unlimited") : Json(sheet.bag)}};
    json["worn"] = worn_json(armoury, outfit.worn);
    json["pack"] = Json::object();
    for (const PackedItem& packed : outfit.pack)
        json["pack"][armoury.at(packed.item).id] = packed.count;
    json["actions"] = actions_done_ids(armoury, outfit);
    json["upgrades"] = Json::object();
    for (const BoughtUpgrade& bought : outfit.upgrades)
        json["upgrades"][armoury.at(bought.upgrade).id] = bought.levels;
    json["sets"] = sets_json(armoury, sheet);
    json["refused"] = Json::array();
    for (const Refusal& refusal : sheet.refused)
        json["refused"].push_back({{"thing", refusal.thing}, {"reasons", refusal.reasons}});
    document.tables.push_back(std::move(stats));
    return document;
}

} // namespace panoplon
