#include "judge/audit/verdict.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

constexpr VerdictRow rows_of_verdicts[] = {
    {Verdict::unreachable, "unreachable", "nobody can ever wear it, or nothing gives it"},
    {Verdict::unjudged, "unjudged",
     "its place is worth under 0.5 % in every context of its window, no legal loadout has it or "
     "does without it, or no context of it was looked at"},
    {Verdict::burden, "burden",
     "wearing nothing in its place is as good, in every context of its window"},
    {Verdict::useless, "useless",
     "it loses at least half of its place's worth in every context of its window"},
    {Verdict::outclassed, "outclassed",
     "another is no worse in anything and better in something, and costs no more"},
    {Verdict::unrivalled, "unrivalled",
     "picked, but nothing else of its age fits its place: a hole in the offer"},
    {Verdict::dominant, "dominant", "picked nearly everywhere, and much is lost without it"},
    {Verdict::strong, "strong", "picked in at least half of its contexts"},
    {Verdict::niche, "niche", "picked, but seldom, or in one encounter only"},
    {Verdict::sound, "sound", "picked sometimes, or close to it"},
    {Verdict::weak, "weak", "never within a quarter of its place's worth"},
};

constexpr double pick_shortfall = 0.05;
constexpr double near_shortfall = 0.25;
constexpr double unrivalled_share = 0.8;
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

/// What the window of an item comes to, beside what ItemVerdict shows.
struct WindowSums {
    std::set<EncounterId> met, picked_in;
    std::size_t seen = 0;                        ///< contexts, judged or not,
    std::size_t none_with = 0, none_without = 0; ///< of which no legal loadout has it, or lacks it
    std::size_t picks = 0;
};

WindowSums add_up(ItemVerdict& item, std::span<const ItemContextRow> rows,
                  const std::vector<ContextRow>& contexts) {
    WindowSums sums;
    Tally ban, force, grip, shortfall, picks_contested, picks_all;
    for (const ItemContextRow& row : rows) {
        sums.seen += row.in_window;
        sums.none_with += row.in_window && row.with == nothing_legal;
        sums.none_without += row.in_window && row.without == nothing_legal;
        if (!row.in_window || !row.judged) continue;
        const ContextRow& context = contexts[row.context];
        const double picked = row.picked() ? 1 : 0;
        ++item.contexts;
        item.contested += row.contested;
        sums.picks += row.picked();
        sums.met.insert(context.context.encounter);
        if (row.picked()) sums.picked_in.insert(context.context.encounter);
        ban.add(1 - row.without / row.best, context.weight);
        force.add(1 - row.with / row.best, context.weight);
        shortfall.add(row.shortfall, context.weight);
        picks_all.add(picked, context.weight);
        if (!row.contested) continue;
        picks_contested.add(picked, context.weight);
        grip.add(row.grip, context.weight);
    }
    item.ban_loss = ban.spread();
    item.force_loss = force.spread();
    item.grip = grip.spread();
    item.shortfall = shortfall.spread();
    item.pick_share = item.contested > 0 ? picks_contested.mean() : picks_all.mean();
    return sums;
}

bool overstays(std::span<const ItemContextRow> rows, const std::vector<ContextRow>& contexts) {
    Tally picks;
    bool any = false;
    for (const ItemContextRow& row : rows) {
        if (!row.after_window || !row.judged) continue;
        picks.add(row.picked() ? 1 : 0, contexts[row.context].weight);
        any = true;
    }
    return any && picks.mean() >= overstay_share;
}

bool outclassed_no_dearer(const Armoury& armoury, ItemId item, const PaperVerdict& paper) {
    return std::any_of(paper.outclassed_by.begin(), paper.outclassed_by.end(), [&](ItemId other) {
        return armoury.at(other).value <= armoury.at(item).value;
    });
}

/// M83, the first that applies.
Verdict decide(const Armoury& armoury, const ItemVerdict& item, const PaperVerdict& paper,
               const WindowSums& sums) {
    const AuditRules& rules = armoury.audit;
    if (!paper.unreachable.empty()) return Verdict::unreachable;
    const bool on_paper = outclassed_no_dearer(armoury, item.item, paper);
    if (item.contexts == 0) return on_paper ? Verdict::outclassed : Verdict::unjudged;
    if (item.shortfall.min >= burden_shortfall) return Verdict::burden;
    if (item.shortfall.min >= rules.useless_shortfall) return Verdict::useless;
    if (on_paper) return Verdict::outclassed;
    if (item.contested == 0 && item.pick_share >= unrivalled_share) return Verdict::unrivalled;
    if (item.contested > 0 && item.pick_share >= rules.dominant_share &&
        item.grip.mean >= rules.dominant_grip)
        return Verdict::dominant;
    if (item.pick_share >= strong_share) return Verdict::strong;
    const bool one_of_several = sums.met.size() > 1 && sums.picked_in.size() == 1;
    if (sums.picks > 0 && (item.pick_share < niche_share || one_of_several)) return Verdict::niche;
    if (sums.picks > 0 || item.shortfall.min <= near_shortfall) return Verdict::sound;
    return Verdict::weak;
}

