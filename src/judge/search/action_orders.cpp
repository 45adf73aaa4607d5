#include "judge/search/action_orders.h"

#include <algorithm>

namespace panoplon {

namespace {

enum class Stand { first, last, out };

/// One action of gear, as often as gear gives it.
using Copies = std::vector<ActionId>;

std::vector<ActionId> ordered(const std::vector<Copies>& of_gear, const std::vector<ActionId>& own,
                              const std::vector<Stand>& stands) {
    std::vector<ActionId> order, last;
    for (std::size_t i = 0; i < of_gear.size(); ++i) {
        if (stands[i] == Stand::out) continue;
        std::vector<ActionId>& into = stands[i] == Stand::first ? order : last;
        into.insert(into.end(), of_gear[i].begin(), of_gear[i].end());
    }
    order.insert(order.end(), own.begin(), own.end());
    order.insert(order.end(), last.begin(), last.end());
    return order;
}

} // namespace

std::vector<std::vector<ActionId>> action_orders(const std::vector<ActionId>& of_gear,
                                                 const std::vector<ActionId>& own) {
    std::vector<Copies> distinct;
    for (const ActionId action : of_gear) {
        const auto known =
            std::find_if(distinct.begin(), distinct.end(),
                         [&](const Copies& copies) { return copies.front() == action; });
        if (known == distinct.end())
            distinct.push_back({action});
        else
            known->push_back(action);
    }
    const std::vector<Stand> all_first(distinct.size(), Stand::first);
    std::vector<std::vector<Stand>> ways = {all_first};
    const bool together = distinct.size() <= 2;
    for (std::size_t i = 0; i < distinct.size(); ++i) {
        const std::vector<std::vector<Stand>> before =
            together ? ways : std::vector<std::vector<Stand>>{all_first};
        for (const Stand stand : {Stand::last, Stand::out})
            for (std::vector<Stand> way : before) {
                way[i] = stand;
                ways.push_back(std::move(way));
            }
    }
    std::vector<std::vector<ActionId>> orders;
    const auto list = [&](std::vector<ActionId> order) {
        const bool known = std::find(orders.begin(), orders.end(), order) != orders.end();
        if (orders.empty() || (!order.empty() && !known)) orders.push_back(std::move(order));
    };
    for (const std::vector<Stand>& way : ways) list(ordered(distinct, own, way));
    std::reverse(distinct.begin(), distinct.end());
    if (together)
        for (std::vector<Stand>& way : ways) {
            std::reverse(way.begin(), way.end());
            list(ordered(distinct, own, way));
        }
    return orders;
}

} // namespace panoplon
