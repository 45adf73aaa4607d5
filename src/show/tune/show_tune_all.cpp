#include "show/tune/show_tuning.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string with_unit(const TunedNumber& number, double value) {
    return shortest(value) + (number.key.find("percent.") != std::string::npos ? " %" : "");
}

std::string changes_text(const Armoury& armoury, const TuneAll& all) {
    TextTable table({{"item"},
                     {"was"},
                     {"number"},
                     {"now", Align::right},
                     {"change to", Align::right},
                     {"is then"},
                     {""}});
    for (const TunedItem& one : all.changes)
        table.row({armoury.at(one.item).id, verdict_name(one.before), one.number.name(),
                   with_unit(one.number, one.number.now), with_unit(one.number, one.then),
                   verdict_name(one.after), one.sentence});
    return table.empty() ? std::string() : table.text();
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

Json change_json(const Armoury& armoury, const TunedItem& one) {
    return {{"item", armoury.at(one.item).id},
            {"before", verdict_name(one.before)},
            {"stat", one.number.name()},
            {"now", one.number.now},
            {"proposal", one.then},
            {"what_if", one.number.what_if(one.then)},
            {"after", verdict_name(one.after)},
            {"sentence", one.sentence}};
}

} // namespace

Document show_tune_all(const Armoury& armoury, const TuneAll& all, const std::string& patch) {
    Document document;
    document.partial = all.partial;
    document.json["changes"] = Json::array();
    document.json["unsolved"] = Json::array();
    document.json["left"] = Json::array();
    CsvTable table{"tune-all", {"item", "before", "number", "now", "proposal", "after"}, {}};
    for (const TunedItem& one : all.changes) {
        document.json["changes"].push_back(change_json(armoury, one));
        table.rows.push_back({armoury.at(one.item).id, verdict_name(one.before), one.number.name(),
                              shortest(one.number.now), shortest(one.then),
                              verdict_name(one.after)});
    }
    for (const TuneAll::Unsolved& one : all.unsolved)
        document.json["unsolved"].push_back({{"item", armoury.at(one.item).id},
                                             {"verdict", verdict_name(one.verdict)},
                                             {"tried", one.tried}});
    for (const ItemVerdict& one : all.left())
        document.json["left"].push_back(armoury.at(one.item).id);
    document.json["rounds"] = all.rounds;
    document.json["irreducible"] = all.irreducible;
    document.tables.push_back(std::move(table));
    document.text = all.changes.empty() && all.left().empty()
                        ? std::string("Nothing is dominant, useless or a burden.\n")
                        : fmt::format("{}: {}, one number each, {} of changes and an audit\n\n",
                                      armoury.name, counted(all.changes.size(), "change"),
                                      counted(static_cast<std::size_t>(all.rounds), "round")) +
                              changes_text(armoury, all) + left_text(armoury, all) +
                              unsolved_text(armoury, all);
    if (patch.empty()) return document;
    document.text += "\nAs a patch, for `patch -p0` in the armoury's folder\n" + patch;
    document.json["patch"] = patch;
    document.files.push_back({"tune.patch", patch});
    return document;
}

} // namespace panoplon
