#include "judge/audit/verdict.h"

#include "judge/audit/verdict_sentence.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

constexpr VerdictRow rows_of_verdicts[] = {
    {Verdict::unreachable, "unreachable", "nobody can ever wear it, or nothing gives it"},
    {Verdict::idle, "idle", "it gives only what no formula of a fight reads"},
    {Verdict::unjudged, "unjudged",
     "its place is worth under 0.5 % in every context of its time, no legal loadout has it or "
     "does without it, or no context of it was looked at"},
    {Verdict::burden, "burden",
     "wearing nothing in its place is better, in every context of its time"},
    {Verdict::useless, "useless",
     "it loses at least half of its place's worth in every context of its time"},
    {Verdict::outclassed, "outclassed",
     "another of its tier or below is no worse in anything and better in something, and costs no "
     "more"},
    {Verdict::dominant, "dominant", "best nearly everywhere, and much is lost without it"},
    {Verdict::strong, "strong", "best in at least half of its contexts, and no rival comes close"},
    {Verdict::niche, "niche", "best, but seldom, or in one encounter only"},
    {Verdict::sound, "sound", "best sometimes or close to it, or the one to wear in its time"},
    {Verdict::weak, "weak", "never within a quarter of its place's worth"},
};

constexpr double pick_shortfall = 0.05;
constexpr double near_shortfall = 0.25;
constexpr double strong_share = 0.5;
constexpr double niche_share = 0.1;
constexpr double overstay_share = 0.5;

/// Weighted sums over contexts.
class Tally {
  public:
    void add(double value, double weight) {
        spread_.min = weight_ == 0 ? value : std::min(spread_.min, value);
        spread_.max = weight_ == 0 ? value : std::max(spread_.max, value);
        sum_ += value * weight;
        weight_ += weight;
    }
    [[nodiscard]] Spread spread() const {
        return {weight_ > 0 ? sum_ / weight_ : 0, spread_.min, spread_.max};
    }
    [[nodiscard]] double mean() const { return spread().mean; }

  private:
    Spread spread_;
    double sum_ = 0;
    double weight_ = 0;
};

/// What the time of an item comes to, beside what ItemVerdict shows.
struct TimeSums {
    std::set<EncounterId> met, picked_in;
    std::size_t seen = 0;                        ///< contexts, judged or not,
    std::size_t none_with = 0, none_without = 0; ///< of which no legal loadout has it, or lacks it
    std::size_t picks = 0;
    bool harms_everywhere = true;
};

/// By which way all losses may be off by noise: as if the item were better, or worse, or as found.
enum class Leaning { better, none, worse };

ItemContextRow leaning(ItemContextRow row, double noise, Leaning way) {
    if (!row.judged || way == Leaning::none) return row;
    const double share = noise / row.worth;
    const double sign = way == Leaning::better ? 1 : -1;
    row.grip = std::max(0.0, row.grip + sign * share);
    row.shortfall = std::max(0.0, row.shortfall - sign * share);
    return row;
}

void widen(LevelRange& levels, int level) {
    levels.first = levels.first == 0 ? level : std::min(levels.first, level);
    levels.last = std::max(levels.last, level);
}

