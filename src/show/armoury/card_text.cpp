#include "show/armoury/card_text.h"

#include "base/text.h"
#include "show/armoury/item_words.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::vector<std::string> slot_ids(const Armoury& armoury, const std::vector<SlotId>& slots) {
    std::vector<std::string> ids;
    for (const SlotId slot : slots) ids.push_back(armoury.at(slot).id);
    return ids;
}

/// The rows of a card: what, how much, and where it comes from if not from the item itself.
class CardRows {
  public:
    CardRows(const Armoury& armoury, const Item& item, const PaperVerdict& paper,
             const Appraisal& appraisal)
        : armoury_(armoury),
          item_(item),
          paper_(paper),
          appraisal_(appraisal),
          tier_(item.tier.given() ? &armoury.at(item.tier) : nullptr) {}

    CardFacts facts() {
        what_it_is();
        modifiers();
        affixes();
        what_it_does();
        wearing();
        comparing();
        words();
        return std::move(rows_);
    }

  private:
    /// A row; nothing where there is nothing to say. `key`: its path in the files.
    void row(const std::string& label, const std::string& value, const std::string& key = {}) {
        if (value.empty()) return;
        const std::string from = from_words(key);
        rows_.emplace_back(label, printable(value) + (from.empty() ? "" : "; " + from));
    }

    [[nodiscard]] std::string from_words(const std::string& key) const {
        for (const Inherited& inherited : item_.inherited)
            if (inherited.path == key) return "from the pattern " + inherited.pattern;
        return {};
    }

    void what_it_is() {
        if (item_.slot.given()) row("slot", armoury_.at(item_.slot).id, "slot");
        if (item_.takes.size() > 1)
            row("takes", join(slot_ids(armoury_, item_.takes), " and "), "takes");
        if (tier_)
            row("tier",
                fmt::format("{}{} (rank {})", tier_->name,
                            tier_->mark.empty() ? "" : " " + tier_->mark, tier_->rank),
                "tier");
        row("level", fmt::format("from {}", item_.level), "level");
        row("needs", needs_words(armoury_, item_.needs), "needs");
        row("weight", weight_words(), "weight");
        row("value", value_words(), "value");
        if (const auto& budget = appraisal_.budget)
            row("budget", fmt::format("{} of {} points spent: {}", rounded(budget->spent, 1),
                                      rounded(budget->allowed, 1), percent(budget->share())));
        std::vector<std::string> per;
        if (const auto points = points_per(appraisal_, to_weight(item_.weight)))
            per.push_back(fmt::format("{} points a unit of weight", rounded(*points, 2)));
        if (const auto points = points_per(appraisal_, item_.value))
            per.push_back(fmt::format("{} a coin", rounded(*points, 2)));
        row("gives", join(per, ", "));
    }

    [[nodiscard]] std::string weight_words() const {
        const std::string of_stack =
            item_.stack == unlimited ? "any number stack"
            : item_.stack == 1
                ? "does not stack"
                : fmt::format("{} for a stack of {}",
                              rounded(to_weight(item_.weight * item_.stack), 3), item_.stack);
        const std::string most =
            item_.max_stacks == unlimited
                ? ""
                : fmt::format(", at most {}",
                              counted(static_cast<std::size_t>(item_.max_stacks), "stack"));
        return fmt::format("{}; {}{}", rounded(to_weight(item_.weight), 3), of_stack, most);
    }

    [[nodiscard]] std::string value_words() const {
        std::string text = rounded(item_.value);
        if (item_.stack != unlimited && item_.stack > 1)
            text += fmt::format("; {} for a stack",
                                rounded(item_.value * static_cast<double>(item_.stack)));
        if (tier_ && tier_->value_factor != 1)
            text += fmt::format("; {} with the tier's factor {}",
                                rounded(item_.value * tier_->value_factor),
                                rounded(tier_->value_factor));
        return text;
    }

    /// What an amount is rolled between, with the tier's factor.
    [[nodiscard]] std::string rolls_words(Change change, StatId stat, double factor) const {
        for (const Roll& roll : item_.rolls)
            if (change == Change::add && roll.stat == stat)
                return fmt::format(", the middle of what is rolled: {} to {}",
                                   rounded(std::min(roll.worst, roll.best) * factor),
                                   rounded(std::max(roll.worst, roll.best) * factor));
        return {};
    }

