#include "show/audit/show_audit.h"
#include "show/audit/families.h"
#include "show/audit/verdict_words.h"
#include "show/audit/witness_words.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The most urgent first.
void sort_by_urgency(std::vector<ItemVerdict>& items) {
    std::stable_sort(items.begin(), items.end(), [](const ItemVerdict& a, const ItemVerdict& b) {
        return urgency(a) < urgency(b);
    });
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

bool not_looked_at(const ItemVerdict& v) {
    return v.contexts == 0 && v.verdict == Verdict::unjudged && !v.shut_out;
}

std::string after_a_line(const std::string& text) {
    return text.empty() ? text : "\n" + text;
}

/// A line for each column of tables that stand together; of one header once.
std::string key_of(const std::vector<const Table*>& tables) {
    Table all;
    for (const Table* table : tables)
        for (const Column& column : table->columns)
            if (std::none_of(all.columns.begin(), all.columns.end(),
                             [&](const Column& one) { return one.header == column.header; }))
                all.columns.push_back(column);
    return after_a_line(terminal_key(all));
}

/// Those that were looked at and are listed, the most urgent first.
Table listed_worn(const Armoury& armoury, const AuditResult& result, Listed listed) {
    std::vector<ItemVerdict> items = result.items;
    std::erase_if(items, not_looked_at);
    if (listed == Listed::what_calls)
        std::erase_if(items, [](const ItemVerdict& v) { return urgency(v) > calls_for_nothing; });
    sort_by_urgency(items);
    return worn_table(armoury, result, items);
}

/// Those that were judged in any context.
Table listed_consumables(const AuditResult& result, Table table, Listed listed) {
    std::vector<std::vector<Cell>> rows;
    for (std::size_t i = 0; i < table.rows.size(); ++i) {
        const ItemVerdict& v = result.consumables[i].judged;
        const bool told = listed == Listed::every_row || urgency(v) <= calls_for_nothing;
        if (told && v.contexts > 0) rows.push_back(std::move(table.rows[i]));
    }
    table.rows = std::move(rows);
    return table;
}

std::string tables_text(const Armoury& armoury, const AuditResult& result, const Table& consumables,
                        Listed listed) {
    Table worn = listed_worn(armoury, result, listed);
    const Table used = listed_consumables(result, consumables, listed);
    std::vector<const Table*> shown;
    if (!worn.rows.empty()) shown.push_back(&worn);
    if (!used.rows.empty()) shown.push_back(&used);
    constexpr std::size_t most_told = 40;
    const std::size_t rows = worn.rows.size();
    if (listed == Listed::what_calls) worn.rows.resize(std::min(rows, most_told));
    std::string text = after_a_line(terminal_text(worn));
    if (rows > worn.rows.size())
        text += fmt::format("  … and {} more: --all\n", rows - worn.rows.size());
    const auto elsewhere = std::count_if(result.items.begin(), result.items.end(), not_looked_at);
    if (elsewhere > 0 && listed == Listed::every_row)
        text += fmt::format("  {} not of these levels: unjudged, and not listed\n",
                            counted(static_cast<std::size_t>(elsewhere), "item"));
    return text + after_a_line(terminal_text(used)) + key_of(shown);
}

/// One verdict, or several of one cause.
std::string family_line(const Armoury& armoury, const AuditResult& result, const Family& family) {
    const ItemVerdict& v = *family.members.front();
    if (family.members.size() > 1) {
        const bool same = v.verdict == Verdict::idle || v.verdict == Verdict::unreachable ||
                          v.verdict == Verdict::outclassed;
        return fmt::format("{} {} ({}) — {}: {}{}", family.members.size(), family.cause,
                           names_of(armoury, family), verdict_words(v),
                           same ? "" : armoury.at(v.item).id + ": ", v.sentence);
    }
    const std::string witness = witness_text(armoury, result, v);
    return fmt::format("{} — {}: {}{}{}", armoury.at(v.item).id, verdict_words(v), v.sentence,
                       witness.empty() ? "" : " ", witness);
}

std::string first_text(const Armoury& armoury, const AuditResult& result,
                       std::vector<ItemVerdict> items) {
    std::erase_if(items, [](const ItemVerdict& v) { return urgency(v) > calls_for_nothing; });
    sort_by_urgency(items);
    const std::vector<Family> families = families_of(armoury, items);
    constexpr std::size_t most_told = 10;
    std::string text = "\nWhat to look at first\n";
    for (std::size_t i = 0; i < std::min(most_told, families.size()); ++i)
        text += "  " + folded(family_line(armoury, result, families[i]), 108, 4) + "\n";
    if (families.size() > most_told)
        text += fmt::format("  … and {} more, in the table\n", families.size() - most_told);
    return families.empty() ? text + "  nothing: no item is dominant, useless or out of place\n"
                            : text;
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
            {"missed", row.missed},
            {"roughness", row.roughness},
            {"weight_binds", row.limiting.weight_binds},
            {"bag_binds", row.limiting.bag_binds},
            {"load_share", row.limiting.load_share},
            {"stacks", row.limiting.stacks},
            {"worn", std::move(worn)},
            {"pack", std::move(pack)},
            {"points", points_json(armoury, row.outfit)},
            {"actions", row.found ? Json(actions_done_ids(armoury, row.outfit)) : Json::array()}};
}

