#include "outfit/change.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <unordered_map>

namespace panoplon {

namespace {

/// Worn things go to the pack, each by itself.
void stow(const Armoury& armoury, const WornItem& worn, Outfit& outfit, ChangeOutcome& outcome) {
    add_to_pack(outfit.pack, worn.item, 1, worn.span);
    outcome.notes.push_back(fmt::format("{} goes to the pack", armoury.at(worn.item).id));
    for (const WornItem& inner : worn.socketed) stow(armoury, inner, outfit, outcome);
}

bool take_from_pack(Outfit& outfit, ItemId item) {
    for (PackedItem& packed : outfit.pack) {
        if (packed.item != item || packed.count < 1) continue;
        --packed.count;
        std::erase_if(outfit.pack, [](const PackedItem& p) { return p.count == 0; });
        return true;
    }
    return false;
}

/// Removes the last worn item that `in_the_way` names; the pack gets it.
template <class Test>
bool remove_last(const Armoury& armoury, Outfit& outfit, ChangeOutcome& outcome, Test in_the_way) {
    for (std::size_t i = outfit.worn.size(); i-- > 0;) {
        if (!in_the_way(outfit.worn[i])) continue;
        const WornItem worn = outfit.worn[i];
        outfit.worn.erase(outfit.worn.begin() + static_cast<std::ptrdiff_t>(i));
        stow(armoury, worn, outfit, outcome);
        return true;
    }
    return false;
}

int taken(const Armoury& armoury, const Outfit& outfit, SlotId slot) {
    int count = 0;
    for (const WornItem& worn : outfit.worn)
        for (const SlotId place : armoury.at(worn.item).takes) count += place == slot;
    return count;
}

void make_room(const Armoury& armoury, Outfit& outfit, const Item& item, ChangeOutcome& outcome) {
    for (const SlotId slot : item.takes) {
        const auto needed =
            static_cast<int>(std::count(item.takes.begin(), item.takes.end(), slot));
        const auto takes_it = [&](const WornItem& worn) {
            const auto& takes = armoury.at(worn.item).takes;
            return std::find(takes.begin(), takes.end(), slot) != takes.end();
        };
        while (taken(armoury, outfit, slot) + needed > armoury.at(slot).count)
            if (!remove_last(armoury, outfit, outcome, takes_it)) break;
    }
    if (item.unique.empty()) return;
    const auto same_group = [&](const WornItem& worn) {
        return armoury.at(worn.item).unique == item.unique;
    };
    while (remove_last(armoury, outfit, outcome, same_group)) {
    }
}

/// Refusals that were not there before.
std::vector<Refusal> fresh_refusals(Deriver& deriver, const Outfit& before, const Outfit& after) {
    const std::vector<Refusal> old = refusals(deriver, before);
    std::vector<Refusal> fresh = refusals(deriver, after);
    std::erase_if(fresh, [&](const Refusal& refusal) {
        return std::any_of(old.begin(), old.end(), [&](const Refusal& other) {
            return other.thing == refusal.thing && other.reasons == refusal.reasons;
        });
    });
    return fresh;
}

/// Gives the changed outfit in place of the old one, unless something is refused.
ChangeOutcome settle_change(Deriver& deriver, Outfit& outfit, Outfit changed,
                            ChangeOutcome outcome) {
    outcome.refused = fresh_refusals(deriver, outfit, changed);
    if (outcome.done())
        outfit = std::move(changed);
    else
        outcome.notes.clear();
    return outcome;
}

/// Puts a worn item into its place, or into the first socket that is free for it.
bool place(const Armoury& armoury, std::vector<WornItem>& worn, const WornItem& fresh) {
    for (WornItem& host : worn) {
        const auto& sockets = armoury.at(host.item).sockets;
        const auto has = std::count(sockets.begin(), sockets.end(), fresh.slot);
        const auto used = std::count_if(host.socketed.begin(), host.socketed.end(),
                                        [&](const WornItem& w) { return w.slot == fresh.slot; });
        if (used < has) {
            host.socketed.push_back(fresh);
            return true;
        }
        if (place(armoury, host.socketed, fresh)) return true;
    }
    return false;
}

/// What was on, can't be taken off, and is on no more; null where there is nothing such (M41b).
const Item* cursed_gone(const Armoury& armoury, const Outfit& before, const Outfit& after) {
    const Item* gone = nullptr;
    for_each_worn(before.worn, [&](const WornItem& worn) {
        bool there = !armoury.at(worn.item).cursed;
        for_each_worn(after.worn,
                      [&](const WornItem& one) { there = there || one.item == worn.item; });
        if (!there) gone = &armoury.at(worn.item);
    });
    return gone;
}

/// Where it is said what an outfit does, actions that something new gives come first.
void name_actions(const Item& item, Outfit& outfit) {
    if (outfit.actions.empty()) return;
    std::vector<ActionId> fresh = item.actions;
    std::erase_if(fresh, [&](ActionId action) {
        return std::find(outfit.actions.begin(), outfit.actions.end(), action) !=
               outfit.actions.end();
    });
    outfit.actions.insert(outfit.actions.begin(), fresh.begin(), fresh.end());
}

} // namespace

ChangeOutcome put_on(Deriver& deriver, Outfit& outfit, ItemId id, Drawn drawn) {
    const Armoury& armoury = deriver.armoury();
    const Item& item = armoury.at(id);
    ChangeOutcome outcome;
    Outfit changed = outfit;
    const bool packed = take_from_pack(changed, id);
    if (!item.worn()) {
        outcome.refused.push_back({item.id, {"it has no slot: it is carried, not worn"}});
        return outcome;
    }
    const WornItem fresh{item.slot, id, {}, {}, std::move(drawn)};
    name_actions(item, changed);
    if (armoury.at(item.slot).socket) {
        if (!place(armoury, changed.worn, fresh)) {
            outcome.refused.push_back({item.id,
                                       {fmt::format("no free socket {} on anything that is worn",
                                                    armoury.at(item.slot).id)}});
            return outcome;
        }
    } else {
        make_room(armoury, changed, item, outcome);
        if (const Item* cursed = cursed_gone(armoury, outfit, changed)) {
            outcome.refused.push_back(
                {item.id, {fmt::format("{} is cursed: it can't be taken off", cursed->id)}});
            return outcome;
        }
        changed.worn.push_back(fresh);
        std::stable_sort(changed.worn.begin(), changed.worn.end(),
                         [](const WornItem& a, const WornItem& b) { return a.slot < b.slot; });
    }
    if (!packed)
        for (const PackedItem& inner : contents_of(armoury, id)) {
            add_to_pack(changed.pack, inner.item, inner.count, {});
            outcome.notes.push_back(fmt::format("{} comes with {} {}", item.id, inner.count,
                                                armoury.at(inner.item).id));
        }
    outcome.notes.push_back(
        fmt::format("{} is put on{}", item.id, packed ? ", from the pack" : ""));
    return settle_change(deriver, outfit, std::move(changed), std::move(outcome));
}

ChangeOutcome take_off(Deriver& deriver, Outfit& outfit, ItemId id) {
    const Armoury& armoury = deriver.armoury();
    ChangeOutcome outcome;
    Outfit changed = outfit;
    const bool off = remove_last(armoury, changed, outcome,
                                 [&](const WornItem& worn) { return worn.item == id; });
    if (!off || armoury.at(id).cursed) {
        outcome.refused.push_back(
            {armoury.at(id).id, {off ? "it is cursed: it can't be taken off" : "it is not worn"}});
        return outcome;
    }
    return settle_change(deriver, outfit, std::move(changed), std::move(outcome));
}

namespace {

/// Units of an item that fit, and why no more do.
struct Room {
    std::int64_t units = unlimited;
    std::string limit;

