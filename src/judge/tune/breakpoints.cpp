#include "judge/tune/breakpoints.h"

#include "base/text.h"
#include "judge/curve/curve.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

constexpr double picked_mostly = 0.5; ///< of the contexts of an encounter
constexpr std::size_t most_told = 8;

class BreakpointFinder {
  public:
    BreakpointFinder(const Armoury& armoury, const WhatIfs& what_ifs, const Tuning& tuning)
        : armoury_(armoury),
          what_ifs_(what_ifs),
          tuning_(tuning) {}

    std::vector<Breakpoint> run() {
        find_picks();
        if (find_witness()) find_hits();
        std::stable_sort(
            found_.begin(), found_.end(),
            [](const Breakpoint& a, const Breakpoint& b) { return a.value < b.value; });
        const double now = tuning_.number.now;
        while (found_.size() > most_told) {
            const bool last_is_further =
                std::abs(found_.back().value - now) > std::abs(found_.front().value - now);
            found_.erase(last_is_further ? found_.end() - 1 : found_.begin());
        }
        return std::move(found_);
    }

  private:
    void find_picks() {
        for (std::size_t e = 0; e < tuning_.encounters.size(); ++e)
            for (std::size_t i = 1; i < tuning_.points.size(); ++i) {
                const TunePoint& a = tuning_.points[i - 1];
                const TunePoint& b = tuning_.points[i];
                if (a.picks.empty() || b.picks.empty()) continue;
                const bool from_here = b.picks[e] >= picked_mostly;
                if ((a.picks[e] >= picked_mostly) == from_here) continue;
                const std::string& foe = armoury_.at(tuning_.encounters[e]).id;
                found_.push_back({b.value, fmt::format("{} {}: picked in most contexts against {}",
                                                       from_here ? "from" : "only under",
                                                       shortest(b.value), foe)});
            }
    }

    /// The context in which the item does best now, and an outfit with it.
    bool find_witness() {
        const auto best =
            std::min_element(tuning_.rows.begin(), tuning_.rows.end(),
                             [](const ItemContextRow& a, const ItemContextRow& b) {
                                 return a.judged != b.judged ? a.judged : a.shortfall < b.shortfall;
                             });
        if (best == tuning_.rows.end() || !best->judged) return false;
        const ContextRow& row = tuning_.contexts[best->context];
        context_ = row.context;
        outfit_ = row.outfit;
        const ItemId id = tuning_.number.item;
        const Item& item = armoury_.at(id);
        bool worn = false;
        for_each_worn(outfit_.worn, [&](const WornItem& one) { worn = worn || one.item == id; });
        if (worn || !item.worn() || armoury_.at(item.slot).socket) return worn;
        std::erase_if(outfit_.worn, [&](const WornItem& one) {
            const auto& takes = armoury_.at(one.item).takes;
            return std::find_first_of(takes.begin(), takes.end(), item.takes.begin(),
                                      item.takes.end()) != takes.end();
        });
        outfit_.worn.push_back({item.slot, id, {}, {}});
        return true;
    }

    [[nodiscard]] HitCounts hits_at(double value) {
        const auto known = hits_.find(value);
        if (known != hits_.end()) return known->second;
        const ReadArmoury read = what_ifs_.read({tuning_.number.what_if(value)});
        HitCounts counts;
        if (read.usable()) {
            Engine engine(read.armoury);
            const FightSetup setup = set_up_fight(read.armoury, outfit_, context_.encounter);
            engine.prepare(setup);
            if (!engine.run(1, std::nullopt, Detail::outcome).error)
                counts =
                    count_hits(kinds_of_foes(read.armoury, read.armoury.at(context_.encounter)),
                               engine.blows());
        }
        return hits_[value] = counts;
    }

    void find_hits() {
        const double now = tuning_.number.now;
        const double low = std::min(now, tuning_.low ? tuning_.low->value : now);
        const double high = std::max(now, tuning_.high ? tuning_.high->value : now);
        const double room = std::max(std::abs(now), high - low) / 2;
        std::vector<double> values;
        for (const TunePoint& point : tuning_.points)
            if (point.refused.empty() && point.value >= low - room && point.value <= high + room)
                values.push_back(point.value);
        for (std::size_t i = 1; i < values.size(); ++i) step_between(values[i - 1], values[i]);
    }

    /// Halves until the step is known; of several steps in between, the first.
    void step_between(double a, double b) {
        const HitCounts before = hits_at(a);
        if (hits_at(b) == before) return;
        const double step = resolution(armoury_, tuning_.number);
        while (b - a > step * 1.001) {
            const double middle = on_grid(a + (b - a) / 2, step);
            if (middle <= a || middle >= b) break;
            (hits_at(middle) == before ? a : b) = middle;
        }
        tell_step(b, before, hits_at(b));
    }

    void tell_step(double value, const HitCounts& before, const HitCounts& after) {
        const std::vector<std::string> foes =
            kinds_of_foes(armoury_, armoury_.at(context_.encounter));
        std::vector<std::string> parts;
        for (std::size_t f = 0; f < foes.size(); ++f) {
            if (before.to_fell.size() <= f || after.to_fell.size() <= f) return;
            if (before.to_fell[f] != after.to_fell[f])
                parts.push_back(fmt::format("{} falls to {} hits, not {}", foes[f],
                                            after.to_fell[f], before.to_fell[f]));
            if (before.to_fall[f] != after.to_fall[f])
                parts.push_back(fmt::format("{} hits of {} fell, not {}", after.to_fall[f], foes[f],
                                            before.to_fall[f]));
        }
        if (parts.empty()) return;
        found_.push_back(
            {value, fmt::format("from {}: {} ({}, level {})", shortest(value), join(parts, ", "),
                                armoury_.at(context_.character).id, context_.level)});
    }

    const Armoury& armoury_;
    const WhatIfs& what_ifs_;
    const Tuning& tuning_;
    Context context_;
    Outfit outfit_;
    std::map<double, HitCounts> hits_;
    std::vector<Breakpoint> found_;
};

} // namespace

std::vector<Breakpoint> find_breakpoints(const Armoury& armoury, const WhatIfs& what_ifs,
                                         const Tuning& tuning) {
    return BreakpointFinder(armoury, what_ifs, tuning).run();
}

} // namespace panoplon
