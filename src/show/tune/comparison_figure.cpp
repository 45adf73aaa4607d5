#include "show/plot.h"
#include "show/tune/show_comparison.h"
#include "show/words.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

constexpr std::size_t most_shown = 26;
constexpr Frame comparison_frame{.left = 380, .right = 1150, .top = 680, .bottom = 84};
constexpr std::uint32_t stronger_colour = 0x1f5a8c;
constexpr std::uint32_t weaker_colour = 0xb4540a;

struct Row {
    std::string name; ///< as it is drawn
    std::string key;  ///< the same by ids
    double before, after;
    [[nodiscard]] double distance() const { return std::abs(std::log(after / before)); }
};

bool further(const Row& a, const Row& b) {
    return a.distance() > b.distance();
}

/// What has the id in a list, by its name; the id where nothing has.
template <class List>
std::string name_in(const List& list, const std::string& id) {
    const auto at =
        std::find_if(list.begin(), list.end(), [&](const auto& one) { return one.id == id; });
    return at == list.end() ? id : at->name;
}

/// "who · against · level" within the room to the left of the rows.
std::string row_name(const std::string& who, const std::string& encounter, int level) {
    constexpr double of_one = 155; // pixels
    return fmt::format("{} · {} · {}", shortened(who, of_one, 10), shortened(encounter, of_one, 10),
                       level);
}

std::vector<Row> loadout_rows(const Armoury& armoury, const Comparison& comparison) {
    std::vector<Row> rows;
    for (const CurveShift& curve : comparison.curves) {
        const CurveShift::Point& most = curve.most();
        if (curve.moved())
            rows.push_back({row_name(name_in(armoury.loadouts, curve.loadout),
                                     name_in(armoury.encounters, curve.encounter), most.level),
                            fmt::format("{} · {} · {}", curve.loadout, curve.encounter, most.level),
                            most.before, most.after});
    }
    std::stable_sort(rows.begin(), rows.end(), further);
    return rows;
}

/// Of each character and encounter the context that moved furthest.
std::vector<Row> best_rows(const Armoury& armoury, const Comparison& comparison) {
    std::map<std::pair<std::string, std::string>, Row> furthest;
    for (const BestShift& best : comparison.bests) {
        const Row row{row_name("best " + name_in(armoury.characters, best.character),
                               name_in(armoury.encounters, best.encounter), best.level),
                      fmt::format("best {} · {} · {}", best.character, best.encounter, best.level),
                      best.before, best.after};
        if (!best.moved()) continue;
        const auto [at, fresh] = furthest.emplace(std::pair(best.character, best.encounter), row);
        if (!fresh && further(row, at->second)) at->second = row;
    }
    std::vector<Row> rows;
    for (const auto& [context, row] : furthest) rows.push_back(row);
    std::stable_sort(rows.begin(), rows.end(), further);
    return rows;
}

void draw_row(Plot& plot, const Row& row, const Axis& x, double y) {
    const std::uint32_t colour = row.after > row.before ? stronger_colour : weaker_colour;
    plot.text(comparison_frame.left - 16, y, row.name, Plot::Anchor::right, 10, ink::dark);
    plot.about(fmt::format("{}: {:.3f} before, {:.3f} after", row.name, row.before, row.after));
    plot.line({{x.pixel(row.before), y}, {x.pixel(row.after), y}}, mixed(colour, 0.6), 3);
    plot.dot(x.pixel(row.before), y, 1.1, ink::quiet);
    plot.dot(x.pixel(row.after), y, 1.5, colour);
    plot.about({});
    plot.text(comparison_frame.right + 16, y, signed_percent(row.after / row.before - 1),
              Plot::Anchor::left, 10, colour, true);
}

void draw_key(Plot& plot) {
    const double y = 712;
    plot.dot(comparison_frame.left, y, 1.1, ink::quiet);
    plot.text(comparison_frame.left + 10, y, "before", Plot::Anchor::left, 10, ink::quiet);
    plot.dot(comparison_frame.left + 80, y, 1.5, stronger_colour);
    plot.text(comparison_frame.left + 90, y, "after, stronger", Plot::Anchor::left, 10, ink::quiet);
    plot.dot(comparison_frame.left + 210, y, 1.5, weaker_colour);
    plot.text(comparison_frame.left + 220, y, "after, weaker", Plot::Anchor::left, 10, ink::quiet);
    plot.text(comparison_frame.left - 16, y, "who · against · level", Plot::Anchor::right, 10,
              ink::quiet);
}

} // namespace

std::optional<Figure> comparison_figure(const Armoury& armoury, const std::string& what,
                                        const Comparison& comparison) {
    std::vector<Row> rows = loadout_rows(armoury, comparison);
    std::vector<Row> best = best_rows(armoury, comparison);
    if (rows.empty() && best.empty()) return std::nullopt;
    const std::size_t all = rows.size() + best.size();
    best.resize(std::min(best.size(),
                         std::max(most_shown / 2, most_shown - std::min(most_shown, rows.size()))));
    rows.resize(std::min(rows.size(), most_shown - best.size()));
    const std::size_t loadouts = rows.size();
    rows.insert(rows.end(), best.begin(), best.end());

    double low = rows.front().before;
    double high = low;
    for (const Row& row : rows) {
        low = std::min({low, row.before, row.after});
        high = std::max({high, row.before, row.after});
    }
    Plot plot("Margins before and after, where they moved most",
              fmt::format("{} · {} · by even luck{}", armoury.name, what,
                          all > rows.size() ? fmt::format(" · {} of {} rows", rows.size(), all)
                                            : std::string()));
    const double height =
        (comparison_frame.top - comparison_frame.bottom) / static_cast<double>(rows.size());
    const double floor = comparison_frame.bottom;
    constexpr double wide = 4; // from here on equal ratios lie equally far apart
    const double room = std::max((high - low) * 0.08, high * 0.01);
    const Axis x =
        high / low > wide
            ? Axis{comparison_frame.left, comparison_frame.right, low / 1.08, high * 1.08, true}
            : Axis{comparison_frame.left, comparison_frame.right, low - room, high + room, false};
    const Axis y{floor, comparison_frame.top, 0, 1, false};
    draw_key(plot);
    for (const double tick : round_ticks(x, 8))
        plot.line({{x.pixel(tick), floor}, {x.pixel(tick), comparison_frame.top}}, ink::rule, 1);
    plot.x_axis(x, y, "margin");
    if (loadouts > 0 && loadouts < rows.size()) {
        const double between = comparison_frame.top - height * static_cast<double>(loadouts);
        plot.line({{24, between}, {1256, between}}, ink::rule, 1);
    }
    Table data{
        "compare",
        {as::text("row"), as::number("before", 5), as::number("after", 5), as::number("ratio", 5)}};
    for (std::size_t r = 0; r < rows.size(); ++r) {
        draw_row(plot, rows[r], x, comparison_frame.top - height * (static_cast<double>(r) + 0.5));
        data.row({rows[r].key, rows[r].before, rows[r].after, rows[r].after / rows[r].before});
    }
    return plot.figure("compare", std::move(data));
}

} // namespace panoplon
