#include "support/reference_fight.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace panoplon::test {

namespace {

struct Running {
    EffectId id;
    Ticks began = 0, end = 0, next_tick = 0;
    bool hostile = false;
    double absorb = 0;
    std::vector<double> rates; ///< by pool that it changes
};

struct Stack {
    ItemId item;
    std::int64_t left = 0;
    Ticks ready = 0;
};

struct Fired {
    Ticks ready = 0;
    std::uint64_t occasions = 0;
};

struct Someone {
    bool ours = false;
    std::string name;
    int level = 1;
    const Fighter* fighter = nullptr;
    std::vector<WornItem> worn; ///< with what their sockets hold, one after the other
    std::vector<BoughtUpgrade> upgrades;
    std::vector<Swap> swaps;
    std::vector<bool> swapped;     ///< done, or refused
    std::vector<ItemId> owned;     ///< worn or packed at the start
    double carried = 0;            ///< weight of all that is worn and packed
    std::vector<ActionId> actions; ///< of what is worn, then its own
    std::vector<Stack> pack;
    std::vector<std::pair<std::size_t, Formula>> rules; ///< stack and `when`; empty: by default
    Ticks arrival = 0, ready = 0, revived = -1;
    std::vector<Ticks> action_ready;
    std::vector<double> pools, ceilings;
    std::vector<Running> effects; ///< by effect, then by age
    std::map<const Trigger*, Fired> fired;
    std::uint64_t blows = 0, choices = 0;
    bool chooses_by_weight = false;
    int lives = 0;
    bool present = false, standing = true;
    int caller = -1;    ///< who calls it,
    ActionId called_by; ///< and by what
    Ticks stays = never, leaves = never;

    [[nodiscard]] bool active() const { return present && standing; }
};

class Reference {
  public:
    Reference(const Armoury& armoury, const Outfit& outfit, const Encounter& encounter,
              const Luck& luck, double strength)
        : a_(armoury),
          luck_(luck),
          strength_(strength),
          health_(armoury.combat.health.index()) {
        add_hero(outfit, a_.at(outfit.character).id, outfit.swaps);
        for (const LoadoutId id : encounter.allies)
            add_hero(outfit_of(a_, a_.at(id), outfit.level), "ally." + a_.at(id).id, {});
        const std::size_t ours = all_.size();
        for (std::size_t i = 0; i < a_.actions.size(); ++i)
            add_called(0, ActionId(i), "ally.", outfit.level);
        for (std::size_t i = 1; i < ours; ++i)
            for (const ActionId action : ever(all_[i]))
                add_called(i, action, "ally.", outfit.level);
        counted_.clear();
        const std::size_t first = all_.size();
        add_foes(encounter, outfit.level);
        const std::size_t end = all_.size();
        for (std::size_t i = first; i < end; ++i)
            for (const ActionId action : all_[i].fighter->actions)
                add_called(i, action, "", outfit.level);
        for (Someone& one : all_) start(one);
    }

    ReferenceResult run() {
        instant();
        while (!over_) {
            const Ticks next = next_moment();
            if (next >= a_.combat.time_limit) {
                now_ = a_.combat.time_limit;
                break;
            }
            now_ = next;
            instant();
        }
        result_.won = over_ && left(true);
        result_.time = to_units(now_);
        return std::move(result_);
    }

  private:
    void add_hero(const Outfit& outfit, const std::string& name, const std::vector<Swap>& swaps) {
        Someone hero;
        hero.ours = true;
        hero.name = name;
        hero.level = outfit.level;
        hero.fighter = &a_.at(outfit.character);
        hero.upgrades = outfit.upgrades;
        hero.swaps = swaps;
        hero.swapped.assign(swaps.size(), false);
        hero.worn = flat(outfit.worn);
        for (const WornItem& worn : hero.worn) {
            hero.owned.push_back(worn.item);
            hero.carried += to_weight(a_.at(worn.item).weight);
        }
        for (const PackedItem& packed : outfit.pack) {
            hero.owned.push_back(packed.item);
            hero.carried +=
                to_weight(a_.at(packed.item).weight) * static_cast<double>(packed.count);
            hero.pack.push_back({packed.item, packed.count, 0});
        }
        add_rules(hero, outfit);
        all_.push_back(std::move(hero));
    }

    static std::vector<WornItem> flat(const std::vector<WornItem>& worn) {
        std::vector<WornItem> list;
        for (const WornItem& one : worn) {
            list.push_back(one);
            const std::vector<WornItem> inside = flat(one.socketed);
            list.insert(list.end(), inside.begin(), inside.end());
        }
        return list;
    }

    /// M61: what worn gear gives stands before the fighter's own. What cools down stays.
    void list_actions(Someone& one) {
        const std::vector<ActionId> before = one.actions;
        const std::vector<Ticks> ready = one.action_ready;
        one.actions.clear();
        for (const WornItem& worn : one.worn)
            for (const ActionId id : a_.at(worn.item).actions) one.actions.push_back(id);
        one.actions.insert(one.actions.end(), one.fighter->actions.begin(),
                           one.fighter->actions.end());
        if (one.ours && one.caller < 0)
            std::erase_if(one.actions, [&](ActionId id) { return !wears_all(one, a_.at(id)); });
        one.action_ready.assign(one.actions.size(), 0);
        for (std::size_t i = 0; i < one.actions.size(); ++i)
            for (std::size_t j = 0; j < before.size(); ++j)
                if (one.actions[i] == before[j]) one.action_ready[i] = ready[j];
    }

    bool wears_all(const Someone& one, const Action& action) const {
        for (const std::string& tag : action.needs_worn) {
            bool worn = false;
            for (const WornItem& item : one.worn)
                for (const std::string& has : a_.at(item.item).tags) worn = worn || has == tag;
            if (!worn) return false;
        }
        return true;
    }

    void add_rules(Someone& hero, const Outfit& outfit) {
        std::vector<bool> ruled(hero.pack.size(), false);
        for (const UseRule& rule : outfit.uses)
            for (std::size_t i = 0; i < hero.pack.size(); ++i)
                if (hero.pack[i].item == rule.item) {
                    hero.rules.emplace_back(i, rule.when);
                    ruled[i] = true;
                }
        for (std::size_t i = 0; i < hero.pack.size(); ++i)
            if (!ruled[i] && a_.at(hero.pack[i].item).use)
                hero.rules.emplace_back(i, a_.at(hero.pack[i].item).use->when);
    }

