#include "show/armoury/show_export.h"

#include "armoury/keys.h"
#include "armoury/write.h"
#include "base/text.h"
#include "show/text_table.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

Json number_json(double number) {
    constexpr double whole_up_to = 9e15;
    if (number == std::floor(number) && std::abs(number) < whole_up_to)
        return static_cast<std::int64_t>(number);
    return number;
}

/// The entries of a table: what the table of keys knows in its order; amounts, whose order means
/// nothing, by name; other names as they stand.
std::vector<const Entry*> in_order(const Node& table, const std::string& kind,
                                   const std::string& parent) {
    std::vector<const Entry*> entries;
    const auto row_of = [&](const Entry* entry) {
        return find_key(kind, parent.empty() ? entry->key : parent + "." + entry->key);
    };
    for (const Entry& entry : table.entries) {
        const KeyRow* row = row_of(&entry);
        const bool says_nothing = entry.value.hollow() && row && !row->required;
        if (entry.value.given() && !says_nothing) entries.push_back(&entry);
    }
    const KeyRow* own = parent.empty() ? nullptr : find_key(kind, parent);
    if (own && (own->type == Type::amounts || own->type == Type::growths))
        std::sort(entries.begin(), entries.end(),
                  [](const Entry* a, const Entry* b) { return a->key < b->key; });
    std::stable_sort(entries.begin(), entries.end(), [&](const Entry* a, const Entry* b) {
        const KeyRow* x = row_of(a);
        const KeyRow* y = row_of(b);
        return x && y && x < y; // rows lie in one array
    });
    return entries;
}

/// A value of a kind's key, or, with an empty path, of its whole table.
Json value_json(const Node& value, const std::string& kind, const std::string& path) {
    switch (value.kind) {
    case Node::Kind::number: return number_json(value.number);
    case Node::Kind::text: return value.text;
    case Node::Kind::truth: return value.truth;
    case Node::Kind::list: {
        Json list = Json::array();
        for (const Node& item : value.items) list.push_back(value_json(item, kind, path));
        return list;
    }
    case Node::Kind::table: {
        Json table = Json::object();
        for (const Entry* entry : in_order(value, kind, path))
            table[entry->key] =
                value_json(entry->value, kind, path.empty() ? entry->key : path + "." + entry->key);
        return table;
    }
    default: return nullptr;
    }
}

/// A default as the key's type has it.
Json fallback_json(const KeyRow& row) {
    double number = 0;
    const std::string_view text = row.fallback;
    switch (row.type) {
    case Type::truth: return text == "true";
    case Type::number:
    case Type::whole:
    case Type::time:
    case Type::unlimited_whole: {
        const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
        if (error == std::errc() && end == text.data() + text.size()) return number_json(number);
        return std::string(text);
    }
    default: return std::string(text);
    }
}

} // namespace

Json resolved_json(const ReadArmoury& read) {
    Json json = Json::object();
    for (const KindRow& kind : kind_rows())
        for (const RawDefinition& definition : read.definitions) {
            if (definition.kind != kind.name) continue;
            Json body = value_json(definition.body, definition.kind, "");
            for (const KeyRow& row : key_rows())
                if (row.kind == kind.name && !row.fallback.empty() &&
                    directly_under(row.path, "") && !body.contains(std::string(row.path)))
                    body[std::string(row.path)] = fallback_json(row);
            if (kind.single)
                json[definition.kind] = std::move(body);
            else
                json[definition.kind][definition.id] = std::move(body);
        }
    return json;
}

