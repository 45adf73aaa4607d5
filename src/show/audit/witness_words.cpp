#include "show/audit/witness_words.h"

#include "base/text.h"
#include "judge/audit/witness.h"
#include "show/words.h"

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
        text = fmt::format("At its best: {}, {:.0f} % lost to {}.",
                           context_words(armoury, result.contexts[found.best->context].context),
                           found.best->shortfall * 100, join(ids_of(armoury, instead), ", "));
    if (!verdict.confirmed) return text;
    return text + fmt::format("{}{}: {:.0f} % lost in {}.", text.empty() ? "" : " ",
                              verdict.confirmed->borne_out ? "Borne out by trials"
                                                           : "NOT borne out by trials",
                              verdict.confirmed->by_trials * 100,
                              counted(verdict.confirmed->contexts, "context"));
}

} // namespace panoplon
