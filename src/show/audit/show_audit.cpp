#include "show/audit/show_audit.h"
#include "show/audit/verdict_words.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::vector<ItemVerdict> verdicts_of(const std::vector<ConsumableVerdict>& consumables) {
    std::vector<ItemVerdict> list;
    for (const ConsumableVerdict& one : consumables) list.push_back(one.judged);
    return list;
}

std::string verdict_counts(const std::vector<ItemVerdict>& items) {
    std::vector<std::string> parts;
    for (const VerdictRow& row : verdict_rows()) {
        const auto count = std::count_if(items.begin(), items.end(), [&](const ItemVerdict& item) {
            return item.verdict == row.verdict;
        });
        if (count > 0) parts.push_back(fmt::format("{} {}", count, row.name));
    }
    return join(parts, ", ");
}

std::string table_text(const Armoury& armoury, std::vector<ItemVerdict> items) {
    std::stable_sort(items.begin(), items.end(), [](const ItemVerdict& a, const ItemVerdict& b) {
        return urgency(a) < urgency(b);
    });
    TextTable table({{"item"},
                     {"slot"},
                     {"level", Align::right},
                     {"verdict"},
                     {"picks", Align::right},
                     {"grip", Align::right},
                     {"shortfall", Align::right},
                     {"ban loss", Align::right},
                     {"lift", Align::right}});
    std::size_t elsewhere = 0;
    for (const ItemVerdict& v : items) {
        const Item& item = armoury.at(v.item);
        const bool judged = v.contexts > 0;
        if (!judged && v.verdict == Verdict::unjudged) {
            ++elsewhere;
            continue;
        }
        table.row({item.id, armoury.at(item.slot).id, std::to_string(item.level), verdict_words(v),
                   judged ? fmt::format("{:.0f} %", v.pick_share * 100) : "—",
                   v.contested > 0 ? fmt::format("{:.2f}", v.grip.mean) : "—",
                   judged ? fmt::format("{:.2f}", v.shortfall.mean) : "—",
                   judged ? percent(v.ban_loss.mean) : "—",
                   v.lift ? signed_percent(v.lift->mean) : "—"});
    }
    std::string text = table.text();
    if (elsewhere > 0)
        text += fmt::format("  {} not of these levels: unjudged, and not listed\n",
                            counted(elsewhere, "item"));
    return text;
}

std::string first_text(const Armoury& armoury, const AuditResult& result,
                       std::vector<ItemVerdict> items) {
    std::stable_sort(items.begin(), items.end(), [](const ItemVerdict& a, const ItemVerdict& b) {
        return urgency(a) < urgency(b);
    });
    std::string text = "\nWhat to look at first\n";
    bool any = false;
    for (const ItemVerdict& v : items) {
        if (urgency(v) > calls_for_nothing) continue;
        any = true;
        const std::string witness = witness_text(armoury, result, v);
        const std::string line =
            fmt::format("{} — {}: {}{}{}", armoury.at(v.item).id, verdict_words(v), v.sentence,
                        witness.empty() ? "" : " ", witness);
        text += "  " + folded(line, 108, 4) + "\n";
    }
    return any ? text : text + "  nothing: no item is dominant, useless or out of place\n";
}

Json spread_json(const Spread& spread, const char* extreme, double value) {
    return {{"mean", spread.mean}, {extreme, value}};
}

Json lift_json(const std::optional<Estimate>& lift) {
    if (!lift) return nullptr;
    return {{"mean", lift->mean}, {"low", lift->low}, {"high", lift->high}};
}

