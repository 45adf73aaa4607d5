#include "diagnostic/doubt_kinds.h"

namespace panoplon {

namespace {

// clang-format off
constexpr DoubtRow rows[] = {
    {"action_not_had", "an action that a loadout names in `actions` and does not have", "wear what gives it, or take it out"},
    {"allow_idle", "an `allow` that silences nothing", "take the word out of `allow`"},
    {"allow_unsaid", "an `allow` without a `note` that says why", "say in `note` why it is meant"},
    {"as_pattern", "an item equal to its pattern in everything that counts", "change something, or use one item for both"},
    {"does_nothing", "a thing that changes nothing for who has it", "give it modifiers, a trigger, actions, room, or take it out"},
    {"empty", "a slot, tier, set or pattern that no item belongs to", "give it items, or take it out"},
    {"lone_group", "a group of one: a `unique`, a cooldown group or a tag with one member and a near namesake", "write the name as the others have it"},
    {"never_worn", "an item that no character can ever wear or use", "change its level, its needs, its slot or its use"},
    {"no_such_find", "a loadout that wears an item as it is never found: with a number that it does not roll, or an affix that no draw of it has", "say what it can have, or leave it out"},
    {"off_budget", "an item whose stats cost more or less than its level and tier allow, beyond the tolerance", "change its numbers, its level or its tier"},
    {"refused_loadout", "a loadout that is refused at every level it is meant for", "see `panoplon equip` for every reason"},
    {"refused_start", "a journey that can't set out: its start is refused at the level it begins at", "see `panoplon equip START --level N` for every reason"},
    {"same_name", "two things of one kind with the same name", "name them apart"},
    {"source_unknown", "an item without a `source` in an armoury that says how others are had", "give it source = \"drop\", \"shop\", \"start\" or \"craft\""},
    {"stack_unreachable", "a stack that nobody could carry", "make the stack smaller, or the item lighter"},
    {"step_unreachable", "a set step for more pieces than can be worn together", "lower its count, or add pieces in other slots"},
    {"tier_colour", "a tier's colour that can't be read on light or dark ground, or told from another's, also by the colour-blind", "take the colour that is proposed"},
    {"tier_order", "a tier that ranks above another and has the smaller budget, or less power on paper", "raise its budget, or spend it"},
    {"todo", "something that is left to decide", "decide it, and take the `todo` out"},
    {"trigger_never", "a trigger that can never fire", "raise its chance, or give what it waits for"},
    {"twin", "two items equal in everything that counts", "tell them apart by a number, or use one"},
    {"unread", "a stat that no formula of a fight reads, and whose `use` does not say so; or one that is read all the same", "let a formula read it, or set use = \"outside fights\""},
    {"unused", "a stat nobody has, an effect nothing gives, an action, foe or drops that nothing uses", "use it, or take it out"},
    {"use_never", "a use that can never be allowed", "change who may use it, or what it restores"},
    {"use_not_packed", "a use rule for a consumable that the loadout does not pack", "pack it, or take the rule out"},
    {"yardstick", "a yardstick that grows with the character's level", "give its encounter one level: foe_level = \"10\""},
};
// clang-format on

} // namespace

std::span<const DoubtRow> doubt_rows() {
    return rows;
}

const DoubtRow* find_doubt_row(std::string_view name) {
    for (const DoubtRow& row : rows)
        if (row.name == name) return &row;
    return nullptr;
}

std::vector<std::string> doubt_names() {
    std::vector<std::string> names;
    for (const DoubtRow& row : rows) names.emplace_back(row.name);
    return names;
}

} // namespace panoplon
