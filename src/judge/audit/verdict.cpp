#include "judge/audit/verdict.h"

#include "judge/audit/rolled.h"
#include "judge/audit/time_sums.h"
#include "judge/audit/verdict_sentence.h"

#include <algorithm>

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
    {Verdict::niche, "niche",
     "best, but seldom, or in one encounter only, and far from it elsewhere"},
    {Verdict::sound, "sound", "best sometimes or close to it, or the one to wear in its time"},
    {Verdict::weak, "weak", "never within a quarter of its place's worth"},
};

const VerdictRow& row_of(Verdict verdict) {
    return *std::find_if(std::begin(rows_of_verdicts), std::end(rows_of_verdicts),
                         [&](const VerdictRow& row) { return row.verdict == verdict; });
}

constexpr double pick_shortfall = 0.05;
constexpr double overstay_share = 0.5;

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
    return row_of(verdict).name;
}

const char* verdict_meaning(Verdict verdict) {
    return row_of(verdict).meaning;
}

bool ItemContextRow::picked() const {
    return judged && shortfall <= pick_shortfall;
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
    if (verdict.contexts > 0) verdict.rolled = rolled_verdicts(judging, verdict, rows, contexts);
    if (verdict.contexts > 0) verdict.edge_of = edge_of(judging, verdict, rows, contexts);
    see_overstaying(verdict, rows, contexts);
    accept(armoury.at(item), verdict);
    verdict.sentence = sentence_of(judging, verdict);
    return verdict;
}

} // namespace panoplon
