#include "show/audit/show_audit.h"
#include "show/audit/verdict_words.h"
#include "show/plot.h"
#include "show/words.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

constexpr std::size_t most_rows = 42;
constexpr Frame audit_frame{.left = 330, .right = 1090, .top = 690, .bottom = 74};
constexpr std::uint32_t shade_colour = 0x1f5a8c;
constexpr std::uint32_t best_colour = 0xd98a1b;

/// One item at one level, over characters and encounters.
struct MapCell {
    double shortfall = 0; ///< weighted mean
    double picks = 0;     ///< weighted share of contexts in which it is picked
    double weight = 0;
    bool in_window = false;
};

struct Row {
    const ItemVerdict* verdict;
    std::map<int, MapCell> cells; ///< by level
};

std::vector<Row> map_rows(const Armoury& armoury, const AuditResult& result) {
    std::vector<Row> rows;
    for (const ItemVerdict& verdict : result.items) rows.push_back({&verdict, {}});
    for (const ItemContextRow& row : result.rows) {
        if (!row.judged) continue;
        const auto at = std::find_if(rows.begin(), rows.end(),
                                     [&](const Row& r) { return r.verdict->item == row.item; });
        const ContextRow& context = result.contexts[row.context];
        MapCell& cell = at->cells[context.context.level];
        cell.shortfall += row.shortfall * context.weight;
        cell.picks += row.picked() ? context.weight : 0;
        cell.weight += context.weight;
        cell.in_window = row.in_window;
    }
    for (Row& row : rows)
        for (auto& [level, cell] : row.cells) {
            cell.shortfall /= cell.weight;
            cell.picks /= cell.weight;
        }
    std::stable_sort(rows.begin(), rows.end(), [&](const Row& a, const Row& b) {
        const Item& one = armoury.at(a.verdict->item);
        const Item& two = armoury.at(b.verdict->item);
        return one.slot != two.slot ? one.slot < two.slot : one.level < two.level;
    });
    return rows;
}

void draw_key(Plot& plot) {
    double x = audit_frame.left;
    plot.text(x, 712, "lost with:", Plot::Anchor::left, 10, ink::quiet);
    x += 70;
    for (const double shortfall : {0.0, 0.25, 0.5, 0.75, 1.0}) {
        plot.box(x, 705, x + 26, 719, mixed(shade_colour, 1 - 0.92 * shortfall));
        plot.text(x + 31, 712, shortfall == 1 ? "1 or more" : rounded(shortfall),
                  Plot::Anchor::left, 10, ink::quiet);
        x += shortfall == 1 ? 110 : 66;
    }
    plot.dot(x, 712, 0.8, best_colour);
    plot.text(x + 10, 712, "best in at least half of the contexts", Plot::Anchor::left, 10,
              ink::quiet);
    plot.line({{x + 275, 705}, {x + 301, 705}}, ink::dark, 2);
    plot.text(x + 307, 712, "its time", Plot::Anchor::left, 10, ink::quiet);
}

/// `name`: of the item, as there is room for it.
void draw_row(Plot& plot, const Armoury& armoury, const Row& row, const std::string& name,
              const Axis& x, double y, double height, int step) {
    const Item& item = armoury.at(row.verdict->item);
    const double half = height * 0.40;
    double window_from = never;
    double window_to = -never;
    for (const auto& [level, cell] : row.cells) {
        const double from = x.pixel(level);
        const double to = x.pixel(level + step) - 1.5;
        plot.about(fmt::format("{}, level {}: shortfall {:.2f}, picked in {:.0f} % of contexts{}",
                               item.name, level, cell.shortfall, cell.picks * 100,
                               cell.in_window ? "" : "; after its time"));
        plot.box(from, y - half, to, y + half,
                 mixed(shade_colour, 1 - 0.92 * std::min(cell.shortfall, 1.0)));
        if (cell.in_window) {
            window_from = std::min(window_from, from);
            window_to = std::max(window_to, to);
        }
    }
    plot.about({});
    if (window_from < window_to)
        plot.line({{window_from, y - half - 1}, {window_to, y - half - 1}}, ink::dark, 1.6);
    for (const auto& [level, cell] : row.cells)
        if (cell.picks >= 0.5)
            plot.dot((x.pixel(level) + x.pixel(level + step)) / 2, y, std::min(0.8, height / 26),
                     best_colour);
    const double size = std::min(11.0, height * 0.6);
    const std::string mark = item.tier.given() ? armoury.at(item.tier).mark : "";
    plot.text(audit_frame.left - 46, y, name, Plot::Anchor::right, size, ink::dark);
    plot.text(audit_frame.left - 12, y, mark, Plot::Anchor::right, size, ink::quiet);
    const bool calls = row.verdict->calls();
    plot.text(audit_frame.right + 10, y, verdict_words(*row.verdict), Plot::Anchor::left, size,
              calls ? 0x9a3412 : ink::quiet, calls);
}

