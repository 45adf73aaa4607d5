// What the numbers of an item's contexts say of it (M81b, M83).
#pragma once

#include "chance/estimate.h"
#include "fight/margin.h"
#include "judge/paper/paper.h"
#include "judge/search/search.h"

#include <span>
#include <string>
#include <vector>

namespace panoplon {

/// In the order of M83: the first that applies. `unjudged` is ours: no context of the item's window
/// was looked at, or its place is worth nothing in any of them.
enum class Verdict {
    unreachable,
    unjudged,
    burden,
    useless,
    outclassed,
    unrivalled,
    dominant,
    strong,
    niche,
    sound,
    weak
};

struct VerdictRow {
    Verdict verdict;
    const char* name;
    const char* meaning;
};
[[nodiscard]] std::span<const VerdictRow> verdict_rows();
[[nodiscard]] const char* verdict_name(Verdict verdict);

/// The best of one context.
struct ContextRow {
    Context context;
    double weight = 1;
    Margin best;
    bool found = false;   ///< whether anything legal was seen
    Outfit outfit;        ///< that reaches it
    bool proven = false;  ///< whether every candidate was tried: nothing is better (M80)
    double missed = 0;    ///< what was found under a condition is better by this share, at most
    double roughness = 0; ///< of its best (M69b): smaller differences tell nothing
    Search::Limiting limiting = {};
    std::optional<FightError> error;

    /// Whether items can be judged by it.
    [[nodiscard]] bool sound() const { return found && !error && best.reach == Reach::within; }
};

/// In place of a margin where no legal loadout does what is asked for.
inline constexpr double nothing_legal = 0;

/// A burden has at least this shortfall everywhere: 1, less what a search may miss (M83).
inline constexpr double burden_shortfall = 0.99;

/// One item in one context: the numbers of M81. Margins, or nothing_legal; worth, grip and
/// shortfall as in M81a. The place of a consumable is that of its group in the pack (M84).
struct ItemContextRow {
    ItemId item;
    std::size_t context = 0;
    double best = 0, without = 0, with = 0, empty = 0;
    double worth = 0;
    double grip = 0;
    double shortfall = 0;
    bool in_window = false;
    bool after_window = false; ///< in the `window` levels after its own: decides `overstays`
    bool contested = false;
    bool judged = false;    ///< its place is worth at least 0.5 %
    std::int64_t units = 0; ///< of a consumable, in the best

    /// As good as the best: a shortfall of at most 0.05.
    [[nodiscard]] bool picked() const;
};

struct Spread {
    double mean = 0, min = 0, max = 0;
};

/// What trials say of a verdict that rests on grip or shortfall (M85).
struct Confirmation {
    bool borne_out = false; ///< trials can't be told from what the verdict needs, or say more
    double by_trials = 0;   ///< that grip or shortfall, over the contexts that were fought
    std::size_t contexts = 0;
};

struct ItemVerdict {
    ItemId item;
    Verdict verdict = Verdict::unjudged;
    bool overstays = false;
    bool shut_out = false; ///< contexts of its window were looked at, and no legal loadout has it
    std::size_t contexts = 0;  ///< judged ones of its window
    std::size_t contested = 0; ///< of these
    double pick_share = 0;     ///< of the contested ones, or of all where none is (M83)
    Spread ban_loss, force_loss, shortfall; ///< over the judged contexts of the window
    Spread grip;                            ///< over the contested ones of them
    std::vector<ItemId> outclassed_by, twins;
    std::string sentence; ///< what to make of it
    /// Mean gain in margin from wearing it in loadouts drawn at random; none where that was not
    /// asked for, or no such loadout is legal.
    std::optional<Estimate> lift;
    std::optional<Confirmation> confirmed; ///< none where it was not asked for, or rests on paper
};

/// What a consumable gives where the best packs it, over its window: shares of the margin.
struct ConsumableWorth {
    double units = 0;  ///< mean, in the best of all judged contexts
    double packed = 0; ///< share of them whose best has any
    double per_unit = 0, per_weight = 0, per_stack = 0; ///< of those that have any
};
[[nodiscard]] ConsumableWorth worth_of(const Item& item, std::span<const ItemContextRow> rows,
                                       const std::vector<ContextRow>& contexts);

/// Judges one worn item, or one consumable. `rows` are its own; weights of contexts are those of
/// their encounters.
[[nodiscard]] ItemVerdict judge_item(const Armoury& armoury, ItemId item, const PaperVerdict& paper,
                                     std::span<const ItemContextRow> rows,
                                     const std::vector<ContextRow>& contexts);

} // namespace panoplon
