// What the numbers of an item's contexts say of it (M81b, M83).
#pragma once

#include "fight/margin.h"
#include "judge/paper.h"
#include "judge/search.h"

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
    Outfit outfit;       ///< that reaches it
    bool proven = false; ///< whether nothing better can exist; this search proves nothing (M80)
    std::optional<FightError> error;
};

/// One item in one context: the numbers of M81. Margins; worth, grip and shortfall as in M81a.
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
    bool judged = false; ///< its place is worth at least 0.5 %

    /// As good as the best: a shortfall of at most 0.05.
    [[nodiscard]] bool picked() const;
};

struct Spread {
    double mean = 0, min = 0, max = 0;
};

struct ItemVerdict {
    ItemId item;
    Verdict verdict = Verdict::unjudged;
    bool overstays = false;
    std::size_t contexts = 0;  ///< judged ones of its window
    std::size_t contested = 0; ///< of these
    double pick_share = 0;     ///< of the contested ones, or of all where none is (M83)
    Spread ban_loss, force_loss, shortfall; ///< over the judged contexts of the window
    Spread grip;                            ///< over the contested ones of them
    std::vector<ItemId> outclassed_by, twins;
    std::string sentence; ///< what to make of it
};

/// Judges one worn item. `rows` are its own; weights of contexts are those of their encounters.
[[nodiscard]] ItemVerdict judge_item(const Armoury& armoury, ItemId item, const PaperVerdict& paper,
                                     std::span<const ItemContextRow> rows,
                                     const std::vector<ContextRow>& contexts);

} // namespace panoplon
