#include "outfit/outfit.h"

#include "base/text.h"

#include <cmath>
#include <fmt/format.h>

namespace panoplon {

Outfit outfit_of(const Loadout& loadout, int level) {
    return {loadout.character, level, loadout.worn, loadout.pack, loadout.uses};
}

namespace {

/// Gathers reasons by thing, in the order in which things first come up.
class Refused {
  public:
    void because(const std::string& thing, std::string reason) {
        for (Refusal& refusal : list_)
            if (refusal.thing == thing) return refusal.reasons.push_back(std::move(reason));
        list_.push_back({thing, {std::move(reason)}});
    }
    std::vector<Refusal> take() { return std::move(list_); }

  private:
    std::vector<Refusal> list_;
};

std::string too_young(const Armoury& armoury, const Item& item, const Outfit& outfit) {
    return fmt::format("it is for level {}; {} is level {}", item.level,
                       armoury.at(outfit.character).name, outfit.level);
}

void check_worn(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    std::vector<int> held(armoury.slots.size(), 0);
    for (const WornItem& worn : outfit.worn) {
        const Item& item = armoury.at(worn.item);
        const Slot& slot = armoury.at(worn.slot);
        if (!item.worn())
            refused.because(item.id, "it has no slot: it is carried, not worn");
        else if (item.slot != worn.slot)
            refused.because(item.id, fmt::format("it goes on {}, not on {}",
                                                 armoury.at(item.slot).id, slot.id));
        if (item.level > outfit.level) refused.because(item.id, too_young(armoury, item, outfit));
        if (++held[worn.slot.index()] > slot.count)
            refused.because(item.id,
                            fmt::format("{} has {} and holds no more", slot.id,
                                        counted(static_cast<std::size_t>(slot.count), "place")));
    }
}

void check_pack(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    for (const PackedItem& packed : outfit.pack) {
        const Item& item = armoury.at(packed.item);
        if (item.use && item.level > outfit.level)
            refused.because(item.id, too_young(armoury, item, outfit));
    }
    const std::int64_t stacks = pack_stacks(armoury, outfit);
    if (stacks > armoury.carry.bag)
        refused.because(
            "pack", fmt::format("it makes {} stacks; the bag holds {}", stacks, armoury.carry.bag));
}

/// A formula that gives no number for this outfit (M66).
void check_formulas(Deriver& deriver, const Outfit& outfit, Refused& refused) {
    const Armoury& armoury = deriver.armoury();
    const std::vector<double> stats = outfit_stats(deriver, outfit, no_band);
    for (std::size_t i = 0; i < stats.size(); ++i)
        if (!std::isfinite(stats[i]))
            refused.because(
                "stat." + armoury.stats[i].id,
                fmt::format("its formula '{}' gives no number", armoury.stats[i].value.text));
    if (!std::isfinite(deriver.capacity(stats, outfit.level)))
        refused.because(
            "load", fmt::format("the capacity '{}' gives no number", armoury.carry.capacity.text));
}

void check_load(Deriver& deriver, const Outfit& outfit, Refused& refused) {
    const Load load = outfit_load(deriver, outfit);
    if (!load.over_limit) return;
    refused.because("load",
                    fmt::format("{} of {} is a load of {}; nothing can be carried above {}",
                                rounded(to_weight(load.carried), 3), rounded(load.capacity, 3),
                                percent(load.share), percent(deriver.armoury().carry.limit)));
}

} // namespace

std::vector<Refusal> refusals(Deriver& deriver, const Outfit& outfit) {
    Refused refused;
    check_worn(deriver.armoury(), outfit, refused);
    check_pack(deriver.armoury(), outfit, refused);
    check_formulas(deriver, outfit, refused);
    check_load(deriver, outfit, refused);
    return refused.take();
}

StatSums worn_sums(const Armoury& armoury, const Outfit& outfit) {
    StatSums sums;
    sums.reset(armoury.stats.size());
    for_each_bearer(armoury, outfit, [&](const Bearer& bearer, const char*, double add_factor) {
        sums.include(bearer.modifiers, add_factor);
    });
    return sums;
}

Thousandths worn_weight(const Armoury& armoury, const Outfit& outfit) {
    Thousandths total = 0;
    for (const WornItem& worn : outfit.worn) total += armoury.at(worn.item).weight;
    return total;
}

Thousandths pack_weight(const Armoury& armoury, const Outfit& outfit) {
    Thousandths total = 0;
    for (const PackedItem& packed : outfit.pack)
        total += armoury.at(packed.item).weight * packed.count;
    return total;
}

std::int64_t pack_stacks(const Armoury& armoury, const Outfit& outfit) {
    std::int64_t stacks = 0;
    for (const PackedItem& packed : outfit.pack)
        stacks += stacks_of(armoury.at(packed.item), packed.count);
    return stacks;
}

std::vector<double> outfit_stats(Deriver& deriver, const Outfit& outfit, int band) {
    const Armoury& armoury = deriver.armoury();
    StatSums sums = worn_sums(armoury, outfit);
    if (const Band* applied = armoury.carry.band(band)) sums.include(applied->modifiers);
    std::vector<double> stats(armoury.stats.size());
    deriver.derive(base_stats(armoury, armoury.at(outfit.character), outfit.level), sums,
                   outfit.level, stats);
    return stats;
}

Load outfit_load(Deriver& deriver, const Outfit& outfit) {
    const Armoury& armoury = deriver.armoury();
    const std::vector<double> stats = outfit_stats(deriver, outfit, no_band);
    return weigh(armoury.carry, worn_weight(armoury, outfit), pack_weight(armoury, outfit),
                 deriver.capacity(stats, outfit.level));
}

} // namespace panoplon
