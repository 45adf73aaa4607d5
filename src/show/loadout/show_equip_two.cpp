#include "show/loadout/show_equip.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string item_words(const Armoury& armoury, ItemId item) {
    return item.given() ? armoury.at(item).id : "—";
}

const char* better_words(const Armoury& armoury, const StatInBoth& stat) {
    if (stat.first == stat.second) return "";
    if (armoury.at(stat.stat).better == Better::neither) return "other";
    return stat.better > 0 ? "better" : "worse";
}

std::string signed_number(double number) {
    return (number > 0 ? "+" : "") + rounded(number, 3);
}

std::string power_words(const std::optional<double>& power, const std::optional<double>& from) {
    if (!power || !from) return "";
    return fmt::format("{} ({})", rounded(*power, 3), signed_percent(*power / *from - 1));
}

std::string stats_words(const Armoury& armoury, const std::vector<StatInBoth>& stats) {
    std::vector<std::string> parts;
    for (const StatInBoth& stat : stats)
        parts.push_back(fmt::format("{} {}", armoury.at(stat.stat).id,
                                    signed_number(stat.second - stat.first)));
    return parts.empty() ? "no stat" : join(parts, ", ");
}

std::string places_text(const Armoury& armoury, const OutfitComparison& both,
                        const std::string& first, const std::string& second) {
    TextTable table({{"place"}, {first}, {second}});
    for (const PlaceInBoth& place : both.places) {
        const Slot& slot = armoury.at(place.slot);
        const std::string name =
            slot.count == 1 ? slot.id : fmt::format("{} {}", slot.id, place.number);
        table.row({name, item_words(armoury, place.first), item_words(armoury, place.second)});
    }
    return table.text();
}

std::string stats_text(const Armoury& armoury, const OutfitComparison& both,
                       const std::string& first, const std::string& second) {
    TextTable table(
        {{"stat"}, {first, Align::right}, {second, Align::right}, {"change", Align::right}, {""}});
    std::vector<std::string> none;
    for (const StatInBoth& stat : both.stats) {
        const bool same = stat.first == stat.second;
        if (same && stat.first == 0) {
            none.push_back(armoury.at(stat.stat).id);
            continue;
        }
        table.row({armoury.at(stat.stat).id, rounded(stat.first, 3), rounded(stat.second, 3),
                   same ? "=" : signed_number(stat.second - stat.first),
                   better_words(armoury, stat)});
    }
    const std::string rest =
        none.empty() ? "" : fmt::format("  neither has any {}\n", join(none, ", "));
    return table.text() + rest;
}

std::string changes_text(const Armoury& armoury, const OutfitComparison& both) {
    if (both.changes.empty()) return "Nothing differs.\n";
    TextTable table({{"each change alone"}, {"power", Align::right}, {"changes"}});
    for (const SingleChange& change : both.changes) {
        const std::string power =
            change.refused.empty() ? power_words(change.power, both.first_power) : "refused";
        table.row({change.what, power,
                   change.refused.empty() ? stats_words(armoury, change.stats)
                                          : fmt::format("{}: {}", change.refused.front().thing,
                                                        change.refused.front().reasons.front())});
    }
    table.row({"all together", power_words(both.second_power, both.first_power),
               "as in the table of stats"});
    return table.text();
}

Json optional_json(const std::optional<double>& number) {
    return number ? Json(*number) : Json(nullptr);
}

} // namespace

Document show_equip_two(const Armoury& armoury, const TwoOutfits& two) {
    Document document;
    const std::string& first = armoury.at(two.first).id;
    const std::string& second = armoury.at(two.second).id;
    const OutfitComparison& both = two.comparison;
    document.text = fmt::format("{} and {} at level {}\n\n", first, second, two.level) +
                    places_text(armoury, both, first, second) + "\n" +
                    stats_text(armoury, both, first, second) + "\n";
    for (const auto& [name, sheet] :
         {std::pair{&first, &two.first_sheet}, {&second, &two.second_sheet}}) {
        document.text += fmt::format("Load of {}: {}\n", *name, load_words(armoury, *sheet));
        document.text += refusals_text(sheet->refused);
    }
    document.text += "\n" + changes_text(armoury, both);
    if (both.first_power)
        document.text +=
            fmt::format("Power: the margin against {} by even luck; {} of {}.\n",
                        armoury.at(armoury.yardstick).id, rounded(*both.first_power, 3), first);

    Json& json = document.json;
    json["loadouts"] = {first, second};
    json["level"] = two.level;
    json["places"] = Json::array();
    for (const PlaceInBoth& place : both.places)
        json["places"].push_back(
            {{"place", armoury.at(place.slot).id},
             {"first", place.first.given() ? Json(armoury.at(place.first).id) : Json(nullptr)},
             {"second", place.second.given() ? Json(armoury.at(place.second).id) : Json(nullptr)}});
    Table table{"equip",
                {as::text("what").json(""), as::number("power", in_full).json(""),
                 as::text("stat").json(""), as::number("first", in_full),
                 as::number("second", in_full), as::text("better").json(""), as::json("better")}};
    const auto rows = [&](const std::string& what, const std::optional<double>& power,
                          const std::vector<StatInBoth>& stats) {
        Json list = Json::object();
        for (const StatInBoth& stat : stats) {
            const std::string& id = armoury.at(stat.stat).id;
            table.row({what, power, id, stat.first, stat.second, better_words(armoury, stat),
                       stat.better > 0   ? Cell("second")
                       : stat.better < 0 ? Cell("first")
                                         : Cell()});
            list[id] = row_json(table, table.rows.back());
        }
        return list;
    };
    json["stats"] = rows("all together", both.second_power, both.stats);
    json["changes"] = Json::array();
    for (const SingleChange& change : both.changes) {
        Json refused = Json::array();
        for (const Refusal& refusal : change.refused)
            refused.push_back({{"thing", refusal.thing}, {"reasons", refusal.reasons}});
        json["changes"].push_back({{"what", change.what},
                                   {"power", optional_json(change.power)},
                                   {"stats", rows(change.what, change.power, change.stats)},
                                   {"refused", std::move(refused)}});
    }
    json["power"] = {{"first", optional_json(both.first_power)},
                     {"second", optional_json(both.second_power)}};
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
