#include "outfit/refusals.h"

#include "base/text.h"
#include "outfit/needs.h"
#include "outfit/points.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Gathers reasons by thing.
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

/// The places of a character (or the sockets of an item) and what has taken them.
class Places {
  public:
    explicit Places(const Armoury& armoury) : armoury_(armoury), taken_(armoury.slots.size()) {}

    /// Takes places for the item; one that is not free is a reason.
    void take(const Item& item, const std::vector<SlotId>& places, Refused& refused) {
        for (const SlotId slot : places) {
            std::vector<std::string>& by = taken_[slot.index()];
            const int count = armoury_.at(slot).count;
            if (static_cast<int>(by.size()) >= count)
                refused.because(item.id,
                                fmt::format("{} has {}, and {} there already", armoury_.at(slot).id,
                                            counted(static_cast<std::size_t>(count), "place"),
                                            join(by, " and ") + (by.size() > 1 ? " are" : " is")));
            by.push_back(item.id);
        }
    }

  private:
    const Armoury& armoury_;
    std::vector<std::vector<std::string>> taken_; ///< by slot: ids
};

void check_slot(const Armoury& armoury, const WornItem& worn, Refused& refused) {
    const Item& item = armoury.at(worn.item);
    const Slot& slot = armoury.at(worn.slot);
    if (!item.worn())
        refused.because(item.id, "it has no slot: it is carried, not worn");
    else if (item.slot != worn.slot)
        refused.because(item.id, fmt::format("it goes {} {}, not {} {}",
                                             armoury.at(item.slot).socket ? "into" : "on",
                                             armoury.at(item.slot).id, slot.socket ? "into" : "on",
                                             slot.id));
}

/// What the sockets of a worn item hold, to any depth.
void check_sockets(const Armoury& armoury, const WornItem& host, Refused& refused) {
    const Item& item = armoury.at(host.item);
    std::vector<SlotId> free = item.sockets;
    for (const WornItem& inner : host.socketed) {
        const std::string& id = armoury.at(inner.item).id;
        check_slot(armoury, inner, refused);
        const auto at = std::find(free.begin(), free.end(), inner.slot);
        if (at != free.end()) {
            free.erase(at);
        } else {
            const auto has = std::count(item.sockets.begin(), item.sockets.end(), inner.slot);
            refused.because(
                id, has == 0
                        ? fmt::format("{} has no socket {}", item.id, armoury.at(inner.slot).id)
                        : fmt::format("{} has {} {}, and each holds one", item.id,
                                      counted(static_cast<std::size_t>(has), "socket"),
                                      armoury.at(inner.slot).id));
        }
        check_sockets(armoury, inner, refused);
    }
}

void check_places(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    Places places(armoury);
    for (const WornItem& worn : outfit.worn) {
        const Item& item = armoury.at(worn.item);
        check_slot(armoury, worn, refused);
        if (armoury.at(worn.slot).socket)
            refused.because(item.id,
                            fmt::format("{} is a socket: it is on items, not on {}",
                                        armoury.at(worn.slot).id, armoury.at(outfit.character).id));
        else
            places.take(item, item.slot == worn.slot ? item.takes : std::vector{worn.slot},
                        refused);
        check_sockets(armoury, worn, refused);
    }
}

/// At most one of a unique group is worn (M41).
void check_unique(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    std::vector<const Item*> seen;
    for_each_worn(outfit.worn, [&](const WornItem& worn) {
        const Item& item = armoury.at(worn.item);
        if (item.unique.empty()) return;
        for (const Item* other : seen)
            if (other->unique == item.unique)
                refused.because(item.id, fmt::format("at most one of '{}' is worn, and {} is",
                                                     item.unique, other->id));
        seen.push_back(&item);
    });
}

void check_needs(Deriver& deriver, const Outfit& outfit, Refused& refused) {
    const Armoury& armoury = deriver.armoury();
    const std::vector<double> naked = naked_stats(deriver, outfit);
    const auto check = [&](ItemId id) {
        const Item& item = armoury.at(id);
        for (std::string& reason :
             unmet_needs(armoury, item, outfit.character, outfit.level, naked))
            refused.because(item.id, std::move(reason));
    };
    for_each_worn(outfit.worn, [&](const WornItem& worn) { check(worn.item); });
    for (const PackedItem& packed : outfit.pack)
        if (armoury.at(packed.item).consumed()) check(packed.item);
}