    void modifiers() {
        const double factor = tier_ ? tier_->stat_factor : 1;
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (Amount amount : item_.modifiers.of(change)) {
                const std::string& stat = armoury_.at(amount.stat).id;
                const std::string path =
                    fmt::format("{}.{}", change_names[static_cast<int>(change)], stat);
                std::string scaled;
                if (change == Change::add && factor != 1) {
                    scaled = fmt::format(" ({} × {} by the tier)", rounded(amount.amount),
                                         rounded(factor));
                    amount.amount *= factor;
                }
                row("modifier",
                    change_words(change, amount.amount) + " " + stat + scaled +
                        rolls_words(change, amount.stat, factor),
                    path);
            }
        if (!tier_) return;
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (const Amount& amount : tier_->modifiers.of(change))
                row("modifier",
                    fmt::format("{} {}; from the tier {}", change_words(change, amount.amount),
                                armoury_.at(amount.stat).id, tier_->id));
    }

    /// What each affix of a draw is, and how often finds have it.
    void affixes() {
        const double factor = tier_ ? tier_->stat_factor : 1;
        for (const AffixDraw& draw : item_.affixes) {
            std::vector<std::string> parts;
            for (std::size_t a = 0; a < draw.affixes.size(); ++a) {
                const Affix& affix = armoury_.at(draw.affixes[a]);
                parts.push_back(fmt::format("{} {} ({})", affix.name, percent(draw.shares[a]),
                                            modifiers_words(armoury_, affix.modifiers, factor)));
            }
            row("affix", fmt::format("of {}: {}", draw.id, join(parts, ", ")), "affixes");
        }
    }

    void what_it_does() {
        if (item_.grows.kills > 0) row("grows", growth_words(), "grows");
        for (const Trigger& trigger : item_.triggers)
            row("trigger", trigger_words(armoury_, trigger), "trigger");
        for (const ActionId action : item_.actions)
            row("action", armoury_.at(action).id, "actions");
        if (item_.use) row("use", use_words(armoury_, *item_.use), "use");
        effects();
        for (const Action& action : armoury_.actions)
            for (const PackedItem& spent : action.spends)
                if (&armoury_.at(spent.item) == &item_)
                    row("spent on", fmt::format("{}, {} each time", action.id, spent.count));
        row("sockets", join(slot_ids(armoury_, item_.sockets), ", "), "sockets");
        row("grants", grants_words(item_.grants), "grants");
        for (const PackedItem& inner : item_.contains)
            row("contains", fmt::format("{} {}", inner.count, armoury_.at(inner.item).id),
                "contains");
        if (item_.set.given()) row("set", set_words(), "set");
        if (!item_.unique.empty())
            row("unique", fmt::format("at most one of '{}' is worn", item_.unique), "unique");
        if (item_.draw_time > 0) row("draw_time", rounded(to_units(item_.draw_time)), "draw_time");
    }

    /// What each effect does that the item gives, and what follows from it.
    void effects() {
        std::vector<EffectId> named;
        const auto add = [&](EffectId effect) {
            if (effect.given() && std::find(named.begin(), named.end(), effect) == named.end())
                named.push_back(effect);
        };
        for (const Trigger& trigger : item_.triggers) add(trigger.effect);
        if (item_.use) add(item_.use->effect);
        for (std::size_t i = 0; i < named.size(); ++i) { // grows meanwhile
            const Effect& effect = armoury_.at(named[i]);
            add(effect.then.effect);
            for (const Trigger& trigger : effect.triggers) add(trigger.effect);
        }
        for (const EffectId effect : named)
            row(armoury_.at(effect).id, effect_does_words(armoury_, effect));
    }

    [[nodiscard]] std::string growth_words() const {
        const Modifiers& gives = item_.grows.gives.modifiers;
        const double factor = tier_ ? tier_->stat_factor : 1;
        return fmt::format("{} for {} felled on a journey, up to {} times",
                           modifiers_words(armoury_, gives, factor),
                           counted(static_cast<std::size_t>(item_.grows.kills), "foe"),
                           item_.grows.most);
    }

