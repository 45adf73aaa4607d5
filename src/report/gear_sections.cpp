#include "base/text.h"
#include "judge/appraise/appraisal.h"
#include "report/sections.h"
#include "show/armoury/card_text.h"
#include "show/audit/verdict_words.h"
#include "show/measures.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

const Margin* margin_against(const Armoury& armoury, const Standing& standing, EncounterId wanted) {
    const std::vector<EncounterId> encounters = encounters_that_count(armoury);
    const auto at = std::find(encounters.begin(), encounters.end(), wanted);
    const auto& margin = standing.margins[static_cast<std::size_t>(at - encounters.begin())];
    return margin ? &*margin : nullptr;
}

std::vector<Column> loadout_columns(const Armoury& armoury) {
    std::vector<Column> columns = {
        as::text("", "loadout"), as::text("", "character"),
        as::whole("", "level").on_page("level", "the last of its levels"),
        as::share("", "load", 0).on_page("load", "of what can be carried"),
        as::text("", "band").on_page("band", "of load")};
    for (const EncounterId encounter : encounters_that_count(armoury)) {
        const bool power = encounter == armoury.yardstick;
        const std::string header = power ? "power" : armoury.at(encounter).id;
        columns.push_back(as::number("", header, 2)
                              .on_page(header, power
                                                   ? "the margin against the yardstick"
                                                   : "the margin against it: 1 is an even match"));
    }
    return columns;
}

std::vector<Cell> loadout_cells(const Armoury& armoury, const Standing& standing) {
    const Loadout& loadout = armoury.at(standing.loadout);
    const Band* band = armoury.carry.band(standing.sheet.load.band);
    std::vector<Cell> cells = {loadout.id, armoury.at(loadout.character).id, standing.level,
                               standing.sheet.load.share, band ? band->name : ""};
    for (const std::optional<Margin>& margin : standing.margins)
        cells.push_back(margin ? Cell(margin->value) : Cell());
    return cells;
}

Table loadout_stats(const Armoury& armoury, const std::vector<Standing>& standings) {
    Table table{"loadout-stats", {as::text("", "loadout")}, {}, "Their stats"};
    for (const Stat& stat : armoury.stats)
        table.columns.push_back(as::number("", stat.id, 1).on_page(stat.id, stat.about));
    for (const Standing& standing : standings) {
        std::vector<Cell> cells = {armoury.at(standing.loadout).id};
        for (const Sheet::Line& line : standing.sheet.stats) cells.emplace_back(line.value);
        table.row(std::move(cells));
    }
    return table;
}

Card card_of(const Armoury& armoury, ItemId id, const std::vector<PaperVerdict>& paper) {
    const Item& item = armoury.at(id);
    Card card{item.id, item.name, item.about, {}, {}, {}, {}, {}, {}};
    if (item.tier.given()) {
        const Tier& tier = armoury.at(item.tier);
        card.tier = tier.name;
        card.mark = tier.mark;
        card.ink = tier.ink;
    }
    card.facts = card_facts(armoury, item, paper[id.index()], appraise(armoury, id, paper));
    return card;
}

} // namespace

Section loadout_section(const Armoury& armoury, const std::vector<Standing>& standings) {
    Section section = section_of("loadouts");
    if (standings.empty()) {
        section.add(Paragraph{"The armoury has no loadout.", false});
        return section;
    }
    section.add(Paragraph{"Each at the last of its levels, by even luck: how much stronger foes "
                          "could be before the fight is lost. 1 is an even match.",
                          false});
    Table table{"loadouts", loadout_columns(armoury), {}, "Margins of loadouts"};
    for (const Standing& standing : standings) {
        table.row(loadout_cells(armoury, standing));
        if (!standing.refused.empty())
            section.add(Paragraph{fmt::format("{} can't be worn at level {}: {}.",
                                              armoury.at(standing.loadout).id, standing.level,
                                              standing.refused),
                                  true});
    }
    section.add(std::move(table));
    section.add(loadout_stats(armoury, standings));
    return section;
}

