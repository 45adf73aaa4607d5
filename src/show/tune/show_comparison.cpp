#include "show/tune/show_comparison.h"

#include "base/text.h"
#include "show/audit/verdict_words.h"
#include "show/text_table.h"
#include "show/tune/comparison_words.h"
#include "show/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t most_listed = 20;

std::string key_words(const std::string& value) {
    return value.empty() ? "not given" : value;
}

std::string changes_text(const Comparison& comparison) {
    if (comparison.changes.empty()) return "No definition differs.\n";
    std::string text = "What was changed\n";
    for (const DefinitionChange& change : comparison.changes) {
        const std::string thing =
            change.id.empty() ? change.kind : fmt::format("{}.{}", change.kind, change.id);
        if (change.what != DefinitionChange::What::changed)
            text += fmt::format("  {} {}\n", thing,
                                definition_change_names[static_cast<int>(change.what)]);
        for (const auto& key : change.keys)
            text += fmt::format("  {} {}: {} → {}\n", thing, key.path, key_words(key.before),
                                key_words(key.after));
    }
    return text;
}

/// Those that moved to or from what asks for the designer's hand first.
std::vector<VerdictShift> by_urgency(std::vector<VerdictShift> shifts) {
    const auto first = [](const VerdictShift& shift) {
        return std::min(shift.before ? urgency(*shift.before) : calls_for_nothing,
                        shift.after ? urgency(*shift.after) : calls_for_nothing);
    };
    std::stable_sort(
        shifts.begin(), shifts.end(),
        [&](const VerdictShift& a, const VerdictShift& b) { return first(a) < first(b); });
    return shifts;
}

std::string verdicts_text(const Comparison& comparison) {
    TextTable table({{"item"},
                     {"before"},
                     {"after"},
                     {"best in", Align::right},
                     {"lost without", Align::right},
                     {"lost with", Align::right}});
    std::size_t same = 0;
    std::vector<VerdictShift> fair;
    for (const VerdictShift& shift : by_urgency(comparison.verdicts)) {
        if (!shift.moved()) {
            ++same;
            continue;
        }
        if (shift.stays_fair()) {
            fair.push_back(shift);
            continue;
        }
        const auto change = [&](const auto& number) {
            if (!shift.before || !shift.after) return std::string("—");
            return fmt::format("{} → {}", number(*shift.before), number(*shift.after));
        };
        table.row({shift.id, verdict_or_absence(shift.before), verdict_or_absence(shift.after),
                   change([](const ItemVerdict& v) {
                       return fmt::format("{:.0f} %", v.pick_share * 100);
                   }),
                   change([](const ItemVerdict& v) {
                       return fmt::format("{:.0f} %", v.grip.mean * 100);
                   }),
                   change([](const ItemVerdict& v) {
                       return fmt::format("{:.0f} %", v.shortfall.mean * 100);
                   })});
    }
    const std::string head =
        fmt::format("\nVerdicts that moved ({} of {} did not)\n", same, comparison.verdicts.size());
    if (table.empty() && fair.empty()) return head + "  none\n";
    return head + (table.empty() ? std::string() : table.text()) + fair_moves_text(fair);
}

std::string more_words(std::size_t all) {
    return all > most_listed
               ? fmt::format("  … and {} more, in the files of -o\n", all - most_listed)
               : std::string();
}

std::string curves_text(const Comparison& comparison) {
    const auto moved = moved_rows(comparison.curves);
    std::string text =
        fmt::format("\nLoadouts: margins by even luck that moved ({} of {} did not)\n",
                    comparison.curves.size() - moved.size(), comparison.curves.size());
    Table table{"",
                {as::text("", "loadout"), as::text("", "against"), as::whole("", "most at level"),
                 as::number("", "before", 3), as::number("", "after", 3),
                 as::gain("", "change", 1)}};
    for (std::size_t i = 0; i < std::min(moved.size(), most_listed); ++i) {
        const CurveShift::Point& most = moved[i]->most();
        table.row({moved[i]->loadout, moved[i]->encounter + (moved[i]->power ? " (power)" : ""),
                   most.level, most.before, most.after, most.ratio() - 1});
    }
    text += moved.empty() ? "  none\n" : terminal_text(table) + more_words(moved.size());
    for (const std::string& line : comparison.incomparable)
        text += fmt::format("  not compared: {}\n", line);
    return text;
}