    /// What an ally may ever do.
    std::vector<ActionId> ever(const Someone& one) {
        Someone probe = one;
        list_actions(probe);
        for (const auto& [stack, when] : probe.rules)
            if (const ActionId does = a_.at(probe.pack[stack].item).use->does; does.given())
                probe.actions.push_back(does);
        return probe.actions;
    }

    std::string numbered(const std::string& before, const std::string& id) {
        return fmt::format("{}{}.{}", before, id, ++counted_[id]);
    }

    /// M64a: a place for each of those that an action may call.
    void add_called(std::size_t by, ActionId action, const std::string& before, int level) {
        const Summons& summons = a_.at(action).summons;
        if (!summons.foe.given()) return;
        for (int i = 0; i < summons.most; ++i) {
            Someone one;
            one.ours = all_[by].ours;
            one.fighter = &a_.at(summons.foe);
            one.name = numbered(before, a_.at(summons.foe).id);
            one.level = level;
            one.chooses_by_weight = a_.at(summons.foe).chooses_by_weight;
            one.arrival = never;
            one.caller = static_cast<int>(by);
            one.called_by = action;
            one.stays = summons.duration;
            one.standing = false;
            all_.push_back(std::move(one));
        }
    }

    void add_foes(const Encounter& encounter, int level) {
        std::vector<FoeGroup> groups = encounter.foes;
        std::stable_sort(groups.begin(), groups.end(),
                         [](const FoeGroup& x, const FoeGroup& y) { return x.at < y.at; });
        for (std::size_t g = 0; g < groups.size(); ++g) {
            const FoeGroup& group = groups[g];
            // M65a
            const int come = group.count + static_cast<int>(group_draw(luck_, g) *
                                                            (group.most - group.count + 1));
            for (int i = 0; i < group.most; ++i) {
                Someone foe;
                foe.fighter = &a_.at(group.foe);
                foe.name = numbered("", a_.at(group.foe).id);
                foe.standing = i < come;
                foe.level = level;
                foe.chooses_by_weight = a_.at(group.foe).chooses_by_weight;
                foe.arrival = group.at;
                all_.push_back(std::move(foe));
            }
        }
    }

    void start(Someone& one) {
        one.ready = one.arrival;
        list_actions(one);
        one.pools.assign(a_.pools.size(), 0);
        one.ceilings.assign(a_.pools.size(), 0);
        find_ceilings(one);
        for (std::size_t p = 0; p < a_.pools.size(); ++p)
            one.pools[p] = one.ceilings[p] * a_.pools[p].start;
        if (a_.combat.lives.given())
            one.lives = static_cast<int>(std::floor(value(a_.combat.lives, one, nullptr)));
    }

    // --- stats: from nothing, whenever they are asked for (M1-M3, M50, M51)

    void add(const Modifiers& modifiers, double factor, std::vector<double>& adds,
             std::vector<double>& percents, std::vector<double>& times) const {
        for (const Amount& m : modifiers.add) adds[m.stat.index()] += m.amount * factor;
        for (const Amount& m : modifiers.percent) percents[m.stat.index()] += m.amount;
        for (const Amount& m : modifiers.times) times[m.stat.index()] *= m.amount;
    }

    /// What a find has more than the item in its middle (M44a, M44b, M97e).
    void add_find(const WornItem& worn, double factor, std::vector<double>& adds,
                  std::vector<double>& percents, std::vector<double>& times) const {
        const Item& item = a_.at(worn.item);
        for (const Amount& rolled : worn.drawn.rolled)
            for (const Amount& middle : item.modifiers.add)
                if (middle.stat == rolled.stat)
                    adds[rolled.stat.index()] += (rolled.amount - middle.amount) * factor;
        for (std::size_t d = 0; d < item.affixes.size(); ++d)
            if (!worn.drawn.affixes.empty() && worn.drawn.affixes[d].given())
                add(a_.at(worn.drawn.affixes[d]).modifiers, factor, adds, percents, times);
            else
                add(mean_of(item.affixes[d].id, item.level), factor, adds, percents, times);
        for (int i = 0; i < item.grows.most && i < worn.felled / std::max(1, item.grows.kills); ++i)
            add(item.grows.gives.modifiers, factor, adds, percents, times);
    }

    /// Of the affixes that a word means: each as often as its weight says.
    Modifiers mean_of(const std::string& word, int level) const {
        double weights = 0;
        std::map<std::pair<int, StatId>, double> sums;
        const auto each = [&](const auto& visit) {
            for (const Affix& affix : a_.affixes)
                if (affix.level <= level &&
                    (affix.id == word ||
                     std::count(affix.tags.begin(), affix.tags.end(), word) > 0))
                    visit(affix);
        };
        each([&](const Affix& affix) { weights += affix.weight; });
        each([&](const Affix& affix) {
            for (const Amount& m : affix.modifiers.add)
                sums[{0, m.stat}] += affix.weight * m.amount;
            for (const Amount& m : affix.modifiers.percent)
                sums[{1, m.stat}] += affix.weight * m.amount;
            for (const Amount& m : affix.modifiers.times)
                sums[{2, m.stat}] += affix.weight * (m.amount - 1);
        });
        Modifiers mean;
        for (const auto& [key, sum] : sums) {
            const auto& [change, stat] = key;
            if (change == 0) mean.add.push_back({stat, sum / weights});
            if (change == 1) mean.percent.push_back({stat, sum / weights});
            if (change == 2) mean.times.push_back({stat, 1 + sum / weights});
        }
        return mean;
    }

