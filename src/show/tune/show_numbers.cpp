#include "show/tune/show_tuning.h"

#include "base/text.h"
#include "show/audit/verdict_words.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

Table numbers_table(const NumbersTried& numbers) {
    Table table{"tune-numbers",
                {as::text("number", "number"), as::number("now", "now", 0),
                 as::number("low", "fair from", 0), as::number("high", "to", 0),
                 as::number("proposal", "change to", 0), as::text("then", "is then"),
                 as::text("").without_title()}};
    for (std::size_t i = 0; i < numbers.tried.size(); ++i) {
        const Tuning& one = numbers.tried[i];
        const auto value = [&](const std::optional<double>& known) {
            return known ? Cell(*known).said(value_words(one.number, *known)) : Cell();
        };
        table.row({one.number.name(), value(one.number.now),
                   value(one.low ? std::optional(one.low->value) : std::nullopt),
                   value(one.high ? std::optional(one.high->value) : std::nullopt),
                   value(one.proposal), one.proposed ? Cell(verdict_words(*one.proposed)) : Cell(),
                   numbers.smallest == i ? "the smallest change" : ""});
    }
    return table;
}

/// Where the cause is not what the item gives itself: it would be fair without its set's step, or
/// an effect that others may give, too.
std::string cause_words(const std::string& item, const Tuning& best) {
    const std::optional<Verdict> without = verdict_without(best);
    if (!without || fit_of(*without) != Fit::fair) return "";
    return fmt::format(" The cause is the {} '{}': without that number {} would be {}.",
                       best.number.kind, best.number.id, item, verdict_name(*without));
}

std::string rivals_words(const Armoury& armoury, const std::vector<ItemId>& rivals) {
    if (rivals.empty()) return "";
    return fmt::format(
        " Or the cause is {}, which {} less than the budget allows: look at {} first.",
        join(ids_of(armoury, rivals), ", "),
        rivals.size() == 1 ? "is its only rival and spends" : "are all its rivals and spend",
        rivals.size() == 1 ? "it" : "them");
}

/// What is to be made of all the numbers together.
std::string numbers_sentence(const Armoury& armoury, const ItemVerdict& present,
                             const NumbersTried& numbers) {
    const std::string& item = armoury.at(present.item).id;
    if (present.overshadowed_by.given()) return fmt::format("{}: {}", item, present.sentence);
    const Fit fit = fit_of(present.verdict);
    if (fit == Fit::fair) return fmt::format("{} is fair: no number has to change.", item);
    if (fit == Fit::unjudged)
        return fmt::format("{} is {}, whatever its numbers are: {}", item,
                           verdict_name(present.verdict), present.sentence);
    const std::string rivals = rivals_words(armoury, numbers.poor_rivals);
    if (numbers.smallest) {
        const Tuning& best = numbers.tried[*numbers.smallest];
        return fmt::format("The smallest change that makes {} fair: {} from {} to {}.", item,
                           best.number.name(), value_words(best.number, best.number.now),
                           value_words(best.number, *best.proposal)) +
               cause_words(item, best) + rivals;
    }
    return fmt::format("None of these numbers makes {} fair by itself: {}", item,
                       present.sentence) +
           rivals;
}

} // namespace

Document show_numbers(const Armoury& armoury, const ItemVerdict& present,
                      const NumbersTried& numbers, const std::optional<Comparison>& upset,
                      const std::string& patch) {
    Document document;
    if (numbers.smallest)
        document =
            show_tuning(armoury, numbers.tried[*numbers.smallest], std::nullopt, upset, patch);
    Table table = numbers_table(numbers);
    const std::string sentence = numbers_sentence(armoury, present, numbers);
    const Item& item = armoury.at(present.item);
    std::string text = fmt::format("{} ({}) is {}\n{}\n", item.name, item.id,
                                   verdict_words(present), folded(sentence, 108, 0));
    if (!table.rows.empty()) text += "\n" + terminal_text(table);
    document.text = text + (document.text.empty() ? "" : "\n" + document.text);
    document.json["numbers"] = rows_json(table);
    document.json["smallest"] = sentence;
    document.tables.push_back(std::move(table));
    for (const Tuning& one : numbers.tried) document.partial = document.partial || one.partial;
    return document;
}

} // namespace panoplon
