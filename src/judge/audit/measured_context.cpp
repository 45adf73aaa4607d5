#include "judge/audit/measured_context.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A place counts for no more than so many typical ones (M81a).
constexpr double most_typical_places = 4;

/// Levels since an item could first be worn.
int age_of(const Armoury& armoury, ItemId item, int level) {
    return level - arrival_of(armoury, armoury.at(item));
}

double margin_in(const Found& found) {
    return found.any ? found.margin.value : nothing_legal;
}

/// Of worn items for one that is worn, of consumables for one that is used.
std::vector<ItemId> others_there(const Armoury& armoury, const Search& search, ItemId item) {
    std::vector<ItemId> list = armoury.at(item).worn() ? search.wearable() : search.usable();
    std::erase(list, item);
    return list;
}

/// Whether anything of a world ends the item's time.
bool is_succeeded(const Judging& judging, const std::vector<ItemId>& others, int highest_rank,
                  ItemId item) {
    return std::any_of(others.begin(), others.end(), [&](ItemId other) {
        return judging.twins[other.index()] != judging.twins[item.index()] &&
               judging.peers.rank_of(judging.armoury.at(other)) <= highest_rank &&
               judging.peers.succeeds(other, item);
    });
}

bool is_contested(const Judging& judging, const std::vector<ItemId>& others, ItemId item) {
    return std::any_of(others.begin(), others.end(), [&](ItemId other) {
        return judging.twins[other.index()] != judging.twins[item.index()] &&
               judging.peers.is_rival(other, item);
    });
}

int count_places(const Footprint& places) {
    int count = 0;
    for (const auto& [slot, of_slot] : places) count += of_slot;
    return count;
}

/// Margins that an item is measured against.
struct Against {
    double empty;      ///< with one of its places empty
    double all_empty;  ///< with all places of its slots empty
    double share = 1;  ///< of all these that one of it takes
    double copies = 1; ///< of it in the best
};

/// A loss within the noise of the context is none.
ItemContextRow measure_against(const Search& search, double roughness, double typical_worth,
                               ItemId item, const Against& against) {
    ItemContextRow row;
    row.item = item;
    row.best = margin_in(search.best());
    row.with = margin_in(search.with(item));
    row.without = margin_in(search.without(item));
    row.empty = against.empty;
    row.typical_worth = typical_worth;
    // What nothing legal does is no number: such a context says nothing of the item.
    const bool told =
        std::min({row.with, row.without, row.empty, against.all_empty}) > nothing_legal;
    const double noise = std::log1p(std::max(roughness, margin_noise));
    const auto loss = [&](double margin) {
        const double log_loss = std::log(row.best / margin);
        return log_loss > noise ? log_loss : 0.0;
    };
    if (!told) return row;
    row.share = against.share;
    row.worth = loss(against.all_empty) * against.share;
    row.judged = row.worth >= least_worth;
    row.harms = row.empty > row.with * (1 + std::max(roughness, clear_harm));
    row.capped = typical_worth > 0 && row.worth > most_typical_places * typical_worth;
    if (row.capped) row.worth = most_typical_places * typical_worth;
    if (!row.judged) return row;
    row.grip = loss(row.without) / (row.worth * against.copies);
    row.shortfall = loss(row.with) / row.worth;
    return row;
}

Against worn_against(const Search& search, ItemId item) {
    const Footprint one = search.one_place_of(item);
    const Footprint all = search.all_places_of(item);
    const double empty = margin_in(search.empty_beside(item));
    return {empty, all == one ? empty : margin_in(search.empty(all)),
            double(count_places(one)) / count_places(all),
            double(count_places(search.places_of(item))) / count_places(one)};
}

/// What its worst and its best find come to, of an item whose finds differ.
void measure_finds(const Armoury& armoury, Search& search, ItemId item, ItemContextRow& row) {
    if (!armoury.at(item).draws()) return;
    const auto margins = search.margins_of_finds(item);
    row.with_worst = margins ? margins->worst : 0;
    row.with_best = margins ? margins->best : 0;
}

