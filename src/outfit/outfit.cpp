#include "outfit/outfit.h"

#include "outfit/points.h"

#include <algorithm>

namespace panoplon {

Outfit outfit_of(const Armoury& armoury, const Loadout& loadout, int level) {
    Outfit outfit{loadout.character, level,         loadout.worn,   loadout.pack, loadout.uses,
                  loadout.upgrades,  loadout.swaps, loadout.actions};
    for (const BoughtUpgrade& spent :
         spread_points(armoury, points_at(armoury, loadout.character, level), loadout.points))
        if (spent.levels > 0) outfit.upgrades.push_back(spent);
    add_contents(armoury, outfit);
    return outfit;
}

namespace {

/// Whether something is worn with each of these tags.
bool wears_all(const Armoury& armoury, const std::vector<WornItem>& worn,
               const std::vector<std::string>& tags) {
    return std::all_of(tags.begin(), tags.end(), [&](const std::string& tag) {
        bool there = false;
        for_each_worn(worn, [&](const WornItem& one) {
            const std::vector<std::string>& has = armoury.at(one.item).tags;
            there = there || std::find(has.begin(), has.end(), tag) != has.end();
        });
        return there;
    });
}

} // namespace

std::vector<ActionId> actions_had(const Armoury& armoury, CharacterId character,
                                  const std::vector<WornItem>& worn) {
    std::vector<ActionId> actions;
    for_each_worn(worn, [&](const WornItem& one) {
        const std::vector<ActionId>& given = armoury.at(one.item).actions;
        actions.insert(actions.end(), given.begin(), given.end());
    });
    const std::vector<ActionId>& own = armoury.at(character).actions;
    actions.insert(actions.end(), own.begin(), own.end());
    std::erase_if(
        actions, [&](ActionId id) { return !wears_all(armoury, worn, armoury.at(id).needs_worn); });
    return actions;
}

std::vector<ActionId> actions_done(const Armoury& armoury, const Outfit& outfit) {
    const std::vector<ActionId> had = actions_had(armoury, outfit.character, outfit.worn);
    if (outfit.actions.empty()) return had;
    std::vector<ActionId> done;
    for (const ActionId action : outfit.actions)
        if (std::find(done.begin(), done.end(), action) == done.end())
            done.insert(done.end(),
                        static_cast<std::size_t>(std::count(had.begin(), had.end(), action)),
                        action);
    return done;
}

void add_to_pack(std::vector<PackedItem>& pack, ItemId item, std::int64_t count, const Span& span) {
    for (PackedItem& packed : pack)
        if (packed.item == item) {
            packed.count = bounded_sum(packed.count, count);
            return;
        }
    pack.push_back({item, count, span});
}

void add_contents(const Armoury& armoury, Outfit& outfit) {
    std::vector<PackedItem> contents;
    const auto unpack = [&](ItemId item, std::int64_t units, const Span& span) {
        for (const PackedItem& inner : contents_of(armoury, item))
            add_to_pack(contents, inner.item, bounded_product(inner.count, units), span);
    };
    for_each_worn(outfit.worn, [&](const WornItem& worn) { unpack(worn.item, 1, worn.span); });
    for (const PackedItem& packed : outfit.pack) unpack(packed.item, packed.count, packed.span);
    for (const PackedItem& inner : contents)
        add_to_pack(outfit.pack, inner.item, inner.count, inner.span);
}

namespace {

/// Worn and socketed items by id; those of one id by what else tells them apart, so that sums are
/// in one order.
std::vector<const WornItem*> worn_by_id(const Armoury& armoury, const Outfit& outfit) {
    std::vector<const WornItem*> items;
    items.reserve(2 * outfit.worn.size());
    for_each_worn(outfit.worn, [&](const WornItem& worn) { items.push_back(&worn); });
    std::sort(items.begin(), items.end(), [&](const WornItem* a, const WornItem* b) {
        const int first = armoury.item_rank[a->item.index()];
        const int second = armoury.item_rank[b->item.index()];
        if (first != second) return first < second;
        return a->drawn != b->drawn ? a->drawn < b->drawn : a->felled < b->felled;
    });
    return items;
}

/// Distinct pieces by set; `items` are sorted, so the same ones are neighbours.
std::vector<int> count_pieces(const Armoury& armoury, const std::vector<const WornItem*>& items) {
    std::vector<int> pieces(armoury.sets.size(), 0);
    for (std::size_t i = 0; i < items.size(); ++i) {
        const SetId set = armoury.at(items[i]->item).set;
        if (set.given() && (i == 0 || items[i]->item != items[i - 1]->item)) ++pieces[set.index()];
    }
    return pieces;
}

/// What an item adds with the numbers that were drawn for it; none where none were.
std::shared_ptr<const Modifiers> with_rolls(const Item& item, const Drawn& drawn) {
    if (drawn.rolled.empty()) return nullptr;
    auto rolled = std::make_shared<Modifiers>(item.modifiers);
    for (const Amount& one : drawn.rolled)
        if (const Roll* roll = item.roll_of(one.stat))
            for (Amount& amount : rolled->add)
                if (amount.stat == one.stat) amount.amount = roll->nearest(one.amount);
    return rolled;
}

/// An item as it is worn: with what was drawn for it, or the middle of that; then its tier.
void add_worn(const Armoury& armoury, const WornItem& worn, std::vector<Borne>& list) {
    const Item& item = armoury.at(worn.item);
    const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
    const double factor = tier ? tier->stat_factor : 1;
    list.push_back({&item, "item", factor, 1, with_rolls(item, worn.drawn)});
    for (std::size_t d = 0; d < item.affixes.size(); ++d) {
        const AffixId drawn = d < worn.drawn.affixes.size() ? worn.drawn.affixes[d] : AffixId{};
        if (drawn.given())
            list.push_back({&armoury.at(drawn), "affix", factor});
        else
            list.push_back({&item.affixes[d], "affixes", factor});
    }
    if (const int times = item.grows.times(worn.felled); times > 0)
        list.push_back({&item.grows.gives, "growth", factor, times});
    if (tier) list.push_back({tier, "tier"});
}

void add_set_steps(const Armoury& armoury, const std::vector<int>& pieces,
                   std::vector<Borne>& list) {
    std::vector<const ItemSet*> by_id(pieces.size());
    for (std::size_t i = 0; i < pieces.size(); ++i)
        by_id[static_cast<std::size_t>(armoury.set_rank[i])] = &armoury.sets[i];
    for (const ItemSet* set : by_id)
        for (const SetStep& step : set->steps)
            if (step.count <= pieces[static_cast<std::size_t>(set - armoury.sets.data())])
                list.push_back({&step, "set"});
}

} // namespace

std::vector<int> set_pieces(const Armoury& armoury, const Outfit& outfit) {
    return count_pieces(armoury, worn_by_id(armoury, outfit));
}

std::vector<Borne> bearers_of(const Armoury& armoury, const Outfit& outfit) {
    std::vector<Borne> list;
    list.reserve(4 * outfit.worn.size() + outfit.upgrades.size() + 4);
    list.push_back({&armoury.at(outfit.character), "character"});
    std::vector<BoughtUpgrade> upgrades = outfit.upgrades;
    std::sort(upgrades.begin(), upgrades.end(),
              [&](const BoughtUpgrade& a, const BoughtUpgrade& b) {
                  return armoury.upgrade_rank[a.upgrade.index()] <
                         armoury.upgrade_rank[b.upgrade.index()];
              });
    for (const BoughtUpgrade& bought : upgrades)
        if (bought.levels > 0)
            list.push_back({&armoury.at(bought.upgrade), "upgrade", 1, bought.levels});
    const std::vector<const WornItem*> items = worn_by_id(armoury, outfit);
    for (const WornItem* worn : items) add_worn(armoury, *worn, list);
    if (!armoury.sets.empty())
        add_set_steps(
            armoury, outfit.held_pieces.empty() ? count_pieces(armoury, items) : outfit.held_pieces,
            list);
    return list;
}

StatSums sums_of(const Armoury& armoury, const std::vector<Borne>& bearers) {
    StatSums sums;
    sums.reset(armoury.stats.size());
    for (const Borne& borne : bearers)
        sums.include(borne.modifiers(), borne.add_factor, borne.levels);
    return sums;
}

StatSums worn_sums(const Armoury& armoury, const Outfit& outfit) {
    return sums_of(armoury, bearers_of(armoury, outfit));
}

double value_of(const Armoury& armoury, const Outfit& outfit) {
    double value = 0;
    for_each_worn(outfit.worn, [&](const WornItem& worn) { value += armoury.at(worn.item).value; });
    for (const PackedItem& packed : outfit.pack)
        value += armoury.at(packed.item).value * static_cast<double>(packed.count);
    return value;
}

Thousandths worn_weight(const Armoury& armoury, const Outfit& outfit) {
    Thousandths total = 0;
    for_each_worn(outfit.worn,
                  [&](const WornItem& worn) { total += armoury.at(worn.item).weight; });
    return total;
}

Thousandths pack_weight(const Armoury& armoury, const Outfit& outfit) {
    Thousandths total = 0;
    for (const PackedItem& packed : outfit.pack)
        total = bounded_sum(total, bounded_product(armoury.at(packed.item).weight, packed.count));
    return total;
}

std::int64_t pack_stacks(const Armoury& armoury, const Outfit& outfit) {
    std::int64_t stacks = 0;
    for (const PackedItem& packed : outfit.pack)
        stacks += stacks_of(armoury.at(packed.item), packed.count);
    return stacks;
}

std::int64_t bag_size(const Armoury& armoury, const Outfit& outfit) {
    if (armoury.carry.bag == unlimited) return unlimited;
    std::int64_t size = armoury.carry.bag;
    for_each_worn(outfit.worn,
                  [&](const WornItem& worn) { size += armoury.at(worn.item).grants.bag; });
    return size;
}

Thousandths granted_capacity(const Armoury& armoury, const Outfit& outfit) {
    Thousandths granted = 0;
    for_each_worn(outfit.worn,
                  [&](const WornItem& worn) { granted += armoury.at(worn.item).grants.capacity; });
    return granted;
}

std::vector<double> outfit_stats(Deriver& deriver, const Outfit& outfit, int band) {
    const Armoury& armoury = deriver.armoury();
    StatSums sums = worn_sums(armoury, outfit);
    if (const Band* applied = armoury.carry.band(band)) sums.include(applied->modifiers);
    std::vector<double> stats(armoury.stats.size());
    deriver.derive(deriver.base(outfit.character, outfit.level), sums, outfit.level, stats);
    return stats;
}

std::vector<double> naked_stats(Deriver& deriver, const Outfit& outfit) {
    Outfit naked{outfit.character, outfit.level, {}, {}, {}, outfit.upgrades, {}};
    return outfit_stats(deriver, naked, no_band);
}

std::vector<std::vector<double>> last_naked_stats(Deriver& deriver) {
    const Armoury& armoury = deriver.armoury();
    std::vector<std::vector<double>> list;
    for (std::size_t c = 0; c < armoury.characters.size(); ++c) {
        const int points = points_at(armoury, CharacterId(c), armoury.levels.last);
        std::vector<BoughtUpgrade> all;
        for (std::size_t u = 0; u < armoury.upgrades.size(); ++u) {
            const Upgrade& upgrade = armoury.upgrades[u];
            const int most =
                upgrade.points > 0 ? std::min(upgrade.max, points / upgrade.points) : upgrade.max;
            all.push_back({UpgradeId(u), most, {}});
        }
        list.push_back(
            naked_stats(deriver, {CharacterId(c), armoury.levels.last, {}, {}, {}, all, {}}));
    }
    return list;
}

Load outfit_load(Deriver& deriver, const Outfit& outfit) {
    const Armoury& armoury = deriver.armoury();
    const std::vector<double> stats = outfit_stats(deriver, outfit, no_band);
    const double capacity =
        deriver.capacity(stats, outfit.level) + to_weight(granted_capacity(armoury, outfit));
    return weigh(armoury.carry, worn_weight(armoury, outfit), pack_weight(armoury, outfit),
                 capacity);
}

} // namespace panoplon
