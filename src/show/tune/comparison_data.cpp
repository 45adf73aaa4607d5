// A comparison as JSON and as tables.
#include "show/audit/verdict_words.h"
#include "show/tune/show_comparison.h"

#include "base/text.h"
#include "show/words.h"

#include <cmath>

namespace panoplon {

namespace {

std::string verdict_cell(const std::optional<ItemVerdict>& verdict) {
    return verdict ? verdict_words(*verdict) : "not there";
}

Json changes_json(const Comparison& comparison, bool items) {
    Json list = Json::array();
    for (const DefinitionChange& change : comparison.changes) {
        if ((change.kind == "item") != items) continue;
        Json keys = Json::array();
        for (const auto& key : change.keys)
            keys.push_back({{"key", key.path}, {"before", key.before}, {"after", key.after}});
        Json one = {{"id", change.id},
                    {"change", definition_change_names[static_cast<int>(change.what)]},
                    {"keys", std::move(keys)}};
        if (!items) one["kind"] = change.kind;
        list.push_back(std::move(one));
    }
    return list;
}

Json verdict_json(const std::optional<ItemVerdict>& verdict) {
    return verdict ? Json(verdict_name(verdict->verdict)) : Json(nullptr);
}

Json overstays_json(const std::optional<ItemVerdict>& verdict) {
    return verdict ? Json(verdict->overstays) : Json(nullptr);
}

} // namespace

void add_comparison_json(Json& json, const Comparison& comparison) {
    json["items"] = changes_json(comparison, true);
    json["definitions"] = changes_json(comparison, false);
    for (const char* list : {"verdicts", "sheets", "curves", "best"}) json[list] = Json::array();
    for (const VerdictShift& shift : comparison.verdicts)
        if (shift.moved())
            json["verdicts"].push_back({{"id", shift.id},
                                        {"before", verdict_json(shift.before)},
                                        {"after", verdict_json(shift.after)},
                                        {"overstays_before", overstays_json(shift.before)},
                                        {"overstays_after", overstays_json(shift.after)}});
    for (const SheetShift& shift : comparison.sheets)
        json["sheets"].push_back({{"loadout", shift.loadout},
                                  {"level", shift.level},
                                  {"stat", shift.stat},
                                  {"before", shift.before},
                                  {"after", shift.after}});
    json["worst"] = nullptr;
    double furthest = margin_noise;
    for (const CurveShift& curve : comparison.curves)
        for (const CurveShift::Point& point : curve.points) {
            Json row = {{"name", curve.loadout}, {"encounter", curve.encounter},
                        {"level", point.level},  {"before", point.before},
                        {"after", point.after},  {"ratio", point.ratio()}};
            if (std::abs(std::log(point.ratio())) > furthest) {
                furthest = std::abs(std::log(point.ratio()));
                json["worst"] = row;
            }
            json["curves"].push_back(std::move(row));
        }
    for (const BestShift& best : comparison.bests)
        json["best"].push_back({{"character", best.character},
                                {"encounter", best.encounter},
                                {"level", best.level},
                                {"before", best.before},
                                {"after", best.after},
                                {"ratio", best.ratio()}});
    json["not_compared"] = comparison.incomparable;
    json["contexts"] = comparison.contexts;
}

std::vector<CsvTable> comparison_tables(const Comparison& comparison) {
    CsvTable changes{"compare-changes", {"kind", "id", "change", "key", "before", "after"}, {}};
    for (const DefinitionChange& change : comparison.changes) {
        const char* what = definition_change_names[static_cast<int>(change.what)];
        if (change.keys.empty()) changes.rows.push_back({change.kind, change.id, what, "", "", ""});
        for (const auto& key : change.keys)
            changes.rows.push_back({change.kind, change.id, what, key.path, key.before, key.after});
    }
    CsvTable verdicts{"compare-verdicts", {"item", "before", "after", "moved"}, {}};
    for (const VerdictShift& shift : comparison.verdicts)
        verdicts.rows.push_back({shift.id, verdict_cell(shift.before), verdict_cell(shift.after),
                                 shift.moved() ? "true" : "false"});
    CsvTable curves{
        "compare-curves", {"loadout", "encounter", "level", "before", "after", "ratio"}, {}};
    for (const CurveShift& curve : comparison.curves)
        for (const CurveShift::Point& point : curve.points)
            curves.rows.push_back({curve.loadout, curve.encounter, std::to_string(point.level),
                                   rounded(point.before, 5), rounded(point.after, 5),
                                   rounded(point.ratio(), 5)});
    CsvTable bests{
        "compare-best", {"character", "encounter", "level", "before", "after", "ratio"}, {}};
    for (const BestShift& best : comparison.bests)
        bests.rows.push_back({best.character, best.encounter, std::to_string(best.level),
                              rounded(best.before, 5), rounded(best.after, 5),
                              rounded(best.ratio(), 5)});
    return {std::move(changes), std::move(verdicts), std::move(curves), std::move(bests)};
}

} // namespace panoplon
