#include "base/text.h"
#include "judge/audit/verdict.h"
#include "report/sections.h"
#include "show/audit/families.h"
#include "show/audit/verdict_words.h"
#include "show/audit/witness_words.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>
#include <tuple>

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
        {"best in", fmt::format("{:.0f} %", v.pick_share * 100)}};
    if (v.contested > 0)
        list.emplace_back("lost without", fmt::format("{:.0f} %", v.grip.mean * 100));
    list.emplace_back("lost with", fmt::format("{:.0f} %", v.shortfall.mean * 100));
    list.emplace_back("margin", percent(v.ban_loss.mean));
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
    case Verdict::unjudged: return "To do: make it lighter, or leave more room for it.";
    case Verdict::unreachable: return "To do: ask less for it, or let something drop it.";
    case Verdict::idle: return "To do: see whether it is of use outside of fights.";
    case Verdict::weak: return "To do: a little more would bring it back.";
    default: return "To do: see what replaces it, and whether it should have by then.";
    }
}

/// Items that any context judged, or paper did.
std::size_t judged_count(const AuditResult& result) {
    const std::vector<ItemVerdict> all = by_urgency(result);
    return static_cast<std::size_t>(std::count_if(all.begin(), all.end(), [](const ItemVerdict& v) {
        return v.verdict != Verdict::unjudged || v.shut_out;
    }));
}

/// One item, or several of one cause, of which the first stands for all.
Call call_of(const Armoury& armoury, const AuditResult& result, const Family& family) {
    const ItemVerdict& v = *family.members.front();
    const Item& item = armoury.at(v.item);
    const std::string witness = witness_text(armoury, result, v);
    std::string why = v.sentence + (witness.empty() ? "" : " " + witness);
    if (family.members.size() > 1)
        why += fmt::format(" One of {} {}: {}.", family.members.size(), family.cause,
                           names_of(armoury, family));
    return {item.id,        item.name,     verdict_words(v),
            std::move(why), numbers_of(v), advice_on(v.verdict)};
}

Table worn_page(const Armoury& armoury, const AuditResult& result) {
    std::vector<ItemVerdict> worn = by_urgency(result);
    std::erase_if(worn, [&](const ItemVerdict& v) { return !armoury.at(v.item).worn(); });
    return page_table(worn_table(armoury, result, worn), "verdicts", "Worn items");
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
    std::vector<ItemVerdict> calling = by_urgency(audited.result);
    std::erase_if(calling, [](const ItemVerdict& v) { return urgency(v) > calls_for_nothing; });
    for (const Family& family : families_of(armoury, calling)) {
        const ItemVerdict& v = *family.members.front();
        (urgency(v) <= most_urgent ? urgent : rest)
            .list.push_back(call_of(armoury, audited.result, family));
    }
    if (urgent.list.empty())
        section.add(
            Paragraph{"Nothing is dominant, useless, a burden, outclassed or unreachable.", false});
    else
        section.add(Paragraph{
            fmt::format("{}, of {} that {} judged, {} for a designer's hand. The most urgent come "
                        "first, and what has one cause is told once; each name leads to the item's "
                        "card.",
                        counted(urgent.list.size(), "matter"),
                        counted(judged_count(audited.result), "item"),
                        judged_count(audited.result) == 1 ? "was" : "were",
                        urgent.list.size() == 1 ? "calls" : "call"),
            false});
    if (!urgent.list.empty()) {
        section.add(meanings_of(urgent.list));
        section.add(std::move(urgent));
    }
    if (!rest.list.empty()) {
        const std::string summary = fmt::format("{} worth a look: weak or overstaying",
                                                counted(rest.list.size(), "other", "others"));
        section.add(Fold{summary, {ReportBlock{std::move(rest)}}});
    }
    return section;
}

Section verdict_section(const Armoury& armoury, const Audited& audited) {
    Section section = section_of("verdicts");
    section.add(Paragraph{
        fmt::format("Every item is judged in its own time, until its successor comes, and among "
                    "what is of its tier and below: {} of a character, a level and an encounter. "
                    "In each, the best loadout is looked for, with the item, without it, and with "
                    "its place left empty.",
                    counted(audited.result.whole_contexts(), "context")),
        false});
    section.add(verdict_terms(audited.result));
    const auto& [sets, tiers, upgrades] =
        std::tie(audited.extras.sets, audited.extras.tiers, audited.extras.upgrades);
    const auto add = [&](bool any, Table table, const char* name, const char* caption) {
        if (any) section.add(page_table(std::move(table), name, caption));
    };
    if (!audited.result.items.empty()) section.add(worn_page(armoury, audited.result));
    add(!audited.result.consumables.empty(),
        consumable_table(armoury, audited.result, audited.extras), "consumables", "Consumables");
    add(!sets.empty(), sets_table(armoury, sets), "sets", "Sets");
    add(!tiers.empty(), tiers_table(armoury, tiers), "tiers", "Tiers, means over their items");
    add(!upgrades.empty(), upgrades_table(armoury, upgrades), "upgrades",
        "Upgrades, each bought alone");
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
