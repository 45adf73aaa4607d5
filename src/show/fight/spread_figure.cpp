// Many trials at a glance: when they end and how, and who stands yet.
#include "show/fight/show_fight.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame spread_frame{.left = 110, .right = 1040};
constexpr std::size_t bins = 40;

/// How many of the times fall into each of the bins from `start` to `end`.
std::vector<double> counts_of(const std::vector<double>& times, double start, double end) {
    std::vector<double> counts(bins, 0.0);
    for (const double time : times)
        counts[std::min(bins - 1,
                        static_cast<std::size_t>((time - start) / (end - start) * bins))] += 1;
    return counts;
}

/// Where the axis of time begins: at 0, or where every fight lasts long, not far before the first
/// that ends.
double first_shown(const TrialsSummary& trials, double end) {
    double first = end;
    for (const auto* times : {&trials.times_won, &trials.times_lost})
        if (!times->empty()) first = std::min(first, times->front());
    return first < end / 2 ? 0 : std::max(0.0, std::floor(first - (end - first) / 2));
}

/// Shares that an axis ends at.
double round_share(double share) {
    for (const double nice : {0.05, 0.1, 0.2, 0.4, 0.6, 0.8})
        if (share <= nice) return nice;
    return 1;
}

/// The share of all trials in which a side stands, which falls by one at each of these times.
Plot::Points standing_line(const std::vector<double>& falls, double all, const Axis& x,
                           const Axis& y) {
    Plot::Points points = {{x.from, y.pixel(1)}};
    constexpr std::size_t most = 400; // steps that can be told apart
    const std::size_t every = std::max<std::size_t>(1, falls.size() / most);
    for (std::size_t i = 0; i < falls.size(); ++i) {
        if (i % every != 0 && i + 1 < falls.size()) continue;
        const double at = x.pixel(falls[i]);
        points.emplace_back(at, points.back().second);
        points.emplace_back(at, y.pixel(1 - static_cast<double>(i + 1) / all));
    }
    points.emplace_back(x.to, points.back().second);
    return points;
}

void shares(Plot& plot, const Axis& x, const Axis& y, double highest, const char* label) {
    for (const double part : {0.0, 0.5, 1.0}) {
        const double share = highest * part;
        plot.line({{x.from, y.pixel(share)}, {x.to, y.pixel(share)}}, ink::rule, 1);
        plot.text(x.from - 10, y.pixel(share), percent(share), Plot::Anchor::right, 10, ink::quiet);
    }
    plot.text(x.from, y.to + 18, label, Plot::Anchor::left, 11, ink::dark, true);
}

} // namespace

Figure spread_figure(const Armoury& armoury, const FightAnswer& answer) {
    const TrialsSummary& trials = *answer.trials;
    const auto all = static_cast<double>(trials.trials);
    const std::string unit = armoury.clock == Clock::seconds ? "seconds" : "rounds";
    double end = 1e-3;
    for (const auto* times : {&trials.times_won, &trials.times_lost})
        if (!times->empty()) end = std::max(end, times->back());
    end *= 1.0001; // the last trial stands in the last bin
    const double start = first_shown(trials, end);
    // Who is still up at the time limit has not fallen.
    std::vector<double> falls = trials.times_lost;
    falls.resize(falls.size() - trials.timed_out);
    const std::vector<double> won = counts_of(trials.times_won, start, end);
    const std::vector<double> lost = counts_of(trials.times_lost, start, end);
    double highest = 0;
    for (std::size_t i = 0; i < bins; ++i) highest = std::max(highest, (won[i] + lost[i]) / all);

    Plot plot(fmt::format("{} against {}, {}", armoury.at(answer.loadout).name,
                          armoury.at(answer.encounter).name, counted(trials.trials, "trial")),
              fmt::format("{} · level {} · seed {}", armoury.name, answer.level, answer.seed));
    const LineLook ours = line_look(0);
    const LineLook theirs = line_look(1);
    const Axis x{spread_frame.left, spread_frame.right, start, end, false};
    highest = round_share(highest);
    const Axis ends{420, 660, 0, highest, false};
    const Axis stands{100, 340, 0, 1, false};
    shares(plot, x, ends, highest, "when trials end: share of them");
    Table data{
        "fight-spread",
        {as::number("from", 4), as::number("to", 4), as::number("won", 5), as::number("lost", 5)}};
    for (std::size_t i = 0; i < bins; ++i) {
        const auto edge = [&](std::size_t bin) {
            return start + (end - start) * static_cast<double>(bin) / bins;
        };
        const double from = x.pixel(edge(i)) + 1;
        const double to = x.pixel(edge(i + 1)) - 1;
        const double middle = ends.pixel(won[i] / all);
        if (won[i] > 0) plot.box(from, ends.from, to, middle, mixed(ours.colour, 0.75));
        if (lost[i] > 0)
            plot.box(from, middle, to, ends.pixel((won[i] + lost[i]) / all),
                     mixed(theirs.colour, 0.75));
        data.row({edge(i), edge(i + 1), won[i] / all, lost[i] / all});
    }
    std::vector<Plot::EndLabel> kinds;
    const auto label = [&](std::size_t count, const char* word, std::uint32_t colour) {
        if (count > 0)
            kinds.push_back({ends.to - 20 * static_cast<double>(kinds.size()),
                             fmt::format("{}: {}", word, percent(static_cast<double>(count) / all)),
                             colour});
    };
    label(trials.won, "won", ours.colour);
    label(trials.times_lost.size(), "not won", theirs.colour);
    label(trials.timed_out, "by the time limit", theirs.colour);
    plot.end_labels(x.to + 12, kinds, ends.from, ends.to);

    shares(plot, x, stands, 1, "who stands yet: share of the trials");
    const Plot::Points we = standing_line(falls, all, x, stands);
    const Plot::Points they = standing_line(trials.times_won, all, x, stands);
    plot.line(we, ours.colour, 2.2, ours.dash);
    plot.line(they, theirs.colour, 2.2, theirs.dash);
    plot.end_labels(
        x.to + 12,
        {{we.back().second, armoury.at(armoury.at(answer.loadout).character).name, ours.colour},
         {they.back().second, "foes", theirs.colour}},
        stands.from, stands.to);
    plot.x_axis(x, stands, "time, " + unit, 10);
    return plot.figure("fight-spread", std::move(data));
}

} // namespace panoplon