    std::vector<double> stats(const Someone& one, const Band* band) const {
        const std::size_t n = a_.stats.size();
        std::vector<double> base(n, 0), adds(n, 0), percents(n, 0), times(n, 1), final(n, 0);
        for (const Amount& m : one.fighter->base) base[m.stat.index()] += m.amount;
        for (const Growth& growth : one.fighter->growth)
            base[growth.stat.index()] += growth.per_level * (one.level - 1);
        add(one.fighter->modifiers, 1, adds, percents, times);
        for (const BoughtUpgrade& bought : one.upgrades)
            for (int i = 0; i < bought.levels; ++i)
                add(a_.at(bought.upgrade).modifiers, 1, adds, percents, times);
        for (const WornItem& worn : one.worn) {
            const Item& item = a_.at(worn.item);
            const Tier* tier = item.tier.given() ? &a_.at(item.tier) : nullptr;
            const double factor = tier ? tier->stat_factor : 1;
            add(item.modifiers, factor, adds, percents, times);
            add_find(worn, factor, adds, percents, times);
            if (tier) add(tier->modifiers, 1, adds, percents, times);
        }
        for (const SetStep* step : steps_of(one)) add(step->modifiers, 1, adds, percents, times);
        for (const Running& effect : one.effects)
            add(a_.at(effect.id).modifiers, 1, adds, percents, times);
        if (band) add(band->modifiers, 1, adds, percents, times);
        const auto settle_one = [&](std::size_t s) {
            const double raw = (base[s] + adds[s]) * (1 + percents[s] / 100) * times[s];
            final[s] = std::clamp(raw, a_.stats[s].min, a_.stats[s].max);
        };
        for (std::size_t s = 0; s < n; ++s)
            if (!a_.stats[s].value.given()) settle_one(s);
        for (const StatId id : a_.derived_order) {
            Environment env;
            env.self.stats = final.data();
            env[Scalar::level] = one.level;
            base[id.index()] += Evaluator(a_.at(id).value)(env);
            settle_one(id.index());
        }
        return final;
    }

    /// M43: different pieces count, and every step up to their number applies.
    std::vector<const SetStep*> steps_of(const Someone& one) const {
        std::vector<const SetStep*> steps;
        for (std::size_t s = 0; s < a_.sets.size(); ++s) {
            std::set<ItemId> pieces;
            for (const WornItem& worn : one.worn)
                if (a_.at(worn.item).set == SetId(s)) pieces.insert(worn.item);
            for (const SetStep& step : a_.sets[s].steps)
                if (step.count <= static_cast<int>(pieces.size())) steps.push_back(&step);
        }
        return steps;
    }

    std::pair<double, double> weight_and_capacity(const Someone& one) const {
        const std::vector<double> bandless = stats(one, nullptr);
        Environment env;
        env.self.stats = bandless.data();
        env[Scalar::level] = one.level;
        double capacity = Evaluator(a_.carry.capacity)(env);
        double weight = one.carried;
        for (const WornItem& worn : one.worn) {
            capacity += to_weight(a_.at(worn.item).grants.capacity);
            weight += to_weight(a_.at(worn.item).weight) * (a_.carry.worn_factor - 1);
        }
        return {weight, capacity};
    }

    double load_of(const Someone& one) const {
        if (!one.ours || one.caller >= 0 || !a_.carry.capacity.given()) return 0;
        const auto [weight, capacity] = weight_and_capacity(one);
        return weight / capacity;
    }

    const Band* band_of(const Someone& one) const {
        if (!one.ours || one.caller >= 0 || !a_.carry.capacity.given()) return nullptr;
        const auto [weight, capacity] = weight_and_capacity(one);
        const Band* highest = nullptr;
        double edge = -1;
        for (const Band& band : a_.carry.bands) {
            const double at = band.edge * capacity;
            const bool applies = band.includes ? weight > at - 1e-9 : weight > at + 1e-9;
            if (!applies || band.edge < edge) continue;
            highest = &band;
            edge = band.edge;
        }
        return highest;
    }

    std::vector<double> stats(const Someone& one) const { return stats(one, band_of(one)); }

    std::vector<double> copies_of(const Someone& one) const {
        std::vector<double> copies(a_.effects.size(), 0);
        for (const Running& effect : one.effects) copies[effect.id.index()] += 1;
        return copies;
    }

    double amount_of(const Quantity& quantity, const Someone& self, const Someone* other) const {
        return quantity.fixed() ? quantity.number : value(quantity.formula, self, other);
    }

    double value(const Formula& formula, const Someone& self, const Someone* other,
                 double amount = 0) const {
        const std::vector<double> own = stats(self);
        const std::vector<double> others = other ? stats(*other) : std::vector<double>();
        const std::vector<double> copies = copies_of(self);
        const std::vector<double> other_copies = other ? copies_of(*other) : std::vector<double>();
        Environment env;
        env.self = {own.data(), self.pools.data(), self.ceilings.data(), copies.data(),
                    load_of(self)};
        if (other)
            env.other = {others.data(), other->pools.data(), other->ceilings.data(),
                         other_copies.data(), load_of(*other)};
        env[Scalar::level] = self.level;
        env[Scalar::time] = to_units(now_);
        env[Scalar::strength] = strength_;
        env[Scalar::amount] = amount;
        return Evaluator(formula)(env);
    }

    /// M11, M69: a falling ceiling clamps, a rising one leaves the amount or its share.
    void find_ceilings(Someone& one) {
        const std::vector<double> now = stats(one);
        for (std::size_t p = 0; p < a_.pools.size(); ++p) {
            double ceiling = std::max(0.0, now[a_.pools[p].max.index()]);
            if (p == health_ && !one.ours) ceiling *= strength_;
            if (a_.pools[p].keep_share && ceiling > one.ceilings[p] && one.ceilings[p] > 0)
                one.pools[p] *= ceiling / one.ceilings[p];
            one.ceilings[p] = ceiling;
            one.pools[p] = std::clamp(one.pools[p], 0.0, ceiling);
        }
    }

    // --- telling

    void tell(const Someone& actor, const char* event, const std::string& source,
              const std::string& target, double amount, double pool_after) {
        result_.events.push_back(
            {to_units(now_), actor.name, event, source, target, amount, pool_after});
    }

    // --- the clock (M60)

    std::vector<std::size_t> in_order() const {
        std::vector<std::pair<double, std::size_t>> orders;
        for (std::size_t i = 0; i < all_.size(); ++i)
            orders.emplace_back(-value(a_.combat.order, all_[i], nullptr), i);
        std::stable_sort(orders.begin(), orders.end(),
                         [](const auto& x, const auto& y) { return x.first < y.first; });
        std::vector<std::size_t> list;
        for (const auto& [order, i] : orders) list.push_back(i);
        return list;
    }

