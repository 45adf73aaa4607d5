#include "show/audit/audit_tables.h"

#include "show/audit/verdict_words.h"
#include "show/audit/witness_words.h"
#include "show/measures.h"
#include "show/words.h"

#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// What every verdict tells, of what is worn or of consumables.
std::vector<Column> verdict_columns(bool worn) {
    return {
        as::item("item", worn ? "item" : "consumable").json("id").on_page("item"),
        as::text(worn ? "slot" : "", worn ? "slot" : "").on_page("slot"),
        as::text("tier").on_page("tier"),
        as::whole("level", "level").on_page("level", "the level from which it can be worn or used"),
        as::text("verdict", "verdict"),
        as::text("overstays"),
        as::json("unrivalled"),
        as::json("on_the_edge_of"),
        as::json("rolls"),
        as::json("accepted"),
        as::json("overshadowed_by"),
        as::json("overshadows"),
        as::json("successor"),
        as::json("judged_levels"),
        as::json("confirmed"),
        as::json("by_trials"),
        as::json("witness"),
        as::whole("contexts"),
        as::whole("contested"),
        as::json("contested_pick_share"),
        as::share("pick_share", "best in", 0, 4)
            .on_page("best in", "share of its contexts in which it is as good as the best"),
        as::share("grip", "lost without", 0, 6)
            .json("grip/mean")
            .on_page("lost without", "what is lost without it, of what its place is worth; beside "
                                     "rivals only"),
        as::json("grip/max"),
        as::share("shortfall", "lost with", 0, 6)
            .json("shortfall/mean")
            .on_page("lost with", "what is lost by wearing it in place of the best, of what its "
                                  "place is worth; 100 % is as good as nothing"),
        as::number("shortfall_min", 4).json("shortfall/min"),
        as::share("ban_loss", worn ? "margin" : "", 1, 4)
            .json("ban_loss/mean")
            .on_page("margin", "what the best margin loses without it"),
        as::json("ban_loss/max"),
        as::number("force_loss", 4).json("force_loss/mean"),
        as::json("force_loss/min"),
        as::gain("lift", worn ? "lift" : "", 1, 5)
            .json("")
            .on_page("lift", "what it adds to the margin of loadouts drawn at random"),
        as::number("lift_low", 5).json(""),
        as::number("lift_high", 5).json(""),
        as::json("lift"),
        as::text("outclassed_by"),
        as::text("twins"),
        as::text("sentence")};
}

Json rolls_json(const RolledVerdicts& rolled) {
    return {{"worst", verdict_name(rolled.worst)},
            {"best", verdict_name(rolled.best)},
            {"spread", std::expm1(rolled.spread)},
            {"thing", std::expm1(rolled.thing)}};
}

std::vector<Cell> verdict_cells(const Armoury& armoury, const AuditResult& result,
                                const ItemVerdict& v) {
    const Item& item = armoury.at(v.item);
    const bool judged = v.contexts > 0;
    const auto lift = [&](double Estimate::*part) {
        return v.lift ? Cell((*v.lift).*part) : Cell();
    };
    return {
        item.id,
        id_cell(armoury, item.slot).said(item.worn() ? armoury.at(item.slot).id : "in the pack"),
        tier_cell(armoury, item.tier),
        item.level,
        Cell(verdict_name(v.verdict)).said(verdict_words(v)).explained(verdict_meaning(v.verdict)),
        v.overstays,
        v.unrivalled,
        v.edge_of ? Cell(verdict_name(*v.edge_of)) : Cell(),
        v.rolled ? Cell::of(rolls_json(*v.rolled)) : Cell(),
        v.accepted,
        id_cell(armoury, v.overshadowed_by),
        ids_of(armoury, v.overshadows),
        id_cell(armoury, v.successor),
        judged ? Cell::of(Json::array({v.judged_levels.first, v.judged_levels.last})) : Cell(),
        v.confirmed ? Cell(v.confirmed->borne_out) : Cell(),
        v.confirmed ? Cell(v.confirmed->by_trials) : Cell(),
        Cell::of(witness_json(armoury, result, v)),
        v.contexts,
        v.contested,
        v.contested > 0 ? Cell(v.contested_pick_share) : Cell(),
        Cell(v.pick_share).shown_if(judged),
        Cell(v.grip.mean).shown_if(v.contested > 0),
        v.grip.max,
        Cell(v.shortfall.mean).shown_if(judged),
        v.shortfall.min,
        Cell(v.ban_loss.mean).shown_if(judged),
        v.ban_loss.max,
        v.force_loss.mean,
        v.force_loss.min,
        lift(&Estimate::mean),
        lift(&Estimate::low),
        lift(&Estimate::high),
        v.lift ? Cell::of(estimate_json(*v.lift)) : Cell(),
        ids_of(armoury, v.outclassed_by),
        ids_of(armoury, v.twins),
        v.sentence};
}