std::string window_words(const Armoury& armoury, const Item& item) {
    const int last = std::min(item.level + armoury.audit.window - 1, armoury.levels.last);
    return fmt::format("levels {}–{}", item.level, last);
}

std::string sentence_of(const Armoury& armoury, const ItemVerdict& verdict,
                        const PaperVerdict& paper, const WindowSums& sums) {
    const Item& item = armoury.at(verdict.item);
    const bool worn = item.worn();
    const std::string place = worn                      ? armoury.at(item.slot).id
                              : item.use->group.empty() ? "its use"
                                                        : "the group " + item.use->group;
    const std::string window = window_words(armoury, item);
    switch (verdict.verdict) {
    case Verdict::unreachable:
        return fmt::format("Nobody gets to {} it: {}.", worn ? "wear" : "use", paper.unreachable);
    case Verdict::unjudged:
        if (verdict.shut_out)
            return fmt::format("No legal loadout has it in {}: whatever else is worn, weight, the "
                               "bag or what is asked for leaves no room.",
                               window);
        if (sums.seen > 0 && sums.none_without == sums.seen)
            return fmt::format("No legal loadout of {} does without it.", window);
        return sums.seen == 0 ? fmt::format("No context of {} was looked at.", window)
                              : fmt::format("{} matters by 0.5 % in {}.",
                                            worn                      ? "Nothing on " + place
                                            : item.use->group.empty() ? "It nowhere"
                                                                      : "Nothing of " + place,
                                            window);
    case Verdict::burden:
        return fmt::format("{} is as good everywhere in {}; give it something, or take off what it "
                           "costs.",
                           worn ? fmt::format("Wearing nothing on {}", place) : "Packing nothing",
                           window);
    case Verdict::useless:
        return fmt::format("Even where it does best it loses {:.0f} % of what {} is worth in {}; "
                           "it needs more, or to come earlier.",
                           verdict.shortfall.min * 100, place, window);
    case Verdict::outclassed:
        return fmt::format("{} is no worse in anything and better in something; give this one "
                           "something of its own.",
                           armoury.at(verdict.outclassed_by.front()).id);
    case Verdict::unrivalled:
        return fmt::format("Nothing else of its age {} in {}: a hole in the offer rather than a "
                           "merit.",
                           worn ? fmt::format("fits {}", place) : "does the like", window);
    case Verdict::dominant:
        return fmt::format("Best in {:.0f} % of its contested contexts in {}, and {:.0f} % of what "
                           "{} is worth goes without it; it leaves no choice.",
                           verdict.pick_share * 100, window, verdict.grip.mean * 100, place);
    case Verdict::strong:
        return fmt::format("Best in {:.0f} % of its contexts in {}, but others come close.",
                           verdict.pick_share * 100, window);
    case Verdict::niche:
        if (sums.picked_in.size() == 1)
            return fmt::format("Best against {} only.", armoury.at(*sums.picked_in.begin()).id);
        return fmt::format(
            "Best in {:.0f} % of its contexts in {}: seldom, but then the one to wear.",
            verdict.pick_share * 100, window);
    case Verdict::sound:
        if (sums.picks > 0)
            return fmt::format("Best in {:.0f} % of its contexts in {}.", verdict.pick_share * 100,
                               window);
        return fmt::format("Never best in {}, but comes within {:.0f} % of what {} is worth.",
                           window, verdict.shortfall.min * 100, place);
    case Verdict::weak:
        return fmt::format(
            "Never comes within {:.0f} % of what {} is worth in {}; a little more would do.",
            verdict.shortfall.min * 100, place, window);
    }
    return {};
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

ItemVerdict judge_item(const Armoury& armoury, ItemId item, const PaperVerdict& paper,
                       std::span<const ItemContextRow> rows,
                       const std::vector<ContextRow>& contexts) {
    ItemVerdict verdict;
    verdict.item = item;
    verdict.outclassed_by = paper.outclassed_by;
    verdict.twins = paper.twins;
    const WindowSums sums = add_up(verdict, rows, contexts);
    verdict.shut_out = sums.seen > 0 && sums.none_with == sums.seen;
    verdict.verdict = decide(armoury, verdict, paper, sums);
    verdict.overstays = verdict.contexts > 0 && overstays(rows, contexts);
    verdict.sentence = sentence_of(armoury, verdict, paper, sums);
    if (verdict.overstays)
        verdict.sentence +=
            fmt::format(" Still best in at least half of the contexts of the {} levels after.",
                        armoury.audit.window);
    return verdict;
}

} // namespace panoplon