    bool left(bool ours, bool there = false) const {
        return std::any_of(all_.begin(), all_.end(), [&](const Someone& one) {
            return one.ours == ours && one.standing && (!there || one.present);
        });
    }

    void instant() {
        order_ = in_order();
        for (const std::size_t i : order_)
            if (!over_ && all_[i].active()) tick(all_[i]);
        for (const std::size_t i : order_)
            if (!over_ && all_[i].active()) regenerate(all_[i]);
        for (const std::size_t i : order_)
            if (!over_ && all_[i].active()) end_effects(all_[i]);
        if (over_) return;
        for (const std::size_t i : order_)
            if (all_[i].active() && all_[i].leaves <= now_) leave(all_[i]);
        arrive();
        if (over_) return;
        for (Someone& one : all_) consider_swaps(one);
        consider_uses();
        if (over_) return;
        for (const std::size_t i : order_) {
            Someone& actor = all_[i];
            if (!actor.active() || actor.ready > now_) continue;
            const int place = choose(actor);
            if (place < 0) continue;
            strike(actor, static_cast<std::size_t>(place));
            if (over_) return;
            consider_uses();
            if (over_) return;
        }
    }

    /// M60b: every number in a condition that reads the time may be the moment at which it turns,
    /// or the tick after it is.
    template <class Later>
    static void look_at_clock(const Formula& when, const Later& later) {
        if (!when.reads(Scalar::time)) return;
        const char* at = when.text.c_str();
        while (*at != 0) {
            char* end = nullptr;
            const double number = std::strtod(at, &end);
            if (end != at) {
                const std::string before(when.text.c_str(), at);
                const std::size_t sign = before.find_last_not_of(' ');
                const bool equal = sign != std::string::npos && before[sign] == '=';
                const bool below = before.find_last_of("<>") != std::string::npos &&
                                   before[before.find_last_of("<>")] == '<';
                later(to_ticks(number) + (equal == below ? 1 : 0)); // `<=` and `>`
            }
            at = end == at ? at + 1 : end;
        }
    }

    Ticks next_moment() const {
        Ticks next = never;
        const auto later = [&](Ticks moment) {
            if (moment > now_) next = std::min(next, moment);
        };
        for (const Someone& one : all_) {
            if (!one.standing) continue;
            later(one.arrival);
            later(one.leaves);
            if (!one.present) continue;
            later(one.ready);
            for (const Ticks ready : one.action_ready) later(ready);
            for (std::size_t i = 0; i < one.actions.size(); ++i) // who is busy asks for none
                if (one.ready <= now_ && one.action_ready[i] <= now_ && left(!one.ours, true))
                    look_at_clock(a_.at(one.actions[i]).when, later);
            for (const auto& [stack, when] : one.rules)
                if (one.pack[stack].left > 0) look_at_clock(when, later);
            for (std::size_t i = 0; i < one.swaps.size(); ++i)
                if (!one.swapped[i]) {
                    later(one.swaps[i].at);
                    look_at_clock(one.swaps[i].when, later);
                }
            for (const Stack& stack : one.pack)
                if (stack.left > 0) later(stack.ready);
            for (const Running& effect : one.effects) {
                later(effect.end);
                if (!a_.at(effect.id).per_time.empty()) later(effect.next_tick);
            }
            for (const Pool& pool : a_.pools)
                if (pool.regen.given() && value(pool.regen, one, nullptr) != 0)
                    later(one.arrival +
                          (std::floor((now_ - one.arrival) / pool.period) + 1) * pool.period);
        }
        return next;
    }

    void arrive() {
        std::vector<Someone*> came;
        for (const std::size_t i : order_)
            if (!all_[i].present && all_[i].standing && all_[i].arrival <= now_) {
                all_[i].present = true;
                tell(all_[i], "arrives", "", "", 0, all_[i].pools[health_]);
            }
        for (Someone& one : all_)
            if (one.present && one.arrival == now_ && one.standing && one.caller < 0)
                fire(one, TriggerEvent::start, nullptr);
    }

    // --- swaps (M71)

    void consider_swaps(Someone& one) {
        if (!one.active() || one.ready > now_) return;
        for (std::size_t i = 0; i < one.swaps.size(); ++i) {
            const Swap& swap = one.swaps[i];
            const bool due =
                swap.when.given() ? value(swap.when, one, nullptr) != 0 : swap.at <= now_;
            if (one.swapped[i] || !due) continue;
            one.swapped[i] = true;
            if (swap_to(one, swap)) return;
        }
    }

    /// False, and told, where something that it wears is not there.
    bool swap_to(Someone& one, const Swap& swap) {
        const Loadout& to = a_.at(swap.to);
        Ticks takes = swap.takes;
        std::vector<ItemId> before;
        for (const WornItem& worn : one.worn) before.push_back(worn.item);
        for (const WornItem& worn : flat(to.worn)) {
            const auto at = std::find(before.begin(), before.end(), worn.item);
            if (at != before.end()) {
                before.erase(at);
                continue;
            }
            takes += a_.at(worn.item).draw_time;
            if (std::find(one.owned.begin(), one.owned.end(), worn.item) == one.owned.end()) {
                tell(one, "swap_refused", to.id, one.name, 0, one.pools[health_]);
                return false;
            }
        }
        for (const ItemId left : before) // M41b
            if (a_.at(left).cursed) {
                tell(one, "swap_refused", to.id, one.name, 0, one.pools[health_]);
                return false;
            }
        tell(one, "swaps", to.id, one.name, 0, one.pools[health_]);
        one.worn = flat(to.worn);
        one.swaps = to.swaps;
        one.swapped.assign(to.swaps.size(), false);
        one.ready = std::max(one.ready, now_ + takes);
        list_actions(one);
        find_ceilings(one);
        return true;
    }

    // --- pools (M10, M12, M12a, M23, M62, M64)

    /// What rounding can't tell from nothing of a pool, or from all of it.
    [[nodiscard]] static double hair(const Someone& one, std::size_t pool) {
        return 1e-9 * one.ceilings[pool];
    }

    static double take(Someone& one, std::size_t pool, double amount) {
        const double had = one.pools[pool];
        const bool all = had - amount <= hair(one, pool);
        one.pools[pool] = all ? 0 : had - amount;
        return all ? had : amount;
    }

