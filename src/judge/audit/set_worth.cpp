#include "judge/audit/set_worth.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

int pieces_worn(const Armoury& armoury, SetId set, const Outfit& outfit) {
    std::set<ItemId> pieces;
    for_each_worn(outfit.worn, [&](const WornItem& worn) {
        if (armoury.at(worn.item).set == set) pieces.insert(worn.item);
    });
    return static_cast<int>(pieces.size());
}

/// The level at which the n-th piece of a set can be worn; 0 where it has fewer.
int level_of_piece(const Armoury& armoury, SetId set, int count) {
    std::vector<int> levels;
    for (const Item& item : armoury.items)
        if (item.set == set && item.worn()) levels.push_back(item.wear_level());
    std::sort(levels.begin(), levels.end());
    const auto n = static_cast<std::size_t>(count);
    return levels.size() < n ? 0 : std::max(levels[n - 1], armoury.levels.first);
}

std::string sentence_of(const StepWorth& worth, int count) {
    if (worth.from_level == 0) return fmt::format("There are not {} pieces to wear.", count);
    if (worth.contexts == 0) return "No context of its levels was looked at.";
    if (worth.reached == 0)
        return fmt::format("The best never wears {} pieces when they are new: the bonus does not "
                           "make up for what they lack.",
                           count);
    return fmt::format("The best wears {} pieces in {:.0f} % of its contexts; there the bonus is "
                       "{} of the margin.",
                       count, worth.reached * 100, percent(worth.gain));
}

/// In the world of the set's own tier, where the audit has that; else among all.
bool is_of_its_world(const Judging& judging, const AuditResult& result, SetId set,
                     const ContextRow& row) {
    const Context& here = row.context;
    const int world = judging.peers.world_of(set, here.character, here.level);
    if (row.highest_rank == world) return true;
    return row.whole() && std::none_of(result.contexts.begin(), result.contexts.end(),
                                       [&](const ContextRow& other) {
                                           return other.highest_rank == world &&
                                                  other.context.character == here.character &&
                                                  other.context.level == here.level &&
                                                  other.context.encounter == here.encounter;
                                       });
}

StepWorth judge_step(const Judging& judging, const AuditResult& result, SetId set,
                     std::size_t step) {
    const Armoury& armoury = judging.armoury;
    const SetStep& bonus = armoury.at(set).steps[step];
    StepWorth worth;
    worth.set = set;
    worth.step = step;
    worth.from_level = level_of_piece(armoury, set, bonus.count);
    Armoury without = armoury;
    SetStep& gone = without.sets[set.index()].steps[step];
    gone.modifiers = {};
    gone.triggers.clear();
    Engine engine(without);
    double seen = 0, reached = 0, all = 0, reached_in_all = 0, gain = 0;
    for (const ContextRow& row : result.contexts) {
        if (!row.sound() || !is_of_its_world(judging, result, set, row)) continue;
        const int age = row.context.level - worth.from_level;
        const bool in_window = worth.from_level > 0 && age >= 0 && age < armoury.audit.window;
        worth.contexts += in_window;
        seen += in_window ? row.weight : 0;
        all += row.weight;
        if (pieces_worn(armoury, set, row.outfit) < bonus.count) continue;
        const FightSetup setup = set_up_fight(without, row.outfit, row.context.encounter);
        engine.prepare(setup);
        const Margin margin = even_margin(engine, row.best.value);
        if (margin.error) continue;
        reached += in_window ? row.weight : 0;
        reached_in_all += row.weight;
        gain += row.weight * (1 - margin.value / row.best.value);
    }
    worth.reached = seen > 0 ? reached / seen : 0;
    worth.gain = reached_in_all > 0 ? gain / reached_in_all : 0;
    worth.reached_in_all = all > 0 ? reached_in_all / all : 0;
    worth.sentence = sentence_of(worth, bonus.count);
    return worth;
}

} // namespace

std::vector<StepWorth> judge_sets(const Judging& judging, const AuditResult& result) {
    const Armoury& armoury = judging.armoury;
    std::vector<StepWorth> list;
    for (std::size_t s = 0; s < armoury.sets.size(); ++s)
        for (std::size_t step = 0; step < armoury.sets[s].steps.size(); ++step)
            list.push_back(judge_step(judging, result, SetId(s), step));
    return list;
}

} // namespace panoplon
