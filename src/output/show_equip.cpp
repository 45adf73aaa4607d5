#include "output/show_equip.h"

#include "base/text.h"
#include "output/text_table.h"
#include "output/words.h"

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
    for (std::size_t i = 0; i < sheet.stats.size(); ++i) {
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
    return table.text();
}

std::string worn_text(const Armoury& armoury, const Outfit& outfit) {
    TextTable table(
        {{"place"}, {"worn"}, {"tier"}, {"level", Align::right}, {"weight", Align::right}});
    for (std::size_t s = 0; s < armoury.slots.size(); ++s) {
        int number = 0;
        for (const WornItem& worn : outfit.worn) {
            if (worn.slot != SlotId(s)) continue;
            const Item& item = armoury.at(worn.item);
            const std::string tier =
                item.tier.given()
                    ? fmt::format("{} {}", armoury.at(item.tier).name, armoury.at(item.tier).mark)
                    : "";
            table.row({place_words(armoury.slots[s], ++number), item.id, tier,
                       std::to_string(item.level), rounded(to_weight(item.weight), 3)});
        }
        for (; number < armoury.slots[s].count;)
            table.row({place_words(armoury.slots[s], ++number), "—"});
    }
    return table.text();
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
        text += fmt::format("; {} more reaches {} ({})", rounded(load.above->weight_away, 3), name,
                            edge_words(*load.above));
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
                            rounded(load.below->weight_away, 3), edge_words(*load.below));
    return text;
}

Document show_equip(const Armoury& armoury, const Loadout& loadout, const Outfit& outfit,
                    const Sheet& sheet) {
    Document document;
    const Character& character = armoury.at(outfit.character);
    document.text =
        fmt::format("{}: {} at level {}\n", loadout.id, printable(character.name), outfit.level);
    document.text += "\n" + worn_text(armoury, outfit) + "\n" + pack_text(armoury, outfit);
    document.text += fmt::format("\nLoad: {}\n", load_words(armoury, sheet));
    const std::string slots =
        armoury.carry.bag == unlimited ? "no limit" : std::to_string(armoury.carry.bag);
    document.text += fmt::format("Bag: {} of {}\n\n",
                                 counted(static_cast<std::size_t>(sheet.stacks), "stack"), slots);
    document.text += stats_text(armoury, sheet);
    document.text +=
        sheet.refused.empty() ? "\nNothing is refused.\n" : "\n" + refusals_text(sheet.refused);

    Json& json = document.json;
    json["loadout"] = loadout.id;
    json["character"] = character.id;
    json["level"] = outfit.level;
    CsvTable stats{"equip", {"stat", "value", "bearer", "kind", "amount"}, {}};
    for (std::size_t i = 0; i < sheet.stats.size(); ++i) {
        Json parts = Json::array();
        for (const Part& part : sheet.stats[i].parts) {
            parts.push_back(
                {{"bearer", part.bearer}, {"kind", part.kind}, {"amount", part.amount}});
            stats.rows.push_back({armoury.stats[i].id, shortest(sheet.stats[i].value), part.bearer,
                                  part.kind, shortest(part.amount)});
        }
        json["stats"][armoury.stats[i].id] = {{"value", sheet.stats[i].value},
                                              {"parts", std::move(parts)}};
    }
    json["load"] = {
        {"weight", to_weight(sheet.load.carried)},
        {"capacity", sheet.load.capacity},
        {"share", std::isfinite(sheet.load.share) ? Json(sheet.load.share) : Json(nullptr)},
        {"band",
         sheet.load.band == no_band ? Json(nullptr) : Json(band_name(armoury, sheet.load.band))},
        {"next_edge", edge_json(armoury, sheet.load.above)},
        {"last_edge", edge_json(armoury, sheet.load.below)}};
    json["bag"] = {
        {"stacks", sheet.stacks},
        {"slots", armoury.carry.bag == unlimited ? Json("unlimited") : Json(armoury.carry.bag)}};
    json["refused"] = Json::array();
    for (const Refusal& refusal : sheet.refused)
        json["refused"].push_back({{"thing", refusal.thing}, {"reasons", refusal.reasons}});
    document.tables.push_back(std::move(stats));
    return document;
}

} // namespace panoplon