TimeSums add_up(ItemVerdict& item, std::span<const ItemContextRow> rows,
                const std::vector<ContextRow>& contexts, Leaning way) {
    TimeSums sums;
    Tally ban, force, grip, shortfall, picks_contested, picks_all, units, places;
    for (const ItemContextRow& as_found : rows) {
        sums.seen += as_found.in_window;
        sums.none_with += as_found.in_window && as_found.with == nothing_legal;
        sums.none_without += as_found.in_window && as_found.without == nothing_legal;
        if (!as_found.in_window || !as_found.judged) continue;
        const ContextRow& context = contexts[as_found.context];
        const ItemContextRow row = leaning(as_found, context.noise(), way);
        const double picked = row.picked() ? 1 : 0;
        ++item.contexts;
        item.contested += row.contested;
        item.capped = item.capped || row.capped;
        widen(item.judged_levels, context.context.level);
        sums.picks += row.picked();
        sums.harms_everywhere = sums.harms_everywhere && row.harms;
        sums.met.insert(context.context.encounter);
        if (row.picked()) sums.picked_in.insert(context.context.encounter);
        ban.add(1 - row.without / row.best, context.weight);
        force.add(1 - row.with / row.best, context.weight);
        shortfall.add(row.shortfall, context.weight);
        picks_all.add(picked, context.weight);
        if (row.units > 0) {
            units.add(std::log(row.best / row.without) / static_cast<double>(row.units),
                      context.weight);
            places.add(row.typical_worth, context.weight);
        }
        if (!row.contested) continue;
        picks_contested.add(picked, context.weight);
        grip.add(row.grip, context.weight);
    }
    item.ban_loss = ban.spread();
    item.force_loss = force.spread();
    item.grip = grip.spread();
    item.shortfall = shortfall.spread();
    item.pick_share = picks_all.mean();
    item.contested_pick_share = picks_contested.mean();
    item.unit_of_place = places.mean() > 0 ? units.mean() / places.mean() : 0;
    return sums;
}

void see_overstaying(ItemVerdict& item, std::span<const ItemContextRow> rows,
                     const std::vector<ContextRow>& contexts) {
    Tally picks;
    for (const ItemContextRow& row : rows) {
        if (!row.after_window || !row.judged) continue;
        picks.add(row.picked() ? 1 : 0, contexts[row.context].weight);
        widen(item.overstay_levels, contexts[row.context].context.level);
    }
    item.overstay_share = picks.mean();
    item.overstays = item.contexts > 0 && picks.mean() >= overstay_share;
}

/// By what its tier's world has, and what is no dearer.
std::optional<ItemId> outclassed_by(const Judging& judging, const ItemVerdict& item) {
    const Armoury& armoury = judging.armoury;
    for (const ItemId other : item.outclassed_by)
        if (armoury.at(other).value <= armoury.at(item.item).value &&
            judging.peers.rank_of(armoury.at(other)) <=
                judging.peers.rank_of(armoury.at(item.item)))
            return other;
    return std::nullopt;
}

/// A consumable of which one unit is worth more than a typical place, nearly everywhere.
bool too_strong_by_itself(const AuditRules& rules, const ItemVerdict& item) {
    return item.unit_of_place > 1 && item.pick_share >= rules.dominant_share;
}

/// M83, the first that applies.
Verdict decide(const Judging& judging, const ItemVerdict& item, const TimeSums& sums) {
    const AuditRules& rules = judging.armoury.audit;
    if (!judging.paper[item.item.index()].unreachable.empty()) return Verdict::unreachable;
    if (!item.unread.empty()) return Verdict::idle;
    const bool on_paper = outclassed_by(judging, item).has_value();
    if (item.contexts == 0) return on_paper ? Verdict::outclassed : Verdict::unjudged;
    if (sums.harms_everywhere) return Verdict::burden;
    if (item.shortfall.min >= rules.useless_shortfall) return Verdict::useless;
    if (on_paper) return Verdict::outclassed;
    if (item.contested > 0 && item.contested_pick_share >= rules.dominant_share &&
        item.grip.mean >= rules.dominant_grip)
        return Verdict::dominant;
    if (too_strong_by_itself(rules, item)) return Verdict::dominant;
    if (item.pick_share >= strong_share) {
        const bool missed = item.contested > 0 && item.grip.mean >= rules.dominant_grip / 2;
        return missed ? Verdict::strong : Verdict::sound;
    }
    const bool one_of_several = sums.met.size() > 1 && sums.picked_in.size() == 1;
    if (sums.picks > 0 && (item.pick_share < niche_share || one_of_several)) return Verdict::niche;
    if (sums.picks > 0 || item.shortfall.min <= near_shortfall) return Verdict::sound;
    return Verdict::weak;
}