/// Items that have anything to be measured for here.
std::vector<ItemId> measured_here(const Judging& judging, const std::vector<bool>& judged,
                                  const Search& search, std::vector<ItemId> items) {
    std::erase_if(items, [&](ItemId item) {
        return (!judged.empty() && !judged[item.index()]) ||
               age_in(judging, search, item) == Age::neither;
    });
    return items;
}

} // namespace

bool may_have_its_time(const Armoury& armoury, ItemId item, int level) {
    const int age = age_of(armoury, item, level);
    return age >= 0 && (!armoury.at(item).worn() || age < armoury.audit.window);
}

int world_of(const Judging& judging, ItemId item, CharacterId character, int level) {
    return age_of(judging.armoury, item, level) < judging.armoury.audit.window
               ? judging.peers.world_of(item, character, level)
               : every_rank;
}

Age age_in(const Judging& judging, const Search& search, ItemId item) {
    const Armoury& armoury = judging.armoury;
    const auto& [character, level, encounter] = search.context();
    const int world = world_of(judging, item, character, level);
    const int here = search.limits().highest_rank;
    const std::vector<ItemId> others = others_there(armoury, search, item);
    if (may_have_its_time(armoury, item, level) && !is_succeeded(judging, others, world, item))
        return world == here ? Age::in_time : Age::neither;
    const bool recent = age_of(armoury, item, level) < 2 * armoury.audit.window;
    const bool may_overstay = armoury.at(item).worn() && recent && here == every_rank &&
                              is_succeeded(judging, others, every_rank, item);
    return may_overstay ? Age::after : Age::neither;
}

ItemContextRow measure_item(const Judging& judging, Search& search, double roughness, ItemId item) {
    const double typical = search.typical_worth();
    const Age age = age_in(judging, search, item);
    ItemContextRow row;
    if (judging.armoury.at(item).worn()) {
        row = measure_against(search, roughness, typical, item, worn_against(search, item));
        if (row.judged && age == Age::in_time) measure_finds(judging.armoury, search, item, row);
    } else {
        const double empty = margin_in(search.without_group(item));
        row = measure_against(search, roughness, typical, item, {empty, empty});
        row.units = search.packed(search.best().candidate, item);
    }
    row.in_window = age == Age::in_time;
    row.after_window = age == Age::after;
    row.contested = is_contested(judging, others_there(judging.armoury, search, item), item);
    return row;
}

ContextRow context_row(const Armoury& armoury, const Search& search, double roughness) {
    ContextRow row{search.context(),
                   search.limits().highest_rank,
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

bool judges_any(const Judging& judging, const std::vector<bool>& judged, const Search& search) {
    return !measured_here(judging, judged, search, search.wearable()).empty() ||
           !measured_here(judging, judged, search, search.usable()).empty();
}

MeasuredContext measure_context(const Judging& judging, const std::vector<bool>& judged,
                                Search& search) {
    const Armoury& armoury = judging.armoury;
    const std::vector<ItemId> items = measured_here(judging, judged, search, search.wearable());
    const std::vector<ItemId> consumables = measured_here(judging, judged, search, search.usable());
    if (search.best().any && !search.error()) {
        for (const auto* list : {&items, &consumables})
            for (const ItemId item : *list) search.find_for(item);
        search.settle();
    }
    const double roughness = search.roughness_of_best();
    MeasuredContext measured{
        context_row(armoury, search, roughness), search.best().candidate, {}, {}, {}};
    if (!measured.context.sound()) return measured;
    for (const ItemId item : items)
        measured.rows.push_back(measure_item(judging, search, roughness, item));
    for (const ItemId item : consumables)
        measured.packed_rows.push_back(measure_item(judging, search, roughness, item));
    return measured;
}

} // namespace panoplon
