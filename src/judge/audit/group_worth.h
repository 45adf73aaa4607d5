// Groups of items, judged as one and banned together (M82): what a pattern, a tag, a set or a tier
// is worth to the best of each context.
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <string>
#include <vector>

namespace panoplon {

enum class GroupBy { pattern, tag, set, tier };
inline constexpr const char* group_by_names[] = {"pattern", "tag", "set", "tier"};

struct ItemGroup {
    std::string name; ///< id of the pattern, the set or the tier, or the tag
    std::vector<ItemId> items;
};

/// Groups of at least two worn or used items, in the order of their names; tiers by rank.
[[nodiscard]] std::vector<ItemGroup> item_groups(const Armoury& armoury, GroupBy by);

struct GroupWorth {
    ItemGroup group;
    std::size_t contexts = 0; ///< in which anything of it can be had
    double picked = 0;        ///< share of them, by weight, whose best has something of it
    double pieces = 0;        ///< how much of it the best has there, in the mean
    double ban_loss = 0;      ///< mean share of the margin that is lost without all of it
    double worst = 0;         ///< the greatest of a context
    Context at;               ///< that context
    std::string sentence;
};

/// Searches each context whose best has something of a group once more, without all of it. The
/// same for any number of threads. Stopped, it has nothing.
[[nodiscard]] std::vector<GroupWorth> judge_groups(const Judging& judging,
                                                   const AuditResult& result, GroupBy by,
                                                   const Watch& watch = {});

} // namespace panoplon
