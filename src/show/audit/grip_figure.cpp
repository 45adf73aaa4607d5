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
constexpr double name_size = 10;
constexpr std::uint32_t unfair = 0x9a3412;
constexpr std::uint32_t fair = 0x1f5a8c;

std::vector<const ItemVerdict*> judged_items(const AuditResult& result) {
    std::vector<const ItemVerdict*> list;
    for (const ItemVerdict& verdict : result.items)
        if (verdict.contexts > 0) list.push_back(&verdict);
    for (const ConsumableVerdict& one : result.consumables)
        if (one.judged.contexts > 0) list.push_back(&one.judged);
    return list;
}

/// Names beside dots, none over another: those that find no place near their dot are counted.
class DotNames {
  public:
    explicit DotNames(const Axis& up) : up_(up) {}

    void place(Plot& plot, double x, double y, const std::string& name) {
        constexpr double half_a_line = 7, furthest = 36; // pixels
        const double width = text_width(name, name_size * 1.1);
        const bool left = x + 9 + width > canvas_width - 8;
        const double from = left ? x - 9 - width : x + 9;
        for (double off = 0; off <= furthest; off += 3)
            for (const double middle : {y - off, y + off}) {
                const Box box{from, from + width, middle - half_a_line, middle + half_a_line};
                if (box.low < up_.from - 3 || box.high > up_.to || !is_free(box)) continue;
                taken_.push_back(box);
                plot.text(from, middle, name, Plot::Anchor::left, name_size, unfair, true);
                return;
            }
        ++left_out_;
    }
    /// What stands there already.
    void take(double x, double y, double half) {
        taken_.push_back({x - half, x + half, y - half, y + half});
    }
    [[nodiscard]] std::size_t left_out() const { return left_out_; }

  private:
    struct Box {
        double left, right, low, high;
    };
    [[nodiscard]] bool is_free(const Box& box) const {
        return std::none_of(taken_.begin(), taken_.end(), [&](const Box& other) {
            return box.left < other.right && other.left < box.right && box.low < other.high &&
                   other.low < box.high;
        });
    }

    Axis up_;
    std::vector<Box> taken_;
    std::size_t left_out_ = 0;
};

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
    DotNames names(up);
    names.take(use + 110, up.to - 8, 8);
    std::vector<const ItemVerdict*> named;
    const auto dot = [&](const ItemVerdict& verdict) {
        return std::pair(across.pixel(std::clamp(verdict.shortfall.mean, 0.0, most_shortfall)),
                         up.pixel(std::max(verdict.grip.mean, 0.0)));
    };
    for (const ItemVerdict* verdict : items) {
        const Item& item = armoury.at(verdict->item);
        const auto [x, y] = dot(*verdict);
        plot.about(fmt::format("{}, {}: {:.0f} % lost without it, {:.0f} % with it", item.name,
                               verdict_words(*verdict), verdict->grip.mean * 100,
                               verdict->shortfall.mean * 100));
        plot.dot(x, y, verdict->calls() ? 1.1 : 0.7, verdict->calls() ? unfair : mixed(fair, 0.75));
        plot.about({});
        data.row({item.id, verdict_words(*verdict), verdict->grip.mean, verdict->shortfall.mean});
        if (verdict->calls()) named.push_back(verdict);
        if (verdict->calls()) names.take(x, y, 4);
    }
    // What is furthest over a threshold has a name first.
    const auto excess = [&](const ItemVerdict* verdict) {
        return std::max(verdict->grip.mean / armoury.audit.dominant_grip,
                        verdict->shortfall.mean / armoury.audit.useless_shortfall);
    };
    std::stable_sort(named.begin(), named.end(), [&](const ItemVerdict* a, const ItemVerdict* b) {
        return excess(a) > excess(b);
    });
    std::vector<std::string> words;
    for (const ItemVerdict* verdict : named) words.push_back(armoury.at(verdict->item).name);
    words = shortened_apart(words, 190, name_size);
    for (std::size_t i = 0; i < named.size(); ++i) {
        const auto [x, y] = dot(*named[i]);
        const std::string over = named[i]->shortfall.mean > most_shortfall
                                     ? fmt::format(" ({:.1f})", named[i]->shortfall.mean)
                                     : std::string();
        names.place(plot, x, y, words[i] + over);
    }
    if (names.left_out() > 0)
        plot.text(40, 40,
                  fmt::format("without a name for want of room: {} more that {} for a hand",
                              names.left_out(), names.left_out() == 1 ? "calls" : "call"),
                  Plot::Anchor::left, 10, ink::quiet);
    return plot.figure("audit-grip", std::move(data));
}

} // namespace panoplon
