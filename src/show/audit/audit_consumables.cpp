#include "base/text.h"
#include "show/audit/audit_parts.h"
#include "show/audit/verdict_words.h"
#include "show/measures.h"
#include "show/text_table.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

const BreakEven* break_even_of(const AuditExtras& extras, std::size_t consumable) {
    if (consumable >= extras.break_evens.size()) return nullptr;
    const BreakEven& found = extras.break_evens[consumable];
    return found.pays > 0 ? &found : nullptr;
}

std::string consumables_text(const Armoury& armoury, const AuditResult& result,
                             const AuditExtras& extras) {
    TextTable table({{"consumable"},
                     {"level", Align::right},
                     {"verdict"},
                     {"picks", Align::right},
                     {"grip", Align::right},
                     {"shortfall", Align::right},
                     {"packed in", Align::right},
                     {"units", Align::right},
                     {"a unit", Align::right},
                     {"a weight", Align::right},
                     {"a stack", Align::right},
                     {fmt::format("pays after, {}", unit_of(armoury)), Align::right}});
    for (std::size_t i = 0; i < result.consumables.size(); ++i) {
        const auto& [v, worth] = result.consumables[i];
        if (v.contexts == 0) continue;
        const BreakEven* pays = break_even_of(extras, i);
        const bool packed = worth.packed > 0;
        const auto gain = [&](double share) {
            return packed && share > 0 ? signed_percent(share, 2) : "—";
        };
        table.row({armoury.at(v.item).id, std::to_string(armoury.at(v.item).level),
                   verdict_words(v), fmt::format("{:.0f} %", v.pick_share * 100),
                   v.contested > 0 ? fmt::format("{:.2f}", v.grip.mean) : "—",
                   fmt::format("{:.2f}", v.shortfall.mean), percent(worth.packed),
                   fmt::format("{:.1f}", worth.units), gain(worth.per_unit), gain(worth.per_weight),
                   gain(worth.per_stack), pays ? fmt::format("{:.1f}", pays->time) : "—"});
    }
    return table.empty() ? "" : "\n" + table.text();
}

CsvTable consumable_table(const Armoury& armoury, const AuditResult& result,
                          const AuditExtras& extras) {
    CsvTable table{"audit-consumables",
                   {"item", "level", "verdict", "overstays", "contexts", "contested", "pick_share",
                    "grip", "shortfall", "ban_loss", "packed_in", "units", "per_unit", "per_weight",
                    "per_stack", "pays_after", "sentence"},
                   {}};
    for (std::size_t i = 0; i < result.consumables.size(); ++i) {
        const auto& [v, worth] = result.consumables[i];
        const BreakEven* pays = break_even_of(extras, i);
        table.rows.push_back(
            {armoury.at(v.item).id, std::to_string(armoury.at(v.item).level),
             verdict_name(v.verdict), v.overstays ? "true" : "false", std::to_string(v.contexts),
             std::to_string(v.contested), rounded(v.pick_share, 4), rounded(v.grip.mean, 4),
             rounded(v.shortfall.mean, 4), rounded(v.ban_loss.mean, 4), rounded(worth.packed, 4),
             rounded(worth.units, 3), rounded(worth.per_unit, 6), rounded(worth.per_weight, 6),
             rounded(worth.per_stack, 6), pays ? rounded(pays->time, 3) : "", v.sentence});
    }
    return table;
}

} // namespace panoplon
