#include "outfit/sheet.h"

#include <algorithm>
#include <fmt/format.h>
#include <limits>

namespace panoplon {

namespace {

void list_parts(const Borne& borne, std::vector<Sheet::Line>& lines) {
    const std::string name = fmt::format("{}.{}", borne.kind, borne.bearer->id);
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : borne.modifiers().of(change))
            lines[amount.stat.index()].parts.push_back(
                {name, change_names[static_cast<int>(change)],
                 scaled(change, amount.amount, borne.add_factor, borne.levels)});
}

void list_base(const Armoury& armoury, const Outfit& outfit, const std::vector<double>& values,
               std::vector<Sheet::Line>& lines) {
    const Character& character = armoury.at(outfit.character);
    const std::vector<double> base = base_stats(armoury, character, outfit.level);
    const std::string bearer = "character." + character.id;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (base[i] != 0) lines[i].parts.push_back({bearer, "base", base[i]});
        if (!armoury.stats[i].value.given()) continue;
        Environment environment;
        environment.self.stats = values.data();
        environment[Scalar::level] = outfit.level;
        lines[i].parts.push_back({"stat." + armoury.stats[i].id, "formula",
                                  Evaluator(armoury.stats[i].value)(environment)});
    }
}

std::vector<Sheet::SetStanding> set_standings(const Armoury& armoury, const Outfit& outfit) {
    std::vector<Sheet::SetStanding> list;
    const std::vector<int> pieces = set_pieces(armoury, outfit);
    for (std::size_t s = 0; s < pieces.size(); ++s) {
        if (pieces[s] == 0) continue;
        Sheet::SetStanding standing{SetId(s), pieces[s], 0, 0, {}};
        for (const SetStep& step : armoury.sets[s].steps) {
            if (step.count <= pieces[s]) standing.reached = step.count;
            if (step.count > pieces[s] && standing.next == 0) standing.next = step.count;
        }
        std::vector<bool> worn(armoury.items.size(), false);
        for_each_worn(outfit.worn, [&](const WornItem& one) { worn[one.item.index()] = true; });
        for (std::size_t i = 0; i < armoury.items.size(); ++i)
            if (armoury.items[i].set == SetId(s) && !worn[i]) standing.missing.emplace_back(i);
        list.push_back(std::move(standing));
    }
    return list;
}

} // namespace

Sheet make_sheet(Deriver& deriver, const Outfit& outfit) {
    const Armoury& armoury = deriver.armoury();
    Sheet sheet;
    sheet.refused = refusals(deriver, outfit);
    sheet.load = outfit_load(deriver, outfit);
    sheet.stacks = pack_stacks(armoury, outfit);
    sheet.bag = bag_size(armoury, outfit);
    sheet.sets = set_standings(armoury, outfit);
    const std::vector<double> values = outfit_stats(deriver, outfit, sheet.load.band);
    sheet.stats.resize(armoury.stats.size());
    for (std::size_t i = 0; i < values.size(); ++i) sheet.stats[i].value = values[i];
    list_base(armoury, outfit, values, sheet.stats);
    std::vector<Borne> bearers = bearers_of(armoury, outfit);
    if (const Band* band = armoury.carry.band(sheet.load.band)) bearers.push_back({band, "band"});
    for (const Borne& borne : bearers) list_parts(borne, sheet.stats);
    if (sheet.load.above && !sheet.load.above->limit) {
        const std::vector<double> beyond = outfit_stats(deriver, outfit, sheet.load.above->band);
        for (std::size_t i = 0; i < values.size(); ++i)
            if (values[i] != beyond[i])
                sheet.beyond_edge.push_back({StatId(i), values[i], beyond[i]});
    }
    return sheet;
}

double beyond_cap(const Stat& stat, const std::vector<Part>& parts) {
    Stat uncapped = stat;
    uncapped.max = std::numeric_limits<double>::max();
    return std::max(0.0, compose(uncapped, parts) - stat.max);
}

double compose(const Stat& stat, const std::vector<Part>& parts) {
    double base = 0;
    double add = 0;
    double percent = 0;
    double times = 1;
    for (const Part& part : parts) {
        if (part.kind == "base" || part.kind == "formula") base += part.amount;
        if (part.kind == "add") add += part.amount;
        if (part.kind == "percent") percent += part.amount;
        if (part.kind == "times") times *= part.amount;
    }
    return settle(stat, base, add, percent, times);
}

} // namespace panoplon
