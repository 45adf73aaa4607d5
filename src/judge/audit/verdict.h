// What the numbers of an item's contexts say of it (M81b, M83).
#pragma once

#include "chance/estimate.h"
#include "fight/margin.h"
#include "judge/paper/paper.h"
#include "judge/search/search.h"

#include <algorithm>
#include <cmath>
#include <span>
#include <string>
#include <vector>

namespace panoplon {

/// In the order of M83: the first that applies. `unjudged`: no context of the item's time was
/// looked at, or its place is worth nothing in any of them.
enum class Verdict {
    unreachable,
    idle,
    unjudged,
    burden,
    useless,
    outclassed,
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
[[nodiscard]] const char* verdict_meaning(Verdict verdict);

/// What a margin itself may be off by (a share): it is found to 0.01 % (M70).
inline constexpr double margin_noise = 1e-4;

/// The best of one context, of all or in the world of a tier (M81c).
struct ContextRow {
    Context context;
    int highest_rank = every_rank; ///< of what may be worn
    double weight = 1;
    Margin best;
    bool found = false;   ///< whether anything legal was seen
    Outfit outfit;        ///< that reaches it
    bool proven = false;  ///< whether every candidate was tried: nothing is better (M80)
    double missed = 0;    ///< what was found under a condition is better by this share, at most
    double roughness = 0; ///< of its best (M69b): smaller differences tell nothing
    Search::Limiting limiting = {};
    std::optional<FightError> error;

    /// Whether everything may be worn.
    [[nodiscard]] bool whole() const { return highest_rank == every_rank; }
    /// Losses up to this (logarithms) tell nothing.
    [[nodiscard]] double noise() const { return std::log1p(std::max(roughness, margin_noise)); }
    /// Whether items can be judged by it.
    [[nodiscard]] bool sound() const { return found && !error && best.reach == Reach::within; }
};

/// In place of a margin where no legal loadout does what is asked for.
inline constexpr double nothing_legal = 0;

/// A burden loses at least this much of the margin (a share) against nothing in its place, and more
/// than roughness (M83).
inline constexpr double clear_harm = 0.005;

/// One item in one context: the numbers of M81. Margins, or nothing_legal; worth, grip and
/// shortfall as in M81a. The place of a consumable is that of its group in the pack (M84).
struct ItemContextRow {
    ItemId item;
    std::size_t context = 0;
    double best = 0, without = 0, with = 0;
    double empty = 0;         ///< with one of its places empty
    double worth = 0;         ///< of its place, as far as that counts
    double share = 1;         ///< of all that its slots are worth
    double typical_worth = 0; ///< of a place in this context: the median
    double grip = 0;
    double shortfall = 0;
    bool in_window = false;    ///< in its time: decides the verdict
    bool after_window = false; ///< in the `window` levels after its own: decides `overstays`
    bool contested = false;    ///< by a rival (M81b)
    bool judged = false;       ///< its place is worth at least 0.5 %
    bool harms = false;        ///< nothing in its place is clearly better
    bool capped = false;       ///< its place is worth more than counts
    std::int64_t units = 0;    ///< of a consumable, in the best
    double with_worst = 0,
           with_best = 0; ///< `with`, were its rolls at one end; 0: it rolls nothing

    /// As good as the best: a shortfall of at most 0.05.
    [[nodiscard]] bool picked() const;
};

/// The rows of one item among rows sorted by item.
[[nodiscard]] std::span<const ItemContextRow> rows_of(const std::vector<ItemContextRow>& rows,
                                                      ItemId item);

struct Spread {
    double mean = 0, min = 0, max = 0;
};

/// What trials say of a verdict that rests on grip or shortfall (M85).
struct Confirmation {
    bool borne_out = false; ///< trials can't be told from what the verdict needs, or say more
    double by_trials = 0;   ///< that grip or shortfall, over the contexts that were fought
    std::size_t contexts = 0;
};

/// What an item's rolls make of it (M44a).
struct RolledVerdicts {
    Verdict worst = Verdict::unjudged, best = Verdict::unjudged; ///< were all at one end
    double spread = 0; ///< mean of ln(margin with the best rolls / with the worst),
    double thing = 0;  ///< and of ln(margin with it / with its place empty)

    [[nodiscard]] bool outweigh() const { return spread > thing; }
};

struct ItemVerdict {
    ItemId item;
    Verdict verdict = Verdict::unjudged;
    bool overstays = false;
    double overstay_share = 0;        ///< of the contexts after its time that pick it
    LevelRange overstay_levels{0, 0}; ///< first and last of these
    bool unrivalled = false;  ///< best in its time, and nothing of its age and tier beside it
    bool shut_out = false;    ///< contexts of its time were looked at, and no legal loadout has it
    bool needed = false;      ///< likewise, and none does without it
    std::size_t seen = 0;     ///< contexts of its time that were looked at, judged or not
    EncounterId only_against; ///< the one of several that picks it, where that is so
    ItemId overshadowed_by;   ///< the dominant rival that alone makes it useless, or weak
    std::vector<ItemId> overshadows; ///< of a dominant item: those
    std::optional<Verdict> edge_of;  ///< what it would be, were every loss as far off as is noise
    ItemId successor;                ///< that ends its time; none: nothing does
    LevelRange judged_levels{0, 0};  ///< first and last of the contexts that judge it
    std::size_t contexts = 0;        ///< judged ones of its time
    std::size_t contested = 0;       ///< of these
    double pick_share = 0;           ///< of all of these, by weight (M83)
    double contested_pick_share = 0; ///< of the contested ones
    double shortfall_elsewhere = 0;  ///< mean over those that do not pick it
    bool capped = false;             ///< in any of them
    double unit_of_place = 0;        ///< of a consumable: a unit's worth against a place's
    std::vector<StatId> unread;      ///< of what is idle: what it gives
    bool weight_binds = false;       ///< in half of its judged contexts
    bool accepted = false;           ///< its verdict is meant, and so it is if it overstays
    std::vector<std::string> untrue_accept; ///< what it accepts and is not
    Spread ban_loss, force_loss, shortfall; ///< over the judged contexts of the window
    Spread grip;                            ///< over the contested ones of them
    std::vector<ItemId> outclassed_by, twins;
    std::string sentence; ///< what to make of it

    /// Whether it calls for a designer's hand by itself: its verdict does, or it overstays, and
    /// that is not accepted, nor another's doing.
    [[nodiscard]] bool calls() const;
    /// Mean gain in margin from wearing it in loadouts drawn at random; none where that was not
    /// asked for, or no such loadout is legal.
    std::optional<Estimate> lift;
    std::optional<RolledVerdicts> rolled;  ///< of an item that rolls, where contexts judge it
    std::optional<Confirmation> confirmed; ///< none where it was not asked for, or rests on paper
};

/// Judges one worn item, or one consumable. `rows` are its own; weights of contexts are those of
/// their encounters.
[[nodiscard]] ItemVerdict judge_item(const Judging& judging, ItemId item,
                                     std::span<const ItemContextRow> rows,
                                     const std::vector<ContextRow>& contexts);

/// Whether a verdict calls for a designer's hand: dominant, a burden, useless, outclassed,
/// unreachable.
[[nodiscard]] bool calls_for_change(Verdict verdict);

} // namespace panoplon
