#include "base/text.h"
#include "judge/audit/verdict.h"
#include "report/sections.h"
#include "show/audit/verdict_words.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Worn items and consumables, the most urgent first; of one urgency the one that is furthest off.
std::vector<ItemVerdict> by_urgency(const AuditResult& result) {
    std::vector<ItemVerdict> list = result.items;
    for (const ConsumableVerdict& one : result.consumables) list.push_back(one.judged);
    std::stable_sort(list.begin(), list.end(), [](const ItemVerdict& a, const ItemVerdict& b) {
        if (urgency(a) != urgency(b)) return urgency(a) < urgency(b);
        return std::max(a.grip.mean, a.shortfall.mean) > std::max(b.grip.mean, b.shortfall.mean);
    });
    return list;
}

bool rests_on_paper(const ItemVerdict& verdict) {
    return verdict.contexts == 0;
}

std::vector<std::pair<std::string, std::string>> numbers_of(const ItemVerdict& v) {
    if (rests_on_paper(v)) return {};
    std::vector<std::pair<std::string, std::string>> list = {
        {"picked in", fmt::format("{:.0f} %", v.pick_share * 100)}};
    if (v.contested > 0) list.emplace_back("grip", fmt::format("{:.2f}", v.grip.mean));
    list.emplace_back("shortfall", fmt::format("{:.2f}", v.shortfall.mean));
    list.emplace_back("lost without it", percent(v.ban_loss.mean));
    if (v.lift) list.emplace_back("lift", signed_percent(v.lift->mean));
    if (v.confirmed)
        list.emplace_back("by trials", v.confirmed->borne_out ? "borne out" : "NOT borne out");
    return list;
}

const char* advice_on(Verdict verdict) {
    switch (verdict) {
    case Verdict::dominant:
        return "To do: take some of it away, or give what stands beside it more.";
    case Verdict::burden:
    case Verdict::useless:
        return "To do: give it more, or make it lighter, or let it come earlier.";
    case Verdict::outclassed: return "To do: give it something that the other has not.";
    case Verdict::unreachable: return "To do: ask less for it, or let something drop it.";
    case Verdict::unrivalled: return "To do: put something beside it, if a choice is wanted.";
    case Verdict::weak: return "To do: a little more would bring it back.";
    default: return "To do: see what replaces it, and whether it should have by then.";
    }
}

Call call_of(const Armoury& armoury, const AuditResult& result, const ItemVerdict& v) {
    const Item& item = armoury.at(v.item);
    const std::string witness = witness_text(armoury, result, v);
    return {item.id,          item.name,
            verdict_words(v), v.sentence + (witness.empty() ? "" : " " + witness),
            numbers_of(v),    advice_on(v.verdict)};
}

std::vector<ReportColumn> judged_columns() {
    return {
        {"item", CellKind::item, 0, ""},
        {"slot", CellKind::text, 0, ""},
        {"tier", CellKind::text, 0, ""},
        {"level", CellKind::whole, 0, "the level from which it can be worn or used"},
        {"verdict", CellKind::text, 0, ""},
        {"picks", CellKind::share, 0, "share of its contexts in which it is as good as the best"},
        {"grip", CellKind::number, 2, "share of its place's worth that only this item gives"},
        {"shortfall", CellKind::number, 2,
         "share of its place's worth that is lost by wearing it instead of the best"},
        {"lost without", CellKind::share, 1, "how much of the best margin is lost without it"},
        {"lift", CellKind::gain, 1, "what it adds to loadouts drawn at random"}};
}

std::optional<double> known(bool is_known, double value) {
    return is_known ? std::optional(value) : std::nullopt;
}

Cell tier_cell(const Armoury& armoury, TierId tier) {
    if (!tier.given()) return {};
    return {armoury.at(tier).id, armoury.at(tier).colour};
}

std::vector<Cell> judged_cells(const Armoury& armoury, const ItemVerdict& v) {
    const Item& item = armoury.at(v.item);
    const bool judged = v.contexts > 0;
    return {item.id,
            item.worn() ? armoury.at(item.slot).id : "in the pack",
            tier_cell(armoury, item.tier),
            static_cast<double>(item.level),
            verdict_words(v),
            known(judged, v.pick_share),
            known(v.contested > 0, v.grip.mean),
            known(judged, v.shortfall.mean),
            known(judged, v.ban_loss.mean),
            known(v.lift.has_value(), v.lift ? v.lift->mean : 0)};
}

