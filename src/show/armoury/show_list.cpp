#include "show/armoury/show_list.h"

#include "armoury/keys.h"
#include "armoury/live_keys.h"
#include "armoury/references.h"
#include "base/text.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

Document show_kinds(const ReadArmoury& read) {
    Document document;
    Table table{
        "list",
        {as::text("kind", "kind"), as::whole("count", "count"), as::text("", "what it is")}};
    for (const KindRow& kind : kind_rows()) {
        const auto count = std::count_if(
            read.definitions.begin(), read.definitions.end(),
            [&](const RawDefinition& definition) { return definition.kind == kind.name; });
        table.row({std::string(kind.name), count, std::string(kind.meaning)});
        document.json["kinds"][std::string(kind.name)] = count;
    }
    document.text = fmt::format("{}\n", printable(read.armoury.name)) + terminal_text(table);
    document.tables.push_back(std::move(table));
    return document;
}

namespace {

/// The keys that a list of a kind shows, besides id and name.
struct ListColumns {
    std::string_view kind;
    std::vector<std::string> keys;
};

const std::vector<std::string>& columns_of(std::string_view kind) {
    static const std::vector<ListColumns> rows = {
        {"stat", {"better", "min", "max", "cost", "round", "value"}},
        {"pool", {"max", "regen", "period", "start"}},
        {"damage", {"mitigated"}},
        {"tier", {"rank", "mark", "colour", "ground", "budget", "stat_factor", "drop_weight"}},
        {"slot", {"count", "socket"}},
        {"set", {"step.1.count", "step.2.count", "step.3.count"}},
        {"affix", {"tags", "weight", "level"}},
        {"pattern", {"like", "slot", "weight", "level"}},
        {"effect", {"again", "period", "ward", "absorbs", "restore_factor"}},
        {"upgrade", {"max", "cost"}},
        {"action", {"every", "cooldown", "targets", "when"}},
        {"character", {"calling", "actions"}},
        {"foe", {"actions"}},
        {"loadout", {"character", "levels"}},
        {"encounter", {"levels", "foe_level", "weight", "wanted_margin"}},
        {"drops", {"rolls", "luck"}},
        {"journey", {"character", "start", "policy"}},
    };
    static const std::vector<std::string> none;
    for (const ListColumns& row : rows)
        if (row.kind == kind) return row.keys;
    return none;
}

/// Who gives each stat: items, tiers and others that modify it, by the reference's name.
std::string givers_of(const std::vector<Reference>& references, const std::string& stat) {
    std::vector<std::string> names;
    for (const Reference& reference : references) {
        const std::string_view key = last_part(reference.path);
        const bool gives =
            key == "add" || key == "percent" || key == "times" || key == "base" || key == "growth";
        if (reference.to != "stat." + stat || !gives) continue;
        if (std::find(names.begin(), names.end(), reference.from) == names.end())
            names.push_back(reference.from);
    }
    std::sort(names.begin(), names.end());
    constexpr std::size_t most = 4;
    const std::size_t total = names.size();
    if (total > most) names.resize(most);
    return total == 0     ? "nobody"
           : total > most ? fmt::format("{} and {} more", join(names, ", "), total - most)
                          : join(names, ", ");
}

/// Tiers by rank, all others by id: in one order however files are named.
std::vector<const RawDefinition*> in_order(const ReadArmoury& read, const std::string& kind) {
    std::vector<const RawDefinition*> list = of_kind(read.definitions, kind);
    const auto rank = [&](const RawDefinition& definition) {
        const TierId tier = find_id<TierKind>(read.armoury.tiers, definition.id);
        return tier.given() ? read.armoury.at(tier).rank : 0;
    };
    std::sort(list.begin(), list.end(), [&](const RawDefinition* a, const RawDefinition* b) {
        if (kind == "tier") return rank(*a) < rank(*b);
        return a->id < b->id;
    });
    return list;
}

/// "attack 6, max_health 90": the keys below one, by their last word.
std::string amounts_below(const std::vector<KeyState>& keys, std::string_view parent) {
    std::vector<std::string> words;
    for (const KeyState& key : keys)
        if (key.path.starts_with(parent) && !key.value.empty())
            words.push_back(
                fmt::format("{} {}", std::string_view(key.path).substr(parent.size()), key.value));
    return join(words, ", ");
}

/// "2 marsh_gnat, 1–3 mud_crab at 20": who comes, how many and when.
std::string foes_of(const Armoury& armoury, const std::string& encounter) {
    const EncounterId id = find_id<EncounterKind>(armoury.encounters, encounter);
    std::vector<std::string> words;
    for (const FoeGroup& group : id.given() ? armoury.at(id).foes : std::vector<FoeGroup>()) {
        std::string text = group.most == group.count
                               ? fmt::format("{} ", group.count)
                               : fmt::format("{}–{} ", group.count, group.most);
        text += armoury.at(group.foe).id;
        if (group.at > 0) text += fmt::format(" at {}", shortest(to_units(group.at)));
        words.push_back(std::move(text));
    }
    return join(words, ", ");
}

/// What a kind's list tells beyond keys: a header, and the words of a definition.
struct ToldBeside {
    std::string_view kind;
    const char *key, *header;
};
constexpr ToldBeside told_beside[] = {
    {"stat", "given_by", "given by"}, {"foe", "base", "base"}, {"encounter", "foes", "foes"}};

} // namespace

Document show_definitions(const ReadArmoury& read, const std::string& kind) {
    Document document;
    const bool stats = kind == "stat";
    const std::vector<Reference> references =
        stats ? find_references(read.definitions) : std::vector<Reference>();
    Table table{"list", {as::text(kind, kind).json("id"), as::text("name", "name")}};
    for (const std::string& key : columns_of(kind)) table.columns.push_back(as::text(key, key));
    for (const ToldBeside& beside : told_beside)
        if (beside.kind == kind) table.columns.push_back(as::text(beside.key, beside.header));
    for (const RawDefinition* one : in_order(read, kind)) {
        const RawDefinition& definition = *one;
        const std::vector<KeyState> keys = key_states(read.armoury, definition);
        const auto value = [&](const std::string& path) {
            for (const KeyState& key : keys)
                if (key.path == path) return key.value;
            return std::string();
        };
        std::vector<Cell> row = {definition.id, value("name")};
        for (const std::string& key : columns_of(kind)) row.emplace_back(value(key));
        if (stats) row.emplace_back(givers_of(references, definition.id));
        if (kind == "foe") row.emplace_back(amounts_below(keys, "base."));
        if (kind == "encounter") row.emplace_back(foes_of(read.armoury, definition.id));
        table.row(std::move(row));
    }
    document.json[kind] = rows_json(table);
    document.text =
        table.rows.empty() ? fmt::format("  the armoury has no {}\n", kind) : terminal_text(table);
    document.tables.push_back(std::move(table));
    return document;
}

Document show_single(const ReadArmoury& read, const std::string& kind) {
    Document document;
    Table table{"list", {as::text("key", kind), as::text("value", "value")}};
    Json& json = document.json[kind];
    json = Json::object();
    for (const RawDefinition& definition : read.definitions) {
        if (definition.kind != kind) continue;
        for (const KeyState& key : key_states(read.armoury, definition)) {
            table.row({key.path, key.value});
            json[key.path] = key.value;
        }
    }
    document.text = table.rows.empty() ? fmt::format("  the armoury has no [{}]\n", kind)
                                       : terminal_text(table);
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
