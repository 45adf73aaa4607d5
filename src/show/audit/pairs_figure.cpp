#include "base/text.h"
#include "show/audit/audit_tables.h"
#include "show/plot.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t most_pairs = 26;
constexpr Frame pairs_frame{.left = 360, .right = 1150, .top = 690, .bottom = 84};
constexpr std::uint32_t helping = 0x1f5a8c;
constexpr std::uint32_t hindering = 0xb4541a;

} // namespace

std::optional<Figure> pairs_figure(const Armoury& armoury, const std::vector<PairWorth>& pairs) {
    if (pairs.empty()) return std::nullopt;
    std::vector<PairWorth> rows(pairs.begin(), pairs.begin() + static_cast<std::ptrdiff_t>(std::min(
                                                                   pairs.size(), most_pairs)));
    std::stable_sort(rows.begin(), rows.end(), [](const PairWorth& a, const PairWorth& b) {
        return a.together.mean > b.together.mean;
    });
    double low = 0;
    double high = 0;
    for (const PairWorth& one : rows) {
        low = std::min(low, one.together.low * 100);
        high = std::max(high, one.together.high * 100);
    }
    const double room = (high - low) * 0.05;
    Plot plot("What works together, and what gets in each other's way",
              fmt::format("{} · the strongest {} of {} · by even luck, with 95 % intervals",
                          armoury.name, counted(rows.size(), "pair"), pairs.size()));
    const Axis x{pairs_frame.left, pairs_frame.right, low - room, high + room, false};
    const double height =
        std::min(30.0, (pairs_frame.top - pairs_frame.bottom) / static_cast<double>(rows.size()));
    const double floor = pairs_frame.top - height * static_cast<double>(rows.size());
    const Axis y{floor, pairs_frame.top, 0, 1, false};
    for (const double tick : round_ticks(x, 8))
        plot.line({{x.pixel(tick), floor}, {x.pixel(tick), pairs_frame.top}}, ink::rule, 1);
    plot.line({{x.pixel(0), floor}, {x.pixel(0), pairs_frame.top}}, ink::quiet, 1);
    plot.x_axis(x, y, "percent of the margin, beyond the product of what each does alone");
    Table data{"pairs",
               {as::item("first"), as::item("second"), as::number("together", 5),
                as::number("low", 5), as::number("high", 5)}};
    constexpr double name_width = (pairs_frame.left - 14 - 30) / 2; // pixels, of one of two
    std::vector<std::string> names;
    for (const PairWorth& one : rows)
        for (const ItemId item : {one.first, one.second}) names.push_back(armoury.at(item).name);
    names = shortened_apart(names, name_width, 10);
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const PairWorth& one = rows[r];
        const double middle = pairs_frame.top - height * (static_cast<double>(r) + 0.5);
        const std::uint32_t colour = one.together.mean > 0 ? helping : hindering;
        const std::string name = armoury.at(one.first).name + " + " + armoury.at(one.second).name;
        plot.text(pairs_frame.left - 14, middle, names[2 * r] + " + " + names[2 * r + 1],
                  Plot::Anchor::right, 10, ink::dark);
        plot.about(fmt::format("{}: {:+.1f} % ({:+.1f} to {:+.1f} %), seen in {}", name,
                               one.together.mean * 100, one.together.low * 100,
                               one.together.high * 100, counted(one.seen, "loadout")));
        plot.line(
            {{x.pixel(one.together.low * 100), middle}, {x.pixel(one.together.high * 100), middle}},
            mixed(colour, 0.55), 3);
        plot.dot(x.pixel(one.together.mean * 100), middle, 1.3, colour);
        plot.about({});
        plot.text(pairs_frame.right + 14, middle, signed_percent(one.together.mean),
                  Plot::Anchor::left, 10, colour, true);
        data.row({armoury.at(one.first).id, armoury.at(one.second).id, one.together.mean,
                  one.together.low, one.together.high});
    }
    return plot.figure("pairs", std::move(data));
}

} // namespace panoplon
