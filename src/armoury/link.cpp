#include "armoury/link.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

void find_group(const Armoury& armoury, EffectGroup& group) {
    for (const std::string& word : group.words) {
        group.hostile = group.hostile || word == hostile_word;
        for (std::size_t i = 0; i < armoury.effects.size(); ++i) {
            const Effect& effect = armoury.effects[i];
            if (effect.id == word ||
                std::find(effect.tags.begin(), effect.tags.end(), word) != effect.tags.end())
                group.effects.emplace_back(i);
        }
    }
    std::sort(group.effects.begin(), group.effects.end());
}

/// Which end of what is rolled is the worse, and in which steps, by its stat.
void find_worse_rolls(Armoury& armoury) {
    for (Item& item : armoury.items)
        for (Roll& roll : item.rolls) {
            const Stat& stat = armoury.at(roll.stat);
            if (stat.better == Better::lower) std::swap(roll.worst, roll.best);
            if (stat.step > 0) roll.step = stat.step;
        }
}

/// Which items some action spends.
void find_what_is_spent(Armoury& armoury) {
    for (const Action& action : armoury.actions)
        for (const PackedItem& spent : action.spends)
            if (spent.item.given()) armoury.items[spent.item.index()].spent = true;
}

/// Which effects the words of removing and of immunity mean.
void find_effect_groups(Armoury& armoury) {
    for (Item& item : armoury.items)
        if (item.use) find_group(armoury, item.use->removes);
    for (Effect& effect : armoury.effects) {
        find_group(armoury, effect.removes);
        find_group(armoury, effect.immune);
    }
}

/// Adds a share of what an affix gives to the middle of its draw; of `times`, of how far it is
/// from 1.
void add_share(const Affix& affix, double share, Modifiers& middle) {
    for (const Change change : {Change::add, Change::percent, Change::times}) {
        std::vector<Amount>& sums = middle.of(change);
        const double nothing = change == Change::times ? 1 : 0;
        for (const Amount& given : affix.modifiers.of(change)) {
            auto at = std::find_if(sums.begin(), sums.end(),
                                   [&](const Amount& sum) { return sum.stat == given.stat; });
            if (at == sums.end()) at = sums.insert(sums.end(), {given.stat, nothing});
            at->amount += share * (given.amount - nothing);
        }
    }
}

bool is_meant(const Affix& affix, const std::string& word) {
    return affix.id == word ||
           std::find(affix.tags.begin(), affix.tags.end(), word) != affix.tags.end();
}

/// Which affixes each draw of an item has, how often, and their mean (M44b).
void find_affixes(Armoury& armoury, Item& item, Sink& sink) {
    for (AffixDraw& draw : item.affixes) {
        double weights = 0;
        for (std::size_t i = 0; i < armoury.affixes.size(); ++i) {
            const Affix& affix = armoury.affixes[i];
            if (!is_meant(affix, draw.id) || affix.level > item.level || affix.weight <= 0)
                continue;
            draw.affixes.emplace_back(i);
            weights += affix.weight;
        }
        for (const AffixId affix : draw.affixes) {
            draw.shares.push_back(armoury.at(affix).weight / weights);
            add_share(armoury.at(affix), draw.shares.back(), draw.modifiers);
        }
        for (const Change change : {Change::add, Change::percent, Change::times})
            std::sort(draw.modifiers.of(change).begin(), draw.modifiers.of(change).end(),
                      [](const Amount& a, const Amount& b) { return a.stat < b.stat; });
        if (draw.affixes.empty())
            sink.mistake(draw.span,
                         fmt::format("no affix '{}' comes on an item of level {}: '{}' would have "
                                     "none",
                                     draw.id, item.level, item.id),
                         "an affix comes from its own `level` on, where its `weight` is over 0");
    }
}

/// Puts a worn thing's affix where its draw is: the first that has it and has none yet; else behind
/// all draws.
void place_affix(const Item& item, AffixId affix, std::vector<AffixId>& placed) {
    for (std::size_t d = 0; d < item.affixes.size(); ++d) {
        const std::vector<AffixId>& of_draw = item.affixes[d].affixes;
        if (placed[d].given() || std::find(of_draw.begin(), of_draw.end(), affix) == of_draw.end())
            continue;
        placed[d] = affix;
        return;
    }
    placed.push_back(affix);
}

/// Of which draws the affixes of what loadouts wear are.
void place_affixes(const Armoury& armoury, std::vector<WornItem>& list) {
    for (WornItem& worn : list) {
        place_affixes(armoury, worn.socketed);
        if (!worn.item.given() || worn.drawn.affixes.empty()) continue;
        const Item& item = armoury.at(worn.item);
        std::vector<AffixId> placed(item.affixes.size());
        for (const AffixId affix : worn.drawn.affixes)
            if (affix.given()) place_affix(item, affix, placed);
        worn.drawn.affixes = std::move(placed);
    }
}

} // namespace

void link(Armoury& armoury, Sink& sink) {
    find_effect_groups(armoury);
    find_worse_rolls(armoury);
    find_what_is_spent(armoury);
    for (Item& item : armoury.items) find_affixes(armoury, item, sink);
    for (Loadout& loadout : armoury.loadouts) place_affixes(armoury, loadout.worn);
}

} // namespace panoplon
