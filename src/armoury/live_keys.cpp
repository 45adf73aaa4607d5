#include "armoury/live_keys.h"

#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The definition as its rules see it.
struct Case {
    const Armoury& armoury;
    const RawDefinition& definition;

    [[nodiscard]] const Node* value(const std::string& path) const {
        const Node* node = &definition.body;
        for (const std::string& part : split(path, '.')) {
            node = node->find(part);
            if (!node || !node->given()) return nullptr;
        }
        return node;
    }
    [[nodiscard]] bool has(const std::string& path) const { return value(path) != nullptr; }
    [[nodiscard]] bool says(const std::string& path, const std::string& text) const {
        const Node* node = value(path);
        return node && node->text == text;
    }
};

struct Rule {
    std::string_view kind;
    std::string_view path; ///< and what is below it
    bool (*ignored)(const Case&);
    const char* why;
};

bool lower_need(const Case& c) {
    const Node* needed = c.value("needs.level");
    const Node* own = c.value("level");
    return needed && own && needed->number < own->number;
}
bool unworn(const Case& c) {
    return !c.has("slot");
}
bool cargo(const Case& c) {
    return !c.has("slot") && !c.has("use");
}
bool no_cooldown(const Case& c) {
    return !c.has("use.cooldown");
}
bool no_carry(const Case& c) {
    return !c.armoury.carry.capacity.given();
}
bool no_drops(const Case& c) {
    return c.armoury.drops.empty();
}
bool no_journeys(const Case& c) {
    return c.armoury.journeys.empty();
}
bool no_swaps(const Case& c) {
    return std::none_of(c.armoury.loadouts.begin(), c.armoury.loadouts.end(),
                        [](const Loadout& loadout) { return !loadout.swaps.empty(); });
}
bool no_budget(const Case& c) {
    return !c.armoury.budget.points.given();
}
bool no_piles(const Case& c) {
    return !c.says("again", "pile");
}
bool no_ticks(const Case& c) {
    return !c.has("per_time");
}
bool no_regen(const Case& c) {
    return !c.has("regen");
}
bool no_lives(const Case& c) {
    return !c.armoury.combat.lives.given();
}
bool no_crits(const Case& c) {
    return !c.has("crit");
}
bool no_damage(const Case& c) {
    return !c.has("deals");
}
bool no_points(const Case& c) {
    return std::none_of(c.armoury.characters.begin(), c.armoury.characters.end(),
                        [](const Character& character) { return character.points.given(); });
}
bool takes_points(const Case& c) {
    return c.has("points");
}
bool always(const Case&) {
    return true;
}
bool yardstick(const Case& c) {
    return c.armoury.yardstick.given() && c.armoury.at(c.armoury.yardstick).id == c.definition.id;
}
bool endless_stack(const Case& c) {
    return c.says("stack", "unlimited");
}

