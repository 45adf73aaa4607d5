#include "fight/result.h"

#include <numeric>

namespace panoplon {

namespace {

UseCount& operator+=(UseCount& into, const UseCount& other) {
    into.used += other.used;
    into.refused += other.refused;
    into.left += other.left;
    into.cut += other.cut;
    into.overlap += other.overlap;
    return into;
}

ActionCount& operator+=(ActionCount& into, const ActionCount& other) {
    into.done += other.done;
    into.hits += other.hits;
    into.crits += other.crits;
    into.misses += other.misses;
    into.warded += other.warded;
    into.dealt += other.dealt;
    into.returned += other.returned;
    return into;
}

EffectCount& operator+=(EffectCount& into, const EffectCount& other) {
    into.uptime += other.uptime;
    into.cut += other.cut;
    into.overlap += other.overlap;
    return into;
}

Given& operator+=(Given& into, const Given& other) {
    into.restored += other.restored;
    into.wasted += other.wasted;
    return into;
}

/// Does something to every list of a ledger, with its length; written once for all that is done.
template <class Work>
void for_each_list(const LedgerShape& shape, Work work) {
    work(&Ledger::dealt, shape.damages);
    work(&Ledger::taken, shape.damages);
    work(&Ledger::dealt_by_effect, shape.effects);
    work(&Ledger::taken_by_effect, shape.effects);
    work(&Ledger::dealt_by_action, shape.actions * shape.damages);
    work(&Ledger::taken_by_action, shape.actions * shape.damages);
    work(&Ledger::restored, shape.pools);
    work(&Ledger::wasted, shape.pools);
    work(&Ledger::given, shape.sources() * shape.pools);
    work(&Ledger::uses, shape.packed);
    work(&Ledger::actions, shape.actions);
    work(&Ledger::foe_actions, shape.actions);
    work(&Ledger::effects, shape.effects);
}

} // namespace

void Ledger::reset(const LedgerShape& new_shape) {
    shape = new_shape;
    events = overkill = 0;
    for_each_list(shape, [&](auto list, std::size_t length) { (this->*list).assign(length, {}); });
}

void Ledger::sum_up() {
    const auto sum = [](std::vector<double>& sums, const auto& terms, auto value) {
        for (auto row = terms.begin(); row != terms.end(); row += std::ssize(sums))
            for (std::size_t i = 0; i < sums.size(); ++i) sums[i] += value(row[std::ptrdiff_t(i)]);
    };
    const auto itself = [](double points) { return points; };
    sum(dealt, dealt_by_action, itself);
    sum(taken, taken_by_action, itself);
    sum(restored, given, [](const Given& one) { return one.restored; });
    sum(wasted, given, [](const Given& one) { return one.wasted; });
}

void Ledger::add(const Ledger& other) {
    events += other.events;
    overkill += other.overkill;
    for_each_list(shape, [&](auto list, std::size_t length) {
        for (std::size_t i = 0; i < length; ++i) (this->*list)[i] += (other.*list)[i];
    });
}

double Ledger::all_dealt() const {
    return std::accumulate(dealt_by_effect.begin(), dealt_by_effect.end(),
                           std::accumulate(dealt.begin(), dealt.end(), 0.0));
}
double Ledger::all_taken() const {
    return std::accumulate(taken_by_effect.begin(), taken_by_effect.end(),
                           std::accumulate(taken.begin(), taken.end(), 0.0));
}

void FightResult::reset(const LedgerShape& new_shape) {
    Ledger::reset(new_shape);
    won = timed_out = false;
    time = remainder = 0;
    error.reset();
}

} // namespace panoplon