std::string bests_text(const Comparison& comparison) {
    const auto moved = moved_rows(comparison.bests);
    std::string text = fmt::format("\nThe best gear of each context ({} of {} did not move)\n",
                                   comparison.bests.size() - moved.size(), comparison.bests.size());
    Table table{"",
                {as::text("", "character"), as::whole("", "level"), as::text("", "against"),
                 as::number("", "before", 3), as::number("", "after", 3),
                 as::gain("", "change", 1)}};
    for (std::size_t i = 0; i < std::min(moved.size(), most_listed); ++i)
        table.row({moved[i]->character, moved[i]->level, moved[i]->encounter, moved[i]->before,
                   moved[i]->after, moved[i]->ratio() - 1});
    return text + (moved.empty() ? "  none\n" : terminal_text(table) + more_words(moved.size()));
}

/// The folder's own name; a what-if has none and stays.
std::string last_of_path(const std::string& name) {
    const std::size_t words = name.find(' ');
    const std::size_t slash = name.find_last_of('/', words);
    return slash == std::string::npos || slash + 1 == name.size() ? name : name.substr(slash + 1);
}

/// Everything in one sentence.
std::string summary(const Comparison& comparison) {
    const auto moved = moved_rows(comparison.curves);
    const auto verdicts = static_cast<std::size_t>(
        std::count_if(comparison.verdicts.begin(), comparison.verdicts.end(),
                      [](const VerdictShift& shift) { return shift.moved(); }));
    std::string text =
        fmt::format("{} changed, {} moved", counted(comparison.changes.size(), "definition"),
                    counted(verdicts, "verdict"));
    if (moved.empty()) return text + "; no loadout's margin did.";
    const CurveShift& first = *moved.front();
    return text + fmt::format("; of the loadouts' margins that of {} against {} most: {} at level "
                              "{}.",
                              first.loadout, first.encounter,
                              signed_percent(first.most().ratio() - 1), first.most().level);
}

} // namespace

std::string fair_moves_text(const std::vector<VerdictShift>& shifts) {
    if (shifts.empty()) return {};
    std::vector<std::string> words;
    for (const VerdictShift& shift : shifts)
        words.push_back(fmt::format("{} ({} → {})", shift.id, verdict_words(*shift.before),
                                    verdict_words(*shift.after)));
    return "  " + folded("between fair verdicts: " + join(words, ", "), 108, 4) + "\n";
}

Document show_comparison(const Reading& before, const Reading& after,
                         const std::string& before_name, const std::string& after_name,
                         const Comparison& comparison) {
    Document document;
    document.partial = comparison.partial;
    document.text = headline(comparison) + "\n" + calling_text(comparison) +
                    changed_items_text(comparison) +
                    fmt::format("\n{}\nbefore: {}\nafter: {}\n{}\n\n", before.read.armoury.name,
                                before_name, after_name, summary(comparison));
    const std::string sheets = terminal_text(sheets_table(comparison));
    const std::string sheets_text =
        sheets.empty() ? "" : "\nStats of loadouts that moved\n" + sheets;
    document.text += changes_text(comparison) + verdicts_text(comparison) + sheets_text +
                     curves_text(comparison) + bests_text(comparison);
    add_comparison_json(document.json, comparison);
    document.json["sentence"] = summary(comparison);
    document.json["headline"] = headline(comparison);
    document.json["after"] = {{"name", after.read.armoury.name}, {"hash", after.read.armoury.hash}};
    document.tables = comparison_tables(comparison);
    if (auto figure =
            comparison_figure(before.read.armoury,
                              fmt::format("before: {} · after: {}", last_of_path(before_name),
                                          last_of_path(after_name)),
                              comparison))
        document.figures.push_back(std::move(*figure));
    return document;
}

} // namespace panoplon
