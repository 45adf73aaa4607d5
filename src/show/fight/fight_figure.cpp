#include "show/fight/show_fight.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame fight_frame{.left = 110, .right = 1040};

/// What has the id in one of the lists, by its name; the id where nothing has.
template <class... Lists>
std::string name_among(const std::string& id, const Lists&... lists) {
    std::string name = id;
    const auto look_in = [&](const auto& list) {
        for (const auto& one : list)
            if (one.id == id) name = one.name;
    };
    (look_in(lists), ...);
    return name;
}

/// `fogling.3` is "Fogling 3", and `ally.ringer` "Ringer, ally".
std::string actor_words(const Armoury& armoury, const std::string& actor) {
    constexpr std::string_view ally = "ally.";
    const bool allied = actor.starts_with(ally);
    const std::string rest = allied ? actor.substr(ally.size()) : actor;
    const std::size_t dot = rest.find('.');
    std::string words = name_among(rest.substr(0, dot), armoury.characters, armoury.foes);
    if (dot != std::string::npos) words += " " + rest.substr(dot + 1);
    return allied ? words + ", ally" : words;
}

/// A pool of an actor as lines over time: steps in a trial, slopes by even luck. Who comes again
/// after it fell or left has another line.
std::vector<Plot::Points> pool_lines(const Timeline& told, std::size_t actor, std::size_t pool,
                                     const Axis& x, const Axis& y, bool steps) {
    std::vector<Plot::Points> lines;
    bool there = false;
    for (const PoolSample& sample : told.samples) {
        const bool present = !sample.shares[actor].empty();
        const double share = present ? sample.shares[actor][pool] : 0;
        if (actor > 0 && share <= 0 && !there) continue; // it fell, or is still to come
        if (!present) {
            there = false;
            continue;
        }
        if (!there) lines.emplace_back();
        there = actor == 0 || share > 0;
        Plot::Points& points = lines.back();
        const double at = x.pixel(sample.time);
        if (steps && !points.empty()) points.emplace_back(at, points.back().second);
        points.emplace_back(at, y.pixel(share));
    }
    return lines;
}

/// Whether the character ever has anything in a pool: of one without a ceiling there is no line.
bool has_any_of(const Timeline& told, std::size_t pool) {
    return std::any_of(told.samples.begin(), told.samples.end(), [&](const PoolSample& sample) {
        return !sample.shares.front().empty() && sample.shares.front()[pool] > 0;
    });
}

/// Bars of the timeline, a row for each actor and effect.
struct BarRow {
    std::size_t actor;
    EffectId effect;
    std::vector<std::pair<double, double>> spans;
};

std::vector<BarRow> bar_rows(const Timeline& told) {
    std::vector<BarRow> rows;
    for (const EffectBar& bar : told.bars) {
        auto at = std::find_if(rows.begin(), rows.end(), [&](const BarRow& row) {
            return row.actor == bar.actor && row.effect == bar.effect;
        });
        if (at == rows.end()) at = rows.insert(rows.end(), {bar.actor, bar.effect, {}});
        at->spans.emplace_back(bar.from, bar.to);
    }
    std::stable_sort(rows.begin(), rows.end(),
                     [](const BarRow& a, const BarRow& b) { return a.actor < b.actor; });
    return rows;
}

void panel(Plot& plot, const Axis& x, const Axis& y, const std::string& label) {
    for (const double share : {0.0, 0.5, 1.0}) {
        plot.line({{x.from, y.pixel(share)}, {x.to, y.pixel(share)}}, ink::rule, 1);
        plot.text(x.from - 10, y.pixel(share), fmt::format("{:.0f} %", share * 100),
                  Plot::Anchor::right, 10, ink::quiet);
    }
    plot.text(x.from, y.to + 18, label, Plot::Anchor::left, 11, ink::dark, true);
}

Table samples_table(const Armoury& armoury, const Timeline& told) {
    Table table{
        "fight-pools",
        {as::number("time", 6), as::text("actor"), as::text("pool"), as::number("share", 5)}};
    for (const PoolSample& sample : told.samples)
        for (std::size_t a = 0; a < sample.shares.size(); ++a)
            for (std::size_t p = 0; p < sample.shares[a].size(); ++p)
                table.row({sample.time, told.actors[a], armoury.pools[p].id, sample.shares[a][p]});
    return table;
}

