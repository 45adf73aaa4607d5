#include "judge/appraise/appraisal.h"

#include "judge/appraise/power.h"
#include "outfit/needs.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

class Appraiser {
  public:
    Appraiser(const Armoury& armoury, ItemId item, const std::vector<PaperVerdict>& paper)
        : armoury_(armoury),
          id_(item),
          item_(armoury.at(item)),
          paper_(paper[item.index()]),
          peers_(armoury),
          engine_(armoury) {}

    Appraisal run() {
        Appraisal appraisal;
        appraisal.budget = BudgetMeter(armoury_)(item_);
        if (item_.worn() || item_.consumed())
            for (std::size_t c = 0; c < armoury_.characters.size(); ++c)
                appraisal.wearers.push_back(wearer(CharacterId(c)));
        if (item_.worn())
            for (std::size_t i = 0; i < armoury_.items.size(); ++i)
                if (is_rival(ItemId(i))) appraisal.rivals.emplace_back(i);
        if (!paper_.outclassed_by.empty() && !have_affixes()) appraisal.way_out = way_out();
        return appraisal;
    }

  private:
    Wearer wearer(CharacterId character) {
        Wearer wearer = find_wearer(engine_.deriver(), item_, character);
        if (wearer.first > 0) find_powers(wearer, {character, wearer.first, {}, {}, {}, {}, {}});
        return wearer;
    }

    void find_powers(Wearer& wearer, Outfit outfit) {
        if (!item_.worn() || armoury_.at(item_.slot).socket) return;
        wearer.bare = power_of(engine_, armoury_, outfit);
        outfit.worn.push_back({item_.slot, id_, {}, {}});
        add_contents(armoury_, outfit);
        wearer.wearing = power_of(engine_, armoury_, outfit);
        if (!item_.draws()) return;
        const auto power_with = [&](const Drawn& drawn) {
            outfit.worn.back().drawn = drawn;
            return power_of(engine_, armoury_, outfit);
        };
        wearer.ends = find_draw_ends(
            item_, [&](const Drawn& drawn) { return power_with(drawn).value_or(0); });
        wearer.worst_rolled = power_with(wearer.ends.worst);
        wearer.best_rolled = power_with(wearer.ends.best);
    }

    [[nodiscard]] bool is_rival(ItemId other) const {
        const bool twin =
            std::find(paper_.twins.begin(), paper_.twins.end(), other) != paper_.twins.end();
        return other != id_ && !twin && peers_.is_rival(other, id_);
    }

    /// What an item adds to a stat, its tier's factor included.
    [[nodiscard]] double added(const Item& item, StatId stat) const {
        for (const Amount& amount : item.modifiers.add)
            if (amount.stat == stat) return amount.amount * factor_of(item);
        return 0;
    }
    [[nodiscard]] double factor_of(const Item& item) const {
        return item.tier.given() ? armoury_.at(item.tier).stat_factor : 1;
    }

    /// Of the item and what outclasses it: then what it adds itself is not all that tells them
    /// apart.
    [[nodiscard]] bool have_affixes() const {
        return !item_.affixes.empty() ||
               std::any_of(paper_.outclassed_by.begin(), paper_.outclassed_by.end(),
                           [&](ItemId other) { return !armoury_.at(other).affixes.empty(); });
    }

    /// The own amount with which the item is better in this stat than all that outclass it.
    [[nodiscard]] double enough_of(StatId stat) const {
        const double direction = armoury_.at(stat).better == Better::lower ? -1 : 1;
        double most = direction * added(item_, stat);
        bool whole = true;
        for (const ItemId other : paper_.outclassed_by) {
            const double amount = added(armoury_.at(other), stat);
            most = std::max(most, direction * amount);
            whole = whole && amount == std::floor(amount);
        }
        constexpr double fine_step = 0.1;
        return direction * (most + (whole ? 1 : fine_step)) / factor_of(item_);
    }

    [[nodiscard]] bool somebody_has(StatId stat) const {
        return added(item_, stat) != 0 ||
               std::any_of(paper_.outclassed_by.begin(), paper_.outclassed_by.end(),
                           [&](ItemId other) { return added(armoury_.at(other), stat) != 0; });
    }

    [[nodiscard]] WayOut way_out() const {
        WayOut best{};
        for (std::size_t s = 0; s < armoury_.stats.size(); ++s) {
            const StatId stat(s);
            if (armoury_.at(stat).better == Better::neither || !somebody_has(stat)) continue;
            if (factor_of(item_) == 0) continue;
            const double now = added(item_, stat) / factor_of(item_);
            const double then = enough_of(stat);
            const double cost = armoury_.at(stat).cost * std::abs(then - now);
            if (!best.stat.given() || cost < best.cost) best = {stat, now, then, cost, {}};
        }
        Thousandths lightest = armoury_.at(paper_.outclassed_by.front()).weight;
        for (const ItemId other : paper_.outclassed_by)
            lightest = std::min(lightest, armoury_.at(other).weight);
        if (lightest > 0) best.weight_below = to_weight(lightest);
        return best;
    }

    const Armoury& armoury_;
    ItemId id_;
    const Item& item_;
    const PaperVerdict& paper_;
    Peers peers_;
    Engine engine_;
};

} // namespace

Wearer find_wearer(Deriver& deriver, const Item& item, CharacterId character) {
    const Armoury& armoury = deriver.armoury();
    Wearer wearer;
    wearer.character = character;
    for (int level = armoury.levels.first; level <= armoury.levels.last; ++level) {
        const Outfit bare{character, level, {}, {}, {}, {}, {}};
        wearer.reasons = unmet_needs(armoury, item, character, level, naked_stats(deriver, bare));
        if (item.use && !is_among(armoury, item.use->only, character))
            wearer.reasons.push_back(
                fmt::format("its use is for {} only", only_words(armoury, item.use->only)));
        if (!wearer.reasons.empty()) continue;
        wearer.first = level;
        break;
    }
    return wearer;
}

Appraisal appraise(const Armoury& armoury, ItemId item, const std::vector<PaperVerdict>& paper) {
    return Appraiser(armoury, item, paper).run();
}

} // namespace panoplon