    void restore(Someone& one, std::size_t pool, double amount, const std::string& source) {
        for (const Running& effect : one.effects) amount *= a_.at(effect.id).restore_factor;
        if (amount == 0) return;
        const double had = one.pools[pool];
        const bool full = had + amount >= one.ceilings[pool] - hair(one, pool);
        one.pools[pool] = full ? one.ceilings[pool] : had + amount;
        const double taken = full ? one.ceilings[pool] - had : amount;
        tell(one, "restores", source, a_.pools[pool].id, taken, one.pools[pool]);
    }

    bool warded(const Someone& one) const {
        return std::any_of(one.effects.begin(), one.effects.end(),
                           [&](const Running& effect) { return a_.at(effect.id).ward; });
    }

    struct Taken {
        double absorbed = 0, lost = 0;
    };

    Taken hurt(Someone& one, double amount) {
        Taken taken;
        if (one.revived == now_) return taken;
        std::vector<Running*> by_age;
        for (Running& effect : one.effects) by_age.push_back(&effect);
        std::stable_sort(by_age.begin(), by_age.end(),
                         [](const Running* x, const Running* y) { return x->began < y->began; });
        for (Running* effect : by_age) {
            const double had = effect->absorb;
            const double part = std::min(amount - taken.absorbed, had);
            effect->absorb = had - part <= 1e-9 * had ? 0 : had - part;
            taken.absorbed += part;
        }
        double rest = amount - taken.absorbed;
        for (std::size_t p = 0; p < a_.pools.size(); ++p) { // M23c
            if (!a_.pools[p].shields.given() || rest <= 0) continue;
            const double share = std::clamp(value(a_.pools[p].shields, one, nullptr), 0.0, 1.0);
            if (share <= 0) continue;
            const double part = take(one, p, share * rest);
            taken.absorbed += part;
            rest -= part;
        }
        if (rest > 1e-9 * amount) taken.lost = take(one, health_, rest);
        return taken;
    }

    void fall(Someone& one, Someone* by) {
        if (one.lives > 0) {
            --one.lives;
            one.revived = now_;
            one.pools[health_] = one.ceilings[health_] * a_.combat.revive_share;
            tell(one, "life_lost", "", "", 0, one.pools[health_]);
            fire(one, TriggerEvent::life_lost, nullptr);
            return;
        }
        one.standing = false;
        one.pools[health_] = 0;
        one.effects.clear();
        tell(one, "falls", "", "", 0, 0);
        for (Someone& other : all_)
            if (other.caller >= 0 && &all_[static_cast<std::size_t>(other.caller)] == &one &&
                other.standing)
                leave(other);
        over_ = !left(one.ours);
        if (by && !over_) fire(*by, TriggerEvent::kill, &one);
    }

    // --- who is called (M64a)

    void leave(Someone& one) {
        one.standing = one.present = false;
        one.leaves = never;
        one.pools[health_] = 0;
        one.effects.clear();
        tell(one, "leaves", "", "", 0, 0);
    }

    /// Who waits for this action of one.
    std::vector<Someone*> waiting(const Someone& one, ActionId action) {
        std::vector<Someone*> list;
        for (Someone& other : all_)
            if (other.caller == static_cast<int>(index_of(one)) && other.called_by == action &&
                !other.standing)
                list.push_back(&other);
        return list;
    }

    void call(Someone& one, ActionId id) {
        std::vector<Someone*> came = waiting(one, id);
        const auto count = static_cast<std::size_t>(a_.at(id).summons.count);
        if (came.size() > count) came.resize(count);
        for (Someone* other : came) {
            other->standing = other->present = true;
            other->arrival = now_;
            other->leaves = now_ + other->stays;
            other->revived = -1;
            other->actions.clear();
            other->action_ready.clear();
            for (auto& [trigger, state] : other->fired) state.ready = 0;
            start(*other);
            tell(one, "calls", a_.at(id).id, other->name, 0, other->pools[health_]);
        }
        for (Someone* other : came) fire(*other, TriggerEvent::start, nullptr);
    }

    // --- effects (M20-M23)

    void tick(Someone& one) {
        for (std::size_t i = 0; i < one.effects.size(); ++i) {
            const Effect& effect = a_.at(one.effects[i].id);
            if (effect.per_time.empty() || one.effects[i].next_tick != now_) continue;
            one.effects[i].next_tick += effect.period;
            if (one.pools[health_] <= 0) continue;
            for (std::size_t p = 0; p < effect.per_time.size(); ++p) {
                const PoolId pool = effect.per_time[p].first;
                const double amount = one.effects[i].rates[p] * to_units(effect.period);
                if (amount >= 0) {
                    restore(one, pool.index(), amount, effect.id);
                } else if (!(one.effects[i].hostile && warded(one))) {
                    take_tick(one, one.effects[i].hostile, pool.index(), -amount, effect.id);
                }
            }
        }
        if (one.pools[health_] <= 0) fall(one, nullptr);
    }

    void take_tick(Someone& one, bool hostile, std::size_t pool, double amount,
                   const std::string& effect) {
        if (hostile && one.ours) amount *= strength_;
        double lost = 0;
        if (hostile && pool == health_) {
            const Taken taken = hurt(one, amount);
            lost = taken.absorbed + taken.lost;
        } else {
            lost = take(one, pool, amount);
        }
        if (pool == health_) tell(one, "tick", effect, one.name, lost, one.pools[health_]);
    }

    void regenerate(Someone& one) {
        const Ticks since = now_ - one.arrival;
        for (std::size_t p = 0; p < a_.pools.size(); ++p) {
            const Pool& pool = a_.pools[p];
            if (!pool.regen.given() || since <= 0) continue;
            if (std::fmod(since, pool.period) != 0) continue;
            const double amount = value(pool.regen, one, nullptr) * to_units(pool.period);
            if (amount < 0)
                take(one, p, -amount);
            else if (one.pools[p] < one.ceilings[p])
                restore(one, p, amount, "regen");
        }
        if (one.pools[health_] <= 0) fall(one, nullptr);
    }