    void at_most(std::int64_t count, std::string why) {
        if (count >= units) return;
        units = std::max<std::int64_t>(count, 0);
        limit = std::move(why);
    }
};

Room room_for(Deriver& deriver, const Outfit& outfit, const Item& item, std::int64_t held) {
    const Armoury& armoury = deriver.armoury();
    Room room;
    if (item.stack != unlimited) {
        const std::int64_t own = stacks_of(item, held);
        const std::int64_t open = own * item.stack - held;
        const auto stacks = [&](std::int64_t free) { return open + free * item.stack; };
        if (const std::int64_t bag = bag_size(armoury, outfit); bag != unlimited)
            room.at_most(stacks(std::max<std::int64_t>(0, bag - pack_stacks(armoury, outfit))),
                         "the bag is full");
        if (item.max_stacks != unlimited)
            room.at_most(stacks(std::max<std::int64_t>(0, item.max_stacks - own)),
                         fmt::format("at most {} of it are allowed",
                                     counted(static_cast<std::size_t>(item.max_stacks), "stack")));
    } else if (held == 0 && pack_stacks(armoury, outfit) >= bag_size(armoury, outfit)) {
        room.at_most(0, "the bag is full");
    }
    if (item.weight > 0 && armoury.carry.capacity.given()) {
        const Load load = outfit_load(deriver, outfit);
        const double most = armoury.carry.limit * load.capacity * 1000;
        const double free = std::clamp(most, 0.0, 9e15) - static_cast<double>(load.carried);
        room.at_most(
            static_cast<std::int64_t>(std::floor(free / static_cast<double>(item.weight) + 1e-9)),
            "it would be over the limit of what can be carried");
    }
    return room;
}

} // namespace

namespace {

/// Takes up what fits of one thing, without what it comes with; adds a note. Returns how many.
std::int64_t take_up_one(Deriver& deriver, Outfit& outfit, ItemId id, std::int64_t count,
                         std::vector<std::string>& notes) {
    const Armoury& armoury = deriver.armoury();
    const Item& item = armoury.at(id);
    std::int64_t held = 0;
    for (const PackedItem& packed : outfit.pack)
        if (packed.item == id) held = packed.count;
    const Room room = room_for(deriver, outfit, item, held);
    const std::int64_t taken_up = std::min(count, room.units);
    if (taken_up > 0) add_to_pack(outfit.pack, id, taken_up, {});
    notes.push_back(fmt::format("{} of {} {} taken up", taken_up, count, item.id));
    if (taken_up < count)
        notes.back() += fmt::format("; {} left: {}", count - taken_up, room.limit);
    return taken_up;
}

} // namespace

ChangeOutcome take_up(Deriver& deriver, Outfit& outfit, ItemId id, std::int64_t count) {
    const Armoury& armoury = deriver.armoury();
    ChangeOutcome outcome;
    std::unordered_map<std::size_t, std::int64_t> come_along; // of what was taken up
    const auto take = [&](ItemId item, std::int64_t units) {
        const std::int64_t taken = take_up_one(deriver, outfit, item, units, outcome.notes);
        for (const PackedItem& inner : armoury.at(item).contains) {
            std::int64_t& sum = come_along[inner.item.index()];
            sum = bounded_sum(sum, bounded_product(inner.count, taken));
        }
        return taken;
    };
    outcome.left = count - take(id, count);
    for (const PackedItem& inner : contents_of(armoury, id))
        if (const std::int64_t units = come_along[inner.item.index()]; units > 0)
            take(inner.item, units);
    return outcome;
}

} // namespace panoplon
