#include "judge/appraise/weighing.h"

#include "base/text.h"
#include "outfit/needs.h"
#include "outfit/refusals.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A gain under this share is below the precision of a margin.
constexpr double gain_worth_having = 3e-4;
/// Units are added until so many in a row did not help.
constexpr int patience = 3;
constexpr std::int64_t most_units = 60;
/// Loads between which capacity is varied, and in how many steps.
constexpr double lightest = 0.4;
constexpr double heaviest = 1.6;
constexpr int capacity_steps = 60;

class Weigher {
  public:
    Weigher(const Armoury& armoury, const Outfit& outfit, EncounterId encounter)
        : armoury_(armoury),
          encounter_(encounter),
          engine_(armoury) {
        result_.outfit = outfit;
    }

    Weighing run() {
        result_.load = outfit_load(engine_.deriver(), result_.outfit);
        result_.margin = fight(result_.outfit, 0);
        if (armoury_.carry.capacity.given() && result_.load.carried > 0) vary_capacity();
        for (std::size_t i = 0; i < armoury_.items.size() && !result_.error; ++i)
            if (armoury_.items[i].consumed() && can_use(ItemId(i))) add_consumable(ItemId(i));
        fill_room();
        return std::move(result_);
    }

  private:
    /// The margin with so much more capacity.
    Margin fight(const Outfit& outfit, double more) {
        FightSetup setup = set_up_fight(armoury_, outfit, encounter_);
        setup.actors.front().granted += more;
        for (ActorSetup& swapped : setup.swap_outfits) swapped.granted += more;
        engine_.prepare(setup);
        const Margin margin = even_margin(engine_, result_.margin.value);
        if (margin.error && !result_.error) result_.error = margin.error;
        return margin;
    }

    bool can_use(ItemId item) {
        const Outfit& outfit = result_.outfit;
        const Item& one = armoury_.at(item);
        return is_among(armoury_, one.only(), outfit.character) &&
               meets_needs(armoury_, one, outfit.character, outfit.level,
                           naked_stats(engine_.deriver(), outfit));
    }

    void vary_capacity() {
        const double carried = to_weight(result_.load.carried);
        for (int i = 0; i <= capacity_steps && !result_.error; ++i) {
            const double share =
                heaviest * std::pow(lightest / heaviest, static_cast<double>(i) / capacity_steps);
            CapacityPoint point;
            point.capacity = carried / share;
            point.load = weigh(armoury_.carry, result_.load.carried, 0, point.capacity);
            point.margin = fight(result_.outfit, point.capacity - result_.load.capacity).value;
            result_.capacities.push_back(point);
        }
    }

    [[nodiscard]] static std::int64_t units_of(const Outfit& outfit, ItemId item) {
        std::int64_t units = 0;
        for (const PackedItem& packed : outfit.pack)
            if (packed.item == item) units += packed.count;
        return units;
    }

    /// In the place in the pack that it has, since uses go in that order (M33).
    [[nodiscard]] Outfit with_units(ItemId item, std::int64_t count) const {
        Outfit outfit = result_.outfit;
        add_to_pack(outfit.pack, item, count - units_of(outfit, item), {});
        std::erase_if(outfit.pack, [](const PackedItem& packed) { return packed.count == 0; });
        return outfit;
    }

    /// Why so many can't be packed; empty: they can.
    std::string refusal_of(const Outfit& outfit) {
        const std::vector<Refusal> refused = refusals(engine_.deriver(), outfit);
        return refused.empty() ? std::string() : refused.front().reasons.front();
    }

    /// `as_it_is`: the loadout's own number of units.
    UnitPoint point_at(const Outfit& outfit, std::int64_t count, bool as_it_is) {
        UnitPoint point;
        point.count = count;
        point.load = outfit_load(engine_.deriver(), outfit);
        point.margin = as_it_is ? result_.margin.value : fight(outfit, 0).value;
        const bool on_edge = (point.load.above && point.load.above->weight_away == 0) ||
                             (point.load.below && point.load.below->weight_away == 0);
        // A capacity that differs by a hair stands on the other side.
        constexpr double hair = 0.002;
        const Band* band = armoury_.carry.band(point.load.band);
        const bool inside = band && point.load.below && point.load.below->weight_away == 0;
        if (on_edge) point.across = fight(outfit, inside ? hair : -hair).value;
        return point;
    }

    void add_consumable(ItemId item) {
        ConsumableCurve curve;
        curve.item = item;
        curve.now = units_of(result_.outfit, item);
        double best = 0;
        int in_vain = 0;
        for (std::int64_t count = 0; count <= most_units && !result_.error; ++count) {
            const Outfit outfit = with_units(item, count);
            curve.ends = refusal_of(outfit);
            if (!curve.ends.empty()) break;
            curve.points.push_back(point_at(outfit, count, count == curve.now));
            const double margin = curve.points.back().margin;
            if (margin > best * (1 + gain_worth_having)) {
                best = margin;
                curve.best = count;
                in_vain = 0;
            } else if (count > curve.now && ++in_vain >= patience) {
                break;
            }
        }
        if (!result_.error && !curve.at(curve.now))
            curve.points.push_back(point_at(result_.outfit, curve.now, true));
        if (!curve.points.empty()) result_.consumables.push_back(std::move(curve));
    }

    /// As many more of each as stay under the next edge.
    void fill_room() {
        for (const ConsumableCurve& curve : result_.consumables) {
            Filling filling{curve.item, 0, result_.margin.value};
            for (const UnitPoint& point : curve.points)
                if (point.count > curve.now && point.load.band == result_.load.band &&
                    point.margin > filling.margin * (1 + gain_worth_having))
                    filling = {curve.item, point.count - curve.now, point.margin};
            if (filling.units > 0) result_.fillings.push_back(filling);
        }
        std::stable_sort(result_.fillings.begin(), result_.fillings.end(),
                         [](const Filling& a, const Filling& b) { return a.margin > b.margin; });
    }

    const Armoury& armoury_;
    EncounterId encounter_;
    Engine engine_;
    Weighing result_;
};

} // namespace

Weighing find_price_of_weight(const Armoury& armoury, const Outfit& outfit, EncounterId encounter) {
    return Weigher(armoury, outfit, encounter).run();
}

} // namespace panoplon