ReportTable worn_table(const Armoury& armoury, const AuditResult& result) {
    ReportTable table{"verdicts", "Worn items", judged_columns(), {}};
    for (const ItemVerdict& v : by_urgency(result))
        if (armoury.at(v.item).worn()) table.rows.push_back(judged_cells(armoury, v));
    return table;
}

ReportTable consumable_table(const Armoury& armoury, const Audited& audited) {
    ReportTable table{"consumables", "Consumables", judged_columns(), {}};
    for (const ReportColumn& column :
         {ReportColumn{"packed", CellKind::share, 0, "share of contexts whose best packs any"},
          ReportColumn{"units", CellKind::number, 1, "units in the best, on average"},
          ReportColumn{"a unit", CellKind::gain, 1, "what a unit adds to the margin"},
          ReportColumn{"a weight", CellKind::gain, 1, "what it adds for a unit of weight"},
          ReportColumn{"a stack", CellKind::gain, 1, "what a whole stack adds"},
          ReportColumn{"pays after", CellKind::number, 1,
                       "how long a fight has to be for a unit to pay"}})
        table.columns.push_back(column);
    const auto& consumables = audited.result.consumables;
    for (std::size_t i = 0; i < consumables.size(); ++i) {
        const auto& [v, worth] = consumables[i];
        const bool known_time =
            i < audited.extras.break_evens.size() && audited.extras.break_evens[i].pays > 0;
        std::vector<Cell> cells = judged_cells(armoury, v);
        const bool judged = v.contexts > 0;
        const bool packed = judged && worth.packed > 0;
        for (const Cell& cell :
             {Cell(known(judged, worth.packed)), Cell(known(judged, worth.units)),
              Cell(known(packed, worth.per_unit)), Cell(known(packed, worth.per_weight)),
              Cell(known(packed, worth.per_stack)),
              Cell(known(known_time, known_time ? audited.extras.break_evens[i].time : 0))})
            cells.push_back(cell);
        table.rows.push_back(std::move(cells));
    }
    return table;
}

ReportTable set_table(const Armoury& armoury, const std::vector<StepWorth>& sets) {
    ReportTable table{"sets",
                      "Sets",
                      {{"set", CellKind::text, 0, ""},
                       {"pieces", CellKind::whole, 0, "different ones that are worn"},
                       {"from level", CellKind::whole, 0, "at which somebody can wear as many"},
                       {"reached", CellKind::share, 0,
                        "share of the contexts from there on whose best reaches the step"},
                       {"bonus", CellKind::gain, 1, "what the step is of the margin there"},
                       {"what to make of it", CellKind::text, 0, ""}},
                      {}};
    for (const StepWorth& one : sets)
        table.rows.push_back(
            {armoury.at(one.set).id, static_cast<double>(armoury.at(one.set).steps[one.step].count),
             known(one.from_level > 0, one.from_level), known(one.contexts > 0, one.reached),
             known(one.reached_in_all > 0, one.gain), one.sentence});
    return table;
}

ReportTable tier_table(const Armoury& armoury, const std::vector<TierSummary>& tiers) {
    ReportTable table{"tiers",
                      "Tiers, means over their items",
                      {{"tier", CellKind::text, 0, ""},
                       {"items", CellKind::whole, 0, ""},
                       {"picks", CellKind::share, 0, ""},
                       {"shortfall", CellKind::number, 2, ""},
                       {"of budget", CellKind::share, 0, "points spent of those allowed"},
                       {"off budget", CellKind::whole, 0, "items beyond the tolerance"},
                       {"worth less than a lower tier's", CellKind::text, 0, ""}},
                      {}};
    for (const TierSummary& tier : tiers) {
        table.rows.push_back(
            {tier_cell(armoury, tier.tier), static_cast<double>(tier.items), tier.pick_share,
             tier.shortfall, known(tier.budget_share > 0, tier.budget_share),
             static_cast<double>(tier.off_budget), join(ids_of(armoury, tier.inverted()), ", ")});
    }
    return table;
}

ReportTable upgrade_table(const Armoury& armoury, const std::vector<UpgradeWorth>& upgrades) {
    ReportTable table{"upgrades",
                      "Upgrades, each bought alone",
                      {{"upgrade", CellKind::text, 0, ""},
                       {"level", CellKind::whole, 0, ""},
                       {"cost", CellKind::whole, 0, "coin, at the armoury's middle level"},
                       {"adds", CellKind::gain, 2, "to the margin of the best, on average"},
                       {"for 100 coin", CellKind::gain, 2, "the same, for what it costs"},
                       {"least", CellKind::gain, 2, "in any context"},
                       {"most", CellKind::gain, 2, "in any context"}},
                      {}};
    for (const UpgradeWorth& one : upgrades)
        table.rows.push_back({armoury.at(one.upgrade).id, static_cast<double>(one.level), one.cost,
                              one.gain, one.per_hundred(), one.least, one.most});
    return table;
}

