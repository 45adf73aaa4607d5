#include "outfit/sheet.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

void list_parts(const Modifiers& modifiers, double add_factor, const std::string& bearer,
                std::vector<Sheet::Line>& lines) {
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : modifiers.of(change)) {
            const double scaled =
                change == Change::add ? amount.amount * add_factor : amount.amount;
            lines[amount.stat.index()].parts.push_back(
                {bearer, change_names[static_cast<int>(change)], scaled});
        }
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

} // namespace

Sheet make_sheet(Deriver& deriver, const Outfit& outfit) {
    const Armoury& armoury = deriver.armoury();
    Sheet sheet;
    sheet.refused = refusals(deriver, outfit);
    sheet.load = outfit_load(deriver, outfit);
    sheet.stacks = pack_stacks(armoury, outfit);
    const std::vector<double> values = outfit_stats(deriver, outfit, sheet.load.band);
    sheet.stats.resize(armoury.stats.size());
    for (std::size_t i = 0; i < values.size(); ++i) sheet.stats[i].value = values[i];
    list_base(armoury, outfit, values, sheet.stats);
    for_each_bearer(armoury, outfit,
                    [&](const Bearer& bearer, const char* kind, double add_factor) {
                        list_parts(bearer.modifiers, add_factor,
                                   fmt::format("{}.{}", kind, bearer.id), sheet.stats);
                    });
    if (const Band* band = armoury.carry.band(sheet.load.band))
        list_parts(band->modifiers, 1, "band." + band->id, sheet.stats);
    if (sheet.load.above && !sheet.load.above->limit) {
        const std::vector<double> beyond = outfit_stats(deriver, outfit, sheet.load.above->band);
        for (std::size_t i = 0; i < values.size(); ++i)
            if (values[i] != beyond[i])
                sheet.beyond_edge.push_back({StatId(i), values[i], beyond[i]});
    }
    return sheet;
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
