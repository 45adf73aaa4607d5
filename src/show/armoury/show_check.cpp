#include "show/armoury/show_check.h"

#include "base/text.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string listed(const ReadArmoury& read, Severity severity, std::size_t total) {
    const std::vector<Diagnostic> list = read.sink.sorted(severity);
    constexpr std::size_t most_shown = 100;
    std::string text;
    for (std::size_t i = 0; i < list.size() && i < most_shown; ++i)
        text += render(list[i], read.sources);
    const std::size_t shown = std::min(list.size(), most_shown);
    if (total > shown) text += fmt::format("… and {} more\n", total - shown);
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
    return listed(read, Severity::mistake, count) + counted(count, "mistake") + "\n";
}

Json diagnostics_json(const ReadArmoury& read, Severity severity) {
    Json list = Json::array();
    for (const Diagnostic& d : read.sink.sorted(severity)) {
        Json entry = {{"file", d.span.file >= 0 ? read.sources.file(d.span.file).path : ""},
                      {"line", d.span.line},
                      {"column", d.span.column},
                      {"message", d.message},
                      {"hint", d.hint}};
        if (severity == Severity::doubt) {
            entry["kind"] = d.kind;
            entry["thing"] = d.thing;
        }
        list.push_back(std::move(entry));
    }
    return list;
}

Document show_check(const ReadArmoury& read) {
    Document document;
    const std::size_t mistakes = read.sink.mistake_count();
    const std::size_t doubts = read.sink.doubt_count();
    if (mistakes == 0) document.text = contents(read.armoury);
    document.text += listed(read, Severity::doubt, doubts);
    // The mistakes themselves go to standard error, as from every command.
    if (mistakes == 0)
        document.text +=
            fmt::format("no mistakes, {}\n", doubts == 0 ? "no doubts" : counted(doubts, "doubt"));
    document.json["mistakes"] = diagnostics_json(read, Severity::mistake);
    document.json["mistake_count"] = mistakes;
    document.json["doubts"] = diagnostics_json(read, Severity::doubt);
    document.json["doubt_count"] = doubts;
    CsvTable table{
        "check", {"severity", "file", "line", "column", "message", "hint", "kind", "thing"}, {}};
    for (const char* severity : {"mistake", "doubt"})
        for (const Json& entry :
             document.json[severity == std::string("mistake") ? "mistakes" : "doubts"])
            table.rows.push_back({severity, entry["file"], std::to_string(entry["line"].get<int>()),
                                  std::to_string(entry["column"].get<int>()), entry["message"],
                                  entry["hint"], entry.value("kind", ""),
                                  entry.value("thing", "")});
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
