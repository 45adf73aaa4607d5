#include "armoury/write.h"

#include "armoury/cells.h"
#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <optional>

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
                                        entry.key == "item" ? quoted(entry.value.text)
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

std::string definition_text(const RawDefinition& definition) {
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

/// One cell of a definition: its path with places, and what it holds.
struct Cell {
    std::string path, text;
};

/// The cells of a definition, in order; none when a cell can't hold something.
class Cells {
  public:
    explicit Cells(const RawDefinition& definition) : kind_(definition.kind) {
        walk(definition.body, "");
    }
    [[nodiscard]] bool fits() const { return fits_; }
    [[nodiscard]] const std::vector<Cell>& list() const { return list_; }

  private:
    void walk(const Node& table, const std::string& parent) {
        for (const Entry& entry : table.entries)
            if (entry.value.given())
                look_at(parent.empty() ? entry.key : parent + "." + entry.key, entry.value);
    }

    void look_at(const std::string& path, const Node& value) {
        const auto located = locate_key(kind_, path);
        if (!located) {
            fits_ = false;
            return;
        }
        const Type type = located->row->type;
        if (type == Type::tables) {
            for (std::size_t i = 0; i < value.items.size(); ++i) {
                if (value.items[i].entries.empty()) fits_ = false;
                walk(value.items[i], fmt::format("{}.{}", path, i + 1));
            }
            if (value.items.empty()) fits_ = false;
        } else if (value.kind == Node::Kind::table) {
            if (value.entries.empty() || type == Type::worn) fits_ = false;
            walk(value, path);
        } else if (const auto text = cell_text(value, type, !located->suffix.empty())) {
            list_.push_back({path, *text});
        } else {
            fits_ = false;
        }
    }

    std::string kind_;
    bool fits_ = true;
    std::vector<Cell> list_;
};

/// Columns that keep the order of every row; none where rows disagree.
std::optional<std::vector<std::string>> columns_for(const std::vector<Cells>& rows) {
    std::vector<std::string> columns;
    for (const Cells& row : rows) {
        std::size_t after = 0; // the next new column goes here
        for (const Cell& cell : row.list()) {
            const auto at = std::find(columns.begin(), columns.end(), cell.path);
            const auto place = static_cast<std::size_t>(at - columns.begin());
            if (at == columns.end()) {
                columns.insert(columns.begin() + static_cast<std::ptrdiff_t>(after), cell.path);
                ++after;
            } else {
                if (place < after) return std::nullopt;
                after = place + 1;
            }
        }
    }
    return columns;
}

std::optional<std::string> table_text(const std::string& kind,
                                      const std::vector<const RawDefinition*>& definitions) {
    std::vector<Cells> rows;
    for (const RawDefinition* definition : definitions) {
        rows.emplace_back(*definition);
        if (!rows.back().fits()) return std::nullopt;
    }
    const auto columns = columns_for(rows);
    if (!columns) return std::nullopt;
    std::string text = kind;
    for (const std::string& column : *columns) text += "," + column;
    text += "\n";
    for (std::size_t r = 0; r < rows.size(); ++r) {
        text += definitions[r]->id;
        auto next = rows[r].list().begin();
        for (const std::string& column : *columns) {
            text += ",";
            if (next == rows[r].list().end() || next->path != column) continue;
            text += csv_cell(next->text);
            ++next;
        }
        text += "\n";
    }
    return text;
}

std::vector<const RawDefinition*> of_kind(const std::vector<RawDefinition>& definitions,
                                          std::string_view kind) {
    std::vector<const RawDefinition*> list;
    for (const RawDefinition& definition : definitions)
        if (definition.kind == kind) list.push_back(&definition);
    return list;
}

} // namespace

std::string toml_text(const std::vector<RawDefinition>& definitions) {
    std::string text;
    for (const KindRow& kind : kind_rows())
        for (const RawDefinition* definition : of_kind(definitions, kind.name))
            text += definition_text(*definition);
    return text;
}

std::vector<WrittenFile> csv_files(const std::vector<RawDefinition>& definitions) {
    std::vector<WrittenFile> files = {{"armoury.toml", ""}};
    std::string rest;
    for (const KindRow& kind : kind_rows()) {
        const auto list = of_kind(definitions, kind.name);
        if (list.empty()) continue;
        const auto table = kind.single ? std::nullopt : table_text(std::string(kind.name), list);
        if (table)
            files.push_back({std::string(kind.name) + ".csv", *table});
        else
            for (const RawDefinition* definition : list) rest += definition_text(*definition);
    }
    files.front().text = std::move(rest);
    return files;
}

} // namespace panoplon