namespace {

constexpr const char* id_pattern = "^[a-z0-9][a-z0-9_]*$";
constexpr double as_good_as_endless = 1e9;

Json id_schema() {
    return {{"type", "string"}, {"pattern", id_pattern}};
}

Json number_schema(const KeyRow& row, const char* type) {
    Json schema = {{"type", type}};
    if (row.low == 0 && row.high == 0) return schema;
    if (row.low > -as_good_as_endless) schema["minimum"] = number_json(row.low);
    if (row.high < as_good_as_endless) schema["maximum"] = number_json(row.high);
    return schema;
}

Json list_of(Json items) {
    return {{"type", "array"}, {"items", std::move(items)}};
}

/// A list, or one of it by itself.
Json one_or_list(const Json& item) {
    return {{"anyOf", {item, list_of(item)}}};
}

Json table_of(Json value) {
    return {{"type", "object"},
            {"propertyNames", {{"pattern", id_pattern}}},
            {"additionalProperties", std::move(value)}};
}

Json any_of(Json a, Json b) {
    return {{"anyOf", {std::move(a), std::move(b)}}};
}

Json pair_of(Json item) {
    Json list = list_of(std::move(item));
    list["minItems"] = 2;
    list["maxItems"] = 2;
    return list;
}

Json keys_schema(std::string_view kind, std::string_view parent);

Json value_schema(const KeyRow& row) {
    const Json text = {{"type", "string"}};
    const Json number = number_schema(row, "number");
    const Json whole = number_schema(row, "integer");
    const Json formula = {{"type", {"string", "number"}}};
    switch (row.type) {
    case Type::text:
    case Type::id_name: return text;
    case Type::texts: return one_or_list(text);
    case Type::number:
    case Type::time: return number;
    case Type::whole: return whole;
    case Type::unlimited_whole: return any_of(whole, {{"const", "unlimited"}});
    case Type::timed:
        return any_of({{"type", "number"}, {"exclusiveMinimum", 0}}, {{"const", "always"}});
    case Type::choice: return {{"enum", split(row.names, '|')}};
    case Type::colour: return {{"type", "string"}, {"pattern", "^#[0-9a-fA-F]{6}$"}};
    case Type::formula: return formula;
    case Type::reference: return id_schema();
    case Type::references: return one_or_list(id_schema());
    case Type::quantity: return any_of(number, {{"type", "string"}});
    case Type::pool_quantities: return table_of(any_of(number, {{"type", "string"}}));
    case Type::amounts: return table_of(number);
    case Type::growths:
    case Type::pool_formulas:
    case Type::damage_formulas: return table_of(formula);
    case Type::counts: return table_of(whole);
    case Type::levels: return pair_of(whole);
    case Type::pair: return pair_of(number);
    case Type::targets: return any_of(whole, {{"enum", {"front", "all"}}});
    case Type::worn: return table_of({{"$ref", "#/$defs/worn"}});
    case Type::truth: return {{"type", "boolean"}};
    case Type::wanted_items:
        return any_of(one_or_list(id_schema()), keys_schema(row.kind, row.path));
    case Type::table: return keys_schema(row.kind, row.path);
    case Type::tables: return list_of(keys_schema(row.kind, row.path));
    case Type::bearer: break;
    }
    return true;
}

Json keys_schema(std::string_view kind, std::string_view parent) {
    Json properties = Json::object();
    Json required = Json::array();
    for (const KeyRow& row : key_rows()) {
        if (row.kind != kind || !directly_under(row.path, parent)) continue;
        const std::string key(last_part(row.path));
        Json schema = value_schema(row);
        if (schema.is_object()) schema["description"] = row.meaning;
        properties[key] = std::move(schema);
        if (row.required) required.push_back(key);
    }
    Json schema = {
        {"type", "object"}, {"properties", std::move(properties)}, {"additionalProperties", false}};
    if (!required.empty()) schema["required"] = std::move(required);
    return schema;
}

} // namespace

Json format_schema() {
    Json properties = Json::object();
    for (const KindRow& kind : kind_rows()) {
        Json body = keys_schema(kind.name, "");
        Json schema = kind.single ? std::move(body) : table_of(std::move(body));
        schema["description"] = kind.meaning;
        properties[std::string(kind.name)] = std::move(schema);
    }
    const Json socketed = {{"type", "object"},
                           {"required", {"item"}},
                           {"properties",
                            {{"item", id_schema()},
                             {"rolled", table_of({{"type", "number"}})},
                             {"affixes", one_or_list(id_schema())}}},
                           {"additionalProperties", {{"$ref", "#/$defs/worn"}}}};
    const Json one = any_of(id_schema(), socketed);
    return {{"$schema", "https://json-schema.org/draft/2020-12/schema"},
            {"title", "An armoury of Panoplon, format 1"},
            {"type", "object"},
            {"required", {"armoury", "combat"}},
            {"properties", std::move(properties)},
            {"additionalProperties", false},
            {"$defs", {{"worn", one_or_list(one)}}}};
}

Document show_export(const ReadArmoury& read) {
    Document document;
    const Json resolved = resolved_json(read);
    document.json["resolved"] = resolved;
    document.files.push_back({"armoury.json", resolved.dump(2) + "\n"});
    document.files.push_back({"armoury.schema.json", format_schema().dump(2) + "\n"});
    document.files.push_back({"as-toml/armoury.toml", toml_text(read.definitions)});
    std::vector<std::string> tables;
    std::string notes;
    for (WrittenFile& file : csv_files(read.definitions)) {
        if (file.path.ends_with(".csv")) tables.push_back(file.path);
        std::vector<std::string> elsewhere;
        for (const RawDefinition* one : file.elsewhere) elsewhere.push_back(one->id);
        if (!elsewhere.empty())
            notes += folded(fmt::format("Not in {} but in as-csv/armoury.toml, since columns can't "
                                        "keep the order in which they restore: {}.",
                                        file.path, join(elsewhere, ", ")),
                            100, 0) +
                     "\n";
        document.files.push_back({"as-csv/" + file.path, std::move(file.text)});
    }
    document.text = fmt::format(
        "{}: {} resolved, patterns and defaults written out.\n"
        "With -o DIR: armoury.json and armoury.schema.json; as-toml, an armoury in one file; "
        "as-csv, one in tables ({}).\nWith --json: the same JSON here.\n",
        printable(read.armoury.name), counted(read.definitions.size(), "definition"),
        join(tables, ", "));
    document.text += notes;
    return document;
}

} // namespace panoplon
