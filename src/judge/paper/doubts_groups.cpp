#include "base/text.h"
#include "judge/paper/doubting.h"
#include "judge/paper/stats_read.h"

#include <map>

namespace panoplon {

namespace {

/// Which definitions are of use to any other, and groups that hold nobody.
class GroupDoubts {
  public:
    explicit GroupDoubts(Doubting& doubting)
        : doubting_(doubting),
          armoury_(doubting.armoury()),
          effect_given_(armoury_.effects.size()),
          stat_had_(armoury_.stats.size()) {}

    void run() {
        look_at_bearers();
        unused_stats();
        unused_effects();
        unused_actions_and_foes();
        empty_groups();
        sets();
        lone_names();
    }

  private:
    template <class List>
    void tell_all(const char* doubt_kind, const char* kind, const List& list,
                  const std::vector<bool>& good, const char* message) {
        for (std::size_t i = 0; i < list.size(); ++i)
            if (!good[i])
                doubting_.doubt(doubt_kind, kind, list[i],
                                fmt::format(fmt::runtime(message), list[i].id));
    }

    void look_at(const Bearer& bearer) {
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (const Amount& amount : bearer.modifiers.of(change))
                if (change == Change::add) stat_had_[amount.stat.index()] = true;
        for (const Trigger& trigger : bearer.triggers) effect_given_[trigger.effect.index()] = true;
    }

    void look_at(const Fighter& fighter) {
        look_at(static_cast<const Bearer&>(fighter));
        for (const Amount& amount : fighter.base) stat_had_[amount.stat.index()] = true;
        for (const Growth& growth : fighter.growth) stat_had_[growth.stat.index()] = true;
    }

    void look_at_bearers() {
        for (const Character& character : armoury_.characters) look_at(character);
        for (const Foe& foe : armoury_.foes) look_at(foe);
        for (const Tier& tier : armoury_.tiers) look_at(tier);
        for (const Upgrade& upgrade : armoury_.upgrades) look_at(upgrade);
        for (const Effect& effect : armoury_.effects) look_at(effect);
        for (const Band& band : armoury_.carry.bands) look_at(band);
        for (const ItemSet& set : armoury_.sets)
            for (const SetStep& step : set.steps) look_at(step);
        for (const Affix& affix : armoury_.affixes) look_at(affix);
        for (const Item& item : armoury_.items) {
            look_at(item);
            look_at(item.grows.gives);
            if (item.use && item.use->effect.given())
                effect_given_[item.use->effect.index()] = true;
        }
        for (const Action& action : armoury_.actions)
            for (const Application& application : action.applies)
                effect_given_[application.effect.index()] = true;
        for (const Effect& effect : armoury_.effects)
            if (effect.then.effect.given()) effect_given_[effect.then.effect.index()] = true;
        for (std::size_t i = 0; i < stat_had_.size(); ++i)
            if (armoury_.stats[i].value.given()) stat_had_[i] = true;
    }

    void unused_stats() {
        tell_all("unused", "stat", armoury_.stats, stat_had_,
                 "nobody has any '{}' and nothing gives it");
    }

    void unused_effects() {
        tell_all("unused", "effect", armoury_.effects, effect_given_,
                 "nothing gives the effect '{}'");
        const std::vector<bool> read = effects_read(armoury_);
        for (const Effect& effect : armoury_.effects)
            if (effect.modifiers.empty() && effect.triggers.empty() && effect.per_time.empty() &&
                effect.restore_factor == 1 && !effect.ward && !effect.taunts &&
                !effect.absorbs.given() && !effect.removes.given() && !effect.immune.given() &&
                !effect.stops_actions && !effect.stops_uses && !effect.then.effect.given() &&
                !read[static_cast<std::size_t>(&effect - armoury_.effects.data())])
                doubting_.doubt("does_nothing", "effect", effect,
                                fmt::format("the effect '{}' changes nothing", effect.id));
        std::vector<bool> had(armoury_.affixes.size());
        for (const Item& item : armoury_.items)
            for (const AffixDraw& draw : item.affixes)
                for (const AffixId affix : draw.affixes) had[affix.index()] = true;
        tell_all("unused", "affix", armoury_.affixes, had, "no find has the affix '{}'");
        for (const Upgrade& upgrade : armoury_.upgrades)
            if (upgrade.modifiers.empty() && upgrade.triggers.empty())
                doubting_.doubt("does_nothing", "upgrade", upgrade,
                                fmt::format("the upgrade '{}' changes nothing", upgrade.id));
    }

