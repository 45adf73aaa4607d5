#include "base/text.h"
#include "judge/paper/doubting.h"
#include "judge/paper/gear_sources.h"
#include "judge/paper/paper.h"
#include "model/budget.h"
#include "outfit/needs.h"
#include "outfit/outfit.h"

#include <cmath>

namespace panoplon {

namespace {

bool does_nothing(const Bearer& bearer) {
    return bearer.modifiers.empty() && bearer.triggers.empty();
}

/// What an item adds to a stat, with the affixes that add most of it.
double most_added(const Armoury& armoury, const Item& item, StatId stat) {
    const auto added = [&](const Bearer& bearer) {
        for (const Amount& amount : bearer.modifiers.add)
            if (amount.stat == stat) return amount.amount;
        return 0.0;
    };
    double sum = added(item);
    for (const AffixDraw& draw : item.affixes) {
        double most = -HUGE_VAL;
        for (const AffixId affix : draw.affixes) most = std::max(most, added(armoury.at(affix)));
        if (!draw.affixes.empty()) sum += most;
    }
    return sum;
}

/// Looks at items one by one.
class ItemDoubts {
  public:
    explicit ItemDoubts(Doubting& doubting)
        : doubting_(doubting),
          armoury_(doubting.armoury()),
          budget_(armoury_),
          sources_(armoury_),
          deriver_(armoury_) {
        naked_ = last_naked_stats(deriver_);
        for (const auto& stats : naked_) most_.push_back(most_stats(stats));
    }

    void run() {
        for (const Item& item : armoury_.items) look_at(item);
        twins();
    }

  private:
    void doubt(const char* kind, const Item& item, std::string message, std::string hint = {}) {
        doubting_.doubt(kind, "item", item, std::move(message), std::move(hint));
    }

    void look_at(const Item& item) {
        const bool never = look_at_wearing(item);
        if (item.worn() && idle(item))
            doubt("does_nothing", item, fmt::format("wearing '{}' changes nothing", item.id),
                  "it has no modifiers, triggers, actions, sockets, room or set");
        if (const auto budget = budget_(item)) look_at_budget(item, *budget);
        if (!item.adds_to_pattern)
            doubt("as_pattern", item,
                  fmt::format("'{}' is equal to its pattern '{}'", item.id,
                              armoury_.at(item.pattern).id));
        for (const Trigger& trigger : item.triggers) look_at_trigger(item, trigger);
        look_at_stack(item);
        if (item.use && !never) look_at_use(item);
        const std::string source =
            sources_.why_not_had(ItemId(static_cast<std::size_t>(&item - armoury_.items.data())));
        if (!source.empty())
            doubt("source_unknown", item, fmt::format("nobody comes by '{}': {}", item.id, source));
    }

    /// True when it told that nobody can wear or use it.
    bool look_at_wearing(const Item& item) {
        if (!item.worn() && !item.modifiers.empty()) {
            doubt("never_worn", item,
                  fmt::format("'{}' has modifiers but no slot: they never act", item.id),
                  "give it slot = \"…\"");
            return true;
        }
        const std::string why = why_never(armoury_, item, naked_);
        if (why.empty()) return false;
        doubt("never_worn", item,
              fmt::format("nobody can ever {} '{}': {}",
                          item.use     ? "use"
                          : item.spent ? "spend"
                                       : "wear",
                          item.id, why));
        return true;
    }

    [[nodiscard]] bool idle(const Item& item) const {
        const bool tier_gives = item.tier.given() && !does_nothing(armoury_.at(item.tier));
        return does_nothing(item) && item.affixes.empty() && item.grows.kills == 0 &&
               item.actions.empty() && item.sockets.empty() && !tier_gives && !item.set.given() &&
               item.contains.empty() && item.grants.bag == 0 && item.grants.capacity == 0;
    }

    void look_at_budget(const Item& item, const BudgetUse& budget) {
        const double off = budget.share() - 1;
        constexpr double rounding = 1e-9; // of the division: an item at the tolerance is within it
        if (std::abs(off) <= armoury_.budget.tolerance + rounding) return;
        doubt("off_budget", item,
              fmt::format("'{}' spends {} of {} points: {} {}", item.id, rounded(budget.spent, 1),
                          rounded(budget.allowed, 1), percent(std::abs(off)),
                          off > 0 ? "over" : "under"),
              fmt::format("the tolerance is {}", percent(armoury_.budget.tolerance)));
    }

