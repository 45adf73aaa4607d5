#include "judge/search.h"

#include "outfit/load.h"
#include "outfit/outfit.h"

#include <algorithm>

namespace panoplon {

namespace {

/// A candidate has to be better by this share to count: above the precision of a margin.
constexpr double gain_worth_having = 3e-4;
/// An exchange that by itself loses more than this share of the margin is left out of pairs and of
/// searches under a condition: what goes with it would have to make up for more than that.
constexpr double hopeless_loss = 0.1;
/// Exchanges stop after this many successes: each gains, so this is only a guard.
constexpr int most_steps = 400;

} // namespace

Search::Search(const Armoury& armoury, const std::vector<ItemId>& groups)
    : armoury_(armoury),
      groups_(groups),
      engine_(armoury) {
    for (std::size_t s = 0; s < armoury.slots.size(); ++s)
        for (int i = 0; i < armoury.slots[s].count; ++i) places_.emplace_back(s);
}

void Search::enter(const Context& context, const std::optional<Candidate>& hint) {
    context_ = context;
    hint_ = hint;
    options_.assign(armoury_.slots.size(), {});
    consumables_.clear();
    wearable_.clear();
    for (std::size_t i = 0; i < armoury_.items.size(); ++i) {
        const Item& item = armoury_.items[i];
        if (item.use) consumables_.emplace_back(i);
        if (!item.worn() || item.level > context.level) continue;
        options_[item.slot.index()].emplace_back(i);
        wearable_.emplace_back(i);
    }
    setup_.encounter = context.encounter;
    setup_.actors.clear();
    setup_.actors.push_back(
        set_up_character(armoury_, {context.character, context.level, {}, {}, {}}));
    for (ActorSetup& foe : set_up_foes(armoury_, armoury_.at(context.encounter), context.level))
        setup_.actors.push_back(std::move(foe));
    base_ = setup_.actors.front().base;
    stats_.resize(armoury_.stats.size());
    engine_.prepare(setup_);
    best_ = {};
    without_.assign(armoury_.items.size(), {});
    with_.assign(armoury_.items.size(), {});
    empty_.clear();
    for (const Slot& slot : armoury_.slots)
        empty_.emplace_back(static_cast<std::size_t>(slot.count));
    error_.reset();
}

Outfit Search::outfit_of(const Candidate& candidate) const {
    Outfit outfit{context_.character, context_.level, {}, {}, {}};
    for (std::size_t p = 0; p < places_.size(); ++p)
        if (candidate.places[p].given())
            outfit.worn.push_back({places_[p], candidate.places[p], {}});
    for (std::size_t c = 0; c < consumables_.size(); ++c)
        if (candidate.counts[c] > 0)
            outfit.pack.push_back({consumables_[c], candidate.counts[c], {}});
    return outfit;
}

/// Readies the engine for a candidate that is legal and meets the condition.
Search::Ready Search::make_ready(const Candidate& candidate, const Condition& condition) {
    const bool banned =
        !condition.banned.empty() &&
        std::any_of(candidate.places.begin(), candidate.places.end(),
                    [&](ItemId item) { return item.given() && condition.banned[item.index()]; });
    if (banned) return Ready::no;
    const Outfit outfit = outfit_of(candidate);
    if (pack_stacks(armoury_, outfit) > armoury_.carry.bag) return Ready::no;
    character_ = set_up_character(armoury_, outfit, base_);
    if (armoury_.carry.capacity.given()) {
        Deriver& deriver = engine_.deriver();
        deriver.derive(base_, character_.sums, context_.level, stats_);
        const Load load =
            weigh(armoury_.carry, worn_weight(armoury_, outfit), pack_weight(armoury_, outfit),
                  deriver.capacity(stats_, context_.level));
        if (load.over_limit || load.band > condition.highest_band) return Ready::too_heavy;
    }
    engine_.prepare_character(character_);
    return Ready::yes;
}

std::optional<Margin> Search::margin_of(const Candidate& candidate, const Condition& condition,
                                        double guess) {
    if (make_ready(candidate, condition) != Ready::yes) return std::nullopt;
    const Margin margin = even_margin(engine_, guess);
    if (margin.error) {
        error_ = margin.error;
        return std::nullopt;
    }
    note(candidate, margin);
    return margin;
}

/// One fight at the incumbent's margin tells whether a candidate is better (M86).
bool Search::beats(const Candidate& candidate, const Condition& condition, double margin) {
    if (make_ready(candidate, condition) != Ready::yes) return false;
    const FightResult& result =
        engine_.run(margin * (1 + gain_worth_having), std::nullopt, Detail::outcome);
    if (result.error) error_ = result.error;
    return result.won;
}

/// Too heavy by itself is not hopeless: what it is exchanged with may make room.
bool Search::hopeless(const Candidate& candidate, const Condition& condition, double margin) {
    const Ready ready = make_ready(candidate, condition);
    if (ready != Ready::yes) return ready == Ready::no;
    return !engine_.run(margin * (1 - hopeless_loss), std::nullopt, Detail::outcome).won;
}

/// Keeps what is better than what was seen before, under every condition that it meets (M80).
void Search::note(const Candidate& candidate, const Margin& margin) {
    const auto keep = [&](Found& found) {
        if (!found.any || margin.value > found.margin.value) found = {candidate, margin, true};
    };
    keep(best_);
    std::vector<bool> worn(armoury_.items.size(), false);
    std::vector<int> held(armoury_.slots.size(), 0);
    for (std::size_t p = 0; p < places_.size(); ++p) {
        if (!candidate.places[p].given()) continue;
        worn[group(candidate.places[p]).index()] = true;
        ++held[places_[p].index()];
    }
    for (const ItemId item : wearable_)
        if (group(item) == item)
            keep(worn[item.index()] ? with_[item.index()] : without_[item.index()]);
    for (std::size_t s = 0; s < held.size(); ++s)
        for (int places = 1; places <= armoury_.slots[s].count - held[s]; ++places)
            keep(empty_[s][static_cast<std::size_t>(places - 1)]);
}

bool Search::try_candidate(Found& from, const Candidate& candidate, const Condition& condition) {
    if (!beats(candidate, condition, from.margin.value)) return false;
    const auto margin = margin_of(candidate, condition, from.margin.value);
    if (!margin || margin->value <= from.margin.value) return false;
    from = {candidate, *margin, true};
    return true;
}

/// Goes once through all single exchanges, taking each that helps.
bool Search::step(Found& from, const Condition& condition) {
    bool better = false;
    for (const Move& move : moves(from.candidate, condition)) {
        if (error_) return false;
        const Candidate candidate = moved(from.candidate, move);
        if (candidate != from.candidate && try_candidate(from, candidate, condition)) better = true;
    }
    return better;
}

/// The first exchange of two things at a time that helps (M86).
bool Search::pair_step(Found& from, const Condition& condition) {
    std::vector<Move> list = moves(from.candidate, condition);
    std::erase_if(list, [&](const Move& move) {
        return hopeless(moved(from.candidate, move), condition, from.margin.value);
    });
    for (std::size_t a = 0; a < list.size(); ++a)
        for (std::size_t b = 0; b < a; ++b) {
            if (error_) return false;
            const bool same = list[a].place == list[b].place && list[a].packed == list[b].packed;
            const Candidate candidate = moved(moved(from.candidate, list[b]), list[a]);
            if (!same && try_candidate(from, candidate, condition)) return true;
        }
    return false;
}

/// Goes from a start to where no exchange helps; all on the way is noted.
void Search::climb(Candidate start, const Condition& condition, bool pairs) {
    const auto margin = margin_of(start, condition, best_.any ? best_.margin.value : 1);
    if (!margin) return;
    Found found{std::move(start), *margin, true};
    for (int i = 0; i < most_steps && !error_ && found.margin.reach != Reach::above; ++i)
        if (!step(found, condition) && !(pairs && pair_step(found, condition))) break;
}

bool Search::find_best() {
    for (const Candidate& start : starts()) climb(start, {}, false);
    // The edge of a band is a cliff that no small step crosses: climb under each by itself.
    for (int band = no_band; band < static_cast<int>(armoury_.carry.bands.size()) - 1; ++band) {
        Condition light;
        light.highest_band = band;
        climb(bare(), light, true);
    }
    if (best_.any) climb(best_.candidate, {}, true);
    if (error_ || !best_.any) return false;
    find_lively();
    return true;
}

void Search::find_without(ItemId item) {
    Condition condition;
    condition.lively_only = true;
    condition.open_slot = armoury_.at(item).slot;
    for (const ItemId first_twin : groups_) condition.banned.push_back(first_twin == group(item));
    Candidate start = best_.candidate;
    for (ItemId& worn : start.places)
        if (worn.given() && condition.banned[worn.index()]) worn = {};
    climb(std::move(start), condition, false);
}

int Search::place_of(SlotId slot) const {
    return static_cast<int>(std::find(places_.begin(), places_.end(), slot) - places_.begin());
}

void Search::find_with(ItemId item) {
    // In a slot of several places it stands in for each of those that are worn there in turn.
    const SlotId slot = armoury_.at(item).slot;
    for (int i = 0; i < armoury_.at(slot).count; ++i) {
        Condition condition;
        condition.lively_only = true;
        condition.fixed_places = {place_of(slot) + i};
        Candidate start = best_.candidate;
        start.places[static_cast<std::size_t>(condition.fixed_places.front())] = item;
        climb(std::move(start), condition, false);
    }
}

void Search::find_empty(SlotId slot, int places) {
    // Which of its places stay empty does not matter but for what is left in the others.
    const int count = armoury_.at(slot).count;
    for (int first = 0; first + places <= count; ++first) {
        Condition condition;
        condition.lively_only = true;
        Candidate start = best_.candidate;
        for (int i = first; i < first + places; ++i) {
            const int place = place_of(slot) + i;
            condition.fixed_places.push_back(place);
            start.places[static_cast<std::size_t>(place)] = {};
        }
        climb(std::move(start), condition, false);
    }
}

int Search::worn_in_best(ItemId item) const {
    const auto is_it = [&](ItemId worn) { return worn.given() && group(worn) == group(item); };
    return static_cast<int>(
        std::count_if(best_.candidate.places.begin(), best_.candidate.places.end(), is_it));
}

} // namespace panoplon
