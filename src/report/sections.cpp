#include "report/sections.h"

#include "base/text.h"
#include "show/armoury/show_check.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr SectionRow section_table[] = {
    {"first", "What to look at first", "the items that ask for a hand, and why"},
    {"changes", "What changed", "this armoury against the one of --compare"},
    {"verdicts", "Verdicts", "every item, consumable, set and tier with its numbers"},
    {"map", "What each item is worth, level by level", "the map of the audit"},
    {"pairs", "What works together", "pairs that help or hinder each other"},
    {"curves", "Power and margins over level", "every loadout, with findings"},
    {"ladder", "The tier ladder", "the best gear of each tier and below"},
    {"journeys", "Journeys", "how far they lead, and what becomes of gear"},
    {"loadouts", "Loadouts", "side by side, against every encounter"},
    {"fights", "Fights", "one of each loadout, with its ledger and timeline"},
    {"doubts", "Doubts", "what is legal but surely not meant"},
    {"items", "Items", "the card of each"},
    {"about", "About this report", "what there is, how it was judged, what the words mean"},
};

const Table* table_in(const Document& document, const std::string& name) {
    const auto at = std::find_if(document.tables.begin(), document.tables.end(),
                                 [&](const Table& table) { return table.name == name; });
    return at == document.tables.end() || at->rows.empty() ? nullptr : &*at;
}

/// Kind by kind; of each the first few, the rest for who asks.
void add_findings(Section& section, const Json& findings) {
    constexpr std::size_t most_shown = 5;
    std::vector<std::pair<std::string, Sentences>> groups;
    for (const Json& finding : findings) {
        const std::string heading = finding_heading(finding["kind"].get<std::string>());
        if (groups.empty() || groups.back().first != heading) groups.push_back({heading, {}});
        groups.back().second.lines.push_back(finding["sentence"].get<std::string>());
    }
    for (auto& [heading, sentences] : groups) {
        Sentences rest;
        if (sentences.lines.size() > most_shown + 1) {
            rest.lines.assign(sentences.lines.begin() + most_shown, sentences.lines.end());
            sentences.lines.resize(most_shown);
        }
        section.add(Heading{heading});
        section.add(std::move(sentences));
        const std::string more = fmt::format("{} more", rest.lines.size());
        if (!rest.lines.empty()) section.add(Fold{more, {ReportBlock{std::move(rest)}}});
    }
}

} // namespace

std::span<const SectionRow> section_rows() {
    return section_table;
}

Section section_of(const char* id) {
    for (const SectionRow& row : section_table)
        if (std::string_view(row.id) == id) return {row.id, row.title, {}};
    return {};
}

void add_table(Section& section, const Document& document, const std::string& table,
               const std::string& name, const std::string& caption) {
    if (const Table* found = table_in(document, table))
        section.add(page_of_files(*found, name, caption));
}

void add_figures(Section& section, const Document& document, const std::string& folder) {
    for (const Figure& figure : document.figures)
        section.add(Picture{folder, figure, figure.title, {}});
}

Section doubt_section(const ReadArmoury& read) {
    Section section = section_of("doubts");
    if (read.sink.doubt_count() == 0) {
        section.add(Paragraph{"None: everything in the files does something.", false});
        return section;
    }
    section.add(Paragraph{fmt::format("{} that {} legal, but surely not meant. Once meant, a doubt "
                                      "is silenced by `allow` where it stands.",
                                      counted(read.sink.doubt_count(), "thing"),
                                      read.sink.doubt_count() == 1 ? "is" : "are"),
                          false});
    Table table{"doubts",
                {as::text("", "kind"), as::text("", "what"), as::text("", "hint"),
                 as::text("", "where").on_page("where", "file, line and column")},
                {},
                "Doubts"};
    for (const Diagnostic& doubt : read.sink.sorted(Severity::doubt))
        table.row({doubt.kind, doubt.message, doubt.hint, place(doubt.span, read.sources)});
    section.add(std::move(table));
    return section;
}

Section change_section(const Document& comparison) {
    Section section = section_of("changes");
    section.add(Paragraph{comparison.json.value("sentence", ""), false});
    add_figures(section, comparison, "changes");
    add_table(section, comparison, "compare-changes", "changes", "Definitions that differ");
    add_table(section, comparison, "compare-verdicts", "changed-verdicts", "Verdicts");
    add_table(section, comparison, "compare-curves", "changed-margins", "Margins of loadouts");
    return section;
}

Section curve_section(const char* id, const std::vector<Document>& curves) {
    Section section = section_of(id);
    for (const Document& document : curves) {
        add_figures(section, document, id);
        add_findings(section, document.json["findings"]);
    }
    Section points;
    for (std::size_t i = 0; i < curves.size(); ++i)
        add_table(points, curves[i], "curve",
                  curves.size() == 1 ? id : fmt::format("{}-{}", id, i + 1),
                  section.title + ": the points");
    if (!points.blocks.empty())
        section.add(Fold{"The points as a table", std::move(points.blocks)});
    return section;
}

Section journey_section(const std::vector<std::pair<std::string, Document>>& journeys) {
    Section section = section_of("journeys");
    if (journeys.empty()) section.add(Paragraph{"The armoury has no journey.", false});
    for (const auto& [id, document] : journeys) {
        section.add(Heading{id});
        section.add(Paragraph{document.text.substr(0, document.text.find("\n\n")), false});
        add_figures(section, document, "journey-" + id);
        add_table(section, document, "journey-stages", id + "-stages", "Stages of " + id);
        add_table(section, document, "journey-items", id + "-items",
                  "What became of items on " + id);
    }
    return section;
}

} // namespace panoplon