    void unused_actions_and_foes() {
        std::vector<bool> done(armoury_.actions.size()), met(armoury_.foes.size()),
            found(armoury_.drops.size());
        const auto has = [&](const std::vector<ActionId>& actions) {
            for (const ActionId action : actions) done[action.index()] = true;
        };
        for (const Character& character : armoury_.characters) has(character.actions);
        for (const Foe& foe : armoury_.foes) has(foe.actions);
        for (const Item& item : armoury_.items) {
            has(item.actions);
            if (item.use && item.use->does.given()) has({item.use->does});
        }
        for (const Encounter& encounter : armoury_.encounters)
            for (const FoeGroup& group : encounter.foes) met[group.foe.index()] = true;
        for (const Action& action : armoury_.actions)
            if (action.summons.foe.given()) met[action.summons.foe.index()] = true;
        for (const Foe& foe : armoury_.foes)
            if (foe.drops.given()) found[foe.drops.index()] = true;
        for (const Journey& journey : armoury_.journeys)
            for (const Stage& stage : journey.stages)
                if (stage.drops.given()) found[stage.drops.index()] = true;
        tell_all("unused", "action", armoury_.actions, done, "nobody does '{}'");
        tell_all("unused", "foe", armoury_.foes, met, "no encounter has the foe '{}'");
        tell_all("unused", "drops", armoury_.drops, found, "no journey finds '{}'");
    }

    void empty_groups() {
        std::vector<bool> in_slot(armoury_.slots.size()), in_tier(armoury_.tiers.size()),
            in_set(armoury_.sets.size()), liked(armoury_.patterns.size());
        for (const Item& item : armoury_.items) {
            for (const SlotId slot : item.takes) in_slot[slot.index()] = true;
            if (item.tier.given()) in_tier[item.tier.index()] = true;
            if (item.set.given()) in_set[item.set.index()] = true;
            if (item.pattern.given()) liked[item.pattern.index()] = true;
            for (const Inherited& key : item.inherited)
                if (const auto pattern = find_id<PatternKind>(armoury_.patterns, key.pattern);
                    pattern.given())
                    liked[pattern.index()] = true;
        }
        tell_all("empty", "slot", armoury_.slots, in_slot, "no item fits the slot '{}'");
        tell_all("empty", "tier", armoury_.tiers, in_tier, "no item is of the tier '{}'");
        tell_all("empty", "set", armoury_.sets, in_set, "no item is a piece of the set '{}'");
        tell_all("empty", "pattern", armoury_.patterns, liked, "no item is like '{}'");
    }

    /// Pieces that could be worn together, at most: in each slot as many as it has places.
    [[nodiscard]] int most_pieces(SetId set) const {
        std::vector<int> pieces(armoury_.slots.size(), 0);
        for (const Item& item : armoury_.items)
            if (item.set == set) ++pieces[item.slot.index()];
        int most = 0;
        for (std::size_t s = 0; s < pieces.size(); ++s)
            most +=
                armoury_.slots[s].socket ? pieces[s] : std::min(pieces[s], armoury_.slots[s].count);
        return most;
    }

    void sets() {
        for (std::size_t s = 0; s < armoury_.sets.size(); ++s) {
            const int most = most_pieces(SetId(s));
            for (const SetStep& step : armoury_.sets[s].steps) {
                if (most > 0 && step.count > most)
                    doubting_.doubt_at(step.span, "step_unreachable", "set", armoury_.sets[s],
                                       fmt::format("the set '{}' has a step for {} pieces; {} can "
                                                   "be worn together",
                                                   armoury_.sets[s].id, step.count, most));
                if (step.modifiers.empty() && step.triggers.empty())
                    doubting_.doubt_at(step.span, "does_nothing", "set", armoury_.sets[s],
                                       fmt::format("the step for {} of the set '{}' gives nothing",
                                                   step.count, armoury_.sets[s].id));
            }
        }
    }

    /// A name that one item alone has, and that is nearly another's: most likely misspelt.
    void lone_names() {
        std::map<std::string, std::vector<const Item*>> unique, group, tag;
        for (const Item& item : armoury_.items) {
            if (!item.unique.empty()) unique[item.unique].push_back(&item);
            if (item.use && !item.use->group.empty()) group[item.use->group].push_back(&item);
            for (const std::string& name : item.tags) tag[name].push_back(&item);
        }
        for (const auto& [what, names] :
             {std::pair{"unique group", &unique}, {"cooldown group", &group}, {"tag", &tag}})
            tell_lone(what, *names);
    }

    void tell_lone(const char* what, const std::map<std::string, std::vector<const Item*>>& names) {
        for (const auto& [name, items] : names) {
            if (items.size() != 1) continue;
            std::vector<std::string> others;
            for (const auto& [other, members] : names)
                if (other != name && members.size() > 1) others.push_back(other);
            if (const auto near = nearest_name(name, others))
                doubting_.doubt("lone_group", "item", *items.front(),
                                fmt::format("the {} '{}' has no other member; did you mean '{}'?",
                                            what, name, *near));
        }
    }

    Doubting& doubting_;
    const Armoury& armoury_;
    std::vector<bool> effect_given_, stat_had_;
};

} // namespace

void doubt_groups(Doubting& doubting) {
    GroupDoubts(doubting).run();
}

} // namespace panoplon