/// What it would be, were all losses as far off as is noise: told where one of the two calls for
/// change and the other does not.
std::optional<Verdict> edge_of(const Judging& judging, const ItemVerdict& item,
                               std::span<const ItemContextRow> rows,
                               const std::vector<ContextRow>& contexts) {
    for (const Leaning way : {Leaning::better, Leaning::worse}) {
        ItemVerdict other;
        other.item = item.item;
        other.outclassed_by = item.outclassed_by;
        other.unread = item.unread;
        const TimeSums sums = add_up(other, rows, contexts, way);
        const Verdict verdict = decide(judging, other, sums);
        if (calls_for_change(verdict) != calls_for_change(item.verdict)) return verdict;
    }
    return std::nullopt;
}

/// The first of its tier's world that ends its time, so that somebody can have it.
ItemId successor_of(const Judging& judging, ItemId item) {
    const Armoury& armoury = judging.armoury;
    ItemId first;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        const Item& other = armoury.items[i];
        if (!judging.paper[i].unreachable.empty() ||
            judging.peers.rank_of(other) != judging.peers.rank_of(armoury.at(item)) ||
            !judging.peers.succeeds(ItemId(i), item))
            continue;
        if (!first.given() || arrival_of(armoury, other) < arrival_of(armoury, armoury.at(first)))
            first = ItemId(i);
    }
    return first;
}

/// An item's rows as they would be, were another of its place not there.
std::vector<ItemContextRow> rows_without(std::span<const ItemContextRow> own,
                                         std::span<const ItemContextRow> other) {
    std::vector<ItemContextRow> rows(own.begin(), own.end());
    for (ItemContextRow& row : rows)
        for (const ItemContextRow& its : other) {
            if (its.context != row.context || its.without == nothing_legal || !row.judged) continue;
            row.best = std::max(row.with, its.without);
            row.shortfall = std::log(row.best / row.with) / row.worth;
        }
    return rows;
}

/// Whether its verdict is one that the item accepts, and what it accepts and is not.
void accept(const Item& item, ItemVerdict& verdict) {
    bool accepted = false;
    bool overstaying_too = false;
    for (const std::string& word : item.accept) {
        const bool of_time = word == "overstays";
        const bool is = of_time ? verdict.overstays
                                : std::string_view(verdict_name(verdict.verdict)).starts_with(word);
        if (!is) verdict.untrue_accept.push_back(word);
        if (is && of_time) overstaying_too = true;
        if (is && !of_time) accepted = true;
    }
    const bool calls = calls_for_change(verdict.verdict) || verdict.verdict == Verdict::weak ||
                       verdict.verdict == Verdict::idle;
    verdict.accepted =
        (accepted || (!calls && overstaying_too)) && (!verdict.overstays || overstaying_too);
}

} // namespace

ConsumableWorth worth_of(const Item& item, std::span<const ItemContextRow> rows,
                         const std::vector<ContextRow>& contexts) {
    Tally units, packed, per_unit;
    for (const ItemContextRow& row : rows) {
        if (!row.in_window || !row.judged) continue;
        const double weight = contexts[row.context].weight;
        units.add(static_cast<double>(row.units), weight);
        packed.add(row.units > 0 ? 1 : 0, weight);
        if (row.units > 0)
            per_unit.add((row.best / row.without - 1) / static_cast<double>(row.units), weight);
    }
    const double unit = per_unit.mean();
    const double weight = to_weight(item.weight);
    return {units.mean(), packed.mean(), unit, weight > 0 ? unit / weight : 0,
            item.stack == unlimited ? 0 : unit * static_cast<double>(item.stack)};
}

