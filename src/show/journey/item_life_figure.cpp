#include "show/journey/show_journey.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame life_frame{.left = 330, .right = 1210};
constexpr double top = 690;
constexpr double bottom = 90;
constexpr std::size_t most_rows = 34;

/// The items that are worn most, by slot and then by the level at which they come.
std::vector<std::size_t> rows_of(const Armoury& armoury, const JourneySummary& summary) {
    std::vector<std::size_t> rows;
    for (std::size_t i = 0; i < summary.items.size(); ++i)
        if (summary.items[i].fights_worn > 0) rows.push_back(i);
    std::stable_sort(rows.begin(), rows.end(), [&](std::size_t a, std::size_t b) {
        return summary.items[a].fights_worn > summary.items[b].fights_worn;
    });
    rows.resize(std::min(rows.size(), most_rows));
    std::stable_sort(rows.begin(), rows.end(), [&](std::size_t a, std::size_t b) {
        const Item& one = armoury.items[a];
        const Item& other = armoury.items[b];
        return one.slot != other.slot
                   ? one.slot < other.slot
                   : summary.items[a].first_worn.mean() < summary.items[b].first_worn.mean();
    });
    return rows;
}

/// The first and the last level at which anything was fought, as indices.
std::pair<std::size_t, std::size_t> levels_of(const JourneySummary& summary) {
    std::size_t first = 0;
    std::size_t last = summary.fights_at.size() - 1;
    while (first < last && summary.fights_at[first] == 0) ++first;
    while (last > first && summary.fights_at[last] == 0) --last;
    return {first, last};
}

} // namespace

Figure item_life_figure(const Armoury& armoury, const Journey& journey,
                        const JourneyOptions& options, const JourneySummary& summary) {
    Plot plot(fmt::format("{}: the life of items", journey.name),
              fmt::format("{} · {} · seed {} · shade: the share of a level's fights in which an "
                          "item is worn",
                          armoury.name, counted(summary.trials, "trial"), options.seed));
    const std::vector<std::size_t> rows = rows_of(armoury, summary);
    const auto [first, last] = levels_of(summary);
    const double height = std::min(26.0, (top - bottom) / static_cast<double>(rows.size() + 1));
    const double width =
        (life_frame.right - life_frame.left) / static_cast<double>(last - first + 1);
    Table data{
        "journey-life",
        {as::item("item"), as::text("slot"), as::whole("level"), as::number("share_worn", 5)}};
    std::vector<std::string> names;
    for (const std::size_t item : rows) names.push_back(armoury.items[item].name);
    names = shortened_apart(names, life_frame.left - 10 - 126, 9);
    SlotId slot;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const Item& item = armoury.items[rows[r]];
        const double y = top - height * static_cast<double>(r);
        if (item.slot != slot) {
            plot.line({{40, y + 1}, {life_frame.right, y + 1}}, ink::rule, 1);
            plot.text(40, y - height / 2, shortened(armoury.at(item.slot).name, 80, 9),
                      Plot::Anchor::left, 9, ink::quiet);
        }
        slot = item.slot;
        plot.text(life_frame.left - 10, y - height / 2, names[r], Plot::Anchor::right, 9,
                  ink::dark);
        for (std::size_t level = first; level <= last; ++level) {
            const double fights = summary.fights_at[level];
            const double share =
                fights > 0 ? summary.items[rows[r]].fights_worn_at[level] / fights : 0;
            const double x = life_frame.left + width * static_cast<double>(level - first);
            plot.about(fmt::format("{}, level {}: worn in {} of fights", item.name,
                                   armoury.levels.first + static_cast<int>(level), percent(share)));
            if (share > 0)
                plot.box(x + 1, y - height + 1, x + width - 1, y - 1,
                         mixed(line_look(0).colour, 0.08 + 0.92 * share));
            plot.about({});
            data.row({item.id, armoury.at(item.slot).id,
                      armoury.levels.first + static_cast<int>(level), share});
        }
    }
    const double under = top - height * static_cast<double>(rows.size()) - 16;
    bool without_fight = false;
    double label_end = 0; // of the level that is written last
    for (std::size_t level = first; level <= last; ++level) {
        const double x = life_frame.left + width * (static_cast<double>(level - first) + 0.5);
        const bool fought = summary.fights_at[level] > 0;
        without_fight = without_fight || !fought;
        const std::string words =
            std::to_string(armoury.levels.first + static_cast<int>(level)) + (fought ? "" : "*");
        if (x - text_width(words, 10) / 2 < label_end + 4) continue;
        label_end = x + text_width(words, 10) / 2;
        plot.text(x, under, words, Plot::Anchor::centre, 10, ink::quiet);
    }
    if (without_fight)
        plot.text(life_frame.left, under - 20, "* no fight at that level", Plot::Anchor::left, 10,
                  ink::quiet);
    plot.text(life_frame.right, under - 20, "level", Plot::Anchor::right, 10, ink::quiet);
    const auto worn = static_cast<std::size_t>(
        std::count_if(summary.items.begin(), summary.items.end(),
                      [](const ItemSummary& item) { return item.fights_worn > 0; }));
    if (worn > rows.size())
        plot.text(40, under - 20,
                  fmt::format("and {} that are worn less", counted(worn - rows.size(), "item")),
                  Plot::Anchor::left, 10, ink::quiet);
    return plot.figure("journey-life", std::move(data));
}

} // namespace panoplon
