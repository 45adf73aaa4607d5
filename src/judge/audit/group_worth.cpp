#include "judge/audit/group_worth.h"

#include "base/compute_each.h"
#include "base/text.h"
#include "judge/paper/paper.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

std::vector<std::string> names_of(const Armoury& armoury, const Item& item, GroupBy by) {
    if (by == GroupBy::tag) return item.tags;
    if (by == GroupBy::pattern && item.pattern.given()) return {armoury.at(item.pattern).id};
    if (by == GroupBy::set && item.set.given()) return {armoury.at(item.set).id};
    if (by == GroupBy::tier && item.tier.given()) return {armoury.at(item.tier).id};
    return {};
}

bool holds(const ItemGroup& group, ItemId item) {
    return std::find(group.items.begin(), group.items.end(), item) != group.items.end();
}

std::size_t pieces_in(const ItemGroup& group, const Outfit& outfit) {
    std::size_t pieces = 0;
    for_each_worn(outfit.worn, [&](const WornItem& worn) { pieces += holds(group, worn.item); });
    for (const PackedItem& packed : outfit.pack) pieces += holds(group, packed.item);
    return pieces;
}

/// One group in one context.
struct Seen {
    bool available = false;
    std::size_t pieces = 0;
    double loss = 0;
};

Seen look(const Armoury& armoury, const std::vector<ItemId>& twins, const ContextRow& row,
          const ItemGroup& group, Search& free) {
    Seen seen;
    seen.available = std::any_of(group.items.begin(), group.items.end(),
                                 [&](ItemId item) { return free.available(item); });
    seen.pieces = pieces_in(group, row.outfit);
    if (seen.pieces == 0) return seen;
    Search without(armoury, twins);
    Limits limits;
    limits.without = group.items;
    without.limit(std::move(limits));
    without.enter(row.context);
    if (!without.find_best()) return seen;
    seen.loss = std::max(0.0, 1 - without.best().margin.value / row.best.value);
    return seen;
}

std::string sentence_of(const Armoury& armoury, const GroupWorth& worth) {
    if (worth.contexts == 0) return "Nobody can have anything of it.";
    if (worth.picked == 0) return "The best never has anything of it.";
    std::string text =
        fmt::format("Something of it is in the best in {:.0f} % of contexts; without all of it {} "
                    "of the margin is lost",
                    worth.picked * 100, percent(worth.ban_loss));
    if (worth.worst > 0)
        text += fmt::format(", most for {} at level {} against {}: {}",
                            armoury.at(worth.at.character).id, worth.at.level,
                            armoury.at(worth.at.encounter).id, percent(worth.worst));
    return text + ".";
}

GroupWorth sum_up(const Armoury& armoury, const AuditResult& result, const ItemGroup& group,
                  const std::vector<Seen>& seen) {
    GroupWorth worth;
    worth.group = group;
    double weights = 0;
    for (std::size_t c = 0; c < seen.size(); ++c) {
        if (!seen[c].available) continue;
        const double weight = result.contexts[c].weight;
        ++worth.contexts;
        weights += weight;
        worth.picked += seen[c].pieces > 0 ? weight : 0;
        worth.pieces += static_cast<double>(seen[c].pieces) * weight;
        worth.ban_loss += seen[c].loss * weight;
        if (seen[c].loss <= worth.worst) continue;
        worth.worst = seen[c].loss;
        worth.at = result.contexts[c].context;
    }
    if (weights > 0)
        for (double* sum : {&worth.picked, &worth.pieces, &worth.ban_loss}) *sum /= weights;
    worth.sentence = sentence_of(armoury, worth);
    return worth;
}

} // namespace

std::vector<ItemGroup> item_groups(const Armoury& armoury, GroupBy by) {
    std::map<std::string, std::vector<ItemId>> groups;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        const Item& item = armoury.items[i];
        if (!item.worn() && !item.consumed()) continue;
        for (const std::string& name : names_of(armoury, item, by)) groups[name].emplace_back(i);
    }
    std::vector<ItemGroup> list;
    for (auto& [name, items] : groups)
        if (items.size() > 1) list.push_back({name, std::move(items)});
    if (by == GroupBy::tier)
        std::stable_sort(list.begin(), list.end(), [&](const ItemGroup& a, const ItemGroup& b) {
            const auto rank = [&](const ItemGroup& one) {
                return armoury.at(armoury.at(one.items.front()).tier).rank;
            };
            return rank(a) < rank(b);
        });
    return list;
}

std::vector<GroupWorth> judge_groups(const Judging& judging, const AuditResult& result, GroupBy by,
                                     const Watch& watch) {
    const Armoury& armoury = judging.armoury;
    const std::vector<ItemId>& twins = judging.twins;
    const std::vector<ItemGroup> groups = item_groups(armoury, by);
    const auto seen = compute_each( // by context, then by group
        result.contexts.size(), [&] { return Search(armoury, twins); }, watch,
        [&](Search& free, std::size_t c) {
            const ContextRow& row = result.contexts[c];
            free.enter(row.context);
            std::vector<Seen> in_context(groups.size());
            for (std::size_t g = 0; g < groups.size(); ++g)
                if (row.sound() && row.whole() && !watch.stopped())
                    in_context[g] = look(armoury, twins, row, groups[g], free);
            return in_context;
        });
    if (watch.stopped()) return {};
    std::vector<GroupWorth> list;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        std::vector<Seen> of_group;
        for (const auto& in_context : seen) of_group.push_back((*in_context)[g]);
        list.push_back(sum_up(armoury, result, groups[g], of_group));
    }
    return list;
}

} // namespace panoplon