Json item_json(const Armoury& armoury, const AuditResult& result, const ItemVerdict& v) {
    return {{"id", armoury.at(v.item).id},
            {"verdict", verdict_name(v.verdict)},
            {"confirmed", v.confirmed ? Json(v.confirmed->borne_out) : Json(nullptr)},
            {"by_trials", v.confirmed ? Json(v.confirmed->by_trials) : Json(nullptr)},
            {"witness", witness_json(armoury, result, v)},
            {"contexts", v.contexts},
            {"pick_share", v.pick_share},
            {"contested", v.contested},
            {"ban_loss", spread_json(v.ban_loss, "max", v.ban_loss.max)},
            {"force_loss", spread_json(v.force_loss, "min", v.force_loss.min)},
            {"grip", spread_json(v.grip, "max", v.grip.max)},
            {"shortfall", spread_json(v.shortfall, "min", v.shortfall.min)},
            {"overstays", v.overstays},
            {"lift", lift_json(v.lift)},
            {"outclassed_by", ids_of(armoury, v.outclassed_by)},
            {"twins", ids_of(armoury, v.twins)},
            {"sentence", v.sentence}};
}

Json consumable_json(const Armoury& armoury, const AuditResult& result, const AuditExtras& extras,
                     std::size_t at) {
    const ConsumableVerdict& one = result.consumables[at];
    Json json = item_json(armoury, result, one.judged);
    json["packed_in"] = one.worth.packed;
    json["units"] = one.worth.units;
    json["per_unit"] = one.worth.per_unit;
    json["per_weight"] = one.worth.per_weight;
    json["per_stack"] = one.worth.per_stack;
    const BreakEven* pays = break_even_of(extras, at);
    json["pays_after"] =
        pays ? Json({{"mean", pays->time}, {"min", pays->least}, {"max", pays->most}}) : Json();
    return json;
}

Json context_json(const Armoury& armoury, const ContextRow& row) {
    Json worn = Json::object();
    for (const WornItem& item : row.outfit.worn)
        worn[armoury.at(item.slot).id].push_back(armoury.at(item.item).id);
    Json pack = Json::object();
    for (const PackedItem& packed : row.outfit.pack)
        pack[armoury.at(packed.item).id] = packed.count;
    return {{"character", armoury.at(row.context.character).id},
            {"level", row.context.level},
            {"encounter", armoury.at(row.context.encounter).id},
            {"margin", row.best.value},
            {"proven", row.proven},
            {"worn", std::move(worn)},
            {"pack", std::move(pack)}};
}

CsvTable verdict_table(const Armoury& armoury, const AuditResult& result) {
    CsvTable table{"audit",
                   {"item",      "slot",          "tier",          "level",      "verdict",
                    "overstays", "contexts",      "contested",     "pick_share", "grip",
                    "shortfall", "shortfall_min", "ban_loss",      "force_loss", "lift",
                    "lift_low",  "lift_high",     "outclassed_by", "twins",      "sentence"},
                   {}};
    const auto number = [](const std::optional<Estimate>& lift, double Estimate::*part) {
        return lift ? rounded((*lift).*part, 5) : std::string();
    };
    for (const ItemVerdict& v : result.items) {
        const Item& item = armoury.at(v.item);
        table.rows.push_back({item.id,
                              armoury.at(item.slot).id,
                              item.tier.given() ? armoury.at(item.tier).id : "",
                              std::to_string(item.level),
                              verdict_name(v.verdict),
                              v.overstays ? "true" : "false",
                              std::to_string(v.contexts),
                              std::to_string(v.contested),
                              rounded(v.pick_share, 4),
                              rounded(v.grip.mean, 4),
                              rounded(v.shortfall.mean, 4),
                              rounded(v.shortfall.min, 4),
                              rounded(v.ban_loss.mean, 4),
                              rounded(v.force_loss.mean, 4),
                              number(v.lift, &Estimate::mean),
                              number(v.lift, &Estimate::low),
                              number(v.lift, &Estimate::high),
                              join(ids_of(armoury, v.outclassed_by), ";"),
                              join(ids_of(armoury, v.twins), ";"),
                              v.sentence});
    }
    return table;
}