/// The break-even of a consumable, by its place in the audit's; none where there is none.
const BreakEven* break_even_of(const AuditExtras& extras, std::size_t consumable) {
    if (consumable >= extras.break_evens.size()) return nullptr;
    const BreakEven& found = extras.break_evens[consumable];
    return found.pays > 0 ? &found : nullptr;
}

} // namespace

Table worn_table(const Armoury& armoury, const AuditResult& result,
                 const std::vector<ItemVerdict>& verdicts) {
    Table table{"audit", verdict_columns(true)};
    for (const ItemVerdict& v : verdicts) table.row(verdict_cells(armoury, result, v));
    return table;
}

Table consumable_table(const Armoury& armoury, const AuditResult& result,
                       const AuditExtras& extras) {
    Table table{"audit-consumables", verdict_columns(false)};
    for (Column column :
         {as::share("packed_in", "packed in", 1, 4)
              .on_page("packed", "share of contexts whose best packs any"),
          as::number("units", "units", 1, 3).on_page("units", "units in the best, on average"),
          as::gain("per_unit", "a unit", 2, 6).on_page("a unit", "what a unit adds to the margin"),
          as::gain("per_weight", "a weight", 2, 6)
              .on_page("a weight", "what it adds for a unit of weight"),
          as::gain("per_stack", "a stack", 2, 6).on_page("a stack", "what a whole stack adds"),
          as::number("pays_after", fmt::format("pays after, {}", unit_of(armoury)), 1, 3)
              .json("")
              .on_page("pays after", "how long a fight has to be for a unit to pay"),
          as::json("pays_after")})
        table.columns.push_back(std::move(column));
    for (std::size_t i = 0; i < result.consumables.size(); ++i) {
        const auto& [v, worth] = result.consumables[i];
        const BreakEven* pays = break_even_of(extras, i);
        const bool judged = v.contexts > 0;
        const auto gain = [&](double share) {
            return Cell(share).shown_if(judged && worth.packed > 0 && share > 0);
        };
        std::vector<Cell> cells = verdict_cells(armoury, result, v);
        for (Cell cell :
             {Cell(worth.packed).shown_if(judged), Cell(worth.units).shown_if(judged),
              gain(worth.per_unit), gain(worth.per_weight), gain(worth.per_stack),
              pays ? Cell(pays->time) : Cell(),
              pays ? Cell::of({{"mean", pays->time}, {"min", pays->least}, {"max", pays->most}})
                   : Cell()})
            cells.push_back(std::move(cell));
        table.row(std::move(cells));
    }
    return table;
}

Table audit_detail(const Armoury& armoury, const AuditResult& result) {
    Table table{"audit-detail",
                {as::item("item"), as::text("character"), as::whole("level"), as::text("encounter"),
                 as::number("best", 5), as::number("without", 5), as::number("with", 5),
                 as::number("worth", 5), as::number("grip", 4), as::number("shortfall", 4),
                 as::text("contested"), as::text("in_window"), as::whole("highest_rank")}};
    const auto margin = [](double value) { return value == nothing_legal ? Cell() : Cell(value); };
    for (const auto* rows : {&result.rows, &result.packed_rows})
        for (const ItemContextRow& row : *rows) {
            const ContextRow& in = result.contexts[row.context];
            const Context& context = in.context;
            table.row({armoury.at(row.item).id, armoury.at(context.character).id, context.level,
                       armoury.at(context.encounter).id, margin(row.best), margin(row.without),
                       margin(row.with), row.worth, row.judged ? Cell(row.grip) : Cell(),
                       row.judged ? Cell(row.shortfall) : Cell(), row.contested, row.in_window,
                       in.whole() ? Cell() : Cell(in.highest_rank)});
        }
    return table;
}

Table sets_table(const Armoury& armoury, const std::vector<StepWorth>& sets) {
    Table table{
        "audit-sets",
        {as::text("set", "set").json("id"),
         as::whole("pieces", "pieces")
             .json("count")
             .on_page("pieces", "different ones that are worn"),
         as::whole("from_level", "from level")
             .on_page("from level", "at which somebody can wear as many"),
         as::whole("contexts"),
         as::share("reached", "reached then", 1, 4)
             .on_page("reached", "share of the contexts from there on whose best reaches the step"),
         as::share("reached_in_all", "in all", 1, 4).on_page(""),
         as::gain("gain", "bonus", 1, 5).on_page("bonus", "what the step is of the margin there"),
         as::text("sentence").on_page("what to make of it")}};
    for (const StepWorth& one : sets)
        table.row({armoury.at(one.set).id, armoury.at(one.set).steps[one.step].count,
                   one.from_level > 0 ? Cell(one.from_level) : Cell(one.from_level).said("never"),
                   one.contexts, Cell(one.reached).shown_if(one.contexts > 0), one.reached_in_all,
                   Cell(one.gain).shown_if(one.reached_in_all > 0), one.sentence});
    return table;
}

