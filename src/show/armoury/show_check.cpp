#include "show/armoury/show_check.h"

#include "base/text.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

std::string mistakes_listed(const ReadArmoury& read) {
    const std::vector<Diagnostic> list = read.sink.sorted(Severity::mistake);
    constexpr std::size_t most_shown = 100;
    std::string text;
    for (std::size_t i = 0; i < list.size() && i < most_shown; ++i)
        text += render(list[i], read.sources);
    const std::size_t shown = std::min(list.size(), most_shown);
    const std::size_t total = read.sink.mistake_count();
    if (total > shown) text += fmt::format("… and {} more\n", total - shown);
    return text;
}

/// Of many of one kind the first stand by themselves, and the others with their things alone.
std::string doubts_listed(const ReadArmoury& read) {
    constexpr std::size_t few = 5, first_shown = 3, most_named = 20;
    const std::vector<Diagnostic> list = read.sink.sorted(Severity::doubt);
    std::map<std::string, std::size_t> counts;
    for (const Diagnostic& doubt : list) ++counts[doubt.kind];
    std::map<std::string, std::vector<std::string>> others;
    std::string text;
    std::map<std::string, std::size_t> shown;
    for (const Diagnostic& doubt : list) {
        if (counts[doubt.kind] <= few || shown[doubt.kind]++ < first_shown)
            text += render(doubt, read.sources);
        else
            others[doubt.kind].push_back(doubt.thing);
    }
    for (auto& [kind, things] : others) {
        const std::size_t count = things.size();
        things.resize(std::min(count, most_named));
        text += folded(fmt::format("… and {} more of {}: {}{}", count, kind, join(things, ", "),
                                   count > most_named ? ", …" : ""),
                       108, 4) +
                "\n";
    }
    if (!others.empty()) text += "  each with its place: --json, or -o DIR\n";
    const std::size_t total = read.sink.doubt_count();
    if (total > list.size()) text += fmt::format("… and {} more\n", total - list.size());
    return text;
}

std::string contents(const Armoury& armoury) {
    return fmt::format(
        "{}: {}, {}, {}, {}, {}, levels {}–{}\n", armoury.name,
        counted(armoury.items.size(), "item"), counted(armoury.characters.size(), "character"),
        counted(armoury.foes.size(), "foe"), counted(armoury.encounters.size(), "encounter"),
        counted(armoury.loadouts.size(), "loadout"), armoury.levels.first, armoury.levels.last);
}

} // namespace

std::string mistakes_text(const ReadArmoury& read) {
    const std::size_t count = read.sink.mistake_count();
    return mistakes_listed(read) + counted(count, "mistake") + "\n";
}

Table diagnostics_table(const ReadArmoury& read, Severity severity) {
    const bool doubt = severity == Severity::doubt;
    Table table{"check",
                {as::text("severity").json(""), as::text("file"), as::whole("line"),
                 as::whole("column"), as::text("message"), as::text("hint"),
                 as::text("kind").if_any(), as::text("thing").if_any()}};
    for (const Diagnostic& d : read.sink.sorted(severity))
        table.row({doubt ? "doubt" : "mistake",
                   d.span.file >= 0 ? read.sources.file(d.span.file).path : "", d.span.line,
                   d.span.column, message_of(d, read.sources), d.hint,
                   doubt ? Cell(d.kind) : Cell(), doubt ? Cell(d.thing) : Cell()});
    return table;
}

Document show_check(const ReadArmoury& read) {
    Document document;
    const std::size_t mistakes = read.sink.mistake_count();
    const std::size_t doubts = read.sink.doubt_count();
    if (mistakes == 0) document.text = contents(read.armoury);
    for (const std::string& note : read.sources.notes())
        document.text += fmt::format("note: {}\n", printable(note));
    document.text += doubts_listed(read);
    // The mistakes themselves go to standard error, as from every command.
    if (mistakes == 0)
        document.text +=
            fmt::format("no mistakes, {}\n", doubts == 0 ? "no doubts" : counted(doubts, "doubt"));
    Table table = diagnostics_table(read, Severity::mistake);
    const Table doubtful = diagnostics_table(read, Severity::doubt);
    document.json["notes"] = read.sources.notes();
    document.json["mistakes"] = rows_json(table);
    document.json["mistake_count"] = mistakes;
    document.json["doubts"] = rows_json(doubtful);
    document.json["doubt_count"] = doubts;
    table.append(doubtful);
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
