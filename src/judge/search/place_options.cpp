#include "judge/search/place_options.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace panoplon {

namespace {

/// More options than these are not listed for one place.
constexpr std::size_t most_listed = 2000;
/// Sockets within sockets.
constexpr int deepest = 8;

/// All ways to fill a slot, nothing first; more than `most_listed` only to tell that they are too
/// many.
std::vector<Placed> ways_to_fill(const Armoury& armoury, const PlaceChoice& choice, SlotId slot,
                                 int depth) {
    std::vector<Placed> ways(1);
    for (const ItemId item : choice.options[slot.index()]) {
        std::vector<Placed> filled = {{item, {}}};
        for (const SlotId socket : armoury.at(item).sockets) {
            const std::vector<Placed> inner = depth < deepest
                                                  ? ways_to_fill(armoury, choice, socket, depth + 1)
                                                  : std::vector<Placed>(1);
            std::vector<Placed> next;
            for (const Placed& host : filled)
                for (const Placed& filling : inner) {
                    if (next.size() > most_listed) break;
                    next.push_back(host);
                    next.back().sockets.push_back(filling);
                }
            filled = std::move(next);
        }
        ways.insert(ways.end(), filled.begin(), filled.end());
        if (ways.size() > most_listed) break;
    }
    return ways;
}

PlaceOption as_numbers(const Armoury& armoury, Placed placed) {
    const Columns columns(armoury);
    PlaceOption option;
    option.columns.assign(columns.count(), 0.0);
    const auto include = [&](const Bearer& bearer, double add_factor) {
        columns.add(bearer.modifiers, add_factor, option.columns);
        if (!bearer.triggers.empty()) option.triggers.push_back(&bearer);
        option.alone =
            option.alone || !bearer.triggers.empty() || !has_direction(armoury, bearer.modifiers);
    };
    for_each_item(placed, [&](ItemId id) {
        const Item& item = armoury.at(id);
        for_each_bearer(armoury, item, include);
        option.columns[columns.weight()] -= static_cast<double>(item.weight);
        option.capacity += item.grants.capacity;
        option.bag += item.grants.bag;
        option.value += item.value;
        if (item.set.given()) option.pieces.push_back(item.set);
        option.alone = option.alone || !item.actions.empty() || !item.contains.empty();
    });
    option.placed = std::move(placed);
    return option;
}

/// Items that put other limits on what else is worn, or that have to be there.
bool bound_to_others(const Armoury& armoury, const PlaceChoice& choice, const PlaceOption& option) {
    bool bound = false;
    for_each_item(option.placed, [&](ItemId id) {
        const bool required =
            std::find(choice.required.begin(), choice.required.end(), id) != choice.required.end();
        bound =
            bound || required || !armoury.at(id).unique.empty() || armoury.at(id).takes.size() > 1;
    });
    return bound;
}

/// `a` may stand for `b` wherever that is.
bool outclasses(const Armoury& armoury, const PlaceChoice& choice, const PlaceOption& a,
                const PlaceOption& b) {
    if (a.alone || b.alone || !b.pieces.empty() || !a.placed.item.given() ||
        a.capacity < b.capacity || a.bag < b.bag || (choice.value_matters && a.value > b.value))
        return false;
    return !bound_to_others(armoury, choice, a) && !bound_to_others(armoury, choice, b) &&
           std::equal(a.columns.begin(), a.columns.end(), b.columns.begin(),
                      std::greater_equal<>());
}

} // namespace

void Columns::add(const Modifiers& modifiers, double add_factor, std::vector<double>& into) const {
    const std::size_t stats = armoury_.stats.size();
    for (const Amount& a : modifiers.add)
        into[a.stat.index()] += direction(a.stat.index()) * a.amount * add_factor;
    for (const Amount& a : modifiers.percent)
        into[stats + a.stat.index()] += direction(a.stat.index()) * a.amount;
    for (const Amount& a : modifiers.times)
        into[2 * stats + a.stat.index()] += direction(a.stat.index()) * std::log(a.amount);
}

void Columns::add_up(const std::vector<double>& columns, StatSums& sums) const {
    const std::size_t stats = armoury_.stats.size();
    for (std::size_t s = 0; s < stats; ++s) {
        sums.add[s] += direction(s) * columns[s];
        sums.percent[s] += direction(s) * columns[stats + s];
        sums.times[s] *= std::exp(direction(s) * columns[2 * stats + s]);
    }
}

bool has_direction(const Armoury& armoury, const Modifiers& modifiers) {
    const auto directed = [&](const Amount& a) {
        return armoury.at(a.stat).better != Better::neither;
    };
    return std::all_of(modifiers.add.begin(), modifiers.add.end(), directed) &&
           std::all_of(modifiers.percent.begin(), modifiers.percent.end(), directed) &&
           std::all_of(modifiers.times.begin(), modifiers.times.end(), directed);
}

std::optional<std::vector<PlaceOption>> place_options(const Ideal& ideal, const PlaceChoice& choice,
                                                      SlotId slot) {
    std::vector<Placed> ways = ways_to_fill(ideal.armoury, choice, slot, 0);
    if (ways.size() > most_listed) return std::nullopt;
    std::vector<PlaceOption> all;
    for (Placed& placed : ways) all.push_back(as_numbers(ideal.armoury, std::move(placed)));
    std::vector<PlaceOption> kept;
    for (std::size_t b = 0; b < all.size(); ++b) {
        const bool outclassed = std::any_of(all.begin(), all.end(), [&](const PlaceOption& a) {
            const bool itself = &a == &all[b];
            // Of two that are no worse than one another the first stays.
            return !itself && outclasses(ideal.armoury, choice, a, all[b]) &&
                   (&a < &all[b] || !outclasses(ideal.armoury, choice, all[b], a));
        });
        if (!outclassed || b == 0) kept.push_back(all[b]);
    }
    return kept;
}

} // namespace panoplon
