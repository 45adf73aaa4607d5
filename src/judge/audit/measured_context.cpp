#include "judge/audit/measured_context.h"

#include "judge/appraise/appraisal.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A place worth less than this judges nobody (M81a).
const double least_worth = std::log(1.005);

/// M81b: another item that could be worn in its place, is no twin of it, and is hardly older.
bool is_contested(const Armoury& armoury, const std::vector<ItemId>& groups,
                  const std::vector<ItemId>& wearable, ItemId item) {
    const Item& own = armoury.at(item);
    return std::any_of(wearable.begin(), wearable.end(), [&](ItemId other) {
        const Item& rival = armoury.at(other);
        return groups[other.index()] != groups[item.index()] && stands_against(armoury, rival, own);
    });
}

/// M84: another of its group that is hardly older.
bool is_contested_in_pack(const Armoury& armoury, const std::vector<ItemId>& usable, ItemId item) {
    const Item& own = armoury.at(item);
    return !own.use->group.empty() && std::any_of(usable.begin(), usable.end(), [&](ItemId other) {
        const Item& rival = armoury.at(other);
        return other != item && rival.use->group == own.use->group &&
               rival.wear_level() >= own.wear_level() - armoury.audit.grace;
    });
}

/// Levels since an item could first be worn.
int age_of(const Armoury& armoury, ItemId item, int level) {
    return level - std::max(armoury.at(item).wear_level(), armoury.levels.first);
}

double margin_in(const Found& found) {
    return found.any ? found.margin.value : nothing_legal;
}

/// What the item comes to against its place empty, and all the places that the best uses for it. A
/// loss within the roughness of the context is none.
ItemContextRow measure_against(const Armoury& armoury, const Search& search, double roughness,
                               ItemId item, double empty, double all_empty) {
    ItemContextRow row;
    row.item = item;
    row.best = margin_in(search.best());
    row.with = margin_in(search.with(item));
    row.without = margin_in(search.without(item));
    row.empty = empty;
    // What nothing legal does is no number: such a context says nothing of the item.
    const bool told = std::min({row.with, row.without, row.empty, all_empty}) > nothing_legal;
    const double noise = std::log1p(roughness);
    const auto loss = [&](double margin) {
        const double log_loss = std::log(row.best / margin);
        return log_loss > noise ? log_loss : 0.0;
    };
    row.worth = told ? loss(row.empty) : 0;
    row.judged = row.worth >= least_worth;
    if (row.judged) {
        row.grip = loss(row.without) / std::log(row.best / all_empty);
        row.shortfall = loss(row.with) / row.worth;
    }
    const int level = search.context().level;
    row.in_window = in_window(armoury, item, level);
    row.after_window = !row.in_window && age_of(armoury, item, level) < 2 * armoury.audit.window;
    return row;
}

/// What is worn twice is measured against both of its places together (M81a).
ItemContextRow measure_worn(const Armoury& armoury, const Search& search, double roughness,
                            ItemId item) {
    const Footprint places = search.places_of(item);
    const double empty = margin_in(search.empty_beside(item));
    const double all_empty =
        places == search.one_place_of(item) ? empty : margin_in(search.empty(places));
    return measure_against(armoury, search, roughness, item, empty, all_empty);
}

ItemContextRow measure_packed(const Armoury& armoury, const Search& search, double roughness,
                              ItemId item) {
    const double empty = margin_in(search.without_group(item));
    ItemContextRow row = measure_against(armoury, search, roughness, item, empty, empty);
    row.units = search.packed(search.best().candidate, item);
    return row;
}

/// Items whose verdict hangs on this level: those in their window, or in as many levels after it.
std::vector<ItemId> judged_here(const Armoury& armoury, const std::vector<bool>& judged,
                                std::vector<ItemId> items, int level) {
    std::erase_if(items, [&](ItemId item) {
        return age_of(armoury, item, level) >= 2 * armoury.audit.window ||
               (!judged.empty() && !judged[item.index()]);
    });
    return items;
}

} // namespace

bool in_window(const Armoury& armoury, ItemId item, int level) {
    const int age = age_of(armoury, item, level);
    return age >= 0 && age < armoury.audit.window;
}

ItemContextRow measure_item(const Armoury& armoury, const std::vector<ItemId>& groups,
                            const Search& search, double roughness, ItemId item) {
    const bool worn = armoury.at(item).worn();
    ItemContextRow row = worn ? measure_worn(armoury, search, roughness, item)
                              : measure_packed(armoury, search, roughness, item);
    row.contested = worn ? is_contested(armoury, groups, search.wearable(), item)
                         : is_contested_in_pack(armoury, search.usable(), item);
    return row;
}

ContextRow context_row(const Armoury& armoury, const Search& search, double roughness) {
    ContextRow row{search.context(),
                   armoury.at(search.context().encounter).weight,
                   search.best().margin,
                   search.best().any,
                   {},
                   search.proven(),
                   search.missed(),
                   roughness,
                   search.limiting(),
                   search.error()};
    if (row.found) row.outfit = search.outfit_of(search.best().candidate);
    return row;
}

bool judges_any(const Armoury& armoury, const std::vector<bool>& judged, const Search& search) {
    const int level = search.context().level;
    return !judged_here(armoury, judged, search.wearable(), level).empty() ||
           !judged_here(armoury, judged, search.usable(), level).empty();
}

MeasuredContext measure_context(const Armoury& armoury, const std::vector<ItemId>& groups,
                                const std::vector<bool>& judged, Search& search) {
    const int level = search.context().level;
    const std::vector<ItemId> items = judged_here(armoury, judged, search.wearable(), level);
    const std::vector<ItemId> consumables = judged_here(armoury, judged, search.usable(), level);
    if (search.best().any && !search.error()) {
        for (const auto* list : {&items, &consumables})
            for (const ItemId item : *list) search.find_for(item);
        search.settle();
    }
    const double roughness = search.roughness_of_best();
    MeasuredContext measured{
        context_row(armoury, search, roughness), search.best().candidate, {}, {}};
    if (!measured.context.sound()) return measured;
    for (const ItemId item : items)
        measured.rows.push_back(measure_item(armoury, groups, search, roughness, item));
    for (const ItemId item : consumables)
        measured.packed_rows.push_back(measure_item(armoury, groups, search, roughness, item));
    return measured;
}

} // namespace panoplon
