// Comparing items on paper: what outclasses what, and twins (M82).
#pragma once

#include "judge/paper/peers.h"
#include "judge/paper/stats_read.h"
#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

struct PaperVerdict {
    std::string unreachable; ///< why nobody can ever wear it or come by it; empty: somebody can
    std::vector<ItemId> outclassed_by;
    std::vector<ItemId> twins; ///< equal in everything that paper shows
};

/// By item; nothing is compared with what is not worn. A outclasses B when A is worn in the same
/// slot, by whoever can wear B and no later, takes no place that B does not, weighs no more, has
/// every trigger, action, socket, grant and content of B, its set and no unique group that B is not
/// of, is no worse in any modifier by the stat's own direction (absent: changes nothing, M6), and
/// is better in at least one of these. Tiers count in.
[[nodiscard]] std::vector<PaperVerdict> compare_on_paper(const Armoury& armoury);

/// Groups of two and more worn items that are twins; found by sorting, so also among many.
[[nodiscard]] std::vector<std::vector<ItemId>> twin_sets(const Armoury& armoury);

/// By item: the first of its twins, which is itself where it has none; twins are judged as one.
[[nodiscard]] std::vector<ItemId> twin_groups(const std::vector<PaperVerdict>& verdicts);

/// An armoury with what all of judging asks of it on paper, found once. Made from an armoury where
/// one is given in its place; that has to stay as long as it does.
struct Judging {
    Judging(const Armoury& of) // NOLINT(google-explicit-constructor): an armoury will do
        : armoury(of),
          paper(compare_on_paper(of)),
          twins(twin_groups(paper)),
          peers(of),
          read(stats_read(of)) {}

    const Armoury& armoury;
    const std::vector<PaperVerdict> paper; ///< by item
    const std::vector<ItemId> twins;       ///< by item: twin_groups()
    const Peers peers;
    const std::vector<bool> read; ///< by stat: stats_read()
};

} // namespace panoplon
