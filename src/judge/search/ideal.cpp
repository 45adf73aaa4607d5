#include "judge/search/ideal.h"

#include <algorithm>
#include <fmt/format.h>
#include <utility>

namespace panoplon {

bool betters(Better better, double change) {
    return better == Better::higher ? change > 0 : better == Better::lower && change < 0;
}

namespace {

/// Whom an effect is on: the side that is to win, or its foes.
enum class On { ours, theirs };

On other(On on) {
    return on == On::ours ? On::theirs : On::ours;
}

/// Writes the halves of effects and what refers to them.
class Idealist {
  public:
    explicit Idealist(const Armoury& armoury) : effects_(armoury.effects.size()) {
        ideal_.armoury = armoury;
    }

    Ideal write() && {
        for (std::size_t e = 0; e < effects_; ++e)
            for (const On on : {On::ours, On::theirs}) add_half(e, on);
        for (Item& item : ideal_.armoury.items) {
            halve(item.triggers, On::ours);
            if (item.use && item.use->effect.given())
                item.use->effect = own_copy(half_of(item.use->effect, On::ours));
        }
        for (Action& action : ideal_.armoury.actions) action.spends.clear(); // never lacking
        for (Tier& tier : ideal_.armoury.tiers) halve(tier.triggers, On::ours);
        for (ItemSet& set : ideal_.armoury.sets)
            for (SetStep& step : set.steps) halve(step.triggers, On::ours);
        add_consumables();
        return std::move(ideal_);
    }

  private:
    [[nodiscard]] EffectId half_of(EffectId effect, On on) const {
        return EffectId(effects_ + 2 * effect.index() + (on == On::theirs ? 1 : 0));
    }

    /// What two things lay on under one name would not add up.
    EffectId own_copy(EffectId effect) {
        ideal_.armoury.effects.push_back(Effect(ideal_.armoury.at(effect)));
        return EffectId(ideal_.armoury.effects.size() - 1);
    }

    void halve(std::vector<Trigger>& triggers, On bearer) const {
        for (Trigger& trigger : triggers)
            trigger.effect = half_of(trigger.effect, trigger.to_self ? bearer : other(bearer));
    }

    void add_half(std::size_t index, On on) {
        Effect half = ideal_.armoury.effects[index];
        const double wanted = on == On::ours ? 1 : -1;
        const auto unwanted = [&](double unchanged) {
            return [=, this](const Amount& a) {
                const Better better = ideal_.armoury.at(a.stat).better;
                return better != Better::neither &&
                       !betters(better, (a.amount - unchanged) * wanted);
            };
        };
        std::erase_if(half.modifiers.add, unwanted(0));
        std::erase_if(half.modifiers.percent, unwanted(0));
        std::erase_if(half.modifiers.times, unwanted(1));
        std::erase_if(half.per_time,
                      [&](const auto& rate) { return rate.second.number * wanted < 0; });
        for (auto& [pool, rate] : half.per_time)
            if (!rate.fixed())
                rate.formula.text =
                    fmt::format("{}(0, {})", on == On::ours ? "max" : "min", rate.formula.text);
        if (on == On::theirs) {
            half.ward = false;
            half.absorbs = {};
            half.removes = half.immune = {};
            half.then = {};
            half.restore_factor = std::min(half.restore_factor, 1.0);
        } else {
            half.stops_actions = half.stops_uses = false;
            half.then = {};
            half.restore_factor = std::max(half.restore_factor, 1.0);
        }
        halve(half.triggers, on);
        ideal_.armoury.effects.push_back(std::move(half));
    }

    void add_consumables() {
        std::vector<Item>& items = ideal_.armoury.items;
        ideal_.free.resize(items.size());
        for (std::size_t i = 0; i < ideal_.free.size(); ++i) {
            if (!items[i].consumed()) continue;
            Item free = items[i];
            free.weight = 0;
            if (free.use) {
                free.use->group.clear();
                free.use->takes = {};
            }
            ideal_.free[i] = ItemId(items.size());
            ideal_.armoury.item_rank.push_back(static_cast<int>(items.size()));
            items.push_back(std::move(free));
        }
    }

    Ideal ideal_;
    std::size_t effects_; ///< of the original
};

} // namespace

Ideal ideal_of(const Armoury& armoury) {
    return Idealist(armoury).write();
}

} // namespace panoplon