void add_parts(const Armoury& armoury, const AuditExtras& extras, Document& document) {
    const auto add = [&](const char* name, AuditPart part) {
        document.text += part.text;
        document.json[name] = std::move(part.json);
        if (!part.table.rows.empty()) document.tables.push_back(std::move(part.table));
    };
    add("upgrades", upgrades_part(armoury, extras.upgrades));
    if (extras.has_groups) add("groups", groups_part(armoury, extras.groups));
    if (!extras.tier_steps.empty()) add("tier_steps", tier_steps_part(armoury, extras.tier_steps));
    if (extras.has_pairs) add("pairs", pairs_part(armoury, extras.pairs));
}

} // namespace

CsvTable audit_detail(const Armoury& armoury, const AuditResult& result) {
    CsvTable table{"audit-detail",
                   {"item", "character", "level", "encounter", "best", "without", "with", "worth",
                    "grip", "shortfall", "contested", "in_window"},
                   {}};
    std::vector<ItemContextRow> rows = result.rows;
    rows.insert(rows.end(), result.packed_rows.begin(), result.packed_rows.end());
    for (const ItemContextRow& row : rows) {
        const Context& context = result.contexts[row.context].context;
        table.rows.push_back({armoury.at(row.item).id, armoury.at(context.character).id,
                              std::to_string(context.level), armoury.at(context.encounter).id,
                              rounded(row.best, 5), rounded(row.without, 5), rounded(row.with, 5),
                              rounded(row.worth, 5), row.judged ? rounded(row.grip, 4) : "",
                              row.judged ? rounded(row.shortfall, 4) : "",
                              row.contested ? "true" : "false", row.in_window ? "true" : "false"});
    }
    return table;
}

Document show_audit(const Armoury& armoury, const AuditOptions& options, const AuditResult& result,
                    const AuditExtras& extras) {
    Document document;
    document.partial = result.partial;
    const std::vector<ItemVerdict> consumables = verdicts_of(result.consumables);
    std::vector<ItemVerdict> all = result.items;
    all.insert(all.end(), consumables.begin(), consumables.end());
    document.text =
        fmt::format("{} in {}: {}\n", counted(result.items.size(), "worn item"),
                    counted(result.contexts.size(), "context"), verdict_counts(result.items));
    if (!consumables.empty())
        document.text += fmt::format("{}: {}\n", counted(consumables.size(), "consumable"),
                                     verdict_counts(consumables));
    document.text += "\n" + table_text(armoury, result.items) +
                     consumables_text(armoury, result, extras) + sets_text(armoury, extras.sets) +
                     tiers_text(armoury, extras.tiers);
    add_parts(armoury, extras, document);
    document.text += first_text(armoury, result, all);
    for (const std::string& remark : result.remarks)
        document.text += fmt::format("note: {}\n", remark);
    document.json["items"] = Json::array();
    for (const ItemVerdict& v : result.items)
        document.json["items"].push_back(item_json(armoury, result, v));
    document.json["consumables"] = Json::array();
    for (std::size_t i = 0; i < result.consumables.size(); ++i)
        document.json["consumables"].push_back(consumable_json(armoury, result, extras, i));
    document.json["sets"] = sets_json(armoury, extras.sets);
    document.json["tiers"] = tiers_json(armoury, extras.tiers);
    document.json["contexts"] = Json::array();
    for (const ContextRow& row : result.contexts)
        document.json["contexts"].push_back(context_json(armoury, row));
    document.json["remarks"] = result.remarks;
    document.tables.push_back(verdict_table(armoury, result));
    document.tables.push_back(consumable_table(armoury, result, extras));
    document.tables.push_back(audit_detail(armoury, result));
    if (!extras.sets.empty()) document.tables.push_back(sets_table(armoury, extras.sets));
    if (!extras.tiers.empty()) document.tables.push_back(tiers_table(armoury, extras.tiers));
    std::vector<Figure> figures = audit_figures(armoury, options, result);
    figures.push_back(grip_figure(armoury, result));
    if (auto pairs = pairs_figure(armoury, extras.pairs)) figures.push_back(std::move(*pairs));
    document.figures = std::move(figures);
    return document;
}

} // namespace panoplon