Table tiers_table(const Armoury& armoury, const std::vector<TierSummary>& tiers) {
    Table table{
        "audit-tiers",
        {as::text("tier", "tier").json("id"), as::whole("items", "items"),
         as::share("pick_share", "best in", 0, 4), as::share("shortfall", "lost with", 0, 6),
         as::share("budget_share", "of budget", 1, 4)
             .on_page("of budget", "points spent of those allowed"),
         as::whole("off_budget", "off budget").on_page("off budget", "items beyond the tolerance"),
         as::text("inversions", "worth less than a lower tier's").json(""),
         as::json("inversions")}};
    for (const TierSummary& tier : tiers) {
        std::vector<std::string> pairs;
        Json inversions = Json::array();
        for (const TierSummary::Inversion& one : tier.inversions) {
            const std::string& item = armoury.at(one.item).id;
            const std::string& better = armoury.at(one.better).id;
            pairs.push_back(item + "<" + better);
            inversions.push_back({{"item", item},
                                  {"better", better},
                                  {"shortfall", one.shortfall},
                                  {"better_shortfall", one.better_shortfall}});
        }
        table.row({tier_cell(armoury, tier.tier), tier.items, tier.pick_share, tier.shortfall,
                   Cell(tier.budget_share).shown_if(tier.budget_share > 0), tier.off_budget,
                   Cell(pairs).said(join(ids_of(armoury, tier.inverted()), ", ")),
                   Cell::of(std::move(inversions))});
    }
    return table;
}

Table upgrades_table(const Armoury& armoury, const std::vector<UpgradeWorth>& upgrades) {
    Table table{
        "audit-upgrades",
        {as::text("upgrade", "upgrade").json("id"), as::whole("level", "level"),
         as::amount("cost", "cost", 0, 3).on_page("cost", "coin, at the armoury's middle level"),
         as::gain("gain", "adds", 2, 6).on_page("adds", "to the margin of the best, on average"),
         as::gain("per_hundred_coin", "for 100 coin", 2, 6)
             .on_page("for 100 coin", "the same, for what it costs"),
         as::gain("least", "least", 2, 6).on_page("least", "in any context"),
         as::gain("most", "most", 2, 6).on_page("most", "in any context"), as::whole("contexts")}};
    for (const UpgradeWorth& one : upgrades)
        table.row({armoury.at(one.upgrade).id, one.level, one.cost, one.gain, one.per_hundred(),
                   one.least, one.most, one.contexts});
    return table;
}

Table groups_table(const Armoury& armoury, const std::vector<GroupWorth>& groups) {
    Table table{"audit-groups",
                {as::text("group", "group").json("name"), as::whole("", "items"), as::text("items"),
                 as::whole("contexts", "contexts"), as::share("picked", "picked", 0, 4),
                 as::amount("pieces", "pieces", 1, 3),
                 as::share("ban_loss", "ban loss", 1, 5).json("ban_loss/mean"),
                 as::share("worst", "worst", 1, 5).json("ban_loss/max"), as::text("sentence")}};
    for (const GroupWorth& one : groups)
        table.row({one.group.name, one.group.items.size(), ids_of(armoury, one.group.items),
                   one.contexts, one.picked, one.pieces, one.ban_loss, one.worst, one.sentence});
    return table;
}

Table tier_steps_table(const Armoury& armoury, const std::vector<TierStep>& steps) {
    Table table{"audit-tier-steps",
                {as::text("character"), as::text("tier"), as::number("levels", 2),
                 as::whole("from"), as::text("sentence")}};
    for (const TierStep& step : steps)
        table.row({armoury.at(step.character).id, armoury.at(step.tier).id, step.levels, step.from,
                   step.sentence});
    return table;
}

Table pairs_table(const Armoury& armoury, const std::vector<PairWorth>& pairs) {
    Table table{"audit-pairs",
                {as::text("", "pair").on_page(""), as::item("first").on_page("first"),
                 as::item("second").on_page("second"), as::whole("seen").on_page(""),
                 as::gain("together", "together", 1, 5)
                     .json("together/mean")
                     .on_page("together", "beyond the product of the two"),
                 as::right("", "interval").on_page(""),
                 as::gain("low", "", 1, 5)
                     .json("together/low")
                     .on_page("from", "the interval that holds the truth 95 times of 100"),
                 as::gain("high", "", 1, 5).json("together/high").on_page("to"),
                 as::gain("first_gain", "first gives", 1, 5)
                     .on_page("first gives", "to the margin, beside the second"),
                 as::gain("second_gain", "second gives", 1, 5)
                     .on_page("second gives", "to the margin, beside the first"),
                 as::whole("", "seen").on_page("seen", "loadouts that had both")}};
    for (const PairWorth& one : pairs) {
        const std::string& first = armoury.at(one.first).id;
        const std::string& second = armoury.at(one.second).id;
        const Estimate& together = one.together;
        table.row(
            {first + " + " + second, first, second, one.seen, together.mean,
             fmt::format("{} to {}", signed_percent(together.low), signed_percent(together.high)),
             together.low, together.high, one.first_gain, one.second_gain, one.seen});
    }
    return table;
}

} // namespace panoplon