    void look_at_trigger(const Item& item, const Trigger& trigger) {
        const auto never = [&](const char* why) {
            doubting_.doubt_at(trigger.span, "trigger_never", "item", item,
                               fmt::format("a trigger of '{}' never fires: {}", item.id, why));
        };
        if (trigger.chance.is(0)) never("its chance is 0");
        if (trigger.on == TriggerEvent::life_lost && !armoury_.combat.lives.given())
            never("nobody has lives ([combat] lives)");
    }

    /// The most that a character could have of each stat at the last level: in each place the
    /// item that adds most of it.
    std::vector<double> most_stats(std::vector<double> stats) {
        for (std::size_t s = 0; s < stats.size(); ++s) {
            std::vector<double> most(armoury_.slots.size(), 0.0);
            for (const Item& item : armoury_.items)
                if (item.worn())
                    most[item.slot.index()] =
                        std::max(most[item.slot.index()], most_added(armoury_, item, StatId(s)));
            for (std::size_t i = 0; i < most.size(); ++i)
                stats[s] += most[i] * armoury_.slots[i].count;
        }
        return stats;
    }

    void look_at_stack(const Item& item) {
        if (item.stack == unlimited || item.stack < 2 || armoury_.carry.limit > 1e5) return;
        double most = 0;
        for (const auto& stats : most_)
            most = std::max(most, deriver_.capacity(stats, armoury_.levels.last));
        for (const Item& other : armoury_.items)
            most += other.grants.capacity > 0 ? to_weight(other.grants.capacity) : 0;
        most *= armoury_.carry.limit;
        const double weight = to_weight(item.weight) * static_cast<double>(item.stack);
        if (weight > most && most > 0)
            doubt("stack_unreachable", item,
                  fmt::format("a stack of {} of '{}' weighs {}; nobody can carry more than {}",
                              item.stack, item.id, rounded(weight, 3), rounded(most)));
    }

    void look_at_use(const Item& item) {
        bool allowed = armoury_.characters.empty();
        for (std::size_t c = 0; c < armoury_.characters.size(); ++c)
            allowed = allowed || (is_among(armoury_, item.use->only, CharacterId(c)) &&
                                  is_among(armoury_, item.needs, CharacterId(c)));
        if (!allowed)
            doubt("use_never", item,
                  fmt::format("nobody can use '{}': it is for {} only, and needs {}", item.id,
                              only_words(armoury_, item.use->only),
                              only_words(armoury_, item.needs)));
        for (const auto& [pool, amount] : item.use->restore) {
            const std::size_t ceiling = armoury_.at(pool).max.index();
            const bool nobody =
                std::none_of(most_.begin(), most_.end(),
                             [&](const std::vector<double>& stats) { return stats[ceiling] > 0; });
            if (nobody && !item.use->effect.given())
                doubt("use_never", item,
                      fmt::format("'{}' restores '{}', which nobody has any of", item.id,
                                  armoury_.at(pool).id));
            if (amount.is(0))
                doubt("does_nothing", item,
                      fmt::format("'{}' restores 0 {}", item.id, armoury_.at(pool).id));
        }
    }

    void twins() {
        for (const std::vector<ItemId>& group : twin_sets(armoury_))
            for (std::size_t i = 1; i < group.size(); ++i)
                doubt("twin", armoury_.at(group[i]),
                      fmt::format("'{}' and '{}' are equal in everything that counts",
                                  armoury_.at(group[0]).id, armoury_.at(group[i]).id));
    }

    Doubting& doubting_;
    const Armoury& armoury_;
    BudgetMeter budget_;
    GearSources sources_;
    Deriver deriver_;
    std::vector<std::vector<double>> naked_, most_; ///< by character, at the last level
};

} // namespace

void doubt_items(Doubting& doubting) {
    ItemDoubts(doubting).run();
}

} // namespace panoplon
