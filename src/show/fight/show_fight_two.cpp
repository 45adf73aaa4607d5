#include "show/fight/show_fight_two.h"

#include "base/text.h"
#include "show/measures.h"

#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// How a measure is written: its own values and their difference.
enum class Form { share, ratio, number };

struct Row {
    Measure measure;
    const char* key;
    const char* words;
    Form form;
};

constexpr Row rows[] = {
    {Measure::wins, "wins", "wins", Form::share},
    {Measure::log_margin, "margin", "margin of a trial", Form::ratio},
    {Measure::left, "left", "health left (lost: minus the foes')", Form::share},
    {Measure::time, "time", "time", Form::number},
    {Measure::dealt, "dealt", "dealt", Form::number},
    {Measure::taken, "taken", "taken", Form::number},
    {Measure::used, "used", "consumables used", Form::number},
};

std::string value_words(Form form, double value) {
    switch (form) {
    case Form::share: return percent(value);
    case Form::ratio: return fmt::format("{:.3f}", std::exp(value));
    case Form::number: break;
    }
    return rounded(value, 2);
}

/// A difference with its sign; of logarithms the percentage that their ratio is.
std::string signed_words(Form form, double difference) {
    if (form == Form::share) return signed_percent(difference);
    if (form == Form::ratio) return signed_percent(std::exp(difference) - 1);
    return fmt::format("{:+.2f}", difference);
}

std::string trials_words(double count) {
    constexpr double countless = 1e9;
    if (count > countless) return "more than a thousand million trials";
    return fmt::format("about {} trials",
                       fmt::format("{:.3g}", count).find('e') == std::string::npos
                           ? rounded(count, 0)
                           : fmt::format("{:.0f}", count));
}

std::string told_words(const Difference& difference) {
    if (difference.told) return "yes";
    if (!difference.needed) return "the same on the whole";
    return "no: " + trials_words(*difference.needed) + " would, were it so large";
}

/// The mean of a side's own measure.
double mean_of(const TrialsSummary& side, const std::vector<double>& margins, Measure measure) {
    const auto n = static_cast<double>(side.trials);
    switch (measure) {
    case Measure::wins: return static_cast<double>(side.won) / n;
    case Measure::left: return (side.health_left.sum - side.foes_left.sum) / n;
    case Measure::time: return side.time.mean();
    case Measure::dealt: return side.dealt.mean();
    case Measure::taken: return side.taken.mean();
    case Measure::used: {
        double used = 0;
        for (const UseCount& use : side.sums.uses) used += use.used;
        return used / n;
    }
    case Measure::log_margin: break;
    }
    double sum = 0;
    for (const double margin : margins) sum += std::log(margin);
    return sum / n;
}

/// A name over a column, where it is not too long for one.
std::string column(const std::string& name, const char* otherwise) {
    constexpr std::size_t widest = 20;
    return characters(name) <= widest ? name : otherwise;
}

std::string verdict(const TwoFights& two) {
    const Difference wins = find_difference(two.trials.of(Measure::wins));
    const Difference margin = find_difference(two.trials.of(Measure::log_margin));
    const Estimate& e = margin.estimate;
    const bool up = e.mean > 0;
    const auto size = [](double log_ratio) { return std::abs(std::exp(log_ratio) - 1) * 100; };
    const std::string by = fmt::format("{:.1f} % ({:.1f} to {:.1f} %)", size(e.mean),
                                       size(up ? e.low : e.high), size(up ? e.high : e.low));
    if (margin.told)
        return fmt::format("{} is {} than {}: it is a match for foes that are {} {}{}.", two.second,
                           up ? "stronger" : "weaker", two.first, by, up ? "stronger" : "weaker",
                           wins.told ? "" : "; the shares of wins alone would not tell them apart");
    if (!margin.needed)
        return fmt::format("{} and {} come to the same: no margin of any trial differs.", two.first,
                           two.second);
    return fmt::format("{} and {} can't be told apart by so many trials: the margins differ by "
                       "{:.2f} %, and {} would tell that.",
                       two.first, two.second, size(e.mean), trials_words(*margin.needed));
}

} // namespace

Document show_fight_two(const Armoury& armoury, const TwoFights& two) {
    Document document;
    const PairedTrials& trials = two.trials;
    document.partial = trials.partial;
    document.text = fmt::format(
        "{} and {} at level {} against {}, {} under the same luck{}\n{}\n\n", two.first, two.second,
        two.level, armoury.at(two.encounter).id, counted(trials.first.trials, "trial"),
        trials.partial ? " (stopped before the end)" : "", folded(verdict(two), 100, 0));
    document.json = {{"first", two.first},
                     {"second", two.second},
                     {"encounter", armoury.at(two.encounter).id},
                     {"level", two.level},
                     {"trials", trials.first.trials},
                     {"sentence", verdict(two)}};
    Table table{"fight-two",
                {as::text("measure").json(""), as::text("", "a trial"),
                 as::right("", column(two.first, "the first")),
                 as::right("", column(two.second, "the other")), as::right("", "difference"),
                 as::right("", "95 % interval"), as::text("", "told apart"), as::number("first", 6),
                 as::number("second", 6), as::number("difference", 6).json(""),
                 as::json("ratio").if_any(), as::json("difference").if_any(), as::number("low", 6),
                 as::number("high", 6), as::text("told").json(""), as::json("told_apart"),
                 as::number("needed", 0).json("trials_needed")}};
    for (const Row& row : rows) {
        const Difference d = find_difference(trials.of(row.measure));
        const double one = mean_of(trials.first, trials.first_margins, row.measure);
        const double other = mean_of(trials.second, trials.second_margins, row.measure);
        const bool ratio = row.form == Form::ratio;
        const auto own = [&](double x) { return ratio ? std::exp(x) : x; };
        const double apart = own(d.estimate.mean);
        table.row({row.key, row.words, value_words(row.form, one), value_words(row.form, other),
                   signed_words(row.form, d.estimate.mean),
                   fmt::format("{} to {}", signed_words(row.form, d.estimate.low),
                               signed_words(row.form, d.estimate.high)),
                   told_words(d), own(one), own(other), apart, ratio ? Cell(apart) : Cell(),
                   ratio ? Cell() : Cell(apart), own(d.estimate.low), own(d.estimate.high),
                   d.told ? "yes" : "no", d.told, d.needed});
        document.json["measures"][row.key] = row_json(table, table.rows.back());
    }
    document.text += terminal_text(table);
    document.text += fmt::format("\nBy even luck: margin {} and {}.\n",
                                 margin_words(two.first_even), margin_words(two.second_even));
    if (trials.bounded > 0)
        document.text += fmt::format("{} had a margin that is not between 1/64 and 64.\n",
                                     counted(trials.bounded, "trial"));
    document.json["even_luck"] = {{"first", two.first_even.value},
                                  {"second", two.second_even.value}};
    document.json["out_of_bounds"] = trials.bounded;
    document.tables.push_back(std::move(table));
    document.figures.push_back(
        margin_figure(fmt::format("{} or {}", two.first, two.second),
                      fmt::format("{} · against {} at level {} · {} under the same luck, seed {}",
                                  armoury.name, armoury.at(two.encounter).name, two.level,
                                  counted(trials.first.trials, "trial"), two.seed),
                      {{two.first, trials.first_margins}, {two.second, trials.second_margins}}));
    return document;
}

} // namespace panoplon
