#include "base/text.h"
#include "show/audit/show_audit.h"
#include "show/audit/verdict_words.h"
#include "show/plot.h"
#include "show/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Axis across{110, 1050, 0, 1.25, false}; ///< shortfall; what is over it stands at its end
constexpr double most_shortfall = 1.2;
constexpr std::uint32_t unfair = 0x9a3412;
constexpr std::uint32_t fair = 0x1f5a8c;

/// What stands highest first, so that labels can step down where they would overlap.
std::vector<const ItemVerdict*> judged_items(const AuditResult& result) {
    std::vector<const ItemVerdict*> list;
    for (const ItemVerdict& verdict : result.items)
        if (verdict.contexts > 0) list.push_back(&verdict);
    for (const ConsumableVerdict& one : result.consumables)
        if (one.judged.contexts > 0) list.push_back(&one.judged);
    std::stable_sort(list.begin(), list.end(), [](const ItemVerdict* a, const ItemVerdict* b) {
        return a->grip.mean > b->grip.mean;
    });
    return list;
}

/// The height nearest to `y`, and not below `floor`, at which a label covers none of the others.
double free_place(const std::vector<std::pair<double, double>>& labels, double x, double y,
                  double floor) {
    for (double off = 0;; off += 15)
        for (const double place : {y - off, y + off}) {
            const bool taken = std::any_of(labels.begin(), labels.end(), [&](const auto& other) {
                return std::abs(other.first - x) < 150 && std::abs(other.second - place) < 14;
            });
            if (!taken && place >= floor) return place;
        }
}

} // namespace

Figure grip_figure(const Armoury& armoury, const AuditResult& result) {
    const std::vector<const ItemVerdict*> items = judged_items(result);
    double high = 2 * armoury.audit.dominant_grip;
    for (const ItemVerdict* verdict : items) high = std::max(high, verdict->grip.mean * 1.1);
    const Axis up{110, 670, 0, high, false};
    Plot plot("How much is lost with each item, and how much without it",
              fmt::format("{} · {} by even luck · up: no choice; right: no use; means over the "
                          "contexts of an item's time",
                          armoury.name, counted(result.whole_contexts(), "context")));
    plot.y_axis(across, up, "lost without it, of what its place is worth");
    plot.x_axis(across, up, "lost with it, of what its place is worth");
    const double grip = up.pixel(armoury.audit.dominant_grip);
    plot.line({{across.from, grip}, {across.to, grip}}, ink::quiet, 1, 2);
    plot.text(across.to + 10, grip, "dominant, if best in most", Plot::Anchor::left, 10,
              ink::quiet);
    const double use = across.pixel(armoury.audit.useless_shortfall);
    plot.line({{use, up.from}, {use, up.to}}, ink::quiet, 1, 2);
    plot.text(use + 8, up.to - 8, "useless from here on, if never less", Plot::Anchor::left, 10,
              ink::quiet);
    Table data{
        "audit-grip",
        {as::item("item"), as::text("verdict"), as::number("grip", 4), as::number("shortfall", 4)}};
    std::vector<std::pair<double, double>> labels; // places that are taken
    for (const ItemVerdict* verdict : items) {
        const std::string& id = armoury.at(verdict->item).id;
        const double x = across.pixel(std::clamp(verdict->shortfall.mean, 0.0, most_shortfall));
        const double y = up.pixel(std::max(verdict->grip.mean, 0.0));
        const bool named = verdict->calls();
        plot.about(fmt::format("{}, {}: {:.0f} % lost without it, {:.0f} % with it", id,
                               verdict_words(*verdict), verdict->grip.mean * 100,
                               verdict->shortfall.mean * 100));
        plot.dot(x, y, named ? 1.1 : 0.7, named ? unfair : mixed(fair, 0.75));
        plot.about({});
        data.row({id, verdict_words(*verdict), verdict->grip.mean, verdict->shortfall.mean});
        if (!named) continue;
        const double place = free_place(labels, x, y, up.from);
        labels.emplace_back(x, place);
        const std::string over = verdict->shortfall.mean > most_shortfall
                                     ? fmt::format(" ({:.1f})", verdict->shortfall.mean)
                                     : std::string();
        plot.text(x + 9, place, id + over, Plot::Anchor::left, 10, unfair, true);
    }
    return plot.figure("audit-grip", std::move(data));
}

} // namespace panoplon