std::span<const ItemContextRow> rows_of(const std::vector<ItemContextRow>& rows, ItemId item) {
    const auto [first, last] = std::equal_range(
        rows.begin(), rows.end(), ItemContextRow{.item = item},
        [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
    return {first, last};
}

std::span<const VerdictRow> verdict_rows() {
    return rows_of_verdicts;
}

const char* verdict_name(Verdict verdict) {
    for (const VerdictRow& row : rows_of_verdicts)
        if (row.verdict == verdict) return row.name;
    return "";
}

bool ItemContextRow::picked() const {
    return judged && shortfall <= pick_shortfall;
}

void see_overshadowed(const Judging& judging, const std::vector<ItemContextRow>& rows,
                      const std::vector<ContextRow>& contexts, std::vector<ItemVerdict*> items) {
    for (ItemVerdict* verdict : items) {
        if (verdict->verdict != Verdict::useless && verdict->verdict != Verdict::weak) continue;
        std::size_t others = 0; // rivals that are not dominant
        for (const ItemVerdict* other : items)
            others += judging.peers.is_rival(other->item, verdict->item) &&
                      judging.twins[other->item.index()] != judging.twins[verdict->item.index()] &&
                      other->verdict != Verdict::dominant;
        for (const ItemVerdict* other : items) {
            if (others == 0 || other->verdict != Verdict::dominant ||
                !judging.peers.is_rival(other->item, verdict->item))
                continue;
            const std::vector<ItemContextRow> without =
                rows_without(rows_of(rows, verdict->item), rows_of(rows, other->item));
            ItemVerdict alone;
            alone.item = verdict->item;
            alone.outclassed_by = verdict->outclassed_by;
            const TimeSums sums = add_up(alone, without, contexts, Leaning::none);
            const Verdict then = decide(judging, alone, sums);
            if (calls_for_change(then) || then == Verdict::weak) continue;
            verdict->overshadowed_by = other->item;
            verdict->edge_of = std::nullopt;
            verdict->sentence = sentence_of(judging, *verdict);
            break;
        }
    }
}

bool calls_for_change(Verdict verdict) {
    switch (verdict) {
    case Verdict::dominant:
    case Verdict::burden:
    case Verdict::useless:
    case Verdict::outclassed:
    case Verdict::unreachable: return true;
    default: return false;
    }
}

bool ItemVerdict::calls() const {
    return (calls_for_change(verdict) || overstays) && !accepted && !overshadowed_by.given();
}

ItemVerdict judge_item(const Judging& judging, ItemId item, std::span<const ItemContextRow> rows,
                       const std::vector<ContextRow>& contexts) {
    const Armoury& armoury = judging.armoury;
    const PaperVerdict& paper = judging.paper[item.index()];
    ItemVerdict verdict;
    verdict.item = item;
    verdict.outclassed_by = paper.outclassed_by;
    verdict.twins = paper.twins;
    if (armoury.at(item).worn())
        verdict.unread = idle_gifts(armoury, judging.read, armoury.at(item));
    verdict.successor = successor_of(judging, item);
    const TimeSums sums = add_up(verdict, rows, contexts, Leaning::none);
    verdict.shut_out = sums.seen > 0 && sums.none_with == sums.seen;
    verdict.needed = sums.seen > 0 && sums.none_without == sums.seen;
    verdict.seen = sums.seen;
    verdict.verdict = decide(judging, verdict, sums);
    verdict.unrivalled = verdict.contexts > 0 && verdict.contested == 0 &&
                         verdict.pick_share >= strong_share && verdict.verdict == Verdict::sound;
    if (sums.picked_in.size() == 1 && sums.met.size() > 1)
        verdict.only_against = *sums.picked_in.begin();
    if (verdict.contexts > 0) verdict.edge_of = edge_of(judging, verdict, rows, contexts);
    see_overstaying(verdict, rows, contexts);
    accept(armoury.at(item), verdict);
    verdict.sentence = sentence_of(judging, verdict);
    return verdict;
}

} // namespace panoplon