/// Upgrades of which no level adds anything that a designer would see, anywhere.
std::string idle_upgrades(const Armoury& armoury, const std::vector<UpgradeWorth>& upgrades) {
    constexpr double least_seen = 5e-4;
    std::string text;
    for (std::size_t u = 0; u < armoury.upgrades.size(); ++u) {
        double most = 0;
        std::size_t contexts = 0;
        for (const UpgradeWorth& one : upgrades) {
            if (one.upgrade.index() != u) continue;
            most = std::max(most, one.most);
            contexts = std::max(contexts, one.contexts);
        }
        if (contexts > 0 && most < least_seen)
            text += fmt::format("  {} adds nothing to the margin in any of {}.\n",
                                armoury.upgrades[u].id, counted(contexts, "context"));
    }
    return text;
}

/// Adds a table to all that a document has: under a heading on a terminal, or these words where it
/// has no row.
void add_part(Document& document, const char* name, Table table, const std::string& heading,
              const std::string& where_empty, std::size_t most_shown = 1000000) {
    document.json[name] = rows_json(table);
    Table shown = table;
    shown.rows.resize(std::min(shown.rows.size(), most_shown));
    if (!shown.rows.empty() || !where_empty.empty())
        document.text +=
            "\n" + heading + "\n" + (shown.rows.empty() ? where_empty : terminal_text(shown));
    if (table.rows.size() > shown.rows.size())
        document.text += fmt::format("  … and {} more, in the files of -o\n",
                                     table.rows.size() - shown.rows.size());
    if (!table.rows.empty()) document.tables.push_back(std::move(table));
}

void add_tier_steps(const Armoury& armoury, const std::vector<TierStep>& steps,
                    Document& document) {
    Table table = tier_steps_table(armoury, steps);
    document.json["tier_steps"] = rows_json(table);
    document.text += "\nWhat a tier is worth in levels, against the yardstick\n";
    for (const TierStep& step : steps) document.text += "  " + folded(step.sentence, 108, 4) + "\n";
    document.tables.push_back(std::move(table));
}

/// Adds a table that a terminal shows only where every row is asked for.
void add_more(Document& document, const char* name, Table table, const char* heading,
              Listed listed) {
    if (listed == Listed::every_row) return add_part(document, name, std::move(table), heading, {});
    document.json[name] = rows_json(table);
    if (!table.rows.empty()) document.tables.push_back(std::move(table));
}

void add_extras(const Armoury& armoury, const AuditExtras& extras, Listed listed,
                Document& document) {
    constexpr std::size_t most_listed = 24;
    add_more(document, "sets", sets_table(armoury, extras.sets),
             "Sets: how often the best reaches a step, and what its bonus is of the margin there",
             listed);
    add_more(document, "tiers", tiers_table(armoury, extras.tiers), "Tiers: means over their items",
             listed);
    add_more(document, "upgrades", upgrades_table(armoury, extras.upgrades),
             "Upgrades: what each level adds to the margin of the best, bought alone", listed);
    document.text += idle_upgrades(armoury, extras.upgrades);
    if (extras.has_groups)
        add_part(document, "groups", groups_table(armoury, extras.groups),
                 "Groups: what is lost where all of one is banned",
                 "  there is no group of two items or more\n");
    if (!extras.tier_steps.empty()) add_tier_steps(armoury, extras.tier_steps, document);
    if (extras.has_pairs)
        add_part(document, "pairs", pairs_table(armoury, extras.pairs),
                 "Pairs: what two do together beyond the product of what each does alone",
                 "  none that can be told from none\n", most_listed);
}

} // namespace

Document show_audit(const Armoury& armoury, const AuditOptions& options, const AuditResult& result,
                    const AuditExtras& extras, Listed listed) {
    Document document;
    document.partial = result.partial;
    std::vector<ItemVerdict> all = result.items;
    for (const ConsumableVerdict& one : result.consumables) all.push_back(one.judged);
    const std::vector<ItemVerdict> consumables(
        all.begin() + static_cast<std::ptrdiff_t>(result.items.size()), all.end());
    document.text =
        fmt::format("{} in {}: {}\n", counted(result.items.size(), "worn item"),
                    counted(result.whole_contexts(), "context"), verdict_counts(result.items));
    if (!consumables.empty())
        document.text += fmt::format("{}: {}\n", counted(consumables.size(), "consumable"),
                                     verdict_counts(consumables));
    Table worn = worn_table(armoury, result, result.items);
    Table used = consumable_table(armoury, result, extras);
    document.text += first_text(armoury, result, all);
    if (listed == Listed::what_calls)
        document.text += "\nThe items that call for something; all of them, sets, tiers and "
                         "upgrades: --all\n";
    document.text += tables_text(armoury, result, used, listed);
    document.json["items"] = rows_json(worn);
    document.json["consumables"] = rows_json(used);
    document.tables = {std::move(worn), std::move(used), audit_detail(armoury, result)};
    add_extras(armoury, extras, listed, document);
    if (!result.remarks.empty()) document.text += "\n";
    for (const std::string& remark : result.remarks)
        document.text += fmt::format("note: {}\n", remark);
    document.json["contexts"] = document.json["contexts_of_tiers"] = Json::array();
    for (const ContextRow& row : result.contexts) {
        Json context = context_json(armoury, row);
        if (!row.whole()) context["highest_rank"] = row.highest_rank;
        document.json[row.whole() ? "contexts" : "contexts_of_tiers"].push_back(std::move(context));
    }
    document.json["remarks"] = result.remarks;
    document.figures = audit_figures(armoury, options, result);
    document.figures.push_back(grip_figure(armoury, result));
    if (auto pairs = pairs_figure(armoury, extras.pairs))
        document.figures.push_back(std::move(*pairs));
    return document;
}

} // namespace panoplon