Section fight_section(const Armoury& armoury,
                      const std::vector<std::pair<const Standing*, Document>>& fights) {
    Section section = section_of("fights");
    section.add(Paragraph{"One of each loadout at the last of its levels, against the encounter "
                          "that is the nearest to an even match.",
                          false});
    for (const auto& [standing, document] : fights) {
        const std::string& loadout = armoury.at(standing->loadout).id;
        const std::string& encounter = armoury.at(standing->closest).id;
        section.add(
            Heading{fmt::format("{} against {}, level {}", loadout, encounter, standing->level)});
        if (const Margin* margin = margin_against(armoury, *standing, standing->closest))
            section.add(
                Paragraph{fmt::format("{} Margin by even luck: {}.",
                                      document.json.value("sentence", ""), margin_words(*margin)),
                          false});
        add_figures(section, document, "fight-" + loadout);
        Section more;
        add_table(more, document, "fight-damage", loadout + "-damage", "Damage in a mean trial");
        add_table(more, document, "fight-restored", loadout + "-restored",
                  "What was restored in a mean trial");
        add_table(more, document, "fight-waste", loadout + "-waste", "What was wasted");
        add_table(more, document, "fight-timeline", loadout + "-timeline",
                  "The told trial, event by event");
        section.add(Fold{"Damage, restoration, waste and the timeline", std::move(more.blocks)});
    }
    return section;
}

Section item_section(const Armoury& armoury, const AuditResult* result) {
    Section section = section_of("items");
    if (armoury.items.empty()) section.add(Paragraph{"The armoury has no item.", false});
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    std::vector<const ItemVerdict*> verdicts(armoury.items.size(), nullptr);
    if (result) {
        for (const ItemVerdict& v : result->items) verdicts[v.item.index()] = &v;
        for (const ConsumableVerdict& one : result->consumables)
            verdicts[one.judged.item.index()] = &one.judged;
    }
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        Card card = card_of(armoury, ItemId(i), paper);
        if (const ItemVerdict* v = verdicts[i]) {
            card.verdict = verdict_words(*v);
            card.sentence = v->sentence;
        }
        section.add(std::move(card));
    }
    return section;
}

Section about_section(const ReadArmoury& read, const Audited& audited, std::uint64_t trials) {
    const Armoury& armoury = read.armoury;
    Section section = section_of("about");
    Terms facts;
    facts.rows = {
        {"armoury", fmt::format("{}, levels {} to {}", armoury.name, armoury.levels.first,
                                armoury.levels.last)},
        {"gear",
         fmt::format("{} in {} and {}", counted(armoury.items.size(), "item"),
                     counted(armoury.slots.size(), "slot"), counted(armoury.tiers.size(), "tier"))},
        {"fighting", fmt::format("{}, {}, {}, {}", counted(armoury.characters.size(), "character"),
                                 counted(armoury.loadouts.size(), "loadout"),
                                 counted(armoury.foes.size(), "foe"),
                                 counted(armoury.encounters.size(), "encounter"))},
        {"judged", fmt::format("levels {} to {}, every {}; each item for {} levels from its own on",
                               audited.options.levels.first, audited.options.levels.last,
                               counted(static_cast<std::size_t>(audited.options.step), "level"),
                               armoury.audit.window)},
        {"trials",
         fmt::format("{} of each fight, point of a curve and journey", counted(trials, "trial"))}};
    section.add(std::move(facts));
    section.add(Heading{"What the words mean"});
    section.add(Terms{
        {{"margin", "How much stronger the foes could be before the fight is lost. 1 is an even "
                    "match, 2 stands against foes twice as strong."},
         {"power", "The margin against the yardstick, an encounter that is the same for all."},
         {"even luck", "No dice: each hit and each critical hit by its expectation."},
         {"context", "A character at a level against an encounter."},
         {"best", "The loadout with the highest margin that is legal in a context."},
         {"best in", "The share of an item's contexts in which it is as good as the best."},
         {"a place's worth", "What is lost when its slot is left empty."},
         {"lost without",
          "What is lost without it, of what its place is worth: near 0, others would "
          "do; high, there is no choice."},
         {"lost with",
          "What is lost by wearing it in place of the best, of what its place is worth: "
          "0 % is as good as any, 100 % as good as nothing."},
         {"rival", "Another of its tier for its place that comes within a level or so of it."},
         {"successor", "What is newer, for the same place: an item's own time ends there."},
         {"margin", "How much lower the best margin is when the item is not there."},
         {"lift", "What it adds to the margin of loadouts that are drawn at random."},
         {"overstays", "Still the best long after its own age."},
         {"borne out by trials", "Fights with dice, under shared luck, say the same."}}});
    return section;
}

} // namespace panoplon