    void end_effects(Someone& one) {
        std::vector<Running> ended;
        for (std::size_t i = one.effects.size(); i-- > 0;) {
            if (one.effects[i].end > now_) continue;
            ended.push_back(one.effects[i]);
            one.effects.erase(one.effects.begin() + static_cast<std::ptrdiff_t>(i));
            tell(one, "effect_ends", a_.at(ended.back().id).id, one.name, 0, one.pools[health_]);
        }
        find_ceilings(one);
        for (const Running& effect : ended) { // M26
            const Aftermath& then = a_.at(effect.id).then;
            if (then.effect.given()) apply(one, then.effect, then.duration, effect.hostile, one);
        }
    }

    /// M24: by id or tag, or whatever the other side applied.
    bool means(const EffectGroup& group, const Running& effect) const {
        for (const std::string& word : group.words) {
            if (word == "hostile" && effect.hostile) return true;
            if (word == a_.at(effect.id).id) return true;
            for (const std::string& tag : a_.at(effect.id).tags)
                if (tag == word) return true;
        }
        return false;
    }

    bool has_any(const Someone& one, const EffectGroup& group) const {
        return std::any_of(one.effects.begin(), one.effects.end(),
                           [&](const Running& effect) { return means(group, effect); });
    }

    void remove(Someone& one, const EffectGroup& group) {
        for (std::size_t i = one.effects.size(); i-- > 0;) {
            if (!means(group, one.effects[i])) continue;
            const std::string id = a_.at(one.effects[i].id).id;
            one.effects.erase(one.effects.begin() + static_cast<std::ptrdiff_t>(i));
            tell(one, "effect_removed", id, one.name, 0, one.pools[health_]);
        }
        find_ceilings(one);
    }

    bool immune(const Someone& one, EffectId id, bool hostile) const {
        Running coming{};
        coming.id = id;
        coming.hostile = hostile;
        return std::any_of(one.effects.begin(), one.effects.end(), [&](const Running& effect) {
            return means(a_.at(effect.id).immune, coming);
        });
    }

    template <class Stops>
    bool stopped(const Someone& one, const Stops& stops) const {
        return std::any_of(one.effects.begin(), one.effects.end(),
                           [&](const Running& effect) { return stops(a_.at(effect.id)); });
    }

    std::vector<std::size_t> running(const Someone& one, EffectId id) const {
        std::vector<std::size_t> list;
        for (std::size_t i = 0; i < one.effects.size(); ++i)
            if (one.effects[i].id == id) list.push_back(i);
        return list;
    }

    void apply(Someone& one, EffectId id, Ticks duration, bool hostile, const Someone& by) {
        const Effect& effect = a_.at(id);
        if (hostile && warded(one)) {
            tell(one, "warded", effect.id, one.name, 0, one.pools[health_]);
            return;
        }
        if (immune(one, id, hostile)) {
            tell(one, "immune", effect.id, one.name, 0, one.pools[health_]);
            return;
        }
        std::vector<std::size_t> have = running(one, id);
        tell(one, have.empty() ? "effect" : "effect_again", effect.id, one.name,
             to_units(std::min(duration, a_.combat.time_limit)), one.pools[health_]);
        if (!have.empty() && effect.again == Again::refresh) {
            one.effects[have[0]].end = now_ + duration;
            return;
        }
        if (!have.empty() && effect.again == Again::extend) {
            one.effects[have[0]].end += duration;
            return;
        }
        if (!have.empty() && effect.again == Again::keep) return;
        if (effect.removes.given()) {
            remove(one, effect.removes);
            have = running(one, id);
        }
        if (static_cast<int>(have.size()) >= effect.pile_max && !have.empty())
            one.effects.erase(one.effects.begin() + static_cast<std::ptrdiff_t>(have[0]));
        const double absorb =
            effect.absorbs.given() ? std::max(0.0, value(effect.absorbs, one, nullptr)) : 0;
        std::vector<double> rates;
        for (const auto& [pool, rate] : effect.per_time) rates.push_back(amount_of(rate, one, &by));
        one.effects.push_back(
            {id, now_, now_ + duration, now_ + effect.period, hostile, absorb, rates});
        std::stable_sort(one.effects.begin(), one.effects.end(),
                         [](const Running& x, const Running& y) { return x.id < y.id; });
        find_ceilings(one);
    }

    // --- triggers (M62)

    void fire(Someone& one, TriggerEvent event, Someone* other) {
        std::vector<std::pair<const Trigger*, std::string>> waiting;
        const auto wait = [&](const Bearer& bearer) {
            for (const Trigger& trigger : bearer.triggers)
                if (trigger.on == event) waiting.emplace_back(&trigger, bearer.id);
        };
        wait(*one.fighter);
        for (const BoughtUpgrade& bought : one.upgrades)
            if (bought.levels > 0) wait(a_.at(bought.upgrade));
        std::vector<const Item*> items;
        for (const WornItem& worn : one.worn) items.push_back(&a_.at(worn.item));
        std::sort(items.begin(), items.end(),
                  [](const Item* x, const Item* y) { return x->id < y->id; });
        for (const Item* item : items) {
            wait(*item);
            if (item->tier.given()) wait(a_.at(item->tier));
        }
        for (const SetStep* step : steps_of(one)) wait(*step);
        if (const Band* band = band_of(one)) wait(*band);
        for (const Running& effect : one.effects) wait(a_.at(effect.id));
        for (const auto& [trigger, source] : waiting) fire_one(one, *trigger, source, other);
    }

    void fire_one(Someone& one, const Trigger& trigger, const std::string& source, Someone* other) {
        Fired& state = one.fired[&trigger];
        if (state.ready > now_) return;
        const auto key = static_cast<std::uint64_t>(trigger.effect.index()) * 16 +
                         static_cast<std::uint64_t>(trigger.on);
        if (trigger_draw(luck_, index_of(one), key, state.occasions++) >=
            std::clamp(amount_of(trigger.chance, one, other), 0.0, 1.0))
            return;
        Someone* receiver = trigger.to_self ? &one : other;
        if (!receiver || !receiver->active()) return;
        state.ready = now_ + trigger.cooldown;
        tell(one, "trigger", source, receiver->name, 0, one.pools[health_]);
        apply(*receiver, trigger.effect, trigger.duration, one.ours != receiver->ours, one);
    }

    // --- uses (M30-M33)

