#include "armoury/link.h"

#include "base/text.h"

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

/// The draw that a worn thing's affix is of: the first that has it and has none yet.
void place_affix(const Armoury& armoury, const WornItem& worn, AffixId affix, Sink& sink,
                 std::vector<AffixId>& placed) {
    const Item& item = armoury.at(worn.item);
    for (std::size_t d = 0; d < item.affixes.size(); ++d) {
        const std::vector<AffixId>& of_draw = item.affixes[d].affixes;
        if (placed[d].given() || std::find(of_draw.begin(), of_draw.end(), affix) == of_draw.end())
            continue;
        placed[d] = affix;
        return;
    }
    sink.mistake(worn.span, fmt::format("no '{}' is found with the affix '{}'{}", item.id,
                                        armoury.at(affix).id,
                                        placed.empty() ? "" : " beside what else this one has"));
}

void check_rolled(const Armoury& armoury, const WornItem& worn, const Amount& amount, Sink& sink) {
    const Item& item = armoury.at(worn.item);
    const std::string& stat = armoury.at(amount.stat).id;
    const auto roll = std::find_if(item.rolls.begin(), item.rolls.end(),
                                   [&](const Roll& one) { return one.stat == amount.stat; });
    if (roll == item.rolls.end()) {
        sink.mistake(worn.span, fmt::format("'{}' rolls no {}", item.id, stat));
        return;
    }
    const auto [low, high] = std::minmax(roll->worst, roll->best);
    if (amount.amount < low || amount.amount > high)
        sink.mistake(worn.span,
                     fmt::format("'{}' rolls {} to {} {}, not {}", item.id, shortest(low),
                                 shortest(high), stat, shortest(amount.amount)));
}

/// What worn things of loadouts have of what finds differ in.
void find_drawn(const Armoury& armoury, std::vector<WornItem>& list, Sink& sink) {
    for (WornItem& worn : list) {
        find_drawn(armoury, worn.socketed, sink);
        if (!worn.item.given()) continue;
        for (const Amount& amount : worn.drawn.rolled) check_rolled(armoury, worn, amount, sink);
        if (worn.drawn.affixes.empty()) continue;
        std::vector<AffixId> placed(armoury.at(worn.item).affixes.size());
        for (const AffixId affix : worn.drawn.affixes)
            if (affix.given()) place_affix(armoury, worn, affix, sink, placed);
        worn.drawn.affixes = std::move(placed);
    }
}

} // namespace

void link(Armoury& armoury, Sink& sink) {
    find_effect_groups(armoury);
    find_worse_rolls(armoury);
    find_what_is_spent(armoury);
    for (Item& item : armoury.items) find_affixes(armoury, item, sink);
    for (Loadout& loadout : armoury.loadouts) find_drawn(armoury, loadout.worn, sink);
}

} // namespace panoplon
