#include "show/tune/comparison_words.h"

#include "base/text.h"
#include "show/audit/verdict_words.h"
#include "show/text_table.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string calling_line(const char* label, const std::vector<const VerdictShift*>& shifts) {
    constexpr std::size_t most_told = 12;
    if (shifts.empty()) return {};
    std::vector<std::string> words;
    for (const VerdictShift* shift : shifts) {
        if (words.size() == most_told) {
            words.push_back(fmt::format("and {} more", shifts.size() - most_told));
            break;
        }
        words.push_back(fmt::format("{} ({} → {})", shift->id, verdict_or_absence(shift->before),
                                    verdict_or_absence(shift->after)));
    }
    return "  " + folded(fmt::format("{}: {}", label, join(words, ", ")), 108, 4) + "\n";
}

} // namespace

std::string verdict_or_absence(const std::optional<ItemVerdict>& verdict) {
    return verdict ? verdict_words(*verdict) : "not there";
}

std::string corridors_words(const Comparison& comparison) {
    const auto& [was, is] = std::pair(comparison.corridors_before, comparison.corridors_after);
    if (is.wanted == 0 && was.wanted == 0) return {};
    return fmt::format("{} → {} of {} keep to their corridor", was.kept, is.kept,
                       counted(is.wanted, "curve"));
}

std::string headline(const Comparison& comparison) {
    const std::optional<int> better = comparison.better();
    const std::string corridors = corridors_words(comparison);
    return fmt::format("{}: {} → {} things call for a hand{}{}.",
                       !better       ? "Better here, worse there"
                       : *better > 0 ? "Better"
                       : *better < 0 ? "Worse"
                                     : "No better and no worse",
                       comparison.calling_before(), comparison.calling_after(),
                       corridors.empty() ? "" : "; ", corridors);
}

std::string calling_text(const Comparison& comparison) {
    return calling_line("newly", comparison.newly_calling()) +
           calling_line("no longer", comparison.no_longer_calling());
}

std::string changed_items_text(const Comparison& comparison) {
    constexpr std::size_t most_told = 5;
    std::string text;
    std::size_t told = 0;
    for (const DefinitionChange& change : comparison.changes) {
        if (change.kind != "item") continue;
        const auto shift =
            std::find_if(comparison.verdicts.begin(), comparison.verdicts.end(),
                         [&](const VerdictShift& one) { return one.id == change.id; });
        if (shift == comparison.verdicts.end() || ++told > most_told) continue;
        const bool judged =
            shift->before && shift->after && shift->before->contexts + shift->after->contexts > 0;
        text += fmt::format(
            "  {}: {}{}\n", shift->id,
            shift->moved() ? fmt::format("{} → {}", verdict_or_absence(shift->before),
                                         verdict_or_absence(shift->after))
                           : verdict_or_absence(shift->after) + ", as before",
            judged ? fmt::format("; best in {:.0f} % → {:.0f} % of its contexts",
                                 shift->before->pick_share * 100, shift->after->pick_share * 100)
                   : std::string());
    }
    if (told > most_told) text += fmt::format("  … and {} more changed items\n", told - most_told);
    return text;
}

} // namespace panoplon
