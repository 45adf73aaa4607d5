#include "show/tune/show_tuning.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

Table changes_table(const Armoury& armoury, const TuneAll& all) {
    Table table{"tune-all",
                {as::item("item", "item"), as::text("before", "was"),
                 as::text("number", "number").json("stat"), as::number("now", "now", 0),
                 as::number("proposal", "change to", 0), as::json("what_if"),
                 as::text("after", "is then"), as::text("").without_title().json("sentence")}};
    for (const TunedItem& one : all.changes)
        table.row({armoury.at(one.item).id, verdict_name(one.before), one.number.name(),
                   Cell(one.number.now).said(value_words(one.number, one.number.now)),
                   Cell(one.then).said(value_words(one.number, one.then)),
                   one.number.what_if(one.then), verdict_name(one.after), one.sentence});
    return table;
}

std::string left_text(const Armoury& armoury, const TuneAll& all) {
    const std::vector<ItemVerdict> left = all.left();
    if (left.empty())
        return fmt::format("\nWith {} an audit finds nothing dominant, useless or a burden.\n{}",
                           all.changes.size() == 1 ? "it" : "them all",
                           all.irreducible && all.changes.size() > 1
                               ? "None of them can be left out: without any one of them "
                                 "something is unfair again.\n"
                               : "");
    std::vector<std::string> names;
    for (const ItemVerdict& one : left)
        names.push_back(fmt::format("{} ({})", armoury.at(one.item).id, verdict_name(one.verdict)));
    return fmt::format("\nStill unfair by an audit with {}: {}.\n",
                       all.changes.empty() ? "no change" : "all of these", join(names, ", "));
}

std::string unsolved_text(const Armoury& armoury, const TuneAll& all) {
    std::string text;
    for (const TuneAll::Unsolved& one : all.unsolved)
        text +=
            fmt::format("  {} ({}): no value of {} makes it fair by itself\n",
                        armoury.at(one.item).id, verdict_name(one.verdict), join(one.tried, ", "));
    return text;
}

} // namespace

Document show_tune_all(const Armoury& armoury, const TuneAll& all, const std::string& patch) {
    Document document;
    document.partial = all.partial;
    Table changes = changes_table(armoury, all);
    document.json["changes"] = rows_json(changes);
    document.json["unsolved"] = Json::array();
    document.json["left"] = Json::array();
    for (const TuneAll::Unsolved& one : all.unsolved)
        document.json["unsolved"].push_back({{"item", armoury.at(one.item).id},
                                             {"verdict", verdict_name(one.verdict)},
                                             {"tried", one.tried}});
    for (const ItemVerdict& one : all.left())
        document.json["left"].push_back(armoury.at(one.item).id);
    document.json["rounds"] = all.rounds;
    document.json["irreducible"] = all.irreducible;
    document.text = all.changes.empty() && all.left().empty()
                        ? std::string("Nothing is dominant, useless or a burden.\n")
                        : fmt::format("{}: {}, one number each, found in {}\n\n", armoury.name,
                                      counted(all.changes.size(), "change"),
                                      counted(static_cast<std::size_t>(all.rounds), "round")) +
                              terminal_text(changes) + left_text(armoury, all) +
                              unsolved_text(armoury, all);
    document.tables.push_back(std::move(changes));
    if (patch.empty()) return document;
    document.text += "\nAs a patch, for `patch -p0` in the armoury's folder\n" + patch;
    document.json["patch"] = patch;
    document.files.push_back({"tune.patch", patch});
    return document;
}

} // namespace panoplon
