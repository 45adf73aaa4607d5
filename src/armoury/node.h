// A file's content before it is checked: values with their places, from TOML or CSV alike.
#pragma once

#include "diagnostic/source.h"

#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

struct Entry;

struct Node {
    enum class Kind { nothing, number, text, truth, list, table, date };

    Kind kind = Kind::nothing;
    double number = 0;
    bool truth = false;
    std::string text;
    std::vector<Node> items;    ///< of a list
    std::vector<Entry> entries; ///< of a table, in the order of the file
    Span span;

    [[nodiscard]] bool given() const { return kind != Kind::nothing; }
    /// A list or a table with nothing in it: it says no more than an absent key.
    [[nodiscard]] bool hollow() const;

    [[nodiscard]] const Node* find(std::string_view key) const;
    [[nodiscard]] const Entry* find_entry(std::string_view key) const;
};

struct Entry {
    std::string key;
    Span key_span;
    Node value;
    std::string from; ///< id of the pattern that it comes from; empty: its own
};

inline bool Node::hollow() const {
    return (kind == Kind::list && items.empty()) || (kind == Kind::table && entries.empty());
}

inline const Entry* Node::find_entry(std::string_view key) const {
    for (const Entry& entry : entries)
        if (entry.key == key) return &entry;
    return nullptr;
}

inline const Node* Node::find(std::string_view key) const {
    const Entry* entry = find_entry(key);
    return entry ? &entry->value : nullptr;
}

/// One `[kind.id]` (or `[kind]`) of a file.
struct RawDefinition {
    std::string kind;
    std::string id; ///< empty for a kind of which there is one
    Span span;      ///< of the id
    Node body;
};

} // namespace panoplon