void check_pack(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    for (const PackedItem& packed : outfit.pack) {
        const Item& item = armoury.at(packed.item);
        const std::int64_t stacks = stacks_of(item, packed.count);
        if (stacks > item.max_stacks)
            refused.because(item.id,
                            fmt::format("{} units make {} stacks of {}; at most {} allowed",
                                        packed.count, stacks, item.stack,
                                        item.max_stacks == 1
                                            ? std::string("one is")
                                            : fmt::format("{} are", item.max_stacks)));
    }
    const std::int64_t stacks = pack_stacks(armoury, outfit);
    const std::int64_t bag = bag_size(armoury, outfit);
    if (stacks > bag)
        refused.because("pack", fmt::format("it makes {} stacks; the bag holds {}", stacks, bag));
}

void check_upgrades(const Armoury& armoury, const Outfit& outfit, Refused& refused) {
    const int spent = points_spent(armoury, outfit.upgrades);
    const int has = points_at(armoury, outfit.character, outfit.level);
    if (spent > has)
        refused.because("points", fmt::format("{} are spent, and {} has {} at level {}", spent,
                                              armoury.at(outfit.character).id, has, outfit.level));
    for (const BoughtUpgrade& bought : outfit.upgrades) {
        const Upgrade& upgrade = armoury.at(bought.upgrade);
        if (bought.levels > upgrade.max)
            refused.because("upgrade." + upgrade.id,
                            fmt::format("{} levels; there are {}", bought.levels, upgrade.max));
    }
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
    const Armoury& armoury = deriver.armoury();
    Refused refused;
    check_places(armoury, outfit, refused);
    check_unique(armoury, outfit, refused);
    check_needs(deriver, outfit, refused);
    check_pack(armoury, outfit, refused);
    check_upgrades(armoury, outfit, refused);
    check_formulas(deriver, outfit, refused);
    check_load(deriver, outfit, refused);
    return refused.take();
}

std::string reasons_in_a_line(const std::vector<Refusal>& refused) {
    std::vector<std::string> parts;
    for (const Refusal& refusal : refused)
        parts.push_back(fmt::format("{}: {}", refusal.thing, join(refusal.reasons, "; ")));
    return join(parts, "; ");
}

std::vector<std::string> missing_for(Deriver& deriver, const Outfit& outfit,
                                     const Encounter& encounter) {
    const Armoury& armoury = deriver.armoury();
    std::vector<ItemId> worn;
    for_each_worn(outfit.worn, [&](const WornItem& one) { worn.push_back(one.item); });
    const auto is_worn = [&](ItemId item) {
        return std::find(worn.begin(), worn.end(), item) != worn.end();
    };
    const auto is_packed = [&](ItemId item) {
        return std::any_of(outfit.pack.begin(), outfit.pack.end(),
                           [&](const PackedItem& packed) { return packed.item == item; });
    };
    std::vector<std::string> reasons;
    for (const ItemId item : encounter.requires_worn)
        if (!is_worn(item))
            reasons.push_back(
                fmt::format("{} asks for {} to be worn; it {}", encounter.id, armoury.at(item).id,
                            is_packed(item) ? "is carried, which is not worn" : "is not there"));
    for (const ItemId item : encounter.requires_carried)
        if (!is_worn(item) && !is_packed(item))
            reasons.push_back(fmt::format("{} asks for {} to be carried; it is not there",
                                          encounter.id, armoury.at(item).id));
    for (const LoadoutId ally : encounter.allies) {
        const auto refused = refusals(deriver, outfit_of(armoury, armoury.at(ally), outfit.level));
        if (!refused.empty())
            reasons.push_back(fmt::format("the ally {} can't come at level {}: {}: {}",
                                          armoury.at(ally).id, outfit.level, refused.front().thing,
                                          refused.front().reasons.front()));
    }
    return reasons;
}

} // namespace panoplon
