#include "journey/traveller.h"

#include "outfit/needs.h"
#include "outfit/points.h"

#include <algorithm>
#include <fmt/format.h>
#include <numeric>

namespace panoplon {

namespace {

/// Fights of one trial have luck of their own, no two alike.
constexpr std::uint64_t most_fights = 1ULL << 32;

/// A change has to be better by this share to count: above the precision of a margin.
constexpr double gain_worth_having = 3e-4;

/// Units worn, in sockets and packed, by item.
std::vector<double> units_of(const Armoury& armoury, const Outfit& outfit) {
    std::vector<double> units(armoury.items.size(), 0.0);
    for_each_worn(outfit.worn, [&](const WornItem& worn) { units[worn.item.index()] += 1; });
    for (const PackedItem& packed : outfit.pack)
        units[packed.item.index()] += static_cast<double>(packed.count);
    return units;
}

} // namespace

Outfit journey_start(const Armoury& armoury, const Journey& journey) {
    const Loadout& start = armoury.at(journey.start);
    return outfit_of(armoury, start, std::max(start.levels.first, armoury.levels.first));
}

Traveller::Traveller(JourneyKit& kit, const Journey& journey, const Luck& luck)
    : kit_(kit),
      armoury_(kit.armoury()),
      journey_(journey),
      luck_(luck),
      outfit_(journey_start(kit.armoury(), journey)),
      coin_(journey.coin),
      items_(armoury_.items.size()),
      bought_(armoury_.upgrades.size(), 0),
      first_pack_(outfit_.pack),
      unsold_(armoury_.items.size(), 0),
      worn_out_(armoury_.items.size(), 0) {
    fights_at_.resize(static_cast<std::size_t>(armoury_.levels.last - armoury_.levels.first) + 1);
    const std::vector<double> units = units_of(armoury_, outfit_);
    for (std::size_t i = 0; i < units.size(); ++i) items_[i].had = units[i];
    for (const PackedItem& packed : outfit_.pack)
        if (armoury_.at(packed.item).worn()) kept_.push_back(packed);
}

void Traveller::go() {
    stand(kit_.start_power(outfit_));
    for (const Stage& stage : journey_.stages) {
        ready_ = false;
        margin_.reset();
        if (!pass(stage)) break;
    }
    finished_ = stages_.size() == journey_.stages.size() && stages_.back().passed;
    check_units();
}

/// Fights until the stage is won often enough; false where the journey ends here.
bool Traveller::pass(const Stage& stage) {
    StageTrial& trial = stages_.emplace_back();
    if (stage.rest) begins_.clear();
    visit_shop(stage);
    while (!error_ && trial.wins < stage.wins && trial.tries < stage.tries) {
        trial.missing = missing_for(kit_.deriver(), outfit_, armoury_.at(stage.encounter));
        if (!trial.missing.empty()) break;
        trial.tries += 1;
        if (!fight(stage)) continue;
        trial.wins += 1;
        coin_ += stage.coin;
        const std::vector<int> came = foes_that_came(stage);
        grow(std::accumulate(came.begin(), came.end(), 0));
        find(stage, came);
        buy();
    }
    trial.passed = !error_ && trial.wins >= stage.wins;
    if (trial.passed) give(stage);
    if (trial.passed && stage.level_gain > 0) {
        outfit_.level = std::min(armoury_.levels.last, outfit_.level + stage.level_gain);
        spend_points();
        outfit_changed();
    }
    trial.level = outfit_.level;
    trial.time = time_;
    trial.coin = coin_;
    if (!error_) stand(power_ ? power_ : kit_.power(outfit_, last_power()));
    if (!trial.passed) return false;
    trial.stock = stock();
    if (power_) trial.power = power_->value;
    return true;
}

bool Traveller::fight(const Stage& stage) {
    count_worn();
    make_ready(stage);
    last_luck_ = {luck_.seed, luck_.trial * most_fights + static_cast<std::uint64_t>(fights_)};
    const FightResult& result = kit_.fight(begins_, last_luck_);
    fights_ += 1;
    time_ += result.time;
    if (result.error) error_ = result.error;
    carry_over(result);
    const bool won = result.won;
    spend(result);
    wear_out();
    return won;
}

/// M97b.
void Traveller::carry_over(const FightResult& result) {
    begins_.clear();
    if (journey_.carries_over.empty() || !result.won || result.error) return;
    for (const Pool& pool : armoury_.pools) begins_.push_back(pool.start);
    for (const PoolId pool : journey_.carries_over)
        begins_[pool.index()] = result.pools_left[pool.index()];
}

/// What was used up is gone from the pack.
void Traveller::spend(const FightResult& result) {
    bool spent = false;
    for (std::size_t i = 0; i < result.uses.size(); ++i) {
        items_[outfit_.pack[i].item.index()].used += result.uses[i].used;
        outfit_.pack[i].count -= static_cast<std::int64_t>(result.uses[i].used);
        spent = spent || result.uses[i].used > 0;
    }
    if (!spent) return;
    std::erase_if(outfit_.pack, [](const PackedItem& packed) { return packed.count == 0; });
    outfit_changed();
}

/// By group of the encounter, how many there were in the last fight.
std::vector<int> Traveller::foes_that_came(const Stage& stage) const {
    const std::vector<FoeGroup>& groups = armoury_.at(stage.encounter).foes;
    std::vector<int> came;
    for (std::size_t g = 0; g < groups.size(); ++g)
        came.push_back(foes_that_come(groups[g], group_draw(last_luck_, g)));
    return came;
}

/// What the stage finds, then what each foe that came leaves (M97a).
void Traveller::find(const Stage& stage, const std::vector<int>& came) {
    if (stage.drops.given()) find_in(stage, stage.drops, 0);
    constexpr std::uint64_t most_finds = 10000; // of one foe, or of the stage
    const Encounter& encounter = armoury_.at(stage.encounter);
    std::uint64_t foes = 0;
    for (std::size_t g = 0; g < encounter.foes.size(); ++g) {
        for (int i = 0; i < came[g]; ++i)
            if (const DropsId drops = armoury_.at(encounter.foes[g].foe).drops; drops.given())
                find_in(stage, drops, ++foes * most_finds);
    }
}

void Traveller::find_in(const Stage& stage, DropsId id, std::uint64_t first_draw) {
    const Drops& drops = armoury_.at(id);
    const auto place = static_cast<std::uint64_t>(fights_);
    const FindTable& table = kit_.finds(id, outfit_.level);
    const double luck = kit_.luck(id, outfit_);
    const int finds = count_finds(drops.rolls, find_draw(luck_, place, first_draw));
    for (int i = 0; i < finds; ++i) {
        const std::uint64_t ordinal = first_draw + static_cast<std::uint64_t>(i) + 1;
        const double draw = find_draw(luck_, place, ordinal);
        const auto item = table.pick(luck, draw);
        if (!item) continue;
        const std::int64_t units = units_of_find(drops, *item);
        items_[item->index()].found += static_cast<double>(units);
        take(stage, *item, units, draw_of_find(armoury_.at(*item), luck_, place, ordinal));
    }
}

/// What a stage gives at its end, found so to speak, and upgrades.
void Traveller::give(const Stage& stage) {
    for (const PackedItem& given : stage.gives) {
        items_[given.item.index()].found += static_cast<double>(given.count);
        take(stage, given.item, given.count, {});
    }
    for (const auto& [upgrade, levels] : stage.gains) {
        const int most = armoury_.at(upgrade).max - bought_[upgrade.index()];
        for (int i = 0; i < std::min(levels, most); ++i) raise(upgrade);
    }
}

/// Worn where the policy wants it, packed where it is used up, else left where it lies.
void Traveller::take(const Stage& stage, ItemId item, std::int64_t units, Drawn drawn) {
    if (armoury_.at(item).worn()) {
        const bool worn = put_on_if_better(stage, item, std::move(drawn));
        items_[item.index()].had += static_cast<double>(units) - (worn ? 1 : 0);
        leave(item, static_cast<double>(units) - (worn ? 1 : 0));
        return;
    }
    items_[item.index()].had += static_cast<double>(units);
    const ChangeOutcome outcome = take_up(kit_.deriver(), outfit_, item, units);
    const std::int64_t left = outcome.done() ? outcome.left : units;
    leave(item, static_cast<double>(left));
    if (left < units) outfit_changed();
}

/// With what it comes with.
void Traveller::count_had(ItemId item, std::int64_t units) {
    items_[item.index()].had += static_cast<double>(units);
    for (const PackedItem& inner : contents_of(armoury_, item))
        items_[inner.item.index()].had +=
            static_cast<double>(inner.count) * static_cast<double>(units);
}

bool Traveller::put_on_if_better(const Stage& stage, ItemId item, Drawn drawn) {
    Outfit changed = outfit_;
    if (!put_on(kit_.deriver(), changed, item, std::move(drawn)).done()) return false;
    if (!prefers(stage, changed, item)) return false;
    // One that was in the pack is put on, and the one that was found is left in its stead.
    const bool had_one = std::any_of(outfit_.pack.begin(), outfit_.pack.end(),
                                     [&](const PackedItem& packed) { return packed.item == item; });
    if (had_one) {
        items_[item.index()].had += 1;
        leave(item, 1);
    } else {
        count_had(item, 1);
    }
    worn_out_[item.index()] = 0;
    leave_taken_off(changed);
    outfit_ = std::move(changed);
    outfit_changed();
    return true;
}

/// What came off goes no further; gear that was in the pack at the start stays there.
void Traveller::leave_taken_off(Outfit& changed) {
    for (PackedItem& packed : changed.pack) {
        if (!armoury_.at(packed.item).worn()) continue;
        std::int64_t keeps = 0;
        for (const PackedItem& kept : kept_)
            if (kept.item == packed.item) keeps = kept.count;
        const std::int64_t leaves = std::max<std::int64_t>(0, packed.count - keeps);
        packed.count -= leaves;
        leave(packed.item, static_cast<double>(leaves));
    }
    std::erase_if(changed.pack, [](const PackedItem& packed) { return packed.count == 0; });
}

bool Traveller::prefers(const Stage& stage, const Outfit& changed, ItemId item) {
    if (journey_.policy == Policy::best) return beats_now(stage, changed);
    // What it takes the place of: worn before and no more.
    const std::vector<double> before =
        units_of(armoury_, {outfit_.character, 1, outfit_.worn, {}, {}, {}, {}});
    const std::vector<double> after =
        units_of(armoury_, {outfit_.character, 1, changed.worn, {}, {}, {}, {}});
    const auto rank = [&](ItemId id) {
        const Item& one = armoury_.at(id);
        return one.tier.given() ? armoury_.at(one.tier).rank : std::numeric_limits<int>::min();
    };
    bool prefers = true;
    for (std::size_t i = 0; i < before.size(); ++i)
        if (after[i] < before[i])
            prefers = prefers && journey_.policy == Policy::tier && rank(item) > rank(ItemId(i));
    return prefers;
}

/// One fight by even luck at the margin of what is worn tells whether a change is better (M86).
bool Traveller::beats_now(const Stage& stage, const Outfit& changed) {
    if (!margin_) {
        make_ready(stage);
        const Margin margin = turn_near(kit_.engine(), last_margin_);
        if (margin.error) error_ = margin.error;
        margin_ = last_margin_ = margin.value;
    }
    kit_.set_up_rival(changed, stage.encounter);
    return kit_.rival().run(*margin_ * (1 + gain_worth_having), std::nullopt, Detail::outcome).won;
}

void Traveller::make_ready(const Stage& stage) {
    if (!ready_) kit_.engine().prepare(kit_.set_up(outfit_, stage.encounter));
    ready_ = true;
}

/// The cheapest next level of any upgrade, again and again, as long as there is coin for it.
void Traveller::buy() {
    while (true) {
        std::optional<std::size_t> cheapest;
        double least = coin_;
        for (std::size_t u = 0; u < armoury_.upgrades.size(); ++u) {
            const auto cost = kit_.cost(u, bought_[u], outfit_.level);
            if (!cost || !(*cost <= least) || *cost < 0 || (cheapest && *cost == least)) continue;
            cheapest = u;
            least = *cost;
        }
        if (!cheapest) return;
        coin_ -= least;
        raise(UpgradeId(*cheapest));
    }
}

/// As its first loadout spends them, at the level of now.
void Traveller::spend_points() {
    std::erase_if(outfit_.upgrades, [&](const BoughtUpgrade& bought) {
        return armoury_.at(bought.upgrade).points > 0;
    });
    for (const BoughtUpgrade& spent :
         spread_points(armoury_, points_at(armoury_, outfit_.character, outfit_.level),
                       armoury_.at(journey_.start).points))
        if (spent.levels > 0) outfit_.upgrades.push_back(spent);
    for (const BoughtUpgrade& own : armoury_.at(journey_.start).upgrades)
        if (armoury_.at(own.upgrade).points > 0) outfit_.upgrades.push_back(own);
}

/// One level more of an upgrade.
void Traveller::raise(UpgradeId id) {
    ++bought_[id.index()];
    const auto known =
        std::find_if(outfit_.upgrades.begin(), outfit_.upgrades.end(),
                     [&](const BoughtUpgrade& bought) { return bought.upgrade == id; });
    if (known == outfit_.upgrades.end())
        outfit_.upgrades.push_back({id, 1, {}});
    else
        known->levels += 1;
    outfit_changed();
}

void Traveller::count_worn() {
    const auto level = static_cast<std::size_t>(outfit_.level - armoury_.levels.first);
    fights_at_[level] += 1;
    for (ItemTrial& item : items_) item.worn_last = false;
    for_each_worn(outfit_.worn, [&](const WornItem& worn) {
        ItemTrial& item = items_[worn.item.index()];
        if (item.worn_last) return; // worn twice is worn
        item.worn_last = true;
        item.fights_worn += 1;
        item.fights_worn_at.resize(fights_at_.size());
        item.fights_worn_at[level] += 1;
        if (item.first_worn == 0) item.first_worn = outfit_.level;
    });
}

/// What it had is what it used, left and still has: nothing comes from nowhere or is lost.
void Traveller::check_units() {
    const std::vector<double> has = units_of(armoury_, outfit_);
    for (std::size_t i = 0; i < items_.size() && !error_; ++i) {
        const ItemTrial& item = items_[i];
        if (item.had == item.used + item.left + has[i]) continue;
        error_ = FightError{
            fmt::format("'{}': {} units came and {} went or are there: units are not conserved",
                        armoury_.items[i].id, item.had, item.used + item.left + has[i]),
            armoury_.items[i].span};
    }
}

std::vector<double> Traveller::stock() const {
    std::vector<double> units(items_.size(), 0.0);
    for (const PackedItem& packed : outfit_.pack)
        if (!armoury_.at(packed.item).worn())
            units[packed.item.index()] += static_cast<double>(packed.count);
    return units;
}

void Traveller::stand(const std::optional<Margin>& power) {
    if (power && power->error) error_ = power->error;
    power_ = power;
    way_.push_back({outfit_.level, time_, power ? power->value : 0});
}

/// What was known of its margins holds no more.
void Traveller::outfit_changed() {
    ready_ = false;
    margin_.reset();
    power_.reset();
}

} // namespace panoplon