/// What the verdicts of these mean, each once.
Terms meanings_of(const std::vector<Call>& calls) {
    Terms terms;
    for (const VerdictRow& row : verdict_rows())
        if (std::any_of(calls.begin(), calls.end(),
                        [&](const Call& call) { return call.verdict.starts_with(row.name); }))
            terms.rows.emplace_back(row.name, row.meaning);
    return terms;
}

/// What the verdicts that were given mean, with how many there are of each.
Terms verdict_terms(const AuditResult& result) {
    const std::vector<ItemVerdict> all = by_urgency(result);
    Terms terms;
    for (const VerdictRow& row : verdict_rows()) {
        const auto count = std::count_if(
            all.begin(), all.end(), [&](const ItemVerdict& v) { return v.verdict == row.verdict; });
        if (count > 0) terms.rows.emplace_back(fmt::format("{} {}", count, row.name), row.meaning);
    }
    const auto overstaying =
        std::count_if(all.begin(), all.end(), [](const ItemVerdict& v) { return v.overstays; });
    if (overstaying > 0)
        terms.rows.emplace_back(
            fmt::format("{} overstays", overstaying),
            "still best in at least half of the contexts of the levels after its own");
    return terms;
}

} // namespace

Section first_section(const Armoury& armoury, const Audited& audited) {
    Section section = section_of("first");
    constexpr int most_urgent = 4; // unreachable, and all before it: broken or unfair
    Calls urgent, rest;
    for (const ItemVerdict& v : by_urgency(audited.result)) {
        if (urgency(v) > calls_for_nothing) continue;
        (urgency(v) <= most_urgent ? urgent : rest)
            .list.push_back(call_of(armoury, audited.result, v));
    }
    if (urgent.list.empty())
        section.add(
            Paragraph{"Nothing is dominant, useless, a burden, outclassed or unreachable.", false});
    else
        section.add(Paragraph{
            fmt::format(
                "{} of {} that were judged {} a designer's hand. The most urgent come first; "
                "each name leads to the item's card.",
                urgent.list.size(),
                counted(audited.result.items.size() + audited.result.consumables.size(), "item"),
                urgent.list.size() == 1 ? "asks for" : "ask for"),
            false});
    if (!urgent.list.empty()) {
        section.add(meanings_of(urgent.list));
        section.add(std::move(urgent));
    }
    if (!rest.list.empty()) {
        const std::string summary = fmt::format("{} worth a look: weak, unrivalled or overstaying",
                                                counted(rest.list.size(), "other", "others"));
        section.add(Fold{summary, {ReportBlock{std::move(rest)}}});
    }
    return section;
}

Section verdict_section(const Armoury& armoury, const Audited& audited) {
    Section section = section_of("verdicts");
    section.add(Paragraph{
        fmt::format("Every item is judged in the contexts of its own age: {} of a character, a "
                    "level and an encounter. In each, the best loadout is looked for, with the "
                    "item, without it, and with its place left empty.",
                    counted(audited.result.contexts.size(), "context")),
        false});
    section.add(verdict_terms(audited.result));
    if (!audited.result.items.empty()) section.add(worn_table(armoury, audited.result));
    if (!audited.result.consumables.empty()) section.add(consumable_table(armoury, audited));
    if (!audited.extras.sets.empty()) section.add(set_table(armoury, audited.extras.sets));
    if (!audited.extras.tiers.empty()) section.add(tier_table(armoury, audited.extras.tiers));
    if (!audited.extras.upgrades.empty())
        section.add(upgrade_table(armoury, audited.extras.upgrades));
    for (const std::string& remark : audited.result.remarks)
        section.add(Paragraph{"Note: " + remark + ".", true});
    return section;
}

Section map_section(const Armoury& armoury, const Audited& audited) {
    Section section = section_of("map");
    section.add(Paragraph{"A row for each item, a column for each level. Dark is good: wearing it "
                          "loses little against the best. Pale all along its window is useless; "
                          "picked everywhere, alone, is dominant.",
                          false});
    for (Figure& figure : audit_figures(armoury, audited.options, audited.result))
        section.add(Picture{"map", figure, figure.title, {}});
    const Figure grip = grip_figure(armoury, audited.result);
    section.add(Picture{"map", grip, grip.title, {}});
    return section;
}

} // namespace panoplon