    void consider_uses() {
        for (const std::size_t i : order_) {
            if (!all_[i].active()) continue;
            if (stopped(all_[i], [](const Effect& effect) { return effect.stops_uses; })) continue;
            for (const auto& [stack, when] : all_[i].rules)
                if (!over_ && all_[i].standing) consider(all_[i], stack, when);
        }
    }

    void consider(Someone& one, std::size_t which, const Formula& when) {
        Stack& stack = one.pack[which];
        const Use& use = *a_.at(stack.item).use;
        const bool wanted = when.given() ? value(when, one, nullptr) != 0 : by_default(one, use);
        if (!wanted || stack.left == 0 || stack.ready > now_ || !does_something(one, use)) return;
        const double takes = amount_of(use.takes, one, nullptr);
        --stack.left;
        one.carried -= to_weight(a_.at(stack.item).weight);
        for (std::size_t i = 0; i < one.pack.size(); ++i) {
            const auto& other = a_.at(one.pack[i].item).use;
            if (i == which || (other && !use.group.empty() && other->group == use.group))
                one.pack[i].ready = std::max(one.pack[i].ready, now_ + use.cooldown);
        }
        tell(one, "uses", a_.at(stack.item).id, one.name, 0, one.pools[health_]);
        find_ceilings(one); // another load band may apply
        for (Someone& getter : all_) {
            if (!(&getter == &one || (use.to_allies && getter.ours && getter.active()))) continue;
            if (use.removes.given()) remove(getter, use.removes);
            if (use.effect.given()) apply(getter, use.effect, use.duration, false, one);
            for (const auto& [pool, amount] : use.restore)
                restore(getter, pool.index(), std::max(0.0, amount_of(amount, one, &getter)),
                        a_.at(stack.item).id);
        }
        if (use.does.given()) { // M32b
            strike_and_call(one, use.does);
            if (over_ || !one.standing) return;
        }
        fire(one, TriggerEvent::use, nullptr);
        if (takes > 0) one.ready = std::max(one.ready, now_ + to_ticks(takes));
    }

    bool by_default(const Someone& one, const Use& use) const {
        if (use.restore.empty() && use.removes.given()) return has_any(one, use.removes);
        if (use.restore.empty() && use.does.given()) return left(!one.ours, true);
        if (use.restore.empty()) return running(one, use.effect).empty();
        return std::any_of(use.restore.begin(), use.restore.end(), [&](const auto& restored) {
            const double missing =
                one.ceilings[restored.first.index()] - one.pools[restored.first.index()];
            const double near = hair(one, restored.first.index());
            return missing > 0 && (missing >= amount_of(restored.second, one, &one) - near ||
                                   one.pools[restored.first.index()] <
                                       0.35 * one.ceilings[restored.first.index()] - near);
        });
    }

    bool does_something(const Someone& user, const Use& use) {
        if (use.does.given() && left(!user.ours, true) &&
            (strikes(a_.at(use.does)) || !waiting(user, use.does).empty()))
            return true;
        return std::any_of(all_.begin(), all_.end(), [&](const Someone& one) {
            const bool gets = &one == &user || (use.to_allies && one.ours && one.active());
            return gets && does_something_to(one, use);
        });
    }

    bool does_something_to(const Someone& one, const Use& use) const {
        for (const auto& [pool, amount] : use.restore)
            if (one.pools[pool.index()] < one.ceilings[pool.index()]) return true;
        if (use.removes.given() && has_any(one, use.removes)) return true;
        if (!use.effect.given() || immune(one, use.effect, false)) return false;
        const std::vector<std::size_t> have = running(one, use.effect);
        if (have.empty()) return true;
        const Again again = a_.at(use.effect).again;
        if (again == Again::refresh) return now_ + use.duration > one.effects[have[0]].end;
        return again == Again::pile || (again == Again::extend && one.effects[have[0]].end < never);
    }

    // --- actions (M61, M62)

    std::uint64_t index_of(const Someone& one) const {
        return static_cast<std::uint64_t>(&one - all_.data());
    }

    int choose(Someone& one) {
        if (stopped(one, [](const Effect& effect) { return effect.stops_actions; })) return -1;
        const Someone* front = nullptr;
        for (const Someone* other : targets(one))
            if (!front) front = other;
        if (!front) return -1;
        std::vector<int> possible;
        for (std::size_t i = 0; i < one.actions.size(); ++i) {
            const Action& action = a_.at(one.actions[i]);
            const bool paid =
                std::all_of(action.cost.begin(), action.cost.end(), [&](const auto& c) {
                    const std::size_t pool = c.first.index();
                    return one.pools[pool] >= amount_of(c.second, one, nullptr) - hair(one, pool);
                });
            const bool called =
                !action.summons.foe.given() || !waiting(one, one.actions[i]).empty();
            if (one.action_ready[i] <= now_ && paid && called && has_units(one, action) &&
                (!action.when.given() || value(action.when, one, front) != 0))
                possible.push_back(static_cast<int>(i));
        }
        if (possible.empty()) return -1;
        return one.chooses_by_weight ? by_weight(one, possible) : possible.front();
    }

    /// M61a.
    int by_weight(Someone& one, const std::vector<int>& possible) {
        const auto weight = [&](int i) {
            return a_.at(one.actions[static_cast<std::size_t>(i)]).weight;
        };
        double whole = 0;
        for (const int i : possible) whole += weight(i);
        if (whole <= 0) return possible.front();
        const double drawn = choice_draw(luck_, index_of(one), one.choices++) * whole;
        double passed = 0;
        for (const int i : possible) {
            passed += weight(i);
            if (drawn < passed) return i;
        }
        return possible.back();
    }

    void strike(Someone& one, std::size_t place) {
        const Action& action = a_.at(one.actions[place]);
        std::vector<double> costs;
        for (const auto& [pool, cost] : action.cost)
            costs.push_back(std::max(0.0, amount_of(cost, one, nullptr)));
        for (std::size_t i = 0; i < costs.size(); ++i)
            take(one, action.cost[i].first.index(), costs[i]);
        if (one.ours && one.caller < 0)
            for (const PackedItem& spent : action.spends) { // M61b
                for (Stack& stack : one.pack)
                    if (stack.item == spent.item) stack.left -= spent.count;
                one.carried -=
                    to_weight(a_.at(spent.item).weight) * static_cast<double>(spent.count);
                find_ceilings(one);
            }
        for (const auto& [pool, amount] : action.restores)
            restore(one, pool.index(), std::max(0.0, amount_of(amount, one, nullptr)), action.id);
        one.ready = now_ + to_ticks(value(action.every, one, nullptr));
        one.action_ready[place] = now_ + action.cooldown;
        strike_and_call(one, one.actions[place]);
    }

