// What shops and wear do to a traveller: gear breaks, is mended, sold and bought (M97c, M97d).
#include "journey/traveller.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

/// M97c: sells, mends, fills the pack up to what it set out with, and buys gear that the policy
/// would put on.
void Traveller::visit_shop(const Stage& stage) {
    const Shop& shop = stage.shop;
    if (shop.pays > 0) sell(shop);
    if (shop.mends > 0) mend(shop);
    std::vector<PackedItem> stock = shop.stock;
    refill(shop, stock);
    buy_gear(stage, stock);
}

void Traveller::sell(const Shop& shop) {
    for (std::size_t i = 0; i < unsold_.size(); ++i) {
        if (worth_of(ItemId(i)) <= 0) continue;
        coin_ += unsold_[i] * worth_of(ItemId(i)) * shop.pays;
        items_[i].sold += unsold_[i];
        unsold_[i] = 0;
    }
}

void Traveller::mend(const Shop& shop) {
    for_each_worn(outfit_.worn, [&](const WornItem& worn) {
        const int lasts = armoury_.at(worn.item).lasts;
        int& fights = worn_out_[worn.item.index()];
        if (lasts == 0 || fights == 0) return;
        const double cost = worth_of(worn.item) * shop.mends * fights / lasts;
        if (cost > coin_) return;
        coin_ -= cost;
        fights = 0;
    });
}

void Traveller::refill(const Shop& shop, std::vector<PackedItem>& stock) {
    for (const PackedItem& first : first_pack_)
        for (PackedItem& sold : stock) {
            if (sold.item != first.item || armoury_.at(sold.item).worn()) continue;
            std::int64_t has = 0;
            for (const PackedItem& packed : outfit_.pack)
                if (packed.item == first.item) has = packed.count;
            const double price = worth_of(sold.item) * shop.price;
            const auto affordable = static_cast<std::int64_t>(
                std::min(price > 0 ? std::floor(coin_ / price) : 1e15, 1e15));
            const std::int64_t wanted = std::min({first.count - has, sold.count, affordable});
            if (wanted <= 0) continue;
            const ChangeOutcome outcome = take_up(kit_.deriver(), outfit_, sold.item, wanted);
            const std::int64_t taken = outcome.done() ? wanted - outcome.left : 0;
            coin_ -= price * static_cast<double>(taken);
            items_[sold.item.index()].had += static_cast<double>(taken);
            items_[sold.item.index()].bought += static_cast<double>(taken);
            sold.count -= taken;
            if (taken > 0) outfit_changed();
        }
}

void Traveller::buy_gear(const Stage& stage, std::vector<PackedItem>& stock) {
    for (PackedItem& sold : stock) {
        const double price = worth_of(sold.item) * stage.shop.price;
        if (!armoury_.at(sold.item).worn() || price > coin_) continue;
        if (!put_on_if_better(stage, sold.item, {})) continue;
        coin_ -= price;
        items_[sold.item.index()].bought += 1;
    }
}

/// In coin, with its tier's factor.
double Traveller::worth_of(ItemId item) const {
    const Item& one = armoury_.at(item);
    return one.value * (one.tier.given() ? armoury_.at(one.tier).value_factor : 1);
}

/// M97d: what has been worn for as many fights as it lasts breaks; what its sockets held is left.
void Traveller::wear_out() {
    std::vector<ItemId> broken;
    std::erase_if(outfit_.worn, [&](const WornItem& worn) {
        const int lasts = armoury_.at(worn.item).lasts;
        if (lasts == 0 || ++worn_out_[worn.item.index()] < lasts) return false;
        broken.push_back(worn.item);
        for_each_worn(worn.socketed, [&](const WornItem& inner) { leave(inner.item, 1); });
        return true;
    });
    for (const ItemId item : broken) {
        worn_out_[item.index()] = 0;
        items_[item.index()].used += 1;
        items_[item.index()].broken += 1;
    }
    if (!broken.empty()) outfit_changed();
}

/// M97e: what is worn counts the foes of a fight that was won.
void Traveller::grow(int felled) {
    bool grown = false;
    const auto count = [&](auto& self, std::vector<WornItem>& list) -> void {
        for (WornItem& worn : list) {
            self(self, worn.socketed);
            const ItemGrowth& growth = armoury_.at(worn.item).grows;
            if (growth.kills == 0) continue;
            const int before = growth.times(worn.felled);
            worn.felled += felled;
            const int now = growth.times(worn.felled);
            ItemTrial& item = items_[worn.item.index()];
            item.grown = std::max(item.grown, static_cast<double>(now));
            grown = grown || now != before;
        }
    };
    count(count, outfit_.worn);
    if (grown) outfit_changed();
}

/// Gear that is left is sold where a shop pays for it.
void Traveller::leave(ItemId item, double units) {
    items_[item.index()].left += units;
    if (armoury_.at(item).worn()) unsold_[item.index()] += units;
}

} // namespace panoplon
