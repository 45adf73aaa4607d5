#include "show/column_meanings.h"

#include <algorithm>

namespace panoplon {

namespace {

struct Meaning {
    std::string_view table; ///< empty: of every table that has the key
    std::string_view key;
    std::string_view words;
};

constexpr Meaning meanings[] = {
    {"", "even_luck", "margin with every chance replaced by its expectation"},
    {"", "p10", "margin that a tenth of the trials stay below"},
    {"", "p50", "median margin of the trials"},
    {"", "p90", "margin that nine tenths of the trials stay below"},
    {"", "win_share", "share of the trials that are won against foes as they are"},
    {"", "load_share", "weight carried, over capacity"},
    {"", "beyond", "trials whose margin is not within 1/64 and 64; they stand at the bound"},
    {"curve", "tier", "highest tier that may be worn"},
    {"", "power_p10", "power that a tenth of the trials stay below"},
    {"", "power_p50", "median power of the trials"},
    {"", "power_p90", "power that nine tenths of the trials stay below"},
    {"journey-stages", "reached", "trials that come to the stage"},
    {"journey-stages", "passed", "trials that win all that it asks for"},
    {"journey-stages", "tries", "fights that it takes, won and lost, in the mean"},
    {"journey-stages", "level", "at its end, in the mean"},
    {"journey-stages", "time", "time fought by its end, in the mean"},
    {"journey-stages", "coin", "at its end, in the mean"},
    {"journey-items", "found_in", "share of the trials in which it is found"},
    {"journey-items", "worn_in", "share of the trials in which it is worn in a fight"},
    {"journey-items", "first_worn", "level at which it is first worn, in the mean"},
    {"journey-items", "fights_worn", "share of all fights in which it is worn"},
    {"journey-items", "kept", "share of the trials that wear it in which it is never taken off"},
    {"journey-items", "found", "units a trial"},
    {"journey-items", "used", "units a trial that are used up, and gear that breaks"},
    {"journey-items", "left", "units a trial that stay where they are found or taken off"},
    {"journey-items", "bought", "units a trial"},
    {"journey-items", "sold", "units a trial, of those that are left"},
    {"journey-items", "broken", "units a trial, of those that are used"},
    {"journey-items", "grown", "times a trial that it grows, of the trials that wear it"},
    {"fight-damage", "kind", "blow, effect over time, or what came back from thorns"},
    {"fight-damage", "source", "the action, item or effect that it comes from"},
    {"fight-damage", "done", "times that it is done in a mean trial"},
    {"fight-damage", "hits", "blows that hit"},
    {"fight-damage", "crits", "hits that are critical"},
    {"fight-damage", "misses", "blows that miss"},
    {"fight-damage", "warded", "hits that a ward takes"},
    {"fight-damage", "returned", "points that come back to who did it"},
    {"fight-damage", "dealt", "points of damage in a mean trial"},
    {"fight-damage", "share", "of all that the side deals"},
    {"fight-restored", "source", "the item, effect or action that restores"},
    {"fight-restored", "restored", "points that arrive in a mean trial"},
    {"fight-restored", "wasted", "points over the ceiling"},
    {"fight-waste", "thing", "what is wasted, or what wastes it"},
    {"fight-waste", "share", "of what there was"},
    {"fight-waste", "what", "what happens to it"},
    {"fight-timeline", "time", "since the fight began"},
    {"fight-timeline", "source", "the action, item or effect that it comes from"},
    {"fight-timeline", "pool_after", "what the target's pool has then"},
};

} // namespace

std::string meaning_of_column(std::string_view table, std::string_view key) {
    const auto* const found =
        std::find_if(std::begin(meanings), std::end(meanings), [&](const Meaning& one) {
            return one.key == key && (one.table.empty() || one.table == table);
        });
    return found == std::end(meanings) ? std::string() : std::string(found->words);
}

} // namespace panoplon