Figure draw(const Armoury& armoury, const AuditOptions& options, const AuditResult& result,
            const std::vector<Row>& rows, std::size_t page, std::size_t pages) {
    const std::string name = pages == 1 ? "audit-map" : fmt::format("audit-map-{}", page + 1);
    Plot plot("What each item is worth, level by level" +
                  (pages == 1 ? std::string() : fmt::format(" ({} of {})", page + 1, pages)),
              fmt::format("{} · {} by even luck · share of its place's worth that is lost by "
                          "wearing it instead of the best",
                          armoury.name, counted(result.whole_contexts(), "context")));
    const Axis x{audit_frame.left, audit_frame.right, static_cast<double>(options.levels.first),
                 static_cast<double>(options.levels.last + options.step), false};
    const double height =
        std::min(26.0, (audit_frame.top - audit_frame.bottom) / static_cast<double>(rows.size()));
    draw_key(plot);
    Table data{name,
               {as::item("item"), as::text("slot"), as::text("verdict"), as::whole("level"),
                as::number("shortfall", 4), as::number("picks", 4), as::text("in_window")}};
    constexpr double slot_width = 82;                          // pixels,
    constexpr double name_width = audit_frame.left - 46 - 110; // beside it
    const double size = std::min(11.0, height * 0.6);
    std::vector<std::string> names;
    for (const Row& row : rows) names.push_back(armoury.at(row.verdict->item).name);
    names = shortened_apart(names, name_width, size);
    SlotId slot;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const Item& item = armoury.at(rows[r].verdict->item);
        const double y = audit_frame.top - height * (static_cast<double>(r) + 0.5);
        if (item.slot != slot) {
            if (slot.given())
                plot.line({{24, y + height / 2}, {1256, y + height / 2}}, ink::rule, 1);
            plot.text(24, y, shortened(armoury.at(item.slot).name, slot_width, size),
                      Plot::Anchor::left, size, ink::quiet, true);
            slot = item.slot;
        }
        draw_row(plot, armoury, rows[r], names[r], x, y, height, options.step);
        for (const auto& [level, cell] : rows[r].cells)
            data.row({item.id, armoury.at(item.slot).id, verdict_words(*rows[r].verdict), level,
                      cell.shortfall, cell.picks, cell.in_window});
    }
    const double floor = audit_frame.top - height * static_cast<double>(rows.size());
    for (int level = options.levels.first; level <= options.levels.last; level += options.step)
        if ((options.levels.last - options.levels.first) / options.step < 16 ||
            level == options.levels.first || level % 5 == 0)
            plot.text((x.pixel(level) + x.pixel(level + options.step)) / 2, floor - 14,
                      std::to_string(level), Plot::Anchor::centre, 10, ink::quiet);
    plot.text(audit_frame.right, floor - 36, "level", Plot::Anchor::right, 10, ink::quiet);
    return plot.figure(name, std::move(data));
}

} // namespace

std::vector<Figure> audit_figures(const Armoury& armoury, const AuditOptions& options,
                                  const AuditResult& result) {
    const std::vector<Row> rows = map_rows(armoury, result);
    std::vector<Figure> figures;
    const std::size_t pages = (rows.size() + most_rows - 1) / most_rows;
    for (std::size_t page = 0; page < pages; ++page) {
        const std::size_t first = page * rows.size() / pages;
        const std::size_t last = (page + 1) * rows.size() / pages;
        figures.push_back(draw(armoury, options, result,
                               {rows.begin() + static_cast<std::ptrdiff_t>(first),
                                rows.begin() + static_cast<std::ptrdiff_t>(last)},
                               page, pages));
    }
    return figures;
}

} // namespace panoplon
