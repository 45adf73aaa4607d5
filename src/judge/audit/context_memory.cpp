#include "judge/audit/context_memory.h"

#include <algorithm>
#include <map>

namespace panoplon {

namespace {

/// Ids of the armoury into places of a list of names.
class Legend {
  public:
    explicit Legend(const Armoury& armoury) : armoury_(armoury) {}

    ItemId operator()(ItemId item) {
        if (!item.given()) return item;
        const auto [at, fresh] = places_.emplace(item, names.size());
        if (fresh) names.push_back(armoury_.at(item).id);
        return ItemId(at->second);
    }

    std::vector<std::string> names;

  private:
    const Armoury& armoury_;
    std::map<ItemId, std::size_t> places_;
};

/// Calls change(id) for every item id of a remembered context.
template <class Change>
void change_ids(Placed& placed, const Change& change) {
    placed.item = change(placed.item);
    for (Placed& inner : placed.sockets) change_ids(inner, change);
}
template <class Change>
void change_ids(std::vector<ItemContextRow>& rows, const Change& change) {
    for (ItemContextRow& row : rows) row.item = change(row.item);
}

/// By name: the items of the armoury; none where one is not there.
std::optional<std::vector<ItemId>> find_all(const Armoury& armoury,
                                            const std::vector<std::string>& names) {
    std::map<std::string_view, ItemId> ids;
    for (std::size_t i = 0; i < armoury.items.size(); ++i)
        ids.emplace(armoury.items[i].id, ItemId(i));
    std::vector<ItemId> found;
    for (const std::string& name : names) {
        const auto at = ids.find(name);
        if (at == ids.end()) return std::nullopt;
        found.push_back(at->second);
    }
    return found;
}

} // namespace

const RememberedContext* ContextMemory::find(std::uint64_t key) {
    const std::lock_guard lock(mutex_);
    const auto at = known_.find(key);
    if (at == known_.end()) return nullptr;
    at->second.age = 0;
    return &at->second; // stays where it is, whatever else is kept
}

void ContextMemory::keep(std::uint64_t key, RememberedContext context) {
    const std::lock_guard lock(mutex_);
    known_.insert_or_assign(key, std::move(context));
}

RememberedContext remember(const Armoury& armoury, const Search& search,
                           const MeasuredContext& measured) {
    Legend legend(armoury);
    const auto change = [&](ItemId item) { return legend(item); };
    RememberedContext known{{},
                            measured.context.best,
                            measured.context.found,
                            measured.context.proven,
                            measured.context.missed,
                            measured.best.places,
                            search.wardrobe().packed(measured.best),
                            measured.rows,
                            measured.packed_rows,
                            0};
    for (Placed& placed : known.places) change_ids(placed, change);
    for (PackedItem& packed : known.pack) packed.item = legend(packed.item);
    change_ids(known.rows, change);
    change_ids(known.packed_rows, change);
    known.items = std::move(legend.names);
    return known;
}

std::optional<MeasuredContext> recall(const Armoury& armoury, const Search& search,
                                      const RememberedContext& known) {
    const auto ids = find_all(armoury, known.items);
    const Wardrobe& wardrobe = search.wardrobe();
    if (!ids || known.places.size() > wardrobe.places().size()) return std::nullopt;
    const auto change = [&](ItemId item) { return item.given() ? (*ids)[item.index()] : item; };
    MeasuredContext measured;
    measured.best = wardrobe.bare();
    std::copy(known.places.begin(), known.places.end(), measured.best.places.begin());
    for (Placed& placed : measured.best.places) change_ids(placed, change);
    for (const PackedItem& packed : known.pack) {
        const auto& consumables = wardrobe.consumables();
        const auto at = std::find(consumables.begin(), consumables.end(), change(packed.item));
        if (at == consumables.end()) return std::nullopt;
        measured.best.counts[static_cast<std::size_t>(at - consumables.begin())] = packed.count;
    }
    measured.rows = known.rows;
    measured.packed_rows = known.packed_rows;
    change_ids(measured.rows, change);
    change_ids(measured.packed_rows, change);
    measured.context = {search.context(),
                        armoury.at(search.context().encounter).weight,
                        known.best,
                        known.found,
                        known.found ? search.outfit_of(measured.best) : Outfit{},
                        known.proven,
                        known.missed,
                        std::nullopt};
    return measured;
}

} // namespace panoplon
