#include "show/audit/audit_parts.h"

#include "base/text.h"
#include "judge/audit/witness.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::span<const ItemContextRow> rows_for(const Armoury& armoury, const AuditResult& result,
                                         ItemId item) {
    return rows_of(armoury.at(item).worn() ? result.rows : result.packed_rows, item);
}

std::string context_words(const Armoury& armoury, const Context& context) {
    return fmt::format("{}, level {}, {}", armoury.at(context.character).id, context.level,
                       armoury.at(context.encounter).id);
}

std::vector<ItemId> others_than(ItemId item, std::vector<ItemId> list) {
    std::erase(list, item);
    return list;
}

Json one_witness_json(const Armoury& armoury, const AuditResult& result,
                      const std::optional<Witness>& witness) {
    if (!witness) return nullptr;
    const Context& context = result.contexts[witness->context].context;
    return {{"character", armoury.at(context.character).id},
            {"level", context.level},
            {"encounter", armoury.at(context.encounter).id},
            {"shortfall", witness->shortfall},
            {"instead", ids_of(armoury, witness->instead)}};
}

} // namespace

Json witness_json(const Armoury& armoury, const AuditResult& result, const ItemVerdict& verdict) {
    const Witnesses found = find_witnesses(
        armoury, verdict.item, rows_for(armoury, result, verdict.item), result.contexts);
    return {{"best", one_witness_json(armoury, result, found.best)},
            {"worst", one_witness_json(armoury, result, found.worst)}};
}

std::string witness_text(const Armoury& armoury, const AuditResult& result,
                         const ItemVerdict& verdict) {
    const Witnesses found = find_witnesses(
        armoury, verdict.item, rows_for(armoury, result, verdict.item), result.contexts);
    std::string text;
    const std::vector<ItemId> instead =
        found.best ? others_than(verdict.item, found.best->instead) : std::vector<ItemId>();
    if (!instead.empty())
        text = fmt::format("At its best: {}, {:.2f} of its place lost to {}.",
                           context_words(armoury, result.contexts[found.best->context].context),
                           found.best->shortfall, join(ids_of(armoury, instead), ", "));
    if (!verdict.confirmed) return text;
    const char* number = verdict.verdict == Verdict::dominant ? "grip" : "shortfall";
    return text + fmt::format("{}{}: {} {:.2f} in {}.", text.empty() ? "" : " ",
                              verdict.confirmed->borne_out ? "Borne out by trials"
                                                           : "NOT borne out by trials",
                              number, verdict.confirmed->by_trials,
                              counted(verdict.confirmed->contexts, "context"));
}

std::string sets_text(const Armoury& armoury, const std::vector<StepWorth>& sets) {
    if (sets.empty()) return {};
    TextTable table({{"set"},
                     {"pieces", Align::right},
                     {"from level", Align::right},
                     {"reached then", Align::right},
                     {"in all", Align::right},
                     {"bonus", Align::right}});
    for (const StepWorth& one : sets)
        table.row({armoury.at(one.set).id,
                   std::to_string(armoury.at(one.set).steps[one.step].count),
                   one.from_level > 0 ? std::to_string(one.from_level) : "never",
                   one.contexts > 0 ? percent(one.reached) : "—", percent(one.reached_in_all),
                   one.reached_in_all > 0 ? signed_percent(one.gain) : "—"});
    return "\nSets: how often the best reaches a step, and what its bonus is of the margin "
           "there\n" +
           table.text();
}

std::string tiers_text(const Armoury& armoury, const std::vector<TierSummary>& tiers) {
    if (tiers.empty()) return {};
    TextTable table({{"tier"},
                     {"items", Align::right},
                     {"picks", Align::right},
                     {"shortfall", Align::right},
                     {"of budget", Align::right},
                     {"off budget", Align::right},
                     {"worth less than a lower tier's"}});
    for (const TierSummary& tier : tiers) {
        table.row({armoury.at(tier.tier).id, std::to_string(tier.items),
                   fmt::format("{:.0f} %", tier.pick_share * 100),
                   fmt::format("{:.2f}", tier.shortfall),
                   tier.budget_share > 0 ? percent(tier.budget_share) : "—",
                   std::to_string(tier.off_budget), join(ids_of(armoury, tier.inverted()), ", ")});
    }
    return "\nTiers: means over their items\n" + table.text();
}

Json sets_json(const Armoury& armoury, const std::vector<StepWorth>& sets) {
    Json list = Json::array();
    for (const StepWorth& one : sets)
        list.push_back({{"id", armoury.at(one.set).id},
                        {"count", armoury.at(one.set).steps[one.step].count},
                        {"from_level", one.from_level},
                        {"contexts", one.contexts},
                        {"reached", one.reached},
                        {"reached_in_all", one.reached_in_all},
                        {"gain", one.gain},
                        {"sentence", one.sentence}});
    return list;
}

Json tiers_json(const Armoury& armoury, const std::vector<TierSummary>& tiers) {
    Json list = Json::array();
    for (const TierSummary& tier : tiers) {
        Json inversions = Json::array();
        for (const TierSummary::Inversion& one : tier.inversions)
            inversions.push_back({{"item", armoury.at(one.item).id},
                                  {"better", armoury.at(one.better).id},
                                  {"shortfall", one.shortfall},
                                  {"better_shortfall", one.better_shortfall}});
        list.push_back({{"id", armoury.at(tier.tier).id},
                        {"items", tier.items},
                        {"pick_share", tier.pick_share},
                        {"shortfall", tier.shortfall},
                        {"budget_share", tier.budget_share},
                        {"off_budget", tier.off_budget},
                        {"inversions", std::move(inversions)}});
    }
    return list;
}

CsvTable sets_table(const Armoury& armoury, const std::vector<StepWorth>& sets) {
    CsvTable table{"audit-sets",
                   {"set", "pieces", "from_level", "contexts", "reached", "reached_in_all", "gain",
                    "sentence"},
                   {}};
    for (const StepWorth& one : sets)
        table.rows.push_back(
            {armoury.at(one.set).id, std::to_string(armoury.at(one.set).steps[one.step].count),
             std::to_string(one.from_level), std::to_string(one.contexts), rounded(one.reached, 4),
             rounded(one.reached_in_all, 4), rounded(one.gain, 5), one.sentence});
    return table;
}

CsvTable tiers_table(const Armoury& armoury, const std::vector<TierSummary>& tiers) {
    CsvTable table{
        "audit-tiers",
        {"tier", "items", "pick_share", "shortfall", "budget_share", "off_budget", "inversions"},
        {}};
    for (const TierSummary& tier : tiers) {
        std::vector<std::string> pairs;
        for (const TierSummary::Inversion& one : tier.inversions)
            pairs.push_back(armoury.at(one.item).id + "<" + armoury.at(one.better).id);
        table.rows.push_back({armoury.at(tier.tier).id, std::to_string(tier.items),
                              rounded(tier.pick_share, 4), rounded(tier.shortfall, 4),
                              rounded(tier.budget_share, 4), std::to_string(tier.off_budget),
                              join(pairs, ";")});
    }
    return table;
}

} // namespace panoplon
