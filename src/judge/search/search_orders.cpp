// What a candidate does first (M80): each action of gear stands where it is best. Which order that
// is hangs little on what else is worn, so the first margin of a set of actions looks at every
// order, and what comes later begins from the one that was best then. Others are looked at only
// where a fight is lost by little. What is told is looked at in every order.
#include "judge/search/action_orders.h"
#include "judge/search/picture.h"
#include "judge/search/search.h"

namespace panoplon {

namespace {

/// Who leaves the foes more than this share of their health wins in no other order either.
constexpr double lost_by_far = 0.2;

} // namespace

std::vector<std::vector<ActionId>> Search::orders_of(const Outfit& outfit) const {
    const std::vector<ActionId>& own = armoury_.at(outfit.character).actions;
    if (!gear_acts_) return {own};
    std::vector<ActionId> of_gear = actions_had(armoury_, outfit.character, outfit.worn);
    of_gear.resize(of_gear.size() - own.size());
    return action_orders(of_gear, own);
}

/// That was best for the same actions; 0 where that is not known.
std::size_t Search::first_order() const {
    if (orders_.size() == 1) return 0;
    const auto usual = usual_orders_.find(orders_.front());
    return usual == usual_orders_.end() ? 0 : usual->second;
}

/// Whether the order that was best for the same actions will nearly always do.
bool Search::knows_order() const {
    return !exact_ && orders_.size() > 1 && usual_orders_.contains(orders_.front());
}

void Search::act_in_order(std::size_t order) {
    if (order_ == order) return;
    order_ = order;
    character_.actions = orders_[order];
    engine_.prepare_character(character_);
}

/// Whether it wins one fight, fought or known (M86).
bool Search::wins(const Candidate& candidate, Known& known, double strength) {
    if (strength <= known.won) return true;
    if (strength >= known.lost) return false;
    prepare(candidate, known);
    const std::size_t first = known.order;
    for (std::size_t i = 0; i < orders_.size(); ++i) {
        known.order = (first + i) % orders_.size();
        act_in_order(known.order);
        const FightResult& result = engine_.run(strength, std::nullopt, Detail::outcome);
        if (result.error) error_ = result.error;
        if (result.won) {
            known.won = strength;
            return true;
        }
        if (knows_order() && result.remainder < -lost_by_far) break;
    }
    known.order = first;
    known.lost = strength;
    return false;
}

/// In the order in which it won, where that will do.
Margin Search::near_margin(const Candidate& candidate, Known& known, double guess) {
    prepare(candidate, known);
    return knows_order() ? turn_near(engine_, guess) : measured(candidate, known, turn_near, guess);
}

/// Of the order of its actions that is best, which is known from then on. Whatever was known of
/// them before, it comes to the same.
Margin Search::measured(const Candidate& candidate, Known& known, Measure measure, double guess) {
    known.order = 0;
    prepare(candidate, known);
    Margin best = measure(engine_, guess);
    for (std::size_t order = 1; order < orders_.size(); ++order) {
        if (best.error || best.reach == Reach::above) break;
        act_in_order(order);
        const double more = best.value * (1 + gain_worth_having);
        if (!engine_.run(more, std::nullopt, Detail::outcome).won) continue;
        const Margin margin = measure(engine_, best.value);
        if (!margin.error && margin.value <= best.value) continue;
        best = margin;
        known.order = order;
    }
    if (orders_.size() > 1 && !closed_) usual_orders_[orders_.front()] = known.order;
    return best;
}

} // namespace panoplon
