#include "armoury/write.h"

#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string quoted(const std::string& text) {
    std::string result = "\"";
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if (c == '"' || c == '\\')
            result += {'\\', c};
        else if (c == '\n')
            result += "\\n";
        else if (byte < 0x20 || byte == 0x7f)
            result += fmt::format("\\u{:04x}", byte);
        else
            result += c;
    }
    return result + "\"";
}

std::string inline_value(const Node& value);

/// A list of one item, or an item that is nothing but its id, as it is written by hand.
std::string worn_value(const Node& list) {
    std::vector<std::string> parts;
    for (const Node& item : list.items) {
        if (item.entries.size() == 1) {
            parts.push_back(quoted(item.entries.front().value.text));
            continue;
        }
        std::vector<std::string> inner;
        for (const Entry& entry : item.entries)
            inner.push_back(fmt::format("{} = {}", entry.key,
                                        is_key_of_worn(entry.key) ? inline_value(entry.value)
                                                                  : worn_value(entry.value)));
        parts.push_back("{ " + join(inner, ", ") + " }");
    }
    return parts.size() == 1 ? parts.front() : "[" + join(parts, ", ") + "]";
}

std::string inline_table(const Node& value, bool worn) {
    std::vector<std::string> parts;
    for (const Entry& entry : value.entries)
        if (entry.value.given())
            parts.push_back(fmt::format(
                "{} = {}", entry.key, worn ? worn_value(entry.value) : inline_value(entry.value)));
    return parts.empty() ? "{}" : "{ " + join(parts, ", ") + " }";
}

std::string inline_value(const Node& value) {
    switch (value.kind) {
    case Node::Kind::number: return shortest(value.number);
    case Node::Kind::text: return quoted(value.text);
    case Node::Kind::truth: return value.truth ? "true" : "false";
    case Node::Kind::table: return inline_table(value, false);
    case Node::Kind::list: {
        std::vector<std::string> parts;
        for (const Node& item : value.items) parts.push_back(inline_value(item));
        return "[" + join(parts, ", ") + "]";
    }
    default: return "\"\"";
    }
}

} // namespace

std::string toml_value(const Node& value) {
    return inline_value(value);
}

std::string toml_text(const RawDefinition& definition) {
    const std::string name =
        definition.id.empty() ? definition.kind : definition.kind + "." + definition.id;
    std::string text = fmt::format("[{}]\n", name);
    std::string lists;
    for (const Entry& entry : definition.body.entries) {
        if (!entry.value.given()) continue;
        const KeyRow* row = find_key(definition.kind, entry.key);
        if (!row || row->type != Type::tables) {
            text += fmt::format("{} = {}\n", entry.key,
                                row && row->type == Type::worn ? inline_table(entry.value, true)
                                                               : inline_value(entry.value));
            continue;
        }
        if (entry.value.items.empty()) text += fmt::format("{} = []\n", entry.key);
        for (const Node& item : entry.value.items) {
            lists += fmt::format("[[{}.{}]]\n", name, entry.key);
            for (const Entry& inner : item.entries)
                if (inner.value.given())
                    lists += fmt::format("{} = {}\n", inner.key, inline_value(inner.value));
        }
    }
    return text + lists + "\n";
}

std::vector<const RawDefinition*> of_kind(const std::vector<RawDefinition>& definitions,
                                          std::string_view kind) {
    std::vector<const RawDefinition*> list;
    for (const RawDefinition& definition : definitions)
        if (definition.kind == kind) list.push_back(&definition);
    return list;
}

std::string toml_text(const std::vector<RawDefinition>& definitions) {
    std::string text;
    for (const KindRow& kind : kind_rows())
        for (const RawDefinition* definition : of_kind(definitions, kind.name))
            text += toml_text(*definition);
    return text;
}

} // namespace panoplon