    [[nodiscard]] std::string set_words() const {
        std::vector<std::string> counts;
        for (const SetStep& step : armoury_.at(item_.set).steps)
            counts.push_back(std::to_string(step.count));
        return fmt::format("{}, steps for {} pieces", armoury_.at(item_.set).id,
                           join(counts, ", "));
    }

    void wearing() {
        for (const Wearer& wearer : appraisal_.wearers) {
            const std::string& id = armoury_.at(wearer.character).id;
            const char* label = item_.use ? "used by" : item_.spent ? "spent by" : "worn by";
            if (wearer.first == 0) {
                row(label, fmt::format("never {}: {}", id, join(wearer.reasons, "; ")));
                continue;
            }
            std::string text = fmt::format("{} from level {}", id, wearer.first);
            if (wearer.bare && wearer.wearing)
                text += fmt::format("; alone it takes power from {} to {} ({})",
                                    rounded(*wearer.bare, 3), rounded(*wearer.wearing, 3),
                                    signed_percent(*wearer.wearing / *wearer.bare - 1));
            if (wearer.worst_rolled && wearer.best_rolled)
                text += fmt::format("; {} with its worst rolls{}, {} with its best{}",
                                    rounded(*wearer.worst_rolled, 3), drawn(wearer.ends.worst),
                                    rounded(*wearer.best_rolled, 3), drawn(wearer.ends.best));
            row(label, text);
        }
    }

    /// The affixes of a find, in brackets.
    [[nodiscard]] std::string drawn(const Drawn& drawn) const {
        std::vector<std::string> names;
        for (const AffixId affix : drawn.affixes) names.push_back(armoury_.at(affix).name);
        return names.empty() ? "" : fmt::format(" ({})", join(names, ", "));
    }

    void comparing() {
        if (!item_.worn()) return;
        row("rivals", appraisal_.rivals.empty() ? "none of its age and tier"
                                                : join(ids_of(armoury_, appraisal_.rivals), ", "));
        row("outclassed by", paper_.outclassed_by.empty()
                                 ? "nothing on paper"
                                 : join(ids_of(armoury_, paper_.outclassed_by), ", "));
        if (appraisal_.way_out) row("to break that", way_out_words(*appraisal_.way_out));
        row("twins", join(ids_of(armoury_, paper_.twins), ", "));
    }

    [[nodiscard]] std::string way_out_words(const WayOut& way) const {
        std::vector<std::string> ways;
        if (way.stat.given())
            ways.push_back(fmt::format("{} {} → {}, for {} points", armoury_.at(way.stat).id,
                                       rounded(way.now), rounded(way.then), rounded(way.cost, 2)));
        if (way.weight_below)
            ways.push_back(fmt::format("a weight under {}", rounded(*way.weight_below, 3)));
        return join(ways, "; or ");
    }

    void words() {
        if (item_.source != Source::none)
            row("source", source_names[static_cast<int>(item_.source)], "source");
        row("tags", join(item_.tags, ", "), "tags");
        row("note", item_.note, "note");
        row("to do", item_.todo);
    }

    const Armoury& armoury_;
    const Item& item_;
    const PaperVerdict& paper_;
    const Appraisal& appraisal_;
    const Tier* tier_;
    CardFacts rows_;
};

} // namespace

std::optional<double> points_per(const Appraisal& appraisal, double cost) {
    if (!appraisal.budget || cost <= 0) return std::nullopt;
    return appraisal.budget->spent / cost;
}

CardFacts card_facts(const Armoury& armoury, const Item& item, const PaperVerdict& paper,
                     const Appraisal& appraisal) {
    return CardRows(armoury, item, paper, appraisal).facts();
}

std::string card_text(const Armoury& armoury, const Item& item, const PaperVerdict& paper,
                      const Appraisal& appraisal) {
    std::string text = fmt::format("{} ({})\n", printable(item.name), item.id);
    if (!item.about.empty()) text += "  " + folded(printable(item.about), 90, 2) + "\n";
    for (const auto& [label, words] : card_facts(armoury, item, paper, appraisal))
        text += fmt::format("  {:<13}  {}\n", label, folded(words, 83, 17));
    return text;
}

} // namespace panoplon
