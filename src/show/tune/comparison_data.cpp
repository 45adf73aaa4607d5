// A comparison as JSON and as tables.
#include "show/audit/verdict_words.h"
#include "show/tune/show_comparison.h"

#include "base/text.h"
#include "show/words.h"

#include <cmath>

namespace panoplon {

namespace {

Cell verdict_cell(const std::optional<ItemVerdict>& verdict) {
    return verdict ? verdict_words(*verdict) : "not there";
}

Cell bare_verdict(const std::optional<ItemVerdict>& verdict) {
    return verdict ? Cell(verdict_name(verdict->verdict)) : Cell();
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

/// Every margin of a loadout that was compared.
Table curves_table(const Comparison& comparison) {
    Table table{"compare-curves",
                {as::text("loadout").json("name"), as::text("encounter"), as::whole("level"),
                 as::number("before", 5), as::number("after", 5), as::number("ratio", 5)}};
    for (const CurveShift& curve : comparison.curves)
        for (const CurveShift::Point& point : curve.points)
            table.row({curve.loadout, curve.encounter, point.level, point.before, point.after,
                       point.ratio()});
    return table;
}

Table verdicts_table(const Comparison& comparison) {
    Table table{"compare-verdicts",
                {as::item("item").json("id"), as::text("before").json(""),
                 as::text("after").json(""), as::json("before"), as::json("after"),
                 as::json("overstays_before"), as::json("overstays_after"),
                 as::text("moved").json("")}};
    const auto overstays = [](const std::optional<ItemVerdict>& verdict) {
        return verdict ? Cell(verdict->overstays) : Cell();
    };
    for (const VerdictShift& shift : comparison.verdicts)
        table.row({shift.id, verdict_cell(shift.before), verdict_cell(shift.after),
                   bare_verdict(shift.before), bare_verdict(shift.after), overstays(shift.before),
                   overstays(shift.after), shift.moved()});
    return table;
}

Table bests_table(const Comparison& comparison) {
    Table table{"compare-best",
                {as::text("character"), as::text("encounter"), as::whole("level"),
                 as::number("before", 5), as::number("after", 5), as::number("ratio", 5)}};
    for (const BestShift& best : comparison.bests)
        table.row(
            {best.character, best.encounter, best.level, best.before, best.after, best.ratio()});
    return table;
}

/// The verdicts that moved.
Json moved_json(const Comparison& comparison) {
    const Table table = verdicts_table(comparison);
    Json list = Json::array();
    for (std::size_t i = 0; i < table.rows.size(); ++i)
        if (comparison.verdicts[i].moved()) list.push_back(row_json(table, table.rows[i]));
    return list;
}

/// The margin that moved furthest; null where none did. `table`: of every point, in order.
Json worst_json(const Comparison& comparison, const Table& table) {
    Json worst;
    double furthest = 0;
    std::size_t row = 0;
    for (const CurveShift& curve : comparison.curves)
        for (const CurveShift::Point& point : curve.points) {
            const double distance = std::abs(std::log(point.ratio()));
            if (point.moved() && distance > furthest) {
                furthest = distance;
                worst = row_json(table, table.rows[row]);
            }
            ++row;
        }
    return worst;
}

} // namespace

void add_comparison_json(Json& json, const Comparison& comparison) {
    json["items"] = changes_json(comparison, true);
    json["definitions"] = changes_json(comparison, false);
    json["verdicts"] = moved_json(comparison);
    json["sheets"] = rows_json(sheets_table(comparison));
    const Table curves = curves_table(comparison);
    json["curves"] = rows_json(curves);
    json["worst"] = worst_json(comparison, curves);
    json["best"] = rows_json(bests_table(comparison));
    json["not_compared"] = comparison.incomparable;
    json["contexts"] = comparison.contexts;
    const auto ids = [](const std::vector<const VerdictShift*>& shifts) {
        Json list = Json::array();
        for (const VerdictShift* shift : shifts) list.push_back(shift->id);
        return list;
    };
    json["calls"] = {{"before", comparison.calling_before()},
                     {"after", comparison.calling_after()},
                     {"newly", ids(comparison.newly_calling())},
                     {"no_longer", ids(comparison.no_longer_calling())}};
    json["in_corridor"] = {{"before", comparison.corridors_before.kept},
                           {"after", comparison.corridors_after.kept},
                           {"of", comparison.corridors_after.wanted}};
}

Table sheets_table(const Comparison& comparison) {
    Table table{"compare-sheets",
                {as::text("loadout", "loadout"), as::whole("level", "level"),
                 as::text("stat", "stat"), as::amount("before", "before", 2),
                 as::amount("after", "after", 2)}};
    for (const SheetShift& shift : comparison.sheets)
        table.row({shift.loadout, shift.level, shift.stat, shift.before, shift.after});
    return table;
}

std::vector<Table> comparison_tables(const Comparison& comparison) {
    Table changes{"compare-changes",
                  {as::text("kind"), as::text("id"), as::text("change"), as::text("key"),
                   as::text("before"), as::text("after")}};
    for (const DefinitionChange& change : comparison.changes) {
        const char* what = definition_change_names[static_cast<int>(change.what)];
        if (change.keys.empty()) changes.row({change.kind, change.id, what, "", "", ""});
        for (const auto& key : change.keys)
            changes.row({change.kind, change.id, what, key.path, key.before, key.after});
    }
    return {std::move(changes), verdicts_table(comparison), curves_table(comparison),
            bests_table(comparison)};
}

} // namespace panoplon