    bool has_units(const Someone& one, const Action& action) const {
        if (!one.ours || one.caller >= 0) return true;
        for (const PackedItem& spent : action.spends) {
            std::int64_t left = 0;
            for (const Stack& stack : one.pack)
                if (stack.item == spent.item) left += stack.left;
            if (left < spent.count) return false;
        }
        return true;
    }

    /// What only restores and calls strikes nobody.
    static bool strikes(const Action& action) {
        return (action.restores.empty() && !action.summons.foe.given()) || !action.deals.empty() ||
               !action.applies.empty();
    }

    void strike_and_call(Someone& one, ActionId id) {
        if (strikes(a_.at(id))) blows(one, a_.at(id));
        if (!over_ && one.standing && a_.at(id).summons.foe.given()) call(one, id);
    }

    /// M23b: who taunts comes first.
    std::vector<Someone*> targets(const Someone& one) {
        std::vector<Someone*> first, then;
        for (Someone& other : all_)
            if (other.active() && other.ours != one.ours)
                (stopped(other, [](const Effect& effect) { return effect.taunts; }) ? first : then)
                    .push_back(&other);
        first.insert(first.end(), then.begin(), then.end());
        return first;
    }

    void blows(Someone& one, const Action& action) {
        int struck = 0;
        for (Someone* target : targets(one)) {
            if (!target->active()) continue;
            blow(one, action, *target);
            if (over_ || !one.standing || ++struck == action.targets) return;
        }
    }

    void blow(Someone& one, const Action& action, Someone& target) {
        const BlowDraws draws = blow_draws(luck_, index_of(one), one.blows++);
        const auto chance = [&](const Formula& formula) {
            return std::clamp(value(formula, one, &target), 0.0, 1.0);
        };
        const auto own = [](const Formula& mine, const Formula& others) -> const Formula& {
            return mine.given() ? mine : others;
        };
        if (draws.hit >= chance(own(action.hit, a_.combat.hit)))
            return tell(one, "misses", action.id, target.name, 0, target.pools[health_]);
        if (warded(target))
            return tell(one, "warded", action.id, target.name, 0, target.pools[health_]);
        const bool critical = draws.crit < chance(own(action.crit, a_.combat.crit));
        const double crit_factor =
            critical ? value(own(action.crit_factor, a_.combat.crit_factor), one, &target) : 1;
        const bool on_raw = !a_.combat.crit_after_mitigation;
        const bool ranged = !action.deals_up_to.empty();
        const double factor = (on_raw ? crit_factor : 1) *
                              (ranged ? 1 : 1 + a_.combat.spread * (2 * draws.spread - 1));
        // Amounts and shares are those of the moment at which the blow begins.
        const double returned =
            a_.combat.returned.given() ? std::max(0.0, value(a_.combat.returned, target, &one)) : 0;
        std::vector<double> amounts, shares;
        for (std::size_t i = 0; i < action.deals.size(); ++i) {
            double raw = value(action.deals[i].second, one, &target);
            if (ranged) raw += (value(action.deals_up_to[i], one, &target) - raw) * draws.spread;
            amounts.push_back(std::max(0.0, raw * factor));
        }
        for (const auto& [pool, share] : action.drains)
            shares.push_back(std::max(0.0, value(share, one, &target)));
        double lost = 0;
        double dealt = 0;
        for (std::size_t i = 0; i < action.deals.size(); ++i) {
            const Formula& mitigated = a_.at(action.deals[i].first).mitigated;
            const double through = std::max(0.0, value(mitigated, one, &target, amounts[i]));
            const Taken taken =
                hurt(target, through * (on_raw ? 1 : crit_factor) * (one.ours ? 1 : strength_));
            lost += taken.lost;
            dealt += taken.lost + taken.absorbed;
        }
        tell(one, critical ? "crits" : "hits", action.id, target.name, dealt,
             target.pools[health_]);
        for (std::size_t i = 0; i < action.drains.size(); ++i)
            restore(one, action.drains[i].first.index(), lost * shares[i], action.id);
        const bool comes_back = dealt * returned > 0 && !warded(one);
        if (comes_back) { // M62a
            const Taken back = hurt(one, dealt * returned * (target.ours ? 1 : strength_));
            tell(target, "returns", action.id, one.name, back.lost + back.absorbed,
                 one.pools[health_]);
        }
        if (target.pools[health_] <= 0) fall(target, &one);
        if (over_) return;
        if (comes_back && one.pools[health_] <= 0) {
            fall(one, &target);
            if (over_ || !one.standing) return;
        }
        fire(one, TriggerEvent::hit, &target);
        if (critical) fire(one, TriggerEvent::crit, &target);
        if (target.standing) fire(target, TriggerEvent::hurt, &one);
        for (std::size_t i = 0; i < action.applies.size(); ++i) {
            const Application& application = action.applies[i];
            const double draw =
                i == 0 ? draws.apply : application_draw(luck_, index_of(one), one.blows - 1, i);
            if (draw >= std::clamp(amount_of(application.chance, one, &target), 0.0, 1.0)) continue;
            Someone& receiver = application.to_self ? one : target;
            if (receiver.standing)
                apply(receiver, application.effect, application.duration, !application.to_self,
                      one);
        }
    }

    const Armoury& a_;
    Luck luck_;
    double strength_;
    std::size_t health_;
    std::vector<Someone> all_;
    std::map<std::string, int> counted_; ///< by foe, on a side
    std::vector<std::size_t> order_;
    Ticks now_ = 0;
    bool over_ = false;
    ReferenceResult result_;
};

} // namespace

ReferenceResult reference_fight(const Armoury& armoury, const Outfit& outfit, EncounterId encounter,
                                const Luck& luck, double strength) {
    return Reference(armoury, outfit, armoury.at(encounter), luck, strength).run();
}

} // namespace panoplon::test
