#include "judge/appraise/compare_outfits.h"

#include "judge/appraise/power.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Both outfits' items of a slot, the ones that both have left out.
struct Differing {
    std::vector<WornItem> first, second;
};

Differing differing(const Outfit& a, const Outfit& b, SlotId slot) {
    Differing result;
    for (const WornItem& worn : a.worn)
        if (worn.slot == slot) result.first.push_back(worn);
    for (const WornItem& worn : b.worn) {
        if (worn.slot != slot) continue;
        const auto same =
            std::find_if(result.first.begin(), result.first.end(), [&](const WornItem& other) {
                return other.item == worn.item && other.socketed.size() == worn.socketed.size() &&
                       std::equal(
                           other.socketed.begin(), other.socketed.end(), worn.socketed.begin(),
                           [](const WornItem& x, const WornItem& y) { return x.item == y.item; });
            });
        if (same != result.first.end())
            result.first.erase(same);
        else
            result.second.push_back(worn);
    }
    return result;
}

int better_of(const Stat& stat, double first, double second) {
    if (first == second || stat.better == Better::neither) return 0;
    return (second > first) == (stat.better == Better::higher) ? 1 : -1;
}

class Comparison {
  public:
    Comparison(const Armoury& armoury, const Outfit& first, const Outfit& second)
        : armoury_(armoury),
          engine_(armoury),
          first_(first),
          second_(second),
          first_stats_(stats_of(first)) {}

    OutfitComparison run() {
        places();
        const std::vector<double> second_stats = stats_of(second_);
        for (std::size_t i = 0; i < first_stats_.size(); ++i)
            result_.stats.push_back(in_both(i, second_stats));
        worn_changes();
        pack_changes();
        upgrade_changes();
        result_.first_power = power_of(engine_, armoury_, first_);
        result_.second_power = power_of(engine_, armoury_, second_);
        return std::move(result_);
    }

  private:
    std::vector<double> stats_of(const Outfit& outfit) {
        Deriver& deriver = engine_.deriver();
        return outfit_stats(deriver, outfit, outfit_load(deriver, outfit).band);
    }

    [[nodiscard]] StatInBoth in_both(std::size_t i, const std::vector<double>& then) const {
        return {StatId(i), first_stats_[i], then[i],
                better_of(armoury_.stats[i], first_stats_[i], then[i])};
    }

    void places() {
        for (std::size_t s = 0; s < armoury_.slots.size(); ++s) {
            if (armoury_.slots[s].socket) continue;
            const auto items = [&](const Outfit& outfit) {
                std::vector<ItemId> list;
                for (const WornItem& worn : outfit.worn)
                    if (worn.slot == SlotId(s)) list.push_back(worn.item);
                list.resize(static_cast<std::size_t>(armoury_.slots[s].count));
                return list;
            };
            const std::vector<ItemId> a = items(first_);
            const std::vector<ItemId> b = items(second_);
            for (std::size_t i = 0; i < a.size(); ++i)
                result_.places.push_back({SlotId(s), static_cast<int>(i + 1), a[i], b[i]});
        }
    }

    void add(std::string what, const Outfit& changed) {
        SingleChange change{std::move(what), refusals(engine_.deriver(), changed), {}, {}};
        const std::vector<double> then = stats_of(changed);
        for (std::size_t i = 0; i < then.size(); ++i)
            if (then[i] != first_stats_[i]) change.stats.push_back(in_both(i, then));
        change.power = power_of(engine_, armoury_, changed);
        result_.changes.push_back(std::move(change));
    }

    [[nodiscard]] std::string words(const WornItem& worn) const {
        std::string text = armoury_.at(worn.item).id;
        for (const WornItem& inner : worn.socketed)
            text += fmt::format(" + {}", armoury_.at(inner.item).id);
        return text;
    }

    void worn_changes() {
        for (std::size_t s = 0; s < armoury_.slots.size(); ++s) {
            const Differing d = differing(first_, second_, SlotId(s));
            for (std::size_t i = 0; i < std::max(d.first.size(), d.second.size()); ++i) {
                Outfit changed = first_;
                const bool off = i < d.first.size();
                const bool on = i < d.second.size();
                if (off)
                    changed.worn.erase(
                        std::find(changed.worn.begin(), changed.worn.end(), d.first[i]));
                if (on) changed.worn.push_back(d.second[i]);
                std::stable_sort(
                    changed.worn.begin(), changed.worn.end(),
                    [](const WornItem& a, const WornItem& b) { return a.slot < b.slot; });
                add(fmt::format("{}: {} → {}", armoury_.slots[s].id,
                                off ? words(d.first[i]) : "nothing",
                                on ? words(d.second[i]) : "nothing"),
                    changed);
            }
        }
    }

    void pack_changes() {
        const auto held = [](const Outfit& outfit, ItemId item) {
            for (const PackedItem& packed : outfit.pack)
                if (packed.item == item) return packed.count;
            return std::int64_t{0};
        };
        for (std::size_t i = 0; i < armoury_.items.size(); ++i) {
            const std::int64_t before = held(first_, ItemId(i));
            const std::int64_t after = held(second_, ItemId(i));
            if (before == after) continue;
            Outfit changed = first_;
            std::erase_if(changed.pack,
                          [&](const PackedItem& packed) { return packed.item == ItemId(i); });
            if (after > 0) changed.pack.push_back({ItemId(i), after, {}});
            add(fmt::format("pack: {} × {} → {}", armoury_.items[i].id, before, after), changed);
        }
    }

    void upgrade_changes() {
        const auto bought = [](const Outfit& outfit, UpgradeId id) {
            for (const BoughtUpgrade& upgrade : outfit.upgrades)
                if (upgrade.upgrade == id) return upgrade.levels;
            return 0;
        };
        for (std::size_t i = 0; i < armoury_.upgrades.size(); ++i) {
            const int before = bought(first_, UpgradeId(i));
            const int after = bought(second_, UpgradeId(i));
            if (before == after) continue;
            Outfit changed = first_;
            std::erase_if(changed.upgrades, [&](const BoughtUpgrade& upgrade) {
                return upgrade.upgrade == UpgradeId(i);
            });
            changed.upgrades.push_back({UpgradeId(i), after, {}});
            add(fmt::format("upgrade: {} {} → {}", armoury_.upgrades[i].id, before, after),
                changed);
        }
    }

    const Armoury& armoury_;
    Engine engine_;
    const Outfit& first_;
    const Outfit& second_;
    std::vector<double> first_stats_;
    OutfitComparison result_;
};

} // namespace

OutfitComparison compare_outfits(const Armoury& armoury, const Outfit& first,
                                 const Outfit& second) {
    return Comparison(armoury, first, second).run();
}

} // namespace panoplon