constexpr Rule rules[] = {
    {"item", "add", unworn, "it has no slot, so it is never worn"},
    {"item", "add_up_to", unworn, "it has no slot, so it is never worn"},
    {"item", "affixes", unworn, "it has no slot, so it is never worn"},
    {"item", "percent", unworn, "it has no slot, so it is never worn"},
    {"item", "times", unworn, "it has no slot, so it is never worn"},
    {"item", "actions", unworn, "it has no slot, so it is never worn"},
    {"item", "level", cargo, "it is neither worn nor used: anybody can carry it"},
    {"item", "needs", cargo, "it is neither worn nor used: anybody can carry it"},
    {"item", "needs.level", lower_need, "its own level is higher, and both have to be met (M41)"},
    {"item", "use.group", no_cooldown, "it has no cooldown to share"},
    {"item", "max_stacks", endless_stack, "its one stack has no end"},
    {"item", "weight", no_carry, "the armoury has no [carry]: nothing weighs on anybody"},
    {"item", "grants", no_carry, "the armoury has no [carry]: there is room for everything"},
    {"item", "grows", no_journeys, "things grow on journeys only"},
    {"item", "lasts", no_journeys, "things wear out on journeys only"},
    {"foe", "drops", no_journeys, "only fights of journeys find anything"},
    {"item", "draw_time", no_swaps, "no loadout swaps in a fight"},
    {"item", "source", no_drops, "no drops find anything; it only says how the item is had"},
    {"item", "value", no_journeys, "nothing is bought or sold; it is told by `card` only"},
    {"tier", "drop_weight", no_drops, "no drops find anything"},
    {"tier", "value_factor", no_journeys, "nothing is bought or sold; it is told by `card` only"},
    {"tier", "budget", no_budget, "the armoury has no [budget]"},
    {"stat", "cost", no_budget, "the armoury has no [budget]"},
    {"effect", "pile_max", no_piles, "only again = \"pile\" makes copies"},
    {"effect", "period", no_ticks, "it has no per_time"},
    {"pool", "period", no_regen, "it has no regen"},
    {"combat", "revive_share", no_lives, "nobody has lives"},
    {"combat", "crit_factor", no_crits, "nothing crits: there is no `crit`"},
    {"action", "drains", no_damage, "it deals nothing that could be drained"},
    {"upgrade", "points", no_points, "no character has points"},
    {"upgrade", "cost", takes_points, "it takes points, and is not bought"},
    {"upgrade", "cost", no_journeys, "upgrades are bought on journeys only"},
    {"encounter", "weight", yardstick, "it is the yardstick, which is not audited"},
    {"", "about", always, "words for people"},
    {"", "note", always, "words for people"},
    {"", "todo", always, "words for people; `check` lists it"},
};

bool covers(std::string_view rule, std::string_view path) {
    return path == rule || (path.starts_with(rule) && path[rule.size()] == '.');
}

std::string why_ignored(const Case& c, const std::string& path) {
    const std::string plain = without_places(c.definition.kind, path);
    for (const Rule& rule : rules)
        if ((rule.kind.empty() || rule.kind == c.definition.kind) && covers(rule.path, plain) &&
            rule.ignored(c))
            return rule.why;
    return {};
}

std::string words_of(const Node& value) {
    switch (value.kind) {
    case Node::Kind::number: return shortest(value.number);
    case Node::Kind::text: return value.text;
    case Node::Kind::truth: return value.truth ? "true" : "false";
    case Node::Kind::list: {
        std::vector<std::string> parts;
        for (const Node& item : value.items) parts.push_back(words_of(item));
        return parts.empty() ? "none" : join(parts, ", ");
    }
    case Node::Kind::table: {
        std::vector<std::string> parts;
        for (const Entry& entry : value.entries)
            parts.push_back(entry.key == "item" ? words_of(entry.value)
                                                : entry.key + " " + words_of(entry.value));
        return join(parts, " + ");
    }
    default: return "";
    }
}

void list_keys(const Case& c, const Node& table, const std::string& parent,
               std::vector<KeyState>& into) {
    for (const Entry& entry : table.entries) {
        if (!entry.value.given()) continue;
        const std::string path = parent.empty() ? entry.key : parent + "." + entry.key;
        const KeyRow* row = find_key(c.definition.kind, without_places(c.definition.kind, path));
        if (row && row->type == Type::tables) {
            for (std::size_t i = 0; i < entry.value.items.size(); ++i)
                list_keys(c, entry.value.items[i], fmt::format("{}.{}", path, i + 1), into);
        } else if (entry.value.kind == Node::Kind::table && (!row || row->type != Type::worn)) {
            list_keys(c, entry.value, path, into);
        } else {
            into.push_back(
                {path, words_of(entry.value), entry.from, why_ignored(c, path), entry.key_span});
        }
    }
}

} // namespace

std::vector<KeyState> key_states(const Armoury& armoury, const RawDefinition& definition) {
    std::vector<KeyState> list;
    list_keys({armoury, definition}, definition.body, "", list);
    return list;
}

} // namespace panoplon