/// Uses (dots) and swaps (bars) under the character's pools, each named where there is room before
/// the next.
void mark_uses(Plot& plot, const Armoury& armoury, const Timeline& told, const Axis& x, double y) {
    struct Mark {
        double at;
        bool swap;
        std::string words;
    };
    std::vector<Mark> marks;
    for (const TimelineEvent& event : told.events)
        if (event.actor == told.actors.front() && (event.event == "uses" || event.event == "swaps"))
            marks.push_back({x.pixel(event.time), event.event == "swaps",
                             (event.event == "swaps" ? "swaps to " : "") +
                                 name_among(event.source, armoury.items, armoury.loadouts)});
    for (std::size_t i = 0; i < marks.size(); ++i) {
        const Mark& mark = marks[i];
        if (mark.swap)
            plot.box(mark.at - 1.5, y - 7, mark.at + 1.5, y + 7, ink::dark);
        else
            plot.dot(mark.at, y, 0.7, ink::dark);
        const double room = (i + 1 == marks.size() ? canvas_width : marks[i + 1].at) - mark.at - 12;
        constexpr double least = 60; // pixels: a name of fewer says nothing
        if (room > least || text_width(mark.words, 9) < room)
            plot.text(mark.at + 6, y, shortened(mark.words, room, 9), Plot::Anchor::left, 9,
                      ink::quiet);
    }
}

/// Crosses where somebody falls or loses a life.
void mark_falls(Plot& plot, const Timeline& told, const Axis& x, const Axis& ours,
                const Axis& theirs) {
    for (const TimelineEvent& event : told.events) {
        const bool life = event.event == "life_lost";
        if (event.event != "falls" && !life) continue;
        const auto at = std::find(told.actors.begin(), told.actors.end(), event.actor);
        const auto actor = static_cast<std::size_t>(at - told.actors.begin());
        const Axis& y = actor == 0 ? ours : theirs;
        const std::uint32_t colour = line_look(actor == 0 ? 0 : actor + 1).colour;
        plot.cross(x.pixel(event.time), y.pixel(0), 4, colour);
        if (life)
            plot.text(x.pixel(event.time) + 6, y.pixel(0) + 8, "a life lost", Plot::Anchor::left, 9,
                      colour);
    }
}

/// The character's load band over time; the heavier, the darker.
void load_strip(Plot& plot, const Armoury& armoury, const Timeline& told, const Axis& x, double y) {
    if (armoury.carry.bands.empty()) return;
    plot.text(x.from - 10, y, "load", Plot::Anchor::right, 10, ink::quiet);
    const auto& samples = told.samples;
    for (std::size_t i = 0; i < samples.size();) {
        std::size_t next = i + 1;
        while (next < samples.size() && samples[next].band == samples[i].band) ++next;
        const double from = x.pixel(samples[i].time);
        const double to = next < samples.size() ? x.pixel(samples[next].time) : x.to;
        const Band* band = armoury.carry.band(samples[i].band);
        const double weight = static_cast<double>(samples[i].band + 1) /
                              static_cast<double>(armoury.carry.bands.size());
        const std::uint32_t colour = band ? mixed(ink::quiet, 0.2 + 0.6 * weight) : ink::rule;
        plot.box(from, y - 7, to, y + 7, colour);
        const std::string words = band ? band->name : "no band";
        if (to - from > 6.5 * static_cast<double>(characters(words)))
            plot.text(from + 5, y, words, Plot::Anchor::left, 9, ink_on(colour));
        i = next;
    }
}

} // namespace

Figure fight_figure(const Armoury& armoury, const FightAnswer& answer) {
    const Timeline& told = answer.told;
    const bool steps = answer.told_trial.has_value();
    const double end = told.samples.empty() ? 1 : std::max(told.samples.back().time, 1e-3);
    const std::string luck =
        steps ? fmt::format("trial {}, seed {}", *answer.told_trial, answer.seed) : "even luck";
    Plot plot(fmt::format("{} against {}, moment by moment", armoury.at(answer.loadout).name,
                          armoury.at(answer.encounter).name),
              fmt::format("{} · level {} · {} · pools as shares of their ceilings", armoury.name,
                          answer.level, luck));

    std::vector<BarRow> rows = bar_rows(told);
    constexpr std::size_t most_rows = 8;
    const std::size_t left_out = rows.size() > most_rows ? rows.size() - most_rows : 0;
    rows.resize(std::min(rows.size(), most_rows));
    const double bars_height = rows.empty() ? 0 : 24.0 * static_cast<double>(rows.size()) + 34;
    const double bottom = 78 + bars_height;
    const double middle = bottom + (676 - bottom) * 0.46;
    const Axis x{fight_frame.left, fight_frame.right, 0, end, false};
    const double strip = armoury.carry.bands.empty() ? 0 : 24;
    const Axis ours{middle + 64 + strip, 676, 0, 1, false};
    const Axis theirs{bottom, middle, 0, 1, false};

    panel(plot, x, ours, actor_words(armoury, told.actors.front()));
    const bool allies =
        std::any_of(told.actors.begin(), told.actors.end(),
                    [](const std::string& actor) { return actor.starts_with("ally."); });
    panel(plot, x, theirs, allies ? "allies and foes: health" : "foes: health");
    std::vector<Plot::EndLabel> labels;
    for (std::size_t p = 0; p < armoury.pools.size(); ++p) {
        if (!has_any_of(told, p)) continue;
        const LineLook look = line_look(p);
        const std::vector<Plot::Points> lines = pool_lines(told, 0, p, x, ours, steps);
        plot.about(armoury.pools[p].name);
        for (const Plot::Points& line : lines) plot.line(line, look.colour, 2.2, look.dash);
        plot.about({});
        if (!lines.empty())
            labels.push_back({lines.back().back().second, armoury.pools[p].name, look.colour});
    }
    plot.end_labels(x.to + 12, labels, ours.from, ours.to);
    mark_uses(plot, armoury, told, x, ours.from - 20);
    load_strip(plot, armoury, told, x, ours.from - 44);

    labels.clear();
    const std::size_t health = armoury.combat.health.index();
    for (std::size_t a = 1; a < told.actors.size(); ++a) {
        const LineLook look = line_look(a + 1);
        const std::vector<Plot::Points> lines = pool_lines(told, a, health, x, theirs, steps);
        const std::string name = actor_words(armoury, told.actors[a]);
        plot.about(name);
        for (const Plot::Points& line : lines) plot.line(line, look.colour, 1.8, look.dash);
        plot.about({});
        if (!lines.empty() && a <= 12)
            labels.push_back({lines.back().back().second, name, look.colour});
    }
    plot.end_labels(x.to + 12, labels, theirs.from, theirs.to, 10);
    mark_falls(plot, told, x, ours, theirs);

    for (std::size_t r = 0; r < rows.size(); ++r) {
        const double y = 62 + bars_height - 56 - 24.0 * static_cast<double>(r);
        const std::uint32_t colour = line_look(rows[r].actor == 0 ? 0 : rows[r].actor + 1).colour;
        const std::string words = fmt::format("{} on {}", armoury.at(rows[r].effect).name,
                                              actor_words(armoury, told.actors[rows[r].actor]));
        for (const auto& [from, to] : rows[r].spans) {
            plot.about(fmt::format("{}, {:.1f} to {:.1f}", words, from, to));
            plot.box(x.pixel(from), y - 7, std::max(x.pixel(to), x.pixel(from) + 1), y + 7,
                     mixed(colour, 0.55));
        }
        plot.about({});
        plot.text(x.to + 12, y, shortened(words, canvas_width - x.to - 24, 10), Plot::Anchor::left,
                  10, colour);
    }
    if (left_out > 0)
        plot.text(x.to + 12, 44, fmt::format("and {} more", counted(left_out, "effect")),
                  Plot::Anchor::left, 10, ink::quiet);
    const Axis base{62, 676, 0, 1, false};
    plot.x_axis(x, base, armoury.clock == Clock::seconds ? "time, seconds" : "time, rounds", 10);
    return plot.figure("fight", samples_table(armoury, told));
}

} // namespace panoplon
